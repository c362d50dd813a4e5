using Tensarch.Core.Measuring;
using Tensarch.Core.Planning;
using Tensarch.Core.Skills;
using Tensarch.Core.Students;

namespace Tensarch.Core.Catalogue;

/// <summary>What a schema cannot say: that names point at things that exist, and that doses make sense.</summary>
internal static class ContentCheck
{
    public static void Check(CatalogueContent content)
    {
        foreach (var measure in content.Measures)
            CheckMeasure(measure, content);
        foreach (var battery in content.Batteries)
        foreach (var key in battery.Measures)
            Must(content.FindMeasure(key) is not null, "measures", $"batteries.{battery.Key}", $"No measure {key}.");
        foreach (var ladder in content.Ladders)
            CheckLadder(ladder, content);
        foreach (var drill in content.DrillList)
            CheckDrill(drill, content);
        foreach (var signal in Enum.GetValues<SignalKind>())
            Must(
                content.StopRules.Count(r => r.Signal == signal) == 1,
                "stop-rules",
                signal.ToString(),
                "Every signal has exactly one rule."
            );
    }

    private static void CheckMeasure(Measure measure, CatalogueContent content)
    {
        Must(content.Positions.Any(p => p.Key == measure.Position), "measures", measure.Key, $"No position {measure.Position}.");
        Must(measure.Min < measure.Max, "measures", measure.Key, "The least plausible value is under the greatest.");
        Must(
            measure.Picture is not { Kind: PictureKind.Line } line || line.Landmarks.Count == 4,
            "measures",
            measure.Key,
            "A line has four landmarks."
        );
        Must(
            measure.Picture is null || measure.Instruments.Contains(Instrument.Picture),
            "measures",
            measure.Key,
            "What is read from a picture names the picture as an instrument."
        );
        Must(
            measure.Kind == MeasureKind.Step == measure.Step is not null,
            "measures",
            measure.Key,
            "Steps have a size, and nothing else has."
        );
    }

    private static void CheckLadder(Ladder ladder, CatalogueContent content)
    {
        var file = $"ladders/{ladder.Key}";
        for (var i = 0; i < ladder.Stages.Count; i++)
            Must(ladder.Stages[i].Number == i + 1, file, $"stages[{i}].number", "Stages count up from 1.");
        foreach (var side in ladder.SideMeasures)
            Must(content.FindMeasure(side.Measure) is not null, file, "sideMeasures", $"No measure {side.Measure}.");
        foreach (var stage in ladder.Stages)
        foreach (var test in stage.Tests)
            CheckTest(test, file, $"stages[{stage.Number - 1}].tests", content);
    }

    private static void CheckTest(ReadinessTest test, string file, string path, CatalogueContent content)
    {
        var measure = test switch
        {
            RomCriterion t => t.Measure,
            SymmetryCriterion t => t.Measure,
            _ => null,
        };
        Must(measure is null || content.FindMeasure(measure) is not null, file, path, $"No measure {measure}.");
        var (drill, variant) = test switch
        {
            HoldCriterion t => (t.Drill, t.Variant),
            RepsCriterion t => (t.Drill, t.Variant),
            _ => (null, null),
        };
        Must(
            drill is null || content.FindDrill(drill)?.Variants.Any(v => v.Key == variant) == true,
            file,
            path,
            $"No drill {drill} with a variant {variant}."
        );
    }

    private static void CheckDrill(Drill drill, CatalogueContent content)
    {
        foreach (var dose in drill.Variants.Select(drill.DoseOf))
            Must(
                dose is not RampedDose r || r.PlateauSeconds < Math.Min(r.PressSeconds, r.LiftSeconds),
                "drills",
                drill.Key,
                "A ramp's plateau is shorter than the ramp."
            );
        Must(
            drill.DayGateSubstitute is null || content.FindDrill(drill.DayGateSubstitute) is not null,
            "drills",
            drill.Key,
            $"No substitute {drill.DayGateSubstitute}."
        );
        Must(
            drill.NeedsDayGate is null || content.DrillList.Any(d => d.DayGateTest == drill.NeedsDayGate),
            "drills",
            drill.Key,
            $"No drill tests the day gate {drill.NeedsDayGate}."
        );
    }

    private static void Must(bool holds, string file, string path, string reason)
    {
        if (!holds)
            throw new ContentException(file, path, reason);
    }
}
