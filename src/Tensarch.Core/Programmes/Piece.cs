using Tensarch.Core.Catalogue;
using Tensarch.Core.Planning;
using Tensarch.Core.Sessions;
using Tensarch.Core.Students;

namespace Tensarch.Core.Programmes;

/// <summary>A few weeks of a programme on the way from what the sessions may be to what they are.</summary>
internal sealed partial class Piece
{
    private readonly CatalogueContent content;
    private readonly ProgrammeRules rules;
    private readonly Programme programme;
    private readonly PlanFor made;
    private readonly DayMenu menu;
    private readonly LoadCeiling ceiling;
    private readonly List<int> weeks;
    private readonly List<Ahead> before;

    /// <summary>What was done, and what is planned before the piece.</summary>
    private readonly TrainingHistory history;

    private readonly List<(TrainingSlot Slot, int Week, IReadOnlyList<DayOffer> Offers)> slots = [];

    /// <param name="planned">The weeks before.</param>
    public Piece(CatalogueContent content, PlanFor made, DayMenu menu, int firstWeek, IReadOnlyList<PlanDay> planned)
    {
        (this.content, rules, this.made, programme, this.menu) = (content, content.Programme, made, made.Programme, menu);
        ceiling = new(rules.Load, programme.Start);
        var end = Math.Min(programme.Weeks, (firstWeek / rules.PieceWeeks + 1) * rules.PieceWeeks);
        weeks = [.. Enumerable.Range(firstWeek, end - firstWeek)];
        before = [.. planned.Where(d => d.Offer is not null).Select(AheadOf)];
        history = before.Aggregate(
            made.Facts(made.From, SessionBuilder.FewestMinutes).History,
            (h, d) => h.With(d.Day, d.Worked!, content)
        );
    }

    /// <summary>So many are planned at once.</summary>
    public int Weeks => weeks.Count;

    private Ahead AheadOf(PlanDay day) =>
        new(day.Slot.Day, [.. day.Offer!.Exposed], Work.Planned(day.Offer.Plan, content), day.Offer.Plan.Skills);

