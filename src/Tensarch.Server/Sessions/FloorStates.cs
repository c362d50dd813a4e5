using Tensarch.Core.Catalogue;
using Tensarch.Core.Planning;
using Tensarch.Core.Sessions;
using Tensarch.Core.Students;
using Tensarch.Server.Data;
using Tensarch.Server.Skills;

namespace Tensarch.Server.Sessions;

/// <summary>What is barred of whom, while one request is told: worked out once a student, and with each signal that the request itself says.</summary>
internal sealed class FloorStates(TensarchDb db, Standings standings, CatalogueContent catalogue, StudioClock clock)
{
    private readonly Dictionary<Guid, (StudentState State, long Facts)> known = [];

    /// <summary>Before anything is locked.</summary>
    public async Task Know(IEnumerable<Guid> students, CancellationToken ct)
    {
        foreach (var student in students)
            Know((await standings.Of(student, ct))!);
    }

    public void Know(Standing standing) => known[standing.Student.Id] = (standing.State, standing.Facts);

    /// <summary>Within the transaction: of whom something was said since, it is worked out again.</summary>
    public async Task Renew(IEnumerable<Guid> students, CancellationToken ct)
    {
        foreach (var student in students)
            if (!known.TryGetValue(student, out var was) || was.Facts != await db.FactsVersion(student, ct))
                await Know([student], ct);
    }

    /// <summary>Said in this request: it bars what comes after it.</summary>
    public void Say(SignalRow row)
    {
        var (state, facts) = known[row.StudentId];
        var said = new BodySignal(row.Id, row.At, row.Kind, row.Region, row.Side, row.Pain, row.Drill)
        {
            RecordedAt = row.RecordedAt,
            Place = row.Place,
        };
        known[row.StudentId] = (
            StudentState.From(state.Facts with { Signals = [.. state.Facts.Signals, said] }, clock.Moment, catalogue),
            facts
        );
    }

    public IReadOnlyList<string> EndedFor(Guid student) => PackLoads.Ended(known[student].State.Today);

    /// <summary>Something of it is being done now under a bar that stood when it was begun.</summary>
    /// <param name="plan">By which it is done: it says how hard a ramp is.</param>
    public bool IsBarred(IReadOnlyList<FloorSaid> told, Guid student, SessionPlan? plan, TimeSpan skew)
    {
        var withSignal = told.OfType<FloorSaid.Signal>().Any();
        var state = known[student].State;
        return told.OfType<FloorSaid.Set>()
            .Any(set =>
                clock.IsLive(set.At + skew)
                && new Admission(Live: true, withSignal).Refuses(
                    Loads(set, plan, state.Facts.Person.Body.BreathSeconds),
                    state.Past.At(set.At + skew),
                    state.Today
                )
            );
    }

    private IReadOnlyDictionary<LoadTag, LoadLevel> Loads(FloorSaid.Set set, SessionPlan? plan, double breathSeconds)
    {
        var what = new WorkedDrill(set.Drill.Key, set.Variant.Key, set.Side);
        var work = Work.Of([new(what, set.Seconds, set.CleanReps, null, set.At)], plan, catalogue);
        return set.Drill.LoadsOf(work[0], breathSeconds);
    }
}
