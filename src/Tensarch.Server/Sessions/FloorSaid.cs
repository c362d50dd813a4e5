using Tensarch.Core;
using Tensarch.Core.Catalogue;
using Tensarch.Core.Planning;
using Tensarch.Core.Students;

namespace Tensarch.Server.Sessions;

/// <summary>A fact of the floor that can be kept, with what its kind has and nothing else.</summary>
/// <param name="At">By the device's clock.</param>
internal abstract record FloorSaid(Guid Id, DateTimeOffset At)
{
    public sealed record Set(
        Guid Id,
        DateTimeOffset At,
        Drill Drill,
        Variant Variant,
        Side? Side,
        int Round,
        double? Seconds,
        int? CleanReps,
        int? Quality,
        bool Confirmed
    ) : FloorSaid(Id, At);

    /// <param name="Drill">In which it was felt; of a drill that is there no more, its name.</param>
    public sealed record Signal(
        Guid Id,
        DateTimeOffset At,
        SignalKind Kind,
        LoadTag? Region,
        Side? Side,
        int? Pain,
        string? Drill,
        string? Place
    ) : FloorSaid(Id, At);

    public sealed record Gate(Guid Id, DateTimeOffset At, string Key, Side? Side, IReadOnlyList<GateAnswer> Answers) : FloorSaid(Id, At);

    /// <summary>A round that a gate reads was done, with its number.</summary>
    public sealed record Done(Guid Id, DateTimeOffset At, Guid Of, double? Seconds, int? CleanReps) : FloorSaid(Id, At);

    public sealed record Rated(Guid Id, DateTimeOffset At, Guid Of, int Quality) : FloorSaid(Id, At);

    public sealed record Finished(Guid Id, DateTimeOffset At) : FloorSaid(Id, At);

    /// <returns>The fact; or what it lacks: <c>unknownDrill</c>, <c>unknownGate</c> or <c>required</c>, at its field.</returns>
    public static Result<FloorSaid> Read(FloorFact fact, CatalogueContent catalogue)
    {
        Result<FloorSaid> Lacks(string field) => Problem.Of("required", field);
        switch (fact.Kind)
        {
            case FloorFactKind.Set:
                return
                    catalogue.FindDrill(fact.Drill ?? "") is { } drill
                    && drill.Variants.FirstOrDefault(v => v.Key == fact.Variant) is { } variant
                    ? new Set(
                        fact.Id,
                        fact.At,
                        drill,
                        variant,
                        fact.Side,
                        fact.Round ?? 0,
                        fact.Seconds,
                        fact.CleanReps,
                        fact.Quality,
                        fact.Confirmed ?? true
                    )
                    : Problem.Of("unknownDrill", "drill");
            case FloorFactKind.Signal:
                if (fact.Signal is not { } signal)
                    return Lacks("signal");
                return fact.Region is null && catalogue.StopRules.Single(r => r.Signal == signal).AsksRegion
                    ? Lacks("region")
                    : new Signal(
                        fact.Id,
                        fact.At,
                        signal,
                        fact.Region,
                        fact.Side,
                        fact.Pain,
                        catalogue.FindDrill(fact.Drill ?? "")?.Key ?? fact.Drill,
                        BodyPlaces.Of(fact.Place, fact.Region)?.Key
                    );
            case FloorFactKind.Gate:
                return fact.Gate is { } gate && catalogue.FindDayGate(gate) is not null
                    ? new Gate(fact.Id, fact.At, gate, fact.Side, fact.Answers ?? [])
                    : Problem.Of("unknownGate", "gate");
            case FloorFactKind.Confirmed:
                return fact.Of is { } done ? new Done(fact.Id, fact.At, done, fact.Seconds, fact.CleanReps) : Lacks("of");
            case FloorFactKind.Quality:
                return fact.Of is not { } rated ? Lacks("of")
                    : fact.Quality is not { } quality ? Lacks("quality")
                    : new Rated(fact.Id, fact.At, rated, quality);
            default:
                return new Finished(fact.Id, fact.At);
        }
    }
}
