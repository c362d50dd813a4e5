using Microsoft.EntityFrameworkCore;
using Tensarch.Core;
using Tensarch.Core.Catalogue;
using Tensarch.Core.Planning;
using Tensarch.Core.Sessions;
using Tensarch.Core.Students;
using Tensarch.Server.Data;

namespace Tensarch.Server.Sessions;

/// <summary>One drill on one side, as it was done; or as it was planned and not done.</summary>
/// <param name="Practice">Rounds that a gate would read and nobody confirmed: they prove nothing.</param>
/// <param name="UnderBar">Rounds that were done under a bar: they count for no gate.</param>
/// <param name="Unsaid">Those rounds of practice, which can be said here.</param>
/// <param name="Skipped">It was planned, and nothing of it was done.</param>
/// <param name="TakenOut">It was not done for what the body said.</param>
public sealed record DoneSet(
    string Drill,
    string Variant,
    Side? Side,
    int Rounds,
    double? LongestSeconds,
    int? MostReps,
    int? Quality,
    int Practice = 0,
    int UnderBar = 0,
    bool Skipped = false,
    IReadOnlyList<UnsaidRound>? Unsaid = null,
    SignalKind? TakenOut = null
);

/// <summary>A round that is practice until somebody says its number.</summary>
/// <param name="Seconds">As it was planned or timed; none where repetitions are counted.</param>
public sealed record UnsaidRound(Guid Id, double? Seconds, int? CleanReps);

/// <summary>What was done in a session, in the order in which it was, as it stands after every correction.</summary>
internal static class DoneLines
{
    /// <summary>What the body said in a session.</summary>
    public static async Task<IReadOnlyList<BodySignal>> Said(SessionRow session, StudentState state, TensarchDb db, CancellationToken ct)
    {
        var told = await db.Signals.AsNoTracking().Where(s => s.SessionId == session.Id).Select(s => s.Id).ToListAsync(ct);
        return [.. state.Facts.Signals.Where(s => told.Contains(s.Id)).OrderBy(s => s.At)];
    }

    /// <param name="said">What the body said in it: what was not done for that is not called skipped.</param>
    public static async Task<IReadOnlyList<DoneSet>> Of(
        SessionRow session,
        SessionPlan plan,
        IReadOnlyList<BodySignal> said,
        StudentState state,
        TensarchDb db,
        CatalogueContent catalogue,
        CancellationToken ct
    )
    {
        var rows = await db.Sets.AsNoTracking().Where(s => s.SessionId == session.Id).OrderBy(s => s.At).ToListAsync(ct);
        var ids = rows.Select(r => r.Id).ToList();
        var corrections = new Corrections(
            (await db.Corrections.AsNoTracking().Where(c => c.StudentId == session.StudentId && ids.Contains(c.Of)).ToListAsync(ct)).Select(
                c => c.ToCore()
            )
        );
        var sets = rows.Where(r => !corrections.IsGone(r.Id)).Select(r => (Row: r, Instead: corrections.Of(r.Id))).ToList();
        var groups = sets.GroupBy(s => new WorkedDrill(s.Row.Drill, s.Instead.Variant ?? s.Row.Variant, s.Instead.Side ?? s.Row.Side))
            .ToDictionary(g => g.Key, g => g.ToList());
        var planned = Timeline
            .Of(plan, catalogue)
            .Select(p => new WorkedDrill(p.Planned.Drill, p.PlannedSide.Variant, p.PlannedSide.Side))
            .Distinct()
            .ToList();
        SignalKind? For(WorkedDrill drill) =>
            said.Where(s => catalogue.StopRules.Single(r => r.Signal == s.MetAs).TakesOut(s, catalogue.Drill(drill.Drill), drill.Side))
                .Select(s => (SignalKind?)s.Kind)
                .FirstOrDefault();
        return
        [
            .. DoneOrder
                .Of(planned, [.. groups.Keys])
                .Select(line =>
                    line.Done
                        ? Line(line.Drill, groups[line.Drill], state)
                        : new(
                            line.Drill.Drill,
                            line.Drill.Variant,
                            line.Drill.Side,
                            0,
                            null,
                            null,
                            null,
                            Skipped: true,
                            TakenOut: For(line.Drill)
                        )
                ),
        ];
    }

    private static DoneSet Line(WorkedDrill drill, List<(SetRow Row, Instead Instead)> sets, StudentState state) =>
        new(
            drill.Drill,
            drill.Variant,
            drill.Side,
            sets.Count,
            sets.Max(s => s.Instead.Seconds ?? s.Row.Seconds),
            sets.Max(s => s.Instead.CleanReps ?? s.Row.CleanReps),
            sets.Max(s => s.Instead.Quality ?? s.Row.Quality),
            sets.Count(s => !(s.Instead.Confirmed ?? s.Row.Confirmed)),
            sets.Count(s => state.UnderBar(drill.Drill, drill.Variant, s.Instead.Seconds ?? s.Row.Seconds, s.Row.At)),
            Unsaid:
            [
                .. sets.Where(s => !(s.Instead.Confirmed ?? s.Row.Confirmed))
                    .Select(s => new UnsaidRound(s.Row.Id, s.Instead.Seconds ?? s.Row.Seconds, s.Instead.CleanReps ?? s.Row.CleanReps)),
            ]
        );
}
