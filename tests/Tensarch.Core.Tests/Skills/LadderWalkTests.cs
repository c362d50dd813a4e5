using Tensarch.Core.Skills;
using Tensarch.Core.Students;

namespace Tensarch.Core.Tests.Skills;

/// <summary>Walks a simulated student up every ladder and back, gate by gate.</summary>
public class LadderWalkTests
{
    /// <summary>With the reason codes that its tests give on the way up.</summary>
    [Theory]
    [InlineData(
        "front-split",
        7,
        "clear noBars; exposure enoughSessions; exposure tooFewSessions; form formShown; form notShown; "
            + "hold heldOnTwoDays; hold heldShorter; hold heldTwice; hold noHolds; pain painFree; pain tooFewSessions; "
            + "reps noReps; reps repsClean; rom clearPass; rom noReadings; rom shortOfThreshold; rom withinNoise; "
            + "symmetry sidesMatch"
    )]
    [InlineData(
        "middle-split",
        7,
        "clear noBars; exposure enoughSessions; exposure tooFewSessions; form formShown; form notShown; "
            + "hold heldOnTwoDays; hold heldShorter; hold heldTwice; hold noHolds; pain painFree; pain tooFewSessions; "
            + "reps noReps; reps repsClean; rom clearPass; rom noReadings; rom shortOfThreshold; symmetry sidesDiffer; "
            + "symmetry sidesMatch"
    )]
    [InlineData(
        "deep-squat",
        6,
        "clear noBars; exposure enoughSessions; exposure tooFewSessions; form formShown; form notShown; "
            + "hold heldShorter; hold heldTwice; hold noHolds; pain painFree; pain tooFewSessions; reps noReps; "
            + "reps repsClean; rom clearPass; rom noReadings; rom shortOfThreshold; symmetry sidesMatch"
    )]
    [InlineData(
        "crow",
        7,
        "clear noBars; exit exitNotShown; exit exitShown; exposure enoughSessions; exposure tooFewSessions; "
            + "hold heldShorter; hold heldTwice; hold noHolds; pain painFree; pain tooFewSessions; rate noAttempts; "
            + "rate rateReached; reps noReps; reps repsClean; rom clearPass; rom noReadings; rom shortOfThreshold; "
            + "symmetry noReadings; symmetry sidesMatch; symmetry tooFewTrials"
    )]
    [InlineData(
        "side-plank",
        6,
        "clear noBars; exposure enoughSessions; exposure tooFewSessions; form formShown; form notShown; "
            + "hold heldOnce; hold heldShorter; hold heldTwice; hold noHolds; pain painFree; pain tooFewSessions; "
            + "reps noReps; reps repsClean; rom clearPass; rom noReadings; symmetry noReadings; symmetry sidesMatch; symmetry tooFewTrials"
    )]
    [InlineData(
        "handstand",
        8,
        "clear noBars; exit exitNotShown; exit exitShown; exposure enoughSessions; exposure tooFewSessions; "
            + "hold heldOnTwoDays; hold heldShorter; hold heldTwice; hold noHolds; hold olderThanShelfLife; pain painFree; "
            + "pain tooFewSessions; rate noAttempts; rate rateReached; reps noReps; reps repsClean; rom clearPass; "
            + "rom noReadings; rom olderThanShelfLife; rom shortOfThreshold; rom withinNoise"
    )]
    [InlineData(
        "shoulderstand",
        7,
        "clear noBars; exit exitNotShown; exit exitShown; exposure enoughSessions; exposure tooFewSessions; "
            + "form formShown; form notShown; hold heldTwice; hold noHolds; pain painFree; pain tooFewSessions; reps noReps; "
            + "reps repsClean; rom clearPass; rom noReadings; rom shortOfThreshold"
    )]
    public void Someone_who_does_what_the_gate_asks_climbs_to_the_keystone(string key, int stages, string expected)
    {
        var ladder = Shipped.Ladder(key);
        var student = new SimulatedStudent(ladder);
        student.Place();
        Assert.Equal(stages, ladder.Stages.Count);
        for (var stage = 1; stage <= stages; stage++)
            foreach (var side in ladder.Courses)
            {
                Assert.Equal(stage, student.Evidence.StageOf(side));
                Assert.Equal("gateNotOpen", Decision.Take(DecisionKind.Advance, student.Judge(side), null).Problems[0].Code);
                Open(student, side);
                Assert.Equal(stage + 1, student.Decide(DecisionKind.Advance, side).Value);
            }

        Assert.All(ladder.Courses, side => Assert.Equal(GateState.Owned, student.Judge(side).State));
        Assert.Equal(expected, string.Join("; ", student.Reasons));
    }

    [Theory]
    [InlineData("front-split")]
    [InlineData("middle-split")]
    [InlineData("deep-squat")]
    [InlineData("crow")]
    [InlineData("side-plank")]
    [InlineData("handstand")]
    [InlineData("shoulderstand")]
    public void Pain_a_break_and_lost_range_lead_back_down_and_a_hold_lets_nobody_up(string key)
    {
        var ladder = Shipped.Ladder(key);
        var student = AtTheTop(ladder);
        var side = ladder.Courses[0];

        student.Hurt();
        Assert.Contains("painEvents", student.StepBackCodes(side));
        Assert.Equal(ladder.Stages.Count, student.Decide(DecisionKind.StepBack, side).Value);
        Assert.DoesNotContain("painEvents", student.StepBackCodes(side));

        student.Train(1);
        student.Pass(29);
        Assert.Contains("longBreak", student.StepBackCodes(side));
        student.Decide(DecisionKind.StepBack, side);
        Assert.DoesNotContain("longBreak", student.StepBackCodes(side));

        student.Bars = Hold(ladder);
        Assert.Equal(GateState.Blocked, student.Judge(side).State);
        Assert.Contains("clear tagOffLimits", student.Reasons);
        Assert.Equal("offLimits", student.Decide(DecisionKind.Override, side, "because I say so").Problems[0].Code);
        student.Bars = DayBars.None();

        while (student.Evidence.StageOf(side) > 1)
        {
            if (student.LoseRange(side))
                Assert.Contains("rangeLost", student.StepBackCodes(side));
            Assert.True(student.Decide(DecisionKind.StepBack, side).IsOk);
        }
        Assert.Equal("atFirstStage", student.Decide(DecisionKind.StepBack, side).Problems[0].Code);
        Assert.Empty(student.StepBackCodes(side));
    }

    private static SimulatedStudent AtTheTop(Ladder ladder)
    {
        var student = new SimulatedStudent(ladder);
        student.Place();
        for (var stage = 1; stage <= ladder.Stages.Count; stage++)
            foreach (var side in ladder.Courses)
            {
                Open(student, side);
                student.Decide(DecisionKind.Advance, side);
            }
        return student;
    }

    /// <summary>Meets what is unmet until the gate is open, or waits for the other side alone.</summary>
    private static void Open(SimulatedStudent student, Side? side)
    {
        for (var i = 0; i < 40; i++)
        {
            var verdict = student.Judge(side);
            if (verdict.State == GateState.Open)
                return;
            student.Meet(verdict.Tests.First(t => t.Outcome != Outcome.Met));
        }
        Assert.Fail($"The gate does not open: {string.Join(", ", student.Judge(side).Tests.Select(t => $"{t.Test.Kind} {t.Reason}"))}");
    }

    private static DayBars Hold(Ladder ladder) => Shipped.Barred([ladder.RequiredTags[0].Tag]);
}
