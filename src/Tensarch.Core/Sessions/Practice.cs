using System.ComponentModel.DataAnnotations;

namespace Tensarch.Core.Sessions;

/// <summary>Which sides a practice has, and in which order.</summary>
public enum PracticeSides
{
    /// <summary>Both at once: no side is named.</summary>
    Together,
    LeftFirst,
    RightFirst,
    LeftOnly,
    RightOnly,
}

public enum PracticePhase
{
    CountIn,
    Settle,
    Work,
    Rest,
    SwitchSides,
}

/// <summary>Effort that rises during a hold.</summary>
/// <param name="PlateauSeconds">The last of them, at full effort; shorter than the hold.</param>
public sealed record PracticeRamp([Range(0, 100)] int FromPercent, [Range(1, 100)] int ToPercent, [Range(0, 600)] int PlateauSeconds);

/// <summary>
/// A hold that is practised by the clock alone, without student or plan: so many seconds or so many breaths, each round on each side, with a
/// count-in before the first.
/// </summary>
/// <param name="Seconds">Of one hold; none when it is counted in breaths.</param>
/// <param name="Breaths">Of one hold; none when it is counted in seconds.</param>
/// <param name="SettleSeconds">Before each hold with a ramp, without effort.</param>
/// <param name="SwitchSeconds">To change sides.</param>
/// <param name="SideBySide">All rounds of a side, then the other; else the sides alternate within a round.</param>
public sealed record Practice(
    [Range(1, Practice.MostSeconds)] int? Seconds = null,
    [Range(1, 200)] int? Breaths = null,
    [Range(Measuring.Breaths.LeastSeconds, Measuring.Breaths.MostSeconds)] double BreathSeconds = Measuring.Breaths.DefaultSeconds,
    PracticeRamp? Ramp = null,
    [Range(0, 600)] int SettleSeconds = 0,
    PracticeSides Sides = PracticeSides.Together,
    bool SideBySide = false,
    [Range(1, 60)] int Rounds = 1,
    [Range(0, 900)] int RestSeconds = 0,
    [Range(0, 120)] int SwitchSeconds = 5,
    [Range(0, 60)] int CountInSeconds = 5
)
{
    /// <summary>An hour: of one hold.</summary>
    public const int MostSeconds = 3600;

    /// <summary>Four hours: of all together.</summary>
    public const int MostSecondsInAll = 4 * 3600;

    /// <summary>Seconds of one hold, breaths rounded up to whole seconds.</summary>
    private int Hold => Seconds ?? (int)Math.Ceiling(Breaths!.Value * BreathSeconds - 1e-9);

    /// <returns>
    /// The practice to the second; <c>oneOfTwo</c> unless exactly one of seconds and breaths is given, <c>plateauTooLong</c> when the plateau
    /// is not shorter than the hold, <c>practiceTooLong</c> beyond four hours.
    /// </returns>
    public Result<IReadOnlyList<PracticeSegment>> Segments()
    {
        if (Seconds is null == Breaths is null)
            return Problem.Of("oneOfTwo", "seconds");
        if (Ramp is { } ramp && ramp.PlateauSeconds >= Hold)
            return Problem.Of("plateauTooLong", "ramp.plateauSeconds", ("most", Hold - 1));
        var segments = new List<PracticeSegment>();
        void Add(PracticePhase phase, int seconds, Side? side = null, int round = 0, bool held = false)
        {
            if (seconds > 0)
                segments.Add(
                    new(
                        phase,
                        side,
                        segments.Count == 0 ? 0 : segments[^1].StartSeconds + segments[^1].Seconds,
                        seconds,
                        round,
                        held ? EffortBySecond() : null,
                        held ? BreathBySecond() : null
                    )
                );
        }
        var order = Order();
        Add(PracticePhase.CountIn, CountInSeconds, order[0].Side, order[0].Round);
        for (var i = 0; i < order.Count; i++)
        {
            var (side, round) = order[i];
            if (i > 0)
            {
                // Between rounds one rests, and changes sides in that time where it is long enough.
                var other = order[i - 1].Side != side;
                var rest = order[i - 1].Round != round ? RestSeconds : 0;
                var change = other ? SwitchSeconds : 0;
                Add(PracticePhase.Rest, rest - change, side, round);
                Add(PracticePhase.SwitchSides, change, side, round);
            }
            if (Ramp is not null)
                Add(PracticePhase.Settle, SettleSeconds, side, round);
            Add(PracticePhase.Work, Hold, side, round, held: true);
        }
        return segments[^1].StartSeconds + segments[^1].Seconds > MostSecondsInAll
            ? Problem.Of("practiceTooLong", "rounds", ("most", MostSecondsInAll / 60))
            : Result.Of<IReadOnlyList<PracticeSegment>>(segments);
    }

    private List<(Side? Side, int Round)> Order()
    {
        IReadOnlyList<Side?> sides = Sides switch
        {
            PracticeSides.LeftFirst => [Side.Left, Side.Right],
            PracticeSides.RightFirst => [Side.Right, Side.Left],
            PracticeSides.LeftOnly => [Side.Left],
            PracticeSides.RightOnly => [Side.Right],
            _ => [null],
        };
        var rounds = Enumerable.Range(1, Rounds);
        return SideBySide ? [.. sides.SelectMany(s => rounds.Select(r => (s, r)))] : [.. rounds.SelectMany(r => sides.Select(s => (s, r)))];
    }

    private IReadOnlyList<int>? EffortBySecond() =>
        Ramp is { } ramp ? new ContractionRamp(Hold, ramp.FromPercent, ramp.ToPercent, ramp.PlateauSeconds).BySecond() : null;

    /// <summary>The breath that is under way in each second, counted from 1.</summary>
    private List<int>? BreathBySecond() =>
        Breaths is { } breaths
            ? [.. Enumerable.Range(0, Hold).Select(s => Math.Min(breaths, (int)Math.Floor(s / BreathSeconds + 1e-9) + 1))]
            : null;
}

/// <summary>A stretch of time in a practice.</summary>
/// <param name="Side">What is worked, or comes next; none for both at once.</param>
/// <param name="Effort">Percent of effort, one number a second; none without a ramp.</param>
/// <param name="Breath">The breath that is under way, one number a second; none when seconds are counted.</param>
public sealed record PracticeSegment(
    PracticePhase Phase,
    Side? Side,
    int StartSeconds,
    int Seconds,
    int Round,
    IReadOnlyList<int>? Effort,
    IReadOnlyList<int>? Breath
);
