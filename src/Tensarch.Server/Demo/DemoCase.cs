using Tensarch.Core;

namespace Tensarch.Server.Demo;

/// <summary>One side of a body: the true range of each measure at the start and where training takes it.</summary>
/// <param name="Start">True value 14 weeks ago, in the measure's unit.</param>
/// <param name="Limit">Where it levels off.</param>
public sealed record TrueRange(string Measure, double Start, double Limit);

/// <summary>One side picture of the demo.</summary>
/// <param name="Level">The variant that it shows, for a line.</param>
public sealed record DemoPicture(int Day, SamplePicture Picture, string? Level = null);

/// <summary>One student of the demo: who they are and the case they show.</summary>
/// <param name="Days">Training days, counted back from today.</param>
/// <param name="Tests">Days on which the gates' measures are read, counted back from today.</param>
/// <param name="Rate">Share of what is left to gain that one session gains.</param>
/// <param name="DecidesUntil">The coach takes no decision after this day.</param>
/// <param name="OnLadder">Placed at the end of the first day.</param>
/// <param name="Pictures">Side pictures, with the day on which each was taken, counted back from today.</param>
public sealed record DemoCase(
    string Name,
    string About,
    int Age,
    double LegCm,
    string Standard,
    int Minutes,
    IReadOnlyList<string> Yes,
    IReadOnlyList<int> Days,
    IReadOnlyList<int> Tests,
    double Rate,
    int DecidesUntil,
    IReadOnlyList<TrueRange> Left,
    IReadOnlyList<TrueRange> Right,
    bool OnLadder = true,
    IReadOnlyList<DemoPicture>? Pictures = null
)
{
    public IReadOnlyList<TrueRange> Of(Side side) => side == Side.Left ? Left : Right;

    private static List<int> ThriceAWeek(int until) =>
        [.. Enumerable.Range(0, 99).Select(i => i - 98).Where(day => day <= until && (day + 98) % 7 is 0 or 2 or 4 && day < 0)];

    private static List<TrueRange> Ranges(
        (double Start, double Limit) passiveSlr,
        (double Start, double Limit) activeSlr,
        (double Start, double Limit) hipExtension,
        (double Start, double Limit) lunge,
        (double Start, double Limit) pyramid,
        (double Start, double Limit) gap
    ) =>
        [
            new("passive-slr", passiveSlr.Start, passiveSlr.Limit),
            new("active-slr", activeSlr.Start, activeSlr.Limit),
            new("hip-extension", hipExtension.Start, hipExtension.Limit),
            new("lunge-chest-gap", lunge.Start, lunge.Limit),
            new("pyramid-nose-gap", pyramid.Start, pyramid.Limit),
            new("front-split-gap", gap.Start, gap.Limit),
        ];

    private static readonly int[] EveryOtherWeek = [-98, -84, -70, -56, -42, -28, -14, -3];

    public static readonly IReadOnlyList<DemoCase> All =
    [
        new(
            "Sunniva Dahl",
            "stage rigger",
            29,
            86,
            "square",
            60,
            [],
            ThriceAWeek(0),
            EveryOtherWeek,
            0.07,
            0,
            Ranges((84, 100), (68, 78), (7, 17), (13, 5), (22, 12), (47, 35.3)),
            Ranges((88, 107), (72, 84), (8, 18), (11, 4), (19, 10), (41, 24)),
            Pictures: [new(-42, SamplePicture.FrontSplit(190)), new(-3, SamplePicture.FrontSplit(142))]
        ),
        new(
            "Greta Lindqvist-Moss",
            "sailmaker",
            31,
            88,
            "square",
            60,
            [],
            ThriceAWeek(0),
            EveryOtherWeek,
            0.12,
            0,
            Ranges((96, 107), (76, 82), (13, 19), (8, 4), (15, 10), (36, 26.4)),
            Ranges((97, 108), (77, 82), (13, 19), (8, 4), (15, 10), (35, 25.8))
        ),
        new(
            "Dario Weft",
            "puppeteer",
            27,
            84,
            "square",
            45,
            [],
            [],
            [0],
            0,
            0,
            Ranges((72, 72), (58, 58), (2, 2), (17, 17), (28, 28), (52, 52)),
            Ranges((78, 78), (63, 63), (4, 4), (15, 15), (25, 25), (49, 49))
        ),
        new(
            "Anselm Pike",
            "lighthouse keeper",
            45,
            91,
            "open",
            45,
            ["knee"],
            ThriceAWeek(-31),
            [-98, -84, -70, -56, -42, -33],
            0.06,
            -30,
            Ranges((82, 97), (66, 76), (6, 15), (14, 7), (24, 15), (49, 39)),
            Ranges((81, 96), (65, 75), (7, 15), (14, 7), (25, 15), (50, 40))
        ),
        new(
            "Nkechi Strand",
            "cartographer",
            50,
            82,
            "square",
            50,
            [],
            ThriceAWeek(0),
            EveryOtherWeek,
            0.03,
            -15,
            Ranges((88, 125), (72, 95), (9, 28), (11, 0), (20, 5), (48, 8)),
            Ranges((89, 125), (73, 95), (9, 28), (11, 0), (20, 5), (47, 8))
        ),
        new(
            "Kofi Marchetti",
            "stilt walker",
            34,
            95,
            "square",
            60,
            [],
            [],
            [-35, -2],
            0,
            0,
            [new("wrist-extension", 94, 96), new("shoulder-flexion", 164, 168)],
            [new("wrist-extension", 92, 95), new("shoulder-flexion", 166, 169)],
            OnLadder: false,
            Pictures:
            [
                new(-35, SamplePicture.Handstand(24, 15, 6), "wall"),
                new(-2, SamplePicture.Handstand(17.4, 11, 3), "wall"),
                new(-1, SamplePicture.Handstand(17.1, 9, 2.5), "wall"),
            ]
        ),
        new(
            "Rosalind Achterberg",
            "choir singer",
            58,
            80,
            "square",
            50,
            ["neck"],
            [],
            [-21],
            0,
            0,
            [new("shoulder-extension", 46, 46)],
            [new("shoulder-extension", 44, 44)],
            OnLadder: false,
            Pictures: [new(-21, SamplePicture.Shoulderstand(14, 17))]
        ),
    ];
}
