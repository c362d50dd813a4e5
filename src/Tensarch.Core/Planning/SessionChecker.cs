using Tensarch.Core.Catalogue;
using Tensarch.Core.Students;

namespace Tensarch.Core.Planning;

/// <summary>A rule that a plan breaks.</summary>
/// <param name="Rule">The rule's number in the planning rules.</param>
public sealed record Violation(int Rule, string Code, string? Drill = null)
{
    private const int Spacing = 5;

    /// <summary>It is of two days that are too close.</summary>
    public bool IsSpacing => Rule == Spacing;
}

/// <summary>
/// Verifies a finished session against every rule that must hold. Shares no code with the builder: it reads the plan and the
/// facts and counts again in its own way. A plan with a violation is not stored.
/// </summary>
public static partial class SessionChecker
{
    public static IReadOnlyList<Violation> Check(SessionPlan plan, Trainee facts, CatalogueContent catalogue)
    {
        var lines = (
            from planned in plan.Drills
            from side in planned.Sides
            let drill = catalogue.Drill(planned.Drill)
            select new Line(
                planned,
                side,
                drill,
                drill.Variants.Single(v => v.Key == side.Variant),
                facts.Courses.FirstOrDefault(c => c.Ladder.Skill == planned.Skill) ?? facts.Courses[0],
                plan.BreathSeconds
            )
        ).ToList();
        return
        [
            .. Skills(plan, facts, catalogue),
            .. Bars(lines, facts),
            .. LightOnly(lines, facts),
            .. Stages(lines, plan.Notes, facts, catalogue),
            .. Order(lines, plan),
            .. Shape(lines, plan, facts, catalogue),
            .. Cores(plan, facts, catalogue),
            .. LedInto(lines, facts, catalogue),
            .. Carried(lines, plan, facts, catalogue),
            .. FirstIsLight(lines, plan, facts, catalogue),
            .. Still(lines),
            .. Length(lines, plan, facts, catalogue),
            .. Spacing(lines, facts),
            .. FirstWeek(lines, facts),
            .. Growth(lines, facts),
            .. Settled(lines, facts),
            .. Lighter(lines, facts),
            .. Fewer(lines, plan, facts),
            .. Variants(lines, facts),
            .. Ceilings(lines),
            .. Sides(plan, facts),
        ];
    }

    private sealed record Line(PlannedDrill Planned, PlannedSide Side, Drill Drill, Variant Variant, CourseState Course, double Breath)
    {
        public IReadOnlyDictionary<LoadTag, LoadLevel> Loads => Drill.LoadsOf(Variant, Side.Dose, Breath);

        public bool TestsInWarmUp => Planned.Reason.Code == "dayGate" && !Drill.TestOnly;

        public SessionPhase PhaseIn =>
            TestsInWarmUp ? SessionPhase.Warm
            : LeadsIn ? Planned.Reason.Phase ?? Drill.Phase
            : Drill.Phase;

        public bool LeadsIn => Planned.Reason.Code == "leadIn";
    }

    /// <summary>Rule 1: nothing off limits; what is light only is light; a ramp stays under the student's top.</summary>
    private static IEnumerable<Violation> Bars(List<Line> lines, Trainee facts)
    {
        foreach (var line in lines)
        {
            foreach (var (tag, load) in line.Loads)
            {
                if (load != LoadLevel.None && facts.Bars.Levels[tag] == BarLevel.OffLimits)
                    yield return new(1, "offLimitsPlanned", line.Drill.Key);
                if (load == LoadLevel.Heavy && facts.Bars.Levels[tag] == BarLevel.LightOnly)
                    yield return new(1, "lightOnlyHeavy", line.Drill.Key);
            }
            if (line.Side.Dose is RampedDose ramp && ramp.ToPercent > facts.Bars.RampTopPercent)
                yield return new(1, "rampOverTop", line.Drill.Key);
        }
    }

