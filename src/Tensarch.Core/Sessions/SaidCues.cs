using Tensarch.Core.Planning;

namespace Tensarch.Core.Sessions;

/// <summary>
/// What is said over one side of a drill. First, in every round, what must be said; then what belongs to a position or phase, in turns; and what
/// found no turn of its own is said as the second thing in a stretch that has time for it, so that each cue is said once a drill.
/// </summary>
internal static class SaidCues
{
    public static IReadOnlyList<Segment> Over(IReadOnlyList<Segment> segments, IReadOnlyList<Cue> cues, string variant)
    {
        var mine = cues.Where(c => c.IsOf(variant)).ToList();
        var stretches = segments.Where(s => s.Kind == SegmentKind.Work).Select(s => new Stretch(s)).ToList();
        foreach (var must in mine.Where(c => c.Must))
        foreach (var round in stretches.Where(s => Fits(must, s)).GroupBy(s => s.Segment.Round))
            if (must is { At: null, Position: null })
                round.First().Say(must.Aloud, [must]);
            else
                foreach (var stretch in round)
                    stretch.Say(must.Aloud, [must]);
        InTurns(stretches, [.. mine.Where(c => !c.Must)]);
        foreach (var left in mine.Where(c => !c.Must && !stretches.Exists(s => s.Cues.Contains(c))))
            stretches
                .Where(s => Fits(left, s) && (s.HasTimeLaterFor(left.Aloud) || s.HasTimeAtOnceFor(left.Aloud)))
                .MinBy(s => s.Later.Count)
                ?.SayLater(left);
        var next = 0;
        return [.. segments.Select(s => s.Kind == SegmentKind.Work ? stretches[next++].Spoken : s)];
    }

    /// <summary>One thing in each stretch, another one each time it comes round.</summary>
    private static void InTurns(List<Stretch> stretches, List<Cue> cues)
    {
        var turns = new Dictionary<Cue, int>(ReferenceEqualityComparer.Instance);
        foreach (var stretch in stretches)
        {
            var here = cues.Where(c => c.Position is not null && c.Position == stretch.Segment.Label).ToList();
            if (here.Count == 0)
                here = [.. cues.Where(c => c.Position is null && c.At == stretch.Segment.Phase)];
            if (here.Count == 0)
                here = [.. cues.Where(c => c is { Position: null, At: null })];
            if (here.Count == 0)
                continue;
            // Of a repeated movement both ways with their breath.
            var ways = here.Where(c => c.Breath != CueBreath.Free).ToList();
            List<(string Aloud, List<Cue> Of)> lines =
                stretch.Segment.Phase == Phase.Repeat && ways.Count > 1
                    ?
                    [
                        (string.Join("; ", ways.Select(c => c.Aloud)), ways),
                        .. here.Except(ways).Select(c => (c.Aloud, new List<Cue> { c })),
                    ]
                    : [.. here.Select(c => (c.Aloud, new List<Cue> { c }))];
            var turn = turns[here[0]] = turns.GetValueOrDefault(here[0], -1) + 1;
            var line = lines[turn % lines.Count];
            if (stretch.Said.Count == 0 || stretch.HasTimeFor(line.Aloud))
                stretch.Say(line.Aloud, line.Of);
        }
    }

    private static bool Fits(Cue cue, Stretch stretch) =>
        (cue.Position is null || cue.Position == stretch.Segment.Label) && (cue.At is null || cue.At == stretch.Segment.Phase);

    private sealed class Stretch(Segment segment)
    {
        /// <summary>Between one thing said and the next there is quiet: to each belongs so much time at least.</summary>
        private const int SecondsEach = 8;

        public Segment Segment => segment;

        public List<string> Said { get; } = [];

        public List<string> Later { get; } = [];

        public HashSet<Cue> Cues { get; } = new(ReferenceEqualityComparer.Instance);

        public Segment Spoken =>
            Said.Count == 0 ? segment
            : Later.Count == 0 ? segment with { Cue = string.Join(". ", Said) }
            : segment with
            {
                Cue = string.Join(". ", Said),
                Later = [.. Later.Select((says, i) => new LaterCue((i + 1) * segment.Seconds / (Later.Count + 1), says))],
            };

        public bool HasTimeFor(string aloud) => Said.Append(aloud).Sum(Cue.SecondsToSay) <= segment.Seconds;

        /// <summary>Where there is no time for quiet between them, two things are said at once.</summary>
        public bool HasTimeAtOnceFor(string aloud) => Later.Count == 0 && Said.Count < 3 && HasTimeFor(aloud);

        public bool HasTimeLaterFor(string aloud) =>
            segment.Seconds / (Later.Count + 2.0) is var each
            && each >= SecondsEach
            && Later.Append(aloud).Append(string.Join(' ', Said)).All(s => Cue.SecondsToSay(s) <= each);

        public void Say(string aloud, IEnumerable<Cue> of)
        {
            Said.Add(aloud);
            Cues.UnionWith(of);
        }

        public void SayLater(Cue cue)
        {
            if (HasTimeLaterFor(cue.Aloud))
                Later.Add(cue.Aloud);
            else
                Said.Add(cue.Aloud);
            Cues.Add(cue);
        }
    }
}
