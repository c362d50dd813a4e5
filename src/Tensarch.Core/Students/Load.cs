namespace Tensarch.Core.Students;

/// <summary>How much a drill loads a tag.</summary>
public enum Load
{
    None,
    Light,
    Heavy,
}

/// <summary>What a student may do with a tag today.</summary>
public enum CautionLevel
{
    Free,

    /// <summary>Light loads only.</summary>
    Limited,

    /// <summary>Nothing with this tag.</summary>
    Held,
}
