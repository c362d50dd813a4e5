using Google.OrTools.Sat;
using Tensarch.Core.Programmes;

namespace Tensarch.Solver;

/// <summary>Rule 6: what a week may load follows from the weeks before it.</summary>
internal sealed partial class PieceModel
{
    private void Loads()
    {
        foreach (var (track, t) in problem.Loads.Select((track, t) => (track, t)))
        {
            var weeks = new List<IntVar>();
            var mosts = new List<int>();
            foreach (var (limit, w) in track.Weeks.Select((limit, w) => (limit, w)))
            {
                var terms = new List<LinearExpr> { LinearExpr.Constant(limit.Done) };
                var most = limit.Done;
                foreach (var (slot, s) in problem.Slots.Select((slot, s) => (slot, s)))
                    if (slot.Week == limit.Week)
                    {
                        terms.AddRange(slot.Choices.Select((choice, c) => choice.Loads[t] * Chosen[s][c]));
                        most += rules.Weighs ? slot.Choices.Max(c => c.Loads[t]) : slot.Choices.Sum(c => c.Loads[t]);
                    }
                // What the rules leave at most, whatever the weeks before it do: said at once, the rest of the search is short.
                if (rules.Weighs)
                    most = Math.Min(most, Math.Max(limit.Done, MostOf(track, limit, w, mosts)));
                mosts.Add(most);
                var load = Model.NewIntVar(0, most, $"{track.Key} {limit.Week}");
                Model.Add(load == LinearExpr.Sum(terms));
                Limit(track, limit, w, load, most, weeks, mosts);
                weeks.Add(load);
            }
            Largest(track, weeks, mosts.DefaultIfEmpty(0).Max());
        }
    }

    /// <summary>Of two plans that do as much the one with the smaller largest week is the better.</summary>
    private void Largest(LoadTrack track, List<IntVar> weeks, int most)
    {
        if (!rules.Weighs || most <= track.Carried)
            return;
        var each = problem.Costs.LargestWeek;
        var costs = Model.NewIntVar(0, track.CostOf(most, each), $"{track.Key} largest");
        foreach (var load in weeks)
            Model.Add(costs * track.Entry >= each * (load - track.Carried));
        cost.Add(costs);
    }

    private static int MostOf(LoadTrack track, WeekLimit limit, int w, List<int> before)
    {
        if (limit.Most is { } known)
            return known;
        var based = before.Skip(Math.Max(0, w - 2)).Append(w == 1 ? limit.Before : 0).Max();
        var most = Math.Max(track.Entry, Math.Max(based + track.Step, track.GrowthPercent * based / 100));
        return limit.BackOff ? Math.Min(most, Math.Max(track.Step, track.BackOffPercent * before[^1] / 100)) : most;
    }

    private void Limit(LoadTrack track, WeekLimit limit, int w, IntVar load, int most, List<IntVar> before, List<int> mosts)
    {
        PieceRule Of(PieceRuleKind kind, int? number = null) =>
            new(kind, limit.Week, Tag: track.Key.Tag, Limb: track.Key.Limb, Number: number);
        if (limit.Most is { } known)
        {
            // What was done is done: nothing is added to what is over.
            if (most > known)
                Rule(Of(PieceRuleKind.WeekLoad, known), () => Model.Add(load <= Math.Max(known, limit.Done)));
            return;
        }
        if (most > track.Entry)
            Rule(Of(PieceRuleKind.WeekLoad), () => Grown(track, limit, w, load, before, mosts));
        if (limit.BackOff && most > track.Step)
            rules.Put(Model, Of(PieceRuleKind.BackOff), () => BackOff(track, load, before[^1]));
    }

    /// <summary>Growth is a matter of the larger of the two weeks before; one of the ways has to be open.</summary>
    private Constraint Grown(LoadTrack track, WeekLimit limit, int w, IntVar load, List<IntVar> before, List<int> mosts)
    {
        var first = Math.Max(0, w - 2);
        List<LinearExpr> two = [.. before.Skip(first)];
        if (w == 1)
            two.Add(LinearExpr.Constant(limit.Before));
        var largest = mosts.Skip(first).Take(w - first).Append(w == 1 ? limit.Before : 0).Max();
        var based = Model.NewIntVar(0, largest, $"{track.Key} {limit.Week} from");
        Model.AddMaxEquality(based, two);
        var ways = new List<BoolVar>();
        void Way(LinearExpr limited)
        {
            var way = Model.NewBoolVar($"{track.Key} {limit.Week} {ways.Count}");
            Model.Add(load * 100 <= limited).OnlyEnforceIf(way);
            ways.Add(way);
        }
        Way(LinearExpr.Constant(100 * track.Entry));
        Way(based * 100 + 100 * track.Step);
        // Of little a step is more than a share.
        if ((track.GrowthPercent - 100) * largest > 100 * track.Step)
            Way(based * track.GrowthPercent - 1);
        return Model.AddBoolOr(ways);
    }

    private IReadOnlyList<Constraint> BackOff(LoadTrack track, IntVar load, IntVar before)
    {
        var little = Model.NewBoolVar($"{track.Key} back");
        var (step, share) = (Model.Add(load <= track.Step), Model.Add(load * 100 <= before * track.BackOffPercent - 1));
        step.OnlyEnforceIf(little);
        share.OnlyEnforceIf(little.Not());
        return [step, share];
    }
}
