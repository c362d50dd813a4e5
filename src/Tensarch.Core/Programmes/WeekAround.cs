using Tensarch.Core.Catalogue;
using Tensarch.Core.Planning;
using Tensarch.Core.Sessions;

namespace Tensarch.Core.Programmes;

/// <summary>More of a load than rule 6 leaves a week, in the ledger's units.</summary>
public sealed record OverLoad(LoadKey Key, int Has, int Most);

/// <summary>
/// The week that a single session stands in, with all else that was done and is planned around it: what rule 6 leaves the session. Of weeks that are planned it is
/// one of those; of nobody's plan it begins on Monday, and there is no back-off. Source: planning rule 6.
/// </summary>
/// <param name="around">What was done, and what is planned beside the session, as if it were done.</param>
/// <param name="start">The first day of the first week of the plan that stands; none where there is none, or the day is outside it.</param>
public sealed class WeekAround(CatalogueContent content, TrainingHistory around, DateOnly day, DateOnly? start)
{
    private readonly LoadCeiling ceiling = new(content.Programme.Load, start ?? MondayOf(day));

    public static DateOnly MondayOf(DateOnly day) => day.AddDays(-(((int)day.DayOfWeek + 6) % 7));

    /// <summary>The first day of the week.</summary>
    public DateOnly First => ceiling.StartOf(ceiling.WeekOf(day));

    /// <summary>By tag and side, how much is left.</summary>
    public IReadOnlyDictionary<LoadKey, int> Left()
    {
        var (week, has) = (ceiling.WeekOf(day), around.Week(First));
        return Keys.ToDictionary(key => key, key => Math.Max(0, ceiling.Of(key, week, around) - has[key]));
    }

    /// <summary>Of what the session loads, what the week has too much of with it.</summary>
    public IReadOnlyList<OverLoad> Over(SessionPlan plan)
    {
        var (own, has) = (LoadLedger.Of(Work.Planned(plan, content), content), around.Week(First));
        return
        [
            .. from left in Left()
            where own[left.Key] > left.Value
            select new OverLoad(left.Key, has[left.Key] + own[left.Key], has[left.Key] + left.Value),
        ];
    }

    private static IEnumerable<LoadKey> Keys =>
        from tag in LoadCeiling.Counted
        from side in SideExtensions.Both
        select new LoadKey(tag, side);
}
