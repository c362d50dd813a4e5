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
        CheckLeadIns(content);
        foreach (var gate in content.DayGates)
            CheckDayGate(gate, content);
        foreach (var effect in content.Questions.SelectMany(q => q.Effects))
            Must(
                effect.On is null || effect.Tags is [LoadTag.PassiveEndRange],
                "intake",
                "effects",
                "What is barred on another tag is passive end range: a pack says no other pair."
            );
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
        Must(measure.Figure.Mark is not null, "measures", measure.Key, "The figure of a measure says where to measure.");
        Must(
            measure.Kind == MeasureKind.Step == measure.Step is not null,
            "measures",
            measure.Key,
            "Steps have a size, and nothing else has."
        );
    }

    private static void CheckLeadIns(CatalogueContent content)
    {
        foreach (var lead in content.Shape.LeadIns)
        foreach (var key in lead.From.SelectMany(s => s).Append(lead.Core))
            Must(content.FindDrill(key) is not null, "session-shape", $"leadIns.{lead.Core}", $"No drill {key}.");
    }

    private static void CheckLadder(Ladder ladder, CatalogueContent content)
    {
        var file = $"ladders/{ladder.Key}";
        Must(ladder.Skill == ladder.Key, file, "skill", "A shipped ladder is its own skill.");
        // One of before is as it was when it was checked: its students follow it until they are moved.
        if (content.NewestLadder(ladder.Key) != ladder)
            return;
        if (LadderCheck.Check(ladder, content) is [var first, ..])
            throw new ContentException(file, first.Field, first.Code);
        foreach (var stage in ladder.Stages)
        {
            var path = $"stages[{stage.Number - 1}].core";
            Must(stage.Core is { Count: > 0 }, file, path, "A shipped stage names its core drills.");
            foreach (var core in stage.Core!)
                Must(
                    content.Drills.GetValueOrDefault(core)?.ServesStage(ladder.Key, stage.Number) == true,
                    file,
                    path,
                    $"{core} is no drill of this stage."
                );
            foreach (var test in stage.Tests.Where(t => t is HoldCriterion or RepsCriterion))
                CheckTrained(test, ladder, stage.Number, content);
            foreach (var test in stage.Tests.OfType<RomCriterion>())
                Must(
                    content.Shape.OpenedBy.GetValueOrDefault(test.Measure)?.Any(d => content.Drill(d).ServesStage(ladder.Key, stage.Number))
                        == true,
                    file,
                    $"stages[{stage.Number - 1}].tests",
                    $"No drill of this stage opens {test.Measure}."
                );
        }
    }

    /// <summary>What a gate asks to be held or counted is trained at its stage, by a drill whose ceiling reaches it.</summary>
    private static void CheckTrained(ReadinessTest test, Ladder ladder, int stage, CatalogueContent content)
    {
        var (file, path) = ($"ladders/{ladder.Key}", $"stages[{stage - 1}].tests");
        var drill = content.Drills.GetValueOrDefault(Want.DrillOf(test, content) ?? "");
        Must(drill?.ServesStage(ladder.Key, stage) == true, file, path, $"No drill of stage {stage} trains what is asked.");
        var asked = test switch
        {
            HoldCriterion { Breaths: { } breaths } => breaths,
            HoldCriterion hold => hold.Seconds ?? 0,
            RepsCriterion reps => reps.Reps,
            _ => 0,
        };
        var counts = drill!.Dose is RepsDose == test is RepsCriterion;
        Must(drill.Ceiling is not { } most || !counts || most >= asked, file, path, $"{drill.Key} never grows to what is asked.");
    }

    private static void CheckDayGate(DayGate gate, CatalogueContent content)
    {
        foreach (var instead in gate.Substitutes)
        {
            foreach (var at in instead.Drills)
                Must(HasVariant(at.Drill, at.Variant, content), "day-gates", gate.Key, $"No {at.Drill} {at.Variant}.");
            Must(
                instead.Failed.All(f => gate.Checks.Any(c => c.Key == f)),
                "day-gates",
                gate.Key,
                "A substitute names a check of the gate."
            );
            Must(
                (instead.Ladders ?? []).All(l => content.NewestLadder(l) is not null),
                "day-gates",
                gate.Key,
                "A substitute names a ladder that there is."
            );
        }
        foreach (var test in gate.Tests)
            Must(
                content.FindDrill(test.Drill) is { } drill && (test.Variant is null || drill.Variants.Any(v => v.Key == test.Variant)),
                "day-gates",
                gate.Key,
                $"No {test.Drill} {test.Variant}."
            );
        foreach (var check in gate.Checks)
            Must(
                check.Otherwise == DayGateResult.Easier || gate.Substitutes.Any(s => s.Failed.Contains(check.Key)),
                "day-gates",
                gate.Key,
                $"Nothing is named instead when {check.Key} fails."
            );
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
        Must(
            drill.QuickMeasure is not { } read || content.FindMeasure(read) is { Quick: true, Instruments.Count: > 0 },
            "drills",
            drill.Key,
            $"No quick measure {drill.QuickMeasure}."
        );
        Must(
            drill.AlternativeTo is not { } other || content.FindDrill(other) is not null,
            "drills",
            drill.Key,
            $"No drill {drill.AlternativeTo}."
        );
        foreach (var counter in drill.Counters ?? [])
            Must(content.FindDrill(counter) is { Kind: DrillKind.Counter }, "drills", drill.Key, $"No counter {counter}.");
        foreach (var gate in drill.Gates)
            Must(content.FindDayGate(gate) is not null, "drills", drill.Key, $"No day gate {gate}.");
        Must(
            drill.FitsMeasure is not { } fits || (content.FindMeasure(fits) is not null && drill.Variants.All(v => v.Fits is not null)),
            "drills",
            drill.Key,
            "A support that is measured has its measure, and each variant what it allows."
        );
        Must(drill.Felt.Length > 0, "drills", drill.Key, "It says where it is felt and what it is for.");
        foreach (var variant in drill.Variants)
            Must(
                drill.OutOf(variant) is { } way ? way.Seconds is >= 5 and <= 20 : !IsLeftWithCare(drill, variant),
                "drills",
                $"{drill.Key}.{variant.Key}",
                "A position at the end of range, upside down or on the neck is left in 5 to 20 s."
            );
        CheckReachable(drill, content);
        CheckCues(drill, content);
    }

    /// <summary>Held at the end of range, in a ramp, upside down, or in neck work: there is a way out of it.</summary>
    private static bool IsLeftWithCare(Drill drill, Variant variant) =>
        drill.DoseOf(variant) is not (RepsDose or RhythmDose)
        && (
            drill.DoseOf(variant) is RampedDose
            || drill.Kind == DrillKind.EndRange
            || drill.Phase is SessionPhase.Peak or SessionPhase.Neck
            || (variant.Loads ?? drill.Loads).Keys.Any(t => t is LoadTag.PassiveEndRange or LoadTag.Inverted)
        );

    /// <summary>Something puts it into a session: a stage, another drill, a gate, or the frame of every session.</summary>
    private static void CheckReachable(Drill drill, CatalogueContent content)
    {
        var stages =
            from ladder in content.Ladders
            from stage in ladder.Stages
            where
                drill.ServesStage(ladder.Key, stage.Number)
                && drill.Variants.Any(v => v.FromStageIn(ladder.Key) <= stage.Number || v.Fits >= 0)
            select stage;
        Must(
            stages.Any()
                && (
                    drill.Phase is SessionPhase.Warm or SessionPhase.Down
                    || drill.Serves.All(s => s.Ladder != "*")
                    || content.DrillList.Any(d => d.IsCounteredBy(drill.Key))
                    || content.Shape.Companions.Any(c => c.Drills.Contains(drill.Key))
                ),
            "drills",
            drill.Key,
            "Nothing puts it into a session."
        );
    }

    /// <summary>Cues name what there is, and each can be said in the time that its stretch of work has, in the shortest dose as well.</summary>
    private static void CheckCues(Drill drill, CatalogueContent content)
    {
        foreach (var cue in drill.Cues)
            Must(
                (cue.Variant is null || drill.Variants.Any(v => v.Key == cue.Variant))
                    && (cue.Position is null || drill.Variants.Any(v => Labels(drill.DoseOf(v)).Contains(cue.Position))),
                "drills",
                $"{drill.Key}.cues",
                $"“{cue.Says}” belongs to nothing that there is."
            );
        foreach (var variant in drill.Variants)
        foreach (var dose in Shortest(drill.DoseOf(variant), content))
        foreach (var segment in Timeline.Segments("", drill, new(null, 1, variant.Key, dose, null), true, Measuring.Breaths.DefaultSeconds))
            Must(
                segment.Cue is not { } cue || Cue.SecondsToSay(cue) <= segment.Seconds,
                "drills",
                $"{drill.Key}.cues",
                $"“{segment.Cue}” is too long for {segment.Seconds} s."
            );
    }

    private static IEnumerable<string> Labels(Dose dose) =>
        dose switch
        {
            FlowDose flow => flow.Positions.Select(p => p.Name),
            SupportLadderDose ladder => ladder.Rungs.Select(r => r.Name),
            _ => [],
        };

    /// <summary>The usual dose, and what the approaches make of a ramp.</summary>
    private static IEnumerable<Dose> Shortest(Dose dose, CatalogueContent content) =>
        dose is RampedDose
            ?
            [
                dose,
                .. content.Approaches.Select(a => (Dose)a.FirstWeekRamp),
                .. content.Approaches.SelectMany(a => new[] { a.InsteadOfRamp, a.FirstWeekInstead }).OfType<Dose>(),
            ]
            : [dose];

    private static void Must(bool holds, string file, string path, string reason)
    {
        if (!holds)
            throw new ContentException(file, path, reason);
    }
}
