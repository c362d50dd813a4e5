using Tensarch.Core.Sessions;

namespace Tensarch.Core.Planning;

/// <summary>How much of each: doses down until it fits, main work up until the day is full.</summary>
internal sealed partial class SessionDraft
{
    private void Replace(PlannedDrill planned, Func<PlannedSide, PlannedSide> change) =>
        drills[drills.FindIndex(d => d.Id == planned.Id)] = planned with { Sides = [.. planned.Sides.Select(change)] };

    /// <summary>Rounds, then attempts, then the least important drill; never the core's last round, the way out nor a counter.</summary>
    private void Shrink()
    {
        while (Room < 0)
        {
            if (Lessenable().MaxBy(Seconds) is { } less)
                Lessen(less);
            else if (!ShrinkFrame() && !DropOne())
                return;
        }
    }

    /// <summary>Main work of which a round can go; a test that is due stays whole.</summary>
    private IEnumerable<PlannedDrill> Lessenable() =>
        drills.Where(d =>
            IsMain(d)
            && !IsTest(d)
            && d.Sides.Any(s => DrillDose.MayLessen(s.Dose))
            && !d.Sides.Any(s => IsDue(catalogue.Drill(d.Drill), s))
        );

    /// <summary>A round less on the side that has most, or on both.</summary>
    private void Lessen(PlannedDrill planned)
    {
        var most = planned.Sides.Max(s => s.Dose.Repeats) - 1;
        Replace(planned, s => s with { Dose = s.Dose.Repeats > most ? s.Dose.WithRepeats(most) : s.Dose });
    }

    private bool ShrinkFrame()
    {
        if (RaiseSeconds > LeastRaiseSeconds && WarmSeconds > shape.WarmSeconds(request.Minutes))
        {
            SetRaise(RaiseSeconds - Math.Max(-Room, 5));
            return true;
        }
        var rest = drills.FirstOrDefault(d =>
            d.Sides[0].Dose is HoldDose { Seconds: > LeastRestSeconds } && catalogue.Drill(d.Drill).Kind == DrillKind.Calm
        );
        if (rest is null)
            return false;
        Replace(rest, s => s with { Dose = ((HoldDose)s.Dose) with { Seconds = LeastRestSeconds } });
        return true;
    }

    /// <summary>The last of the stage's drills goes, where even the least of all is too much; what came along for it stays.</summary>
    private bool DropOne()
    {
        var last = drills
            .Where(d => SessionOrder.IsMain(PlaceOf(d).Phase) && !IsTest(d))
            .Skip(1)
            .LastOrDefault(d => catalogue.Drill(d.Drill).Kind != DrillKind.Counter);
        if (last is null)
            return false;
        notes.Add(new("didNotFit", last.Drill, Number: Math.Ceiling(Seconds(last) / 60.0)));
        drills.Remove(last);
        return true;
    }

    /// <summary>By the main work: rounds to the week's step, a further drill of the stage, companions, and rounds of those.</summary>
    private void Fill()
    {
        // Active work first for the very mobile.
        if (Mobile)
            Add(Further().Where(d => d.Kind == DrillKind.Strength).Take(1));
        GrowAll(IsCore);
        var further = Further();
        Add(further.Where(IsWanted));
        if (Mobile)
            Choose(further.Where(d => d.Kind == DrillKind.Strength), Companions().Where(d => d.Kind == DrillKind.Strength));
        Choose(further, Companions());
        GrowAll(IsMain);
        // What spares a region may fill where nothing else does.
        if (Short)
            Add(Further(all: true));
        GrowAll(IsMain);
        lastRounds = Short;
        GrowAll(IsMain);
        lastRounds = false;
    }

    private bool lastRounds;

    private void Add(IEnumerable<Drill> some)
    {
        foreach (var drill in some)
            if (!Enough)
                Try(drill, ReasonFor(drill, "stageWork"));
    }

