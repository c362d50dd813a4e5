using System.Text.Json.Nodes;
using Microsoft.EntityFrameworkCore;
using Tensarch.Core.Planning;
using Tensarch.Server.Data;

namespace Tensarch.Server.Programmes;

/// <summary>Once for a database of before: weeks kept a copy of each session's plan, which becomes a number of the session's own.</summary>
internal static class KeptWeeks
{
    public static async Task Rebuild(TensarchDb db, CancellationToken ct)
    {
        foreach (var id in await db.Plans.Select(p => p.Id).ToListAsync(ct))
        {
            var row = await db.Plans.SingleAsync(p => p.Id == id, ct);
            if (await Numbered(db, row, ct) is { } text)
                row.DaysJson = text;
            await db.SaveChangesAsync(ct);
            db.ChangeTracker.Clear();
        }
    }

    /// <returns>None where there is nothing to change, or what is kept cannot be read.</returns>
    private static async Task<string?> Numbered(TensarchDb db, PlanRow row, CancellationToken ct)
    {
        if (StoredJson.TryRead<JsonObject>(row.DaysJson) is not { } plan || plan["days"] is not JsonArray days)
            return null;
        var ids = days.Select(d => IdOf(d?["session"])).OfType<Guid>().Distinct().ToList();
        var versions = await db.PlanVersions.Where(p => ids.Contains(p.SessionId)).ToListAsync(ct);
        var changed = false;
        foreach (var day in days.OfType<JsonObject>())
        {
            if (day["plan"] is not JsonObject copy)
                continue;
            var own = versions.Where(v => v.SessionId == IdOf(day["session"])).ToList();
            if (own.Count > 0 && StoredJson.TryRead<SessionPlan>(copy.ToJsonString()) is { Drills: not null } then)
                day["number"] = NumberOf(db, row, versions, own, StoredJson.Write(then), then);
            day.Remove("plan");
            changed = true;
        }
        return changed ? plan.ToJsonString() : null;
    }

    /// <summary>What the session had is found; what it has no more is kept as older than its first.</summary>
    private static int NumberOf(
        TensarchDb db,
        PlanRow row,
        List<PlanVersionRow> all,
        List<PlanVersionRow> own,
        string text,
        SessionPlan plan
    )
    {
        if (own.Find(v => v.PlanJson == text) is { } same)
            return same.Number;
        var older = new PlanVersionRow
        {
            SessionId = own[0].SessionId,
            Number = Math.Min(0, own.Min(v => v.Number) - 1),
            PlanJson = text,
            Skill = plan.Skills[0].Skill,
            Beside = [.. plan.Skills.Skip(1).Select(s => s.Skill)],
            TotalSeconds = 60 * plan.Minutes,
            FirstSide = plan.FirstSide,
            Why = "before",
            At = row.At,
            By = row.By,
        };
        db.PlanVersions.Add(older);
        all.Add(older);
        return older.Number;
    }

    private static Guid? IdOf(JsonNode? node) => Guid.TryParse(node?.ToString(), out var id) ? id : null;
}
