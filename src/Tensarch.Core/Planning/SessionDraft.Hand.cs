using Tensarch.Core.Catalogue;

namespace Tensarch.Core.Planning;

/// <summary>A session that is there already, under a coach's hand: something put in with what it needs, made shorter, made longer.</summary>
internal sealed partial class SessionDraft
{
    private static SessionDraft Of(CatalogueContent content, SessionPlan plan, Trainee who)
    {
        var draft = new SessionDraft(
            content,
            who,
            plan.Skills.Select(s => who.On(s.Skill)).DistinctBy(c => c.Skill),
            new(content, who),
            0,
            DayOrder.Free
        );
        draft.drills.AddRange(plan.Drills);
        return draft;
    }

    /// <summary>
    /// Puts a drill in, in the place of another or where its phase has it, with the tests, the preparation and the counter that it needs. What may
    /// not be done today is put in as its easiest version: the checker says no to it.
    /// </summary>
    public static SessionPlan PutIn(
        CatalogueContent content,
        SessionPlan plan,
        Trainee who,
        Drill drill,
        string? skill,
        PlannedDrill? instead
    )
    {
        var draft = Of(content, plan, who);
        var part =
            draft.parts.FirstOrDefault(p => p.Skill == skill)
            ?? draft.parts.FirstOrDefault(p => p.Serves(drill))
            ?? draft.parts.FirstOrDefault(p => p.Companions.Contains(drill))
            ?? draft.parts[0];
        if (instead is not null)
            draft.drills.RemoveAll(d => d.Id == instead.Id);
        var companion = !part.Serves(drill);
        var reason = companion
            ? new DrillReason("companion")
            : part.ReasonFor(drill, part.Cores.Contains(drill.Key) ? "core" : "stageWork");
        if (!draft.Try(part, drill, reason, companion, must: true))
            draft.drills.Add(
                new(
                    drill.Key,
                    drill.Key,
                    reason,
                    [
                        .. (drill.Sides == SideMode.Each ? part.Sides.Select(s => (Side?)s) : [null]).Select(side => new PlannedSide(
                            side,
                            part.StageOf(side),
                            drill.Variants[0].Key,
                            drill.DoseOf(drill.Variants[0]),
                            null
                        )),
                    ],
                    part.Skill
                )
            );
        // What was there stays where the coach put it; what is new comes where its phase has it, or where the other one was.
        var old = plan.Drills.Where(d => d.Id != instead?.Id).ToList();
        var order = draft.drills.Where(d => old.Any(o => o.Id == d.Id)).OrderBy(d => old.FindIndex(o => o.Id == d.Id)).ToList();
        foreach (var added in draft.drills.Where(d => old.All(o => o.Id != d.Id)).OrderBy(draft.PlaceOf))
            order.Insert(
                added.Drill == drill.Key && instead is not null && draft.PlaceOf(added).Phase == draft.PlaceOf(instead).Phase
                    ? Math.Min(order.Count, plan.Drills.Index().First(d => d.Item.Id == instead.Id).Index + (order.Count - old.Count))
                    : order.FindLastIndex(o => draft.PlaceOf(o).CompareTo(draft.PlaceOf(added)) <= 0) + 1,
                added
            );
        return plan with { Drills = order };
    }

    /// <summary>The least change that fits: the frame, rounds, attempts, then the least important drill with what came along for it alone.</summary>
    public static SessionPlan Shortened(CatalogueContent content, SessionPlan plan, Trainee who)
    {
        var draft = Of(content, plan, who);
        while (draft.Used > 60 * who.Minutes && (draft.ShortenFrame() || draft.ShortenMain())) { }
        draft.GiveBack(plan);
        return plan with
        {
            Minutes = who.Minutes,
            Drills = draft.drills,
            Notes = [.. plan.Notes.Where(n => n.Code is not ("longestDay" or "notEnoughToDo"))],
        };
    }

    /// <summary>Rounds more of what is there, then further work, up to the minutes.</summary>
    public static SessionPlan Lengthened(CatalogueContent content, SessionPlan plan, Trainee who)
    {
        var draft = Of(content, plan, who);
        draft.GrowAll(draft.IsMain);
        draft.Fill();
        draft.WarmUp();
        draft.GrowAll(draft.IsMain);
        draft.Lighten();
        var longer = plan with
        {
            Minutes = who.Minutes,
            Drills = [.. draft.drills.OrderBy(draft.PlaceOf)],
            Notes = [.. plan.Notes.Where(n => n.Code is not ("longestDay" or "notEnoughToDo"))],
        };
        return draft.Longest < who.Minutes ? longer with { Notes = [.. longer.Notes, new("longestDay", Number: draft.Longest)] } : longer;
    }

