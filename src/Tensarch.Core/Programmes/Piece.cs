using Tensarch.Core.Catalogue;
using Tensarch.Core.Planning;
using Tensarch.Core.Sessions;
using Tensarch.Core.Students;

namespace Tensarch.Core.Programmes;

/// <summary>A few weeks of a programme on the way from what the sessions may be to what they are.</summary>
internal sealed class Piece
{
    private readonly CatalogueContent content;
    private readonly ProgrammeRules rules;
    private readonly Programme programme;
    private readonly DayMenu menu;
    private readonly Func<DateOnly, int, Trainee> facts;
    private readonly int firstWeek;
    private readonly List<Ahead> before;
    private readonly LoadCeiling ceiling;

    /// <summary>What was done, and what is planned before the piece.</summary>
    private readonly TrainingHistory historyBefore;
    private readonly List<(TrainingSlot Slot, int Week, IReadOnlyList<DayOffer> Offers)> slots = [];

    /// <param name="done">The plan of the weeks before.</param>
    public Piece(
        CatalogueContent content,
        Programme programme,
        DayMenu menu,
        Func<DateOnly, int, Trainee> facts,
        int firstWeek,
        IReadOnlyList<PlanDay> done
    )
    {
        (this.content, rules, this.programme, this.menu, this.facts, this.firstWeek) = (
            content,
            content.Programme,
            programme,
            menu,
            facts,
            firstWeek
        );
        ceiling = new(rules.Load, programme.Start);
        before = [.. done.Where(d => d.Offer is not null).Select(AheadOf)];
        historyBefore = before.Aggregate(
            facts(programme.Start, SessionBuilder.FewestMinutes).History,
            (h, d) => h.With(d.Day, d.Worked!, content)
        );
    }

    private Ahead AheadOf(PlanDay day) => new(day.Slot.Day, [.. day.Offer!.Exposed], Work.Planned(day.Offer.Plan, content));

    public PieceProblem Problem(IReadOnlyList<TrainingSlot> open)
    {
        // What the sessions of the piece will be is not known yet: each goal is taken to be trained as often as the week allows.
        var ahead = before.ToList();
        foreach (var slot in open)
        {
            var week = programme.WeekOf(slot.Day);
            var who = Outlook.On(facts(slot.Day, slot.Minutes), ahead, content);
            slots.Add((slot, week, menu.For(who, ceiling.IsBackOff(week), rules.Tests.In(week))));
            ahead.Add(new(slot.Day, [.. Expected(who, week, ahead)]));
        }
        var history = historyBefore;
        var weeks = Enumerable.Range(firstWeek, Math.Min(rules.PieceWeeks, programme.Weeks - firstWeek)).ToList();
        var tracks = Tracks(weeks, history);
        return new(
            [
                .. slots
                    .Where(s => s.Offers.Count > 0)
                    .Select(s => new PieceSlot(s.Slot.Day, s.Week, [.. s.Offers.Select(o => ChoiceOf(s.Slot, s.Week, o, tracks))])),
            ],
            [.. tracks.Select(t => t.Track)],
            [.. weeks.SelectMany(Asked)],
            [.. history.Days.Select(d => (d.Day, (IReadOnlySet<LoadTag>)d.Loads.Heavy.ToHashSet()))],
            rules.Costs
        );
    }

    private IEnumerable<string> Expected(Trainee who, int week, List<Ahead> ahead) =>
        programme
            .ByPriority.Select(g => g.Skill)
            .OrderBy(s => ahead.Count(a => programme.WeekOf(a.Day) == week && a.Skills.Contains(s)))
            .Where(s => ahead.Count(a => programme.WeekOf(a.Day) == week && a.Skills.Contains(s)) < AskedOf(who.On(s), week))
            .Take(content.Shape.MostSkills(who.Minutes));

    private int AskedOf(CourseState course, int week) => rules.Exposures.Of(course.Skill, course.Approach.Key, ceiling.IsBackOff(week));

    private IEnumerable<GoalOfWeek> Asked(int week)
    {
        var who = facts(ceiling.StartOf(week), SessionBuilder.FewestMinutes);
        foreach (var goal in programme.ByPriority)
            yield return new(
                week,
                goal.Skill,
                AskedOf(who.On(goal.Skill), week),
                rules.Costs.MissingExposure * (6 - goal.Priority),
                rules.Tests.In(week) && slots.Any(s => s.Week == week && s.Offers.Any(o => o.Ask.Of(BlockKind.Test).Contains(goal.Skill)))
            );
    }

    /// <summary>Loads that can come near a limit; both sides once where they are always the same.</summary>
    private List<(LoadKey Key, LoadTrack Track)> Tracks(List<int> weeks, TrainingHistory history)
    {
        var tracks = new List<(LoadKey, LoadTrack)>();
        foreach (var key in DayMenu.Keys)
        {
            if (key.Limb == Side.Right && slots.All(s => s.Offers.All(o => o.Load[key] == o.Load[key with { Limb = Side.Left }])))
                if (
                    weeks.All(w =>
                        history.Week(ceiling.StartOf(w - 1))[key] == history.Week(ceiling.StartOf(w - 1))[key with { Limb = Side.Left }]
                    )
                )
                    continue;
            var most = weeks
                .Select(w => slots.Where(s => s.Week == w && s.Offers.Count > 0).Sum(s => s.Offers.Max(o => o.Load[key])))
                .ToList();
            if (most.All(m => m <= ceiling.Step(key.Tag)))
                continue;
            tracks.Add(
                (
                    key,
                    new(
                        key.ToString(),
                        ceiling.Step(key.Tag),
                        ceiling.Entry(key.Tag),
                        (int)Math.Round(100 * rules.Load.Growth),
                        (int)Math.Round(100 * rules.Load.BackOffShare),
                        [.. weeks.Select((w, i) => Limit(key, w, i, history))]
                    )
                )
            );
        }
        return tracks;
    }

