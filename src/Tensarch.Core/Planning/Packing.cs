using System.ComponentModel.DataAnnotations;
using Tensarch.Core.Catalogue;

namespace Tensarch.Core.Planning;

/// <summary>What does in the place of a prop in a household.</summary>
public sealed record StandIn([RegularExpression(Key.Pattern)] string Prop, [Required, StringLength(80)] string What)
{
    /// <summary>What stands in where a studio says nothing else; of a wall nothing does.</summary>
    public static readonly IReadOnlyList<StandIn> Shipped =
    [
        new("block", "a stack of books of the same height, tied"),
        new("bolster", "two pillows rolled into a blanket"),
        new("bench", "a sturdy sofa, or two chairs against a wall"),
        new("chair", "the edge of a sofa"),
        new("cushion", "a folded towel"),
        new("folded-blanket", "two bath towels, folded flat"),
        new("knee-pad", "a folded towel"),
        new("sliders", "socks on a smooth floor"),
        new("strap", "a belt or a long towel"),
        new("wedge", "a rolled mat under the heels"),
    ];

    /// <summary>The studio's word where it has one, else the shipped one.</summary>
    public static IReadOnlyList<StandIn> With(IReadOnlyList<StandIn> own) =>
        [.. Shipped.Select(s => own.FirstOrDefault(o => o.Prop == s.Prop) ?? s)];

    /// <returns><c>unknownProp</c> for what is no prop, <c>required</c> for an empty one, at its place.</returns>
    public static List<Problem> Check(IReadOnlyList<StandIn> standIns) =>
        [
            .. standIns
                .Index()
                .SelectMany<(int Index, StandIn Item), Problem>(s =>
                    Shipped.All(known => known.Prop != s.Item.Prop) ? [Problem.Of("unknownProp", $"standIns[{s.Index}].prop")]
                    : string.IsNullOrWhiteSpace(s.Item.What) ? [Problem.Of("required", $"standIns[{s.Index}].what")]
                    : []
                ),
        ];
}

/// <summary>A thing that a session needs.</summary>
/// <param name="Count">So many of it, where they are counted: blocks.</param>
/// <param name="AtHome">The student has it at home.</param>
/// <param name="Instead">What does in its place in a household, where they have none.</param>
public sealed record PackingLine(string Prop, int? Count, bool AtHome, string? Instead)
{
    /// <summary>Everything that the drills of a plan need, each thing once, in the order of the session.</summary>
    /// <param name="blocksOwned">Both hands together.</param>
    /// <param name="equipment">Keys of what the student has at home: <see cref="Students.HomeProps"/>.</param>
    public static IReadOnlyList<PackingLine> Of(
        SessionPlan plan,
        CatalogueContent catalogue,
        int blocksOwned,
        IReadOnlyCollection<string> equipment,
        IReadOnlyList<StandIn> standIns
    )
    {
        // Of blocks, as many as the most that one drill stacks under both hands; a drill that names them and stacks none needs one.
        var blocks = plan.Drills.Max(d => d.Sides.Max(s => (int?)(s.Props?.Faces.Count * 2))) ?? 0;
        if (plan.Drills.SelectMany(d => d.Sides).Any(s => s.Dose is SupportLadderDose ladder && ladder.Rungs.Any(r => r.OnBlocks)))
            blocks = Math.Max(blocks, 2);
        return
        [
            .. plan
                .Drills.SelectMany(d => Props(d, catalogue.Drill(d.Drill)))
                .Distinct()
                .Select(prop =>
                {
                    var count = prop == "block" ? Math.Max(1, blocks) : (int?)null;
                    var owned = count is { } c ? blocksOwned >= c : Has(equipment, prop);
                    return new PackingLine(prop, count, owned, owned ? null : standIns.FirstOrDefault(s => s.Prop == prop)?.What);
                }),
        ];
    }

    /// <summary>What the drill names; where the advice for it is the floor or chairs, no blocks, and the chairs.</summary>
    private static IEnumerable<string> Props(PlannedDrill planned, Drill drill)
    {
        var advice = planned.Sides.Select(s => s.Props).OfType<PropAdvice>().ToList();
        var noBlocks =
            advice.Count > 0
            && advice.All(a => a.Faces.Count == 0)
            && !planned.Sides.Any(s => s.Dose is SupportLadderDose ladder && ladder.Rungs.Any(r => r.OnBlocks));
        var chairs =
            advice.Any(a => a.Faces.Count == 0 && a.HeightCm > 0)
            || planned.Sides.Any(s => s.Dose is SupportLadderDose ladder && ladder.Rungs.Any(r => r.Face == "chair"));
        return drill.Props.Where(p => p != "block" || !noBlocks).Concat(chairs ? ["chair"] : []);
    }

    private static bool Has(IReadOnlyCollection<string> equipment, string prop) =>
        equipment.Any(e => e == prop || e.StartsWith(prop + "-", StringComparison.Ordinal));
}
