using Microsoft.EntityFrameworkCore;
using Tensarch.Core.Catalogue;
using Tensarch.Core.Skills;
using Tensarch.Core.Students;
using Tensarch.Server.Data;
using Tensarch.Server.Measuring;

namespace Tensarch.Server.Skills;

/// <summary>Reads the facts of some students in a fixed number of queries, bounded in time, and lays them out for the core.</summary>
public sealed class Standings(TensarchDb db, CatalogueContent catalogue, StudioClock clock)
{
    /// <summary>Longest look back for readings, sets and sessions: well past every shelf life and every break that changes a plan.</summary>
    private const int WindowDays = 120;

    /// <param name="ladder">The ladder whose skill is looked at.</param>
    public async Task<Standing?> Of(Guid studentId, string ladder, CancellationToken ct)
    {
        var student = await db.Students.AsNoTracking().SingleOrDefaultAsync(s => s.Id == studentId, ct);
        return student is null ? null : (await Of([student], ladder, ct))[0];
    }

    public async Task<IReadOnlyList<Standing>> Of(IReadOnlyList<StudentRow> students, string ladder, CancellationToken ct)
    {
        var ids = students.Select(s => s.Id).ToList();
        var since = clock.Now.AddDays(-WindowDays);
        var skills = await db.Skills.AsNoTracking().Where(s => ids.Contains(s.StudentId) && s.Ladder == ladder).ToListAsync(ct);
        var decisions = await db
            .Decisions.AsNoTracking()
            .Where(d => ids.Contains(d.StudentId) && d.Ladder == ladder)
            .OrderBy(d => d.At)
            .Select(d => new { d.StudentId, Decision = new StageDecision(d.Side, d.FromStage, d.ToStage, d.At) })
            .ToListAsync(ct);
        var answers = await db.Answers.AsNoTracking().Where(a => ids.Contains(a.StudentId)).OrderBy(a => a.Id).ToListAsync(ct);
        var clearances = await db.Clearances.AsNoTracking().Where(c => ids.Contains(c.StudentId)).ToListAsync(ct);
        var reviews = await db.Reviews.AsNoTracking().Where(r => ids.Contains(r.StudentId)).ToListAsync(ct);
        var readings = await db
            .Readings.AsNoTracking()
            .Where(r => ids.Contains(r.StudentId) && r.TakenAt >= since && r.Void == null)
            .OrderBy(r => r.TakenAt)
            .ToListAsync(ct);
        var sets = await db
            .Sets.AsNoTracking()
            .Where(s => ids.Contains(s.StudentId) && s.At >= since)
            .OrderBy(s => s.At)
            .Select(s => new
            {
                s.StudentId,
                Set = new LoggedSet(s.Id, s.SessionId, s.At, s.Day, s.Drill, s.Variant, s.Side, s.Seconds, s.CleanReps, s.Quality),
            })
            .ToListAsync(ct);
        var signals = await db.Signals.AsNoTracking().Where(s => ids.Contains(s.StudentId)).OrderBy(s => s.At).ToListAsync(ct);
        var forms = await db
            .FormChecks.AsNoTracking()
            .Where(f => ids.Contains(f.StudentId) && f.Ladder == ladder && f.At >= since)
            .ToListAsync(ct);
        var sessions = await db
            .Sessions.AsNoTracking()
            .Where(s => ids.Contains(s.StudentId) && s.StartedAt >= since)
            .OrderBy(s => s.StartedAt)
            .Select(s => new TrainedSession(s.Id, s.StudentId, s.StartedAt!.Value, s.StartedOn!.Value, s.FirstSide))
            .ToListAsync(ct);

        return
        [
            .. students.Select(student =>
                Lay(
                    student,
                    skills.SingleOrDefault(s => s.StudentId == student.Id),
                    [.. decisions.Where(d => d.StudentId == student.Id).Select(d => d.Decision)],
                    answers.Where(a => a.StudentId == student.Id),
                    [.. clearances.Where(c => c.StudentId == student.Id)],
                    [.. reviews.Where(r => r.StudentId == student.Id)],
                    [.. readings.Where(r => r.StudentId == student.Id)],
                    [.. sets.Where(s => s.StudentId == student.Id).Select(s => s.Set)],
                    [.. signals.Where(s => s.StudentId == student.Id)],
                    [.. forms.Where(f => f.StudentId == student.Id)],
                    [.. sessions.Where(s => s.StudentId == student.Id)]
                )
            ),
        ];
    }

    private Standing Lay(
        StudentRow student,
        SkillRow? skill,
        IReadOnlyList<StageDecision> decisions,
        IEnumerable<AnswerRow> answers,
        IReadOnlyList<ClearanceRow> clearances,
        IReadOnlyList<ReviewRow> reviews,
        IReadOnlyList<ReadingRow> readings,
        IReadOnlyList<LoggedSet> sets,
        IReadOnlyList<SignalRow> signals,
        IReadOnlyList<FormCheckRow> forms,
        IReadOnlyList<TrainedSession> sessions
    )
    {
        var today = clock.Today;
        var newest = answers.GroupBy(a => a.Question).ToDictionary(g => g.Key, g => g.Last());
        var screened = catalogue.Questions.All(q => newest.ContainsKey(q.Key));
        var said = signals
            .Select(s => new BodySignal(s.Id, s.At, s.Kind, s.Region, s.Side, s.Pain))
            .Concat(readings.SelectMany(PainOf))
            .OrderBy(s => s.At)
            .ToList();
        var reviewed = reviews.Select(r => new HoldReview(r.Tag, r.At)).ToList();
        var holds = ReviewHolds.From(catalogue.StopRules, said, reviewed, [.. sessions.Select(s => s.StartedAt)]);
        var cautions = Cautions.Of(
            catalogue.Questions,
            new(
                screened,
                [.. newest.Values.Where(a => a.Yes).Select(a => a.Question)],
                IsMinor(student, newest, today),
                student.GuardianConsentOn is not null,
                student.SensationCeiling,
                holds,
                [.. clearances.Select(c => new Clearance(c.Id, c.Role, c.Tags, c.From, c.Until))],
                today
            )
        );
        var ladder = skill is null ? null : catalogue.FindLadder(skill.Ladder, skill.LadderVersion);
        var evidence = new Evidence(
            student.SplitStandard,
            [.. readings.Select(ReadingViews.ToCore)],
            sets,
            [.. sessions.Select(s => new SessionDay(s.Id, s.StartedAt, s.StartedOn))],
            said,
            [.. forms.Select(f => new FormCheck(f.Id, f.At, f.Ladder, f.Stage, f.Side, f.Ticked))],
            decisions,
            cautions,
            clock.Now,
            today
        );
        return new(student, skill, ladder, evidence, holds, newest, clearances, reviewed, sessions, screened);
    }

    private static bool IsMinor(StudentRow student, Dictionary<string, AnswerRow> newest, DateOnly today) =>
        student.BirthDate is { } born && Age.Years(born, today) < Age.Adult
        || newest.TryGetValue(IntakeQuestion.Under18, out var answer) && answer.Yes;

    /// <summary>Pain at the end point of a reading counts in the measure's regions, like pain in a session.</summary>
    private IEnumerable<BodySignal> PainOf(ReadingRow reading) =>
        reading.Pain is > 0 && catalogue.FindMeasure(reading.Measure) is { } measure
            ? measure
                .Regions()
                .Select(region => new BodySignal(reading.Id, reading.TakenAt, SignalKind.DullPain, region, reading.Side, reading.Pain))
            : [];
}
