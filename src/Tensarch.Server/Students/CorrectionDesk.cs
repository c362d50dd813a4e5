using System.ComponentModel.DataAnnotations;
using Microsoft.EntityFrameworkCore;
using Tensarch.Core;
using Tensarch.Core.Catalogue;
using Tensarch.Core.Students;
using Tensarch.Server.Data;
using Tensarch.Server.Sessions;

namespace Tensarch.Server.Students;

/// <param name="Of">The fact.</param>
/// <param name="Instead">What is said instead; with nothing in it, the fact stands again. None when it counts for nothing.</param>
public sealed record CorrectionRequest(
    Guid Id,
    Corrected What,
    Guid Of,
    [StringLength(500, MinimumLength = 10)] string Reason,
    Instead? Instead = null
);

/// <summary>Corrects what was entered: with a reason, who and when. What was said first stays where it was.</summary>
public sealed class CorrectionDesk(TensarchDb db, CatalogueContent catalogue, StudioClock clock, StudioScope scope)
{
    public async Task<Result<Appended>> Correct(Guid student, CorrectionRequest request, CancellationToken ct)
    {
        var row = new CorrectionRow
        {
            Id = request.Id,
            StudentId = student,
            What = request.What,
            Of = request.Of,
            InsteadJson = request.Instead is null ? null : StoredJson.Write(request.Instead),
            Reason = request.Reason.Trim(),
            At = clock.Now,
            By = scope.UserId,
        };
        var appended = await db.Corrections.AddFact(row, new { student, request }, ct);
        if (appended != Appended.Stored)
            return appended;
        if (await Refuse(student, request, ct) is { } problem)
        {
            db.Entry(row).State = EntityState.Detached;
            return problem;
        }
        if (request.What == Corrected.Reading)
            await Void(row, ct);
        var saved = await db.SaveFact(appended, ct);
        if (saved == Appended.Stored && request.What == Corrected.Set)
            await Rework(request.Of, ct);
        return saved;
    }

    private async Task<Problem?> Refuse(Guid student, CorrectionRequest request, CancellationToken ct)
    {
        var (what, of, instead) = (request.What, request.Of, request.Instead);
        var there = what switch
        {
            Corrected.Set => await db.Sets.AnyAsync(s => s.Id == of && s.StudentId == student, ct),
            Corrected.Signal => await db.Signals.AnyAsync(s => s.Id == of && s.StudentId == student, ct),
            Corrected.Form => await db.FormChecks.AnyAsync(f => f.Id == of && f.StudentId == student, ct),
            Corrected.Exit => await db.ExitChecks.AnyAsync(e => e.Id == of && e.StudentId == student, ct),
            Corrected.Reading => await db.Readings.AnyAsync(r => r.Id == of && r.StudentId == student, ct),
            Corrected.Decision => await db.Decisions.AnyAsync(d => d.Id == of && d.StudentId == student, ct),
            _ => await db.Trainings.AnyAsync(t => t.SessionId == of && t.StudentId == student && t.StartedAt != null, ct),
        };
        if (!there)
            return Problem.Of("noSuchFact", "of");
        if (what == Corrected.Set && instead?.Variant is { } variant)
        {
            var drill = await db.Sets.Where(s => s.Id == of).Select(s => s.Drill).SingleAsync(ct);
            if (catalogue.FindDrill(drill)?.Variants.Any(v => v.Key == variant) != true)
                return Problem.Of("unknownDrill", "instead.variant");
        }
        if (what == Corrected.Exit && instead is { Safe: { } safe })
        {
            var times = instead.Times ?? await db.ExitChecks.Where(e => e.Id == of).Select(e => e.Of).SingleAsync(ct);
            if (safe > times)
                return Problem.Of("successesOutOfRange", "instead.safe", ("value", safe), ("max", times));
        }
        // A reading is read anew, not rewritten.
        if (what == Corrected.Reading && instead is not null && instead != new Instead())
            return Problem.Of("readAnew", "instead");
        return what == Corrected.Decision && instead is null && !(await FactLines.NewestDecisions(db, student, ct)).Contains(of)
            ? Problem.Of("notTheNewest", "of")
            : null;
    }

    /// <summary>A reading that counts for nothing is void; one that stands again is not.</summary>
    private async Task Void(CorrectionRow said, CancellationToken ct)
    {
        var before = await db.ReadingVoids.SingleOrDefaultAsync(v => v.ReadingId == said.Of, ct);
        if (before is not null && said.InsteadJson is not null)
            db.ReadingVoids.Remove(before);
        else if (before is null && said.InsteadJson is null)
            db.ReadingVoids.Add(
                new()
                {
                    ReadingId = said.Of,
                    Reason = said.Reason,
                    At = said.At,
                    By = said.By,
                }
            );
    }

    /// <summary>What was worked in the session that a set belongs to, without what counts for nothing.</summary>
    private async Task Rework(Guid set, CancellationToken ct)
    {
        if (await db.Sets.Where(s => s.Id == set).Select(s => s.SessionId).SingleAsync(ct) is not { } id)
            return;
        var training = await db.Trainings.Include(t => t.Planned).SingleAsync(t => t.SessionId == id, ct);
        training.Worked = await KeptWork.Of(db, training, catalogue, ct);
        await db.SaveChangesAsync(ct);
    }
}
