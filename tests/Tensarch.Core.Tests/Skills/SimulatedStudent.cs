using Tensarch.Core.Measuring;
using Tensarch.Core.Planning;
using Tensarch.Core.Skills;
using Tensarch.Core.Students;

namespace Tensarch.Core.Tests.Skills;

/// <summary>Someone who does what the gate asks for: trains, is read, shows, holds; and can lose it again. Facts are appended, time goes on.</summary>
internal sealed class SimulatedStudent(Ladder ladder)
{
    private static readonly Gate Gate = new(Shipped.Content);
    private static readonly StepBack Back = new(Shipped.Content);
    private readonly List<Reading> readings = [];
    private readonly List<LoggedSet> sets = [];
    private readonly List<SessionDay> sessions = [];
    private readonly List<BodySignal> signals = [];
    private readonly List<FormCheck> forms = [];
    private readonly List<ExitCheck> exits = [];
    private readonly List<StageDecision> decisions = [];
    private DateTimeOffset now = Shipped.Now;

    public DayBars Bars { get; set; } = DayBars.None();

    /// <summary>Every reason code that a test gave on the way.</summary>
    public SortedSet<string> Reasons { get; } = new(StringComparer.Ordinal);

    public Evidence Evidence =>
        new(
            ladder.Standards.FirstOrDefault(),
            new(LeftLegCm: 86, RightLegCm: 86),
            readings,
            sets,
            sessions,
            signals,
            forms,
            exits,
            decisions,
            Bars,
            now,
            DateOnly.FromDateTime(now.UtcDateTime)
        );

    public GateVerdict Judge(Side? side)
    {
        var verdict = Gate.Judge(ladder, side, Evidence);
        Reasons.UnionWith(verdict.Tests.Select(t => $"{t.Test.Kind} {t.Reason}"));
        return verdict;
    }

    public IReadOnlyList<string> StepBackCodes(Side? side) =>
        [.. Back.For(ladder, side, Evidence.StageOf(side), Evidence).Select(r => r.Code).Distinct()];

    public void Place()
    {
        foreach (var side in ladder.Courses)
            decisions.Add(new(side, 0, 1, now));
    }

    public Result<int> Decide(DecisionKind kind, Side? side, string? reason = null)
    {
        var verdict = Judge(side);
        var taken = Decision.Take(kind, verdict, reason);
        if (taken.IsOk)
            decisions.Add(new(side, verdict.Stage, taken.Value, now));
        Pass(days: 1);
        return taken;
    }

    public void Pass(double days) => now = now.AddDays(days);

    /// <summary>Trains a session of the stage, every second day, so many times.</summary>
    public void Train(int times)
    {
        for (var i = 0; i < times; i++)
        {
            Pass(2);
            var session = Guid.NewGuid();
            sessions.Add(new(session, now, DateOnly.FromDateTime(now.UtcDateTime)));
            foreach (var side in ladder.Courses)
            {
                var trains = ladder.TrainsAs(Evidence.StageOf(side));
                var drill = Shipped.Content.DrillList.First(d =>
                    d.Kind is DrillKind.Strength or DrillKind.EndRange or DrillKind.Skill && d.ServesStage(ladder.Skill, trains)
                );
                Log(drill.Key, drill.Variants[0].Key, side, null, null, session);
            }
        }
    }

