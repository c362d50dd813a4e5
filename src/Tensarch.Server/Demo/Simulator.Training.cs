using Tensarch.Core.Planning;
using Tensarch.Core.Sessions;
using Tensarch.Core.Students;
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
        var timeline = Timeline.Of(Plans.Read(row)!, catalogue);
        time.Set(at.AddSeconds(row.TotalSeconds + 60));
        var sets = timeline.SelectMany(part => Done(part, at)).ToList();
        var felt = who
            .Pains.Where(p => p.Day == day)
            .Select(p => new SignalFact(NewId(), p.Drill, SignalKind.DullPain, p.Region, p.Side, p.Pain, null, at.AddMinutes(25)));
        var log = new SessionDesk(db, catalogue, Clock, scope);
        Must((await log.Log(row.Id, new(Clock.Now, sets, [.. felt], Clock.Now), ct)).Problems);
        body.Train();
        Written();
    }

    /// <summary>One fact a round. A hold that a gate asks for lasts when the split is nearly there, and falls short when it is not.</summary>
    private IEnumerable<SetFact> Done(TimelinePart part, DateTimeOffset at)
    {
        foreach (var round in part.Segments.Where(s => s.Kind == SegmentKind.Work).GroupBy(s => s.Round))
        {
            var (reps, seconds) = (round.Sum(s => s.Reps ?? 0), round.Sum(s => s.Seconds));
            var tested = part.Planned.Reason.Code == "gateAsksHold" && part.PlannedSide.Dose is HoldDose;
            var fallsShort =
                tested && body.True("front-split-gap", part.PlannedSide.Side) is { } gap && gap > NeededGap(part.PlannedSide.Stage) + 4;
            yield return new(
                NewId(),
                part.Planned.Drill,
                part.PlannedSide.Variant,
                part.PlannedSide.Side,
                round.Key,
                reps > 0 ? null
                    : fallsShort ? seconds - 4
                    : seconds + (tested ? 1 : 0),
                reps > 0 ? reps : null,
                3 + random.Next(2),
                5 + random.Next(2),
                at.AddSeconds(round.First().StartSeconds)
            );
        }
    }
}
