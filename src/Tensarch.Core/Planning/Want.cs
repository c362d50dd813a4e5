using Tensarch.Core.Catalogue;
using Tensarch.Core.Skills;

namespace Tensarch.Core.Planning;

/// <summary>A hold or a count that the gate of a side asks for, with what the student can do of it.</summary>
/// <param name="Drill">In which it is done.</param>
/// <param name="Variant">In which it is read; none where any variant counts.</param>
/// <param name="Best">The best of the last 21 days, in seconds; nine tenths of one of 22 to 42 days ago; none without either.</param>
/// <param name="Due">Today it is tested; on every other day it is practised.</param>
/// <param name="Met">The gate has it already: it is kept up, and nothing else waits for it.</param>
public sealed record Want(ReadinessTest Test, string Drill, string? Variant, double? Best = null, bool Due = false, bool Met = false)
{
    private const int FreshDays = 21;
    private const int OldestDays = 42;
    private const double OlderShare = 0.9;

    /// <summary>A test wants a session that is long enough to warm up for it.</summary>
    private const int LeastMinutes = 30;
    private const int RetestDays = 2;

    /// <summary>What is met is tested again so many days before it no longer counts.</summary>
    private const int LapsesDays = 7;

    /// <summary>What is held or counted without any history, as the gate asks for it.</summary>
    public static Want Of(ReadinessTest test, CatalogueContent content) => new(test, DrillOf(test, content)!, test.ReadVariant);

    /// <summary>Whether a test is one that is practised: a hold or a count in a drill.</summary>
    public static bool Practises(ReadinessTest test, CatalogueContent content) =>
        test is HoldCriterion or RepsCriterion && DrillOf(test, content) is not null;

    internal static string? DrillOf(ReadinessTest test, CatalogueContent content) =>
        test.ReadDrill ?? content.Shape.TrainedBy.GetValueOrDefault(test.ReadMeasure ?? "");

    /// <summary>
    /// Tests fall in every second week, once; what is borderline is tested again after two days, what is met before it lapses. What is read on
    /// the bench is tested there.
    /// </summary>
    /// <param name="lapses">The day on which what it rests on no longer counts.</param>
    internal Want With(
        IReadOnlyList<HoldAttempt> attempts,
        Outcome outcome,
        DateOnly? lapses,
        DateOnly date,
        int daysSinceStart,
        int minutes
    )
    {
        var ago = attempts.Select(a => (Days: date.DayNumber - a.Day.DayNumber, a.Seconds)).Where(a => a.Days >= 0).ToList();
        double? Most(int days) => ago.Where(a => a.Days <= days).Select(a => (double?)a.Seconds).Max();
        var last = ago.Select(a => (int?)a.Days).Min();
        var tested = last <= daysSinceStart % 7;
        var again = outcome == Outcome.Borderline && last >= RetestDays;
        var thisWeek = outcome == Outcome.Met ? lapses <= date.AddDays(LapsesDays) : daysSinceStart / 7 % 2 == 1;
        return this with
        {
            Best = Most(FreshDays) ?? Most(OldestDays) * OlderShare,
            Due = Test.ReadDrill is not null && minutes >= LeastMinutes && (again || (thisWeek && !tested)),
            Met = outcome == Outcome.Met,
        };
    }
}
