using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.EntityFrameworkCore;
using Tensarch.Core;
using Tensarch.Core.Catalogue;
using Tensarch.Core.Skills;
using Tensarch.Core.Students;
using Tensarch.Server.Data;
using Tensarch.Server.Sessions;
using Tensarch.Server.Skills;

namespace Tensarch.Server.Programmes;

/// <summary>What a coach opens in the morning: who trains, and what waits for a decision; each with its one action.</summary>
/// <param name="Gates">Open ones, the first of <paramref name="OpenGates"/>.</param>
public sealed record TodayPage(
    DateOnly Day,
    IReadOnlyList<TodaySession> Sessions,
    IReadOnlyList<TodayGate> Gates,
    int OpenGates,
    IReadOnlyList<TodaySignal> Signals,
    IReadOnlyList<TodayClearance> Clearances,
    IReadOnlyList<TodayMissed> Missed,
    IReadOnlyList<TodayTest> Tests,
    IReadOnlyList<TodayBar> Bars,
    int Students
);

/// <summary>A gate that waits for a test that may be taken today.</summary>
/// <param name="Nearest">The test.</param>
public sealed record TodayTest(Guid StudentId, string Name, string Skill, Side? Side, TestVerdict? Nearest);

/// <summary>Something that is barred since yesterday, for one reason.</summary>
/// <param name="Tags">What it bars, the hardest level first.</param>
/// <param name="Reason">Of the first of them.</param>
public sealed record TodayBar(Guid StudentId, string Name, IReadOnlyList<LoadTag> Tags, BarReason Reason);

/// <param name="Tests">Something is tested in it.</param>
/// <param name="Unasked">Intake questions that came after its student was screened: asked when it begins.</param>
/// <param name="ConsentOpen">Whether its student wants to train was not asked yet: asked when it begins.</param>
public sealed record TodaySession(
    Guid Session,
    Guid StudentId,
    string Name,
    string Skill,
    IReadOnlyList<string> Beside,
    int Minutes,
    DayHalf? Half,
    bool Tests,
    DateTimeOffset? StartedAt,
    DateTimeOffset? EndedAt,
    int Unasked = 0,
    bool ConsentOpen = false
);

public sealed record TodayGate(Guid StudentId, string Name, string Skill, Side? Side);

/// <summary>Pain above easy, or a stop, since yesterday.</summary>
public sealed record TodaySignal(
    Guid StudentId,
    string Name,
    SignalKind Kind,
    LoadTag? Region,
    string? Place,
    Side? Side,
    int? Pain,
    DateTimeOffset At
);

/// <param name="Until">The last day on which it counted, or counts.</param>
/// <param name="Lapsed">It counts no more.</param>
public sealed record TodayClearance(Guid StudentId, string Name, IReadOnlyList<LoadTag> Tags, DateOnly Until, bool Lapsed);

/// <param name="Sessions">Planned since the last one that was trained, and not begun.</param>
public sealed record TodayMissed(Guid StudentId, string Name, int Sessions, DateOnly Last);

public static class Today
{
    private const int MostLines = 60;
    private const int MostGates = 8;
    private const int MissedDays = 28;
    private const int ClearanceDays = 7;
    private const int EasyPain = 3;
    private const int MostTests = 12;

    /// <summary>Steps that are taken with an instrument or a clock in the hand.</summary>
    private static readonly string[] TestSteps = ["retest", "takeReading", "moreTrials", "recordHold", "recordReps", "countAttempts"];

    public static void MapToday(this IEndpointRouteBuilder api) => api.MapGet("/today", Page).WithTags("Programmes");

