using Tensarch.Core.Catalogue;
using Tensarch.Core.Students;

namespace Tensarch.Core.Planning;

/// <summary>
/// Builds the next session of a student: warm-up, preparation, strength, end-range work, attempt when allowed, counter and
/// calm; weaker side first; within the minutes given; a reason for every drill and a note for every rule that shaped it.
/// </summary>
public sealed class SessionBuilder(CatalogueContent catalogue)
{
    public const int FewestMinutes = 15;
    public const int MostMinutes = 120;
    public const int AttemptDelayDays = 5;
    public const int AttemptDelaySessions = 4;
    public const int LeastWarmUpSeconds = 300;
    public const double LeastWarmUpShare = 0.15;
    public const double LeastFilledShare = 0.85;

    /// <returns>
    /// The plan; or <c>minutesOutOfRange</c> (numbers: least, most) or <c>everythingOffLimits</c> when nothing may be trained.
    /// </returns>
    public Result<SessionPlan> Build(SessionRequest request)
    {
        if (request.Minutes is < FewestMinutes or > MostMinutes)
            return Problem.Of("minutesOutOfRange", "minutes", ("least", FewestMinutes), ("most", MostMinutes));
        if (LoadTags.All.All(t => request.Bars[t] == BarLevel.OffLimits))
            return Problem.Of("everythingOffLimits", "student");
        return new SessionDraft(catalogue, request).Finish();
    }
}
