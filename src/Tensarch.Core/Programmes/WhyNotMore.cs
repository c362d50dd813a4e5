using Tensarch.Core.Planning;
using Tensarch.Core.Students;

namespace Tensarch.Core.Programmes;

/// <summary>
/// Why a session of a solved piece is no more than it is: with all else as it was chosen, the session that gives a skill more breaks a rule, or
/// costs something. Counted from the rules, and not from the solver's model.
/// </summary>
internal sealed class WhyNotMore(PieceProblem problem, PieceAnswer answer, Piece piece)
{
    private const int WristDays = 2;
    private const int NeckDays = 3;
    private const int NeckWindow = 7;
    private readonly List<(PieceSlot Slot, Choice Choice)> days =
    [
        .. problem.Slots.Select((slot, s) => (slot, slot.Choices[answer.Chosen[s]])),
    ];

    /// <param name="slot">Of the problem.</param>
    /// <returns>One reason for each skill of the session that is below the week's step.</returns>
    public IEnumerable<DayReason> Of(int slot)
    {
        var offers = piece.OffersAt(slot);
        var chosen = offers[answer.Chosen[slot]];
        foreach (var block in chosen.Blocks.Where(b => b.Kind == BlockAim.Light || b.Level < DayOrder.Whole))
        {
            var more = offers
                .Index()
                .Where(o => o.Item.Blocks.Any(b => b.Skill == block.Skill && More(b, block)))
                // What is most like it says most.
                .OrderBy(o => o.Item.Blocks.Select(b => b.Skill).Except(chosen.Blocks.Select(b => b.Skill)).Count())
                .ThenBy(o => chosen.Blocks.Select(b => b.Skill).Except(o.Item.Blocks.Select(b => b.Skill)).Count())
                .Select(o => o.Index)
                .ToList();
            yield return Reason(slot, block.Skill, more) with
            {
                Skill = block.Skill,
            };
        }
    }

    private static bool More(Block than, Block block) =>
        than.Kind != BlockAim.Light && (block.Kind == BlockAim.Light || than.Level > block.Level && than.Kind == block.Kind);

    private DayReason Reason(int slot, string skill, List<int> more)
    {
        if (more.Count == 0)
            return new(DayReasonKind.NoMore);
        var broken = more.Select(c => Broken(slot, problem.Slots[slot].Choices[c])).ToList();
        return broken.TrueForAll(b => b is not null)
            ? broken[0]!
            : Costs(slot, skill, problem.Slots[slot].Choices[more[broken.IndexOf(null)]]);
    }

    /// <summary>The first rule that a choice of a slot breaks, everything else as it was chosen.</summary>
    private DayReason? Broken(int slot, Choice choice) =>
        Apart(slot, choice)
        ?? Running(slot, choice, LoadTag.Wrist, WristDays + 1, WristDays, DayReasonKind.WristDays)
        ?? Running(slot, choice, LoadTag.Neck, NeckWindow, NeckDays, DayReasonKind.NeckDays)
        ?? Load(slot, choice);

    private DayReason? Apart(int slot, Choice choice)
    {
        var day = problem.Slots[slot].Day;
        foreach (var ((other, at), s) in days.Select((d, s) => (d, s)).Where(d => d.s != slot))
        {
            var (earlier, later) = s < slot ? (at, choice) : (choice, at);
            var between = Math.Abs(other.Day.DayNumber - day.DayNumber);
            foreach (var (tag, keeps) in later.Spacing)
                if (between < keeps && earlier.Heavy.Contains(tag))
                    return new(DayReasonKind.Spacing, Day: other.Day, Tag: tag, Number: keeps);
            if (between == 1 && later.Fresh.FirstOrDefault(earlier.Heavy.Contains) is var fresh && later.Fresh.Any(earlier.Heavy.Contains))
                return new(DayReasonKind.Fresh, Day: other.Day, Tag: fresh);
        }
        return null;
    }

    private DayReason? Running(int slot, Choice choice, LoadTag tag, int window, int most, DayReasonKind kind)
    {
        if (!choice.Heavy.Contains(tag))
            return null;
        var day = problem.Slots[slot].Day;
        var heavy = problem
            .Heavy.Where(h => h.Tags.Contains(tag))
            .Select(h => h.Day)
            .Concat(days.Where((d, s) => s != slot && d.Choice.Heavy.Contains(tag)).Select(d => d.Slot.Day))
            .Append(day)
            .ToHashSet();
        return Enumerable.Range(0, window).Any(back => Enumerable.Range(0, window).Count(i => heavy.Contains(day.AddDays(i - back))) > most)
            ? new(kind, Tag: tag, Number: most, Of: window)
            : null;
    }

    private DayReason? Load(int slot, Choice choice)
    {
        var week = problem.Slots[slot].Week;
        foreach (var (track, t) in problem.Loads.Select((track, t) => (track, t)))
        {
            var loads = track.Weeks.ToDictionary(w => w.Week, w => LoadOf(t, w.Week, slot, choice));
            var most = piece.MostOf(track.Key, week, loads);
            if (choice.Loads[t] > days[slot].Choice.Loads[t] && loads[week] > most)
                return new(DayReasonKind.WeekLoad, Tag: track.Key.Tag, Limb: track.Key.Limb, Of: LoadCeiling.Shown(track.Key.Tag, most));
        }
        return null;
    }

    private int LoadOf(int track, int week, int slot, Choice choice) =>
        problem.Loads[track].Weeks.Where(w => w.Week == week).Sum(w => w.Done)
        + days.Select((d, s) => d.Slot.Week == week ? (s == slot ? choice : d.Choice).Loads[track] : 0).Sum();

    /// <summary>No rule is in the way: what it would make worse.</summary>
    private DayReason Costs(int slot, string skill, Choice choice)
    {
        var (day, was) = (problem.Slots[slot].Day, days[slot].Choice);
        var beside = days.Where((d, s) => s != slot && Math.Abs(d.Slot.Day.DayNumber - day.DayNumber) == 1).ToList();
        if (choice.Hard && !was.Hard && beside.Any(b => b.Choice.Hard))
            return new(DayReasonKind.HardDays, Day: beside.First(b => b.Choice.Hard).Slot.Day);
        var week = problem.Slots[slot].Week;
        var given = days.Count(d => d.Slot.Week == week && d.Choice.Exposes.Contains(skill));
        return
            choice.Exposes.Contains(skill)
            && !was.Exposes.Contains(skill)
            && problem.Asked.Any(a => a.Week == week && a.Skill == skill && given >= a.Exposures)
            ? new(DayReasonKind.Enough)
            : Larger(slot, choice) ?? new(DayReasonKind.Others);
    }

    private DayReason? Larger(int slot, Choice choice)
    {
        foreach (var (track, t) in problem.Loads.Select((track, t) => (track, t)))
        {
            var largest = track.Weeks.Max(w => LoadOf(t, w.Week, slot, days[slot].Choice));
            if (LoadOf(t, problem.Slots[slot].Week, slot, choice) > Math.Max(track.Carried, largest))
                return new(
                    DayReasonKind.LargestWeek,
                    Tag: track.Key.Tag,
                    Limb: track.Key.Limb,
                    Of: LoadCeiling.Shown(track.Key.Tag, largest)
                );
        }
        return null;
    }
}
