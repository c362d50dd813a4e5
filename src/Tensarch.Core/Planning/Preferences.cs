namespace Tensarch.Core.Planning;

/// <summary>Rules of a good session that a coach may bend with open eyes. What keeps a body safe is not among them.</summary>
public static class Preferences
{
    /// <summary>What a session is made of: a stored one from before is run as it is.</summary>
    private static readonly IReadOnlyList<string> OfShape =
    [
        "coreTooLittle",
        "carriersTooLittle",
        "besideOverCore",
        "besideOverLimit",
        "notLedInto",
        "standsInForNothing",
        "tooMuchElsewhere",
    ];

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
        .. OfShape,
        "variantTooHard",
    ];

    public static bool IsShape(string code) => OfShape.Contains(code);

    public static bool Bends(string code) => Codes.Contains(code);
}
