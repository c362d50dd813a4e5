using Microsoft.EntityFrameworkCore;
using Tensarch.Core.Catalogue;
using Tensarch.Core.Skills;
using Tensarch.Core.Students;
using Tensarch.Server.Data;
using Tensarch.Server.Measuring;
using Tensarch.Server.Sessions;

namespace Tensarch.Server.Skills;

/// <summary>Reads the facts of some students in a fixed number of queries, bounded in time, and lays them out for the core.</summary>
public sealed class Standings(TensarchDb db, CatalogueContent catalogue, StudioLadders ladders, StudioClock clock)
{
    /// <summary>Longest look back for readings, sets and sessions: well past every shelf life and every break that changes a plan.</summary>
    private const int WindowDays = 120;

    /// <param name="also">A ladder that they are judged under beside those they follow: its tests may read other drills.</param>
    public async Task<Standing?> Of(Guid studentId, CancellationToken ct, Ladder? also = null)
    {
        var student = await db.Students.AsNoTracking().SingleOrDefaultAsync(s => s.Id == studentId, ct);
        return student is null ? null : (await Of([student], ct, also))[0];
    }

    /// <inheritdoc cref="Of(Guid, CancellationToken, Ladder?)"/>
    public async Task<IReadOnlyList<Standing>> Of(IReadOnlyList<StudentRow> students, CancellationToken ct, Ladder? also = null)
    {
        var ids = students.Select(s => s.Id).ToList();
        var skills = await db.Skills.AsNoTracking().Where(s => ids.Contains(s.StudentId)).ToListAsync(ct);
        await ladders.Know(skills, ct);
        var judgedUnder = skills
            .Select(s => ladders.Known(s.LadderKey, s.LadderVersion))
            .Concat(catalogue.Skills)
            .Append(also)
            .OfType<Ladder>();
        var facts = await Read(ids, skills, TestedDrills(judgedUnder), ct);
        return [.. students.Select(student => Lay(student, facts))];
    }

    /// <summary>Drills whose rounds a test reads: the rounds of all others are not looked at.</summary>
    private static List<string> TestedDrills(IEnumerable<Ladder> ladders) =>
        [.. ladders.Distinct().SelectMany(l => l.Stages).SelectMany(s => s.Tests).Select(t => t.ReadDrill).OfType<string>().Distinct()];

    /// <summary>The facts of all of them, by student.</summary>
    private sealed record Facts(
        ILookup<Guid, SkillRow> Skills,
        ILookup<Guid, DecisionLine> Decisions,
        ILookup<Guid, AnswerRow> Answers,
        ILookup<Guid, ScreeningRow> Screenings,
        ILookup<Guid, ClearanceRow> Clearances,
        ILookup<Guid, WithdrawalRow> Withdrawals,
        ILookup<Guid, ReviewRow> Reviews,
        ILookup<Guid, ReadingRow> Readings,
        ILookup<Guid, SetLine> Sets,
        ILookup<Guid, SignalRow> Signals,
        ILookup<Guid, FormCheckRow> Forms,
        ILookup<Guid, ExitCheckRow> Exits,
        ILookup<Guid, TrainedSession> Sessions,
        IReadOnlyDictionary<Guid, DateOnly?> LastSessionOn
    );

    private sealed record DecisionLine(Guid StudentId, string Skill, StageDecision Decision);

    private sealed record SetLine(Guid StudentId, LoggedSet Set);