    /// <summary>
    /// Few things, done well: in turn the first drill of the stage that fills its place; else the first such companion; else whatever of both
    /// fills most.
    /// </summary>
    private void Choose(IEnumerable<Drill> work, IEnumerable<Drill> companions)
    {
        var left = work.Select(d => (Drill: d, Companion: false)).Concat(companions.Select(d => (Drill: d, Companion: true))).ToList();
        while (!Enough && left.Count > 0)
        {
            var open = left.Where(d => !tried.Contains(d.Drill.Key) && (!d.Companion || CompanionRoom()))
                .Select(d => (d.Drill, d.Companion, Seconds: Rehearsed(d.Drill, d.Companion) is { } at ? Seconds(at) : 0))
                .ToList();
            if (open.Count == 0)
                return;
            var place = placeShare * Room / Math.Max(1, PlacesLeft);
            var at = open.FindIndex(d => d.Seconds >= place);
            var chosen = at >= 0 ? open[at] : open.MaxBy(d => d.Seconds);
            Try(chosen.Drill, chosen.Companion ? new("companion") : ReasonFor(chosen.Drill, "stageWork"), chosen.Companion);
            GrowAll(IsMain);
            left.RemoveAll(d => d.Drill == chosen.Drill);
        }
    }

    private bool IsWanted(Drill drill) => drill.IsWayOut || Sides.Any(s => DrillChoice.Wanted(drill, s, request) is not null);

    /// <summary>A drill as it would be planned; nothing is noted.</summary>
    private PlannedDrill? Planned(Drill drill, bool companion = false)
    {
        var noted = notes.Count;
        var planned = Plan(drill, new("stageWork"), companion);
        notes.RemoveRange(noted, notes.Count - noted);
        return planned;
    }

    /// <summary>A drill as it would be at its most rounds; none where it is not allowed.</summary>
    private PlannedDrill? Rehearsed(Drill drill, bool companion)
    {
        var planned = Planned(drill, companion);
        while (planned is not null && Grown(planned) is { } more)
            planned = more;
        return planned;
    }

    /// <summary>Too little is left for another drill to be worth its setting up.</summary>
    private bool Enough => Room < 60;

    private bool IsCore(PlannedDrill planned) => Sides.Any(s => CoresAt(trained[s]).Contains(planned.Drill));

    private bool CompanionRoom()
    {
        var beside = drills.Where(d => d.Reason.Code == "companion").Sum(Seconds);
        // Where nothing of the stage may be done, they are the session.
        return beside + 60 <= shape.CompanionsOf(request.Ladder.Skill).Share * MainSeconds || beside == MainSeconds;
    }

    /// <summary>A round more for each in turn, as long as one of them can grow and fits.</summary>
    private void GrowAll(Func<PlannedDrill, bool> which)
    {
        for (var grew = true; grew; )
        {
            grew = false;
            foreach (var planned in drills.Where(d => which(d) && !IsTest(d)).OrderBy(Seconds).ToList())
                grew |= Grow(planned);
        }
    }

    private bool Grow(PlannedDrill planned)
    {
        var drill = catalogue.Drill(planned.Drill);
        if (
            drill.Kind is DrillKind.Counter or DrillKind.Calm
            || planned.Sides.Any(s => IsDue(drill, s))
            || (planned.Reason.Code == "companion" && !CompanionRoom())
        )
            return false;
        if (Grown(planned) is not { } grown || Seconds(grown) - Seconds(planned) > Room)
            return false;
        drills[drills.FindIndex(d => d.Id == planned.Id)] = grown;
        return true;
    }

    /// <summary>A round more on each side; none where one of them allows no more.</summary>
    private PlannedDrill? Grown(PlannedDrill planned)
    {
        var drill = catalogue.Drill(planned.Drill);
        var sides = new List<PlannedSide>();
        foreach (var side in planned.Sides)
        {
            var variant = drill.VariantAt(side.Variant);
            if (
                DrillDose.More(drill, variant, side.Dose, request.Step, Mobile, lastRounds) is not { } dose
                || !request.Bars.Allow(drill.LoadsOf(variant, dose, request.BreathSeconds))
            )
                return null;
            sides.Add(side with { Dose = dose });
        }
        return planned with { Sides = sides };
    }

    private bool IsDue(Drill drill, PlannedSide side) => DrillChoice.Wanted(drill, side.Side, request) is { Due: true };

    private int Working => drills.Where(IsMain).Sum(d => Seconds(d) - Resting(d));

    /// <summary>The seconds of a drill that are setting up, changing sides or rest.</summary>
    private int Resting(PlannedDrill planned) =>
        Timeline
            .Parts(planned, catalogue.Drill(planned.Drill), request.BreathSeconds)
            .SelectMany(p => p.Segments)
            .Where(s => s.Kind != SegmentKind.Work)
            .Sum(s => s.Seconds);

    private PlannedDrill? MostResting() => Lessenable().MaxBy(d => (double)Resting(d) / Seconds(d));
}
