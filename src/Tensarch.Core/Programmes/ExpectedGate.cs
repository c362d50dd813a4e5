using Tensarch.Core.Catalogue;
using Tensarch.Core.Measuring;
using Tensarch.Core.Skills;

namespace Tensarch.Core.Programmes;

/// <summary>When the gate that a student stands before may be passed under a plan.</summary>
/// <param name="Code">
/// <c>openNow</c>; <c>expected</c> with the days between which its tests are likely to be met; <c>notAtThisSlope</c> where a test does not come
/// nearer, or not within a year; <c>notEnoughPlanned</c> where the plan ends before the sessions that it asks for; <c>unknown</c> where too little
/// was measured; <c>blocked</c>, <c>waiting</c>, <c>owned</c>.
/// </param>
/// <param name="Earliest">No test that was not met can be met before.</param>
/// <param name="Latest">None where the slope's interval has no end within a year, or a test has none yet.</param>
/// <param name="Decides">The test that takes longest, by its measure or drill; none where it is the sessions that are asked for.</param>
public sealed record ExpectedGate(
    string Skill,
    Side? Side,
    int Stage,
    string Code,
    DateOnly? Earliest = null,
    DateOnly? Latest = null,
    string? Decides = null
);

/// <summary>Days on which a test may be met, by what was read so far.</summary>
/// <param name="Never">It does not come nearer, or not within a year.</param>
internal sealed record TestOutlook(
    string? Decides,
    DateOnly Earliest,
    DateOnly? Latest,
    bool Never = false,
    bool Unknown = false,
    bool Ends = false
);

/// <summary>Looks ahead from what was measured, and from what is planned, to the gates.</summary>
public sealed class GateOutlook(CatalogueContent content, DateOnly today)
{
    private const int WindowDays = 84;

    private readonly Gate gate = new(content);

    /// <param name="planned">Days from today on whose sessions are exposures of the skill, in order.</param>
    public IReadOnlyList<ExpectedGate> Of(Course course, IReadOnlyList<DateOnly> planned) =>
        [.. course.Judge(gate).Select(verdict => Of(course, verdict, planned))];

    private ExpectedGate Of(Course course, GateVerdict verdict, IReadOnlyList<DateOnly> planned)
    {
        ExpectedGate Say(string code, DateOnly? earliest = null, DateOnly? latest = null, string? decides = null) =>
            new(course.Skill, verdict.Side, verdict.Stage, code, earliest, latest, decides);
        switch (verdict.State)
        {
            case GateState.Open:
                return Say("openNow", today, today);
            case GateState.Blocked:
                return Say("blocked");
            case GateState.Owned:
                return Say("owned");
            case GateState.Waiting:
                return Say("waiting");
        }
        var tests = verdict.Tests.Where(t => t.Outcome != Outcome.Met).Select(t => Of(t, course.Evidence, planned)).ToList();
        if (tests.Count == 0)
            return Say("expected", today, today);
        var last = tests.MaxBy(t => t.Earliest)!;
        if (tests.FirstOrDefault(t => t.Never) is { } never)
            return Say("notAtThisSlope", decides: never.Decides);
        if (tests.Any(t => t.Ends))
            return Say("notEnoughPlanned");
        var latest = tests.All(t => t.Latest is not null) ? tests.Max(t => t.Latest) : null;
        return Say(tests.Any(t => t.Unknown) ? "unknown" : "expected", last.Earliest, latest, last.Decides);
    }

    private TestOutlook Of(TestVerdict verdict, Evidence evidence, IReadOnlyList<DateOnly> planned) =>
        verdict.Test switch
        {
            ExposureCriterion test => Sessions(test, verdict, planned),
            RomCriterion test => Reached(
                test.Measure,
                verdict,
                test.Comparison == Comparison.AtLeast,
                [
                    .. PooledTest
                        .From(evidence.Of(content.Measure(test.Measure), verdict.ReadOn, test.Warmth, test.Level))
                        .Select(t => ((t.Last - evidence.Now).TotalDays, t.Estimate.Value, t.Estimate.StandardError)),
                ]
            ),
            HoldCriterion test => Reached(
                test.Measure ?? test.Drill!,
                verdict,
                true,
                [
                    .. HoldTests
                        .Of(test, verdict.ReadOn, evidence, content)
                        .GroupBy(a => a.Day)
                        .Select(day => ((double)(day.Key.DayNumber - today.DayNumber), day.Max(a => a.Seconds), 0.0)),
                ]
            ),
            // What a coach looks at, or what is done on one day, has no slope.
            FormCriterion or ExitCriterion or ClearCriterion or PainCriterion => new(null, today, today),
            _ => new(verdict.Test.ReadMeasure ?? verdict.Test.ReadDrill, today, null, Unknown: true),
        };

    /// <summary>The day of the planned session that is the last one asked for, and not before the days that it asks for are over.</summary>
    private TestOutlook Sessions(ExposureCriterion test, TestVerdict verdict, IReadOnlyList<DateOnly> planned)
    {
        var missing = Math.Max(0, test.Sessions - (verdict.Count ?? 0));
        if (missing > planned.Count)
            return new(null, today, null, Ends: true);
        var day = missing == 0 ? today : planned[missing - 1];
        var spanned = today.AddDays(Math.Max(0, test.Days - (verdict.Days ?? 0)));
        var on = day > spanned ? day : spanned;
        return new(null, on, on);
    }

    private TestOutlook Reached(string name, TestVerdict verdict, bool rising, List<(double Day, double Value, double Error)> points)
    {
        // Reached already, and only to be read again: on any test day.
        if (verdict is { Outcome: Outcome.Borderline } or { Margin: >= 0 })
            return new(name, today, today);
        var recent = points.Where(p => p.Day >= -WindowDays).ToList();
        if (verdict.Threshold is not { } threshold || Projections.Of(recent, threshold, rising) is not { } ahead)
            return new(name, today, null, Unknown: true);
        return ahead.Earliest is { } earliest
            ? new(name, today.AddDays(earliest), ahead.Latest is { } latest ? today.AddDays(latest) : null)
            : new(name, today, null, Never: true);
    }
}