    /// <summary>Rule 2: a drill serves the stage of the side; attempts wait; a day gate is tested before what needs it; the way out comes first.</summary>
    private static IEnumerable<Violation> Stages(List<Line> lines, IReadOnlyList<PlanNote> notes, Trainee facts, CatalogueContent catalogue)
    {
        var tested = new List<(string Drill, string Variant, Side? Side)>();
        foreach (var line in lines)
        {
            var course = line.Course;
            var ladder = course.Ladder;
            var stages = new[] { course.Left.Stage, course.Right.Stage }
                .Select(s => ladder.Stages[Math.Min(s, ladder.Stages.Count) - 1])
                .ToList();
            var at = line.Side.Side switch
            {
                Side.Left => stages[0],
                Side.Right => stages[1],
                _ => stages.MinBy(s => s.Number)!,
            };
            var own = at.TrainsAs ?? at.Number;
            // A lower stage is trained where the core of its own is not allowed, and it is said.
            var trains = ladder.Stages[Math.Clamp(line.Side.Stage, 1, ladder.Stages.Count) - 1];
            var stage = trains.TrainsAs ?? trains.Number;
            if (
                stage > own
                || (
                    stage < own
                    && notes.All(n => n.Code != "lowerStage" || (n.Skill is not null && n.Skill != ladder.Skill))
                    && line.Side.Side is not null
                )
            )
                yield return new(2, "stageNotServed", line.Drill.Key);
            if (line.Planned.Reason.Code == "companion")
            {
                var companions = catalogue.Shape.Companions.Where(c => c.Ladder == ladder.Skill).SelectMany(c => c.Drills);
                if (
                    !companions.Contains(line.Drill.Key)
                    || line.Drill.Variants.TakeWhile(v => v != line.Variant).Any(v => v.ToStage >= v.FromStage)
                )
                    yield return new(2, "notACompanion", line.Drill.Key);
            }
            else if (
                !line.Drill.Serves.Any(s => (s.Ladder == "*" || s.Ladder == ladder.Skill) && s.FromStage <= stage && stage <= s.ToStage)
            )
                yield return new(2, "stageNotServed", line.Drill.Key);
            var asked = SessionOrder.IsMain(line.PhaseIn) ? facts.Bars.GatesFor(line.Loads) : [];
            foreach (var key in (line.Drill.DayGates ?? []).Concat(line.Variant.DayGates ?? []).Union(asked))
            {
                var gate = catalogue.DayGates.Single(g => g.Key == key);
                var before = tested.Where(t => t.Side is null || line.Side.Side is null || t.Side == line.Side.Side).ToList();
                // Every drill of the test that serves the stage of either side comes before.
                var serving = gate
                    .Tests.Where(t =>
                        catalogue
                            .Drill(t.Drill)
                            .Serves.Any(s =>
                                (s.Ladder == "*" || s.Ladder == ladder.Skill)
                                && stages.Any(x => s.FromStage <= (x.TrainsAs ?? x.Number) && (x.TrainsAs ?? x.Number) <= s.ToStage)
                            )
                    )
                    .ToList();
                if (
                    gate.Tests.Count > 0 && serving.Count == 0
                    || !serving.All(t => before.Any(b => b.Drill == t.Drill && (t.Variant ?? b.Variant) == b.Variant))
                )
                    yield return new(2, "dayGateMissing", line.Drill.Key);
            }
            if (line.Planned.Reason.Code == "dayGate")
                tested.Add((line.Drill.Key, line.Variant.Key, line.Side.Side));
            if (
                (line.Drill.Kind == DrillKind.Attempt || line.Side.Stage < line.Drill.DelayedBelow)
                && (course.DaysSinceStart < 5 || course.SessionsSinceStart < 4)
            )
                yield return new(2, "attemptTooEarly", line.Drill.Key);
            if (line.Drill.NeedsWayOut && !course.WayOutShown)
                yield return new(2, "wayOutMissing", line.Drill.Key);
        }
    }

    /// <summary>Rule 3: regions and wrists prepared first, phases in order, counters after what they counter, lying still at the end.</summary>
    private static IEnumerable<Violation> Order(List<Line> lines, SessionPlan plan)
    {
        var prepared = new HashSet<LoadTag>();
        var wristsReady = false;
        var (phase, rank) = (SessionPhase.Warm, 0);
        foreach (var line in lines)
        {
            // Tests of day gates close the warm-up in any order among themselves.
            // What leads in stands at the head of its phase.
            var (atPhase, atRank) = (
                line.PhaseIn,
                line.TestsInWarmUp ? 10_000
                : line.LeadsIn ? -1
                : line.Drill.Rank
            );
            if (atPhase < phase || (atPhase == phase && atRank < rank))
                yield return new(3, "outOfOrder", line.Drill.Key);
            (phase, rank) = (atPhase, atRank);
            foreach (var (tag, load) in line.Loads)
                if (
                    load == LoadLevel.Heavy
                    && tag.IsRegion()
                    && !line.Drill.WarmsUp
                    && line.PhaseIn != SessionPhase.Down
                    && !prepared.Contains(tag)
                )
                    yield return new(3, "regionNotPrepared", line.Drill.Key);
            if (line.Drill.PreparesHands)
                wristsReady = true;
            else if (line.Drill.HandShareOf(line.Variant) > 0 && !wristsReady)
                yield return new(3, "wristsNotPrepared", line.Drill.Key);
            if (line.Drill.WarmsUp)
                prepared.UnionWith(line.Loads.Where(l => l.Value != LoadLevel.None).Select(l => l.Key));
        }
        foreach (var (at, line) in lines.Index())
        foreach (var counter in line.Drill.Counters ?? [])
            if (!lines.Skip(at).Any(l => l.Drill.Key == counter))
                yield return new(3, "notCountered", line.Drill.Key);
        if (plan.Drills.Count == 0 || lines[^1].Drill is not { Kind: DrillKind.Calm } end || end.Loads.Keys.Any(t => t != LoadTag.Supine))
            yield return new(3, "noCalmAtEnd");
    }

