using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.EntityFrameworkCore;
using Tensarch.Core;
using Tensarch.Core.Skills;
using Tensarch.Core.Students;
using Tensarch.Server.Data;
using Tensarch.Server.Hosting;
using Tensarch.Server.Measuring;
using Tensarch.Server.Skills;

namespace Tensarch.Server.Students;

/// <summary>One fact as it was written down, as it stands, and who said what about it since.</summary>
/// <param name="Now">What is said instead; none when nothing was corrected.</param>
/// <param name="Gone">It counts for nothing.</param>
/// <param name="Doubled">Two devices ran the session without hearing of each other: it counts for no gate until it is confirmed.</param>
/// <param name="HeardAt">When it was told here, where that was later than it happened.</param>
/// <param name="MayBeTakenBack">It may be struck out; of decisions, the newest of a course alone, and no placing.</param>
public sealed record FactLine(
    Guid Id,
    Corrected What,
    DateTimeOffset At,
    string By,
    string? Drill = null,
    string? Variant = null,
    Side? Side = null,
    double? Seconds = null,
    int? CleanReps = null,
    int? Quality = null,
    bool Confirmed = true,
    bool UnderBar = false,
    SignalKind? Signal = null,
    LoadTag? Region = null,
    string? Place = null,
    int? Pain = null,
    string? Skill = null,
    int? Stage = null,
    IReadOnlyList<string>? Ticked = null,
    int? Safe = null,
    int? Times = null,
    DecisionKind? Decision = null,
    int? ToStage = null,
    ReadingView? Reading = null,
    bool Doubled = false,
    Instead? Now = null,
    bool Gone = false,
    bool MayBeTakenBack = true,
    IReadOnlyList<CorrectionLine>? Corrections = null,
    DateTimeOffset? HeardAt = null
);

/// <param name="Gone">It said that the fact counts for nothing.</param>
public sealed record CorrectionLine(DateTimeOffset At, string By, string Reason, bool Gone);

/// <summary>Facts about a student, newest first; with the cursor of the page after it.</summary>
public sealed record FactPage(IReadOnlyList<FactLine> Facts, string? Before);

/// <summary>What was done, said and decided, newest first, with everything that was said of it since.</summary>
internal static class FactLines
{
    private const int PageSize = 40;

    /// <summary>A line, and who wrote the fact down.</summary>
    private sealed record Found(FactLine Line, Guid By);

    public static async Task<Ok<FactPage>> Page(
        Guid studentId,
        TensarchDb db,
        Standings standings,
        CancellationToken ct,
        string? before = null
    )
    {
        var state = (await standings.Of(studentId, ct))!.State;
        var last = Cursor.Parse(before) ?? new(DateTimeOffset.MaxValue, Guid.Empty);
        // In the order of the database, which compares ids as text.
        var found = (await Read(studentId, last, db, ct))
            .OrderByDescending(f => f.Line.At)
            .ThenByDescending(f => f.Line.Id.ToString(), StringComparer.Ordinal)
            .ToList();
        var page = found.Take(PageSize).ToList();
        var ids = page.Select(f => f.Line.Id).ToList();
        var said = await CorrectionsOf(db, studentId, ids, ct);
        var corrections = new Corrections(said.Select(c => c.ToCore()));
        var words = said.OrderBy(c => c.At).ThenBy(c => c.Id).ToLookup(c => c.Of);
        var names = await db.Users.AsNoTracking().ToDictionaryAsync(u => u.Id, u => u.DisplayName, ct);
        var newest = await NewestDecisions(db, studentId, ct);
        string Name(Guid id) => names.GetValueOrDefault(id, "");
        FactLine Told(Found f)
        {
            return f.Line with
            {
                By = Name(f.By),
                Now = words.Contains(f.Line.Id) ? corrections.Of(f.Line.Id) : null,
                Gone = f.Line.What == Corrected.Reading ? f.Line.Gone : corrections.IsGone(f.Line.Id),
                UnderBar =
                    f.Line is { What: Corrected.Set, Drill: { } drill, Variant: { } variant }
                    && state.UnderBar(drill, variant, f.Line.Seconds, f.Line.At),
                MayBeTakenBack = f.Line.What != Corrected.Decision || newest.Contains(f.Line.Id),
                Corrections = [.. words[f.Line.Id].Select(c => new CorrectionLine(c.At, Name(c.By), c.Reason, c.InsteadJson is null))],
            };
        }
        return TypedResults.Ok(
            new FactPage([.. page.Select(Told)], found.Count > PageSize ? new Cursor(page[^1].Line.At, page[^1].Line.Id).ToString() : null)
        );
    }

