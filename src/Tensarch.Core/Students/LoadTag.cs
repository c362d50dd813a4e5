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
}

public static class LoadTags
{
    public static readonly IReadOnlyList<LoadTag> All = Enum.GetValues<LoadTag>();

    public static readonly IReadOnlyList<LoadTag> Regions = [.. All.TakeWhile(tag => tag != LoadTag.Inverted)];

    public static bool IsRegion(this LoadTag tag) => tag < LoadTag.Inverted;
}

/// <summary>Reads and writes an enum by its names in kebab case, and refuses numbers.</summary>
public sealed class KebabCaseEnumConverter<T>() : JsonStringEnumConverter<T>(JsonNamingPolicy.KebabCaseLower, allowIntegerValues: false)
    where T : struct, Enum;