    public PieceProblem Problem(IReadOnlyList<TrainingSlot> open, CancellationToken ct)
    {
        // What the sessions of the piece will be is not known yet: each goal is taken to be trained as often as the week allows.
        var ahead = before.ToList();
        foreach (var slot in open)
        {
            ct.ThrowIfCancellationRequested();
            var week = programme.WeekOf(slot.Day);
            var who = Outlook.On(made.Facts(slot.Day, slot.Minutes), ahead, content);
            slots.Add((slot, week, OffersOf(slot, who, week)));
            ahead.Add(new(slot.Day, [.. Expected(who, week, ahead)]));
        }
        var tracks = Tracks();
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

    private LockedDay? LockOf(TrainingSlot slot) => made.LockOf(slot) is { } locked && !Held(locked) ? locked : null;

    /// <summary>Over what is off limits nobody pins anything.</summary>
    private bool Held(LockedDay locked) =>
        SessionChecker.Check(locked.Plan, made.Facts(locked.Slot.Day, locked.Slot.Minutes), content).Any(v => v.Rule == 1);

    /// <summary>What was pinned is all that there is to choose.</summary>
    private IReadOnlyList<DayOffer> OffersOf(TrainingSlot slot, Trainee who, int week) =>
        LockOf(slot) is { } locked
            ? [menu.Assembler.Read(locked.Plan, who, locked.Ask)]
            : Themes.Of(slot, menu.For(who, MenuOf(week)), content);

    private MenuWeek MenuOf(int week) =>
        new(week, ceiling.IsBackOff(week), rules.Tests.In(week), DayMenu.Keys.ToDictionary(key => key, key => Carries(key, week)));

    /// <summary>The first week of the piece carries what its ceiling is; each after it grows from what the one before is planned to carry.</summary>
    private int Carries(LoadKey key, int week)
    {
        var carries = ceiling.Of(key, weeks[0], history);
        for (var next = weeks[0] + 1; next <= week; next++)
        {
            var before = rules.Load.PlannedShare * carries;
            carries = ceiling.Of(key.Tag, next, _ => (int)before, ceiling.StartOf(next).AddDays(-1));
        }
        return carries;
    }

    private int Done(int week, string skill) => made.Done.Count(d => programme.WeekOf(d.Day) == week && d.Skills.Contains(skill));

    /// <summary>What a session will be an exposure of, as far as one can tell: what the week has had least of.</summary>
    private IEnumerable<string> Expected(Trainee who, int week, List<Ahead> ahead)
    {
        int Had(string skill) => Done(week, skill) + ahead.Count(a => programme.WeekOf(a.Day) == week && a.Skills.Contains(skill));
        return programme
            .ByPriority.Select(g => g.Skill)
            .Where(s => Had(s) < AskedOf(who.On(s), week))
            .OrderBy(Had)
            .Take(content.Shape.MostSkills(who.Minutes));
    }

    private int AskedOf(CourseState course, int week) => rules.Exposures.Of(course.Skill, course.Approach.Key, ceiling.IsBackOff(week));

    private IEnumerable<GoalOfWeek> Asked(int week)
    {
        var who = made.Facts(made.From, SessionBuilder.FewestMinutes);
        foreach (var goal in programme.ByPriority)
            yield return new(
                week,
                goal.Skill,
                Math.Max(0, AskedOf(who.On(goal.Skill), week) - Done(week, goal.Skill)),
                rules.Costs.MissingExposure * (6 - goal.Priority),
                rules.Tests.In(week)
                    && !made.Done.Any(d => programme.WeekOf(d.Day) == week && d.Tested.Contains(goal.Skill))
                    && slots.Any(s => s.Week == week && s.Offers.Any(o => o.Ask.Of(BlockAim.Test).Contains(goal.Skill))),
                rules.Costs.ExtraExposure * (ceiling.IsBackOff(week) ? 2 : 1)
            );
    }

    /// <summary>Loads that can come near a limit; both sides once where they are always the same.</summary>
    private List<(LoadKey Key, LoadTrack Track)> Tracks()
    {
        bool NearALimit(LoadKey key) =>
            weeks.Any(w =>
                history.Week(ceiling.StartOf(w))[key]
                    + slots.Where(s => s.Week == w && s.Offers.Count > 0).Sum(s => s.Offers.Max(o => o.Load[key]))
                > ceiling.Step(key.Tag)
            );
        bool SameOnBoth(LoadKey key)
        {
            var left = key with { Limb = Side.Left };
            return slots.All(s => s.Offers.All(o => o.Load[key] == o.Load[left]))
                && Enumerable
                    .Range(weeks[0] - rules.Load.BackOffEvery, weeks.Count + rules.Load.BackOffEvery)
                    .Select(ceiling.StartOf)
                    .All(w => history.Week(w)[key] == history.Week(w)[left]);
        }
        return
        [
            .. DayMenu
                .Keys.Where(key => NearALimit(key) && !(key.Limb == Side.Right && SameOnBoth(key)))
                .Select(key =>
                    (
                        key,
                        new LoadTrack(
                            key,
                            ceiling.Step(key.Tag),
                            ceiling.Entry(key.Tag),
                            (int)Math.Round(100 * rules.Load.Growth),
                            (int)Math.Round(100 * rules.Load.BackOffShare),
                            Enumerable
                                .Range(weeks[0] - rules.Load.BackOffEvery, rules.Load.BackOffEvery)
                                .Max(w => history.Week(ceiling.StartOf(w))[key]),
                            [.. weeks.Select((w, i) => Limit(key, w, i))]
                        )
                    )
                ),
        ];
    }

    private DateOnly? LastBefore(int week) =>
        slots
            .Where(s => s.Offers.Count > 0)
            .Select(s => s.Slot.Day)
            .Concat(history.Days.Select(d => d.Day))
            .Where(d => d < ceiling.StartOf(week))
            .Select(d => (DateOnly?)d)
            .Max();

    /// <param name="slot">Of the problem.</param>
    /// <returns>What the choices of the problem stand for.</returns>
    public IReadOnlyList<DayOffer> OffersAt(int slot) => slots.Where(s => s.Offers.Count > 0).ElementAt(slot).Offers;

    /// <param name="loads">Of the weeks of the piece.</param>
    /// <returns>The most that a week may load when the weeks before it do as they do.</returns>
    public int MostOf(LoadKey key, int week, IReadOnlyDictionary<int, int> loads) =>
        ceiling.Of(
            key.Tag,
            week,
            at => loads.TryGetValue(at, out var load) ? load : history.Week(ceiling.StartOf(at))[key],
            LastBefore(week)
        );

    private WeekLimit Limit(LoadKey key, int week, int place)
    {
        var last = LastBefore(week);
        var gap = last is { } day && ceiling.StartOf(week).DayNumber - day.DayNumber >= Absences.Turns[1];
        return new(
            week,
            place == 0 ? ceiling.Of(key, week, history)
                : gap ? ceiling.Entry(key.Tag)
                : null,
            place == 1 ? history.Week(ceiling.StartOf(week - 2))[key] : 0,
            history.Week(ceiling.StartOf(week))[key],
            ceiling.IsBackOff(week)
        );
    }

    private Choice ChoiceOf(TrainingSlot slot, int week, DayOffer offer, List<(LoadKey Key, LoadTrack Track)> tracks)
    {
        var tested = offer.Ask.Of(BlockAim.Test).ToHashSet();
        var filled = offer.Seconds / 60 + slot.Minutes - menu.MinutesLeft(slot.Minutes, offer.Ask);
        bool Other(IReadOnlyDictionary<(DateOnly, DayHalf), DayAsk> than) =>
            than.TryGetValue((slot.Day, slot.Half), out var was) && was.ToString() != offer.Ask.ToString();
        return new(
            rules.Costs.UnfilledMinute * Math.Max(0, slot.Minutes - filled)
                + rules.Costs.LevelStep * (ceiling.IsBackOff(week) ? 0 : StepsDown(offer.Ask))
                + (Other(made.Seen) ? rules.Costs.SeenDayMoved : 0)
                + (Other(made.Before) ? rules.Costs.DayChanged : 0),
            [.. tracks.Select(t => offer.Load[t.Key])],
            offer.Load.Heavy.ToHashSet(),
            offer.Spacing,
            offer.Exposed.ToHashSet(),
            tested,
            tested.SelectMany(s => content.NewestLadder(s)?.Regions ?? []).ToHashSet(),
            IsHard(offer),
            offer.Blocks.Any(b => b.Entries)
        );
    }

    /// <summary>By skill; what is light is one, a part of the week's load none.</summary>
    private static int StepsDown(DayAsk ask) =>
        ask.Blocks.Sum(b => b.Kind == BlockAim.Light ? 1 : (DayOrder.Whole - ask.Level) / (DayOrder.Whole - DayOrder.Less));

    private bool IsHard(DayOffer offer) =>
        offer.Blocks.Any(b => b.Entries)
        || LoadCeiling.Counted.Any(tag =>
            SideExtensions.Both.Max(s => offer.Load[new LoadKey(tag, s)])
            >= (tag == LoadTag.Wrist ? LoadCeiling.WristUnit * rules.Hard.WristSeconds : rules.Hard.HeavySeconds)
        );
}
