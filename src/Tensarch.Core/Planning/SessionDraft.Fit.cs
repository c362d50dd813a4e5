namespace Tensarch.Core.Planning;

/// <summary>How much of each: doses down until it fits, main work up until the day is full.</summary>
internal sealed partial class SessionDraft
{
    private void Replace(PlannedDrill planned, Func<PlannedSide, PlannedSide> change) =>
        drills[drills.At(planned.Id)] = planned with { Sides = [.. planned.Sides.Select(change)] };

    private void Cores(SkillPart part)
    {
        notes.AddRange(part.NotesOfLowerStages());
        foreach (var core in part.Cores)
            Core(part, core);
        if (!part.AttemptsAllowed)
            foreach (var attempt in Of(DrillKind.Attempt).Where(d => part.Serves(d) && notes.All(n => n.Drill != d.Key)))
                notes.Add(part.Delayed(attempt.Key));
    }

    private void Core(SkillPart part, string key)
    {
        var drill = catalogue.Drill(key);
        var allowed = drill.Kind != DrillKind.Attempt || part.AttemptsAllowed;
        if (!allowed)
            notes.Add(part.Delayed(key));
        if (!(allowed && Try(part, drill, part.ReasonFor(drill, "core"), must: true)) && shape.StandIns.TryGetValue(key, out var standIn))
            Try(part, catalogue.Drill(standIn), new("standIn", part.LowerStage), must: true);
    }

