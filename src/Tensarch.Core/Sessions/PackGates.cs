using Tensarch.Core.Catalogue;
using Tensarch.Core.Planning;

namespace Tensarch.Core.Sessions;

/// <summary>Prepares the day gates of a session: who needs them, what they ask, what each answer does.</summary>
/// <param name="line">The slots, one for each part; a slot may get a version more.</param>
internal sealed class PackGates(
    PackSlots slots,
    IReadOnlyList<TimelinePart> parts,
    List<PackSlot> line,
    Trainee who,
    CatalogueContent content
)
{
    public IReadOnlyList<PackGate> Write() =>
        [
            .. from gate in content.DayGates
            from side in SidesOf(gate)
            let needing = Needing(gate, side)
            where needing.Count > 0
            select Gate(gate, side, needing),
        ];

    /// <summary>One for each side where its tests have sides, else one for both.</summary>
    private List<Side?> SidesOf(DayGate gate)
    {
        var sides = parts.Where(p => IsTestOf(gate, p)).Select(p => p.PlannedSide.Side).Distinct().ToList();
        return sides.Count == 0 ? [null] : sides;
    }

    private static bool IsTestOf(DayGate gate, TimelinePart part) =>
        part.Planned.Reason.Code == "dayGate" && gate.Tests.Any(t => t.Drill == part.Planned.Drill);

    private List<int> Needing(DayGate gate, Side? side) =>
        [
            .. parts
                .Index()
                .Where(p =>
                    p.Item.Planned.Reason.Code != "dayGate"
                    && (side is null || p.Item.PlannedSide.Side is null || p.Item.PlannedSide.Side == side)
                    && Drill(p.Item) is var drill
                    && who.GatesOf(drill, drill.VariantAt(p.Item.PlannedSide.Variant)).Contains(gate.Key)
                    && !(gate.FirstTime && who.History.Knows(drill.Key, p.Item.PlannedSide.Variant))
                )
                .Select(p => p.Index),
        ];

    private Drill Drill(TimelinePart part) => content.Drill(part.Planned.Drill);

    private PackGate Gate(DayGate gate, Side? side, List<int> needing)
    {
        var name = $"{gate.Key}/{side}";
        var tests = parts
            .Index()
            .Where(p => IsTestOf(gate, p.Item) && (side is null || p.Item.PlannedSide.Side == side))
            .Select(p => p.Index);
        return new(
            slots.Opaque(name),
            gate.Key,
            gate.Name,
            gate.Test,
            side,
            [.. tests.Select(i => line[i].Id)],
            [.. needing.Select(i => new PackNeed(line[i].Id, line[i].Versions[0].Easier))],
            [.. gate.Checks.Select(PackCheck.Of)],
            [.. gate.Checks.Select(c => Instead(gate, c.Key, side, needing)).OfType<PackInstead>()],
            gate.FirstTime
        );
    }

    private PackInstead? Instead(DayGate gate, string failed, Side? side, List<int> needing)
    {
        var needed = needing.Select(i => parts[i].Planned.Drill).ToHashSet();
        if (gate.Instead(failed, who.On(parts[needing[0]].Planned.Skill).Skill, needed, who.Bars, content) is not { } instead)
            return null;
        var planned = parts
            .Index()
            .FirstOrDefault(p =>
                !needing.Contains(p.Index)
                && p.Item.Planned.Reason.Code != "dayGate"
                && instead.Drills.Any(d => d.Drill == p.Item.Planned.Drill && d.Variant == p.Item.PlannedSide.Variant)
                && (side is null || p.Item.PlannedSide.Side is null || p.Item.PlannedSide.Side == side)
            );
        if (planned.Item is not null && slots.WithMore(line[planned.Index], planned.Item) is { } more)
        {
            line[planned.Index] = more.Slot;
            return new(failed, [], more.Slot.Id, more.Version);
        }
        var (stage, skill) = (parts[needing[0]].PlannedSide.Stage, parts[needing[0]].Planned.Skill);
        return new(
            failed,
            [
                .. from at in instead.Drills
                from of in SidesFor(content.Drill(at.Drill), side)
                select slots.Instead($"{gate.Key}/{side}/{failed}/{at.Drill}/{of}", at, of, stage, skill),
            ]
        );
    }

    private static IEnumerable<Side?> SidesFor(Drill drill, Side? side) =>
        drill.Sides != SideMode.Each ? [null]
        : side is not null ? [side]
        : [Side.Left, Side.Right];
}
