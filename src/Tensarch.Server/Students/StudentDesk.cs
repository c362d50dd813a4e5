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
        var problems = StudentCheck.Check(request.Student, clock.Today, Skills);
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
            ConsentNeeded = true,
        };
        Write(request.Student, row);
        foreach (var said in request.Consents ?? [])
            db.Consents.Add(Row(row.Id, new(Guid.CreateVersion7(), said.Kind, said.Given, said.SaidBy)));
        db.Students.Add(row);
        db.Roster.Add(
            new()
            {
                StudentId = row.Id,
                LineJson = "",
                DueAt = DateTimeOffset.UnixEpoch,
            }
        );
        return (row, await db.SaveFact(Appended.Stored, ct));
    }

    private IEnumerable<string> Skills => catalogue.Skills.Select(l => l.Key);

    public IReadOnlyList<Problem> Check(StudentBody body) => StudentCheck.Check(body, clock.Today, Skills);

    /// <summary>Writes the body data over the row, and appends them as a fact of their own, with who and when.</summary>
    public void Write(StudentBody body, StudentRow row)
    {
        db.Bodies.Add(
            new()
            {
                StudentId = row.Id,
                Version = row.Version,
                BodyJson = StoredJson.Write(body),
                At = clock.Now,
                By = scope.UserId,
            }
        );
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
        row.Equipment = [.. (body.Equipment ?? []).Distinct()];
        row.GoalsJson = body.Goals is { Count: > 0 } goals ? StoredJson.Write(goals) : null;
        row.BodyWordsJson = body.BodyWords is { Count: > 0 } words ? StoredJson.Write(words.DistinctBy(w => w.Tag)) : null;
        row.DaysJson = body.Days is { Count: > 0 } days ? StoredJson.Write(days) : null;
    }

    /// <summary>The length of a breath as it was read: what is counted in breaths is reckoned with it from now on. Not yet saved.</summary>
    public async Task Breathes(Guid studentId, double seconds, CancellationToken ct)
    {
        var row = await db.Students.SingleAsync(s => s.Id == studentId, ct);
        row.Version++;
        Write(StudentEndpoints.View(row, clock).Student with { BreathSeconds = Math.Round(seconds, 1) }, row);
    }

    /// <summary>
    /// Appends the answers that differ from the newest ones. With every question in the request, or with the last one that was open, the
    /// whole screen has been gone through on this day.
    /// </summary>
    public async Task<IReadOnlyList<Problem>> Answer(Guid studentId, AnswersRequest request, CancellationToken ct)
    {
        var unknown = request.Answers.Where(a => catalogue.Questions.All(q => q.Key != a.Question)).ToList();
        if (unknown.Count > 0)
            return [Problem.Of("unknownQuestion", unknown[0].Question)];
        var newest = (await db.Answers.Where(a => a.StudentId == studentId).OrderBy(a => a.Id).ToListAsync(ct))
            .GroupBy(a => a.Question)
            .ToDictionary(g => g.Key, g => Said(g.Last().Yes, g.Last().Signs));
        var born = await db.Students.Where(s => s.Id == studentId).Select(s => s.BirthDate).SingleAsync(ct);
        int? age = born is { } date ? Age.Years(date, clock.Today) : null;
        foreach (var answer in request.Answers)
        {
            var counted = catalogue.Questions.Single(q => q.Key == answer.Question).Signs;
            var signs = counted is null ? null : answer.Signs?.Intersect(counted.Keys).Order().ToList();
            if (!newest.TryGetValue(answer.Question, out var said) || said != Said(answer.Yes, signs))
                db.Answers.Add(
                    new()
                    {
                        StudentId = studentId,
                        Question = answer.Question,
                        Yes = signs is null ? answer.Yes : counted!.IsYes(signs, age),
                        Signs = signs,
                        At = clock.Now,
                        By = scope.UserId,
                    }
                );
            newest[answer.Question] = Said(answer.Yes, signs);
        }
        var answered = request.Answers.Select(a => a.Question).ToHashSet();
        var whole = catalogue.Questions.All(q => answered.Contains(q.Key));
        // What came later and is asked alone is no whole screen.
        var before = await db.Screenings.AnyAsync(s => s.StudentId == studentId && s.Kind == ScreeningKind.Whole, ct);
        if (whole || !before && catalogue.Questions.All(q => newest.ContainsKey(q.Key)))
            await db.Screenings.AddFact(Screening(studentId, request.Id ?? Guid.CreateVersion7(), ScreeningKind.Whole, null), request, ct);
        await db.SaveChangesAsync(ct);
        return [];
    }

    /// <summary>A consent, or its withdrawal: it holds at once.</summary>
    public async Task<Appended> Consent(Guid studentId, ConsentRequest request, CancellationToken ct) =>
        await db.SaveFact(await db.Consents.AddFact(Row(studentId, request), new { studentId, request }, ct), ct);

    private ConsentRow Row(Guid studentId, ConsentRequest request) =>
        new()
        {
            Id = request.Id,
            StudentId = studentId,
            Kind = request.Kind,
            Given = request.Given,
            SaidBy = string.IsNullOrWhiteSpace(request.SaidBy) ? null : request.SaidBy.Trim(),
            On = clock.Today,
            At = clock.Now,
            By = scope.UserId,
        };

    /// <summary>What is said before a session of today.</summary>
    public async Task<Result<Appended>> CheckIn(Guid studentId, CheckInRequest request, CancellationToken ct)
    {
        var problems = new List<Problem>();
        foreach (var (index, felt) in request.Felt.Index())
            if (BodyPlaces.Find(felt.Place) is not { } place)
                problems.Add(Problem.Of("unknownPlace", $"felt[{index}].place"));
            else if (place.Sided && felt.Side is null)
                problems.Add(Problem.Of("required", $"felt[{index}].side"));
        if (problems.Count > 0)
            return problems;
        var row = new CheckInRow
        {
            Id = request.Id,
            StudentId = studentId,
            Day = clock.Today,
            SleptBadly = request.SleptBadly,
            Ill = request.Ill,
            TrainedHard = request.TrainedHard,
            FeltJson = StoredJson.Write(
                request
                    .Felt.Select(f => new Felt(f.Kind, f.Place, BodyPlaces.Find(f.Place)!.Sided ? f.Side : null, f.Level))
                    .GroupBy(f => (f.Kind, f.Place, f.Side))
                    .Select(same => same.MaxBy(f => f.Level))
            ),
            At = clock.Now,
            By = scope.UserId,
        };
        return await db.SaveFact(await db.CheckIns.AddFact(row, new { studentId, request }, ct), ct);
    }

    /// <summary>An answer as a text that is the same for the same answer.</summary>
    private static string Said(bool yes, List<string>? signs) => signs is null ? $"{yes}" : string.Join(' ', signs);

    public async Task<Appended> SomethingChanged(Guid studentId, ChangedRequest request, CancellationToken ct)
    {
        var row = Screening(studentId, request.Id, ScreeningKind.SomethingChanged, request.Note.Trim());
        return await db.SaveFact(await db.Screenings.AddFact(row, new { studentId, request }, ct), ct);
    }

    private ScreeningRow Screening(Guid studentId, Guid id, ScreeningKind kind, string? note) =>
        new()
        {
            Id = id,
            StudentId = studentId,
            Kind = kind,
            Note = note,
            On = clock.Today,
            At = clock.Now,
            By = scope.UserId,
        };

    /// <summary>A clearance that no longer stands: from today, the bar is back.</summary>
    public async Task<Appended> Withdraw(Guid studentId, Guid clearanceId, WithdrawalRequest request, CancellationToken ct)
    {
        var row = new WithdrawalRow
        {
            Id = request.Id,
            StudentId = studentId,
            ClearanceId = clearanceId,
            Reason = request.Reason.Trim(),
            On = clock.Today,
            At = clock.Now,
            By = scope.UserId,
        };
        return await db.SaveFact(await db.Withdrawals.AddFact(row, new { clearanceId, request }, ct), ct);
    }

    /// <param name="toTrain">Something is barred that any clearance lifts: one that names no tag does.</param>
    public async Task<Result<Appended>> Clear(Guid studentId, ClearanceRequest request, bool toTrain, CancellationToken ct)
    {
        var problems = new List<Problem>();
        if (request.Tags.Count == 0 && !toTrain)
            problems.Add(Problem.Of("required", "tags"));
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

    /// <summary>A coach's review lifts a review bar, not before two pain-free sessions.</summary>
    public async Task<Result<Appended>> Review(Guid studentId, ReviewRequest request, IReadOnlyList<ReviewBar> bars, CancellationToken ct)
    {
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
        var bar = bars.FirstOrDefault(b => b.Tag == request.Tag && !b.NeedsClinician);
        if (bar is null)
            return Problem.Of("noSuchBar", "tag");
        if (!bar.MayBeReviewed)
            return Problem.Of("reviewTooEarly", "tag", ("painFree", bar.PainFreeSessions), ("needed", ReviewBar.PainFreeSessionsNeeded));
        return await db.SaveFact(appended, ct);
    }
}
