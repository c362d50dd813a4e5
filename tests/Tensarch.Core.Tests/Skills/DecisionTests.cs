using CsCheck;
using Tensarch.Core.Skills;

namespace Tensarch.Core.Tests.Skills;

public class DecisionTests
{
    private static GateVerdict Verdict(GateState state, int stage = 3) => new(Side.Left, stage, state, "", [], null);

    [Fact]
    public void An_open_gate_may_be_passed_kept_or_stepped_back_from()
    {
        Assert.Equal(4, Decision.Take(DecisionKind.Advance, Verdict(GateState.Open), null).Value);
        Assert.Equal(3, Decision.Take(DecisionKind.Stay, Verdict(GateState.Open), null).Value);
        Assert.Equal(2, Decision.Take(DecisionKind.StepBack, Verdict(GateState.Open), null).Value);
        Assert.Equal("atFirstStage", Decision.Take(DecisionKind.StepBack, Verdict(GateState.Open, 1), null).Problems[0].Code);
    }

    [Theory]
    [InlineData(GateState.Closed, "gateNotOpen")]
    [InlineData(GateState.Retest, "gateNotOpen")]
    [InlineData(GateState.Waiting, "waitsForOtherSide")]
    [InlineData(GateState.Blocked, "offLimits")]
    [InlineData(GateState.Owned, "atLastStage")]
    public void A_gate_that_is_not_open_is_not_advanced_through(GateState state, string code) =>
        Assert.Equal(code, Decision.Take(DecisionKind.Advance, Verdict(state), null).Problems[0].Code);

    [Fact]
    public void An_override_needs_a_reason_of_ten_characters()
    {
        Assert.Equal("reasonTooShort", Decision.Take(DecisionKind.Override, Verdict(GateState.Closed), " too thin ").Problems[0].Code);
        Assert.Equal(4, Decision.Take(DecisionKind.Override, Verdict(GateState.Closed), "ten chars.").Value);
    }

    [Fact]
    public void Nothing_goes_up_through_a_hold_whatever_the_reason() =>
        Gen.Select(Gen.Enum<DecisionKind>(), Gen.Int[1, 7], Gen.String[Gen.Char.AlphaNumeric, 0, 40])
            .Sample(
                (kind, stage, reason) =>
                {
                    var result = Decision.Take(kind, Verdict(GateState.Blocked, stage), reason);
                    return !result.IsOk || result.Value <= stage;
                }
            );
}
