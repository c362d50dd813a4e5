using Google.OrTools.Sat;
using Tensarch.Core.Programmes;
using Tensarch.Core.Students;

namespace Tensarch.Solver;

/// <summary>A piece as a constraint model.</summary>
internal sealed partial class PieceModel
{
    private const int MostWristDaysRunning = 2;
    private const int MostNeckDays = 3;
    private const int NeckWindow = 7;

    private readonly PieceProblem problem;
    private readonly RuleBook rules;
    private readonly List<LinearExpr> cost = [];

    /// <param name="rules">Which rules there are, and how each is put into the model.</param>
    public PieceModel(PieceProblem problem, RuleBook rules)
    {
        (this.problem, this.rules) = (problem, rules);
        Chosen = [.. problem.Slots.Select((slot, s) => slot.Choices.Select((_, c) => Model.NewBoolVar($"{s}/{c}")).ToArray())];
        foreach (var (slot, s) in Chosen.Select((slot, s) => (slot, s)))
        {
            Model.AddBoolOr(slot);
            Rule(new(PieceRuleKind.Time, problem.Slots[s].Week, problem.Slots[s].Day), () => AtMostOne(slot));
        }
        Spacing();
        Running(LoadTag.Wrist, MostWristDaysRunning + 1, MostWristDaysRunning);
        Running(LoadTag.Neck, NeckWindow, MostNeckDays);
        Loads();
        Exposures();
        Tests();
        rules.Assume(Model);
        if (!rules.Weighs)
            return;
        HardDays();
        Uneven();
        foreach (var (slot, s) in problem.Slots.Select((slot, s) => (slot, s)))
        foreach (var (choice, c) in slot.Choices.Select((choice, c) => (choice, c)))
            if (choice.Cost > 0)
                cost.Add(choice.Cost * Chosen[s][c]);
        Model.Minimize(LinearExpr.Sum(cost));
    }

    /// <summary>Where the search begins.</summary>
    /// <param name="chosen">By slot, the place of a choice.</param>
    public void Begin(IReadOnlyList<int> chosen)
    {
        foreach (var (slot, s) in Chosen.Select((slot, s) => (slot, s)))
        foreach (var (choice, c) in slot.Select((choice, c) => (choice, c)))
            Model.AddHint(choice, c == chosen[s] ? 1 : 0);
    }

    public CpModel Model { get; } = new();

    /// <summary>By slot and choice.</summary>
    public IReadOnlyList<BoolVar[]> Chosen { get; }

    private void Rule(PieceRule rule, Func<Constraint> constraint) => rules.Put(Model, rule, () => [constraint()]);

    /// <summary>Written so that it can be made to hold only where something else does.</summary>
    private Constraint AtMostOne(IReadOnlyCollection<BoolVar> of) =>
        rules.Weighs ? Model.AddAtMostOne(of) : Model.Add(LinearExpr.Sum(of) <= 1);

    private int Between(int earlier, int later) => problem.Slots[later].Day.DayNumber - problem.Slots[earlier].Day.DayNumber;

    /// <summary>The choices of a slot that something is true of.</summary>
    private List<BoolVar> Where(int slot, Func<Choice, bool> which) =>
        [.. problem.Slots[slot].Choices.Select((choice, c) => (choice, c)).Where(x => which(x.choice)).Select(x => Chosen[slot][x.c])];

    private IEnumerable<(int Earlier, int Later)> Pairs(int days) =>
        from later in Enumerable.Range(0, problem.Slots.Count)
        from earlier in Enumerable.Range(0, later)
        where Between(earlier, later) <= days
        select (earlier, later);

    /// <summary>Rule 5, end of a range: so many calendar days clear before; and what a test asks to be fresh.</summary>
    private void Spacing()
    {
        foreach (var (earlier, later) in Pairs(7))
        {
            var days = Between(earlier, later);
            foreach (var tag in LoadTags.All)
            {
                var heavy = Where(earlier, c => c.Heavy.Contains(tag));
                if (heavy.Count == 0)
                    continue;
                void Apart(PieceRuleKind kind, List<BoolVar> close)
                {
                    var (at, from) = (problem.Slots[later], problem.Slots[earlier].Day);
                    if (close.Count > 0)
                        Rule(new(kind, at.Week, at.Day, from, Tag: tag), () => NotBoth(heavy, close));
                }
                Apart(PieceRuleKind.Spacing, Where(later, c => c.Spacing.TryGetValue(tag, out var keeps) && days < keeps));
                if (days == 1)
                    Apart(PieceRuleKind.Fresh, Where(later, c => c.Fresh.Contains(tag)));
            }
        }
    }

    /// <summary>Of a session more than one thing may be so where its time is no rule: each is held against each.</summary>
    private Constraint NotBoth(List<BoolVar> one, List<BoolVar> other)
    {
        if (rules.Weighs)
            return Model.AddAtMostOne([.. one, .. other]);
        var any = Model.NewBoolVar("any");
        Model.AddMaxEquality(any, one);
        return Model.Add(LinearExpr.Sum(other) <= other.Count - other.Count * any);
    }

