using Tensarch.Core.Students;

namespace Tensarch.Core.Planning;

/// <summary>A version of an own drill, under the key of the shipped one that it is made of.</summary>
/// <param name="Dose">What of the usual dose is otherwise.</param>
public sealed record OwnVariant(string Key, string Name, DoseNumbers? Dose = null);

/// <summary>
/// A studio's copy of a shipped drill: its words, props and doses are the coach's. What it loads can be made stricter and never lighter, and
/// everything that keeps a body safe (stages, day gates, the way out, the counter) is that of the shipped one.
/// </summary>
/// <param name="Loads">What it loads beyond the shipped one.</param>
public sealed record OwnDrill(
    string Name,
    IReadOnlyList<string> Cues,
    IReadOnlyList<string> Checks,
    IReadOnlyList<string> StopSigns,
    IReadOnlyList<string> Props,
    IReadOnlyList<OwnVariant> Variants,
    IReadOnlyDictionary<LoadTag, LoadLevel> Loads
)
{
    /// <summary>So much more than usual is still within the safe range, where the drill has no ceiling.</summary>
    private const double PastUsual = 1.5;

    /// <returns>
    /// At the field: <c>required</c>, <c>unknownVariant</c>, <c>namedTwice</c>, <c>doseOutOfRange</c> (numbers: least, most), <c>loadBelow</c>.
    /// </returns>
    public IReadOnlyList<Problem> Check(Drill source)
    {
        var problems = new List<Problem>();
        if (string.IsNullOrWhiteSpace(Name))
            problems.Add(Problem.Of("required", "name"));
        if (Cues.Count == 0 || Cues.Any(string.IsNullOrWhiteSpace))
            problems.Add(Problem.Of("required", "cues"));
        foreach (var (i, variant) in Variants.Index())
        {
            if (source.Variants.FirstOrDefault(v => v.Key == variant.Key) is not { } of)
                problems.Add(Problem.Of("unknownVariant", $"variants[{i}].key"));
            else if (Variants.Take(i).Any(v => v.Key == variant.Key))
                problems.Add(Problem.Of("namedTwice", $"variants[{i}].key"));
            else if (string.IsNullOrWhiteSpace(variant.Name))
                problems.Add(Problem.Of("required", $"variants[{i}].name"));
            else if (variant.Dose is { } dose)
                problems.AddRange(Check(source, of, dose, $"variants[{i}].dose"));
        }
        foreach (var (tag, level) in Loads)
            if (level < source.Variants.Max(v => (v.Loads ?? source.Loads).GetValueOrDefault(tag)))
                problems.Add(Problem.Of("loadBelow", $"loads.{tag}"));
        return problems;
    }

    /// <summary>Whether it still is a copy of the drill as that is now. A load that the drill has gained since, it has too: see <see cref="Of"/>.</summary>
    public bool Stands(Drill source) => Check(source).All(p => p.Code == "loadBelow");

    private static IEnumerable<Problem> Check(Drill source, Variant variant, DoseNumbers numbers, string field)
    {
        var usual = source.DoseOf(variant);
        var longest = (int)(PastUsual * Longest(usual));
        var most = Math.Max(source.Ceiling ?? longest, Longest(usual));
        foreach (
            var (value, least, limit, name) in new[]
            {
                (numbers.Rounds, 1, PlanEditor.MostRounds, "rounds"),
                (numbers.Seconds, 1, most, "seconds"),
                (numbers.Breaths, 1, most, "breaths"),
                (numbers.Reps, 1, Math.Max(most, 1), "reps"),
                (numbers.RestSeconds, 0, PlanEditor.MostSeconds, "restSeconds"),
                (numbers.SettleSeconds, 5, most, "settleSeconds"),
                (numbers.PressSeconds, 3, 30, "pressSeconds"),
                (numbers.LiftSeconds, 3, 30, "liftSeconds"),
                (numbers.ResettleSeconds, 5, most, "resettleSeconds"),
                (numbers.ToPercent, 20, usual is RampedDose ramp ? ramp.ToPercent : 100, "toPercent"),
            }
        )
            if (value < least || value > limit)
                yield return Problem.Of("doseOutOfRange", $"{field}.{name}", ("least", least), ("most", limit));
    }

    private static int Longest(Dose dose) =>
        dose switch
        {
            HoldDose d => d.Seconds ?? d.Breaths ?? 1,
            RampedDose d => Math.Max(d.SettleSeconds, d.ResettleSeconds),
            SupportLadderDose d => d.Rungs[^1].Seconds,
            AttemptsDose d => d.MaxSeconds,
            RepsDose d => d.Reps,
            RhythmDose d => d.Reps,
            _ => 1,
        };

    /// <summary>The drill that a session does. What cannot stand beside the shipped one any more is the shipped one's.</summary>
    /// <param name="gone">It was taken out of the library: it stays readable, and is not offered.</param>
    public Drill Of(Drill source, string key, bool gone)
    {
        IReadOnlyDictionary<LoadTag, LoadLevel> Heavier(IReadOnlyDictionary<LoadTag, LoadLevel> loads) =>
            loads
                .Keys.Union(Loads.Keys)
                .ToDictionary(t => t, t => (LoadLevel)Math.Max((int)loads.GetValueOrDefault(t), (int)Loads.GetValueOrDefault(t)));
        return source with
        {
            Key = key,
            Name = Name.Trim(),
            // What must be said stays; what the shipped drill says too keeps its phase and its breath.
            Cues =
            [
                .. source.Cues.Where(c => c.Must && !Cues.Contains(c.Says)),
                .. Cues.Select(c => source.Cues.FirstOrDefault(s => s.Says == c) ?? new Cue(c)),
            ],
            // Nobody but who made it knows what it asks of somebody alone.
            Alone = Alone.Never,
            Checks = Checks,
            StopSigns = StopSigns,
            Props = Props,
            Loads = Heavier(source.Loads),
            Variants =
            [
                .. source.Variants.Select(v =>
                    Variants.FirstOrDefault(o => o.Key == v.Key) is { } own
                        ? v with
                        {
                            Name = own.Name.Trim(),
                            Dose = own.Dose is { } numbers ? numbers.On(source.DoseOf(v)) : v.Dose,
                            Loads = v.Loads is { } l ? Heavier(l) : null,
                        }
                        : v with
                        {
                            Loads = v.Loads is { } loads ? Heavier(loads) : null,
                        }
                ),
            ],
            Was = null,
            AlternativeTo = source.Key,
            CopyOf = source.Key,
            Gone = gone,
        };
    }
}
