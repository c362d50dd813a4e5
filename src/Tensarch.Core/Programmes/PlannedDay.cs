using Tensarch.Core.Planning;
using Tensarch.Core.Sessions;

namespace Tensarch.Core.Programmes;

/// <summary>A session of a plan, for who its student will be on its day.</summary>
/// <param name="Who">On the day, with nothing of the plan's own days in the history: the checker adds those.</param>
public sealed record PlannedDay(SessionPlan Plan, Trainee Who)
{
    public DateOnly Day => Plan.Date;
}

/// <summary>A rule that a day of a plan breaks.</summary>
/// <param name="Day">Of a week's load, its first one.</param>
/// <param name="Load">What a week has too much of: so much, where so much is the most.</param>
public sealed record DayViolation(DateOnly Day, Violation Violation, LoadKey? Load = null, int? Has = null, int? Most = null);
