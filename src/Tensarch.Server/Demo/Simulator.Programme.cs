using Microsoft.EntityFrameworkCore;
using Tensarch.Core.Programmes;
using Tensarch.Core.Students;
using Tensarch.Server.Data;
using Tensarch.Server.Planning;
using Tensarch.Server.Programmes;
using Tensarch.Server.Sessions;

namespace Tensarch.Server.Demo;

/// <summary>The weeks of a simulated student: planned when they began, planned again as a coach would, with a session pinned.</summary>
internal sealed partial class Simulator
{
    private ProgrammeDesk Programmes => new(db, catalogue, solver, Plans, Standings, Turns, Clock, scope);

    private SessionChanges Changes =>
        new(db, catalogue, Plans, new EditDesk(db, Plans, Weeks, Standings, catalogue), Programmes, Weeks, Standings, Clock, scope);

    private static readonly PlanningTurns Turns = new();

    private WeekJudge Weeks => new(db, Programmes, Plans, catalogue, Clock);

    private ProgrammeSketch Sketch(DemoProgramme programme)
    {
        var skills = who.Skills.Select(s => s.Skill).ToList();
        return new(
            today.AddDays(programme.From),
            programme.Weeks,
            [.. skills.Select((s, i) => new GoalSketch(s, i + 1, i == 0 && programme.Target is { } target ? today.AddDays(target) : null))],
            [.. Enumerable.Range(0, 3).Select(i => new AvailableDay(today.AddDays(2 * i).DayOfWeek, null, who.Minutes, DayHalf.Pm))]
        );
    }

    private async Task PlanWeeks(CancellationToken ct)
    {
        if (who.Programme is not { } programme)
            return;
        var current = await Programmes.Current(id, ct);
        var sketch = current?.Sketch ?? Sketch(programme);
        Must((await Programmes.Keep(await Now(ct), new PlanProgramme(NewId(), current?.Row.Number ?? 0, sketch), ct)).Problems);
        Written();
    }

    /// <summary>A session of next week stays as it is.</summary>
    private async Task PinOne(CancellationToken ct)
    {
        var current = (await Programmes.Current(id, ct))!;
        var day = current.Plan.Days.First(d => d.Day >= today.AddDays(7) && d.Plan is not null && d.Blocks.Any(b => b.Exposes));
        var edit = new PlanEdit(PlanEditKind.Pin, day.Day, day.Half);
        Must((await Programmes.Keep(await Now(ct), new KeepPlanEdit(NewId(), current.Row.Number, edit), ct)).Problems);
        Written();
    }

    /// <summary>The session that the plan has for a day; none where it has none.</summary>
    private async Task<SessionRow?> PlannedOn(int day, CancellationToken ct)
    {
        var date = today.AddDays(day);
        return await db.WholeSessions.FirstOrDefaultAsync(
            s => s.StudentId == id && s.Date == date && s.Training == null && s.DeletedAt == null && s.Half != null,
            ct
        );
    }
}
