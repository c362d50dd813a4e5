using Microsoft.EntityFrameworkCore;
using Tensarch.Core.Catalogue;
using Tensarch.Core.Programmes;
using Tensarch.Server.Data;
using Tensarch.Server.Skills;

namespace Tensarch.Server.Programmes;

/// <summary>Shows plans: one that stands, one that is only tried, one that was.</summary>
public sealed class PlanViewer(TensarchDb db, CatalogueContent content, StudioClock clock)
{
    private static readonly IReadOnlySet<DateOnly> None = new HashSet<DateOnly>();

    public DateOnly Today => clock.Today;

    public async Task<PlanView> Standing(StandingPlan current, Standing standing, CancellationToken ct) =>
        ProgrammeViews.Of(
            current.Row,
            await By(current.Row, ct),
            current.Sketch,
            current.Plan,
            current.Sessions,
            null,
            ProgrammeViews.Ahead.Of(standing, current.Sketch, current.Plan, Today, content),
            [],
            Today,
            content
        );

    /// <param name="broken">What the facts have made of the version that stands.</param>
    public PlanView Tried(
        Standing standing,
        ProgrammeSketch sketch,
        StoredPlan plan,
        StandingPlan? current,
        IReadOnlyList<DayViolation> broken
    ) =>
        ProgrammeViews.Of(
            null,
            "",
            sketch,
            plan,
            current?.Sessions ?? new Dictionary<Guid, SessionRow>(),
            current?.Plan,
            ProgrammeViews.Ahead.Of(standing, sketch, plan, Today, content),
            current is null
                ? []
                : PlanDiff.Of(
                    (current.Sketch, current.Plan),
                    (sketch, plan),
                    Today,
                    broken.Where(b => b.Violation.Rule == 1).Select(b => b.Day).ToHashSet(),
                    Missed(current, Today)
                ),
            Today,
            content
        );

    /// <summary>A version as it was, and what it changed.</summary>
    public async Task<PlanView> Version(StandingPlan asked, StandingPlan? before, CancellationToken ct)
    {
        var made = clock.DayOf(asked.Row.At);
        return ProgrammeViews.Of(
            asked.Row,
            await By(asked.Row, ct),
            asked.Sketch,
            asked.Plan,
            asked.Sessions,
            before?.Plan,
            ProgrammeViews.Ahead.Nothing,
            before is null ? [] : PlanDiff.Of((before.Sketch, before.Plan), (asked.Sketch, asked.Plan), made, None, Missed(before, made)),
            Today,
            content
        );
    }

    private static bool Missed(StandingPlan plan, DateOnly on) =>
        plan.Plan.Days.Any(d => d.Day < on && d.Plan is not null && !plan.IsBegun(d));

    private async Task<string> By(PlanRow row, CancellationToken ct) =>
        await db.Users.Where(u => u.Id == row.By).Select(u => u.DisplayName).FirstOrDefaultAsync(ct) ?? "";
}
