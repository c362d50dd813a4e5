using Tensarch.Core.Measuring;
using Tensarch.Core.Planning;
using Tensarch.Core.Sessions;
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
        foreach (var gate in content.DayGates)
            CheckDayGate(gate, content);
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
        Must(ladder.Skill == ladder.Key, file, "skill", "A shipped ladder is its own skill.");
        if (LadderCheck.Check(ladder, content) is [var first, ..])
            throw new ContentException(file, first.Field, first.Code);
    }

    private static void CheckDayGate(DayGate gate, CatalogueContent content)
    {
        foreach (var instead in gate.Substitutes)
            Must(HasVariant(instead.Drill, instead.Variant, content), "day-gates", gate.Key, $"No {instead.Drill} {instead.Variant}.");
        Must(content.DrillList.Any(d => d.DayGateTest == gate.Key), "day-gates", gate.Key, "No drill is its test.");
        Must(content.DrillList.Any(d => d.Gates.Contains(gate.Key)), "day-gates", gate.Key, "No drill needs it.");
    }

    private static bool HasVariant(string drill, string variant, CatalogueContent content) =>
        content.FindDrill(drill)?.Variants.Any(v => v.Key == variant) == true;

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
            drill.GapMeasure is not { } gap || content.FindMeasure(gap) is not null,
            "drills",
            drill.Key,
            $"No measure {drill.GapMeasure}."
        );
        foreach (var gate in drill.Gates.Append(drill.DayGateTest).OfType<string>())
            Must(content.FindDayGate(gate) is not null, "drills", drill.Key, $"No day gate {gate}.");
    }

    private static void Must(bool holds, string file, string path, string reason)
    {
        if (!holds)
            throw new ContentException(file, path, reason);
    }
}
