using Tensarch.Core;
using Tensarch.Core.Catalogue;
using Tensarch.Core.Measuring;
using Tensarch.Core.Planning;
using Tensarch.Core.Sessions;
using Tensarch.Core.Skills;
using Tensarch.Core.Students;

namespace Tensarch.Weeks;

/// <summary>
/// A made-up student: what is known of them, and what is true. Each exposure of a skill brings what its gates read nearer to a limit by a share of
/// what is left, as the demo's students gain; a reading of it has the catalogue's noise.
/// </summary>
internal sealed class Body
{
    private const double GainAnExposure = 0.06;
    private readonly CatalogueContent content;
    private readonly Random random;
    private readonly Gate gate;
    private readonly Dictionary<(string What, Side? Side), Truth> truths = [];

    private sealed record Truth(double Now, double Limit)
    {
        public Truth Trained() => this with { Now = Now + GainAnExposure * (Limit - Now) };
    }

    public StudentFacts Facts { get; private set; }

    public int Passed { get; private set; }

    /// <param name="skills">With the stage at which each begins.</param>
    public Body(CatalogueContent content, IReadOnlyList<(string Skill, int Stage)> skills, DateOnly start, int seed)
    {
        (this.content, random, gate) = (content, new(seed), new(content));
        var placed = At(start.AddDays(-30), 12);
        Facts = StudentFacts.Of(new(new(1992, 5, 4), false, 7, new(LeftLegCm: 88, RightLegCm: 88), "square", 2, ["wall", "strap"])) with
        {
            Answers = [.. content.Questions.Select((q, i) => new IntakeAnswer(q.Key, false, placed, i))],
            Screenings = [new(ScreeningKind.Whole, start.AddDays(-30), placed, null)],
            Enrolments = [.. skills.Select(s => new Enrolment(NewId(), content.NewestLadder(s.Skill)!, "long-and-ramped", placed))],
            Decisions =
            [
                .. skills.SelectMany(s =>
                    content
                        .NewestLadder(s.Skill)!
                        .Courses.Select(side => new SkillDecision(
                            s.Skill,
                            new(side, 1, Math.Min(s.Stage, content.NewestLadder(s.Skill)!.Stages.Count), placed)
                        ))
                ),
            ],
        };
    }

    public static DateTimeOffset At(DateOnly day, int hour) => new(day.ToDateTime(new(hour, 0)), TimeSpan.Zero);

    private Guid NewId()
    {
        var bytes = new byte[16];
        random.NextBytes(bytes);
        return new(bytes);
    }

    public StudentState State(DateOnly day) => StudentState.From(Facts, new(At(day, 7), TimeZoneInfo.Utc), content);

    /// <summary>The planned session is trained as it is planned, and what it tests is read.</summary>
    /// <param name="exposed">Skills that it is an exposure of.</param>
    /// <param name="ranges">Skills whose ranges are measured with it.</param>
    public void Train(SessionPlan plan, IReadOnlyCollection<string> exposed, IReadOnlyCollection<string> ranges)
    {
        var at = At(plan.Date, 17);
        var session = NewId();
        var state = State(plan.Date);
        var courses = state.Courses.Where(c => exposed.Contains(c.Skill) || ranges.Contains(c.Skill)).ToList();
        var open = courses.SelectMany(c => c.Judge(gate).SelectMany(v => v.Tests.Select(t => (Course: c, v.Stage, Test: t)))).ToList();
        foreach (
            var key in open.Where(o => exposed.Contains(o.Course.Skill))
                .Select(o => KeyOf(o.Test))
                .OfType<(string, Side?)>()
                .Distinct()
                .ToList()
        )
            truths[key] = TruthOf(key, open.First(o => KeyOf(o.Test) == key).Test).Trained();
        Facts = Facts with
        {
            Sessions =
            [
                .. Facts.Sessions,
                new(session, [.. plan.Skills.Select(s => s.Skill)], at, plan.Date, plan.FirstSide, Work.Planned(plan, content)),
            ],
            Sets = [.. Facts.Sets, .. open.SelectMany(o => SetsOf(o.Test, plan, session, at))],
            Readings =
            [
                .. Facts.Readings,
                .. open.Where(o => ranges.Contains(o.Course.Skill))
                    .SelectMany(o => ReadingsOf(o.Course, o.Test, at))
                    .DistinctBy(r => r.Series),
            ],
        };
    }

    private static (string What, Side? Side)? KeyOf(TestVerdict test) =>
        test.Test switch
        {
            RomCriterion t => ($"{t.Measure}/{t.Level}", test.ReadOn),
            HoldCriterion t => ($"{t.Measure ?? t.Drill}/{t.Level ?? t.Variant}", test.ReadOn),
            RepsCriterion t => ($"{t.Drill}/{t.Variant}", test.ReadOn),
            RateCriterion t => ($"{t.Measure}/", test.ReadOn),
            _ => null,
        };

    /// <summary>It begins a fair way short of what is asked, and ends beyond it.</summary>
    private Truth TruthOf((string What, Side? Side) key, TestVerdict test)
    {
        var asked = Asked(test.Test);
        if (!truths.TryGetValue(key, out var truth))
            truth = new(Short(test.Test, asked, 0.1 + 0.25 * random.NextDouble()), Short(test.Test, asked, -0.25));
        // A later stage asks more of the same: the limit moves with it.
        var beyond = Short(test.Test, asked, -0.25);
        return truths[key] = test.Test is RomCriterion { Comparison: Comparison.AtMost }
            ? truth with
            {
                Limit = Math.Min(truth.Limit, beyond),
            }
            : truth with
            {
                Limit = Math.Max(truth.Limit, beyond),
            };
    }

