using Microsoft.EntityFrameworkCore;
using Tensarch.Core;
using Tensarch.Core.Planning;
using Tensarch.Core.Students;
using Tensarch.Server.Data;

namespace Tensarch.Server.Accounts;

/// <summary>Keeps what a studio says of itself, and counts its days anew where its time zone changes.</summary>
public sealed class StudioDesk(TensarchDb db, StudioScope scope, StudioClock clock)
{
    /// <summary>As far back as a gate looks.</summary>
    private const int LookBackDays = 120;

    public Task<StudioRow> Read(CancellationToken ct) => db.Studios.AsNoTracking().SingleAsync(s => s.Id == scope.StudioId, ct);

    /// <summary>None where nothing is said, or what is kept cannot stand.</summary>
    public static IReadOnlyList<OpenTime> OpeningOf(StudioRow row) =>
        StoredJson.TryRead<List<OpenTime>>(row.OpeningJson) is { } times && OpeningHours.Check(times).Count == 0 ? times : [];

    public static IReadOnlyList<StandIn> StandInsOf(StudioRow row) =>
        StoredJson.TryRead<List<StandIn>>(row.StandInsJson) is { } own && StandIn.Check(own).Count == 0 ? own : [];

    public async Task<Result<StudioRow>> Change(StudioRequest request, CancellationToken ct)
    {
        var problems = OpeningHours.Check(request.Opening);
        problems.AddRange(StandIn.Check(request.StandIns));
        if (string.IsNullOrWhiteSpace(request.Name))
            problems.Add(Problem.Of("required", "name"));
        if (!TimeZoneInfo.TryFindSystemTimeZoneById(request.TimeZone, out var zone))
            problems.Add(Problem.Of("unknownTimeZone", "timeZone"));
        if (problems.Count > 0)
            return problems;

        await using var transaction = await db.Database.BeginTransactionAsync(ct);
        var row = await db.Studios.SingleAsync(s => s.Id == scope.StudioId, ct);
        if (row.Version != request.Version)
            return Problem.Of("changedMeanwhile", "version");
        var moved = row.TimeZone != request.TimeZone;
        (row.Name, row.TimeZone, row.Version) = (request.Name.Trim(), request.TimeZone, row.Version + 1);
        row.OpeningJson = StoredJson.Write(request.Opening);
        row.StandInsJson = StoredJson.Write(request.StandIns);
        try
        {
            await db.SaveChangesAsync(ct);
        }
        catch (DbUpdateConcurrencyException)
        {
            return Problem.Of("changedMeanwhile", "version");
        }
        if (moved)
            await CountDaysIn(zone!, ct);
        await transaction.CommitAsync(ct);
        return row;
    }

    /// <summary>What a time zone would change, beside the one that holds.</summary>
    public async Task<TimeZoneChange> Under(TimeZoneInfo zone, CancellationToken ct)
    {
        var since = clock.Now.AddDays(-LookBackDays);
        var there = new Moment(clock.Now, zone);
        bool Moves(DateTimeOffset at) => clock.DayOf(at) != there.DayOf(at);
        var readings = await db.Readings.Where(r => r.TakenAt > since).Select(r => new { r.StudentId, At = r.TakenAt }).ToListAsync(ct);
        var sets = await db.Sets.Where(s => s.At > since).Select(s => new { s.StudentId, s.At }).ToListAsync(ct);
        var sessions = await db
            .Trainings.Where(s => s.StartedAt > since)
            .Select(s => new { s.StudentId, At = s.StartedAt!.Value })
            .ToListAsync(ct);
        var moved = (
            Readings: readings.Where(r => Moves(r.At)).ToList(),
            Sets: sets.Where(s => Moves(s.At)).ToList(),
            Sessions: sessions.Where(s => Moves(s.At)).ToList()
        );
        var local = TimeZoneInfo.ConvertTime(clock.Now, zone);
        return new(
            there.Day,
            TimeOnly.FromTimeSpan(local.TimeOfDay),
            moved.Readings.Count,
            moved.Sets.Count,
            moved.Sessions.Count,
            moved.Readings.Concat(moved.Sets).Concat(moved.Sessions).Select(m => m.StudentId).Distinct().Count()
        );
    }

    /// <summary>The days that are kept beside their instants follow the time zone, and every line that was derived from days is due.</summary>
    private async Task CountDaysIn(TimeZoneInfo zone, CancellationToken ct)
    {
        var there = new Moment(clock.Now, zone);
        var sets = await db
            .Sets.Select(s => new
            {
                s.Id,
                s.At,
                s.Day,
            })
            .ToListAsync(ct);
        foreach (var day in sets.Where(s => there.DayOf(s.At) != s.Day).GroupBy(s => there.DayOf(s.At)))
        foreach (var ids in day.Select(s => s.Id).Chunk(500))
            await db.Sets.Where(s => ids.Contains(s.Id)).ExecuteUpdateAsync(set => set.SetProperty(s => s.Day, day.Key), ct);
        var sessions = await db
            .Trainings.Where(s => s.StartedAt != null)
            .Select(s => new
            {
                Id = s.SessionId,
                s.StartedAt,
                s.StartedOn,
            })
            .ToListAsync(ct);
        foreach (
            var day in sessions.Where(s => there.DayOf(s.StartedAt!.Value) != s.StartedOn).GroupBy(s => there.DayOf(s.StartedAt!.Value))
        )
        foreach (var ids in day.Select(s => s.Id).Chunk(500))
            await db
                .Trainings.Where(s => ids.Contains(s.SessionId))
                .ExecuteUpdateAsync(set => set.SetProperty(s => s.StartedOn, day.Key), ct);
        await db.Changed(await db.Students.Select(s => s.Id).ToListAsync(ct), ct);
    }
}
