using Tensarch.Core;
using Tensarch.Core.Students;

namespace Tensarch.Server.Demo;

/// <summary>The students of the made-up studio, each with a case to show.</summary>
public static class DemoCases
{
    private static readonly int[] EveryOtherWeek = [-98, -84, -70, -56, -42, -28, -14, -3];

    private static List<int> ThriceAWeek(int until) =>
        [.. Enumerable.Range(0, 99).Select(i => i - 98).Where(day => day <= until && (day + 98) % 7 is 0 or 2 or 4 && day < 0)];

    private static TrueRange[] Both(
        string measure,
        (double Start, double Limit) left,
        (double Start, double Limit) right,
        string? level = null
    ) => [new(measure, left.Start, left.Limit, Side.Left, level), new(measure, right.Start, right.Limit, Side.Right, level)];

    private static TrueRange[] Split(
        Side side,
        (double Start, double Limit) passiveSlr,
        (double Start, double Limit) activeSlr,
        (double Start, double Limit) hipExtension,
        (double Start, double Limit) lunge,
        (double Start, double Limit) pyramid,
        (double Start, double Limit) gap
    ) =>
        [
            new("passive-slr", passiveSlr.Start, passiveSlr.Limit, side),
            new("active-slr", activeSlr.Start, activeSlr.Limit, side),
            new("hip-extension", hipExtension.Start, hipExtension.Limit, side),
            new("lunge-chest-gap", lunge.Start, lunge.Limit, side),
            new("pyramid-nose-gap", pyramid.Start, pyramid.Limit, side),
            new("front-split-gap", gap.Start, gap.Limit, side),
        ];

