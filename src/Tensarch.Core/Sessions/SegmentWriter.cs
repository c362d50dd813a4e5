using Tensarch.Core.Planning;

namespace Tensarch.Core.Sessions;

/// <summary>Writes a dose out as segments.</summary>
/// <param name="said">With what is said; without it only the time counts.</param>
internal sealed class SegmentWriter(string part, Drill drill, PlannedSide side, double breathSeconds, bool said = true)
{
    private readonly List<Segment> segments = [];
    private int elapsed;
    private readonly Dictionary<(Phase, string?), int> turns = [];

    public IReadOnlyList<Segment> Segments => segments;

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
    }

    private void Ramp(Phase phase, int seconds, int round, RampedDose d) =>
        Add(
            SegmentKind.Work,
            seconds,
            phase,
            round,
            said ? new ContractionRamp(seconds, d.FromPercent, d.ToPercent, Math.Min(d.PlateauSeconds, seconds - 1)).BySecond() : null,
            cue: NextCue(phase, null)
        );

    private void Work(Phase phase, int seconds, int round, int? reps = null, string? label = null) =>
        Add(SegmentKind.Work, seconds, phase, round, reps: reps, label: label, cue: NextCue(phase, label));

    private void Rounds(int rounds, int rest, Action<int> work)
    {
        for (var round = 1; round <= rounds; round++)
        {
            work(round);
            if (round < rounds)
                Add(SegmentKind.Rest, rest, round: round);
        }
    }

    /// <summary>Breaths at the student's own length, rounded up to whole seconds.</summary>
    private int Breaths(int breaths) => (int)Math.Ceiling(breaths * breathSeconds - 1e-9);

    private string? NextCue(Phase phase, string? label)
    {
        if (!said)
            return null;
        var turn = turns[(phase, label)] = turns.GetValueOrDefault((phase, label), -1) + 1;
        return Cue.For(drill.Cues, side.Variant, phase, label, turn);
    }
}