    private WeekLimit Limit(LoadKey key, int week, int place, TrainingHistory history)
    {
        var last = slots.Where(s => s.Week < week && s.Offers.Count > 0).Select(s => (DateOnly?)s.Slot.Day).Max();
        var gap = last is { } day && ceiling.StartOf(week).DayNumber - day.DayNumber >= Absences.Turns[1];
        return new(
            week,
            place == 0 || last is null ? ceiling.Of(key, week, history)
                : gap ? ceiling.Entry(key.Tag)
                : null,
            place == 1 ? history.Week(ceiling.StartOf(week - 2))[key] : 0,
            ceiling.IsBackOff(week)
        );
    }

    private Choice ChoiceOf(TrainingSlot slot, int week, DayOffer offer, List<(LoadKey Key, LoadTrack Track)> tracks)
    {
        var tested = offer.Ask.Of(BlockKind.Test).ToHashSet();
        var filled = offer.Seconds / 60 + slot.Minutes - menu.MinutesLeft(slot.Minutes, offer.Ask);
        var steps = ceiling.IsBackOff(week)
            ? 0
            : offer.Ask.Blocks.Sum(b =>
                b.Kind == BlockKind.Light ? 1 : (DayOrder.Whole - offer.Ask.Level) / (DayOrder.Whole - DayOrder.Less)
            );
        return new(
            rules.Costs.UnfilledMinute * Math.Max(0, slot.Minutes - filled) + rules.Costs.LevelStep * steps,
            [.. tracks.Select(t => offer.Load[t.Key])],
            offer.Load.Heavy.ToHashSet(),
            offer.Spacing,
            offer.Exposed.ToHashSet(),
            tested,
            tested.SelectMany(s => content.NewestLadder(s)?.Regions ?? []).ToHashSet(),
            LoadCeiling.Counted.Any(t =>
                SideExtensions.Both.Max(s => offer.Load[new LoadKey(t, s)])
                >= (t == LoadTag.Wrist ? LoadCeiling.WristUnit * rules.Hard.WristSeconds : rules.Hard.HeavySeconds)
            ) || offer.Blocks.Any(b => b.Entries),
            offer.Blocks.Any(b => b.Entries)
        );
    }

    /// <summary>
    /// The sessions as they are chosen; then each in turn made anew with its own turn among equals, where that serves as the chosen one does and no
    /// week's load, nor what it leaves to the weeks after it, is in the way.
    /// </summary>
    public IReadOnlyList<PlanDay> Days(PieceAnswer answer)
    {
        var days = Chosen(answer).ToList();
        var (ahead, history) = (before.ToList(), historyBefore);
        for (var i = 0; i < days.Count; i++)
        {
            var day = days[i];
            if (day.Offer is not { } chosen)
                continue;
            var who = Outlook.On(facts(day.Slot.Day, day.Slot.Minutes - day.TestMinutes), ahead, content);
            if (Turned(who, chosen) is { } turned && WithinCeilings([.. days.Take(i), day with { Offer = turned }, .. days.Skip(i + 1)]))
                days[i] = day with { Offer = turned };
            ahead.Add(AheadOf(days[i]));
        }
        return days;
    }

    private IEnumerable<PlanDay> Chosen(PieceAnswer answer)
    {
        var at = 0;
        foreach (var (slot, week, offers) in slots)
        {
            if (offers.Count == 0)
            {
                yield return new(slot, week, ceiling.IsBackOff(week), null, 0);
                continue;
            }
            var chosen = offers[answer.Chosen[at++]];
            var testMinutes = slot.Minutes - menu.MinutesLeft(slot.Minutes, chosen.Ask);
            yield return new(slot, week, ceiling.IsBackOff(week), chosen with { Plan = chosen.Plan with { Date = slot.Day } }, testMinutes);
        }
    }

    private DayOffer? Turned(Trainee who, DayOffer chosen) =>
        menu.Assembler.Of(who, chosen.Ask, DayMenu.Share(chosen.Load, 100)) is { } turned
        && Serves(turned, chosen)
        && SessionChecker.Check(turned.Plan, who, content).Count == 0
            ? turned
            : null;

    private bool WithinCeilings(IReadOnlyList<PlanDay> days)
    {
        var weeks = days.GroupBy(d => d.Week)
            .ToDictionary(w => w.Key, w => w.Select(d => d.Offer?.Load ?? LoadLedger.Empty).Aggregate((a, b) => a.Plus(b)));
        LoadLedger Load(int week) => weeks.GetValueOrDefault(week) ?? historyBefore.Week(ceiling.StartOf(week));
        DateOnly? Last(int week) =>
            days.Where(d => d.Offer is not null)
                .Select(d => d.Slot.Day)
                .Concat(historyBefore.Days.Select(d => d.Day))
                .Where(d => d < ceiling.StartOf(week))
                .Select(d => (DateOnly?)d)
                .Max();
        return weeks.Keys.All(week =>
            DayMenu.Keys.All(key => weeks[week][key] <= ceiling.Of(key.Tag, week, at => Load(at)[key], Last(week)))
        );
    }

    private static bool Serves(DayOffer turned, DayOffer chosen) =>
        !chosen.Exposed.Except(turned.Exposed).Any()
        && !turned.Load.Heavy.Except(chosen.Load.Heavy).Any()
        && turned.Spacing.All(s => chosen.Spacing.GetValueOrDefault(s.Key) >= s.Value)
        && turned.Seconds >= chosen.Seconds - 120;
}
