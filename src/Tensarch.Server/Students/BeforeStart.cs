using Microsoft.EntityFrameworkCore;
using Tensarch.Core.Students;
using Tensarch.Server.Data;
using Tensarch.Server.Skills;

namespace Tensarch.Server.Students;

/// <summary>What is said before a session: consents, and how the day is.</summary>
internal static class BeforeStart
{
    public static async Task<IResult> Consent(Guid studentId, ConsentRequest request, StudentDesk desk, CancellationToken ct) =>
        StudentEndpoints.Respond(await desk.Consent(studentId, request, ct), studentId, request.Id);

    public static async Task<IResult> CheckIn(Guid studentId, CheckInRequest request, StudentDesk desk, CancellationToken ct) =>
        StudentEndpoints.Respond(await desk.CheckIn(studentId, request, ct), studentId, request.Id);

    /// <summary>What stands, with who wrote it down.</summary>
    public static async Task<ConsentsView> Consents(Standing standing, TensarchDb db, StudioClock clock, CancellationToken ct)
    {
        var consents = standing.State.Bars.Consents;
        var rows = await db.Consents.AsNoTracking().Where(c => c.StudentId == standing.Student.Id).OrderBy(c => c.At).ToListAsync(ct);
        var authors = rows.Select(r => r.By).ToList();
        var names = await db.Users.AsNoTracking().Where(u => authors.Contains(u.Id)).ToDictionaryAsync(u => u.Id, u => u.DisplayName, ct);
        return new(
            [
                .. rows.GroupBy(r => r.Kind)
                    .Select(same => same.Last())
                    .OrderBy(r => r.Kind)
                    .Select(r => new ConsentView(r.Kind, r.Given, r.On, r.SaidBy, names.GetValueOrDefault(r.By, ""), r.At)),
            ],
            consents.Unasked(standing.State.Bars.IsMinor(clock.Today)),
            consents.BarTraining
        );
    }

    public static CheckInView Today(StudentState state)
    {
        var today = state.Now.Day;
        var last = state.Sessions.Select(s => (DateOnly?)s.Day).LastOrDefault(d => d < today);
        return new(
            state.Bars.CheckInOn(today),
            last is { } day && state.Facts.CheckIns.All(c => c.Day <= day || c.Day >= today) ? last : null
        );
    }
}
