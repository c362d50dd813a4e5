using Tensarch.Core.Skills;
using Tensarch.Server.Data;

namespace Tensarch.Server.Sessions;

/// <summary>What is said of a set instead, field by field: what is none stays as it was.</summary>
public sealed record SetInstead(bool? Confirmed = null, double? Seconds = null, int? CleanReps = null, int? Quality = null);

/// <summary>Sets as they stand: what was corrected, what was confirmed, and what counts for nothing.</summary>
public static class SetCorrections
{
    /// <summary>The set with what its corrections say, the newest last; none when the newest word is that it counts for nothing.</summary>
    public static LoggedSet? Stand(LoggedSet set, bool confirmed, IEnumerable<CorrectionRow> corrections)
    {
        var (seconds, reps, quality, gone) = (set.Seconds, set.CleanReps, set.Quality, false);
        foreach (var correction in corrections.OrderBy(c => c.At).ThenBy(c => c.Id))
        {
            gone = correction.InsteadJson is null;
            if (StoredJson.TryRead<SetInstead>(correction.InsteadJson) is not { } instead)
                continue;
            confirmed = instead.Confirmed ?? confirmed;
            seconds = instead.Seconds ?? seconds;
            reps = instead.CleanReps ?? reps;
            quality = instead.Quality ?? quality;
        }
        return gone ? null
            : confirmed ? set with { Seconds = seconds, CleanReps = reps, Quality = quality }
            // Practice: it is trained, and proves nothing.
            : set with { Seconds = null, CleanReps = null, Quality = quality };
    }
}
