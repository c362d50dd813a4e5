namespace Tensarch.Core.Planning;

/// <summary>
/// What is light only is felt in the dose: half of the work, the effort of a ramp from 20 to 40 %, and little weight on wrists that are spared.
/// Source: judgement, bars that are felt.
/// </summary>
internal static class LightWork
{
    /// <summary>Of 10, in what is light only.</summary>
    public const int SensationCeiling = 5;

    /// <summary>More of the bodyweight than this on the hands is no light work for a wrist: on all fours and on the forearms it is less.</summary>
    public const double HandShare = 0.4;

    /// <summary>Bodyweight-seconds on the hands in a session.</summary>
    public const int HandSeconds = 60;

    /// <summary>Where passive work stays short, a hold is at most so many seconds.</summary>
    public const int ShortHold = 30;

    private const int FromPercent = 20;
    public const int ToPercent = 40;
    private const double Grain = 0.05;

    /// <summary>Half of the rounds, rounded up, and never more than half of the work; of one round half the time. None where it cannot be halved.</summary>
    public static Dose? Half(Dose dose, double breathSeconds)
    {
        var eased = dose is RampedDose ramp ? ramp with { FromPercent = FromPercent, ToPercent = ToPercent } : dose;
        var most = WorkSeconds(dose, breathSeconds) / 2;
        var half = AtMost(eased, most, breathSeconds);
        return WorkSeconds(half, breathSeconds) <= most ? half : null;
    }

    /// <summary>No more than so many seconds of work: half of the rounds where that is enough, each shorter where it is not.</summary>
    public static Dose AtMost(Dose dose, double seconds, double breathSeconds)
    {
        if (WorkSeconds(dose, breathSeconds) <= seconds)
            return dose;
        var least = dose;
        for (var rounds = (dose.Repeats + 1) / 2; rounds >= 1; rounds--)
        for (var share = 1.0; share > Grain; share -= Grain)
        {
            var fewer = dose.WithRepeats(rounds);
            least = share >= 1 ? fewer : Shorter(fewer, share);
            if (WorkSeconds(least, breathSeconds) <= seconds)
                return least;
        }
        return least;
    }

    /// <summary>The same with no hold longer than so many seconds.</summary>
    public static Dose Held(Dose dose, int seconds, double breathSeconds) =>
        dose switch
        {
            RampedDose d => d with
            {
                SettleSeconds = Math.Min(d.SettleSeconds, seconds),
                ResettleSeconds = Math.Min(d.ResettleSeconds, seconds),
            },
            HoldDose { Seconds: { } held } d when held > seconds => d with { Seconds = seconds },
            HoldDose { Breaths: { } breaths } d when Math.Ceiling(breaths * breathSeconds) > seconds => d with
            {
                Breaths = Math.Max(1, (int)(seconds / breathSeconds)),
            },
            SupportLadderDose d when d.Rungs.Sum(r => r.Seconds) is var sum && sum > seconds => d.Lightened((double)seconds / sum),
            AttemptsDose d when d.MaxSeconds > seconds => d with { MaxSeconds = seconds },
            FlowDose d when d.Positions.Max(p => p.Seconds ?? 0) is var longest && longest > seconds => d.Lightened(
                (double)seconds / longest
            ),
            _ => dose,
        };

    private static Dose Shorter(Dose dose, double share) => dose is RampedDose ? dose.Settled(share) : dose.Lightened(share);

    /// <summary>What a dose takes of work, its rests left out.</summary>
    public static double WorkSeconds(Dose dose, double breathSeconds) =>
        dose switch
        {
            HoldDose d => d.Rounds * (d.Seconds ?? breathSeconds * d.Breaths ?? 0),
            RampedDose d => d.SettleSeconds + d.Rounds * (d.PressSeconds + d.LiftSeconds + d.ResettleSeconds),
            RepsDose d => d.Sets * d.Reps * d.SecondsPerRep,
            RhythmDose d => breathSeconds * d.Reps,
            SupportLadderDose d => d.Rounds * d.Rungs.Sum(r => r.Seconds),
            AttemptsDose d => d.Attempts * d.MaxSeconds,
            FlowDose d => d.Rounds * d.Positions.Sum(p => p.Seconds ?? breathSeconds * p.Breaths ?? 0),
            _ => 0,
        };
}
