using Tensarch.Core;
using Tensarch.Core.Catalogue;
using Tensarch.Core.Measuring;
using Tensarch.Core.Planning;
using Tensarch.Core.Sessions;
using Tensarch.Core.Skills;
using Tensarch.Server.Data;
using Tensarch.Server.Measuring;
using Tensarch.Server.Planning;
using Tensarch.Server.Sessions;
using Tensarch.Server.Skills;
using Tensarch.Server.Students;

namespace Tensarch.Server.Demo;

/// <summary>
/// Lives fourteen weeks of one student's training: a true range that training moves towards a limit, read with the catalogue's
/// noise, through the same desks that the screens use. Seeded: the same each time, relative to today.
/// </summary>
internal sealed class Simulator(TensarchDb db, CatalogueContent catalogue, PictureFiles files, StudioScope scope, DateOnly today, int seed)
{
    private readonly Random random = new(seed);
    private readonly SimulatedClock time = new();
    private readonly Gate gate = new(catalogue);

    private StudioClock Clock => new(time, scope);

    private Standings Standings => new(db, catalogue, Clock);

    public async Task Live(DemoCase who, CancellationToken ct)
    {
        var truth = SideExtensions.Both.ToDictionary(s => s, s => who.Of(s).ToDictionary(r => r.Measure, r => r.Start));
        var first = who.Days.Concat(who.Tests).Min();
        time.Set(At(first, 9));
        var id = await Enrol(who, ct);
        foreach (var day in who.Days.Concat(who.Tests).Distinct().Order())
        {
            var trains = who.Days.Contains(day);
            if (who.Tests.Contains(day) || trains && await WantsRetest(id, ct))
                await Read(who, id, truth, day == first, At(day, day == 0 ? 0 : 16), ct);
            if (day == first && trains && who.OnLadder)
                await Place(id, ct);
            if (trains)
                await Train(who, id, truth, At(day, 17), ct);
            if (day <= who.DecidesUntil)
                await Decide(id, ct);
            db.ChangeTracker.Clear();
        }
        foreach (var picture in who.Pictures ?? [])
            await Photograph(id, picture, ct);
    }

    /// <summary>Takes a side picture and, where it shows a measure, reads it from landmarks placed three times.</summary>
    private async Task Photograph(Guid student, DemoPicture shown, CancellationToken ct)
    {
        time.Set(At(shown.Day, 18).AddMinutes(shown.Day == -1 ? -100 : 0));
        var desk = new PictureDesk(db, catalogue, files, Clock, scope);
        var kept = await desk.Keep(student, NewId(), shown.Picture.View, Clock.Now, shown.Picture.Draw(), ct);
        Must(kept.Problems);
        var marks = new List<Guid>();
        for (var i = 0; i < 3; i++)
        {
            var placed = shown.Picture.Truth.Select(p => new PicturePoint(
                p.X + 1.5 * Normal.Next(random),
                p.Y + 1.5 * Normal.Next(random)
            ));
            var marked = await desk.Mark(kept.Value.Row, new(NewId(), new([.. placed])), ct);
            Must(marked.Problems);
            marks.Add(marked.Value.Row.Id);
        }
        if (catalogue.FindMeasure(shown.Picture.View) is not { } measure)
            return;
        var request = new ReadingRequest(
            NewId(),
            measure.Key,
            null,
            Warmth.Warm,
            null,
            Instrument.Picture,
            [],
            [],
            4,
            5,
            0,
            null,
            Clock.Now,
            shown.Level,
            Marks: marks
        );
        Must((await Readings.Take(student, request, ct)).Problems);
        db.ChangeTracker.Clear();
    }

    private ReadingDesk Readings => new(db, new StudioMeasures(db, catalogue, scope), new OwnNoises(db), Standings, Clock, scope);

    private DateTimeOffset At(int day, int hour)
    {
        if (hour == 0)
            return TimeProvider.System.GetUtcNow().AddMinutes(-20);
        var local = today.AddDays(day).ToDateTime(new(hour, 0));
        return new DateTimeOffset(local, scope.TimeZone.GetUtcOffset(local)).ToUniversalTime();
    }

