using Tensarch.Core.Catalogue;
using Tensarch.Core.Planning;
using Tensarch.Core.Skills;

namespace Tensarch.Core.Sessions;

/// <summary>What a coach says of one part after a lesson without the runner; what is none was as planned.</summary>
/// <param name="Part">The timeline part's id.</param>
/// <param name="Seconds">Of each round; where a gate reads the part, what one round was seen to last.</param>
/// <param name="CleanReps">Likewise.</param>
/// <param name="Seen">Rounds with the number that was seen of each: proof is one by one.</param>
public sealed record SaidOfPart(
    string Part,
    bool Done = true,
    int? Rounds = null,
    double? Seconds = null,
    int? CleanReps = null,
    IReadOnlyList<SeenRound>? Seen = null
);

/// <param name="Round">Counted from 1.</param>
/// <param name="Number">Seconds, or clean repetitions where those are counted.</param>
public readonly record struct SeenRound(int Round, double Number);

/// <summary>One round that was done.</summary>
/// <param name="AtSeconds">From the start of the session, as it was planned.</param>
/// <param name="Confirmed">A number was seen and said, or no gate reads it: what was only planned is practice, not proof.</param>
public sealed record RoundDone(
    string Part,
    string Drill,
    string Variant,
    Side? Side,
    int Round,
    int AtSeconds,
    double? Seconds,
    int? CleanReps,
    bool Confirmed
);

/// <summary>A session that was done as planned, except for what is said.</summary>
public static class HandLog
{
    public const int MostRounds = 20;

    /// <summary>Between rounds that were done beyond the plan.</summary>
    private const int RestSeconds = 60;

    /// <param name="ladders">The ladder on which a drill was planned, by its skill; none when it is not there any more.</param>
    /// <returns>The rounds in the order of the plan; or a code at <c>parts[i]</c> for a part that is not in it, or is named twice.</returns>
    public static Result<IReadOnlyList<RoundDone>> Of(
        SessionPlan plan,
        IReadOnlyList<SaidOfPart> said,
        Func<string?, Ladder?> ladders,
        CatalogueContent content
    )
    {
        var parts = Timeline.Of(plan, content);
        var problems = said.Index()
            .Where(s => parts.All(p => p.Id != s.Item.Part) || said.Take(s.Index).Any(o => o.Part == s.Item.Part))
            .Select(s => Problem.Of("unknownPart", $"parts[{s.Index}].part"))
            .Concat(
                said.Index()
                    .Where(s => s.Item.Seen is { } seen && seen.DistinctBy(r => r.Round).Count() < seen.Count)
                    .Select(s => Problem.Of("namedTwice", $"parts[{s.Index}].seen"))
            )
            .ToList();
        return problems.Count > 0
            ? problems
            : parts
                .SelectMany(part => Rounds(part, said.FirstOrDefault(s => s.Part == part.Id) ?? new(part.Id), ladders(part.Planned.Skill)))
                .ToList();
    }

    private static IEnumerable<RoundDone> Rounds(TimelinePart part, SaidOfPart said, Ladder? ladder)
    {
        if (!said.Done)
            yield break;
        var planned = part.Segments.Where(s => s.Kind == SegmentKind.Work).GroupBy(s => s.Round).ToList();
        var side = part.PlannedSide;
        var proves = ladder?.Reads(part.Planned.Drill, side.Variant, side.Stage) == true && !part.Planned.Reason.TestsDay;
        var seen = (said.Seen ?? []).ToDictionary(r => r.Round, r => r.Number);
        var count = Math.Min(said.Rounds ?? seen.Keys.Append(planned.Count).Max(), MostRounds);
        for (var i = 0; i < count; i++)
        {
            var round = planned[Math.Min(i, planned.Count - 1)].ToList();
            var beyond = Math.Max(0, i - planned.Count + 1);
            var counted = round.Any(s => s.Reps is not null);
            // One number that was said of a whole part was seen once, and proves one round.
            double? ofAll = !proves || (i == 0 && seen.Count == 0) ? (counted ? said.CleanReps : said.Seconds) : null;
            double? number = seen.TryGetValue(i + 1, out var own) ? own : ofAll;
            yield return new(
                part.Id,
                part.Planned.Drill,
                side.Variant,
                side.Side,
                i + 1,
                round[0].StartSeconds + beyond * (round.Sum(s => s.Seconds) + RestSeconds),
                counted ? null : number ?? round.Sum(s => s.Seconds),
                counted ? (int?)Math.Round(number ?? round.Sum(s => s.Reps ?? 0)) : null,
                !proves || number is not null
            );
        }
    }
}