    /// <summary>Rule 5: on at most so many of so many days running is a tag loaded heavily; what was before the piece counts.</summary>
    private void Running(LoadTag tag, int window, int most)
    {
        if (problem.Slots.Count == 0)
            return;
        var (first, last) = (problem.Slots[0].Day, problem.Slots[^1].Day);
        var onDay = new Dictionary<DateOnly, BoolVar>();
        foreach (var day in problem.Slots.Select((slot, s) => (slot.Day, s)).GroupBy(x => x.Day))
        {
            var heavy = day.SelectMany(x => Where(x.s, c => c.Heavy.Contains(tag))).ToList();
            if (heavy.Count == 0)
                continue;
            var any = onDay[day.Key] = Model.NewBoolVar($"{tag} {day.Key}");
            Model.AddMaxEquality(any, heavy);
        }
        var before = problem.Heavy.Where(d => d.Tags.Contains(tag)).Select(d => d.Day).ToHashSet();
        for (var from = first.AddDays(1 - window); from <= last; from = from.AddDays(1))
        {
            var days = Enumerable.Range(0, window).Select(from.AddDays).ToList();
            var open = days.Where(onDay.ContainsKey).Select(d => onDay[d]).ToList();
            var done = days.Count(before.Contains);
            if (open.Count > 0 && open.Count + done > most)
                Rule(
                    new(tag == LoadTag.Wrist ? PieceRuleKind.WristDays : PieceRuleKind.NeckDays, Day: from, Tag: tag, Number: most),
                    () => Model.Add(LinearExpr.Sum(open) <= Math.Max(0, most - done))
                );
        }
    }

    /// <summary>Rule 8.</summary>
    private void Exposures()
    {
        foreach (var asked in problem.Asked)
        {
            var given = Slots(asked.Week).SelectMany(s => Where(s, c => c.Exposes.Contains(asked.Skill))).ToList();
            if (rules.Asked)
            {
                if (asked.Exposures > 0)
                    Rule(
                        new(PieceRuleKind.Exposures, asked.Week, Skill: asked.Skill, Number: asked.Exposures),
                        () => Model.Add(LinearExpr.Sum(given) >= asked.Exposures)
                    );
                continue;
            }
            var missing = Model.NewIntVar(0, asked.Exposures, $"{asked.Skill} {asked.Week}");
            Model.Add(missing >= asked.Exposures - LinearExpr.Sum(given));
            cost.Add(asked.MissingCost * missing);
            if (asked.ExtraCost == 0)
                continue;
            var extra = Model.NewIntVar(0, given.Count, $"{asked.Skill} {asked.Week} more");
            Model.Add(extra >= LinearExpr.Sum(given) - asked.Exposures);
            cost.Add(asked.ExtraCost * extra);
        }
    }

    private IEnumerable<int> Slots(int week) => Enumerable.Range(0, problem.Slots.Count).Where(s => problem.Slots[s].Week == week);

    /// <summary>Rule 11: a goal is tested once in the weeks that are for it, in an early session.</summary>
    private void Tests()
    {
        foreach (var asked in problem.Asked.Where(a => a.Test))
        {
            var open = Slots(asked.Week).Select((s, place) => (Tests: Where(s, c => c.Tests.Contains(asked.Skill)), place)).ToList();
            var all = open.SelectMany(o => o.Tests).ToList();
            var rule = new PieceRule(PieceRuleKind.Test, asked.Week, Skill: asked.Skill);
            Rule(rule, () => rules.Asked ? Model.Add(LinearExpr.Sum(all) == 1) : AtMostOne(all));
            cost.Add(problem.Costs.MissingTest * (1 - LinearExpr.Sum(all)));
            cost.AddRange(open.SelectMany(o => o.Tests.Select(x => problem.Costs.LaterTest * o.place * x)));
        }
    }

    /// <summary>Rule 9: hard days apart, and nothing that wants fresh nerves after one.</summary>
    private void HardDays()
    {
        foreach (var (earlier, later) in Pairs(1).Where(p => Between(p.Earlier, p.Later) == 1))
        {
            Both(earlier, c => c.Hard, later, c => c.Hard, problem.Costs.AdjacentHardDays);
            Both(earlier, c => c.Hard, later, c => c.Nerve, problem.Costs.NerveAfterHardDay);
        }
    }

    /// <summary>Two exposures of a goal without a day between.</summary>
    private void Uneven()
    {
        foreach (var (earlier, later) in Pairs(1))
        foreach (var skill in problem.Asked.Select(a => a.Skill).Distinct())
            Both(earlier, c => c.Exposes.Contains(skill), later, c => c.Exposes.Contains(skill), problem.Costs.Uneven);
    }

    private void Both(int earlier, Func<Choice, bool> first, int later, Func<Choice, bool> second, int each)
    {
        var (one, other) = (Where(earlier, first), Where(later, second));
        if (one.Count == 0 || other.Count == 0)
            return;
        var both = Model.NewBoolVar("both");
        Model.Add(both >= LinearExpr.Sum(one) + LinearExpr.Sum(other) - 1);
        cost.Add(each * both);
    }
}
