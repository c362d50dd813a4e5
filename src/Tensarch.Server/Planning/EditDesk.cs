using System.ComponentModel.DataAnnotations;
using System.Globalization;
using Microsoft.EntityFrameworkCore;
using Tensarch.Core;
using Tensarch.Core.Catalogue;
using Tensarch.Core.Planning;
using Tensarch.Core.Sessions;
using Tensarch.Server.Data;
using Tensarch.Server.Programmes;
using Tensarch.Server.Sessions;
using Tensarch.Server.Skills;

namespace Tensarch.Server.Planning;

/// <summary>Changes by the coach's hand, from the session as it is stored, one after another.</summary>
/// <param name="Of">The version of the session that they were made on.</param>
public sealed record EditRequest([Required, StringLength(64)] string Of, [MaxLength(EditRequest.Most)] IReadOnlyList<EditChange> Changes)
{
    public const int Most = 200;
}

/// <param name="Id">Made by the client: what is kept twice is kept once.</param>
public sealed record EditKeep(
    Guid Id,
    [Required, StringLength(64)] string Of,
    [MaxLength(EditRequest.Most)] IReadOnlyList<EditChange> Changes
);

/// <param name="Instead">The planned drill that would go.</param>
public sealed record OptionsRequest(
    [Required, StringLength(64)] string Of,
    [MaxLength(EditRequest.Most)] IReadOnlyList<EditChange> Changes,
    [StringLength(120)] string? Instead = null
);

/// <inheritdoc cref="PlanChange"/>
public sealed record EditChange(
    PlanChangeKind Kind,
    [StringLength(120)] string? Id = null,
    [RegularExpression(Key.Pattern)] string? Drill = null,
    [RegularExpression(Key.Pattern)] string? Skill = null,
    Side? Side = null,
    [RegularExpression(Key.Pattern)] string? Variant = null,
    [Range(0, 200)] int? To = null,
    [StringLength(EditChange.LongestText)] string? Text = null,
    DoseChange? Dose = null
)
{
    public const int LongestText = 200;

    internal PlanChange Change => new(Kind, Id, Drill, Skill, Side, Variant, To, Text, Dose?.Numbers);
}

/// <inheritdoc cref="DoseNumbers"/>
public sealed record DoseChange(
    [Range(0, 3600)] int? Rounds = null,
    [Range(0, 3600)] int? Seconds = null,
    [Range(0, 3600)] int? Breaths = null,
    [Range(0, 3600)] int? Reps = null,
    [Range(0, 3600)] int? RestSeconds = null,
    [Range(0, 3600)] int? SettleSeconds = null,
    [Range(0, 3600)] int? PressSeconds = null,
    [Range(0, 3600)] int? LiftSeconds = null,
    [Range(0, 3600)] int? ResettleSeconds = null,
    [Range(0, 3600)] int? ToPercent = null
)
{
    internal DoseNumbers Numbers =>
        new(Rounds, Seconds, Breaths, Reps, RestSeconds, SettleSeconds, PressSeconds, LiftSeconds, ResettleSeconds, ToPercent);
}

/// <summary>The session as it would be, and what the checker says of it.</summary>
public sealed record EditView(
    SessionPlan Plan,
    int TotalSeconds,
    IReadOnlyList<SheetPart> Parts,
    IReadOnlyList<EditVerdict> Verdicts,
    string Version
);

/// <summary>Tries what a coach changes of a session that has not been run.</summary>
public sealed class EditDesk(TensarchDb db, PlanDesk plans, WeekJudge weeks, Standings standings, CatalogueContent catalogue)
{
    private readonly PlanEditor editor = new(catalogue);

    public static string VersionOf(SessionRow row) => row.Version.ToString(CultureInfo.InvariantCulture);

    /// <returns>The session as it would be; or <c>alreadyBegun</c>, <c>planUnreadable</c>, <c>planOutdated</c>, <c>changedMeanwhile</c>, or what is wrong with a change.</returns>
    public async Task<Result<EditView>> Try(Guid id, EditRequest request, CancellationToken ct)
    {
        var row = await db.WholeSessions.AsNoTracking().SingleAsync(s => s.Id == id, ct);
        var made = await Make(row, request.Of, request.Changes, ct);
        return made.IsOk ? await View(row, made.Value.Plan, made.Value.Verdicts, ct) : made.Problems.ToList();
    }

    public async Task<Result<IReadOnlyList<DrillOption>>> Options(Guid id, OptionsRequest request, CancellationToken ct)
    {
        var row = await db.WholeSessions.AsNoTracking().SingleAsync(s => s.Id == id, ct);
        var changed = await Changed(row, request.Of, request.Changes, ct);
        return changed.IsOk ? Result.Of(editor.Options(changed.Value.Plan, changed.Value.Who, request.Instead)) : changed.Problems.ToList();
    }

    /// <summary>A session as a hand would have it, with all that is said of it: by its own rules, and by the week that it stands in.</summary>
    internal sealed record Edited(SessionPlan Plan, Standing Standing, IReadOnlyList<EditVerdict> Verdicts);

    internal async Task<Result<Edited>> Make(SessionRow row, string of, IReadOnlyList<EditChange> changes, CancellationToken ct)
    {
        var changed = await Changed(row, of, changes, ct);
        if (!changed.IsOk)
            return changed.Problems.ToList();
        var (plan, who, standing) = changed.Value;
        var verdicts = editor.Judge(plan, who);
        var week = await weeks.Judge(standing, row, plan, ct);
        return new Edited(
            plan,
            standing,
            [
                .. week.Where(w => verdicts.All(v => v.Code != w.Code))
                    .Select(w => new EditVerdict(w.Code, true, w.Drill, w.Tag))
                    .Distinct(),
                .. verdicts,
            ]
        );
    }

    private sealed record HandChanged(SessionPlan Plan, Trainee Who, Standing Standing);

    private async Task<Result<HandChanged>> Changed(SessionRow row, string of, IReadOnlyList<EditChange> changes, CancellationToken ct)
    {
        if (row.IsTrained)
            return Problem.Of("alreadyBegun", "id");
        if (row.DeletedAt is not null)
            return Problem.Of("sessionDeleted", "id");
        if (plans.Read(row) is not { } plan)
            return Problem.Of("planUnreadable", "id");
        if (of != VersionOf(row))
            return Problem.Of("changedMeanwhile", "of", ("newest", row.Version));
        var standing = (await standings.Of(row.StudentId, ct))!;
        if (plan.Format != SessionPlan.CurrentFormat || plans.On(plan.Date, row, plan, standing.State).Who is not { } who)
            return Problem.Of("planOutdated", "id");
        var made = editor.Apply(plan, [.. changes.Select(c => c.Change)], who);
        return made.IsOk ? new HandChanged(made.Value, who, standing) : made.Problems.ToList();
    }

    private async Task<EditView> View(SessionRow row, SessionPlan plan, IReadOnlyList<EditVerdict> verdicts, CancellationToken ct) =>
        new(
            plan,
            Timeline.SecondsOf(plan, catalogue),
            SheetPart.Of(plan, await plans.LaddersOf(plan, ct), catalogue),
            verdicts,
            VersionOf(row)
        );
}
