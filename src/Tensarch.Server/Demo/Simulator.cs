using Tensarch.Core;
using Tensarch.Core.Catalogue;
using Tensarch.Core.Measuring;
using Tensarch.Core.Programmes;
using Tensarch.Core.Skills;
using Tensarch.Core.Students;
using Tensarch.Server.Data;
using Tensarch.Server.Measuring;
using Tensarch.Server.Planning;
using Tensarch.Server.Skills;
using Tensarch.Server.Students;

namespace Tensarch.Server.Demo;

/// <summary>
/// Lives fourteen weeks of one student's training: a true range that training moves towards a limit, read with the catalogue's
/// noise, through the same desks that the screens use. Seeded: the same each time, relative to today.
/// </summary>
internal sealed partial class Simulator(
    TensarchDb db,
    CatalogueContent catalogue,
    PictureFiles files,
    IWeekSolver solver,
    StudioScope scope,
    DateOnly today,
    DemoCase who,
    int seed
)
{
    private const int CountedAttempts = 10;

    private readonly Random random = new(seed);
    private readonly SimulatedClock time = new();
    private readonly Gate gate = new(catalogue);
    private readonly SimulatedBody body = new(who, catalogue, today, seed);
    private Guid id;
    private Standing? now;

    private StudioClock Clock => new(time, scope);

    private StudioLadders Ladders => new(db, catalogue);

    private Standings Standings => new(db, catalogue, Ladders, Clock);

    private ReadingDesk Readings => new(db, new StudioMeasures(db, catalogue, scope), new OwnNoises(db), Standings, Desk, Clock, scope);

    private StudentDesk Desk => new(db, catalogue, Clock, scope);

    private PlanDesk Plans => new(db, catalogue, Ladders, Clock, scope);

    private SkillDesk Skills => new(db, catalogue, Ladders, Clock, scope);

    public async Task Live(CancellationToken ct)
    {
        time.Set(At(who.FirstDay, 9));
        await Enrol(ct);
        var again = who.Programme?.Again ?? [];
        foreach (var day in who.Days.Concat(who.Tests).Concat(again).Distinct().Order())
        {
            if (who.Programme is { From: var begins } && begins <= day && await Programmes.Current(id, ct) is null && who.FirstDay < day)
            {
                time.Set(At(Math.Min(begins, 0), begins >= 0 ? 0 : 8));
                await PlanWeeks(ct);
            }
            else if (again.Contains(day))
            {
                time.Set(At(day, day == 0 ? 0 : 8));
                await PlanWeeks(ct);
            }
            var (first, trains) = (day == who.FirstDay, who.Days.Contains(day));
            time.Set(At(day, day == 0 ? 0 : 15));
            if (who.Tests.Contains(day) || trains && await WantsRetest(ct))
                await Read(first, At(day, day == 0 ? 0 : 16), ct);
            foreach (var starts in who.Skills.Where(s => (s.From ?? who.FirstDay) == day))
                await Place(starts, ct);
            if (trains)
                await Train(day, ct);
            var hurt = who.Pains.Any(p => p.Day == day);
            if ((day <= who.DecidesUntil && await Decide(ct) || hurt) && await Programmes.Current(id, ct) is not null)
                await PlanWeeks(ct);
            Written();
        }
        foreach (var picture in who.Pictures)
        {
            time.Set(At(picture.Day, 18).AddMinutes(picture.Day == -1 ? -100 : 0));
            var camera = new DemoCamera(db, catalogue, new(db, catalogue, files, Clock, scope), Readings, Clock, random);
            await camera.Photograph(id, picture, NewId, ct);
        }
        foreach (var note in who.Notes)
        {
            time.Set(At(note.Day, 18));
            await new NoteDesk(db, Clock, scope).Write(id, new(NewId(), note.Text, note.Pinned, note.CarryOver), ct);
            Written();
        }
        if (who.Programme is not { } programme)
            return;
        time.Set(At(0, 0));
        if (await Programmes.Current(id, ct) is null)
            await PlanWeeks(ct);
        if (programme.Pin)
            await PinOne(ct);
        db.ChangeTracker.Clear();
    }

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

    /// <summary>Where the student stands now. Read again only after something was written: this is most of the work of making a demo.</summary>
    private async Task<Standing> Now(CancellationToken ct) => now ??= (await Standings.Of(id, ct))!;

    private void Written()
    {
        now = null;
        db.ChangeTracker.Clear();
    }

    private async Task Enrol(CancellationToken ct)
    {
        var desk = Desk;
        id = NewId();
        var asked = Enum.GetValues<ConsentKind>().Where(k => k != ConsentKind.Guardian || who.Age < Age.Adult);
        var written = new StudentBody(
            who.Name,
            who.About,
            today.AddYears(-who.Age).AddDays(-random.Next(20, 300)),
            who.LegCm,
            who.LegCm - 0.5,
            null,
            4.5,
            who.Ceiling,
            who.Standard,
            4,
            who.Minutes,
            Goals: who.Goals,
            Equipment: who.Equipment,
            Days:
            [
                new(DayOfWeek.Monday, null, who.Minutes, DayHalf.Pm),
                new(DayOfWeek.Wednesday, null, who.Minutes, DayHalf.Pm),
                new(DayOfWeek.Friday, null, who.Minutes, DayHalf.Pm),
            ]
        );
        Must((await desk.Add(new(id, written, [.. asked.Select(k => new ConsentItem(k, true))]), ct)).Problems);
        AnswerItem[] answers = [.. catalogue.Questions.Select(q => new AnswerItem(q.Key, who.Yes.Contains(q.Key)))];
        Must(await desk.Answer(id, new(answers, NewId()), ct));
        foreach (var given in who.Clearances)
        {
            var clearance = new ClearanceRequest(NewId(), given.Role, given.Tags, today.AddDays(given.From), today.AddDays(given.Until));
            Must((await desk.Clear(id, clearance, false, ct)).Problems);
        }
        db.ChangeTracker.Clear();
    }

    private async Task Place(DemoSkill starts, CancellationToken ct)
    {
        var ladder = catalogue.NewestLadder(starts.Skill)!;
        if (starts.From is not null)
            await Take(catalogue.MeasuresOf(ladder).Where(m => m.Kind != MeasureKind.Hold).Select(m => m.Key), time.GetUtcNow(), ct);
        if (starts.Shown)
            await Show(ladder, starts.Stages!.Min(), ct);
        Written();
        var evidence = (await Now(ct)).State.For(ladder);
        var placing = new Placing(gate);
        var courses = ladder.Courses.Select(
            (side, i) => new CourseStart(NewId(), side, starts.Stages?[i] ?? placing.Suggest(ladder, side, evidence).Suggested)
        );
        var request = new SkillStart(NewId(), ladder.Key, starts.Approach, [.. courses]);
        Must((await Skills.Start(await Now(ct), request, ct)).Problems);
        Written();
    }

    /// <summary>Forms and ways out of the stages below are shown to the coach.</summary>
    private async Task Show(Ladder ladder, int start, CancellationToken ct)
    {
        var (desk, standing) = (new EvidenceDesk(db, catalogue, Clock, scope), await Now(ct));
        foreach (var stage in ladder.Stages.Where(s => s.Number < start))
        foreach (var test in stage.Tests)
        foreach (var side in test is ExitCriterion exit ? exit.Limb.ReadFor(null) : ladder.Courses)
            if (test is FormCriterion form)
                Must(
                    (
                        await desk.TickForm(standing, ladder, new(NewId(), stage.Number, side, [.. form.Items.Select(i => i.Key)]), ct)
                    ).Problems
                );
            else if (test is ExitCriterion shown)
                Must((await desk.ShowExit(standing, ladder, new(NewId(), stage.Number, side, shown.Times, shown.Times), ct)).Problems);
    }

    private async Task<Result<(SessionRow Row, Appended Appended)>> Plan(
        Standing standing,
        string skill,
        IReadOnlyList<string> beside,
        CancellationToken ct
    ) =>
        await Plans.Plan(
            standing,
            new(NewId(), null, null, skill, beside),
            await Weeks.Around(standing, Clock.Today, Guid.Empty, await Programmes.Current(id, ct), ct),
            ct
        );

    private double NeededGap(int stage) =>
        catalogue
            .NewestLadder("front-split")!
            .StageAt(stage)
            .Tests.OfType<RomCriterion>()
            .FirstOrDefault(t => t.Measure == "front-split-gap")
            ?.Threshold
        ?? 0;

    /// <summary>Advances through every open gate; a first advance can open the other side's. Form is watched where it is all that is missing.</summary>
    /// <returns>A gate was passed.</returns>
    private async Task<bool> Decide(CancellationToken ct)
    {
        for (var passed = false; ; )
        {
            var standing = await Now(ct);
            var open = standing
                .State.Courses.SelectMany(s => s.Judge(gate).Select(v => (Skill: s, Verdict: v)))
                .FirstOrDefault(s => s.Verdict.State == GateState.Open || OnlyShowing(s.Verdict));
            if (open.Skill is not { } skill)
                return passed;
            var verdict = open.Verdict;
            if (verdict.State != GateState.Open)
            {
                await Show(skill.Ladder, verdict, ct);
                Written();
                continue;
            }
            var request = new DecisionRequest(NewId(), verdict.Side, DecisionKind.Advance, verdict.Stage, null);
            Must((await Skills.Decide(standing, skill, request, ct)).Problems);
            passed = true;
            Written();
        }
    }

    private static bool OnlyShowing(GateVerdict verdict) =>
        verdict.State is GateState.Closed or GateState.Retest
        && verdict.Tests.All(t => t.Outcome == Outcome.Met || t.Test is FormCriterion or ExitCriterion);

    private async Task Show(Ladder ladder, GateVerdict verdict, CancellationToken ct)
    {
        var (desk, standing) = (new EvidenceDesk(db, catalogue, Clock, scope), await Now(ct));
        foreach (var test in verdict.Tests.Where(t => t.Outcome != Outcome.Met))
            if (test.Test is FormCriterion form)
                Must(
                    (
                        await desk.TickForm(
                            standing,
                            ladder,
                            new(NewId(), verdict.Stage, test.ReadOn, [.. form.Items.Select(i => i.Key)]),
                            ct
                        )
                    ).Problems
                );
            else if (test.Test is ExitCriterion exit)
                Must(
                    (await desk.ShowExit(standing, ladder, new(NewId(), verdict.Stage, test.ReadOn, exit.Times, exit.Times), ct)).Problems
                );
    }

    public static void Must(IReadOnlyList<Problem> problems)
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
