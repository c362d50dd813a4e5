using System.Text.Json;
using System.Text.Json.Serialization;

namespace Tensarch.Core.Students;

/// <summary>What a drill loads: the regions on which pain is logged, then the circumstances.</summary>
public enum LoadTag
{
    Neck,
    Wrist,
    Shoulder,
    Elbow,
    LowBack,
    HipFront,
    HipDeepFlexion,
    Hamstring,
    Adductor,
    KneeDeepFlexion,
    KneeTwist,
    Ankle,
    Inverted,
    HeadDown,
    PassiveEndRange,
    FallRisk,
    BreathStrain,

    /// <summary>Lying on the back.</summary>
    Supine,

    /// <summary>Lying face down.</summary>
    Prone,

    /// <summary>The spine turned.</summary>
    Twist,

    /// <summary>Landing: runs, skips, hops.</summary>
    Impact,

    /// <summary>The spine rounded: heavy at the end of it, or under load.</summary>
    SpineFlexion,
}

public static class LoadTags
{
    public static readonly IReadOnlyList<LoadTag> All = Enum.GetValues<LoadTag>();

    public static readonly IReadOnlyList<LoadTag> Regions = [.. All.TakeWhile(tag => tag != LoadTag.Inverted)];

    /// <summary>Held so many seconds and more at a time, whatever is done loads these heavily where it loads them, and lightly below.</summary>
    internal static readonly IReadOnlyList<(LoadTag Tag, int Seconds)> HeavyFrom = [(LoadTag.PassiveEndRange, 45), (LoadTag.Supine, 61)];

    public static bool IsRegion(this LoadTag tag) => tag < LoadTag.Inverted;
}

/// <summary>Reads and writes an enum by its names in kebab case, and refuses numbers.</summary>
public sealed class KebabCaseEnumConverter<T>() : JsonStringEnumConverter<T>(JsonNamingPolicy.KebabCaseLower, allowIntegerValues: false)
    where T : struct, Enum;