    private Guid NewId()
    {
        var bytes = new byte[16];
        random.NextBytes(bytes);
        return new(bytes);
    }

    private async Task<Guid> Enrol(DemoCase who, CancellationToken ct)
    {
        var desk = new StudentDesk(db, catalogue, Clock, scope);
        var id = NewId();
        var body = new StudentBody(
            who.Name,
            who.About,
            today.AddYears(-who.Age).AddDays(-random.Next(20, 300)),
            who.LegCm,
            who.LegCm - 0.5,
            null,
            4.5,
            7,
            who.Standard,
            4,
            who.Minutes,
            null
        );
        Must((await desk.Add(new(id, body), ct)).Problems);
        Must(await desk.Answer(id, [.. catalogue.Questions.Select(q => new AnswerItem(q.Key, who.Yes.Contains(q.Key)))], ct));
        return id;
    }

    private async Task<bool> WantsRetest(Guid id, CancellationToken ct)
    {
        var standing = await Standings.Of(id, SkillEndpoints.FrontSplit, ct);
        return standing!.Ladder is not null
            && SideExtensions.Both.Any(s =>
                standing.Judge(gate, s) is { State: GateState.Retest, Next: { Code: "retest", NotBefore: { } day } } && day <= Clock.Today
            );
    }

    /// <summary>Both sides of what the present gates read; of everything at the baseline.</summary>
    private async Task Read(
        DemoCase who,
        Guid id,
        Dictionary<Side, Dictionary<string, double>> truth,
        bool baseline,
        DateTimeOffset at,
        CancellationToken ct
    )
    {
        time.Set(at);
        var desk = Readings;
        var wanted = baseline || !who.OnLadder ? [.. truth[Side.Left].Keys] : await Wanted(id, ct);
        foreach (var measure in wanted.Select(catalogue.Measure))
        foreach (var side in SideExtensions.Both)
        {
            var noise = NoiseOf(at, measure, side);
            var day = truth[side][measure.Key] + Normal.Next(noise) * measure.Tau;
            var trials = Enumerable.Range(0, 3).Select(_ => Rounded(day + Normal.Next(noise) * measure.Sem, measure)).ToList();
            var standard = measure.Standards.Count > 0 ? who.Standard : null;
            var request = new ReadingRequest(
                NewId(),
                measure.Key,
                side,
                Warmth.Warm,
                standard,
                measure.Instruments[0],
                trials,
                [],
                4,
                6,
                0,
                null,
                at.AddSeconds(random.Next(600)),
                Confirmed: true
            );
            time.Set(at.AddMinutes(15));
            Must((await desk.Take(id, request, ct)).Problems);
        }
    }

    private async Task<List<string>> Wanted(Guid id, CancellationToken ct)
    {
        var standing = (await Standings.Of(id, SkillEndpoints.FrontSplit, ct))!;
        var tests = SideExtensions.Both.SelectMany(s => standing.Judge(gate, s).Tests).Select(t => t.Test);
        return [.. tests.OfType<RomCriterion>().Select(t => t.Measure).Append(standing.Compare(catalogue).Measure).Distinct()];
    }

    private async Task Place(Guid id, CancellationToken ct)
    {
        var standing = (await Standings.Of(id, SkillEndpoints.FrontSplit, ct))!;
        var placing = new Placing(gate);
        var ladder = catalogue.NewestLadder(SkillEndpoints.FrontSplit)!;
        var request = new SkillStart(
            NewId(),
            ladder.Key,
            "long-and-ramped",
            NewId(),
            placing.Suggest(ladder, Side.Left, standing.Evidence),
            NewId(),
            placing.Suggest(ladder, Side.Right, standing.Evidence)
        );
        Must((await new SkillDesk(db, catalogue, Clock, scope).Start(standing, request, ct)).Problems);
        db.ChangeTracker.Clear();
    }

