using Tensarch.Core.Planning;
using Tensarch.Core.Students;

namespace Tensarch.Core.Programmes;

/// <summary>All that a plan is made of.</summary>
/// <param name="Facts">The student on a day, with so many minutes, and with nothing of the plan.</param>
/// <param name="From">The first day that is planned; what was before it is done or missed.</param>
public sealed record PlanFor(Programme Programme, Func<DateOnly, int, Trainee> Facts, DateOnly From)
{
    /// <summary>Sessions of the programme that were trained, in any order.</summary>
    public IReadOnlyList<DoneDay> Done { get; init; } = [];

    /// <summary>Days that a coach pinned: they stay as they are.</summary>
    public IReadOnlyList<LockedDay> Locked { get; init; } = [];

    internal LockedDay? LockOf(TrainingSlot slot) => Locked.FirstOrDefault(l => l.Slot.Day == slot.Day && l.Slot.Half == slot.Half);

    /// <summary>What was planned before, as far as it is still to come; what the student has seen of it moves as little as possible.</summary>
    public IReadOnlyDictionary<(DateOnly Day, DayHalf Half), DayAsk> Before { get; init; } =
        new Dictionary<(DateOnly Day, DayHalf Half), DayAsk>();

    /// <summary>What the student has seen already.</summary>
    public IReadOnlyDictionary<(DateOnly Day, DayHalf Half), DayAsk> Seen { get; init; } =
        new Dictionary<(DateOnly Day, DayHalf Half), DayAsk>();
}

/// <param name="Skills">That it was an exposure of.</param>
/// <param name="Tested">Skills that were tested in it.</param>
public sealed record DoneDay(DateOnly Day, IReadOnlyCollection<string> Skills, IReadOnlyCollection<string> Tested);

/// <summary>A session that stays as it is.</summary>
public sealed record LockedDay(TrainingSlot Slot, SessionPlan Plan, DayAsk Ask);
