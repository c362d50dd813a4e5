using Tensarch.Core;

namespace Tensarch.Server.Students;

/// <summary>Refuses impossible body data, with a code at the field.</summary>
public static class StudentCheck
{
    public static List<Problem> Check(StudentBody body, DateOnly today)
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
