using Tensarch.Core;
using Tensarch.Core.Catalogue;
using Tensarch.Core.Sessions;
using Tensarch.Server.Data;
using Tensarch.Server.Planning;
using Tensarch.Server.Skills;
using Tensarch.Server.Students;

namespace Tensarch.Server.Sessions;

/// <summary>Makes what the runner runs, under today's facts.</summary>
public sealed class PackDesk(TensarchDb db, PlanDesk plans, CatalogueContent catalogue, StudioClock clock)
{
    /// <returns>
    /// The pack; or <c>sessionOver</c>, <c>sessionDeleted</c>, <c>planUnreadable</c>, <c>planBarred</c> or <c>planOutdated</c>, with what it breaks
    /// in the fields of the problems after the first.
    /// </returns>
    public async Task<Result<PackResponse>> Pack(SessionRow row, Standing standing, CancellationToken ct)
    {
        if (row.Training?.EndedAt is not null)
            return Problem.Of("sessionOver", "");
        if (row.DeletedAt is not null)
            return Problem.Of("sessionDeleted", "");
        if (plans.Read(row) is not { } plan)
            return Problem.Of("planUnreadable", "");
        if (plans.TraineeToday(row, plan, standing) is not { } today)
            return Problem.Of("planOutdated", "otherLadder");
        var maker = new PackMaker(catalogue);
        // One that is under way goes on where it stood: what happened since is what has ended.
        var made = row.Training?.StartedOn == clock.Today ? maker.Pack(plan, today) : maker.Make(plan, today);
        if (!made.IsOk)
        {
            var code = plans.NowBarred(plan, standing.Bars).Count > 0 ? "planBarred" : "planOutdated";
            return made.Problems.Prepend(Problem.Of(code, "")).ToList();
        }
        var carried = await Notes.CarriedOver(row.StudentId, db, ct);
        var latest = clock.Now + SessionPack.Life;
        return new PackResponse(
            row.Id,
            row.StudentId,
            standing.Student.Name,
            clock.Now,
            standing.State.Until < latest ? standing.State.Until : latest,
            made.Value,
            row.Plan,
            PackLoads.Ended(standing.Bars),
            carried is null ? null : new(carried.Id, carried.Text),
            StoredJson.TryRead<List<BodyWord>>(standing.Student.BodyWordsJson) ?? []
        );
    }
}
