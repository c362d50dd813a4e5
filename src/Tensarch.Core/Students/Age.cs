namespace Tensarch.Core.Students;

public static class Age
{
    public const int Adult = 18;

    /// <summary>Below this, no passive end range but short, and nothing heavy on the neck.</summary>
    public const int Grown = 16;

    /// <summary>Below this, no programmes.</summary>
    public const int Youngest = 12;

    /// <summary>The birthdays on which something changes.</summary>
    internal static readonly IReadOnlyList<int> Turns = [Youngest, Grown, Adult, JointSigns.Older];

    /// <returns>Whole years on a day.</returns>
    public static int Years(DateOnly born, DateOnly on) => on.Year - born.Year - (on < born.AddYears(on.Year - born.Year) ? 1 : 0);
}
