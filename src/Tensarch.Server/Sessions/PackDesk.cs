using System.Globalization;
using Microsoft.EntityFrameworkCore;
using Tensarch.Core;
using Tensarch.Core.Catalogue;
using Tensarch.Core.Sessions;
using Tensarch.Core.Students;
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
    public async Task<Result<PackResponse>> Pack(SessionRow row, Standing standing, string key, bool keep, CancellationToken ct)
    {
        if (row.Training?.EndedAt is not null)
            return Problem.Of("sessionOver", "");
        if (row.DeletedAt is not null)
            return Problem.Of("sessionDeleted", "");
        if (plans.Read(row) is not { } plan)
            return Problem.Of("planUnreadable", "");
        // What is run tomorrow is judged as it will stand when tomorrow begins.
        var tomorrow = clock.Today.AddDays(1);
        var from = keep && row.Date == tomorrow ? clock.Moment.StartOf(tomorrow) : clock.Now;
        var moment = clock.Moment with { At = from };
        var then = plans.On(
            moment.Day,
            row,
            plan,
            from == clock.Now ? standing.State : StudentState.From(standing.State.Facts, moment, catalogue)
        );
        var made = then.Pack(row.Training?.StartedOn == moment.Day);
        if (!made.IsOk)
            return made.Problems.ToList();
        var carried = await Notes.CarriedOver(row.StudentId, db, ct);
        var latest = clock.Now + SessionPack.Life;
        return new PackResponse(
            row.Id,
            row.StudentId,
            standing.Student.Name,
            clock.Now,
            then.Until < latest ? then.Until : latest,
            made.Value,
            row.Plan,
            then.Ended,
            carried is null ? null : new(carried.Id, carried.Text),
            StoredJson.TryRead<List<BodyWord>>(standing.Student.BodyWordsJson) ?? [],
            from,
            key
        );
    }

    /// <summary>A pack that was made under the same key is the same: as long as the house, the day, the session and what is written of its student are.</summary>
    public static string Key(string house, int session, long beat, DateOnly day) =>
        string.Create(CultureInfo.InvariantCulture, $"{house}-{day.DayNumber}-{session}-{beat}");

    public async Task<string> Key(SessionRow row, CancellationToken ct) =>
        Key(
            await House(ct),
            row.Version,
            await db.Pulses.Where(p => p.StudentId == row.StudentId).Select(p => p.Beat).FirstOrDefaultAsync(ct),
            clock.Today
        );

    /// <summary>The program, what the studio has set, and what it has of its own.</summary>
    public async Task<string> House(CancellationToken ct)
    {
        var own = await db
            .Studios.Select(s => new
            {
                s.Version,
                Drills = db.OwnDrills.Count(),
                Ladders = db.OwnLadders.Count(),
            })
            .SingleAsync(ct);
        return string.Create(CultureInfo.InvariantCulture, $"{Program}-{own.Version}.{own.Drills}.{own.Ladders}");
    }

    private static readonly string Program = typeof(PackDesk).Module.ModuleVersionId.ToString("N")[..8];
}
