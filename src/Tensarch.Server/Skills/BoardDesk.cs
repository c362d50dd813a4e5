using System.Data.Common;
using Microsoft.EntityFrameworkCore;
using Tensarch.Core;
using Tensarch.Core.Catalogue;
using Tensarch.Core.Skills;
using Tensarch.Server.Data;
using Tensarch.Server.Students;

namespace Tensarch.Server.Skills;

/// <summary>One gate on the readiness board.</summary>
/// <param name="EnteredAt">When the student came to this stage; none when it was never decided.</param>
/// <param name="StepBack">Why a step back is suggested.</param>
public sealed record BoardLine(
    string Skill,
    string LadderName,
    SideSummary Gate,
    ReadinessGroup Group,
    DateTimeOffset? EnteredAt,
    Plateau? Plateau,
    IReadOnlyList<StepBackReason> StepBack
);

/// <summary>Derives the lines of the readiness board and of the roster from the facts, and keeps them.</summary>
public sealed partial class BoardDesk(
    TensarchDb db,
    Standings standings,
    CatalogueContent catalogue,
    StudioClock clock,
    ILogger<BoardDesk> log
)
{
    /// <summary>Students whose facts are read at once.</summary>
    public const int Batch = 100;

    private readonly Gate gate = new(catalogue);
    private readonly StepBack stepBack = new(catalogue);
    private readonly Readiness readiness = new(catalogue);
    private readonly Roster roster = new(catalogue, clock);

    /// <summary>A place on the board for everyone who is put on a ladder; derived when it is first looked at.</summary>
    public static BoardRow Place(Guid studentId, Ladder ladder, Side? side) =>
        new()
        {
            Id = Guid.CreateVersion7(),
            StudentId = studentId,
            Skill = ladder.Skill,
            Side = side,
            Group = ReadinessGroup.Training,
            LineJson = "",
            DueAt = DateTimeOffset.UnixEpoch,
        };

    /// <summary>Derives everything that is due, a batch of students at a time.</summary>
    public async Task DeriveDue(CancellationToken ct)
    {
        var tried = new HashSet<Guid>();
        while (true)
        {
            var now = clock.Now;
            var students = await db
                .Roster.Where(r => r.DueAt <= now && !tried.Contains(r.StudentId))
                .OrderBy(r => r.DueAt)
                .Select(r => r.StudentId)
                .Take(Batch)
                .ToListAsync(ct);
            if (students.Count == 0)
                return;
            tried.UnionWith(students);
            await Derive(students, ct);
        }
    }

    /// <summary>Derives what is kept of these students.</summary>
    /// <returns>Their lines in the roster, as they stand, kept or not.</returns>
    public async Task<IReadOnlyDictionary<Guid, RosterLine>> Derive(IReadOnlyCollection<Guid> ids, CancellationToken ct)
    {
        // The stamps first: a fact that comes after them makes the write below fail, and the line stays due.
        var rows = await db.Board.Where(b => ids.Contains(b.StudentId)).ToListAsync(ct);
        var ofRoster = await db.Roster.Where(r => ids.Contains(r.StudentId)).ToListAsync(ct);
        var students = await db.Students.AsNoTracking().Where(s => ids.Contains(s.Id)).ToListAsync(ct);
        var lines = new Dictionary<Guid, RosterLine>();
        var whole = await WorkOut(students, ct);
        foreach (var student in students)
            lines[student.Id] = Write(
                student,
                whole.GetValueOrDefault(student.Id),
                rows.Where(b => b.StudentId == student.Id).ToList(),
                ofRoster.FirstOrDefault(r => r.StudentId == student.Id)
            );
        try
        {
            await db.SaveChangesAsync(ct);
        }
        catch (DbUpdateConcurrencyException)
        {
            // Someone logged meanwhile: what was derived is thrown away and the lines stay due.
        }
        db.ChangeTracker.Clear();
        return lines;
    }

    /// <summary>Where each of them stands; whoever cannot be worked out is left out, and does not take the others down.</summary>
    private async Task<Dictionary<Guid, Standing>> WorkOut(List<StudentRow> students, CancellationToken ct)
    {
        try
        {
            return (await standings.Of(students, ct)).ToDictionary(s => s.Student.Id);
        }
        catch (Exception e) when (IsOfARow(e))
        {
            var each = new Dictionary<Guid, Standing>();
            if (students.Count == 1)
                CouldNot(e, students[0].Id);
            else
                foreach (var student in students)
                foreach (var (id, standing) in await WorkOut([student], ct))
                    each[id] = standing;
            return each;
        }
    }

    /// <summary>What a stored value did; a database that is busy or full says nothing about a student.</summary>
    private static bool IsOfARow(Exception e) => e is not (OperationCanceledException or DbException or DbUpdateException);

    private RosterLine Write(StudentRow student, Standing? standing, IReadOnlyList<BoardRow> own, RosterRow? kept)
    {
        var line = Students.Roster.Unreadable(student.Id, student.Name);
        try
        {
            if (standing is not null)
            {
                foreach (var row in own)
                    if (standing.State.On(row.Skill) is { } skill)
                        Write(row, skill);
                    else
                        WriteUnreadable(row);
                line = roster.Line(standing);
            }
        }
        catch (Exception e) when (IsOfARow(e))
        {
            CouldNot(e, student.Id);
        }
        if (line.Unreadable)
            foreach (var row in own)
                WriteUnreadable(row);
        if (kept is not null)
        {
            kept.LineJson = StoredJson.Write(line);
            kept.DueAt = own.Select(b => b.DueAt).Append(Midnight()).Min();
        }
        return line;
    }

    /// <summary>Among those that are barred: nothing is decided on it.</summary>
    private void WriteUnreadable(BoardRow row) =>
        (row.Group, row.Rank, row.LineJson, row.DueAt) = (ReadinessGroup.Blocked, 0, "", Midnight());

    [LoggerMessage(Level = LogLevel.Error, Message = "Where student {Student} stands cannot be worked out; their lines say so.")]
    private partial void CouldNot(Exception e, Guid student);

    private void Write(BoardRow row, Course skill)
    {
        var verdict = gate.Judge(skill.Ladder, row.Side, skill.Evidence);
        var plateau = readiness.PlateauOf(verdict, skill.Evidence);
        var entered = skill.Evidence.EnteredAt(row.Side, verdict.Stage);
        var line = new BoardLine(
            skill.Skill,
            skill.Ladder.Name,
            SideSummary.Of(skill.Ladder, verdict),
            Readiness.GroupOf(verdict, plateau),
            entered == DateTimeOffset.MinValue ? null : entered,
            plateau,
            stepBack.For(skill.Ladder, row.Side, verdict.Stage, skill.Evidence)
        );
        row.Group = line.Group;
        row.Rank = RankOf(line, verdict);
        row.LineJson = StoredJson.Write(line);
        row.DueAt = DueAt(verdict);
    }

    /// <summary>
    /// What presses comes first: ready gates whose evidence goes stale soonest, re-tests by their day, the longest plateau, the fullest gate.
    /// </summary>
    private double RankOf(BoardLine line, GateVerdict verdict) =>
        line.Group switch
        {
            ReadinessGroup.Ready => (verdict.CountsUntil ?? DateTimeOffset.MaxValue).UtcTicks / (double)TimeSpan.TicksPerDay,
            ReadinessGroup.Nearly => (verdict.Next.NotBefore ?? clock.Today).DayNumber,
            ReadinessGroup.Stalled => -line.Plateau!.Days,
            ReadinessGroup.Owned => 0,
            _ => 1 - (double)verdict.MetCount / verdict.Tests.Count,
        };

    /// <summary>The next midnight of the studio, for days count; or when the next test of it goes stale, if that is sooner.</summary>
    private DateTimeOffset DueAt(GateVerdict verdict) =>
        verdict
            .Tests.Select(t => t.CountsUntil)
            .OfType<DateTimeOffset>()
            .Select(until => until.AddTicks(1))
            .Where(due => due > clock.Now)
            .Append(Midnight())
            .Min();

    private DateTimeOffset Midnight() => clock.Moment.StartOf(clock.Today.AddDays(1));
}
