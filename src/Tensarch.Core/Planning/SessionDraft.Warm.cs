using Tensarch.Core.Students;

namespace Tensarch.Core.Planning;

/// <summary>The frame around the main work: a warm-up of the length that the day asks for, and calm that ends lying still.</summary>
internal sealed partial class SessionDraft
{
    private const int LeastRaiseSeconds = 60;
    private const int LongDayRaiseSeconds = 120;
    private const int MostRaiseSeconds = 300;

    /// <summary>They take turns: more than there are, and no multiple of the step.</summary>
    private const int MostWarmers = 29;
    private const int LeastRestSeconds = 60;
    private const int MostRestSeconds = 300;
    private const int MostCalm = 3;

    /// <summary>Times are said in whole fives: up to so many seconds more are needed for it.</summary>
    private const int Grain = 4;

    /// <summary>The ends of a session: what raises the pulse, and lying still.</summary>
    private void Frame()
    {
        Try(parts[0], catalogue.Drill(RestKey), new("calm"), must: true);
        if (who.Minutes >= CalmFromMinutes)
            _ = Calms.Any(calm => parts.Any(p => p.Serves(calm)) && Try(PartFor(calm), calm, new("calm")));
        Try(parts[0], Of(DrillKind.Raise).First(), new("warmUp"), must: true);
        SetRaise(UsualRaise);
    }

    /// <summary>Lying still is the last thing of all; every third time it is guided.</summary>
    private string RestKey => Rests[parts[0].Course.SessionsSinceStart % 3 == 2 ? 0 : ^1].Key;

    /// <summary>From so many minutes on, one thing leads from the work to lying still.</summary>
    private const int CalmFromMinutes = 45;

    /// <summary>What calms before the end, another one first each time.</summary>
    private List<Drill> Calms
    {
        get
        {
            if (calms is null)
            {
                var calm = Of(DrillKind.Calm).Except(Rests).Where(d => DrillChoice.Few(d, who) is null).ToList();
                calms = [.. calm.Index().OrderBy(d => (d.Index + parts[0].Course.SessionsSinceStart) % calm.Count).Select(d => d.Item)];
            }
            return calms;
        }
    }

    private List<Drill>? calms;

    /// <summary>The calm at the very end: guided rest, and lying still.</summary>
    private List<Drill> Rests => rests ??= [.. Of(DrillKind.Calm).TakeLast(2)];

    private List<Drill>? rests;

    /// <summary>A long day begins with two minutes of it at least.</summary>
    private int LeastRaise => who.Minutes >= CalmFromMinutes ? LongDayRaiseSeconds : LeastRaiseSeconds;

    private int UsualRaise => who.Minutes <= shape.Warm.ShortRaiseMinutes ? shape.Warm.ShortRaiseSeconds : 180;

    /// <summary>A warm-up of the length that the day asks for: few things, the regions of the ladder among them, and the pulse up for the rest of it.</summary>
    private void WarmUp()
    {
        Warm();
        // A round of the main work, or a drill that is no core, makes room where the warm-up came out short.
        while (WarmSeconds < shape.WarmSeconds(who.Minutes) && (Budget - Used < 30 || Crowded) && MakeRoom())
            Warm();
    }

    /// <summary>One of the many that warm and serve, another one each time: on the hands only where the wrists are prepared anyway.</summary>
    private void TakeTurn()
    {
        var hands = drills.Any(d => catalogue.Drill(d.Drill).PreparesHands);
        var turns = Warmers
            .Where(d =>
                d.Kind != DrillKind.Raise && (d.HandShare == 0 || hands) && parts.Any(p => p.Serves(d)) && DrillChoice.Few(d, who) is null
            )
            .OrderBy(d => d.Rank)
            .ToList();
        if (turns.Count == 0)
            return;
        var from = parts[0].Course.SessionsSinceStart % turns.Count;
        _ = turns.Skip(from).Concat(turns.Take(from)).Any(d => Try(PartFor(d), d, new("preparesRegions")));
    }

    private bool Crowded => Counted >= shape.MostDrills(who.Minutes);

    private bool MakeRoom()
    {
        if (!Crowded && Lessenable().MaxBy(Seconds) is { } longest)
            Lessen(longest);
        else if (
            drills.LastOrDefault(d =>
                IsMain(d) && !IsAid(d) && !IsCore(d) && catalogue.Drill(d.Drill) is { Kind: not DrillKind.Counter, IsWayOut: false }
            ) is
            { } last
        )
            drills.Remove(last);
        else
            return false;
        return true;
    }

