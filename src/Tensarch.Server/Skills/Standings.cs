using Microsoft.EntityFrameworkCore;
using Tensarch.Core.Catalogue;
using Tensarch.Core.Measuring;
using Tensarch.Core.Sessions;
using Tensarch.Core.Skills;
using Tensarch.Core.Students;
using Tensarch.Server.Data;
using Tensarch.Server.Measuring;

namespace Tensarch.Server.Skills;

/// <summary>Reads the facts of some students in a fixed number of queries, bounded in time, and hands them to the core.</summary>
public sealed class Standings(TensarchDb db, CatalogueContent catalogue, StudioLadders ladders, StudioClock clock)
{
    /// <summary>Longest look back for readings, sets and sessions: well past every shelf life and every break that changes a plan. Tests look through others.</summary>
    internal int WindowDays { get; set; } = 120;

    /// <summary>What is read however old it is, and so are its corrections.</summary>
    private static readonly Corrected[] WithoutWindow = [Corrected.Signal, Corrected.Decision, Corrected.Exit, Corrected.Session];

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
        // Before anything else: what is written meanwhile is noticed by it.
        var versions = await db.Pulses.Where(p => ids.Contains(p.StudentId)).ToDictionaryAsync(p => p.StudentId, p => p.Facts, ct);
        var skills = await db.Skills.AsNoTracking().Where(s => ids.Contains(s.StudentId)).ToListAsync(ct);
        await ladders.Know(skills, ct);
        var judgedUnder = skills
            .Select(s => ladders.Known(s.LadderKey, s.LadderVersion))
            .Concat(catalogue.Skills)
            .Append(also)
            .OfType<Ladder>();
        var rows = await Read(ids, skills, TestedDrills(judgedUnder), ct);
        return [.. students.Select(student => Lay(student, versions.GetValueOrDefault(student.Id), rows))];
    }

    /// <summary>Drills whose rounds a test reads: the rounds of all others are not looked at.</summary>
    private static List<string> TestedDrills(IEnumerable<Ladder> ladders) =>
        [
            .. ladders
                .Distinct()
                .SelectMany(l => l.Stages.SelectMany(s => l.GateOf(s.Number)))
                .Select(t => t.ReadDrill)
                .OfType<string>()
                .Distinct(),
        ];

    /// <summary>What is stored of all of them, by student.</summary>
    private sealed record Rows(
        ILookup<Guid, SkillRow> Skills,
        ILookup<Guid, DecisionLine> Decisions,
        ILookup<Guid, AnswerRow> Answers,
        ILookup<Guid, ScreeningRow> Screenings,
        ILookup<Guid, ConsentRow> Consents,
        ILookup<Guid, CheckInRow> CheckIns,
        ILookup<Guid, ClearanceRow> Clearances,
        ILookup<Guid, WithdrawalRow> Withdrawals,
        ILookup<Guid, ReviewRow> Reviews,
        ILookup<Guid, ReadingRow> Readings,
        ILookup<Guid, SetLine> Sets,
        ILookup<Guid, CorrectionRow> Corrections,
        ILookup<Guid, SignalRow> Signals,
        ILookup<Guid, FormCheckRow> Forms,
        ILookup<Guid, ExitCheckRow> Exits,
        ILookup<Guid, TrainedSession> Sessions
    );

    private sealed record DecisionLine(Guid StudentId, Guid Id, string Skill, StageDecision Decision);

    private sealed record SetLine(Guid StudentId, LoggedSet Set, bool Confirmed);

    /// <summary>By student first, as the indexes are: by time alone, the whole studio would be read through.</summary>
    private async Task<Rows> Read(List<Guid> ids, List<SkillRow> skills, List<string> testedDrills, CancellationToken ct)
    {
        var since = clock.Now.AddDays(-WindowDays);
        return new(
            skills.ToLookup(s => s.StudentId),
            (
                await db
                    .Decisions.AsNoTracking()
                    .Where(d => ids.Contains(d.StudentId))
                    .OrderBy(d => d.StudentId)
                    .ThenBy(d => d.At)
                    .Select(d => new DecisionLine(d.StudentId, d.Id, d.Skill, new(d.Side, d.FromStage, d.ToStage, d.At)))
                    .ToListAsync(ct)
            ).ToLookup(d => d.StudentId),
            (
                await db
                    .Answers.AsNoTracking()
                    .Where(a => ids.Contains(a.StudentId))
                    .OrderBy(a => a.StudentId)
                    .ThenBy(a => a.Id)
                    .ToListAsync(ct)
            ).ToLookup(a => a.StudentId),
            (
                await db
                    .Screenings.AsNoTracking()
                    .Where(s => ids.Contains(s.StudentId))
                    .OrderBy(s => s.StudentId)
                    .ThenBy(s => s.At)
                    .ToListAsync(ct)
            ).ToLookup(s => s.StudentId),
            (
                await db
                    .Consents.AsNoTracking()
                    .Where(c => ids.Contains(c.StudentId))
                    .OrderBy(c => c.StudentId)
                    .ThenBy(c => c.At)
                    .ToListAsync(ct)
            ).ToLookup(c => c.StudentId),
            // An injury that was told and not looked at bars however long ago.
            (
                await db
                    .CheckIns.AsNoTracking()
                    .Where(c => ids.Contains(c.StudentId) && (c.At >= since || c.FeltJson!.Contains("injury")))
                    .ToListAsync(ct)
            ).ToLookup(c => c.StudentId),
            (await db.Clearances.AsNoTracking().Where(c => ids.Contains(c.StudentId)).ToListAsync(ct)).ToLookup(c => c.StudentId),
            (await db.Withdrawals.AsNoTracking().Where(w => ids.Contains(w.StudentId)).ToListAsync(ct)).ToLookup(w => w.StudentId),
            (await db.Reviews.AsNoTracking().Where(r => ids.Contains(r.StudentId)).ToListAsync(ct)).ToLookup(r => r.StudentId),
            (
                await db
                    .Readings.AsNoTracking()
                    .Where(r => ids.Contains(r.StudentId) && r.TakenAt >= since && r.Void == null)
                    .OrderBy(r => r.StudentId)
                    .ThenBy(r => r.TakenAt)
                    .ToListAsync(ct)
            ).ToLookup(r => r.StudentId),
            (
                await db
                    .Sets.AsNoTracking()
                    .Where(s => ids.Contains(s.StudentId) && s.At >= since && testedDrills.Contains(s.Drill))
                    .OrderBy(s => s.StudentId)
                    .ThenBy(s => s.At)
                    .Select(s => new SetLine(
                        s.StudentId,
                        new(s.Id, s.SessionId, s.At, s.Day, s.Drill, s.Variant, s.Side, s.Seconds, s.CleanReps, s.Quality),
                        s.Confirmed && !s.Doubled
                    ))
                    .ToListAsync(ct)
            ).ToLookup(s => s.StudentId),
            // Those of what is read here: nothing is corrected before it was written down.
            (
                await db
                    .Corrections.AsNoTracking()
                    .Where(c => ids.Contains(c.StudentId) && (c.At >= since || WithoutWindow.Contains(c.What)))
                    .ToListAsync(ct)
            ).ToLookup(c => c.StudentId),
            (
                await db
                    .Signals.AsNoTracking()
                    .Where(s => ids.Contains(s.StudentId))
                    .OrderBy(s => s.StudentId)
                    .ThenBy(s => s.At)
                    .ToListAsync(ct)
            ).ToLookup(s => s.StudentId),
            (await db.FormChecks.AsNoTracking().Where(f => ids.Contains(f.StudentId) && f.At >= since).ToListAsync(ct)).ToLookup(f =>
                f.StudentId
            ),
            // A way out that was shown stays shown, however long ago.
            (await db.ExitChecks.AsNoTracking().Where(e => ids.Contains(e.StudentId)).ToListAsync(ct)).ToLookup(e => e.StudentId),
            (await SessionsOf(ids, since, ct)).ToLookup(s => s.StudentId, s => s.Session)
        );
    }

    private sealed record SessionLine(Guid StudentId, TrainedSession Session);

    /// <summary>Those of late, and the newest ones however old: no look back cuts a break, and a long history is not read for it.</summary>
    private async Task<List<SessionLine>> SessionsOf(List<Guid> ids, DateTimeOffset since, CancellationToken ct)
    {
        var reach = await db
            .Students.Where(s => ids.Contains(s.Id))
            .Select(s => new
            {
                s.Id,
                From = db
                    .Trainings.Where(n => n.StudentId == s.Id && n.StartedAt != null)
                    .OrderByDescending(n => n.StartedAt)
                    .Skip(StudentFacts.NewestSessions - 1)
                    .Select(n => n.StartedAt)
                    .FirstOrDefault(),
            })
            .ToDictionaryAsync(s => s.Id, s => s.From, ct);
        // Who has fewer sessions than that has all of them read; who trained a lot lately, those of late.
        var lately = ids.Where(id => reach.GetValueOrDefault(id) >= since).ToList();
        var earlier = ids.Except(lately).ToList();
        var from = earlier.Select(id => reach.GetValueOrDefault(id) ?? DateTimeOffset.MinValue).DefaultIfEmpty(since).Min();
        return
        [
            .. lately.Count > 0 ? await SessionsSince(lately, since, ct) : [],
            .. earlier.Count > 0 ? await SessionsSince(earlier, from, ct) : [],
        ];
    }

    private async Task<List<SessionLine>> SessionsSince(List<Guid> ids, DateTimeOffset since, CancellationToken ct) =>
        [
            .. (
                await db
                    .Trainings.AsNoTracking()
                    .Where(s => ids.Contains(s.StudentId) && s.StartedAt >= since)
                    .Select(s => new
                    {
                        Id = s.SessionId,
                        s.StudentId,
                        s.Planned.Skill,
                        s.Planned.Beside,
                        s.StartedAt,
                        s.StartedOn,
                        s.Planned.FirstSide,
                        s.Worked,
                    })
                    .ToListAsync(ct)
            ).Select(s => new SessionLine(
                s.StudentId,
                new(
                    s.Id,
                    [s.Skill, .. s.Beside],
                    s.StartedAt!.Value,
                    s.StartedOn!.Value,
                    s.FirstSide,
                    [.. s.Worked.Select(Work.Parse).OfType<Work>()]
                )
            )),
        ];

    /// <summary>A place that is not known any more says nothing.</summary>
    private static CheckIn CheckInOf(CheckInRow row) =>
        new(
            row.Id,
            row.Day,
            row.At,
            row.SleptBadly,
            row.Ill,
            row.TrainedHard,
            [.. (StoredJson.TryRead<List<Felt>>(row.FeltJson) ?? []).Where(f => BodyPlaces.Find(f.Place) is not null)]
        );

    private Standing Lay(StudentRow student, long version, Rows rows)
    {
        var id = student.Id;
        var readings = rows.Readings[id].Where(SoundReadings.IsSound).ToList();
        var corrections = new Corrections(rows.Corrections[id].Select(c => c.ToCore()));
        var standing = rows.Sets[id].Select(s => corrections.Apply(s.Set, s.Confirmed)).OfType<LoggedSet>().ToList();
        var sets = standing.Where(s => s.IsSound).ToList();
        List<Enrolment> enrolments =
        [
            .. rows.Skills[id]
                .Select(r => (Row: r, Ladder: ladders.Known(r.LadderKey, r.LadderVersion)))
                .Where(s => s.Ladder is not null)
                .Select(s => new Enrolment(s.Row.Id, s.Ladder!, s.Row.Approach, s.Row.StartedAt)),
        ];
        var leftOut = rows.Readings[id].Count() - readings.Count + standing.Count - sets.Count + rows.Skills[id].Count() - enrolments.Count;
        var withdrawn = rows.Withdrawals[id].ToDictionary(w => w.ClearanceId, w => w.On);
        var checkIns = rows.CheckIns[id].Select(CheckInOf).ToList();
        var facts = new StudentFacts(
            new(
                student.BirthDate,
                student.ConsentNeeded,
                student.SensationCeiling,
                new(student.BreathSeconds, student.LeftLegCm, student.RightLegCm, student.HipWidthCm),
                student.SplitStandard,
                student.BlocksOwned,
                student.Equipment
            ),
            [.. rows.Answers[id].Select(a => new IntakeAnswer(a.Question, a.Yes, a.At, a.Id, a.Signs))],
            [.. rows.Screenings[id].Select(s => new Screened(s.Kind, s.On, s.At, s.Note))],
            [
                .. rows.Clearances[id]
                    .Select(c => new Clearance(
                        c.Id,
                        c.Role,
                        c.Tags,
                        c.From,
                        c.Until,
                        c.At,
                        withdrawn.TryGetValue(c.Id, out var on) ? on : null
                    )),
            ],
            [.. rows.Reviews[id].Select(r => new BarReview(r.Tag, r.At))],
            [
                .. rows.Signals[id]
                    .Select(s =>
                        corrections.Apply(
                            new BodySignal(s.Id, s.At, s.Kind, s.Region, s.Side, s.Pain, s.Drill)
                            {
                                RecordedAt = s.RecordedAt,
                                Place = s.Place,
                            }
                        )
                    )
                    .OfType<BodySignal>(),
                .. readings.SelectMany(r =>
                    catalogue.FindMeasure(r.Measure) is { } measure ? ReadingPain.Felt(r.Id, measure, r.Side, r.Pain, r.TakenAt) : []
                ),
                .. CheckIn.Standing(checkIns).SelectMany(c => c.Signals()),
            ],
            [.. rows.Sessions[id].Where(s => !corrections.IsGone(s.Id))],
            [.. readings.Select(r => ReadingViews.ToCore(r, clock.DayOf(r.TakenAt)))],
            sets,
            [
                .. rows.Forms[id]
                    .Select(f => corrections.Apply(new FormCheck(f.Id, f.At, f.Skill, f.Stage, f.Side, f.Ticked)))
                    .OfType<FormCheck>(),
            ],
            [
                .. rows.Exits[id]
                    .Select(e => corrections.Apply(new ExitCheck(e.Id, e.At, e.Drill, e.Variant, e.Side, e.Safe, e.Of)))
                    .OfType<ExitCheck>(),
            ],
            [.. rows.Decisions[id].Where(d => !corrections.IsGone(d.Id)).Select(d => new SkillDecision(d.Skill, d.Decision))],
            enrolments
        )
        {
            Consents = [.. rows.Consents[id].Select((c, order) => new Consent(c.Kind, c.Given, c.On, c.At, order))],
            CheckIns = checkIns,
        };
        return new(student, StudentState.From(facts, clock.Moment, catalogue), version, leftOut);
    }
}
