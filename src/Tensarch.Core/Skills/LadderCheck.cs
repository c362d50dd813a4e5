using Tensarch.Core.Catalogue;
using Tensarch.Core.Measuring;
using Tensarch.Core.Students;

namespace Tensarch.Core.Skills;

/// <summary>
/// What makes a ladder sound, beyond what its schema says: for shipped ladders at the start, for a coach's own before it is kept. A
/// problem's field is the path of the thing that is wrong, such as <c>stages[2].tests[0].threshold</c>.
/// </summary>
public static class LadderCheck
{
    public const int MostStages = 12;

    public const int MostLead = 3;

    public const int MostShelfDays = 90;

    /// <summary>Pain above this is a pain event: no gate asks for less care.</summary>
    public const int MostPain = BodySignal.PainEventAbove;

    public static IReadOnlyList<Problem> Check(Ladder ladder, CatalogueContent content)
    {
        var problems = new List<Problem>();
        Whole(ladder, content, problems);
        for (var i = 0; i < ladder.Stages.Count; i++)
            Stage(ladder, i, content, problems);
        for (var i = 0; i < ladder.EveryGate.Count; i++)
            Test(ladder.EveryGate[i], ladder, $"everyGate[{i}]", content, problems);
        ExitsFirst(ladder, content, problems);
        return problems;
    }

    /// <summary>The frame; and that a copy keeps the care of the ladder that it was copied from.</summary>
    private static void Whole(Ladder ladder, CatalogueContent content, List<Problem> problems)
    {
        if (ladder.Stages.Count is < 1 or > MostStages)
            problems.Add(Problem.Of("outOfRange", "stages", ("value", ladder.Stages.Count), ("min", 1), ("max", MostStages)));
        if (ladder.Name.Trim().Length is 0 or > 60)
            problems.Add(Problem.Of(ladder.Name.Trim().Length == 0 ? "required" : "tooLong", "name", ("most", 60)));
        if (ladder.LeadLimit is < 1 or > MostLead)
            problems.Add(Problem.Of("outOfRange", "leadLimit", ("value", ladder.LeadLimit), ("min", 1), ("max", MostLead)));
        if (ladder.EveryGate.OfType<ClearCriterion>().Count() != 1)
            problems.Add(Problem.Of("clearMissing", "everyGate"));
        if (!ladder.EveryGate.OfType<PainCriterion>().Any(p => p.AtMost <= MostPain))
            problems.Add(Problem.Of("painMissing", "everyGate", ("most", MostPain)));
        foreach (var side in ladder.SideMeasures)
            if (
                content.FindMeasure(side.Measure) is not { } measure
                || measure.Levels.All(l => l.Key != side.Level) && side.Level is not null
            )
                problems.Add(Problem.Of("unknownMeasure", "sideMeasures"));
        if (ladder.PerSide == (ladder.SideMeasures.Count == 0))
            problems.Add(Problem.Of("sideMeasureMissing", "sideMeasures"));

        if (content.NewestLadder(ladder.Skill) is not { } shipped)
        {
            if (ladder.Skill != ladder.Key)
                problems.Add(Problem.Of("unknownSkill", "skill"));
            return;
        }
        if (shipped.PerSide != ladder.PerSide)
            problems.Add(Problem.Of("sidesChanged", "perSide"));
        if (shipped.StartsAtOne && !ladder.StartsAtOne)
            problems.Add(Problem.Of("startsAtOne", "startsAtOne"));
        if (shipped.Regions.Except(ladder.Regions).Any())
            problems.Add(Problem.Of("regionsMissing", "regions"));
        for (var stage = 1; stage <= ladder.Stages.Count; stage++)
            if (Needed(shipped, ladder.TrainsAs(stage)).Except(ladder.RequiredAt(stage)).Any())
            {
                problems.Add(Problem.Of("requiredTagsMissing", "requiredTags", ("stage", stage)));
                break;
            }

        static IReadOnlyList<LoadTag> Needed(Ladder shipped, int stage) =>
            stage >= 1 && stage <= shipped.Stages.Count ? shipped.RequiredAt(stage) : [];
    }

    private static void Stage(Ladder ladder, int index, CatalogueContent content, List<Problem> problems)
    {
        var (stage, path) = (ladder.Stages[index], $"stages[{index}]");
        if (stage.Number != index + 1)
            problems.Add(Problem.Of("stagesCountUp", $"{path}.number"));
        if (stage.Name.Trim().Length is 0 or > 60)
            problems.Add(Problem.Of(stage.Name.Trim().Length == 0 ? "required" : "tooLong", $"{path}.name", ("most", 60)));
        var shipped = content.NewestLadder(ladder.Skill)?.Stages.Count ?? ladder.Stages.Count;
        var trains = stage.TrainsAs ?? stage.Number;
        if (trains < 1 || trains > shipped)
            problems.Add(Problem.Of("outOfRange", $"{path}.trainsAs", ("value", trains), ("min", 1), ("max", shipped)));
        else if (index > 0 && trains < (ladder.Stages[index - 1].TrainsAs ?? ladder.Stages[index - 1].Number))
            problems.Add(Problem.Of("stagesRise", $"{path}.trainsAs"));
        if (stage.Tests.Count == 0)
            problems.Add(Problem.Of("noTests", $"{path}.tests"));
        for (var i = 0; i < stage.Tests.Count; i++)
        {
            if (stage.Tests.Take(i).Contains(stage.Tests[i]))
                problems.Add(Problem.Of("sameTestTwice", $"{path}.tests[{i}]"));
            Test(stage.Tests[i], ladder, $"{path}.tests[{i}]", content, problems);
        }
    }

