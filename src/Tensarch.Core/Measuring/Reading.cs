namespace Tensarch.Core.Measuring;

/// <summary>
/// One reading as it was taken: one to five trials in order. Its SEM, τ and resolution are frozen when it is taken.
/// A reading is never edited; a wrong one is voided, with a reason, and taken again.
/// </summary>
/// <param name="Sem">Trial-to-trial standard error of measurement, in the measure's unit.</param>
/// <param name="Tau">Day-to-day standard deviation, in the measure's unit.</param>
/// <param name="Resolution">Standard error from the instrument's steps, in the measure's unit.</param>
/// <param name="Disqualified">A disqualifying compensation was seen: kept and shown, counted for no gate and no trend.</param>
/// <param name="Quality">Of 5.</param>
/// <param name="Tally">Successes of attempts, for counts.</param>
/// <param name="OnDay">The day in the studio's time zone.</param>
/// <param name="TrialsAt">When each trial was taken, where the bench saw it: holds count as attempts of their own by it.</param>
public sealed record Reading(
    Guid Id,
    Series Series,
    DateTimeOffset At,
    IReadOnlyList<double> Trials,
    double Sem,
    double Tau,
    double Resolution,
    Guid TakenBy,
    bool Disqualified = false,
    int? Pain = null,
    int? Quality = null,
    Tally? Tally = null,
    DateOnly? OnDay = null,
    IReadOnlyList<DateTimeOffset>? TrialsAt = null
)
{
    /// <summary>The day on which it was taken: the studio's where it is known, else the day in UTC.</summary>
    public DateOnly Day => OnDay ?? DateOnly.FromDateTime(At.UtcDateTime);

    public Estimate Estimate => new(Trials.Average(), ReadingError.StandardError(Sem, Tau, Trials.Count, Resolution));
}

/// <summary>Successes of so many attempts.</summary>
public sealed record Tally(int Successes, int Attempts);
