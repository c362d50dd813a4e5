using Tensarch.Core.Catalogue;
using Tensarch.Core.Students;

namespace Tensarch.Core.Sessions;

/// <summary>What a same-day test says. It applies to this session only and moves no stage.</summary>
public enum DayGateResult
{
    Go,

    /// <summary>An easier version of what needs the gate.</summary>
    Easier,

    /// <summary>Not today: the substitute instead.</summary>
    NotToday,
}

/// <summary>One thing to see or to count in a day gate's test.</summary>
/// <param name="Asks">A question in plain words.</param>
/// <param name="AtMost">The answer is a number of at most this; with neither bound it is a yes.</param>
/// <param name="AtLeast">The answer is a number of at least this.</param>
/// <param name="Otherwise">What it means when it is not so, or was not answered.</param>
public sealed record DayGateCheck(string Key, string Asks, DayGateResult Otherwise, int? AtMost = null, int? AtLeast = null);

/// <summary>What is done instead.</summary>
/// <param name="For">Of this drill alone; of every drill that needs the gate when none.</param>
/// <param name="Unless">Not when this check failed: a pinched knee does no other squat.</param>
public sealed record DayGateSubstitute(string Drill, string Variant, string? For = null, string? Unless = null);

/// <summary>Can this body do this today? A short test after the warm-up, as data.</summary>
/// <param name="Substitutes">In order: the first whose every tag is free is taken.</param>
public sealed record DayGate(
    string Key,
    string Name,
    string Test,
    IReadOnlyList<DayGateCheck> Checks,
    IReadOnlyList<DayGateSubstitute> Substitutes
);

/// <param name="Failed">Keys of the checks that were not so.</param>
/// <param name="Instead">What to do instead of the drill; none when it may go ahead or when nothing is free.</param>
public sealed record DayGateVerdict(DayGateResult Result, IReadOnlyList<string> Failed, DayGateSubstitute? Instead);

/// <summary>Judges day gates: the worst check decides.</summary>
public static class DayGates
{
    /// <param name="drill">The drill that needs the gate.</param>
    /// <param name="answers">By check: 1 for yes and 0 for no, or the number. What is missing was not seen.</param>
    public static DayGateVerdict Judge(
        DayGate gate,
        string drill,
        IReadOnlyDictionary<string, int> answers,
        DayBars bars,
        CatalogueContent catalogue
    )
    {
        var failed = gate.Checks.Where(c => !Holds(c, answers)).ToList();
        var result = failed.Select(c => c.Otherwise).DefaultIfEmpty(DayGateResult.Go).Max();
        var keys = failed.Select(c => c.Key).ToList();
        return new(result, keys, result == DayGateResult.Go ? null : Instead(gate, drill, keys, bars, catalogue));
    }

    /// <summary>The first substitute whose every tag is free; limited is not free.</summary>
    public static DayGateSubstitute? Instead(
        DayGate gate,
        string drill,
        IReadOnlyCollection<string> failed,
        DayBars bars,
        CatalogueContent catalogue
    ) =>
        gate.Substitutes.FirstOrDefault(s =>
        {
            if (s.For is not null && s.For != drill || s.Unless is not null && failed.Contains(s.Unless))
                return false;
            var other = catalogue.Drill(s.Drill);
            var variant = other.Variants.First(v => v.Key == s.Variant);
            return bars.LeaveFree(other.LoadsOf(variant, other.DoseOf(variant)));
        });

    private static bool Holds(DayGateCheck check, IReadOnlyDictionary<string, int> answers) =>
        answers.TryGetValue(check.Key, out var said)
        && (
            check is { AtMost: null, AtLeast: null }
                ? said == 1
                : (check.AtMost is not { } most || said <= most) && (check.AtLeast is not { } least || said >= least)
        );
}
