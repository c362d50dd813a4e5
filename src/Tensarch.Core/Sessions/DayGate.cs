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
/// <param name="Region">Its number is pain in this region: a fact about the body as well.</param>
public sealed record DayGateCheck(
    string Key,
    string Asks,
    DayGateResult Otherwise,
    int? AtMost = null,
    int? AtLeast = null,
    LoadTag? Region = null
)
{
    private const int MostPain = 10;

    /// <summary>So far beyond its bound one counts.</summary>
    private const int Beyond = 3;

    /// <summary>The answers that can be given: no and yes as 0 and 1, or numbers from 0 on.</summary>
    public IReadOnlyList<int> Offered() =>
        this is { AtMost: null, AtLeast: null } ? [0, 1]
        : Region is null ? [.. Enumerable.Range(0, Math.Max(AtLeast ?? 0, AtMost ?? 0) + Beyond + 1)]
        : [.. Enumerable.Range(0, MostPain + 1)];

    /// <summary>Those of them that are what it asks for; what was not answered is not.</summary>
    public IReadOnlyList<int> Good() => [.. Offered().Where(Holds)];

    /// <summary>Those of them that are pain in its region, which is a fact about the body as well.</summary>
    public IReadOnlyList<int> Felt() => Region is null ? [] : [.. Offered().Where(pain => pain > 0)];

    /// <summary>As what they are felt: how strong it is says whether that is met as something worse.</summary>
    public SignalKind? Signal => Region is null ? null : SignalKind.DullPain;

    public bool Holds(int answer) =>
        this is { AtMost: null, AtLeast: null }
            ? answer == 1
            : (AtMost is not { } most || answer <= most) && (AtLeast is not { } least || answer >= least);
}

/// <summary>One drill at one variant.</summary>
/// <param name="InsteadOf">Only where one of these needed the gate; always when none is named.</param>
public sealed record DrillAt(string Drill, string Variant, IReadOnlyList<string>? InsteadOf = null);

/// <summary>A drill that is a day gate's test.</summary>
/// <param name="Variant">In which it tests; the hardest one of the stage that needs no test itself when none is named.</param>
public sealed record DayGateTest(string Drill, string? Variant = null);

/// <summary>What is done instead. Pain unloads, weakness trains lighter: it depends on the check that failed.</summary>
/// <param name="Failed">For these checks.</param>
/// <param name="Ladders">On these ladders; on all of them when none is named.</param>
/// <param name="Drills">One after the other.</param>
public sealed record DayGateSubstitute(IReadOnlyList<string> Failed, IReadOnlyList<DrillAt> Drills, IReadOnlyList<string>? Ladders = null);

/// <summary>Can this body do this today? A short test after the warm-up, or a question, as data.</summary>
/// <param name="Test">In words.</param>
/// <param name="Tests">The drills that together are the test; none when it is a question alone.</param>
/// <param name="Substitutes">In order: the first whose every tag is free is taken.</param>
/// <param name="FirstTime">Asked before what was not done of late: a drill in a variant that is new.</param>
public sealed record DayGate(
    string Key,
    string Name,
    string Test,
    IReadOnlyList<DayGateTest> Tests,
    IReadOnlyList<DayGateCheck> Checks,
    IReadOnlyList<DayGateSubstitute> Substitutes,
    bool FirstTime = false
)
{
    /// <summary>What is done instead when a check failed; none when nothing that the data names is free.</summary>
    /// <param name="needing">The drills that needed the gate.</param>
    public DayGateSubstitute? Instead(string failed, string ladder, IReadOnlySet<string> needing, DayBars bars, CatalogueContent content) =>
        Substitutes
            .Where(s => s.Failed.Contains(failed) && s.Ladders?.Contains(ladder) != false)
            .Select(s => s with { Drills = [.. s.Drills.Where(d => d.InsteadOf?.Any(needing.Contains) != false)] })
            .FirstOrDefault(s => s.Drills.Count > 0 && s.Drills.All(d => IsFree(d, bars, content)));

    private static bool IsFree(DrillAt at, DayBars bars, CatalogueContent content)
    {
        var drill = content.Drill(at.Drill);
        var variant = drill.VariantAt(at.Variant);
        return bars.LeaveFree(drill.LoadsOf(variant, drill.DoseOf(variant)));
    }
}

/// <param name="Failed">Keys of the checks that were not so, the one that decides first.</param>
public sealed record DayGateVerdict(DayGateResult Result, IReadOnlyList<string> Failed);

/// <summary>Judges day gates: the worst check decides, and of equals the first.</summary>
public static class DayGates
{
    /// <param name="answers">By check: 1 for yes and 0 for no, or the number. What is missing was not seen.</param>
    public static DayGateVerdict Judge(DayGate gate, IReadOnlyDictionary<string, int> answers)
    {
        var failed = gate
            .Checks.Where(c => !(answers.TryGetValue(c.Key, out var said) && c.Holds(said)))
            .OrderByDescending(c => c.Otherwise)
            .ToList();
        return new(failed.Select(c => c.Otherwise).DefaultIfEmpty(DayGateResult.Go).Max(), [.. failed.Select(c => c.Key)]);
    }
}