    private static double Asked(ReadinessTest test) =>
        test switch
        {
            RomCriterion t => t.Threshold,
            HoldCriterion t => t.Asked(Breaths.DefaultSeconds),
            RepsCriterion t => t.Reps,
            _ => ((RateCriterion)test).Share,
        };

    private double Short(ReadinessTest test, double asked, double by)
    {
        var scale = test is RomCriterion rom
            ? Math.Max(Math.Abs(asked), (content.Measure(rom.Measure).Max - content.Measure(rom.Measure).Min) / 8)
            : asked;
        return test is RomCriterion { Comparison: Comparison.AtMost } ? asked + by * scale : asked - by * scale;
    }

    private double Noise() => Math.Sqrt(-2 * Math.Log(1 - random.NextDouble())) * Math.Cos(2 * Math.PI * random.NextDouble());

    private IEnumerable<Reading> ReadingsOf(Course course, TestVerdict verdict, DateTimeOffset at)
    {
        if (KeyOf(verdict) is not { } key || verdict.Test.ReadMeasure is not { } name || verdict.Test is SymmetryCriterion)
            yield break;
        var measure = content.Measure(name);
        var truth = TruthOf(key, verdict).Now;
        var day = truth + Noise() * measure.Tau;
        var counts = verdict.Test is RateCriterion;
        var trials = Enumerable.Range(0, 3).Select(i => Math.Clamp(day + Noise() * measure.Sem, measure.Min, measure.Max)).ToList();
        yield return new(
            NewId(),
            new(
                name,
                verdict.ReadOn,
                measure.Mode,
                verdict.Test.ReadLevel,
                verdict.Test is RomCriterion rom ? rom.Warmth : Warmth.Warm,
                measure.Standards.Count > 0 ? course.Evidence.Standard : null
            ),
            at,
            counts ? [] : trials,
            measure.Sem,
            measure.Tau,
            measure.Resolution,
            Guid.Empty,
            Quality: 4,
            Tally: counts ? new(Enumerable.Range(0, 10).Count(_ => random.NextDouble() < truth), 10) : null,
            OnDay: DateOnly.FromDateTime(at.UtcDateTime),
            TrialsAt: counts ? null : [.. trials.Select((_, i) => at.AddMinutes(2 * i))]
        );
    }

    /// <summary>Two tries of what the session tests.</summary>
    private IEnumerable<LoggedSet> SetsOf(TestVerdict verdict, SessionPlan plan, Guid session, DateTimeOffset at)
    {
        if (verdict.Test.ReadDrill is not { } drill || KeyOf(verdict) is not { } key)
            yield break;
        foreach (var planned in plan.Drills.Where(d => d.Drill == drill && d.Reason.Code is "gateAsksHold" or "gateAsksReps"))
        foreach (var side in planned.Sides.Where(s => s.Side == verdict.ReadOn || verdict.ReadOn is null || s.Side is null))
            for (var attempt = 0; attempt < 2; attempt++)
            {
                var value = TruthOf(key, verdict).Now * (1 + 0.05 * Noise());
                var reps = verdict.Test is RepsCriterion;
                yield return new(
                    NewId(),
                    session,
                    at.AddMinutes(20 + 3 * attempt),
                    plan.Date,
                    drill,
                    side.Variant,
                    side.Side,
                    reps ? null : Math.Max(1, Math.Floor(value)),
                    reps ? Math.Max(0, (int)Math.Floor(value)) : null,
                    4
                );
            }
    }

    /// <summary>The coach looks at forms and ways out where they are all that is missing, and decides what is open.</summary>
    /// <returns>A gate opened.</returns>
    public bool Decide(DateOnly day)
    {
        var at = At(day, 18);
        var any = false;
        for (var turn = 0; turn < 8; turn++)
        {
            var state = StudentState.From(Facts, new(at, TimeZoneInfo.Utc), content);
            var verdicts = state.Courses.SelectMany(c => c.Judge(gate).Select(v => (Course: c, Verdict: v))).ToList();
            var (course, verdict) = verdicts.FirstOrDefault(v => v.Verdict.State == GateState.Open || OnlyShowing(v.Verdict));
            if (course is null)
                return any;
            if (verdict.State != GateState.Open)
            {
                Show(course, verdict, at);
                continue;
            }
            var decision = new StageDecision(verdict.Side, verdict.Stage, verdict.Stage + 1, at);
            Facts = Facts with { Decisions = [.. Facts.Decisions, new(course.Skill, decision)] };
            (Passed, any) = (Passed + 1, true);
        }
        return any;
    }

    private static bool OnlyShowing(GateVerdict verdict) =>
        verdict.State is GateState.Closed or GateState.Retest
        && verdict.Tests.All(t => t.Outcome == Outcome.Met || t.Test is FormCriterion or ExitCriterion);

    private void Show(Course course, GateVerdict verdict, DateTimeOffset at)
    {
        foreach (var test in verdict.Tests.Where(t => t.Outcome != Outcome.Met))
            Facts = test.Test switch
            {
                FormCriterion form => Facts with
                {
                    Forms =
                    [
                        .. Facts.Forms,
                        new(NewId(), at, course.Skill, verdict.Stage, test.ReadOn, [.. form.Items.Select(i => i.Key)]),
                    ],
                },
                ExitCriterion exit => Facts with
                {
                    Exits = [.. Facts.Exits, new(NewId(), at, exit.Drill, exit.Variant, test.ReadOn, exit.Times, exit.Times)],
                },
                _ => Facts,
            };
    }
}