    /// <summary>Rounds, then attempts, then the least important drill; never the core's last round, the way out nor a counter.</summary>
    private void Shrink()
    {
        while (Counted > shape.MostDrills(who.Minutes) && Uncrowd()) { }
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
        drills.Where(d => IsMain(d) && !IsAid(d) && d.Sides.Any(s => DrillDose.MayLessen(s.Dose)) && !d.Sides.Any(s => IsDue(d, s)));

    /// <summary>A round less on the side that has most, or on both.</summary>
    private void Lessen(PlannedDrill planned) => drills[drills.At(planned.Id)] = OneLess(planned);

    private static PlannedDrill OneLess(PlannedDrill planned)
    {
        var most = planned.Sides.Max(s => s.Dose.Repeats) - 1;
        return planned with
        {
            Sides = [.. planned.Sides.Select(s => s.Dose.Repeats > most ? s with { Dose = s.Dose.WithRepeats(most) } : s)],
        };
    }

    private bool ShrinkFrame()
    {
        if (RaiseSeconds > LeastRaise && WarmSeconds > shape.WarmSeconds(who.Minutes))
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
            .Where(d => SessionOrder.IsMain(PlaceOf(d).Phase) && !IsAid(d))
            .Skip(1)
            .LastOrDefault(d => catalogue.Drill(d.Drill).Kind != DrillKind.Counter);
        if (last is null)
            return false;
        notes.Add(new("didNotFit", last.Drill, Number: Math.Ceiling(Seconds(last) / 60.0)));
        drills.Remove(last);
        return true;
    }

    /// <summary>
    /// Too many things in so short a time: of the least important skill that has more than one, the least important goes, the last one among equals.
    /// </summary>
    private bool Uncrowd()
    {
        foreach (var part in parts.AsEnumerable().Reverse())
        {
            var main = drills
                .Where(d => d.Skill == part.Skill && IsMain(d) && !IsAid(d) && catalogue.Drill(d.Drill).Kind != DrillKind.Counter)
                .Reverse()
                .ToList();
            if (main.Count < 2)
                continue;
            var least = main.MinBy(Importance.Of)!;
            notes.Add(new("didNotFit", least.Drill, Number: Math.Ceiling(Seconds(least) / 60.0), Skill: part.Skill));
            drills.Remove(least);
            DropOrphans();
            return true;
        }
        return false;
    }

    /// <summary>The skill whose share of the main work is filled just now; none while all may use what is left.</summary>
    private SkillPart? sharing;

    private int MainOf(SkillPart part) => drills.Where(d => d.Skill == part.Skill && IsMain(d)).Sum(Seconds);

    /// <summary>What a skill gets of the main work, by its place among the day's skills.</summary>
    private int ShareOf(SkillPart part) =>
        (int)(shape.ShareOf(parts.IndexOf(part), parts.Count) * (Budget - shape.WarmSeconds(who.Minutes) - DownSeconds));

    /// <summary>By the main work: rounds to the week's step, a further drill of the stage, companions, and rounds of those.</summary>
    private void Fill()
    {
        if (parts.Count > 1)
            foreach (var part in parts)
            {
                sharing = part;
                Fill(part);
            }
        sharing = null;
        // What one skill left, the next may use.
        foreach (var part in parts)
            Fill(part);
        GrowAll(IsMain);
    }

    private void Fill(SkillPart part)
    {
        // Active work first for the very mobile.
        if (part.Who.Mobile)
            _ = part.Further()
                .Where(d => d.Kind == DrillKind.Strength)
                .Any(d => !Enough && Try(part, d, part.ReasonFor(d, "stageWork"), less: true));
        GrowAll(d => d.Skill == part.Skill && IsCore(d));
        var further = part.Further();
        Add(part, further.Where(part.IsWanted));
        if (part.Who.Mobile)
            Choose(part, further.Where(d => d.Kind == DrillKind.Strength), Companions(part).Where(d => d.Kind == DrillKind.Strength));
        Choose(part, further, Companions(part));
    }

    private List<Drill> Companions(SkillPart part) => [.. part.Companions.Where(d => !Has(d.Key))];

    private void Add(SkillPart part, IEnumerable<Drill> some)
    {
        foreach (var drill in some)
            if (!Enough)
                Try(part, drill, part.ReasonFor(drill, "stageWork"));
    }

    /// <summary>
    /// Few things, done well: in turn the first drill of the stage that fills its place; else the first such companion; else whatever of both
    /// fills most.
    /// </summary>
    private void Choose(SkillPart part, IEnumerable<Drill> work, IEnumerable<Drill> companions)
    {
        var left = work.Select(d => (Drill: d, Companion: false)).Concat(companions.Select(d => (Drill: d, Companion: true))).ToList();
        while (!Enough && left.Count > 0)
        {
            var open = left.Where(d => !tried.Contains((part.Skill, d.Drill.Key)) && (!d.Companion || CompanionRoom(part)))
                .Select(d => (d.Drill, d.Companion, Seconds: Rehearsed(part, d.Drill, d.Companion) is { } at ? Seconds(at) : 0))
                .ToList();
            if (open.Count == 0)
                return;
            var place = placeShare * Room / Math.Max(1, PlacesLeft);
            var at = open.FindIndex(d => d.Seconds >= place);
            var chosen = at >= 0 ? open[at] : open.MaxBy(d => d.Seconds);
            Try(part, chosen.Drill, chosen.Companion ? new("companion") : part.ReasonFor(chosen.Drill, "stageWork"), chosen.Companion);
            GrowAll(d => d.Skill == part.Skill && IsMain(d));
            left.RemoveAll(d => d.Drill == chosen.Drill);
        }
    }

    /// <summary>A drill as it would be planned; nothing is noted.</summary>
    private PlannedDrill? Planned(SkillPart part, Drill drill, bool companion = false) =>
        part.Plan(drill, companion, MayRamp(drill)).Sides is { } sides
            ? new(drill.Key, drill.Key, new("stageWork"), sides, part.Skill)
            : null;

    /// <summary>A drill as it would be at its most rounds; none where it is not allowed.</summary>
    private PlannedDrill? Rehearsed(SkillPart part, Drill drill, bool companion)
    {
        var planned = Planned(part, drill, companion);
        while (planned is not null && Grown(planned) is { } more)
            planned = more;
        return planned;
    }

    /// <summary>Too little is left for another drill to be worth its setting up.</summary>
    private bool Enough => Room < 60;

    private bool IsCore(PlannedDrill planned) => PartOf(planned).Cores.Contains(planned.Drill);

    private bool CompanionRoom(SkillPart part)
    {
        var (beside, main) = (drills.Where(d => d.Skill == part.Skill && d.Reason.Code == "companion").Sum(Seconds), MainOf(part));
        // Where nothing of the stage may be done, they are the session.
        return beside + 60 <= shape.CompanionsOf(part.Skill).Share * main || beside == main;
    }

    /// <summary>A round more for each in turn, as long as one of them can grow and fits.</summary>
    private void GrowAll(Func<PlannedDrill, bool> which)
    {
        for (var grew = true; grew; )
        {
            grew = false;
            foreach (var planned in drills.Where(d => which(d) && !IsAid(d)).OrderBy(Seconds).ToList())
                grew |= Grow(planned);
        }
    }

    /// <summary>Of a first week no more than a part of the day is main work.</summary>
    private bool IsFullAtFirst(int more) =>
        parts.TrueForAll(p => p.FirstWeek) && MainSeconds + more > shape.FirstWeek.MainShare * 60 * who.Minutes;

    private bool Grow(PlannedDrill planned)
    {
        var drill = catalogue.Drill(planned.Drill);
        if (
            drill.Kind is DrillKind.Counter or DrillKind.Calm
            // What is there to prepare is no work of its own.
            || (IsMain(planned) && planned.Reason.Code == "preparesRegions")
            || planned.Sides.Any(s => IsDue(planned, s))
            || (planned.Reason.Code == "companion" && !CompanionRoom(PartOf(planned)))
        )
            return false;
        if (Grown(planned) is not { } grown || Seconds(grown) - Seconds(planned) > Room || !Borne(PartOf(planned), drill, grown))
            return false;
        if (IsMain(planned) && IsFullAtFirst(Seconds(grown) - Seconds(planned)))
            return false;
        drills[drills.At(planned.Id)] = grown;
        return true;
    }

    /// <summary>A round more on each side; none where one of them allows no more.</summary>
    private PlannedDrill? Grown(PlannedDrill planned)
    {
        if (PartOf(planned).Grown(catalogue.Drill(planned.Drill), planned.Sides) is not { } sides)
            return null;
        var grown = planned with { Sides = sides };
        return TooMuch([grown]) is null ? grown : null;
    }

    private bool IsDue(PlannedDrill planned, PlannedSide side) =>
        PartOf(planned).Wanted(catalogue.Drill(planned.Drill), side.Side) is { Due: true };

    private int Working => drills.Where(IsMain).Sum(d => Seconds(d) - Resting(d));

    /// <summary>The seconds of a drill that are setting up, changing sides or rest.</summary>
    private int Resting(PlannedDrill planned) => FactsOf(planned).Resting;

    /// <summary>More of the main work is rest than a session may have.</summary>
    private bool Idle => Working < shape.Main.WorkShare * MainSeconds;

    /// <summary>
    /// Rests do not fill a session: in a short day of tries at an end position one a side is left of those that have no more than two, and the rest
    /// of the work grows into the room.
    /// </summary>
    private void SpareTries()
    {
        static bool Tries(PlannedDrill planned) => planned.Sides.Any(s => s.Dose is AttemptsDose);
        foreach (var tries in drills.Where(d => IsMain(d) && !IsAid(d) && Tries(d) && !d.Sides.Any(s => IsDue(d, s))).ToList())
            if (Idle && tries.Sides.All(s => !DrillDose.MayLessen(s.Dose)))
            {
                Replace(tries, s => s with { Dose = s.Dose.WithRepeats(1) });
                GrowAll(d => IsMain(d) && !Tries(d));
            }
    }

    private PlannedDrill? MostResting() => Lessenable().MaxBy(d => (double)Resting(d) / Seconds(d));
}
