using Microsoft.EntityFrameworkCore;
using Tensarch.Core;
using Tensarch.Core.Catalogue;
using Tensarch.Core.Students;
using Tensarch.Server.Data;

namespace Tensarch.Server.Students;

/// <summary>Writes down students, their answers, clearances and reviews. The demo's simulator goes through here as the screens do.</summary>
public sealed class StudentDesk(TensarchDb db, CatalogueContent catalogue, StudioClock clock, StudioScope scope)
{
    public async Task<Result<(StudentRow Row, Appended Appended)>> Add(StudentCreate request, CancellationToken ct)
    {
        var problems = StudentCheck.Check(request.Student, clock.Today);
        if (problems.Count > 0)
            return problems;
        var hash = Facts.Hash(request.Student);
        var stored = await db.Students.AsNoTracking().SingleOrDefaultAsync(s => s.Id == request.Id, ct);
        if (stored is not null)
            return (stored, stored.BodyHash == hash ? Appended.SameAgain : Appended.Clash);
        var row = new StudentRow
        {
            Id = request.Id,
            Version = 1,
            Name = "",
            SplitStandard = "",
            CreatedAt = clock.Now,
            BodyHash = hash,
        };
        Write(request.Student, row);
        db.Students.Add(row);
        return (row, await db.SaveFact(Appended.Stored, ct));
    }

    public static void Write(StudentBody body, StudentRow row)
    {
        row.Name = body.Name.Trim();
        row.About = string.IsNullOrWhiteSpace(body.About) ? null : body.About.Trim();
        row.BirthDate = body.BirthDate;
        row.LeftLegCm = body.LeftLegCm;
        row.RightLegCm = body.RightLegCm;
        row.HipWidthCm = body.HipWidthCm;
        row.BodyweightKg = body.BodyweightKg;
        row.BreathSeconds = body.BreathSeconds;
        row.SensationCeiling = body.SensationCeiling;
        row.SplitStandard = body.SplitStandard;
        row.BlocksOwned = body.BlocksOwned;
        row.SessionMinutes = body.SessionMinutes;
        row.GuardianConsentOn = body.GuardianConsentOn;
    }

    /// <summary>Appends the answers that differ from the newest ones.</summary>
    public async Task<IReadOnlyList<Problem>> Answer(Guid studentId, IReadOnlyList<AnswerItem> answers, CancellationToken ct)
    {
        var unknown = answers.Where(a => catalogue.Questions.All(q => q.Key != a.Question)).ToList();
        if (unknown.Count > 0)
            return [Problem.Of("unknownQuestion", unknown[0].Question)];
        var newest = (await db.Answers.Where(a => a.StudentId == studentId).OrderBy(a => a.Id).ToListAsync(ct))
            .GroupBy(a => a.Question)
            .ToDictionary(g => g.Key, g => g.Last().Yes);
        foreach (var answer in answers)
            if (!newest.TryGetValue(answer.Question, out var before) || before != answer.Yes)
                db.Answers.Add(
                    new()
                    {
                        StudentId = studentId,
                        Question = answer.Question,
                        Yes = answer.Yes,
                        At = clock.Now,
                        By = scope.UserId,
                    }
                );
        await db.SaveChangesAsync(ct);
        return [];
    }

    public async Task<Result<Appended>> Clear(Guid studentId, ClearanceRequest request, CancellationToken ct)
    {
        var problems = new List<Problem>();
        if (string.IsNullOrWhiteSpace(request.Role))
            problems.Add(Problem.Of("required", "role"));
        if (request.Tags.Count == 0)
            problems.Add(Problem.Of("required", "tags"));
        if (request.From > clock.Today)
            problems.Add(Problem.Of("dateInFuture", "from"));
        if (request.Until < request.From)
            problems.Add(Problem.Of("untilBeforeFrom", "until"));
        if (problems.Count > 0)
            return problems;
        var row = new ClearanceRow
        {
            Id = request.Id,
            StudentId = studentId,
            Role = request.Role.Trim(),
            Tags = [.. request.Tags.Distinct()],
            From = request.From,
            Until = request.Until,
            At = clock.Now,
            By = scope.UserId,
        };
        return await db.SaveFact(await db.Clearances.AddFact(row, new { studentId, request }, ct), ct);
    }

    /// <summary>A coach's review lifts a review hold, not before two pain-free sessions.</summary>
    public async Task<Result<Appended>> Review(Guid studentId, ReviewRequest request, IReadOnlyList<ReviewHold> holds, CancellationToken ct)
    {
        if (string.IsNullOrWhiteSpace(request.Note) || request.Note.Trim().Length < 10)
            return Problem.Of("reasonTooShort", "note", ("least", 10));
        var row = new ReviewRow
        {
            Id = request.Id,
            StudentId = studentId,
            Tag = request.Tag,
            Note = request.Note.Trim(),
            At = clock.Now,
            By = scope.UserId,
        };
        var appended = await db.Reviews.AddFact(row, new { studentId, request }, ct);
        if (appended != Appended.Stored)
            return appended;
        var hold = holds.FirstOrDefault(h => h.Tag == request.Tag && !h.NeedsClinician);
        if (hold is null)
            return Problem.Of("noSuchHold", "tag");
        if (!hold.MayBeReviewed)
            return Problem.Of("reviewTooEarly", "tag", ("painFree", hold.PainFreeSessions), ("needed", ReviewHold.PainFreeSessionsNeeded));
        return await db.SaveFact(appended, ct);
    }
}
