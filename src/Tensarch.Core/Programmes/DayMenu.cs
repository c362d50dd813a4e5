using System.Collections.Concurrent;
using System.Globalization;
using System.Text;
using Tensarch.Core.Catalogue;
using Tensarch.Core.Planning;
using Tensarch.Core.Sessions;
using Tensarch.Core.Students;

namespace Tensarch.Core.Programmes;

/// <summary>What a week asks of the sessions in it.</summary>
/// <param name="Tests">Tests fall in it.</param>
/// <param name="Carries">By tag and side what it will carry, as far as one can tell beforehand; in the ledger's units.</param>
internal sealed record MenuWeek(int Week, bool BackOff, bool Tests, IReadOnlyDictionary<LoadKey, int> Carries);

/// <summary>
/// What a session of a plan may be: every set of goals that its minutes take, at each level, some of them lightly, or as a test. Days on which
/// the same may be done share one menu.
/// </summary>
internal sealed class DayMenu(CatalogueContent content, Programme programme)
{
    private const int ManyGoals = 3;

    private readonly Assembler assembler = new(content);
    private readonly LoadCeiling ceiling = new(content.Programme.Load, programme.Start);
    private readonly Dictionary<string, IReadOnlyList<DayOffer>> made = [];
    private readonly Dictionary<string, IReadOnlyList<DayOffer>> portions = [];
    private readonly ConcurrentDictionary<string, IReadOnlyList<DayOffer>> eased = [];

    public Assembler Assembler => assembler;

    /// <param name="who">On the day.</param>
    /// <param name="week">In a back-off week all of it is light or the first week's dose.</param>
    public IReadOnlyList<DayOffer> For(Trainee who, MenuWeek week)
    {
        // Whose turn it is among equals is settled when the day is chosen: no offer differs by it.
        var day = assembler.On(FirstSides.Alike(who));
        var key = string.Create(CultureInfo.InvariantCulture, $"{KeyOf(who, who.StepOf)} {week.BackOff} {week.Tests}");
        if (!made.TryGetValue(key, out var offers))
            made[key] = offers = Offers(day, week.BackOff, week.Tests);
        key += string.Create(CultureInfo.InvariantCulture, $" {week.Week}");
        if (!portions.TryGetValue(key, out var portioned))
            portions[key] = portioned = [
                .. Together
                    .Each(
                        [.. offers.GroupBy(o => string.Join('+', o.Ask.Blocks)).Select(same => same.MinBy(o => o.Ask.Level)!)],
                        least => Portioned(day, least, week)
                    )
                    .OfType<DayOffer>(),
            ];
        return [.. offers, .. portioned];
    }

    private List<DayOffer> Offers(Assembler.OnDay day, bool backOff, bool tests) =>
        [
            .. Together
                .Each(
                    [.. Sets([.. programme.ByPriority.Select(g => g.Skill)], content.Shape.MostSkills(day.Who.Minutes))],
                    skills =>
                        (List<DayOffer>)
                            [.. Trained(day, skills, backOff), .. Eased(day, skills), .. tests ? Tested(day, skills, backOff) : []]
                )
                .SelectMany(offers => offers),
        ];

    /// <summary>A session's minutes without those that measuring ranges takes.</summary>
    public int MinutesLeft(int minutes, DayAsk ask) =>
        minutes
        - (int)
            Math.Ceiling(
                programme.Goals.Where(g => ask.Of(BlockAim.Test).Contains(g.Skill)).Sum(g => g.RangeTests)
                    * content.Programme.Tests.RangeSeconds
                    / 60.0
            );

    private static DayAsk Ask(IEnumerable<string> skills, Func<string, BlockAim> kind, int level) =>
        new([.. skills.Select(s => new BlockOrder(s, kind(s)))], level);

    private IEnumerable<DayOffer> Trained(Assembler.OnDay day, IReadOnlyList<string> skills, bool backOff)
    {
        if (day.Of(Ask(skills, _ => BlockAim.Train, DayOrder.Whole)) is not { } whole)
            yield break;
        if (!backOff)
            yield return whole;
        // Of many goals there are sets enough: what is between all and least of several at once is hardly ever chosen.
        var between = !backOff && (skills.Count == 1 || programme.Goals.Count < ManyGoals);
        foreach (var level in between ? new[] { DayOrder.Less, DayOrder.Least } : [DayOrder.Least])
            if (day.Of(Ask(skills, _ => BlockAim.Train, level), Share(whole.Load, level)) is { } less)
                yield return less;
        // Beside each other one of two may be light: what they load is for one of them.
        if (skills.Count == 2 && between)
            foreach (var light in skills)
                if (
                    day.Of(
                        Ask(skills, s => s == light ? BlockAim.Light : BlockAim.Train, DayOrder.Whole),
                        Share(whole.Load, DayOrder.Whole)
                    ) is
                    { } mixed
                )
                    yield return mixed;
    }

    /// <summary>
    /// No more of a session than leaves room for the week's other exposures: where a skill wants three, two long sessions would fill the week.
    /// None where the session is as little.
    /// </summary>
    private DayOffer? Portioned(Assembler.OnDay day, DayOffer least, MenuWeek week)
    {
        var who = day.Who;
        if (least.Ask.Of(BlockAim.Light).Any())
            return null;
        var often = least.Ask.Blocks.Max(b => content.Programme.Exposures.Of(b.Skill, who.On(b.Skill).Approach.Key, week.BackOff));
        var most = Keys.ToDictionary(k => k, k => week.Carries[k] / often);
        if (most.All(m => least.Load[m.Key] <= m.Value))
            return null;
        var ask = least.Ask with { Level = week.BackOff ? DayOrder.Least : DayOrder.Portion };
        return day.Of(ask, most, MinutesLeft(who.Minutes, ask)) is { } portion && portion.Exposed.Any() ? portion : null;
    }