    /// <summary>What is told so long after it happened is said to be: verdicts of the time between did not know of it.</summary>
    private static readonly TimeSpan Prompt = TimeSpan.FromHours(1);

    private static DateTimeOffset? Late(DateTimeOffset at, DateTimeOffset heard) => heard - at > Prompt ? heard : null;

    private static async Task<List<Found>> Read(Guid studentId, Cursor last, TensarchDb db, CancellationToken ct) =>
        [
            .. (
                await db
                    .Sets.AsNoTracking()
                    .Where(f => f.StudentId == studentId && (f.At < last.At || f.At == last.At && f.Id.CompareTo(last.Id) < 0))
                    .OrderByDescending(f => f.At)
                    .ThenByDescending(f => f.Id)
                    .Take(PageSize + 1)
                    .ToListAsync(ct)
            ).Select(s => new Found(
                new(
                    s.Id,
                    Corrected.Set,
                    s.At,
                    "",
                    s.Drill,
                    s.Variant,
                    s.Side,
                    s.Seconds,
                    s.CleanReps,
                    s.Quality,
                    s.Confirmed,
                    Doubled: s.Doubled,
                    HeardAt: Late(s.At, s.RecordedAt)
                ),
                s.By
            )),
            .. (
                await db
                    .Signals.AsNoTracking()
                    .Where(f => f.StudentId == studentId && (f.At < last.At || f.At == last.At && f.Id.CompareTo(last.Id) < 0))
                    .OrderByDescending(f => f.At)
                    .ThenByDescending(f => f.Id)
                    .Take(PageSize + 1)
                    .ToListAsync(ct)
            ).Select(s => new Found(
                new(
                    s.Id,
                    Corrected.Signal,
                    s.At,
                    "",
                    s.Drill,
                    Side: s.Side,
                    Signal: s.Kind,
                    Region: s.Region,
                    Place: s.Place,
                    Pain: s.Pain,
                    HeardAt: Late(s.At, s.RecordedAt)
                ),
                s.By
            )),
            .. (
                await db
                    .FormChecks.AsNoTracking()
                    .Where(f => f.StudentId == studentId && (f.At < last.At || f.At == last.At && f.Id.CompareTo(last.Id) < 0))
                    .OrderByDescending(f => f.At)
                    .ThenByDescending(f => f.Id)
                    .Take(PageSize + 1)
                    .ToListAsync(ct)
            ).Select(f => new Found(
                new(f.Id, Corrected.Form, f.At, "", Side: f.Side, Skill: f.Skill, Stage: f.Stage, Ticked: f.Ticked),
                f.By
            )),
            .. (
                await db
                    .ExitChecks.AsNoTracking()
                    .Where(f => f.StudentId == studentId && (f.At < last.At || f.At == last.At && f.Id.CompareTo(last.Id) < 0))
                    .OrderByDescending(f => f.At)
                    .ThenByDescending(f => f.Id)
                    .Take(PageSize + 1)
                    .ToListAsync(ct)
            ).Select(e => new Found(
                new(e.Id, Corrected.Exit, e.At, "", Side: e.Side, Skill: e.Skill, Stage: e.Stage, Safe: e.Safe, Times: e.Of),
                e.By
            )),
            .. (
                await db
                    .Decisions.AsNoTracking()
                    .Where(f => f.StudentId == studentId && (f.At < last.At || f.At == last.At && f.Id.CompareTo(last.Id) < 0))
                    .OrderByDescending(f => f.At)
                    .ThenByDescending(f => f.Id)
                    .Take(PageSize + 1)
                    .Select(d => new
                    {
                        d.Id,
                        d.At,
                        d.By,
                        d.Side,
                        d.Skill,
                        d.FromStage,
                        d.ToStage,
                        d.Kind,
                    })
                    .ToListAsync(ct)
            ).Select(d => new Found(
                new(
                    d.Id,
                    Corrected.Decision,
                    d.At,
                    "",
                    Side: d.Side,
                    Skill: d.Skill,
                    Stage: d.FromStage,
                    ToStage: d.ToStage,
                    Decision: d.Kind
                ),
                d.By
            )),
            .. (
                await db
                    .Trainings.AsNoTracking()
                    .Where(f =>
                        f.StudentId == studentId
                        && f.StartedAt != null
                        && (f.StartedAt < last.At || f.StartedAt == last.At && f.SessionId.CompareTo(last.Id) < 0)
                    )
                    .OrderByDescending(f => f.StartedAt)
                    .ThenByDescending(f => f.SessionId)
                    .Take(PageSize + 1)
                    .Select(s => new
                    {
                        Id = s.SessionId,
                        s.StartedAt,
                        s.Planned.By,
                        s.Planned.Skill,
                    })
                    .ToListAsync(ct)
            ).Select(s => new Found(new(s.Id, Corrected.Session, s.StartedAt!.Value, "", Skill: s.Skill), s.By)),
            .. (
                await db
                    .Readings.AsNoTracking()
                    .Include(r => r.Void)
                    .Where(f => f.StudentId == studentId && (f.TakenAt < last.At || f.TakenAt == last.At && f.Id.CompareTo(last.Id) < 0))
                    .OrderByDescending(f => f.TakenAt)
                    .ThenByDescending(f => f.Id)
                    .Take(PageSize + 1)
                    .ToListAsync(ct)
            ).Select(r => new Found(
                new(
                    r.Id,
                    Corrected.Reading,
                    r.TakenAt,
                    "",
                    Side: r.Side,
                    Reading: ReadingViews.ToView(r),
                    Gone: r.Void is not null,
                    HeardAt: Late(r.TakenAt, r.RecordedAt)
                ),
                r.TakenBy
            )),
        ];

    /// <summary>The newest decision of each course that stands, and no placing or move: what came after one rests on it.</summary>
    public static async Task<HashSet<Guid>> NewestDecisions(TensarchDb db, Guid student, CancellationToken ct)
    {
        var decisions = await db
            .Decisions.Where(d => d.StudentId == student)
            .Select(d => new
            {
                d.Id,
                d.Skill,
                d.Side,
                d.At,
                d.Kind,
            })
            .ToListAsync(ct);
        var corrections = new Corrections((await CorrectionsOf(db, student, [.. decisions.Select(d => d.Id)], ct)).Select(c => c.ToCore()));
        return
        [
            .. decisions
                .Where(d => !corrections.IsGone(d.Id))
                .GroupBy(d => (d.Skill, d.Side))
                .Select(g => g.MaxBy(d => d.At)!)
                .Where(d => d.Kind is not (DecisionKind.Place or DecisionKind.Move))
                .Select(d => d.Id),
        ];
    }

    private static Task<List<CorrectionRow>> CorrectionsOf(TensarchDb db, Guid student, List<Guid> ids, CancellationToken ct) =>
        db.Corrections.AsNoTracking().Where(c => c.StudentId == student && ids.Contains(c.Of)).ToListAsync(ct);
}