    private async Task<Facts> Read(List<Guid> ids, List<SkillRow> skills, List<string> testedDrills, CancellationToken ct)
    {
        var since = clock.Now.AddDays(-WindowDays);
        return new(
            skills.ToLookup(s => s.StudentId),
            (
                await db
                    .Decisions.AsNoTracking()
                    .Where(d => ids.Contains(d.StudentId))
                    .OrderBy(d => d.At)
                    .Select(d => new DecisionLine(d.StudentId, d.Skill, new(d.Side, d.FromStage, d.ToStage, d.At)))
                    .ToListAsync(ct)
            ).ToLookup(d => d.StudentId),
            (await db.Answers.AsNoTracking().Where(a => ids.Contains(a.StudentId)).OrderBy(a => a.Id).ToListAsync(ct)).ToLookup(a =>
                a.StudentId
            ),
            (await db.Screenings.AsNoTracking().Where(s => ids.Contains(s.StudentId)).OrderBy(s => s.At).ToListAsync(ct)).ToLookup(s =>
                s.StudentId
            ),
            (await db.Clearances.AsNoTracking().Where(c => ids.Contains(c.StudentId)).ToListAsync(ct)).ToLookup(c => c.StudentId),
            (await db.Withdrawals.AsNoTracking().Where(w => ids.Contains(w.StudentId)).ToListAsync(ct)).ToLookup(w => w.StudentId),
            (await db.Reviews.AsNoTracking().Where(r => ids.Contains(r.StudentId)).ToListAsync(ct)).ToLookup(r => r.StudentId),
            (
                await db
                    .Readings.AsNoTracking()
                    .Where(r => ids.Contains(r.StudentId) && r.TakenAt >= since && r.Void == null)
                    .OrderBy(r => r.TakenAt)
                    .ToListAsync(ct)
            ).ToLookup(r => r.StudentId),
            (
                await db
                    .Sets.AsNoTracking()
                    .Where(s => ids.Contains(s.StudentId) && s.At >= since && testedDrills.Contains(s.Drill))
                    .OrderBy(s => s.At)
                    .Select(s => new SetLine(
                        s.StudentId,
                        new(s.Id, s.SessionId, s.At, s.Day, s.Drill, s.Variant, s.Side, s.Seconds, s.CleanReps, s.Quality)
                    ))
                    .ToListAsync(ct)
            ).ToLookup(s => s.StudentId),
            (await db.Signals.AsNoTracking().Where(s => ids.Contains(s.StudentId)).OrderBy(s => s.At).ToListAsync(ct)).ToLookup(s =>
                s.StudentId
            ),
            (await db.FormChecks.AsNoTracking().Where(f => ids.Contains(f.StudentId) && f.At >= since).ToListAsync(ct)).ToLookup(f =>
                f.StudentId
            ),
            // A way out that was shown stays shown, however long ago.
            (await db.ExitChecks.AsNoTracking().Where(e => ids.Contains(e.StudentId)).ToListAsync(ct)).ToLookup(e => e.StudentId),
            (
                await db
                    .Sessions.AsNoTracking()
                    .Where(s => ids.Contains(s.StudentId) && s.StartedAt >= since)
                    .OrderBy(s => s.StartedAt)
                    .Select(s => new
                    {
                        s.Id,
                        s.StudentId,
                        s.Skill,
                        s.StartedAt,
                        s.StartedOn,
                        s.FirstSide,
                        s.Worked,
                    })
                    .ToListAsync(ct)
            ).Select(s => new TrainedSession(s.Id, s.StudentId, s.Skill, s.StartedAt!.Value, s.StartedOn!.Value, s.FirstSide, [.. s.Worked.Select(WorkedDrill.Parse).OfType<WorkedDrill>()])).ToLookup(s => s.StudentId),
            // A break is as long as it is: no look back cuts it.
            await db
                .Students.Where(s => ids.Contains(s.Id))
                .Select(s => new
                {
                    s.Id,
                    Last = db
                        .Sessions.Where(x => x.StudentId == s.Id && x.StartedAt != null)
                        .OrderByDescending(x => x.StartedAt)
                        .Select(x => x.StartedOn)
                        .FirstOrDefault(),
                })
                .ToDictionaryAsync(s => s.Id, s => s.Last, ct)
        );
    }

    /// <summary>What was worked in a session, as sets without their numbers: enough for exposure.</summary>
    private static IEnumerable<LoggedSet> WorkOf(TrainedSession session) =>
        session.Worked.Select(w => new LoggedSet(
            session.Id,
            session.Id,
            session.StartedAt,
            session.StartedOn,
            w.Drill,
            w.Variant,
            w.Side,
            null,
            null,
            null
        ));

