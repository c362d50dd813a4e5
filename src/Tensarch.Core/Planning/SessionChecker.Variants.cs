namespace Tensarch.Core.Planning;

/// <summary>Variants: none harder than two full sessions of the one before allow, and easier ones after pain.</summary>
public static partial class SessionChecker
{
    private static IEnumerable<Violation> Variants(List<Line> lines, Trainee facts)
    {
        foreach (var line in lines.Where(l => l.Planned.Reason.Code is not ("dayGate" or "companion" or "leadIn")))
        {
            var touching = facts.Eased.Where(e => e.EasierBy > 0 && IsAbout(e, line)).ToList();
            var at = line.Drill.Variants.Index().First(v => v.Item == line.Variant).Index;
            var hardest = Hardest(line, facts, touching.Min(e => e.Since));
            if (touching.Count > 0 && at > Math.Max(0, hardest - touching.Max(e => e.EasierBy)))
                yield return new(7, "notEased", line.Drill.Key);
            else if (at > hardest)
                yield return new(7, "variantTooHard", line.Drill.Key);
        }
    }

    /// <summary>The hardest variant that somebody may do: the easiest of the stage, what was done last, or the one after it.</summary>
    private static int Hardest(Line line, Trainee facts, DateOnly? before)
    {
        var skill = line.Course.Ladder.Skill;
        var variants = line.Drill.Variants;
        var number = Math.Clamp(line.Side.Stage, 1, line.Course.Ladder.Stages.Count);
        var stage = line.Course.Ladder.Stages[number - 1].TrainsAs ?? number;
        int From(Variant v) => v.FromStages is { } own && own.TryGetValue(skill, out var f) ? f : v.FromStage;
        int To(Variant v) => v.ToStages is { } own && own.TryGetValue(skill, out var t) ? t : v.ToStage;
        var left = (line.Side.Side ?? Side.Left) == Side.Left ? line.Course.Left : line.Course.Right;
        var support =
            line.Drill.FitsMeasure is { } measure && left.Supports.TryGetValue(measure, out var read)
                ? variants.Where(v => v.Fits >= read).Min(v => v.Fits) ?? variants.Max(v => v.Fits)
                : null;
        var open = Enumerable.Range(0, variants.Count).Where(i => support is null || variants[i].Fits == support).ToList();
        var range = open.Where(i => From(variants[i]) <= stage && stage <= To(variants[i])).ToList();
        var below = open.Where(i => From(variants[i]) <= stage).ToList();
        var easiest =
            range.Count > 0 ? range[0]
            : below.Count > 0 ? below[^1]
            : open.Count > 0 ? open[0]
            : 0;
        var most = range.Count > 0 ? range[^1] : easiest;
        // With a best in what the gate reads, that is no step any more.
        foreach (var want in line.Side.Side is null ? line.Course.Left.Wanted.Concat(line.Course.Right.Wanted) : left.Wanted)
            if (want.Drill == line.Drill.Key)
            {
                var asked = Enumerable.Range(0, variants.Count).Where(i => variants[i].Key == want.Variant).DefaultIfEmpty(most).First();
                most = Math.Max(most, asked);
                if (want.Best is not null)
                    easiest = Math.Max(easiest, asked);
            }
        var days = facts.History.Days.Where(d => before is null || d.Day < before).Reverse();
        int? last = null;
        var full = 0;
        foreach (var day in days)
        {
            var here = day
                .Worked.Where(w => w.Drill == line.Drill.Key && w.Skill is null || w.Drill == line.Drill.Key && w.Skill == skill)
                .Where(w => w is { LedIn: false, UnderBar: false })
                .Where(w => line.Side.Side is null || w.Side is null || w.Side == line.Side.Side)
                .Select(w =>
                    (At: Enumerable.Range(0, variants.Count).Where(i => variants[i].Key == w.Variant).DefaultIfEmpty(-1).First(), w.Full)
                )
                .Where(w => w.At >= 0)
                .ToList();
            if (here.Count == 0)
                continue;
            last ??= here.Max(h => h.At);
            full += here.Count(h => h.At == last && h.Full);
        }
        return Math.Max(easiest, Math.Min(most, (last ?? 0) + (full >= 2 && !IsHeldBack(line, facts) ? 1 : 0)));
    }
}
