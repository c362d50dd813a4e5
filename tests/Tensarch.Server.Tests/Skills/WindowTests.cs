using Microsoft.Extensions.DependencyInjection;
using Tensarch.Core.Sessions;
using Tensarch.Core.Students;
using Tensarch.Server.Data;
using Tensarch.Server.Skills;

namespace Tensarch.Server.Tests.Skills;

/// <summary>However far back is read, the bars are the same: nothing that sets or lifts one is ever cut, nor a correction of it.</summary>
public sealed class WindowTests : IAsyncLifetime
{
    private readonly StudioApp app = new();
    private StudioClient coach = null!;

    public async ValueTask InitializeAsync() => coach = await app.Studio();

    public ValueTask DisposeAsync() => app.DisposeAsync();

    private DateTimeOffset Now => app.Time.GetUtcNow();

    private static readonly LoadTag[] Regions = [.. LoadTags.All.Where(t => t.IsRegion())];

    private static readonly SignalKind[] Kinds = Enum.GetValues<SignalKind>();

    /// <summary>A year and a half of what was said of a body, with what was said of that since.</summary>
    private async Task Live(Guid student, Random chance)
    {
        DateTimeOffset Some() => Now.AddMinutes(-chance.Next(10, 540 * 24 * 60));
        LoadTag Region() => Regions[chance.Next(4)];
        await using var scope = Scope();
        var db = scope.ServiceProvider.GetRequiredService<TensarchDb>();
        foreach (var _ in Enumerable.Range(0, chance.Next(3, 12)))
        {
            var (kind, at) = (Kinds[chance.Next(Kinds.Length)], Some());
            var signal = new SignalRow
            {
                Id = Guid.NewGuid(),
                StudioId = coach.StudioId,
                StudentId = student,
                Kind = kind,
                Region = Region(),
                Pain = chance.Next(3) == 0 ? null : chance.Next(11),
                At = at,
                RecordedAt = at.AddMinutes(chance.Next(2) == 0 ? 0 : chance.Next(60 * 24)),
                By = coach.UserId,
            };
            db.Add(signal);
            if (chance.Next(3) == 0)
                db.Add(
                    new CorrectionRow
                    {
                        Id = Guid.NewGuid(),
                        StudioId = coach.StudioId,
                        StudentId = student,
                        What = Corrected.Signal,
                        Of = signal.Id,
                        InsteadJson =
                            chance.Next(2) == 0
                                ? null
                                : StoredJson.Write(new Instead(Pain: chance.Next(11), Region: chance.Next(2) == 0 ? Region() : null)),
                        Reason = "It was something else.",
                        At = Later(signal.RecordedAt),
                        By = coach.UserId,
                    }
                );
        }
        foreach (var _ in Enumerable.Range(0, chance.Next(6)))
            db.Add(
                new ReviewRow
                {
                    Id = Guid.NewGuid(),
                    StudioId = coach.StudioId,
                    StudentId = student,
                    Tag = Region(),
                    Note = "Looked at.",
                    At = Some(),
                    By = coach.UserId,
                }
            );
        foreach (var _ in Enumerable.Range(0, chance.Next(4)))
        {
            var at = Some();
            var from = DateOnly.FromDateTime(at.UtcDateTime);
            db.Add(
                new ClearanceRow
                {
                    Id = Guid.NewGuid(),
                    StudioId = coach.StudioId,
                    StudentId = student,
                    Role = "physiotherapist",
                    Tags = [Region(), Region()],
                    From = from,
                    Until = from.AddDays(chance.Next(30, 600)),
                    At = at,
                    By = coach.UserId,
                }
            );
        }
        await db.SaveChangesAsync();
        DateTimeOffset Later(DateTimeOffset than) => than + (Now - than) * chance.NextDouble();
    }

    private AsyncServiceScope Scope()
    {
        var scope = app.Services.CreateAsyncScope();
        scope.ServiceProvider.GetRequiredService<StudioScope>().Enter(coach.StudioId, coach.UserId, "Europe/Oslo");
        return scope;
    }

    [Theory]
    [InlineData(1)]
    [InlineData(20)]
    [InlineData(101)]
    public async Task The_bars_are_the_same_through_every_window(int seed)
    {
        var chance = new Random(seed);
        var barred = 0;
        foreach (var _ in Enumerable.Range(0, 12))
        {
            var student = await coach.Student();
            await Live(student, chance);
            await using var scope = Scope();
            var standings = scope.ServiceProvider.GetRequiredService<Standings>();
            var through = new List<string>();
            foreach (var window in new[] { 1, 30, 120, 3000 })
            {
                standings.WindowDays = window;
                var state = (await standings.Of(student, CancellationToken.None))!.State;
                var days = Enumerable.Range(0, 40).Select(n => state.Bars.On(state.Now.Day.AddDays(n))).ToList();
                through.Add(string.Join('\n', days.Select(d => string.Join(' ', LoadTags.All.Select(t => d[t])))));
                barred += PackLoads.Ended(days[0]).Count;
            }
            Assert.Single(through.Distinct());
        }
        Assert.True(barred > 40, $"Only {barred} bars were seen.");
    }
}