    /// <summary>Rounds that were taken before something larger went come back, to the most important first, as far as they fit.</summary>
    private void GiveBack(SessionPlan before)
    {
        foreach (var planned in drills.Where(d => IsMain(d) && !IsAid(d)).OrderByDescending(Importance.Of).ToList())
        {
            var was = before.Drills.First(d => d.Id == planned.Id);
            for (var now = planned; now.Sides.Zip(was.Sides).Any(s => s.First.Dose.Repeats < s.Second.Dose.Repeats); )
            {
                var more = now with
                {
                    Sides = [.. now.Sides.Zip(was.Sides, (s, full) => s.Dose.Repeats < full.Dose.Repeats ? SkillPart.MoreSets(s) : s)],
                };
                if (Used - Seconds(now) + Seconds(more) > 60 * who.Minutes)
                    break;
                drills[drills.At(planned.Id)] = now = more;
            }
        }
    }

    /// <summary>A shorter raise, warm-ups that prepare nothing of what is left, calm but the last, lying still for a minute.</summary>
    private bool ShortenFrame()
    {
        if (WarmSeconds > shape.WarmSeconds(who.Minutes) + Grain)
        {
            if (RaiseSeconds > LeastRaise)
            {
                SetRaise(
                    RaiseSeconds - Math.Max(Grain + 1, Math.Min(WarmSeconds - shape.WarmSeconds(who.Minutes), Used - 60 * who.Minutes))
                );
                return true;
            }
            if (drills.LastOrDefault(d => IsIdleFrame(d) && !Prepares(d)) is { } idle)
                return drills.Remove(idle);
            if (LessenWarm())
                return true;
        }
        var calm = drills.Where(d => catalogue.Drill(d.Drill).Kind == DrillKind.Calm).ToList();
        if (calm.Count > 1)
            return drills.Remove(calm[0]);
        if (calm is [{ Sides: [{ Dose: HoldDose { Seconds: > LeastRestSeconds } }] } still])
        {
            Replace(still, s => s with { Dose = ((HoldDose)s.Dose) with { Seconds = LeastRestSeconds } });
            return true;
        }
        return false;
    }

    private bool ShortenMain()
    {
        if (Lessenable().MaxBy(Seconds) is { } longest)
        {
            Lessen(longest);
            return true;
        }
        var least = drills
            .Where(d => IsMain(d) && !IsAid(d) && catalogue.Drill(d.Drill).Kind != DrillKind.Counter)
            // A way out that is being learned stays.
            .Where(d => !catalogue.Drill(d.Drill).IsWayOut || PartOf(d).Course.WayOutShown)
            .Index()
            .OrderBy(d => Importance.Of(d.Item))
            .ThenByDescending(d => d.Index)
            .Select(d => d.Item)
            .ToList();
        if (least.Count <= 1)
            return false;
        // The last of the core stays longest: before it goes what is beside it, and what leads into it.
        var goes = least.Count(IsCore) > 1 ? least[0] : least.Find(d => !IsCore(d)) ?? least[0];
        drills.Remove(drills.FirstOrDefault(d => d.Reason.LeadsIn && least.Count <= 2) ?? goes);
        DropOrphans();
        return true;
    }

    /// <summary>What came along for a drill that is gone goes with it: its tests and its counter.</summary>
    private void DropOrphans()
    {
        drills.RemoveAll(d => IsTest(d) && !drills.Any(o => !IsTest(o) && o.Sides.Any(s => GatesOf(o, s).Any(g => TestsFor(d, g)))));
        drills.RemoveAll(d => d.Reason.LeadsIn && !drills.Any(o => !IsAid(o) && o.Drill == d.Reason.For));
        drills.RemoveAll(d => d.Reason.Code == "counter" && !drills.Any(o => o != d && catalogue.Drill(o.Drill).IsCounteredBy(d.Drill)));
    }

    private bool TestsFor(PlannedDrill test, string gate) => catalogue.FindDayGate(gate)!.Tests.Any(t => TestId(t) == test.Id);

    /// <summary>Something that is left needs it: its region is heavy there and nothing else warms it, or weight comes on the hands.</summary>
    private bool Prepares(PlannedDrill warm)
    {
        var drill = catalogue.Drill(warm.Drill);
        if (drill.PreparesHands)
            return drills.Any(PutsWeightOnHands);
        return HeavyOn(drills.Where(d => d != warm))
            .Any(heavy => Warms(warm, heavy.Region, heavy.Before) && !drills.Any(d => d != warm && Warms(d, heavy.Region, heavy.Before)));
    }
}