    /// <summary>What is light is at a first week's dose, and so the same in every week.</summary>
    private IReadOnlyList<DayOffer> Eased(Assembler.OnDay day, IReadOnlyList<string> skills) =>
        eased.GetOrAdd($"{KeyOf(day.Who, _ => 0)} {string.Join('+', skills)}", _ => [.. EasedAnew(day, skills)]);

    /// <summary>Lightly, and without any weight on the hands: it fits into every week.</summary>
    private IEnumerable<DayOffer> EasedAnew(Assembler.OnDay day, IReadOnlyList<string> skills)
    {
        var ask = Ask(skills, _ => BlockAim.Light, DayOrder.Least);
        if (day.Of(ask) is { } light)
        {
            yield return light;
            if (light.Load.IsEmpty)
                yield break;
        }
        if (day.Of(ask, Share(LoadLedger.Empty, 0)) is { } nothing)
            yield return nothing;
    }

    /// <summary>What has something to show is tested; what has not is trained beside it.</summary>
    private IEnumerable<DayOffer> Tested(Assembler.OnDay day, IReadOnlyList<string> skills, bool backOff)
    {
        var who = day.Who;
        var tested = skills.Where(s => IsTested(who.On(s))).ToHashSet();
        var ask = Ask(skills, s => tested.Contains(s) ? BlockAim.Test : BlockAim.Train, backOff ? DayOrder.Least : DayOrder.Whole);
        var minutes = MinutesLeft(who.Minutes, ask);
        if (
            tested.Count > 0
            && who.Minutes >= content.Programme.Tests.LeastMinutes
            && minutes >= SessionBuilder.FewestMinutes
            && day.Of(ask, minutes: minutes) is { } test
        )
            yield return test;
    }

    /// <summary>A session shorter than this has no test of a skill in it.</summary>
    public int LeastMinutesToTest(string skill) =>
        Math.Max(
            content.Programme.Tests.LeastMinutes,
            SessionBuilder.FewestMinutes - MinutesLeft(0, new([new(skill, BlockAim.Test)], DayOrder.Whole))
        );

    /// <summary>Its next gate still asks for something that is shown on a test day.</summary>
    public bool IsTested(CourseState course) =>
        programme.Goals.First(g => g.Skill == course.Skill).RangeTests > 0
        || SideExtensions.Both.Any(s => course.Of(s).Wanted.Any(w => !w.Met && w.Test.ReadDrill is not null));

    /// <summary>
    /// Of a load so many per cent, for every tag that weeks count; a little of it stays, whatever the rest of the day is: a test of the day or a
    /// preparation is not done by halves, and three of them fit into any week.
    /// </summary>
    private Dictionary<LoadKey, int> Share(LoadLedger load, int percent) =>
        Keys.ToDictionary(k => k, k => Math.Max(load[k] * percent / 100, Math.Min(load[k], ceiling.Step(k.Tag) / 3)));

    /// <summary>No more than a day that is there already.</summary>
    public static Dictionary<LoadKey, int> AsMuchAs(LoadLedger load) => Keys.ToDictionary(k => k, k => load[k]);

    public static readonly IReadOnlyList<LoadKey> Keys =
    [
        .. LoadCeiling.Counted.SelectMany(t => SideExtensions.Both.Select(s => new LoadKey(t, s))),
    ];

    private static IEnumerable<IReadOnlyList<string>> Sets(IReadOnlyList<string> skills, int most) =>
        from set in Enumerable.Range(1, (1 << skills.Count) - 1)
        let chosen = skills.Where((_, i) => (set >> i & 1) == 1).ToList()
        where chosen.Count <= most
        orderby chosen.Count
        select (IReadOnlyList<string>)chosen;

    /// <summary>All that a day's offers depend on, but for whose turn it is among equals.</summary>
    /// <param name="step">Of growth, as it counts for the day.</param>
    private static string KeyOf(Trainee who, Func<CourseState, int> step)
    {
        var text = new StringBuilder();
        text.Append(CultureInfo.InvariantCulture, $"{who.Minutes} {who.WayBack?.DoseShare} {who.Absence} {who.Bars.RampTopPercent} ");
        text.AppendJoin(',', LoadTags.All.Select(t => (int)who.Bars[t])).Append(' ');
        text.AppendJoin(',', who.Eased.Select(e => e.ToString())).Append(' ');
        text.AppendJoin(',', DrillChoice.EndRangeRegions.Select(t => Math.Min(3, who.History.DaysSinceHeavy(t, who.Date) ?? 3)))
            .Append(' ');
        text.Append(
            CultureInfo.InvariantCulture,
            $"{who.History.DaysRunning(LoadTag.Wrist, who.Date)} {who.History.HeavyDays(LoadTag.Neck, who.Date, 6)} "
        );
        foreach (var course in who.Courses)
            text.Append(
                CultureInfo.InvariantCulture,
                $"{course.Skill} {step(course)} {who.FirstWeekOf(course)} {who.AttemptsAllowedIn(course)} {course.Weaker} "
            );
        return text.ToString();
    }
}
