using System.Globalization;
using Tensarch.Core.Catalogue;
using Tensarch.Core.Planning;

namespace Tensarch.Core.Sessions;

/// <summary>
/// What was done of one drill in a session, as it is kept: work, not load. What it loads is counted from this under the newest content
/// (<see cref="LoadLedger"/>).
/// </summary>
/// <param name="Skill">The skill that it counts for; <see cref="ForNone"/> where it counts for none; none where it is not known, from before this was kept.</param>
/// <param name="Seconds">Of work, rests left out; none where it is not known.</param>
/// <param name="LongestHold">In seconds; of a ramp the longest settling.</param>
/// <param name="TopPercent">The top effort of a ramp; 0 where nothing ramps.</param>
public sealed record Work(
    string Drill,
    string Variant,
    Side? Side,
    string? Skill = null,
    int? Seconds = null,
    int LongestHold = 0,
    int TopPercent = 0
)
{
    public const string ForNone = "none";

    public WorkedDrill What => new(Drill, Variant, Side);

    public override string ToString() =>
        string.Create(CultureInfo.InvariantCulture, $"{Drill}/{Variant}/{Side}/{Skill}/{Seconds}/{LongestHold}/{TopPercent}");

    /// <returns>None for a text that names no drill.</returns>
    public static Work? Parse(string text) =>
        text.Split('/') switch
        {
            [var drill, var variant, var side] => new(drill, variant, SideOf(side)),
            [var drill, var variant, var side, var skill, var seconds, var longest, var top] => new(
                drill,
                variant,
                SideOf(side),
                skill.Length > 0 ? skill : null,
                int.TryParse(seconds, CultureInfo.InvariantCulture, out var s) ? s : null,
                int.TryParse(longest, CultureInfo.InvariantCulture, out var l) ? l : 0,
                int.TryParse(top, CultureInfo.InvariantCulture, out var t) ? t : 0
            ),
            _ => null,
        };

    private static Side? SideOf(string text) => Enum.TryParse<Side>(text, out var side) ? side : null;

    /// <summary>
    /// Draws the work of a session from its rounds. What was planned says the skill, the top effort and how much of a ramp is settling; what was
    /// not planned is taken at its drill's own dose, and counts for what the session was for.
    /// </summary>
    /// <param name="plan">None where it cannot be read any more.</param>
    public static IReadOnlyList<Work> Of(IEnumerable<DoneRound> rounds, SessionPlan? plan, CatalogueContent content) =>
        [
            .. from done in rounds
            group done by done.What into same
            where content.FindDrill(same.Key.Drill)?.Variants.Any(v => v.Key == same.Key.Variant) == true
            select Of(same.Key, [.. same], plan, content),
        ];

    private static Work Of(WorkedDrill what, List<DoneRound> rounds, SessionPlan? plan, CatalogueContent content)
    {
        var drill = content.Drill(what.Drill);
        var planned = plan?.Drills.Where(d => d.Drill == drill.Key).OrderBy(d => d.Reason.Code == "dayGate").FirstOrDefault();
        var dose =
            planned?.Sides.FirstOrDefault(s => s.Variant == what.Variant && (s.Side == what.Side || s.Side is null))?.Dose
            ?? drill.DoseOf(drill.VariantAt(what.Variant));
        var tempo = dose is RepsDose reps ? reps.SecondsPerRep : 4;
        var held = rounds.Max(r => r.Seconds ?? 0);
        return new(
            what.Drill,
            what.Variant,
            what.Side,
            planned switch
            {
                null => plan is { Beside: null } ? plan.Skills[0].Skill : null,
                { Reason.Code: "companion" } => ForNone,
                _ => planned.Skill ?? plan!.Skills[0].Skill,
            },
            (int)Math.Round(rounds.Sum(r => r.Seconds ?? (r.Reps ?? 0) * tempo)),
            (int)
                Math.Round(
                    dose is RampedDose or SupportLadderDose or FlowDose
                        ? Math.Min(held, Planning.Drill.LongestHoldSeconds(dose, plan?.BreathSeconds ?? Measuring.Breaths.DefaultSeconds))
                        : held
                ),
            dose is RampedDose ramp ? ramp.ToPercent : 0
        );
    }
}

/// <summary>One round that was done: held so long, or counted.</summary>
public sealed record DoneRound(WorkedDrill What, double? Seconds, int? Reps);
