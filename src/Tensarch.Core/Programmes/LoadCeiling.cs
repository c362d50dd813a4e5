using Tensarch.Core.Planning;
using Tensarch.Core.Sessions;
using Tensarch.Core.Students;

namespace Tensarch.Core.Programmes;

/// <summary>
/// The most that a week may load a tag on a side: max(growth · B, B + step, entry), B the larger of the two weeks before it; after 11 to 27 days
/// off a share of the last week that was trained, after 28 and more the entry alone. Every fourth week is a back-off week. Source: planning rule 6.
/// In the ledger's units: seconds of heavy work, for the wrist hundredths of a bodyweight-second.
/// </summary>
/// <param name="start">The first day of the first week.</param>
public sealed class LoadCeiling(LoadRules rules, DateOnly start)
{
    private const int BaseWeeks = 2;
    public const int WristUnit = 100;

    /// <summary>The tags that a week's load is counted of.</summary>
    public static readonly IReadOnlyList<LoadTag> Counted = [.. LoadTags.All.Where(t => t.IsRegion())];

    /// <summary>The ledger's units as people read them: minutes of heavy work, for the wrist bodyweight-seconds.</summary>
    public static double Shown(LoadTag tag, int load) => Math.Round(load / (tag == LoadTag.Wrist ? WristUnit : 60.0), 1);

    public DateOnly StartOf(int week) => start.AddDays(7 * week);

    public int WeekOf(DateOnly day) => (int)Math.Floor((day.DayNumber - start.DayNumber) / 7.0);

    public bool IsBackOff(int week) => week >= 0 && (week + 1) % rules.BackOffEvery == 0;

    /// <param name="history">What was done, and what is planned before the week.</param>
    public int Of(LoadKey key, int week, TrainingHistory history) =>
        Of(
            key.Tag,
            week,
            at => history.Week(StartOf(at))[key],
            history.Days.Where(d => d.Day < StartOf(week)).Select(d => (DateOnly?)d.Day).Max()
        );

    /// <param name="load">Of a week before it.</param>
    /// <param name="last">The last day before the week on which anything was trained.</param>
    public int Of(LoadTag tag, int week, Func<int, int> load, DateOnly? last)
    {
        var before = load(week - 1);
        var ceiling = Grown(tag, Base(week, load, last));
        return IsBackOff(week) && before > 0 ? Math.Min(ceiling, (int)Math.Max(rules.BackOffShare * before, Step(tag))) : ceiling;
    }

    private double Base(int week, Func<int, int> load, DateOnly? last)
    {
        // The first day of the week ends the break; a day of the week itself may end it later, and is then counted with it.
        var away = last is { } day ? StartOf(week).DayNumber - day.DayNumber : 0;
        return Absences.After(away) switch
        {
            Absence.ReBaseline => 0,
            Absence.Lighter => rules.AfterBreakShare * load(WeekOf(last!.Value)),
            _ => Enumerable.Range(1, BaseWeeks).Max(back => load(week - back)),
        };
    }

    private int Grown(LoadTag tag, double from) => (int)Math.Max(Math.Max(rules.Growth * from, from + Step(tag)), Entry(tag));

    /// <summary>So much more than before is always allowed; what is less than it is nothing to back off from.</summary>
    public int Step(LoadTag tag) => tag == LoadTag.Wrist ? WristUnit * rules.WristStep : rules.StepSeconds;

    /// <summary>So much is allowed whatever was before.</summary>
    public int Entry(LoadTag tag) => tag == LoadTag.Wrist ? WristUnit * rules.WristEntry : rules.EntrySeconds;
}
