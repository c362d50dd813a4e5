using Tensarch.Core.Catalogue;
using Tensarch.Core.Skills;
using Tensarch.Core.Students;

namespace Tensarch.Core.Planning;

/// <summary>The core carries the session, and its first week is light. Source: judgement, what a session is made of.</summary>
public static partial class SessionChecker
{
    private const double SharesRound = 0.001;

    /// <summary>Of each skill that no bar limits: what share of its main work the core has, and what carries it; nothing beside outgrows the core.</summary>
    private static IEnumerable<Violation> Carried(List<Line> lines, SessionPlan plan, Trainee facts, CatalogueContent catalogue)
    {
        var regions = facts
            .Courses.Where(c => plan.Skills.Any(s => s.Skill == c.Ladder.Skill))
            .SelectMany(c => c.Ladder.Regions)
            .ToHashSet();
        foreach (var course in facts.Courses.Where(c => plan.Skills.Any(s => s.Skill == c.Ladder.Skill)))
        {
            var skill = course.Ladder.Skill;
            var stages = new[] { course.Left, course.Right }
                .Select(s => course.Ladder.Stages[Math.Clamp(s.Stage, 1, course.Ladder.Stages.Count) - 1])
                .Distinct()
                .ToList();
            var core = stages.SelectMany(s => CoreOf(s, course.Ladder, catalogue)).ToHashSet();
            core.UnionWith([.. core.Select(c => catalogue.Shape.StandIns.GetValueOrDefault(c)).OfType<string>()]);
            var barred = stages
                .SelectMany(s => CoreOf(s, course.Ladder, catalogue))
                .Select(catalogue.Drill)
                .Any(d =>
                    Tags(d).Overlaps(facts.Bars.Few)
                    || d.Variants.All(v => !facts.Bars.Allow(d.LoadsOf(v, d.DoseOf(v), facts.BreathSeconds)))
                );
            var carriers = core.Concat(stages.SelectMany(s => s.Tests).SelectMany(t => TrainedFor(t, catalogue))).ToHashSet();
            carriers.UnionWith([.. catalogue.Shape.LeadIns.Where(l => core.Contains(l.Core)).SelectMany(l => l.From).SelectMany(s => s)]);
            bool Carries(Line l) => l.Drill.IsWayOut || carriers.Contains(l.Drill.Key);
            var own = lines.Where(l => l.Planned.Skill == skill && l.Planned.Reason.Code != "dayGate").ToList();
            var main = own.Where(l => l.PhaseIn is not (SessionPhase.Warm or SessionPhase.Down)).ToList();
            if (plan.Notes.Any(n => n.Code is "lowerStage" or "lightDay" or "weekLoad"))
                continue;
            if (barred)
            {
                foreach (var beside in main.Where(l => !Carries(l)).GroupBy(l => l.Planned.Id))
                    if (beside.Sum(l => Work(l.Side.Dose, plan.BreathSeconds)) > catalogue.Shape.BesideLimitedSeconds)
                        yield return new(3, "besideOverLimit", beside.First().Drill.Key);
                continue;
            }
            if (!own.Exists(l => core.Contains(l.Drill.Key)))
                continue;
            double all = main.Sum(l => Seconds(l, plan));
            var least = catalogue.Shape.Carrying.First(c => c.Ladder == skill || c.Ladder == "*");
            // A test that is due and a way out are as long as they are.
            var asked = main.Where(l => l.Drill.IsWayOut || l.Planned.Reason.Code is "gateAsksHold" or "gateAsksReps")
                .Sum(l => Seconds(l, plan));
            // Where nothing is beside them there is nothing to measure.
            if (
                main.Exists(l => !core.Contains(l.Drill.Key))
                && own.Where(l => core.Contains(l.Drill.Key)).Sum(l => Seconds(l, plan)) < (least.Core - SharesRound) * (all - asked)
            )
                yield return new(3, "coreTooLittle");
            if (main.Exists(l => !Carries(l)) && own.Where(Carries).Sum(l => Seconds(l, plan)) < (least.Carriers - SharesRound) * all)
                yield return new(3, "carriersTooLittle");
            foreach (var beside in main.Where(l => !Carries(l)).GroupBy(l => l.Planned.Id))
            {
                var drill = beside.First().Drill;
                var cores = own.Where(l => core.Contains(l.Drill.Key) && Tags(l.Drill).Any(t => t.IsRegion() && Tags(drill).Contains(t)))
                    .GroupBy(l => l.Planned.Id)
                    .Select(c =>
                        (Alike: c.First().PhaseIn == beside.First().PhaseIn, Work: c.Sum(l => Work(l.Side.Dose, plan.BreathSeconds)))
                    )
                    .ToList();
                // What is stretched is measured against a core that is stretched, where there is one.
                var most = cores
                    .Where(c => c.Alike || cores.TrueForAll(o => !o.Alike))
                    .Select(c => c.Work)
                    .DefaultIfEmpty(int.MaxValue)
                    .Max();
                if (beside.Sum(l => Work(l.Side.Dose, plan.BreathSeconds)) > most)
                    yield return new(3, "besideOverCore", drill.Key);
                if (drill.WhenLimited is { } limited && facts.Bars.Levels[limited] == BarLevel.Free)
                    yield return new(3, "standsInForNothing", drill.Key);
            }
            if (
                main.Where(l => !Carries(l) && !Tags(l.Drill).Overlaps(regions)).Sum(l => Seconds(l, plan))
                > (catalogue.Shape.ElsewhereShare + SharesRound) * all
            )
                yield return new(3, "tooMuchElsewhere");
        }
    }

