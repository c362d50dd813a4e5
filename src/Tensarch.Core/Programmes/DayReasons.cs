using Tensarch.Core.Students;

namespace Tensarch.Core.Programmes;

/// <summary>A session of a plan as its reasons need it.</summary>
/// <param name="Exposed">Skills that it is an exposure of.</param>
/// <param name="Broken">Codes of the rules that it is pinned over.</param>
public sealed record ReasonedDay(
    DateOnly Day,
    DayHalf Half,
    IReadOnlyList<string> Exposed,
    IReadOnlyList<string> Tested,
    int TestMinutes,
    bool Pinned,
    bool ByHand,
    IReadOnlyList<string> Broken,
    IReadOnlyList<DayReason> WhyNotMore
);

/// <summary>What a week loads, as people read it.</summary>
public sealed record ReasonedLoad(LoadTag Tag, Side? Limb, double Load, double Ceiling);

/// <summary>Why a session of a plan is as it is: the week, what it gives each skill, what holds it down, and what a coach set.</summary>
public static class DayReasons
{
    /// <summary>From this share of the ceiling on a week is near it.</summary>
    private const double Near = 0.85;
    private const int MostLoads = 3;

    /// <param name="week">All sessions of its week, in order of time; it is one of them.</param>
    /// <param name="slot">What the coach set for the day; none where it is there by hand.</param>
    /// <param name="loads">Of the week.</param>
    public static IReadOnlyList<DayReason> Of(
        ReasonedDay day,
        IReadOnlyList<ReasonedDay> week,
        bool backOff,
        TrainingSlot? slot,
        IEnumerable<ReasonedLoad> loads
    )
    {
        var reasons = new List<DayReason>();
        if (backOff)
            reasons.Add(new(DayReasonKind.BackOff));
        if (slot?.Theme is { } theme)
            reasons.Add(new(DayReasonKind.Theme, Theme: theme));
        if (slot?.Light == true)
            reasons.Add(new(DayReasonKind.LightDay));
        foreach (var skill in day.Exposed)
        {
            var all = week.Where(d => d.Exposed.Contains(skill)).ToList();
            reasons.Add(new(DayReasonKind.Exposure, skill, Number: 1 + all.IndexOf(day), Of: all.Count));
        }
        foreach (var skill in day.Tested)
            reasons.Add(new(DayReasonKind.Tested, skill, Number: day.TestMinutes));
        reasons.AddRange(day.WhyNotMore);
        reasons.AddRange(
            BothSides(loads)
                .Where(l => l.Ceiling > 0 && l.Load >= Near * l.Ceiling)
                .OrderByDescending(l => l.Load / l.Ceiling)
                .Take(MostLoads)
                .Select(l => new DayReason(DayReasonKind.NearCeiling, Tag: l.Tag, Limb: l.Limb, Number: l.Load, Of: l.Ceiling))
        );
        if (day.Pinned)
            reasons.Add(new(DayReasonKind.Pinned));
        if (day.ByHand)
            reasons.Add(new(DayReasonKind.ByHand));
        reasons.AddRange(day.Broken.Select(code => new DayReason(DayReasonKind.Bent, Code: code)));
        return reasons;
    }

    /// <summary>Both sides once where they carry the same.</summary>
    private static IEnumerable<ReasonedLoad> BothSides(IEnumerable<ReasonedLoad> loads) =>
        from load in loads
        group load by (load.Tag, load.Load, load.Ceiling) into same
        select same.Count() > 1 ? same.First() with { Limb = null } : same.First();
}
