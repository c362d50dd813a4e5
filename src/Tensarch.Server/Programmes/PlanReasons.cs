using Tensarch.Core.Programmes;
using Tensarch.Core.Students;
using Tensarch.Server.Data;

namespace Tensarch.Server.Programmes;

/// <summary>Asks the core why the sessions of a plan are as they are.</summary>
internal sealed class PlanReasons(ProgrammeSketch sketch, StoredPlan plan, IReadOnlyDictionary<Guid, SessionRow> rows)
{
    private readonly Dictionary<(DateOnly, DayHalf), TrainingSlot> slots = sketch.Slots().ToDictionary(s => (s.Day, s.Half));
    private readonly ILookup<int, (StoredDay Stored, ReasonedDay Day)> weeks = plan
        .Days.Select(d => (d, Read(d, rows)))
        .ToLookup(d => d.d.Week);
    private readonly ILookup<int, ReasonedLoad> loads = plan.Loads.ToLookup(
        l => l.Week,
        l => new ReasonedLoad(l.Tag, l.Side, l.Load, l.Ceiling)
    );

    public IReadOnlyList<DayReason> Of(StoredDay day, bool backOff) =>
        DayReasons.Of(
            weeks[day.Week].First(d => d.Stored == day).Day,
            [.. weeks[day.Week].Select(d => d.Day)],
            backOff,
            slots.GetValueOrDefault((day.Day, day.Half)),
            loads[day.Week]
        );

    private static ReasonedDay Read(StoredDay day, IReadOnlyDictionary<Guid, SessionRow> rows) =>
        new(
            day.Day,
            day.Half,
            [.. day.Blocks.Where(b => b.Exposes).Select(b => b.Skill)],
            [.. day.Ask?.Of(BlockAim.Test) ?? []],
            day.TestMinutes,
            day.Pinned,
            day.Session is { } id && rows.GetValueOrDefault(id)?.Before is not null,
            day.Broken ?? [],
            day.WhyNotMore ?? []
        );
}
