namespace Tensarch.Core.Students;

/// <summary>How much a drill loads a tag.</summary>
public enum LoadLevel
{
    None,
    Light,
    Heavy,
}

/// <summary>What a student may do with a tag on a day.</summary>
public enum BarLevel
{
    Free,

    /// <summary>Light loads only.</summary>
    LightOnly,

    /// <summary>Nothing with this tag.</summary>
    OffLimits,
}