    /// <summary>Rule 4: within the minutes; a session under 90 % of what its skills fill of them says so.</summary>
    private static IEnumerable<Violation> Length(List<Line> lines, SessionPlan plan, Trainee facts, CatalogueContent catalogue)
    {
        var seconds = lines.Sum(l => Seconds(l, plan));
        if (seconds > plan.Minutes * 60)
            yield return new(4, "overMinutes");
        var longest = plan.Notes.FirstOrDefault(n => n.Code == "longestDay")?.Number;
        if (
            longest is { } said
            && facts.Courses.Count == 1
            && !catalogue.Shape.Longest.Any(l => l.Ladder == facts.Courses[0].Ladder.Skill && l.Minutes == said)
            && said != catalogue.Shape.GentleLongestMinutes
        )
            yield return new(4, "noSuchLongestDay");
        if (seconds < catalogue.Shape.FilledShare * 60 * (longest ?? plan.Minutes) && plan.Notes.All(n => n.Code != "notEnoughToDo"))
            yield return new(4, "underFilled");
    }

    /// <summary>Rule 5: heavy end-range work on one region keeps its distance in days; wrists and neck get their rest.</summary>
    private static IEnumerable<Violation> Spacing(List<Line> lines, Trainee facts)
    {
        bool HeavyOn(LoadTag tag, int daysBefore) =>
            facts.History.Days.Any(d => d.Day == facts.Date.AddDays(-daysBefore) && d.Loads.Heavy.Contains(tag));
        var wristsTwice = HeavyOn(LoadTag.Wrist, 1) && HeavyOn(LoadTag.Wrist, 2);
        var necks = Enumerable.Range(1, 6).Count(before => HeavyOn(LoadTag.Neck, before));
        foreach (var line in lines)
        foreach (var (tag, load) in line.Loads)
        {
            if (load != LoadLevel.Heavy)
                continue;
            if (
                tag is LoadTag.Hamstring or LoadTag.HipFront or LoadTag.Adductor
                && Enumerable.Range(0, line.Course.Approach.EndRangeSpacingDays).Any(before => HeavyOn(tag, before))
            )
                yield return new(5, "tooSoonForRegion", line.Drill.Key);
            if (tag == LoadTag.Wrist && wristsTwice)
                yield return new(5, "wristNeedsRest", line.Drill.Key);
            if (tag == LoadTag.Neck && necks >= 3)
                yield return new(5, "neckNeedsRest", line.Drill.Key);
        }
        foreach (var region in new[] { LoadTag.Hamstring, LoadTag.HipFront, LoadTag.Adductor })
            if (
                lines
                    .Where(l =>
                        l.PhaseIn is not (SessionPhase.Warm or SessionPhase.Down) && l.Loads.GetValueOrDefault(region) == LoadLevel.Heavy
                    )
                    .Select(l => l.Course.Ladder.Skill)
                    .Distinct()
                    .Count() > 1
            )
                yield return new(5, "twoSkillsOnARegion");
    }

    /// <summary>No more skills than the day's minutes take; each of them one that the student trains, and each drill for one of them.</summary>
    private static IEnumerable<Violation> Skills(SessionPlan plan, Trainee facts, CatalogueContent catalogue)
    {
        if (plan.Skills.Count > catalogue.Shape.Skills.First(c => plan.Minutes < c.UnderMinutes).Skills)
            yield return new(4, "tooManySkills");
        foreach (var skill in plan.Skills)
            if (facts.Courses.All(c => c.Ladder.Skill != skill.Skill))
                yield return new(2, "skillNotTrained");
        foreach (var planned in plan.Drills)
            if (plan.Skills.All(s => s.Skill != planned.Skill))
                yield return new(2, "skillNotTrained", planned.Drill);
    }

    /// <summary>Rule 12: the weaker side goes first, with at most half as many rounds again.</summary>
    private static IEnumerable<Violation> Sides(SessionPlan plan, Trainee facts)
    {
        foreach (var course in facts.Courses)
            if (
                course.Weaker is { } weaker
                && plan.Skills.FirstOrDefault(s => s.Skill == course.Ladder.Skill) is { } skill
                && skill.FirstSide != weaker
            )
                yield return new(12, "weakerNotFirst");
        foreach (var drill in plan.Drills.Where(d => d.Sides.Count == 2))
        {
            if (drill.Sides[0].Side != (plan.Skills.FirstOrDefault(s => s.Skill == drill.Skill) ?? plan.Skills[0]).FirstSide)
                yield return new(12, "sideOrder", drill.Drill);
            var rounds = drill.Sides.Select(s => s.Dose.Repeats).Order().ToList();
            if (drill.Sides[0].Dose.GetType() == drill.Sides[1].Dose.GetType() && rounds[1] > 1.5 * rounds[0])
                yield return new(12, "sidesUneven", drill.Drill);
        }
    }
}
