namespace Tensarch.Core.Students;

public static class Age
{
    public const int Adult = 18;

    /// <returns>Whole years on a day.</returns>
    public static int Years(DateOnly born, DateOnly on) => on.Year - born.Year - (on < born.AddYears(on.Year - born.Year) ? 1 : 0);
}