    /// <summary>Makes one unmet test true, on the limb that it reads.</summary>
    public void Meet(TestVerdict unmet)
    {
        switch (unmet.Test)
        {
            case RomCriterion t:
                Read(t, unmet.ReadOn, past: 5);
                break;
            case SymmetryCriterion { Drill: { } drill } t:
                foreach (var side in SideExtensions.Both)
                    for (var i = 0; i < 3; i++)
                        Log(drill, t.Variant!, side, 9, null);
                break;
            case SymmetryCriterion t:
                foreach (var side in SideExtensions.Both)
                    Add(t.Measure!, t.Level, side, [30, 30, 30], null);
                break;
            case HoldCriterion t:
                for (var i = 0; i < 2; i++)
                {
                    Pass(t.TwoDays || t.Drill is "straddle-attempt" or "split-attempt" ? 1 : 0.01);
                    var seconds = t.Asked(4.5) + 1;
                    if (t.Measure is { } measure)
                        Add(measure, t.Level, unmet.ReadOn, [seconds], t.Quality ?? 4);
                    else
                        Log(t.Drill!, t.Variant ?? Shipped.Content.Drill(t.Drill!).Variants[0].Key, unmet.ReadOn, seconds, null);
                }
                break;
            case RepsCriterion t:
                Log(t.Drill, t.Variant, unmet.ReadOn, null, t.Reps);
                break;
            case RateCriterion t:
                for (var i = 0; i < 2; i++)
                {
                    Pass(1);
                    Add(t.Measure, t.Level, unmet.ReadOn, [100], null, new(t.Of / 2, t.Of / 2));
                }
                break;
            case FormCriterion t:
                forms.Add(new(Guid.NewGuid(), now, ladder.Skill, StageNow(unmet), unmet.ReadOn, [.. t.Items.Select(i => i.Key)]));
                break;
            case ExitCriterion t:
                exits.Add(new(Guid.NewGuid(), now, t.Drill, t.Variant, unmet.ReadOn, t.Times, t.Times));
                break;
            case ExposureCriterion t:
                Train(t.Sessions + t.Days / 2);
                break;
            case PainCriterion t:
                Train(t.Sessions);
                break;
            default:
                throw new InvalidOperationException($"Nobody can make {unmet.Test.Kind} true.");
        }
    }

    /// <summary>Reads the entry gate's range well short of it, on two days.</summary>
    public bool LoseRange(Side? side)
    {
        var entry = ladder.StageAt(Evidence.StageOf(side) - 1).Tests.OfType<RomCriterion>().FirstOrDefault();
        if (entry is null)
            return false;
        for (var i = 0; i < 2; i++)
        {
            Pass(2);
            foreach (var read in entry.Limb.ReadFor(side))
                Read(entry, Shipped.Content.Measure(entry.Measure).PerSide ? read : null, past: -25);
        }
        return true;
    }

    public void Hurt()
    {
        for (var i = 0; i < 2; i++)
        {
            Pass(1);
            signals.Add(new(Guid.NewGuid(), now, SignalKind.DullPain, ladder.Regions[0], null, 5));
        }
    }

    private int StageNow(TestVerdict unmet) => Evidence.StageOf(ladder.PerSide ? unmet.ReadOn : null);

    private void Read(RomCriterion test, Side? side, double past)
    {
        var measure = Shipped.Content.Measure(test.Measure);
        var threshold = test.StraddleAngle ? Straddle.HeelDistance(86, 86, test.Threshold).Value : test.Threshold;
        var value = threshold + (test.Comparison == Comparison.AtLeast ? past : -past);
        Add(
            test.Measure,
            test.Level,
            side,
            [.. Enumerable.Repeat(Math.Max(value, measure.Kind == MeasureKind.Step ? 0 : double.MinValue), 3)],
            4
        );
    }

    private void Add(string key, string? level, Side? side, double[] trials, int? quality, Tally? tally = null)
    {
        var measure = Shipped.Content.Measure(key);
        var step = measure.Kind == MeasureKind.Step;
        readings.Add(
            new(
                Guid.NewGuid(),
                new(key, measure.PerSide ? side : null, measure.Mode, level, Warmth.Warm, measure.Standards.FirstOrDefault()),
                now,
                trials,
                step ? 0 : measure.Sem,
                step ? 0 : measure.Tau,
                0,
                Shipped.Coach,
                Quality: quality,
                Tally: tally
            )
        );
    }

    private void Log(string drill, string variant, Side? side, double? seconds, int? reps, Guid? session = null)
    {
        Pass(0.01);
        sets.Add(new(Guid.NewGuid(), session, now, DateOnly.FromDateTime(now.UtcDateTime), drill, variant, side, seconds, reps, 4));
    }
}
