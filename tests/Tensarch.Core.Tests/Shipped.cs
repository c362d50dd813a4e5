using Tensarch.Core.Catalogue;
using Tensarch.Core.Measuring;
using Tensarch.Core.Planning;
using Tensarch.Core.Skills;
using Tensarch.Core.Students;

namespace Tensarch.Core.Tests;

/// <summary>The shipped content, and short ways to make facts about a student.</summary>
internal static class Shipped
{
    public static readonly CatalogueContent Content = ContentLoader.Load();
    public static readonly Ladder FrontSplit = Content.NewestLadder("front-split")!;

    public static Ladder Ladder(string key) => Content.NewestLadder(key)!;

    public static readonly DateTimeOffset Now = new(2026, 3, 3, 10, 0, 0, TimeSpan.Zero);
    public static readonly Guid Coach = Guid.Parse("00000000-0000-0000-0000-00000000c0ac");

    public static Reading Read(
        string measure,
        Side? side,
        double daysAgo,
        double[] trials,
        double? sem = null,
        double? tau = null,
        string? standard = "square",
        Warmth warmth = Warmth.Warm,
        string? level = null,
        int? quality = null,
        Tally? tally = null
    )
    {
        var m = Content.Measure(measure);
        return new(
            Guid.NewGuid(),
            new(measure, side, m.Mode, level, warmth, m.Standards.Count > 0 ? standard : null),
            Now.AddDays(-daysAgo),
            trials,
            sem ?? m.Sem,
            tau ?? m.Tau,
            0,
            Coach,
            Quality: quality,
            Tally: tally
        );
    }

    public static Evidence Evidence(
        IReadOnlyList<Reading>? readings = null,
        IReadOnlyList<LoggedSet>? sets = null,
        IReadOnlyList<SessionDay>? sessions = null,
        IReadOnlyList<BodySignal>? signals = null,
        IReadOnlyList<FormCheck>? forms = null,
        IReadOnlyList<StageDecision>? decisions = null,
        DayBars? bars = null,
        IReadOnlyList<ExitCheck>? exits = null,
        BodyData? body = null
    ) =>
        new(
            "square",
            body ?? new(LeftLegCm: 86, RightLegCm: 86),
            readings ?? [],
            sets ?? [],
            sessions ?? [],
            signals ?? [],
            forms ?? [],
            exits ?? [],
            decisions ?? [],
            bars ?? DayBars.None(),
            Now,
            DateOnly.FromDateTime(Now.UtcDateTime)
        );

    /// <summary>The bars of an adult who answered these questions with yes.</summary>
    public static DayBars Bars(params string[] yes) =>
        DayBars.Of(
            Content.Questions,
            new(
                ScreenState.Current,
                [.. yes.Select(q => new YesAnswer(q, Now))],
                false,
                false,
                7,
                [],
                [],
                DateOnly.FromDateTime(Now.UtcDateTime)
            )
        );

    /// <summary>The bars of someone to whom these tags alone are off limits.</summary>
    public static DayBars Barred(IReadOnlyList<LoadTag> tags, BarLevel level = BarLevel.OffLimits) =>
        DayBars.Of(
            [new("made-up", "", "", [new(level, TagScope.Listed, tags)], "")],
            new(ScreenState.Current, [new("made-up", Now)], false, false, 7, [], [], DateOnly.FromDateTime(Now.UtcDateTime))
        );

    /// <summary>A side at a stage, with a gap of the front split.</summary>
    public static SideState At(Side side, int stage, double? gapCm, IReadOnlyList<ReadinessTest>? wanted = null) =>
        new(
            side,
            stage,
            gapCm is { } gap ? new Dictionary<string, double> { ["front-split-gap"] = gap } : [],
            [.. (wanted ?? []).Select(t => Want.Of(t, Content))]
        );

    public static LoggedSet Set(
        string drill,
        string variant,
        Side? side,
        double daysAgo,
        double? seconds = null,
        int? reps = null,
        int? quality = null,
        Guid? session = null
    )
    {
        var at = Now.AddDays(-daysAgo);
        return new(Guid.NewGuid(), session, at, DateOnly.FromDateTime(at.UtcDateTime), drill, variant, side, seconds, reps, quality);
    }

    public static SessionDay Session(double daysAgo, Guid? id = null)
    {
        var at = Now.AddDays(-daysAgo);
        return new(id ?? Guid.NewGuid(), at, DateOnly.FromDateTime(at.UtcDateTime));
    }

    public static BodySignal Pain(LoadTag region, int pain, double daysAgo, SignalKind kind = SignalKind.DullPain) =>
        new(Guid.NewGuid(), Now.AddDays(-daysAgo), kind, region, Side.Left, pain);
}