    private void Warm()
    {
        var needed = shape.WarmSeconds(who.Minutes);
        foreach (var drill in Warmers)
        {
            var enough = WarmSeconds + MostRaiseSeconds - RaiseSeconds >= needed;
            if (enough && drill.Kind != DrillKind.Raise && !drill.Loads.Keys.Any(t => Regions.Contains(t) && !Warmed(t)))
                continue;
            if (WarmSeconds >= needed && RaiseSeconds <= LeastRaise)
                break;
            Try(PartFor(drill), drill, new(drill.Kind == DrillKind.Raise ? "warmUp" : "preparesRegions"));
        }
        SetRaise(RaiseSeconds + needed + Grain - WarmSeconds);
        // The longest raise is not enough, and one more thing is too much: a shorter one then.
        foreach (var drill in Warmers.Where(d => !Has(d.Key)))
            if (WarmSeconds < needed)
            {
                SetRaise(LeastRaise);
                tried.Remove((PartFor(drill).Skill, drill.Key));
                Try(PartFor(drill), drill, new("preparesRegions"));
                SetRaise(RaiseSeconds + needed + Grain - WarmSeconds);
            }
        foreach (var planned in drills.Where(d => PlaceOf(d).Phase == SessionPhase.Warm && !IsAid(d)).ToList())
            if (
                WarmSeconds < needed
                && planned.Id != Raise?.Id
                && Grown(planned) is { } more
                && Seconds(more) - Seconds(planned) <= Budget - Used
            )
                drills[drills.IndexOf(planned)] = more;
        SetRaise(RaiseSeconds + Math.Min(needed + Grain - WarmSeconds, Budget - Used));
    }

    private HashSet<LoadTag> Regions => regions ??= [.. parts.SelectMany(p => p.Course.Ladder.Regions)];

    private HashSet<LoadTag>? regions;

    private bool Warmed(LoadTag region) =>
        drills.Any(d => catalogue.Drill(d.Drill) is { Phase: SessionPhase.Warm } drill && drill.Loads.ContainsKey(region));

    /// <summary>What warms: the joints, then what the ladder's regions still need, then the rest, another one first each time.</summary>
    private List<Drill> Warmers =>
        warmers ??= [
            .. Of(DrillKind.Raise, DrillKind.Mobilise, DrillKind.Prepare)
                .Where(d => d.Phase == SessionPhase.Warm && !d.PreparesHands && !catalogue.GatesTestedBy(d.Key).Any())
                .Index()
                .OrderBy(d =>
                    DrillChoice.Few(d.Item, who) is not null ? 4
                    : d.Item is { Kind: DrillKind.Raise, HandShare: 0 } && d.Item.Loads.Count == 0 ? 0
                    : Regions.Any(r => d.Item.Loads.ContainsKey(r)) && (d.Item.HandShare == 0 || Regions.Contains(LoadTag.Wrist)) ? 1
                    : d.Item.HandShare == 0 ? 2
                    : 3
                )
                .ThenBy(d => (d.Index + 5 * parts[0].Course.SessionsSinceStart) % MostWarmers)
                .Select(d => d.Item),
        ];

    private List<Drill>? warmers;

    private PlannedDrill? Raise =>
        drills.FirstOrDefault(d => d.Sides[0].Dose is HoldDose && catalogue.Drill(d.Drill).Kind == DrillKind.Raise);

    private int RaiseSeconds => ((HoldDose?)Raise?.Sides[0].Dose)?.Seconds ?? 0;

    private void SetRaise(int seconds)
    {
        if (Raise is { } raise)
            Replace(
                raise,
                s =>
                    s with
                    {
                        Dose = ((HoldDose)s.Dose) with
                        {
                            Seconds = Math.Clamp(seconds - seconds % (Grain + 1), LeastRaise, MostRaiseSeconds),
                        },
                    }
            );
    }

    /// <summary>What no work may fill is filled lightly: more of the warm-up and longer calm, each within its share.</summary>
    private void Lighten()
    {
        foreach (var drill in Calms)
            if (Short || shape.IsRestful(ShapedBy))
                TryCalm(drill);
        foreach (var drill in Warmers.Where(d => DrillChoice.Few(d, who) is null))
            if (Short && Planned(PartFor(drill), drill) is { } more && WarmMay(Seconds(more)))
                Try(PartFor(drill), drill, new("preparesRegions"));
        for (var seconds = RaiseSeconds + 15; Short && seconds <= MostRaiseSeconds && WarmMay(15); seconds += 15)
            SetRaise(seconds);
        foreach (var planned in drills.Where(d => PlaceOf(d).Phase == SessionPhase.Warm && !IsAid(d) && d.Id != Raise?.Id).ToList())
            if (Short && Grown(planned) is { } more && WarmMay(Seconds(more) - Seconds(planned)))
                drills[drills.IndexOf(planned)] = more;
        while (Short && LengthenCalm()) { }
        // Rests do not fill a session.
        while (Idle && MostResting() is { } idle)
            Lessen(idle);
        Balance();
        TrimFrame();
    }

