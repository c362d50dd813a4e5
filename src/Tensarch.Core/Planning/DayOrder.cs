using Tensarch.Core.Sessions;
using Tensarch.Core.Students;

namespace Tensarch.Core.Planning;

/// <summary>What a day of a plan asks of its session: how much of the week's step, which skills lightly, and no more load than so much.</summary>
/// <param name="Level">
/// Of the week's step: 100 all of it, 90 all of it in what the week's other exposures leave room for, 80 a step less, 60 the first week's dose.
/// </param>
/// <param name="Light">Skills of which nothing is done heavily.</param>
/// <param name="Most">By tag and side, in the ledger's units; none where only the rules limit it.</param>
public sealed record DayOrder(int Level, IReadOnlySet<string> Light, IReadOnlyDictionary<LoadKey, int>? Most = null)
{
    /// <summary>In seconds, of what is light only.</summary>
    internal IReadOnlyDictionary<(string Drill, Side? Side), double>? MostWork { get; init; }

    /// <summary>In seconds, of all main work on what is light only.</summary>
    internal IReadOnlyDictionary<LoadTag, double>? MostOn { get; init; }

    public const int Whole = 100;
    public const int Portion = 90;
    public const int Less = 80;
    public const int Least = 60;

    /// <summary>What a session is made by that belongs to no plan.</summary>
    public static readonly DayOrder Free = new(Whole, new HashSet<string>());

    internal bool IsFree => Level == Whole && Light.Count == 0 && Most is null;

    /// <summary>A course with no more steps of growth than the level allows.</summary>
    internal CourseState Dosed(Trainee who, CourseState course) =>
        Level switch
        {
            Whole or Portion => course,
            Less => course with { MostStep = Math.Max(0, who.StepOf(course) - 1) },
            _ => course with { MostStep = 0 },
        };
}
