using Tensarch.Core.Planning;
using Tensarch.Core.Sessions;
using Tensarch.Core.Students;
using Tensarch.Server.Data;
using Tensarch.Server.Sessions;

namespace Tensarch.Server.Demo;

/// <summary>The days on which a simulated student trains.</summary>
internal sealed partial class Simulator
{
    /// <summary>Someone with two skills trains both in one session, each the first one in turn.</summary>
    private async Task Train(int day, CancellationToken ct)
    {
        var at = At(day, 17);
        time.Set(at);
        var started = who.Skills.Where(s => (s.From ?? who.FirstDay) <= day).ToList();
        var skill = started[who.Days.Index().First(d => d.Item == day).Index % started.Count].Skill;
        if (await PlannedOn(day, ct) is not { } row)
        {
            var planned = await Plan(await Now(ct), skill, [.. started.Select(s => s.Skill).Where(s => s != skill)], ct);
            Must(planned.Problems);
            row = planned.Value.Row;
        }
        else if (Plans.Today(row, Plans.Read(row)!, await Now(ct)).Barred.Count > 0)
        {
            // What a coach does with a session that a caution has overtaken.
            Must((await Changes.Make(row.Id, new(SessionChangeKind.Again), ct)).Problems);
            Written();
            row = (await PlannedOn(day, ct))!;
        }
        var timeline = Timeline.Of(Plans.Read(row)!, catalogue);
        time.Set(at.AddSeconds(row.Planned.TotalSeconds + 60));
        var sets = timeline.SelectMany(part => Done(part, at)).ToList();
        var felt = who
            .Pains.Where(p => p.Day == day)
            .Select(p => new FloorFact(
                NewId(),
                FloorFactKind.Signal,
                at.AddMinutes(25),
                p.Drill,
                Side: p.Side,
                Signal: SignalKind.DullPain,
                Region: p.Region,
                Pain: p.Pain
            ));
        await Tell(row, [("passed", sets), ("signal", [.. felt]), ("ended", [new(NewId(), FloorFactKind.Finished, Clock.Now)])], ct);
        body.Train();
        Written();
    }

    /// <summary>As the runner tells it when it has had no network: all of it at the end.</summary>
    private async Task Tell(SessionRow row, List<(string Is, IReadOnlyList<FloorFact> Facts)> said, CancellationToken ct)
    {
        var entries = said.Where(s => s.Facts.Count > 0)
            .Select(
                (s, i) => new FloorEntry(new(NewId(), row.Id, i, s.Facts.Max(f => f.At), $$"""{"is":"{{s.Is}}"}""", row.Plan), s.Facts)
            );
        var floor = new FloorDesk(db, catalogue, Standings, Clock, scope);
        var told = await floor.Tell(new(Clock.Now, [.. entries]), ct, known: await Now(ct));
        if (told.Told.FirstOrDefault(t => t.Is != ToldIs.Stored) is { } refused)
            throw new InvalidOperationException($"The demo could not be made: {refused.Code} of what {who.Name} trained on {today}.");
    }

    /// <summary>One fact a round. A hold that a gate asks for lasts when the split is nearly there, and falls short when it is not.</summary>
    private IEnumerable<FloorFact> Done(TimelinePart part, DateTimeOffset at)
    {
        foreach (var round in part.Segments.Where(s => s.Kind == SegmentKind.Work).GroupBy(s => s.Round))
        {
            var (reps, seconds) = (round.Sum(s => s.Reps ?? 0), round.Sum(s => s.Seconds));
            var tested = part.Planned.Reason.Code == "gateAsksHold" && part.PlannedSide.Dose is HoldDose;
            var fallsShort =
                tested && body.True("front-split-gap", part.PlannedSide.Side) is { } gap && gap > NeededGap(part.PlannedSide.Stage) + 4;
            yield return new(
                NewId(),
                FloorFactKind.Set,
                at.AddSeconds(round.First().StartSeconds),
                part.Planned.Drill,
                part.PlannedSide.Variant,
                part.PlannedSide.Side,
                round.Key,
                reps > 0 ? null
                    : fallsShort ? seconds - 4
                    : seconds + (tested ? 1 : 0),
                reps > 0 ? reps : null,
                Quality: 3 + random.Next(2)
            );
        }
    }
}
