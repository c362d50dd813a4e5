using Tensarch.Core.Planning;
using Tensarch.Core.Sessions;

namespace Tensarch.Core.Programmes;

public enum BlockAim
{
    /// <summary>All of the skill's work that is allowed.</summary>
    Train,

    /// <summary>Nothing of it heavily.</summary>
    Light,

    /// <summary>What its next gate still asks to be shown.</summary>
    Test,
}

/// <summary>What is asked of one skill on a day.</summary>
public sealed record BlockOrder(string Skill, BlockAim Kind);

/// <summary>What is asked of a day: its skills, the most important first, and how much of the week's step.</summary>
/// <param name="Level">As of <see cref="DayOrder.Level"/>.</param>
public sealed record DayAsk(IReadOnlyList<BlockOrder> Blocks, int Level)
{
    public IEnumerable<string> Of(BlockAim kind) => Blocks.Where(b => b.Kind == kind).Select(b => b.Skill);

    public override string ToString() => $"{string.Join("+", Blocks.Select(b => $"{b.Skill}:{b.Kind}"))}@{Level}";
}

/// <summary>The main work of one skill on one day, frozen: its drills, its time to the second and what it loads.</summary>
/// <param name="Seconds">With setting up, changing sides and rests.</param>
/// <param name="Exposes">The stage's core is in it, at least half: it counts for the skill's exposures of the week.</param>
/// <param name="Entries">It tries a balance or an end position: it wants fresh nerves.</param>
public sealed record Block(
    string Skill,
    BlockAim Kind,
    int Level,
    IReadOnlyList<PlannedDrill> Drills,
    int Seconds,
    LoadLedger Load,
    bool Exposes,
    bool Entries
);

/// <summary>A day that was assembled: its session, the blocks in it, and what all of it loads.</summary>
/// <param name="FrameSeconds">Warm-up and calm.</param>
/// <param name="Load">Of blocks and frame together: what they share is counted once.</param>
/// <param name="Spacing">Regions that are loaded heavily at the end of a range, each with the calendar days that it keeps clear before.</param>
public sealed record DayOffer(
    DayAsk Ask,
    SessionPlan Plan,
    IReadOnlyList<Block> Blocks,
    int FrameSeconds,
    LoadLedger Load,
    IReadOnlyDictionary<Students.LoadTag, int> Spacing
)
{
    public int Seconds => FrameSeconds + Blocks.Sum(b => b.Seconds);

    public IEnumerable<string> Exposed => Blocks.Where(b => b.Exposes).Select(b => b.Skill);
}