    private async Task Train(
        DemoCase who,
        Guid id,
        Dictionary<Side, Dictionary<string, double>> truth,
        DateTimeOffset at,
        CancellationToken ct
    )
    {
        time.Set(at);
        var standing = (await Standings.Of(id, SkillEndpoints.FrontSplit, ct))!;
        var planned = await new PlanDesk(db, catalogue, Clock, scope).Plan(standing, new(NewId(), null, null), ct);
        Must(planned.Problems);
        var row = planned.Value.Row;
        var timeline = Timeline.Of(PlanDesk.Read(row), catalogue);
        time.Set(at.AddSeconds(row.TotalSeconds + 60));
        var sets = timeline.SelectMany(part => Done(part, truth, at)).ToList();
        var log = new SessionDesk(db, catalogue, Clock, scope);
        Must((await log.Log(row.Id, new(Clock.Now, sets, [], Clock.Now), ct)).Problems);

        foreach (var side in SideExtensions.Both)
        foreach (var range in who.Of(side))
            truth[side][range.Measure] += who.Rate * (range.Limit - truth[side][range.Measure]);
    }

    /// <summary>One fact a round. A hold that a gate asks for lasts when the split is nearly there, and falls short when it is not.</summary>
    private IEnumerable<SetFact> Done(TimelinePart part, Dictionary<Side, Dictionary<string, double>> truth, DateTimeOffset at)
    {
        foreach (var round in part.Segments.Where(s => s.Kind == SegmentKind.Work).GroupBy(s => s.Round))
        {
            var reps = round.Sum(s => s.Reps ?? 0);
            var seconds = round.Sum(s => s.Seconds);
            var tested = part.Planned.Reason.Code == "gateAsksHold" && part.PlannedSide is { Side: not null, Dose: HoldDose };
            var short_ = tested && truth[part.PlannedSide.Side!.Value]["front-split-gap"] > NeededGap(part.PlannedSide.Stage) + 4;
            yield return new(
                NewId(),
                part.Planned.Drill,
                part.PlannedSide.Variant,
                part.PlannedSide.Side,
                round.Key,
                reps > 0 ? null
                    : short_ ? seconds - 4
                    : seconds + (tested ? 1 : 0),
                reps > 0 ? reps : null,
                3 + random.Next(2),
                5 + random.Next(2),
                at.AddSeconds(round.First().StartSeconds)
            );
        }
    }

    private double NeededGap(int stage) =>
        catalogue
            .NewestLadder(SkillEndpoints.FrontSplit)!
            .StageAt(stage)
            .Tests.OfType<RomCriterion>()
            .FirstOrDefault(t => t.Measure == "front-split-gap")
            ?.Threshold
        ?? 0;

    /// <summary>Advances through every open gate; a first advance can open the other side's.</summary>
    private async Task Decide(Guid id, CancellationToken ct)
    {
        while (true)
        {
            db.ChangeTracker.Clear();
            var standing = (await Standings.Of(id, SkillEndpoints.FrontSplit, ct))!;
            if (standing.Ladder is null)
                return;
            var open = SideExtensions.Both.Select(s => standing.Judge(gate, s)).FirstOrDefault(v => v.State == GateState.Open);
            if (open is null)
                return;
            var request = new DecisionRequest(NewId(), open.Side, DecisionKind.Advance, open.Stage, null);
            Must((await new SkillDesk(db, catalogue, Clock, scope).Decide(standing, request, ct)).Problems);
        }
    }

    private static double Rounded(double value, Measure measure) =>
        Math.Round(Math.Clamp(Math.Round(value / measure.Resolution) * measure.Resolution, measure.Min, measure.Max), 2);

    /// <summary>A stream of its own for each reading, so that a longer session does not move the next reading.</summary>
    private Random NoiseOf(DateTimeOffset at, Measure measure, Side side)
    {
        var daysAgo = today.DayNumber - Clock.DayOf(at).DayNumber;
        var place = catalogue.Measures.Index().First(m => m.Item.Key == measure.Key).Index;
        return new(unchecked(seed + 7919 * daysAgo + 104729 * place + 1299709 * (int)side));
    }

    private static void Must(IReadOnlyList<Problem> problems)
    {
        if (problems.Count > 0)
            throw new InvalidOperationException($"The demo could not be made: {problems[0].Code} at {problems[0].Field}.");
    }

    private sealed class SimulatedClock : TimeProvider
    {
        private DateTimeOffset now;

        public void Set(DateTimeOffset instant) => now = instant;

        public override DateTimeOffset GetUtcNow() => now;
    }
}