    public static readonly IReadOnlyList<DemoCase> All =
    [
        new(
            "Bram Tellier",
            "tug deckhand",
            41,
            90,
            [new("deep-squat")],
            [
                .. Both("knee-to-wall", (3.6, 6), (8.2, 9.2)),
                new("squat-heel-wedge", 5, 2.5),
                .. Both("hip-flexion-bent", (112, 121), (113, 122)),
                new("squat-torso-lean", 52, 44),
                new("squat-hold", 25, 70, Level: "hands"),
                .. Both("shoulder-flexion", (158, 160), (157, 160)),
            ]
        )
        {
            Programme = new(-28, 8, Again: [-12]),
            Goals = ["deep-squat"],
            Equipment = ["wedge-2-5", "wedge-5", "chair"],
            Notes =
            [
                new(-30, "Twelve-hour shifts on the tug: mornings are stiff, evenings are good.", Pinned: true),
                new(-3, "Left heel came down with the block turned a little. Try the 2.5 wedge under the left only."),
                new(-2, "Breathe out on the way down, then wait.", CarryOver: true),
            ],
            // Away for a week, and planned again after it.
            Days = [.. ThriceAWeek(0).Where(day => day is < -21 or > -13)],
            Tests = EveryOtherWeek,
            Rate = 0.045,
        },
        new(
            "Sunniva Dahl",
            "stage rigger",
            29,
            86,
            [new("front-split")],
            [
                .. Split(Side.Left, (84, 109), (68, 78), (7, 17), (13, 5), (22, 12), (47, 35.3)),
                .. Split(Side.Right, (88, 113), (72, 84), (8, 18), (11, 4), (19, 10), (41, 24)),
            ]
        )
        {
            Programme = new(0, 8, Pin: true),
            Goals = ["front-split"],
            Days = ThriceAWeek(0),
            Tests = EveryOtherWeek,
            Rate = 0.07,
            Pictures = [new(-42, SamplePicture.FrontSplit(190)), new(-3, SamplePicture.FrontSplit(142))],
        },
        new(
            "Kofi Marchetti",
            "stilt walker",
            34,
            95,
            [new("handstand", [4], Shown: true)],
            [
                .. Both("wrist-extension", (94, 96), (93, 96)),
                .. Both("shoulder-flexion", (168, 171), (169, 172)),
                new("plank-hold", 80, 100),
                new("hollow-hold", 40, 50, Level: "tuck"),
                new("hollow-hold", 34, 44, Level: "full"),
                new("wall-handstand-hold", 24, 46),
            ]
        )
        {
            Programme = new(-14, 6),
            Goals = ["handstand"],
            Days = ThriceAWeek(0),
            Tests = [-98, -35, -3],
            Rate = 0.05,
            Pictures =
            [
                new(-35, SamplePicture.Handstand(24, 15, 6), "wall"),
                new(-2, SamplePicture.Handstand(17.4, 11, 3), "wall"),
                new(-1, SamplePicture.Handstand(17.1, 9, 2.5), "wall"),
            ],
        },
        new(
            "Rosalind Achterberg",
            "choir singer",
            58,
            80,
            [new("shoulderstand")],
            [.. Both("shoulder-extension", (46, 50), (45, 49)), new("neck-flexion-gap", 1.5, 1.2), new("seated-reach", -14, -8)]
        )
        {
            Minutes = 50,
            Yes = ["neck"],
            Programme = new(-28, 8, Again: [0]),
            Goals = ["shoulderstand"],
            Days = ThriceAWeek(-4),
            Tests = EveryOtherWeek,
            Rate = 0.03,
            Pictures = [new(-21, SamplePicture.Shoulderstand(14, 17))],
            Clearances = [new("physiotherapist", [LoadTag.Neck], -98, -4)],
        },
        new(
            "Teodor Vance",
            "rowing cox",
            16,
            78,
            [new("middle-split")],
            [
                .. Both("hip-abduction", (33, 46), (34, 46)),
                new("straddle-heel-distance", 128, 162),
                new("middle-split-gap", 46, 30),
                .. Both("active-leg-hover", (6, 14), (6, 15)),
            ]
        )
        {
            Minutes = 45,
            Yes = ["under-18"],
            Programme = new(-28, 8, Target: 30),
            Goals = ["middle-split"],
            // A fortnight with the school crew, and nothing trained.
            Days = ThriceAWeek(-15),
            Tests = EveryOtherWeek,
            Rate = 0.05,
        },
        new(
            "Marisol Okonjo",
            "glassblower",
            37,
            83,
            [new("crow", [4], Shown: true)],
            [
                .. Both("wrist-extension", (92, 95), (91, 94)),
                new("plank-hold", 60, 75),
                new("squat-heel-wedge", 2.5, 2.5),
                new("crow-hold", 1.5, 4.4, Level: "bent"),
                new("crow-entry-success", 0.35, 0.6),
            ]
        )
        {
            Programme = new(-21, 8),
            Goals = ["crow"],
            Notes = [new(-12, "Wrists ache after long days at the furnace. Ask before plank.", Pinned: true)],
            Days = ThriceAWeek(-2),
            Tests = [-98, -70, -42, -14],
            Rate = 0.04,
            Pains = [new(-12, LoadTag.Wrist, Side.Right, 4, "crow"), new(-5, LoadTag.Wrist, Side.Right, 5, "plank")],
        },
        new(
            "Anselm Pike",
            "lighthouse keeper",
            45,
            91,
            [new("front-split")],
            [
                .. Split(Side.Left, (82, 97), (66, 76), (6, 15), (14, 7), (24, 15), (49, 39)),
                .. Split(Side.Right, (81, 96), (65, 75), (7, 15), (14, 7), (25, 15), (50, 40)),
            ]
        )
        {
            Standard = "open",
            Minutes = 45,
            Yes = ["knee"],
            Programme = new(-42, 8),
            Goals = ["front-split"],
            Days = ThriceAWeek(-31),
            Tests = [-98, -84, -70, -56, -42, -33],
            Rate = 0.06,
            DecidesUntil = -30,
        },
        new(
            "Yuki Farrow",
            "stunt trainee",
            23,
            84,
            [new("side-plank", [5, 5], Shown: true)],
            [
                .. Both("wrist-extension", (96, 98), (97, 99)),
                .. Both("side-plank-hold", (50, 55), (52, 56), "kneel"),
                .. Both("side-plank-hold", (44, 50), (46, 52), "staggered"),
                .. Both("side-plank-hold", (46, 56), (48, 58), "stacked"),
                .. Both("side-plank-hold", (8, 19), (12, 26), "leg-bent"),
                .. Both("active-slr", (92, 94), (93, 95)),
                .. Both("hip-abduction", (52, 53), (52, 54)),
            ]
        )
        {
            Minutes = 50,
            Yes = ["very-mobile"],
            Programme = new(7, 8),
            Goals = ["side-plank", "handstand"],
            Days = ThriceAWeek(0),
            Tests = EveryOtherWeek,
            Rate = 0.05,
        },
        new(
            "Greta Lindqvist-Moss",
            "sailmaker",
            31,
            88,
            [new("front-split")],
            [
                .. Split(Side.Left, (96, 107), (76, 82), (13, 19), (8, 4), (15, 10), (36, 26.4)),
                .. Split(Side.Right, (97, 108), (77, 82), (13, 19), (8, 4), (15, 10), (35, 25.8)),
            ]
        )
        {
            Programme = new(-35, 12, Target: 60),
            Goals = ["front-split", "middle-split"],
            Days = ThriceAWeek(0),
            Tests = EveryOtherWeek,
            Rate = 0.12,
        },
        new(
            "Dario Weft",
            "puppeteer",
            27,
            84,
            [],
            [
                .. Split(Side.Left, (72, 72), (58, 58), (2, 2), (17, 17), (28, 28), (52, 52)),
                .. Split(Side.Right, (78, 78), (63, 63), (4, 4), (15, 15), (25, 25), (49, 49)),
            ]
        )
        {
            Minutes = 45,
            Goals = ["front-split", "handstand"],
            Tests = [0],
        },
        new(
            "Nkechi Strand",
            "cartographer",
            50,
            82,
            [new("front-split"), new("deep-squat", [4], From: -14)],
            [
                .. Split(Side.Left, (88, 137), (80, 118), (9, 28), (11, 0), (20, 5), (48, 8)),
                .. Split(Side.Right, (89, 137), (81, 118), (9, 28), (11, 0), (20, 5), (47, 8)),
                .. Both("knee-to-wall", (10.8, 12), (10.4, 12)),
                new("squat-heel-wedge", 0, 0),
                .. Both("hip-flexion-bent", (124, 130), (123, 130)),
                new("squat-torso-lean", 42, 38),
                new("squat-hold", 58, 70, Level: "hands"),
            ]
        )
        {
            Minutes = 50,
            Programme = new(-7, 8),
            Goals = ["front-split", "deep-squat"],
            Days = ThriceAWeek(0),
            Tests = EveryOtherWeek,
            Rate = 0.03,
            DecidesUntil = -15,
        },
    ];
}
