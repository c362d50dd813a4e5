using Tensarch.Core;
using Tensarch.Core.Students;

namespace Tensarch.Server.Students;

/// <summary>Refuses body data that contradict each other or name what there is not; what one field may be is checked at the door.</summary>
public static class StudentCheck
{
    private const int OldestYears = 110;

    /// <param name="skills">Keys of the skills there are.</param>
    public static List<Problem> Check(StudentBody body, DateOnly today, IEnumerable<string> skills)
    {
        var problems = new List<Problem>();
        if (body.BirthDate < today.AddYears(-OldestYears))
            problems.Add(Problem.Of("dateTooEarly", "birthDate"));
        if (body.Goals is { } goals && (goals.Any(g => skills.All(k => k != g)) || goals.Distinct().Count() != goals.Count))
            problems.Add(Problem.Of("unknownLadder", "goals"));
        if (body.Equipment?.Any(e => !HomeProps.All.Contains(e)) == true)
            problems.Add(Problem.Of("unknownItem", "equipment"));
        foreach (var (index, day) in (body.Days ?? []).Index())
            if ((day.Weekday is null) == (day.Date is null))
                problems.Add(Problem.Of("weekdayOrDate", $"days[{index}].weekday"));
        if (body.SplitStandard is not ("square" or "open"))
            problems.Add(Problem.Of("unknownStandard", "splitStandard"));
        return problems;
    }
}
