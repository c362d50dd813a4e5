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
/// <param name="Full">All that was planned of it was done, rounds and time, and well enough.</param>
public sealed record Work(
    string Drill,
    string Variant,
    Side? Side,
    string? Skill = null,
    int? Seconds = null,
    int LongestHold = 0,
    int TopPercent = 0,
    bool Full = false
)
{
    public const string ForNone = "none";

    /// <summary>When its first and its last round were done; none where that is not known, from before it was kept.</summary>
    public (DateTimeOffset First, DateTimeOffset Last)? When { get; init; }

    /// <summary>Something of it was done while a bar lay on it: it loads, and proves nothing. Derived, and never kept.</summary>
    public bool UnderBar { get; init; }

    /// <summary>A lead-in, in its easiest version on purpose: it loads, and says nothing about which version comes next.</summary>
    public bool LedIn { get; init; }

    public WorkedDrill What => new(Drill, Variant, Side);

    public override string ToString() =>
        string.Create(
            CultureInfo.InvariantCulture,
            $"{Drill}/{Variant}/{Side}/{Skill}/{Seconds}/{LongestHold}/{TopPercent}{(Full ? "/full" : "")}{(LedIn ? "/ledIn" : "")}{(When is { } when ? $"/@{when.First.UtcTicks}-{when.Last.UtcTicks}" : "")}"
        );

    /// <returns>None for a text that names no drill.</returns>
    public static Work? Parse(string text) =>
        text.Split('/') switch
        {
            [var drill, var variant, var side] => new(drill, variant, SideOf(side)),
            [var drill, var variant, var side, var skill, var seconds, var longest, var top, .. var rest] => new(
                drill,
                variant,
                SideOf(side),
                skill.Length > 0 ? skill : null,
                int.TryParse(seconds, CultureInfo.InvariantCulture, out var s) ? s : null,
                int.TryParse(longest, CultureInfo.InvariantCulture, out var l) ? l : 0,
                int.TryParse(top, CultureInfo.InvariantCulture, out var t) ? t : 0,
                rest.Contains("full")
            )
            {
                When = rest.Select(WhenOf).FirstOrDefault(w => w is not null),
                LedIn = rest.Contains("ledIn"),
            },
            _ => null,
        };

    private static (DateTimeOffset, DateTimeOffset)? WhenOf(string text) =>
        text.StartsWith('@')
        && text[1..].Split('-') is [var first, var last]
        && long.TryParse(first, CultureInfo.InvariantCulture, out var from)
        && long.TryParse(last, CultureInfo.InvariantCulture, out var to)
            ? (At(from), At(to))
            : null;

    private static DateTimeOffset At(long ticks) => new(Math.Clamp(ticks, 0, DateTimeOffset.MaxValue.UtcTicks), TimeSpan.Zero);

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

    /// <summary>A plan as if all of it had been done; an attempt counts for what attempts take, and not for the most that it may.</summary>
    public static IReadOnlyList<Work> Planned(SessionPlan plan, CatalogueContent content) =>
        [.. plan.Drills.SelectMany(d => Planned(d, d.Skill ?? plan.Skills[0].Skill, plan.BreathSeconds, content))];

    /// <summary>One of its drills as if all of it had been done.</summary>
    public static IEnumerable<Work> Planned(PlannedDrill planned, string skill, double breathSeconds, CatalogueContent content) =>
        from side in planned.Sides
        let drill = content.Drill(planned.Drill)
        select new Work(
            drill.Key,
            side.Variant,
            side.Side,
            planned.Reason.Code == "companion" ? ForNone : skill,
            side.Dose is AttemptsDose attempts
                ? attempts.Attempts * Math.Min(attempts.MaxSeconds, content.Programme.Load.AttemptSeconds)
                : Timeline.WorkSecondsOf(drill, side, breathSeconds),
            (int)Math.Round(Planning.Drill.LongestHoldSeconds(side.Dose, breathSeconds)),
            side.Dose is RampedDose ramp ? ramp.ToPercent : 0,
            true
        )
        {
            LedIn = planned.Reason.LeadsIn,
        };

    private static Work Of(WorkedDrill what, List<DoneRound> rounds, SessionPlan? plan, CatalogueContent content)
    {
        var drill = content.Drill(what.Drill);
        var planned = plan?.Drills.Where(d => d.Drill == drill.Key).OrderBy(d => d.Reason.IsAid).FirstOrDefault();
        var side = planned?.Sides.FirstOrDefault(s => s.Variant == what.Variant && (s.Side == what.Side || s.Side is null));
        var dose = side?.Dose ?? drill.DoseOf(drill.VariantAt(what.Variant));
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
            dose is RampedDose ramp ? ramp.ToPercent : 0,
            side is not null && InFull(Timeline.Segments("", drill, side, false, plan!.BreathSeconds), rounds, dose)
        )
        {
            LedIn = planned?.Reason.LeadsIn == true,
            When = rounds.Exists(r => r.At is null) ? null : (rounds.Min(r => r.At!.Value), rounds.Max(r => r.At!.Value)),
        };
    }

    /// <summary>Of five, what a coach calls well enough; what nobody rated is not held against it.</summary>
    private const int GoodQuality = 3;

    /// <summary>All planned rounds, with all their time or repetitions; of entries into a balance, half of them to their full time.</summary>
    private static bool InFull(IReadOnlyList<Segment> planned, List<DoneRound> rounds, Dose dose)
    {
        var work = planned.Where(s => s.Kind == SegmentKind.Work).ToList();
        var (reps, seconds) = (work.Sum(s => s.Reps ?? 0), work.Where(s => s.Reps is null).Sum(s => s.Seconds));
        return rounds.Count >= work.Select(s => s.Round).Distinct().Count()
            && rounds.All(r => r.Quality is not < GoodQuality)
            && (
                dose is AttemptsDose entries ? 2 * rounds.Count(r => r.Seconds >= entries.MaxSeconds) >= entries.Attempts
                : reps > 0 ? rounds.Sum(r => r.Reps ?? 0) >= reps
                : rounds.Sum(r => r.Seconds ?? 0) >= seconds
            );
    }
}

/// <summary>One round that was done: held so long, or counted.</summary>
/// <param name="Quality">Of five, where somebody rated it.</param>
public sealed record DoneRound(WorkedDrill What, double? Seconds, int? Reps, int? Quality = null, DateTimeOffset? At = null);
