using System.ComponentModel.DataAnnotations;
using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.EntityFrameworkCore;
using Tensarch.Core;
using Tensarch.Core.Sessions;
using Tensarch.Server.Data;
using Tensarch.Server.Hosting;

namespace Tensarch.Server.Sessions;

/// <summary>A practice to the second.</summary>
/// <param name="Seconds">Of all of it.</param>
public sealed record PracticeResponse(int Seconds, IReadOnlyList<PracticeSegment> Segments);

public sealed record PresetRequest(Guid Id, [Required, StringLength(60)] string Name, Practice Practice);

/// <param name="Gone">Taken away, or back again.</param>
public sealed record PresetChange([StringLength(60)] string? Name = null, Practice? Practice = null, bool? Gone = null);

/// <param name="Seconds">Of all of it.</param>
public sealed record PresetView(Guid Id, string Name, Practice Practice, int Seconds, string By);

/// <summary>The plain practice timer: a clock without student or plan, and what the studio has named of it.</summary>
public static class PracticeEndpoints
{
    private const int MostPresets = 60;

    public static void MapPractice(this IEndpointRouteBuilder api)
    {
        api.MapPost("/compute/practice", Compute).WithTags("Sessions").WithMetadata(new ReadsOnly());
        var presets = api.MapGroup("/practice-presets").WithTags("Sessions");
        presets.MapGet("/", List);
        presets.MapPost("/", Name).Produces<PresetView>(201).Produces<PresetView>();
        presets.MapPost("/{presetId}/changes", Change);
    }

    private static Results<Ok<PracticeResponse>, ProblemHttpResult> Compute(Practice practice)
    {
        var segments = practice.Segments();
        return segments.IsOk
            ? TypedResults.Ok(new PracticeResponse(segments.Value.Sum(s => s.Seconds), segments.Value))
            : Problems.Unprocessable(segments.Problems);
    }

    private static async Task<Ok<List<PresetView>>> List(TensarchDb db, CancellationToken ct)
    {
        var rows = await db.Presets.AsNoTracking().Where(p => !p.Gone).OrderBy(p => p.Name).ThenBy(p => p.Id).ToListAsync(ct);
        var names = await db.Users.AsNoTracking().ToDictionaryAsync(u => u.Id, u => u.DisplayName, ct);
        return TypedResults.Ok(rows.Select(r => View(r, names.GetValueOrDefault(r.By, ""))).OfType<PresetView>().ToList());
    }

    private static async Task<IResult> Name(
        PresetRequest request,
        TensarchDb db,
        StudioScope scope,
        StudioClock clock,
        CancellationToken ct
    )
    {
        var problems = await Check(db, request.Id, request.Name, request.Practice, ct);
        if (problems.Count > 0)
            return Problems.Unprocessable(problems);
        var row = new PresetRow
        {
            Id = request.Id,
            Name = request.Name.Trim(),
            PracticeJson = StoredJson.Write(request.Practice),
            At = clock.Now,
            By = scope.UserId,
        };
        var appended = await db.SaveFact(await db.Presets.AddFact(row, request, ct), ct);
        return Problems.Respond(appended, "/api/v1/practice-presets", View(row, ""));
    }

    private static async Task<Results<Ok<PresetView>, ProblemHttpResult>> Change(
        Guid presetId,
        PresetChange change,
        TensarchDb db,
        CancellationToken ct
    )
    {
        var row = await db.Presets.SingleAsync(p => p.Id == presetId, ct);
        var gone = change.Gone ?? row.Gone;
        var name = change.Name ?? row.Name;
        var practice = change.Practice ?? StoredJson.TryRead<Practice>(row.PracticeJson);
        var problems = gone ? [] : await Check(db, row.Id, name, practice, ct);
        if (problems.Count > 0)
            return Problems.Unprocessable(problems);
        (row.Name, row.Gone) = (name.Trim(), gone);
        if (change.Practice is not null)
            row.PracticeJson = StoredJson.Write(change.Practice);
        await db.SaveChangesAsync(ct);
        return View(row, "") is { } view ? TypedResults.Ok(view) : Problems.NotFound();
    }

    private static async Task<List<Problem>> Check(TensarchDb db, Guid id, string name, Practice? practice, CancellationToken ct)
    {
        var problems = new List<Problem>();
        if (string.IsNullOrWhiteSpace(name))
            problems.Add(Problem.Of("required", "name"));
        if (practice is null)
            problems.Add(Problem.Of("required", "practice"));
        else
            problems.AddRange(practice.Segments().Problems.Select(p => p with { Field = $"practice.{p.Field}" }));
        var others = await db.Presets.Where(p => !p.Gone && p.Id != id).Select(p => p.Name).ToListAsync(ct);
        if (others.Any(o => string.Equals(o, name.Trim(), StringComparison.OrdinalIgnoreCase)))
            problems.Add(Problem.Of("nameTaken", "name"));
        if (others.Count >= MostPresets)
            problems.Add(Problem.Of("tooManyPresets", "name", ("most", MostPresets)));
        return problems;
    }

    /// <summary>None for a row that cannot be read: the list survives it.</summary>
    private static PresetView? View(PresetRow row, string by) =>
        StoredJson.TryRead<Practice>(row.PracticeJson) is { } practice && practice.Segments() is { IsOk: true } segments
            ? new(row.Id, row.Name, practice, segments.Value.Sum(s => s.Seconds), by)
            : null;
}
