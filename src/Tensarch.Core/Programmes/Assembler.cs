using System.Collections.Concurrent;
using Tensarch.Core.Catalogue;
using Tensarch.Core.Planning;
using Tensarch.Core.Sessions;
using Tensarch.Core.Students;

namespace Tensarch.Core.Programmes;

/// <summary>
/// Makes days of what is asked of them: one session whose frame serves all its blocks, and the blocks of which it consists. They are made
/// together and cut apart afterwards, so that what they share is there once, and a day that is offered is a day that can be run.
/// </summary>
public sealed class Assembler(CatalogueContent content)
{
    private readonly CatalogueContent content = content;
    private readonly SessionBuilder builder = new(content);

    /// <param name="who">On the day; of its courses those are trained that are asked for.</param>
    /// <param name="most">What it may load, in the ledger's units; none where only the rules limit it.</param>
    /// <returns>None where the day cannot be what is asked: a skill of it found no work.</returns>
    public DayOffer? Of(Trainee who, DayAsk ask, IReadOnlyDictionary<LoadKey, int>? most = null) => On(who).Of(ask, most);

    /// <summary>For many sessions of one day.</summary>
    internal OnDay On(Trainee who) => new(this, who);

    /// <summary>One student on one day: what the sessions that are tried have in common is worked out once. Safe for several at once.</summary>
    internal sealed class OnDay(Assembler assembler, Trainee who)
    {
        private readonly SkillParts made = new(assembler.content, who);
        private readonly ConcurrentDictionary<(string Skill, bool Test, Side? Last), CourseState> asked = [];

        public Trainee Who => who;

        /// <param name="minutes">Fewer than the day's, where a part of them is for something else.</param>
        /// <returns>None where the day cannot be what is asked.</returns>
        public DayOffer? Of(DayAsk ask, IReadOnlyDictionary<LoadKey, int>? most = null, int? minutes = null)
        {
            var courses = ask
                .Blocks.Zip(FirstSides.Together([.. ask.Blocks.Select(b => who.On(b.Skill))]))
                .Select(b =>
                    asked.GetOrAdd((b.First.Skill, b.First.Kind == BlockAim.Test, b.Second.LastFirstSide), _ => Asked(b.First, b.Second))
                )
                .ToList();
            var today = who with { Courses = courses, Minutes = minutes ?? who.Minutes };
            if (courses.Count > assembler.content.Shape.MostSkills(today.Minutes))
                return null;
            var order = new DayOrder(ask.Level, ask.Of(BlockAim.Light).ToHashSet(), most);
            var built = assembler.builder.Build(today, made, order);
            return built.IsOk && built.Value.Skills.Count == courses.Count
                ? assembler.Cut(built.Value, today with { Courses = who.Courses }, ask)
                : null;
        }
    }

    /// <summary>A planned session on another day, or under other facts: what was asked of it, and no more load than it had.</summary>
    /// <returns>None where it cannot be that any more.</returns>
    public SessionPlan? Again(SessionPlan plan, Trainee who, DayAsk ask) =>
        Of(who, ask, DayMenu.AsMuchAs(LoadLedger.Of(Work.Planned(plan, content), content))) is { } again
        && SessionChecker.Check(again.Plan, who, content).Count == 0
            ? again.Plan
            : null;

    /// <summary>A session that is there already, cut into the blocks that were asked of it.</summary>
    public DayOffer Read(SessionPlan plan, Trainee who, DayAsk ask) => Cut(plan, who, ask);

    /// <summary>Tests fall on the days that are for them, and on no other.</summary>
    private static CourseState Asked(BlockOrder block, CourseState course)
    {
        SideState With(SideState side) =>
            side with
            {
                Wanted =
                [
                    .. side.Wanted.Select(w => w with { Due = block.Kind == BlockAim.Test && !w.Met && w.Test.ReadDrill is not null }),
                ],
            };
        return course with { Left = With(course.Left), Right = With(course.Right) };
    }

    private DayOffer Cut(SessionPlan plan, Trainee who, DayAsk ask)
    {
        var seconds = plan.Drills.ToDictionary(d => d.Id, d => Timeline.SecondsOf(d, content.Drill(d.Drill), plan.BreathSeconds));
        var blocks = ask.Blocks.Select(b => Of(b, ask.Level, plan, who.On(b.Skill), seconds)).ToList();
        var load = LoadLedger.Of(Work.Planned(plan, content), content);
        return new(ask, plan, blocks, seconds.Values.Sum() - blocks.Sum(b => b.Seconds), load, Spacing(plan, who));
    }

    private Block Of(BlockOrder ask, int level, SessionPlan plan, CourseState course, Dictionary<string, int> seconds)
    {
        var drills = plan.Drills.Where(d => d.Skill == ask.Skill && IsMain(d)).ToList();
        return new(
            ask.Skill,
            ask.Kind,
            level,
            drills,
            drills.Sum(d => seconds[d.Id]),
            LoadLedger.Of(drills.SelectMany(d => Work.Planned(d, ask.Skill, plan.BreathSeconds, content)), content),
            ask.Kind != BlockAim.Light && Exposes(plan, course),
            drills.Any(d => content.Drill(d.Drill).Kind == DrillKind.Attempt)
        );
    }

    private bool IsMain(PlannedDrill planned) => SessionOrder.IsMain(planned, content.Drill(planned.Drill));

    /// <summary>At least half of what the stage is about is in it, or what stands in for it.</summary>
    private bool Exposes(SessionPlan plan, CourseState course)
    {
        var cores = SideExtensions
            .Both.SelectMany(side => CoresAt(course, plan.LowerStage(course.Skill, side) ?? course.WorkStage(side)))
            .Distinct()
            .ToList();
        var done = cores.Count(core =>
            plan.Drills.Any(d => d.Skill == course.Skill && (d.Drill == core || d.Drill == content.Shape.StandIns.GetValueOrDefault(core)))
        );
        return 2 * done >= cores.Count;
    }

    private IReadOnlyList<string> CoresAt(CourseState course, int stage) =>
        course.Ladder.StageAt(stage).Core ?? content.NewestLadder(course.Skill)?.StageAt(course.Ladder.TrainsAs(stage)).Core ?? [];

    private Dictionary<LoadTag, int> Spacing(SessionPlan plan, Trainee who)
    {
        var spacing = new Dictionary<LoadTag, int>();
        foreach (var planned in plan.Drills)
        foreach (var side in planned.Sides)
        {
            var drill = content.Drill(planned.Drill);
            foreach (var (tag, level) in drill.LoadsOf(drill.VariantAt(side.Variant), side.Dose, plan.BreathSeconds))
                if (level == LoadLevel.Heavy && DrillChoice.EndRangeRegions.Contains(tag))
                    spacing[tag] = Math.Max(spacing.GetValueOrDefault(tag), who.On(planned.Skill).Approach.EndRangeSpacingDays);
        }
        return spacing;
    }
}
