using Microsoft.EntityFrameworkCore;
using Tensarch.Core;
using Tensarch.Core.Catalogue;
using Tensarch.Core.Skills;
using Tensarch.Server.Data;

namespace Tensarch.Server.Skills;

/// <summary>The ladders of this studio: the shipped ones and the coaches' own, at every version that anybody follows.</summary>
public sealed class StudioLadders(TensarchDb db, CatalogueContent catalogue)
{
    private readonly Dictionary<(string Key, int Version), Ladder> own = [];

    /// <summary>Reads the own ladders among these that are not known yet, all in one query.</summary>
    public async Task Know(IEnumerable<SkillRow> followed, CancellationToken ct)
    {
        var missing = followed
            .Select(s => (s.LadderKey, s.LadderVersion))
            .Distinct()
            .Where(l => catalogue.FindLadder(l.LadderKey, l.LadderVersion) is null && !own.ContainsKey(l))
            .Select(l => l.LadderKey)
            .Distinct()
            .ToList();
        if (missing.Count == 0)
            return;
        foreach (var row in await db.OwnLadders.AsNoTracking().Where(l => missing.Contains(l.LadderKey)).ToListAsync(ct))
            if (Read(row) is { } ladder)
                own[(row.LadderKey, row.Version)] = ladder;
    }

    /// <summary>None when it is not there, cannot be read, or was not asked for with <see cref="Know"/>.</summary>
    public Ladder? Known(string key, int version) => catalogue.FindLadder(key, version) ?? own.GetValueOrDefault((key, version));

    public async Task<Ladder?> Find(string key, int version, CancellationToken ct) =>
        catalogue.FindLadder(key, version)
        ?? (
            await db.OwnLadders.AsNoTracking().FirstOrDefaultAsync(l => l.LadderKey == key && l.Version == version, ct) is { } row
                ? Read(row)
                : null
        );

    public async Task<Ladder?> Newest(string key, CancellationToken ct) =>
        catalogue.NewestLadder(key)
        ?? (
            await db.OwnLadders.AsNoTracking().Where(l => l.LadderKey == key).OrderByDescending(l => l.Version).FirstOrDefaultAsync(ct)
                is { } row
                ? Read(row)
                : null
        );

    /// <summary>The stage of every course of everyone on a skill: where the newest decision put it.</summary>
    public async Task<Dictionary<Guid, List<(Side? Side, int Stage)>>> StagesOn(string skill, CancellationToken ct)
    {
        var decisions = await db
            .Decisions.Where(d => d.Skill == skill)
            .OrderBy(d => d.At)
            .Select(d => new
            {
                d.StudentId,
                d.Side,
                d.ToStage,
            })
            .ToListAsync(ct);
        return decisions
            .GroupBy(d => d.StudentId)
            .ToDictionary(g => g.Key, g => g.GroupBy(d => d.Side).OrderBy(c => c.Key).Select(c => (c.Key, c.Last().ToStage)).ToList());
    }

    /// <summary>None when what is stored is no ladder.</summary>
    public static Ladder? Read(OwnLadderRow row) => StoredJson.TryRead<Ladder>(row.Json) is { Stages.Count: > 0 } ladder ? ladder : null;
}
