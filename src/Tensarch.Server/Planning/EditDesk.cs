using System.ComponentModel.DataAnnotations;
using System.Security.Cryptography;
using System.Text;
using Microsoft.EntityFrameworkCore;
using Tensarch.Core;
using Tensarch.Core.Catalogue;
using Tensarch.Core.Planning;
using Tensarch.Core.Sessions;
using Tensarch.Server.Data;
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

/// <summary>Tries, keeps and takes back what a coach changes of a session that has not been run.</summary>
public sealed class EditDesk(TensarchDb db, PlanDesk plans, Standings standings, CatalogueContent catalogue)
{
    private readonly PlanEditor editor = new(catalogue);

    public static string VersionOf(SessionRow row) =>
        Convert.ToHexStringLower(SHA256.HashData(Encoding.UTF8.GetBytes(row.PlanJson)).AsSpan(0, 12));

    /// <returns>The session as it would be; or <c>alreadyBegun</c>, <c>planUnreadable</c>, <c>planOutdated</c>, <c>editedMeanwhile</c>, or what is wrong with a change.</returns>
    public async Task<Result<EditView>> Try(Guid id, EditRequest request, CancellationToken ct)
    {
        var row = await db.Sessions.AsNoTracking().SingleAsync(s => s.Id == id, ct);
        var made = await Make(row, request.Of, request.Changes, ct);
        return made.IsOk ? await View(row, made.Value.Plan, made.Value.Who, ct) : made.Problems.ToList();
    }

    public async Task<Result<IReadOnlyList<DrillOption>>> Options(Guid id, OptionsRequest request, CancellationToken ct)
    {
        var row = await db.Sessions.AsNoTracking().SingleAsync(s => s.Id == id, ct);
        var made = await Make(row, request.Of, request.Changes, ct);
        return made.IsOk ? Result.Of(editor.Options(made.Value.Plan, made.Value.Who, request.Instead)) : made.Problems.ToList();
    }

    /// <returns>The session; or what <see cref="Try"/> says, or <c>editRefused</c> with the rules that it breaks.</returns>
    public async Task<Result<SessionRow>> Keep(Guid id, EditKeep request, CancellationToken ct)
    {
        var row = await db.Sessions.SingleAsync(s => s.Id == id, ct);
        if (row.EditId == request.Id)
            return row;
        var made = await Make(row, request.Of, request.Changes, ct);
        if (!made.IsOk)
            return made.Problems.ToList();
        var refused = editor.Judge(made.Value.Plan, made.Value.Who).Where(v => v.Refused).ToList();
        if (refused.Count > 0)
            return refused.Select(v => v.Code).Distinct().Select(code => Problem.Of("editRefused", code)).ToList();
        row.PlanBefore = row.PlanJson;
        row.EditId = request.Id;
        plans.Lay(row, made.Value.Plan);
        await db.SaveChangesAsync(ct);
        return row;
    }

    private async Task<Result<(SessionPlan Plan, Trainee Who)>> Make(
        SessionRow row,
        string of,
        IReadOnlyList<EditChange> changes,
        CancellationToken ct
    )
    {
        if (row.StartedAt is not null || row.EndedAt is not null)
            return Problem.Of("alreadyBegun", "id");
        if (row.DeletedAt is not null)
            return Problem.Of("sessionDeleted", "id");
        if (plans.Read(row) is not { } plan)
            return Problem.Of("planUnreadable", "id");
        if (of != VersionOf(row))
            return Problem.Of("editedMeanwhile", "of");
        var standing = (await standings.Of(row.StudentId, ct))!;
        if (plan.Format != SessionPlan.CurrentFormat || plans.TraineeOn(row, plan, plan.Date, standing) is not { } who)
            return Problem.Of("planOutdated", "id");
        var changed = editor.Apply(plan, [.. changes.Select(c => c.Change)], who);
        return changed.IsOk ? (changed.Value, who) : changed.Problems.ToList();
    }

    private async Task<EditView> View(SessionRow row, SessionPlan plan, Trainee who, CancellationToken ct) =>
        new(
            plan,
            Timeline.SecondsOf(plan, catalogue),
            SheetPart.Of(plan, await plans.LaddersOf(plan, ct), catalogue),
            editor.Judge(plan, who),
            VersionOf(row)
        );
}