    private Standing Lay(StudentRow student, Facts facts)
    {
        var (id, today) = (student.Id, clock.Today);
        var readings = facts.Readings[id].Where(SoundReadings.IsSound).ToList();
        var sets = facts.Sets[id].Select(s => s.Set).Where(s => s.Seconds is null or (>= 0 and <= FactsRequest.LongestSeconds)).ToList();
        var leftOut = facts.Readings[id].Count() - readings.Count + facts.Sets[id].Count() - sets.Count;
        var answers = facts.Answers[id].GroupBy(a => a.Question).ToDictionary(g => g.Key, g => g.Last());
        var screen = Screen([.. facts.Screenings[id]], catalogue.Questions.All(q => answers.ContainsKey(q.Key)), today);
        var sessions = facts.Sessions[id].ToList();
        var signals = facts
            .Signals[id]
            .Select(s => new BodySignal(s.Id, s.At, s.Kind, s.Region, s.Side, s.Pain))
            .Concat(readings.SelectMany(PainOf))
            .OrderBy(s => s.At)
            .ToList();
        var reviews = facts.Reviews[id].Select(r => new HoldReview(r.Tag, r.At)).ToList();
        var holds = ReviewHolds.From(catalogue.StopRules, signals, reviews, [.. sessions.Select(s => s.StartedAt)], clock.DayOf);
        var withdrawn = facts.Withdrawals[id].ToDictionary(w => w.ClearanceId, w => w.On);
        var clearances = facts
            .Clearances[id]
            .Select(c =>
                (c, new Clearance(c.Id, c.Role, c.Tags, c.From, c.Until, c.At, withdrawn.TryGetValue(c.Id, out var on) ? on : null))
            )
            .ToList();
        var cautions = Cautions.Of(
            catalogue.Questions,
            new(
                screen.State,
                [.. answers.Values.Where(a => a.Yes).Select(a => new YesAnswer(a.Question, a.At))],
                IsMinor(student, answers, today),
                student.GuardianConsentOn is not null,
                student.SensationCeiling,
                holds,
                [.. clearances.Select(c => c.Item2)],
                today
            )
        );
        var evidence = new Evidence(
            null,
            new(student.BreathSeconds, student.LeftLegCm, student.RightLegCm, student.HipWidthCm),
            [.. readings.Select(r => ReadingViews.ToCore(r, clock.DayOf(r.TakenAt)))],
            [.. sets, .. sessions.SelectMany(WorkOf)],
            [.. sessions.Select(s => new SessionDay(s.Id, s.StartedAt, s.StartedOn))],
            signals,
            [],
            [],
            [],
            cautions,
            clock.Now,
            today
        );
        var ofSkills = new SkillFacts(
            [.. facts.Forms[id].Select(f => new FormCheck(f.Id, f.At, f.Skill, f.Stage, f.Side, f.Ticked))],
            [.. facts.Exits[id].Select(e => new ExitCheck(e.Id, e.At, e.Skill, e.Stage, e.Side, e.Safe, e.Of))],
            [.. facts.Decisions[id].Select(d => (d.Skill, d.Decision))]
        );
        List<SkillStanding> skills =
        [
            .. facts
                .Skills[id]
                .Select(row => (Row: row, Ladder: ladders.Known(row.LadderKey, row.LadderVersion)))
                .Where(s => s.Ladder is not null)
                .OrderBy(s => catalogue.Skills.Index().FirstOrDefault(l => l.Item.Key == s.Row.Skill).Index)
                .Select(s => new SkillStanding(s.Row, s.Ladder!, ofSkills.Of(evidence, s.Ladder!, student.SplitStandard))),
        ];
        leftOut += facts.Skills[id].Count() - skills.Count;
        return new(
            student,
            skills,
            evidence,
            ofSkills,
            holds,
            answers,
            clearances,
            reviews,
            sessions,
            screen,
            facts.LastSessionOn.GetValueOrDefault(id),
            leftOut
        );
    }

    private static ScreenView Screen(IReadOnlyList<ScreeningRow> rows, bool answered, DateOnly today)
    {
        var whole = rows.LastOrDefault(r => r.Kind == ScreeningKind.Whole);
        var changed = rows.LastOrDefault(r => r.Kind == ScreeningKind.SomethingChanged && (whole is null || r.At >= whole.At));
        return new(
            Screening.StateOf(answered, whole?.On, changed is not null, today),
            whole?.On,
            whole is null ? null : Screening.DueOn(whole.On),
            changed?.Note
        );
    }

    private static bool IsMinor(StudentRow student, Dictionary<string, AnswerRow> newest, DateOnly today) =>
        student.BirthDate is { } born && Age.Years(born, today) < Age.Adult
        || newest.TryGetValue(IntakeQuestion.Under18, out var answer) && answer.Yes;

    /// <summary>
    /// A little pain at the end point of a reading counts in the measure's regions, like pain in a session; more of it is a fact of its own
    /// (<see cref="ReadingPains"/>).
    /// </summary>
    private IEnumerable<BodySignal> PainOf(ReadingRow reading) =>
        reading.Pain is > 0 and <= BodySignal.PainEventAbove && catalogue.FindMeasure(reading.Measure) is { } measure
            ? measure
                .Regions()
                .Select(region => new BodySignal(reading.Id, reading.TakenAt, SignalKind.DullPain, region, reading.Side, reading.Pain))
            : [];
}
