using Tensarch.Core.Students;

namespace Tensarch.Core.Planning;

/// <summary>What is light only is felt. Source: judgement, bars that are felt.</summary>
public static partial class SessionChecker
{
    private const double SparedHandShare = 0.4;
    private const int SparedHandSeconds = 60;
    private const int LightTop = 40;
    private const int ShortSeconds = 30;
    private const int MostRampRounds = 3;

    /// <summary>Into a balance, over both sides.</summary>
    private const int Entries = 6;

    /// <summary>Rule 1: the easiest version, half the work, little effort, nothing that fills; little on wrists; short where it stays short.</summary>
    private static IEnumerable<Violation> LightOnly(List<Line> lines, Trainee facts)
    {
        foreach (var line in lines.Where(l => l.Planned.Reason.Code != "dayGate"))
        {
            var main = line.PhaseIn is not (SessionPhase.Warm or SessionPhase.Down);
            if (main && line.Loads.Any(l => l.Value != LoadLevel.None && facts.Bars.Few.Contains(l.Key)))
            {
                if (line.Planned.Reason.Code == "companion")
                    yield return new(1, "lightOnlyFiller", line.Drill.Key);
                if (IsHarder(line, facts))
                    yield return new(1, "lightOnlyNotEasiest", line.Drill.Key);
                if (
                    line.Side.Dose is RampedDose { ToPercent: > LightTop }
                    || Work(line.Side.Dose, line.Breath) > Usual(line).Max(d => Work(d, line.Breath)) / 2
                )
                    yield return new(1, "lightOnlyTooMuch", line.Drill.Key);
            }
            if (
                facts.Bars.Brief
                && line.Drill.Loads.ContainsKey(LoadTag.PassiveEndRange)
                && line.Planned.Reason.Code != "gateAsksHold"
                && Drill.LongestHoldSeconds(line.Side.Dose, line.Breath) > ShortSeconds
            )
                yield return new(1, "holdNotShort", line.Drill.Key);
        }
        if (!facts.Bars.Few.Contains(LoadTag.Wrist))
            yield break;
        var hands = 0.0;
        foreach (var line in lines)
        {
            if (line.Drill.HandShareOf(line.Variant) > SparedHandShare)
                yield return new(1, "wristNotSpared", line.Drill.Key);
            if (line.Loads.ContainsKey(LoadTag.Wrist))
                hands += line.Drill.HandShareOf(line.Variant) * Work(line.Side.Dose, line.Breath);
        }
        if (hands > SparedHandSeconds + 1)
            yield return new(1, "wristNotSpared");
    }

    /// <summary>An easier version would be allowed.</summary>
    private static bool IsHarder(Line line, Trainee facts) =>
        line
            .Drill.Variants.TakeWhile(v => v != line.Variant)
            .Any(v =>
                (v.HandShare ?? line.Drill.HandShare) <= SparedHandShare
                && line.Drill.LoadsOf(v, line.Drill.DoseOf(v), line.Breath) is var loads
                && facts.Bars.Allow(loads)
                // On a light day of a week what is heavy in another way waits.
                && loads.All(l => l.Value != LoadLevel.Heavy || line.Loads.GetValueOrDefault(l.Key) == LoadLevel.Heavy)
            );

    /// <summary>What its dose would be without the bar, whatever the week.</summary>
    private static IEnumerable<Dose> Usual(Line line)
    {
        var usual = line.Drill.DoseOf(line.Variant);
        yield return usual;
        if (usual is AttemptsDose entries && line.Drill.IsBalance)
            yield return entries with
            {
                Attempts = line.Drill.Sides == SideMode.Each ? Entries / 2 : Entries,
            };
        if (usual is not RampedDose ramp)
            yield break;
        yield return new HoldDose(PlainHold, null, 2, 30);
        if (line.Course.Approach.InsteadOfRamp is { } instead)
            yield return instead;
        else
            yield return ramp with
            {
                Rounds = MostRampRounds,
            };
    }
}
