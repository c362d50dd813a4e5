namespace Tensarch.Core.Students;

/// <summary>A part of the body that one points at, in plain words, with the region whose work ends and rests for it.</summary>
/// <param name="Sided">It has a left and a right.</param>
public sealed record BodyPlace(string Key, string Name, LoadTag Region, bool Sided);

/// <summary>The places that are offered where pain is told. The first of a region stands for it where only the region is known.</summary>
public static class BodyPlaces
{
    public static readonly IReadOnlyList<BodyPlace> All =
    [
        new("neck", "neck", LoadTag.Neck, false),
        new("shoulder", "shoulder", LoadTag.Shoulder, true),
        new("elbow", "elbow", LoadTag.Elbow, true),
        new("wrist", "wrist", LoadTag.Wrist, true),
        new("fingers", "fingers", LoadTag.Wrist, true),
        new("lower-back", "lower back", LoadTag.LowBack, false),
        new("upper-back", "upper back", LoadTag.LowBack, false),
        new("front-of-hip", "front of the hip", LoadTag.HipFront, true),
        new("fold-of-hip", "fold of the hip", LoadTag.HipDeepFlexion, true),
        new("outer-hip", "outer hip", LoadTag.HipDeepFlexion, true),
        new("back-of-thigh", "back of the thigh", LoadTag.Hamstring, true),
        new("sitting-bone", "sitting bone", LoadTag.Hamstring, true),
        new("inner-thigh", "inner thigh", LoadTag.Adductor, true),
        new("front-of-knee", "front of the knee", LoadTag.KneeDeepFlexion, true),
        new("side-of-knee", "side of the knee", LoadTag.KneeTwist, true),
        new("ankle", "ankle", LoadTag.Ankle, true),
    ];

    public static BodyPlace? Find(string key) => All.FirstOrDefault(p => p.Key == key);

    /// <summary>None where it is not known, or is no place of the region.</summary>
    public static BodyPlace? Of(string? key, LoadTag? region) => All.FirstOrDefault(p => p.Key == key && p.Region == region);
}