    private static void Test(ReadinessTest test, Ladder ladder, string path, CatalogueContent content, List<Problem> problems)
    {
        Names(test, path, content, problems);
        if (problems.Any(p => p.Field.StartsWith(path, StringComparison.Ordinal)))
            return;
        Limb(test, ladder, path, content, problems);
        Between(test.Shelf, 1, MostShelfDays, $"{path}.shelfDays", problems);
        switch (test)
        {
            case RomCriterion t:
                Rom(t, path, content, problems);
                break;
            case HoldCriterion t:
                if ((t.Seconds is null) == (t.Breaths is null))
                    problems.Add(Problem.Of("secondsOrBreaths", $"{path}.seconds"));
                Between(t.Seconds, 1, 600, $"{path}.seconds", problems);
                Between(t.Breaths, 1, 60, $"{path}.breaths", problems);
                Between(t.Quality, 1, 5, $"{path}.quality", problems);
                break;
            case RepsCriterion t:
                Between(t.Reps, 1, 100, $"{path}.reps", problems);
                Between(t.EachSeconds, 1, 600, $"{path}.eachSeconds", problems);
                break;
            case RateCriterion t:
                Between(t.Of, 1, 100, $"{path}.of", problems);
                Between(t.Successes, 1, t.Of, $"{path}.successes", problems);
                break;
            case ExposureCriterion t:
                Between(t.Sessions, 1, 60, $"{path}.sessions", problems);
                Between(t.Days, 1, 180, $"{path}.days", problems);
                break;
            case PainCriterion t:
                Between(t.AtMost, 0, MostPain, $"{path}.atMost", problems);
                Between(t.Sessions, 1, 20, $"{path}.sessions", problems);
                break;
            case ExitCriterion t:
                Between(t.Times, 1, 20, $"{path}.times", problems);
                if (string.IsNullOrWhiteSpace(t.Name))
                    problems.Add(Problem.Of("required", $"{path}.name"));
                break;
            case SymmetryCriterion t:
                Between(t.AtMost, 0, 1000, $"{path}.atMost", problems);
                Between(t.MinTrials, 1, 5, $"{path}.minTrials", problems);
                break;
            case FormCriterion t:
                if (t.Items.Count is < 1 or > 10 || t.Items.DistinctBy(i => i.Key).Count() != t.Items.Count)
                    problems.Add(Problem.Of("formItems", $"{path}.items", ("min", 1), ("max", 10)));
                foreach (var (i, item) in t.Items.Index().Where(x => string.IsNullOrWhiteSpace(x.Item.Name)))
                    problems.Add(Problem.Of("required", $"{path}.items[{i}].name"));
                break;
        }
    }

    private static void Rom(RomCriterion test, string path, CatalogueContent content, List<Problem> problems)
    {
        var measure = content.Measure(test.Measure);
        Between(test.MinTrials, 1, 5, $"{path}.minTrials", problems);
        if (test.StraddleAngle)
        {
            if (measure.Role != MeasureRole.StraddleHeels || test.Comparison != Comparison.AtLeast)
                problems.Add(Problem.Of("straddleAngleElsewhere", $"{path}.straddleAngle"));
            Between(test.Threshold, 30, 180, $"{path}.threshold", problems);
            return;
        }
        Between(test.Threshold, measure.Min, measure.Max, $"{path}.threshold", problems);
        if (measure.Better != Better.None && (measure.Better == Better.Up) != (test.Comparison == Comparison.AtLeast))
            problems.Add(Problem.Of("wrongWay", $"{path}.comparison"));
    }

