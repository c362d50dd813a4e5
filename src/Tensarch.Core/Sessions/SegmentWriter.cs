using Tensarch.Core.Planning;

namespace Tensarch.Core.Sessions;

/// <summary>Writes a dose out as segments.</summary>
/// <param name="said">With what is said; without it only the time counts.</param>
internal sealed class SegmentWriter(string part, Drill drill, PlannedSide side, double breathSeconds, bool said = true)
{
    private readonly List<Segment> segments = [];
    private readonly Variant variant = drill.VariantAt(side.Variant);
    private int elapsed;

    /// <summary>With what is said in them, where that was wanted.</summary>
    public IReadOnlyList<Segment> Segments => said ? SaidCues.Over(segments, drill.Cues, side.Variant) : segments;

    public void Add(
        SegmentKind kind,
        int seconds,
        Phase phase = Phase.None,
        int round = 0,
        IReadOnlyList<int>? effort = null,
        int? reps = null,
        string? label = null,
        string? cue = null
    )
    {
        if (seconds <= 0)
            return;
        segments.Add(
            new(part, drill.Key, side.Variant, side.Side, kind, phase, elapsed, seconds, round, side.Dose.Repeats, effort, reps, label, cue)
        );
        elapsed += seconds;
    }

    public void Dose()
    {
        switch (side.Dose)
        {
            case RampedDose d:
                Ramped(d);
                break;
            case HoldDose d:
                Rounds(d.Rounds, d.RestSeconds, r => Work(Phase.Hold, d.Seconds ?? Breaths(d.Breaths ?? 1), r));
                break;
            case AttemptsDose d:
                Rounds(d.Attempts, d.RestSeconds, r => Work(Phase.Attempt, d.MaxSeconds, r));
                break;
            case RepsDose d:
                Rounds(d.Sets, d.RestSeconds, r => Work(Phase.Repeat, d.Reps * d.SecondsPerRep, r, d.Reps));
                break;
            case RhythmDose d:
                Work(Phase.Repeat, Breaths(d.Reps), 1, d.Reps);
                Out(1);
                break;
            case SupportLadderDose d:
                Rounds(
                    d.Rounds,
                    d.RestSeconds,
                    r =>
                    {
                        foreach (var rung in d.Rungs)
                            Work(Phase.Rung, rung.Seconds, r, label: rung.Name);
                    }
                );
                break;
            case FlowDose d:
                Rounds(
                    d.Rounds,
                    d.RestSeconds,
                    r =>
                    {
                        foreach (var position in d.Positions)
                            Work(Phase.Position, position.Seconds ?? Breaths(position.Breaths ?? 1), r, label: position.Name);
                    }
                );
                break;
            default:
                throw new ArgumentOutOfRangeException(nameof(side), side.Dose, "No such kind of dose.");
        }
    }

    private void Ramped(RampedDose d)
    {
        Work(Phase.Settle, d.SettleSeconds, 1);
        for (var round = 1; round <= d.Rounds; round++)
        {
            Ramp(Phase.Press, d.PressSeconds, round, d);
            Ramp(Phase.Lift, d.LiftSeconds, round, d);
            Work(Phase.Resettle, d.ResettleSeconds, round);
        }
        Out(d.Rounds);
    }

    private void Ramp(Phase phase, int seconds, int round, RampedDose d) =>
        Add(
            SegmentKind.Work,
            seconds,
            phase,
            round,
            said ? new ContractionRamp(seconds, d.FromPercent, d.ToPercent, Math.Min(d.PlateauSeconds, seconds - 1)).BySecond() : null
        );

    private void Work(Phase phase, int seconds, int round, int? reps = null, string? label = null) =>
        Add(SegmentKind.Work, seconds, phase, round, reps: reps, label: label);

    private void Rounds(int rounds, int rest, Action<int> work)
    {
        for (var round = 1; round <= rounds; round++)
        {
            work(round);
            // What goes on without a rest stays where it is.
            if (round == rounds || rest > 0)
                Out(round);
            if (round < rounds)
                Add(SegmentKind.Rest, rest, round: round);
        }
    }

    private void Out(int round)
    {
        if (drill.OutOf(variant) is { } way)
            Add(SegmentKind.Out, way.Seconds, round: round, cue: way.Says);
    }

    /// <summary>Breaths at the student's own length, rounded up to whole seconds.</summary>
    private int Breaths(int breaths) => (int)Math.Ceiling(breaths * breathSeconds - 1e-9);
}
