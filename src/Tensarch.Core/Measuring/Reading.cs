namespace Tensarch.Core.Measuring;

/// <summary>
/// One reading as it was taken: one to five trials in order. Its SEM, τ and resolution are frozen when it is taken.
/// A reading is never edited; a wrong one is voided, with a reason, and taken again.
/// </summary>
/// <param name="Sem">Trial-to-trial standard error of measurement, in the measure's unit.</param>
/// <param name="Tau">Day-to-day standard deviation, in the measure's unit.</param>
/// <param name="Resolution">Standard error from the instrument's steps, in the measure's unit.</param>
/// <param name="Disqualified">A disqualifying compensation was seen: kept and shown, counted for no gate and no trend.</param>
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
    int? Pain = null
)
{
    public Estimate Estimate => new(Trials.Average(), ReadingError.StandardError(Sem, Tau, Trials.Count, Resolution));
}