    /// <summary>Before a core drill something leads into it, in its order; what is not of the stage or may not be done freely today need not.</summary>
    private static IEnumerable<Violation> LedInto(List<Line> lines, Trainee facts, CatalogueContent catalogue)
    {
        foreach (var (at, line) in lines.Index().Where(l => l.Item.Planned.Reason.Code is not ("dayGate" or "leadIn")))
        {
            var stage = line.Course.Ladder.Stages[Math.Clamp(line.Side.Stage, 1, line.Course.Ladder.Stages.Count) - 1];
            if (!CoreOf(stage, line.Course.Ladder, catalogue).Contains(line.Drill.Key))
                continue;
            foreach (var steps in catalogue.Shape.LeadIns.Where(l => l.Core == line.Drill.Key).SelectMany(l => l.From))
            {
                var may = steps.Select(catalogue.Drill).Where(d => MayLeadIn(d, line, facts)).ToList();
                if (
                    may.Count > 0
                    && !lines.Take(at).Any(l => steps.Contains(l.Drill.Key) && (l.PhaseIn != SessionPhase.Warm || l.TestsInWarmUp))
                )
                    yield return new(3, "notLedInto", line.Drill.Key);
            }
        }
    }

    private static bool MayLeadIn(Drill drill, Line line, Trainee facts) =>
        drill.Serves.Any(s =>
            (s.Ladder == "*" || s.Ladder == line.Course.Ladder.Skill) && s.FromStage <= line.Side.Stage && line.Side.Stage <= s.ToStage
        )
        && !Tags(drill).Overlaps(facts.Bars.Few)
        && drill.Variants.Any(v => facts.Bars.Allow(drill.LoadsOf(v, drill.DoseOf(v).WithRepeats(1), facts.BreathSeconds)));

    private static HashSet<LoadTag> Tags(Drill drill) => [.. drill.Variants.SelectMany(v => (v.Loads ?? drill.Loads).Keys)];

    private static IReadOnlyList<string> CoreOf(Stage stage, Ladder ladder, CatalogueContent catalogue) =>
        stage.Core ?? catalogue.NewestLadder(ladder.Skill)?.Stages[(stage.TrainsAs ?? stage.Number) - 1].Core ?? [];

    private static IEnumerable<string> TrainedFor(ReadinessTest test, CatalogueContent catalogue) =>
        new[] { test.ReadDrill, catalogue.Shape.TrainedBy.GetValueOrDefault(test.ReadMeasure ?? "") }
            .OfType<string>()
            .Concat(catalogue.Shape.OpenedBy.GetValueOrDefault(test.ReadMeasure ?? "") ?? []);

    /// <summary>Rule 7: the first week is light: few rounds of few things, short holds, and a part of the day.</summary>
    private static IEnumerable<Violation> FirstIsLight(List<Line> lines, SessionPlan plan, Trainee facts, CatalogueContent catalogue)
    {
        var week = catalogue.Shape.FirstWeek;
        bool First(Line l) => l.Course.DaysSinceStart < 7 || facts.WayBack?.BreakDays >= 28;
        var main = lines
            .Where(l => l.PhaseIn is not (SessionPhase.Warm or SessionPhase.Down) && l.Planned.Reason.Code is not ("dayGate" or "leadIn"))
            .ToList();
        foreach (var line in main.Where(First))
        {
            if (line.Side.Dose is not AttemptsDose && line.Side.Dose.Repeats > week.Rounds)
                yield return new(7, "overFirstWeekDose", line.Drill.Key);
            if (
                line.Side.Dose is not RampedDose
                && line.Drill.Loads.ContainsKey(LoadTag.PassiveEndRange)
                && Drill.LongestHoldSeconds(line.Side.Dose, line.Breath) > week.HoldSeconds
            )
                yield return new(7, "overFirstWeekDose", line.Drill.Key);
        }
        if (main.Count == 0 || !main.TrueForAll(First))
            yield break;
        if (
            main.Where(l => l.Drill.Kind != DrillKind.Counter && l.Planned.Reason.Code is not ("core" or "standIn" or "attempt"))
                .Select(l => l.Planned.Id)
                .Distinct()
                .Count() > week.MainDrills
        )
            yield return new(7, "tooMuchAtFirst");
    }

    /// <summary>The gate of one of its sides has it held or counted.</summary>
    private static bool IsAsked(Line line) => line.Course.Left.Wanted.Concat(line.Course.Right.Wanted).Any(w => w.Drill == line.Drill.Key);

    /// <summary>An approach keeps its word: no passive hold is longer than it says, but for one that the gate has held.</summary>
    private static IEnumerable<Violation> Still(List<Line> lines)
    {
        foreach (var line in lines)
            if (
                line.Course.Approach.MostStillSeconds is { } most
                && line.Side.Dose is not RampedDose
                && line.Planned.Reason.Code is not ("dayGate" or "gateAsksHold")
                && line.Drill.Loads.ContainsKey(LoadTag.PassiveEndRange)
                && Drill.LongestHoldSeconds(line.Side.Dose, line.Breath) > (IsAsked(line) ? Math.Max(most, ShortSeconds) : most)
            )
                yield return new(7, "holdOverApproach", line.Drill.Key);
    }
}