    /// <summary>A fixed number of queries, whatever the studio has.</summary>
    private static async Task<Ok<TodayPage>> Page(
        TensarchDb db,
        BoardDesk board,
        Standings standings,
        StudioClock clock,
        CatalogueContent catalogue,
        CancellationToken ct
    )
    {
        var today = clock.Today;
        var students = await db
            .Students.AsNoTracking()
            .Where(s => s.ArchivedAt == null)
            .Select(s => new { s.Id, s.Name })
            .ToDictionaryAsync(s => s.Id, s => s.Name, ct);
        var sessions = await db
            .WholeSessions.AsNoTracking()
            .Where(s => s.Date == today && s.DeletedAt == null)
            .OrderBy(s => s.Half)
            .ThenBy(s => s.CreatedAt)
            .Take(MostLines)
            .ToListAsync(ct);
        await board.DeriveDue(ct);
        var open = db
            .Board.AsNoTracking()
            .Where(b => b.Group == ReadinessGroup.Ready && db.Students.Any(s => s.Id == b.StudentId && s.ArchivedAt == null));
        var gates = await open.OrderBy(b => b.Rank)
            .Take(MostGates)
            .Select(b => new
            {
                b.StudentId,
                b.Skill,
                b.Side,
            })
            .ToListAsync(ct);
        var yesterday = clock.At(today.AddDays(-1).ToDateTime(TimeOnly.MinValue));
        var signals = await db
            .Signals.AsNoTracking()
            .Where(s => s.At >= yesterday && s.Kind != SignalKind.Bailed && (s.Pain == null || s.Pain > EasyPain))
            .OrderByDescending(s => s.At)
            .Take(MostLines)
            .ToListAsync(ct);
        var clearances = await db
            .Clearances.AsNoTracking()
            .Where(c => c.Until >= today.AddDays(-ClearanceDays) && c.Until <= today.AddDays(ClearanceDays))
            .Where(c => !db.Withdrawals.Any(w => w.ClearanceId == c.Id))
            .OrderBy(c => c.Until)
            .Take(MostLines)
            .ToListAsync(ct);
        var missed = await db
            .Sessions.AsNoTracking()
            .Where(s =>
                s.Date < today
                && s.Date >= today.AddDays(-MissedDays)
                && s.DeletedAt == null
                && s.Half != null
                && (s.Training == null || s.Training.StartedAt == null)
            )
            .Where(s => !db.Trainings.Any(d => d.StudentId == s.StudentId && d.StartedOn != null && d.StartedOn >= s.Date))
            .GroupBy(s => s.StudentId)
            .Select(g => new
            {
                StudentId = g.Key,
                Sessions = g.Count(),
                Last = g.Max(s => s.Date),
            })
            .ToListAsync(ct);
        // Planned again since: what was missed is in the plan already.
        var missing = missed.Select(m => m.StudentId).ToList();
        var plannedAt = await db
            .Plans.AsNoTracking()
            .Where(p => missing.Contains(p.StudentId))
            .GroupBy(p => p.StudentId)
            .Select(g => new { StudentId = g.Key, At = g.Max(p => p.At) })
            .ToDictionaryAsync(p => p.StudentId, p => p.At, ct);
        missed = [.. missed.Where(m => !plannedAt.TryGetValue(m.StudentId, out var at) || clock.DayOf(at) <= m.Last)];
        var training = sessions.Where(s => s.Training == null).Select(s => s.StudentId).ToList();
        var unasked = await Unasked(db, catalogue, training, ct);
        var consentOpen = await db
            .Students.AsNoTracking()
            .Where(s => training.Contains(s.Id))
            .Where(s => !db.Consents.Any(c => c.StudentId == s.Id && c.Kind == ConsentKind.Training))
            .Select(s => s.Id)
            .ToListAsync(ct);
        var tests = await TestsDue(db, today, ct);
        var bars = await new NewBars(db, standings, clock).Since(today.AddDays(-1), ct);
        return TypedResults.Ok(
            new TodayPage(
                today,
                [
                    .. from s in sessions
                    where students.ContainsKey(s.StudentId)
                    select Line(s, students[s.StudentId]) with
                    {
                        Unasked = unasked.GetValueOrDefault(s.StudentId),
                        ConsentOpen = s.Training == null && consentOpen.Contains(s.StudentId),
                    },
                ],
                [
                    .. from g in gates
                    where students.ContainsKey(g.StudentId)
                    select new TodayGate(g.StudentId, students[g.StudentId], g.Skill, g.Side),
                ],
                await open.CountAsync(ct),
                [
                    .. from s in signals
                    where students.ContainsKey(s.StudentId)
                    select new TodaySignal(s.StudentId, students[s.StudentId], s.Kind, s.Region, s.Place, s.Side, s.Pain, s.At),
                ],
                [
                    .. from c in clearances
                    where students.ContainsKey(c.StudentId)
                    select new TodayClearance(c.StudentId, students[c.StudentId], c.Tags, c.Until, c.Until < today),
                ],
                [
                    .. from m in missed
                    where students.ContainsKey(m.StudentId)
                    orderby m.Sessions descending, students[m.StudentId]
                    select new TodayMissed(m.StudentId, students[m.StudentId], m.Sessions, m.Last),
                ],
                [
                    .. from t in tests
                    where students.ContainsKey(t.StudentId)
                    select new TodayTest(t.StudentId, students[t.StudentId], t.Line.Skill, t.Line.Gate.Side, t.Line.Gate.Nearest),
                ],
                bars,
                students.Count
            )
        );
    }

    /// <summary>How many questions that came later were not asked yet, by student; none for who was never screened.</summary>
    private static async Task<Dictionary<Guid, int>> Unasked(
        TensarchDb db,
        CatalogueContent catalogue,
        IReadOnlyList<Guid> students,
        CancellationToken ct
    )
    {
        var later = catalogue.Questions.Where(q => q.AddedLater).Select(q => q.Key).ToList();
        var asked = await db
            .Screenings.AsNoTracking()
            .Where(s => students.Contains(s.StudentId) && s.Kind == ScreeningKind.Whole)
            .Select(s => s.StudentId)
            .Distinct()
            .Select(id => new
            {
                Id = id,
                Answered = db
                    .Answers.Where(a => a.StudentId == id && later.Contains(a.Question))
                    .Select(a => a.Question)
                    .Distinct()
                    .Count(),
            })
            .ToListAsync(ct);
        return asked.ToDictionary(a => a.Id, a => later.Count - a.Answered);
    }

    /// <summary>The gates that are nearest to open and wait for a test, the nearest first.</summary>
    private static async Task<IReadOnlyList<(Guid StudentId, BoardLine Line)>> TestsDue(TensarchDb db, DateOnly today, CancellationToken ct)
    {
        var near = await db
            .Board.AsNoTracking()
            .Where(b => b.Group == ReadinessGroup.Nearly)
            .OrderBy(b => b.Rank)
            .Take(MostLines)
            .Select(b => new { b.StudentId, b.LineJson })
            .ToListAsync(ct);
        return
        [
            .. near.Select(b => (b.StudentId, Line: StoredJson.TryRead<BoardLine>(b.LineJson)))
                .Where(b => b.Line?.Gate is { Next: { } next } && TestSteps.Contains(next.Code) && !(next.NotBefore > today))
                .Select(b => (b.StudentId, b.Line!))
                .Take(MostTests),
        ];
    }

    private static TodaySession Line(SessionRow row, string name)
    {
        var plan = PlanGist.Of(row.Planned.PlanJson);
        return new(
            row.Id,
            row.StudentId,
            name,
            row.Planned.Skill,
            row.Planned.Beside,
            plan?.Minutes ?? row.Planned.TotalSeconds / 60,
            row.Half,
            plan?.Tests == true,
            row.Training?.StartedAt,
            row.Training?.EndedAt
        );
    }
}
