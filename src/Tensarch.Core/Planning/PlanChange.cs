namespace Tensarch.Core.Planning;

public enum PlanChangeKind
{
    Add,
    Swap,
    Remove,
    Move,
    Variant,
    Dose,
    Prop,
    TurnSides,
    Cue,
    Note,
    Shorten,
    Lengthen,
}

/// <summary>One change by the coach's hand to a session that has not been run. What a kind does not need is none.</summary>
/// <param name="Id">The planned drill.</param>
/// <param name="Drill">What is added, or put in its place.</param>
/// <param name="Skill">The skill that an added drill counts for; the first one that it serves when none is named.</param>
/// <param name="Side">The one side that a variant or a dose is changed on; none: both.</param>
/// <param name="To">The new place, counted from 0; or minutes.</param>
/// <param name="Text">A prop, a cue or a note; none takes it away.</param>
public sealed record PlanChange(
    PlanChangeKind Kind,
    string? Id = null,
    string? Drill = null,
    string? Skill = null,
    Side? Side = null,
    string? Variant = null,
    int? To = null,
    string? Text = null,
    DoseNumbers? Dose = null
);

/// <summary>Numbers of a dose; what its kind does not have is passed over, and what is none stays as it is.</summary>
/// <param name="Rounds">Or sets, or attempts.</param>
/// <param name="Seconds">Of a hold or an attempt at most; of a ladder of supports, its last rung.</param>
public sealed record DoseNumbers(
    int? Rounds = null,
    int? Seconds = null,
    int? Breaths = null,
    int? Reps = null,
    int? RestSeconds = null,
    int? SettleSeconds = null,
    int? PressSeconds = null,
    int? LiftSeconds = null,
    int? ResettleSeconds = null,
    int? ToPercent = null
)
{
    public Dose On(Dose dose) =>
        dose switch
        {
            HoldDose d => d with
            {
                Rounds = Rounds ?? d.Rounds,
                Seconds = d.Seconds is null ? null : Seconds ?? d.Seconds,
                Breaths = d.Breaths is null ? null : Breaths ?? d.Breaths,
                RestSeconds = RestSeconds ?? ((Rounds ?? 1) > 1 && d.RestSeconds == 0 ? 30 : d.RestSeconds),
            },
            RampedDose d => d with
            {
                Rounds = Rounds ?? d.Rounds,
                SettleSeconds = SettleSeconds ?? d.SettleSeconds,
                PressSeconds = PressSeconds ?? d.PressSeconds,
                LiftSeconds = LiftSeconds ?? d.LiftSeconds,
                ResettleSeconds = ResettleSeconds ?? d.ResettleSeconds,
                ToPercent = ToPercent ?? d.ToPercent,
                FromPercent = Math.Min(d.FromPercent, ToPercent ?? d.ToPercent),
                PlateauSeconds = Math.Min(d.PlateauSeconds, Math.Min(PressSeconds ?? d.PressSeconds, LiftSeconds ?? d.LiftSeconds) - 1),
            },
            RepsDose d => d with
            {
                Sets = Rounds ?? d.Sets,
                Reps = Reps ?? d.Reps,
                RestSeconds = RestSeconds ?? ((Rounds ?? 1) > 1 && d.RestSeconds == 0 ? 30 : d.RestSeconds),
            },
            RhythmDose d => d with { Reps = Reps ?? d.Reps },
            SupportLadderDose d => d with
            {
                Rounds = Rounds ?? d.Rounds,
                RestSeconds = RestSeconds ?? d.RestSeconds,
                Rungs = [.. d.Rungs.SkipLast(1), d.Rungs[^1] with { Seconds = Seconds ?? d.Rungs[^1].Seconds }],
            },
            AttemptsDose d => d with
            {
                Attempts = Rounds ?? d.Attempts,
                MaxSeconds = Seconds ?? d.MaxSeconds,
                RestSeconds = RestSeconds ?? d.RestSeconds,
            },
            FlowDose d => d with { Rounds = Rounds ?? d.Rounds, RestSeconds = RestSeconds ?? d.RestSeconds },
            _ => dose,
        };
}
