using CsCheck;
using Tensarch.Core.Measuring;
using Tensarch.Core.Skills;
using Tensarch.Core.Students;

namespace Tensarch.Core.Tests.Skills;

/// <summary>Left and right are two different people, and the rules know neither by name.</summary>
public class MirrorProperties
{
    private static readonly string[] Measures = [.. Shipped.Content.Measures.Select(m => m.Key)];

    private static readonly Gen<Reading> AnyReading =
        from measure in Gen.OneOf(Measures)
        from side in Gen.Enum<Side>()
        from daysAgo in Gen.Double[0, 30]
        from value in Gen.Double[0, 110]
        from trials in Gen.Int[1, 5]
        let levels = Shipped.Content.Measure(measure).Levels
        from level in Gen.Int[0, Math.Max(0, levels.Count - 1)]
        select Shipped.Read(
            measure,
            Shipped.Content.Measure(measure).PerSide ? side : null,
            daysAgo,
            [.. Enumerable.Repeat(value, trials)],
            level: levels.Count > 0 ? levels[level].Key : null
        );

    private static readonly Gen<LoggedSet> AnySet =
        from drill in Gen.OneOf("split-support", "low-lunge", "split-slide", "split-attempt", "side-plank")
        from variant in Gen.OneOf(Shipped.Content.Drill(drill).Variants.Select(v => v.Key).ToArray())
        from side in Gen.Enum<Side>()
        from daysAgo in Gen.Double[0, 30]
        from seconds in Gen.Int[10, 70]
        from quality in Gen.Int[1, 5]
        select Shipped.Set(drill, variant, side, daysAgo, seconds, seconds / 10, quality, Guid.NewGuid());

    private static readonly Gen<Evidence> AnyEvidence =
        from readings in AnyReading.List[0, 20]
        from sets in AnySet.List[0, 15]
        from entered in Gen.Double[0, 30]
        from pain in Gen.Int[0, 8]
        select Shipped.Evidence(
            readings,
            sets,
            [.. sets.Select(s => new SessionDay(s.Session!.Value, s.At, s.Day))],
            [Shipped.Pain(LoadTag.Hamstring, pain, entered / 2)],
            [
                new FormCheck(
                    Guid.NewGuid(),
                    Shipped.Now.AddDays(-entered),
                    "front-split",
                    6,
                    Side.Left,
                    ["kneecap-up", "rear-knee", "standard-kept", "chest-lifted"]
                ),
            ],
            [new StageDecision(Side.Left, 2, 3, Shipped.Now.AddDays(-entered))]
        );

    [Fact]
    public void Swapping_left_and_right_swaps_every_verdict()
    {
        var gate = new Gate(Shipped.Content);
        Gen.Select(AnyEvidence, Gen.Int[1, 8], Gen.Int[1, 8], Gen.OneOf("front-split", "side-plank"))
            .Sample(
                (evidence, stage, other, key) =>
                {
                    var ladder = Shipped.Ladder(key);
                    var left = gate.Judge(ladder, Side.Left, stage, other, evidence);
                    var right = gate.Judge(ladder, Side.Right, stage, other, Mirror(evidence));
                    return Words(left) == Words(right);
                },
                time: Budget.Seconds
            );
    }

    [Fact]
    public void A_bilateral_gate_says_the_same_of_the_mirrored_student()
    {
        var gate = new Gate(Shipped.Content);
        Gen.Select(AnyEvidence, Gen.Int[1, 8], Gen.OneOf("middle-split", "deep-squat", "crow", "handstand", "shoulderstand"))
            .Sample(
                (evidence, stage, key) =>
                {
                    var ladder = Shipped.Ladder(key);
                    var here = gate.Judge(ladder, null, stage, 1, evidence);
                    var mirrored = gate.Judge(ladder, null, stage, 1, Mirror(evidence));
                    return here.State == mirrored.State
                        && here.MetCount == mirrored.MetCount
                        && here.Tests.Select(t => (t.Outcome, t.Reason))
                            .Order()
                            .SequenceEqual(mirrored.Tests.Select(t => (t.Outcome, t.Reason)).Order());
                },
                time: Budget.Seconds
            );
    }

    [Fact]
    public void A_step_back_is_suggested_for_the_mirrored_side_alike()
    {
        var stepBack = new StepBack(Shipped.Content);
        Gen.Select(AnyEvidence, Gen.Int[2, 8])
            .Sample(
                (evidence, stage) =>
                    stepBack
                        .For(Shipped.FrontSplit, Side.Left, stage, evidence)
                        .SequenceEqual(
                            stepBack
                                .For(Shipped.FrontSplit, Side.Right, stage, Mirror(evidence))
                                .Select(r => r with { Side = r.Side?.Other() })
                        )
            );
    }

    /// <summary>Everything a verdict says but the names of the sides.</summary>
    private static string Words(GateVerdict verdict) =>
        $"{verdict.State} {verdict.Reason} {verdict.NearestMiss} {verdict.Next.Code} {verdict.Next.NotBefore} "
        + string.Join(
            "; ",
            verdict.Tests.Select(t =>
                $"{t.Outcome} {t.Reason} {t.Value} {t.StandardError} {t.Margin} {t.Count} {t.Days} {t.Next.Code} {t.ReadOn == verdict.Side} "
                + string.Join(",", (t.Evidence ?? []).Order())
            )
        );

    private static Evidence Mirror(Evidence e) =>
        e with
        {
            Readings = [.. e.Readings.Select(r => r with { Series = r.Series with { Side = r.Series.Side?.Other() } })],
            Sets = [.. e.Sets.Select(s => s with { Side = s.Side?.Other() })],
            Signals = [.. e.Signals.Select(s => s with { Side = s.Side?.Other() })],
            Forms = [.. e.Forms.Select(f => f with { Side = f.Side?.Other() })],
            Exits = [.. e.Exits.Select(x => x with { Side = x.Side?.Other() })],
            Decisions = [.. e.Decisions.Select(d => d with { Side = d.Side?.Other() })],
        };
}
