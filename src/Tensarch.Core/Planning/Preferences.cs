namespace Tensarch.Core.Planning;

/// <summary>Rules of a good session that a coach may bend with open eyes. What keeps a body safe is not among them.</summary>
public static class Preferences
{
    private static readonly HashSet<string> Codes =
    [
        "outOfOrder",
        "noCalmAtEnd",
        "warmUpTooShort",
        "warmUpTooLong",
        "downTooLong",
        "mainTooShort",
        "moreRestThanWork",
        "tooManyDrills",
        "tooManySkills",
        "twoRampsOnARegion",
        "coreMissing",
        "underFilled",
        "overMinutes",
        "noSuchLongestDay",
        "weakerNotFirst",
        "sideOrder",
        "sidesUneven",
        "notACompanion",
        "variantTooHard",
    ];

    public static bool Bends(string code) => Codes.Contains(code);
}
