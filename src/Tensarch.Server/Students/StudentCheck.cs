using Tensarch.Core;
using Tensarch.Core.Students;

namespace Tensarch.Server.Students;

/// <summary>Refuses impossible body data, with a code at the field.</summary>
public static class StudentCheck
{
    private const int MostDays = 28;

    /// <param name="skills">Keys of the skills there are.</param>
    public static List<Problem> Check(StudentBody body, DateOnly today, IEnumerable<string> skills)
    {
        var problems = new List<Problem>();
        if (string.IsNullOrWhiteSpace(body.Name))
            problems.Add(Problem.Of("required", "name"));
        else if (body.Name.Trim().Length > 120)
            problems.Add(Problem.Of("tooLong", "name", ("most", 120)));
        if (body.About?.Length > 200)
            problems.Add(Problem.Of("tooLong", "about", ("most", 200)));
        if (body.BirthDate > today)
            problems.Add(Problem.Of("dateInFuture", "birthDate"));
        else if (body.BirthDate < today.AddYears(-110))
            problems.Add(Problem.Of("dateTooEarly", "birthDate"));
        if (body.GuardianConsentOn > today)
            problems.Add(Problem.Of("dateInFuture", "guardianConsentOn"));
        Between(body.LeftLegCm, 40, 130, "leftLegCm", problems);
        Between(body.RightLegCm, 40, 130, "rightLegCm", problems);
        Between(body.HipWidthCm, 0, 40, "hipWidthCm", problems);
        Between(body.BodyweightKg, 20, 300, "bodyweightKg", problems);
        Between(body.BreathSeconds, 2, 20, "breathSeconds", problems);
        Between(body.SensationCeiling, 1, 10, "sensationCeiling", problems);
        Between(body.BlocksOwned, 0, 20, "blocksOwned", problems);
        Between(
            body.SessionMinutes,
            Core.Planning.SessionBuilder.FewestMinutes,
            Core.Planning.SessionBuilder.MostMinutes,
            "sessionMinutes",
            problems
        );
        if (body.ConsentOn > today)
            problems.Add(Problem.Of("dateInFuture", "consentOn"));
        if (body.Goals is { } goals && (goals.Any(g => skills.All(k => k != g)) || goals.Distinct().Count() != goals.Count))
            problems.Add(Problem.Of("unknownLadder", "goals"));
        if (body.Equipment?.Any(e => !HomeProps.All.Contains(e)) == true)
            problems.Add(Problem.Of("unknownItem", "equipment"));
        foreach (var (index, day) in (body.Days ?? []).Index())
        {
            if ((day.Weekday is null) == (day.Date is null))
                problems.Add(Problem.Of("weekdayOrDate", $"days[{index}].weekday"));
            Between(
                day.Minutes,
                Core.Planning.SessionBuilder.FewestMinutes,
                Core.Planning.SessionBuilder.MostMinutes,
                $"days[{index}].minutes",
                problems
            );
        }
        if (body.Days?.Count > MostDays)
            problems.Add(Problem.Of("tooMany", "days", ("most", MostDays)));
        if (body.SplitStandard is not ("square" or "open"))
            problems.Add(Problem.Of("unknownStandard", "splitStandard"));
        return problems;
    }

    private static void Between(double? value, double least, double most, string field, List<Problem> problems)
    {
        if (value is { } v && !(v >= least && v <= most))
            problems.Add(Problem.Of("outOfRange", field, ("value", v), ("min", least), ("max", most)));
    }
}
