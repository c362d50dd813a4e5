using Tensarch.Core.Programmes;
using Tensarch.Core.Students;
using Tensarch.Server.Data;

namespace Tensarch.Server.Programmes;

/// <summary>A student's plan as it stands: its newest version with the sessions that it is run in.</summary>
/// <param name="Taken">Parts of days in which the weeks put nothing: one of their sessions was moved away.</param>
public sealed record StandingPlan(
    PlanRow Row,
    ProgrammeSketch Sketch,
    StoredPlan Plan,
    IReadOnlyDictionary<Guid, SessionRow> Sessions,
    IReadOnlyCollection<(DateOnly Day, DayHalf Half)> Taken
)
{
    /// <summary>Days on which a session that is of no weeks is still to be done.</summary>
    public IReadOnlySet<DateOnly> Loose { get; init; } = new HashSet<DateOnly>();

    public SessionRow? RowOf(StoredDay day) => day.Session is { } id ? Sessions.GetValueOrDefault(id) : null;

    /// <summary>Somebody runs it, or has: no plan changes it.</summary>
    public bool IsBegun(StoredDay day) => RowOf(day)?.Training is not null;

    public bool IsOpen(StoredDay day) => RowOf(day)?.IsOpen == true;

    /// <summary>Nothing was done in it, and nobody threw it away.</summary>
    public bool IsMissed(StoredDay day) => RowOf(day) is { IsTrained: false, DeletedAt: null };

    /// <summary>A coach threw it away: no plan puts another in its place.</summary>
    public bool IsDropped(StoredDay day) =>
        RowOf(day) is { Training: null, DeletedAt: { } gone } && (Row.EndedAt is not { } ended || gone < ended);

    /// <summary>Of plans that stand: there is still something to come of it.</summary>
    public bool StandsOn(DateOnly day) => Row.EndedAt is null && Sketch.End >= day;
}