    /// <summary>Names point at things that exist and are of a kind that the test can read.</summary>
    private static void Names(ReadinessTest test, string path, CatalogueContent content, List<Problem> problems)
    {
        var measure = test.ReadMeasure is { } key ? content.FindMeasure(key) : null;
        if (test.ReadMeasure is not null && measure is null)
            problems.Add(Problem.Of("unknownMeasure", $"{path}.measure"));
        else if (measure is not null && !Reads(test, measure))
            problems.Add(Problem.Of("wrongKindOfMeasure", $"{path}.measure"));
        // What is held or tried may be named without a level: at any.
        else if (measure is { Levels.Count: > 0 } && !AtAnyLevel(test) && measure.Levels.All(l => l.Key != test.ReadLevel))
            problems.Add(Problem.Of("levelNeeded", $"{path}.level"));
        else if (measure is { Levels.Count: 0 } && test.ReadLevel is not null)
            problems.Add(Problem.Of("noLevels", $"{path}.level"));

        if (test.ReadDrill is { } drill)
        {
            if (content.FindDrill(drill) is not { } found || found.Key != drill)
                problems.Add(Problem.Of("unknownDrill", $"{path}.drill"));
            else if (test.ReadVariant is { } variant && found.Variants.All(v => v.Key != variant))
                problems.Add(Problem.Of("unknownVariant", $"{path}.variant"));
        }
        if ((test as ExitCriterion)?.Or is { } or)
        {
            if (content.FindDrill(or.Drill)?.Key != or.Drill)
                problems.Add(Problem.Of("unknownDrill", $"{path}.or.drill"));
            else if (or.Variant is { } way && content.Drill(or.Drill).Variants.All(v => v.Key != way))
                problems.Add(Problem.Of("unknownVariant", $"{path}.or.variant"));
            if (string.IsNullOrWhiteSpace(or.Name))
                problems.Add(Problem.Of("required", $"{path}.or.name"));
        }
        if (test is HoldCriterion { OrDrill: { } also } && content.FindDrill(also)?.Key != also)
            problems.Add(Problem.Of("unknownDrill", $"{path}.orDrill"));
        if (test is HoldCriterion or SymmetryCriterion && (test.ReadMeasure is null) == (test.ReadDrill is null))
            problems.Add(Problem.Of("measureOrDrill", $"{path}.measure"));
    }

    private static bool AtAnyLevel(ReadinessTest test) => test is HoldCriterion or RateCriterion && test.ReadLevel is null;

    private static bool Reads(ReadinessTest test, Measure measure) =>
        test switch
        {
            _ when measure.Quick => false,
            RomCriterion => measure.Kind is MeasureKind.Range or MeasureKind.Step,
            HoldCriterion => measure.Kind == MeasureKind.Hold,
            RateCriterion => measure.Kind == MeasureKind.Rate,
            SymmetryCriterion => measure is { PerSide: true, Kind: not MeasureKind.Rate },
            _ => true,
        };

    /// <summary>This side and the other one exist on a ladder with sides alone; what has no side is read bilaterally.</summary>
    private static void Limb(ReadinessTest test, Ladder ladder, string path, CatalogueContent content, List<Problem> problems)
    {
        if (test is not (RomCriterion or HoldCriterion or RepsCriterion or RateCriterion or ExitCriterion))
            return;
        var sided = test.ReadFrom is Skills.Limb.ThisSide or Skills.Limb.OtherSide;
        if (sided && !ladder.PerSide)
            problems.Add(Problem.Of("noSidesHere", $"{path}.limb"));
        else if (test.ReadMeasure is { } key && content.Measure(key).PerSide == (test.ReadFrom == Skills.Limb.Bilateral))
            problems.Add(Problem.Of("limbDoesNotFit", $"{path}.limb"));
    }

    /// <summary>
    /// The way out is taught before the way in: what is kicked up stands behind a gate with an exit, and so does every stage that trains what
    /// stands behind an exit on the shipped ladder.
    /// </summary>
    private static void ExitsFirst(Ladder ladder, CatalogueContent content, List<Problem> problems)
    {
        var shipped = content.NewestLadder(ladder.Skill);
        var shown = false;
        for (var i = 0; i < ladder.Stages.Count; i++)
        {
            if (!shown && ladder.GateOf(i + 1).Any(t => TriesWithoutWayOut(t, content)))
                problems.Add(Problem.Of("exitBeforeKickUp", $"stages[{i}].tests"));
            if (!shown && shipped is not null && HasExitBelow(shipped, ladder.TrainsAs(i + 1)))
                problems.Add(Problem.Of("exitBeforeKickUp", $"stages[{i}].trainsAs"));
            shown |= HasExit(ladder, ladder.Stages[i]);
        }
    }

    /// <summary>It reads a drill that is planned only once the way out was shown.</summary>
    private static bool TriesWithoutWayOut(ReadinessTest test, CatalogueContent content) =>
        test is not ExitCriterion
        && (test.ReadDrill ?? (test.ReadMeasure is { } key ? content.FindMeasure(key)?.Drill : null)) is { } drill
        && content.FindDrill(drill)?.NeedsWayOut == true;

    /// <summary>Whoever came to this stage has shown a way out.</summary>
    private static bool HasExitBelow(Ladder ladder, int stage) => ladder.Stages.Any(s => s.Number < stage && HasExit(ladder, s));

    private static bool HasExit(Ladder ladder, Stage stage) => stage.Tests.Concat(ladder.EveryGate).OfType<ExitCriterion>().Any();

    private static void Between(double? value, double least, double most, string field, List<Problem> problems)
    {
        if (value is { } v && !(v >= least && v <= most))
            problems.Add(Problem.Of("outOfRange", field, ("value", v), ("min", least), ("max", most)));
    }
}
