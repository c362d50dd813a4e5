using Microsoft.EntityFrameworkCore;
using Tensarch.Core.Planning;
using Tensarch.Core.Programmes;
using Tensarch.Server.Data;

namespace Tensarch.Server.Programmes;

/// <summary>Plans as they stand, and as they stood: what is asked of each day, with the session that it is.</summary>
public sealed partial class ProgrammeDesk
{
    public async Task<StandingPlan?> Current(Guid student, CancellationToken ct) =>
        await Read(
            await db.Plans.AsNoTracking().Where(p => p.StudentId == student).OrderByDescending(p => p.Number).FirstOrDefaultAsync(ct),
            ct
        );

    /// <summary>With each day as its session stands. None where what is kept cannot be read: it is planned anew.</summary>
    public async Task<StandingPlan?> Read(PlanRow? row, CancellationToken ct)
    {
        if (await Parsed(row, ct) is not { } read)
            return null;
        var student = row!.StudentId;
        var ids = read.Sessions.Keys.ToList();
        var others = await db
            .WholeSessions.AsNoTracking()
            .Where(s => s.StudentId == student && s.DeletedAt == null)
            .Where(s => s.Half != null ? s.Training != null : s.Date >= clock.Today && (s.Training == null || s.Training.EndedAt == null))
            .Where(s => s.Date >= read.Sketch.Start && s.Date <= read.Sketch.End && !ids.Contains(s.Id))
            .ToListAsync(ct);
        // The weeks had given them up, and they were trained all the same.
        var besides = others.Where(s => s.Half is not null).ToList();
        var days = read.Plan.Days.Select(d => Now(d, read.RowOf(d))).Concat(besides.Select(s => Besides(s, read.Sketch)));
        return read with
        {
            Plan = read.Plan with { Days = [.. days.OrderBy(d => d.Day).ThenBy(d => d.Half)] },
            Sessions = besides.Concat(read.Sessions.Values).ToDictionary(s => s.Id),
            // What stands elsewhere by now was moved: nothing comes in its place.
            Taken =
            [
                .. read.Plan.Days.Where(d => read.RowOf(d) is { DeletedAt: null } row && row.Date != d.Day).Select(d => (d.Day, d.Half)),
            ],
            Loose = others.Where(s => s.Half is null).Select(s => s.Date).ToHashSet(),
        };
    }

    /// <summary>A session of the weeks that their newest version does not know, as one of them.</summary>
    internal StoredDay Besides(SessionRow row, ProgrammeSketch sketch) =>
        new(
            row.Date,
            row.Half!.Value,
            (row.Planned.TotalSeconds + 59) / 60,
            (row.Date.DayNumber - sketch.Start.DayNumber) / 7,
            false,
            new([.. row.Planned.Beside.Prepend(row.Planned.Skill).Select(skill => new BlockOrder(skill, BlockAim.Train))], DayOrder.Whole),
            [
                .. row
                    .Planned.Beside.Prepend(row.Planned.Skill)
                    .Select(skill => new StoredBlock(
                        skill,
                        BlockAim.Train,
                        DayOrder.Whole,
                        row.Planned.TotalSeconds / (1 + row.Planned.Beside.Count),
                        true
                    )),
            ],
            0,
            0,
            sessions.Read(row),
            row.Id,
            Number: row.Plan
        );

    private StoredDay Now(StoredDay day, SessionRow? row) =>
        row is null
            ? day
            : day with
            {
                Day = row.Date,
                Half = row.Half ?? day.Half,
                Pinned = day.Pinned || row.Date != day.Day,
                Plan = sessions.Read(row),
            };

    /// <summary>A version as it was when it was made.</summary>
    public async Task<StandingPlan?> ReadThen(PlanRow? row, CancellationToken ct)
    {
        if (await Parsed(row, ct) is not { } read)
            return null;
        var ids = read.Sessions.Keys.ToList();
        var numbers = read.Plan.Days.Select(d => d.Number).OfType<int>().Distinct().ToList();
        var versions = (
            await db.PlanVersions.AsNoTracking().Where(p => ids.Contains(p.SessionId) && numbers.Contains(p.Number)).ToListAsync(ct)
        ).ToDictionary(p => (p.SessionId, p.Number));
        SessionPlan? Then(StoredDay day) =>
            day is { Session: { } session, Number: { } number } && versions.TryGetValue((session, number), out var version)
                ? sessions.Read(version)
                : null;
        return read with { Plan = read.Plan with { Days = [.. read.Plan.Days.Select(d => d with { Plan = Then(d) })] } };
    }

    private async Task<StandingPlan?> Parsed(PlanRow? row, CancellationToken ct)
    {
        if (
            row is null
            || StoredJson.TryRead<ProgrammeSketch>(row.SketchJson) is not { Goals: not null, Days: not null } sketch
            || StoredJson.TryRead<StoredPlan>(row.DaysJson) is not { Days: not null } plan
        )
            return null;
        var ids = plan.Days.Select(d => d.Session).OfType<Guid>().ToList();
        var rows = await db
            .WholeSessions.AsNoTracking()
            .Where(s => s.StudentId == row.StudentId && ids.Contains(s.Id))
            .ToDictionaryAsync(s => s.Id, ct);
        return new(row, sketch, plan, rows, []);
    }
}