    /// <summary>Not more of the frame than what it is for.</summary>
    private void TrimFrame()
    {
        while ((TooCalm && (ShortenCalm() || DropCalm())) || (TooWarm && (ShortenRaise() || LessenWarm()))) { }
        // What warms and cannot go whole is a smaller share of a longer session.
        while (TooWarm && LengthenCalm()) { }
    }

    /// <summary>So much warm-up the day asks for; where its skills do not fill it, what a shorter one does.</summary>
    private int WarmTarget => Short ? shape.Warm.LeastSeconds : shape.WarmSeconds(who.Minutes);

    /// <summary>One calm thing less before lying still.</summary>
    private bool DropCalm() =>
        drills.LastOrDefault(d => catalogue.Drill(d.Drill).Kind == DrillKind.Calm && d.Drill != RestKey) is { } calm && drills.Remove(calm);

    /// <summary>Counters that came along leave less of the calm, and so does a short day of little work.</summary>
    private bool TooCalm => DownSeconds > shape.DownMost(ShapedBy, Used) || MainSeconds < shape.MainLeast(ShapedBy) * Used;

    private bool TooWarm =>
        WarmSeconds - drills.Where(d => PlaceOf(d).Phase == SessionPhase.Warm && !IsAid(d) && IsCore(d)).Sum(Seconds)
            > shape.WarmMost(who.Minutes) * Used
        && WarmSeconds - Grain > WarmTarget;

    private bool LengthenCalm()
    {
        if (LyingStill is not { Sides: [{ Dose: HoldDose { Seconds: < MostRestSeconds and var still } }] } rest || !DownMay(15))
            return false;
        Replace(rest, s => s with { Dose = ((HoldDose)s.Dose) with { Seconds = still + 15 } });
        return true;
    }

    private bool ShortenCalm()
    {
        if (LyingStill is not { Sides: [{ Dose: HoldDose { Seconds: > LeastRestSeconds and var still } }] } rest)
            return false;
        Replace(rest, s => s with { Dose = ((HoldDose)s.Dose) with { Seconds = Math.Max(LeastRestSeconds, still - 15) } });
        return true;
    }

    private bool ShortenRaise()
    {
        var before = RaiseSeconds;
        if (before > LeastRaise)
            SetRaise(before - Grain - 1);
        return RaiseSeconds < before;
    }

    /// <summary>Of the warm-up what is neither a test, nor the raise, nor core.</summary>
    private bool IsIdleFrame(PlannedDrill d) => PlaceOf(d).Phase == SessionPhase.Warm && !IsAid(d) && d.Id != Raise?.Id && !IsCore(d);

    /// <summary>A round that was more than one goes, else the last thing that nothing needs; the warm-up stays as long as the day asks for.</summary>
    private bool LessenWarm()
    {
        var warm = drills.Where(IsIdleFrame).ToList();
        foreach (var longest in warm.Where(d => d.Sides.All(s => DrillDose.MayLessen(s.Dose))).OrderByDescending(Seconds))
        {
            Lessen(longest);
            if (WarmSeconds >= WarmTarget)
                return true;
            drills[drills.At(longest.Id)] = longest;
        }
        var last = warm.LastOrDefault(d => !Prepares(d) && WarmSeconds - Seconds(d) >= WarmTarget);
        return last is not null && drills.Remove(last);
    }

    /// <summary>Less than the share of the day that is called filled.</summary>
    private bool Short => Used < shape.FilledShare * Budget;

    private PlannedDrill? LyingStill => drills.FirstOrDefault(d => d.Drill == RestKey);

    private bool LightMay(int more) => Used + more <= Budget && MainSeconds >= shape.MainLeast(ShapedBy) * (Used + more);

    private bool WarmMay(int more) => LightMay(more) && WarmSeconds + more <= shape.WarmMost(who.Minutes) * (Used + more);

    private bool DownMay(int more) => DownSeconds + more <= shape.DownMost(ShapedBy, Used + more) && LightMay(more);

    private void TryCalm(Drill drill)
    {
        // A few breaths more in one place do more than one place after another.
        if (drills.Count(d => catalogue.Drill(d.Drill).Kind == DrillKind.Calm) >= MostCalm)
            return;
        if (Plan(PartFor(drill), drill, new("calm")) is not { } planned || Has(drill.Key))
            return;
        if (DownMay(Seconds(planned)))
            Try(PartFor(drill), drill, new("calm"));
    }
}
