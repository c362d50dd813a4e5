using System.Security.Cryptography;
using System.Threading.Channels;
using Microsoft.EntityFrameworkCore;
using Tensarch.Server.Data;
using Tensarch.Server.Skills;

namespace Tensarch.Server.Programmes;

public enum RosterOutcome
{
    Waiting,

    /// <summary>A new version is kept.</summary>
    Planned,

    /// <summary>It would be the same again.</summary>
    Same,

    /// <summary>No plan: see the code.</summary>
    Failed,

    /// <summary>Not on a ladder, or without a plan while only plans that are there are made again.</summary>
    Skipped,
}

/// <param name="Code">Of what failed.</param>
/// <param name="Changed">Sessions that are others than before.</param>
public sealed record RosterRunLine(Guid StudentId, string Name, RosterOutcome Outcome, string? Code = null, int Changed = 0);

/// <summary>Plans rosters in the background, one after the other; goes on with what did not end when the server starts again.</summary>
internal sealed partial class RosterRuns(IServiceProvider services, TimeProvider time, ILogger<RosterRuns> log) : BackgroundService
{
    private readonly Channel<(Guid Studio, Guid Run)> waiting = Channel.CreateUnbounded<(Guid, Guid)>();

    public void Begin(Guid studio, Guid run) => waiting.Writer.TryWrite((studio, run));

    protected override async Task ExecuteAsync(CancellationToken stoppingToken)
    {
        await Task.Yield();
        try
        {
            await Resume(stoppingToken);
        }
        catch (Exception e) when (e is not OperationCanceledException)
        {
            CouldNot(log, e);
        }
        await foreach (var (studio, run) in waiting.Reader.ReadAllAsync(stoppingToken))
            try
            {
                await Run(studio, run, stoppingToken);
            }
            catch (Exception e) when (e is not OperationCanceledException)
            {
                CouldNot(log, e);
                await GiveUp(run, stoppingToken);
            }
    }

    /// <summary>A run that cannot go on is over: another one may be begun.</summary>
    private async Task GiveUp(Guid run, CancellationToken ct)
    {
        await using var scope = services.CreateAsyncScope();
        var db = scope.ServiceProvider.GetRequiredService<TensarchDb>();
        var ended = time.GetUtcNow();
        await db.RosterRuns.IgnoreQueryFilters().Where(r => r.Id == run).ExecuteUpdateAsync(r => r.SetProperty(x => x.EndedAt, ended), ct);
    }

    private async Task Resume(CancellationToken ct)
    {
        await using var scope = services.CreateAsyncScope();
        var db = scope.ServiceProvider.GetRequiredService<TensarchDb>();
        foreach (var run in await db.RosterRuns.IgnoreQueryFilters().AsNoTracking().Where(r => r.EndedAt == null).ToListAsync(ct))
            Begin(run.StudioId, run.Id);
    }

    private async Task Run(Guid studio, Guid run, CancellationToken ct)
    {
        var (row, zone) = await Read(studio, run, ct);
        var lines = StoredJson.TryRead<List<RosterRunLine>>(row.LinesJson) ?? [];
        var gate = new SemaphoreSlim(1);
        await Parallel.ForEachAsync(
            lines.Index().Where(l => l.Item.Outcome == RosterOutcome.Waiting).ToList(),
            new ParallelOptions { MaxDegreeOfParallelism = Environment.ProcessorCount, CancellationToken = ct },
            async (at, stop) =>
            {
                if (await IsCancelled(run, stop))
                    return;
                var line = await One(row, zone, at.Item, stop);
                await gate.WaitAsync(stop);
                lines[at.Index] = line;
                await Write(run, lines, null, stop);
                gate.Release();
            }
        );
        await Write(run, lines, time.GetUtcNow(), ct);
    }

    private async Task<(RosterRunRow Row, string Zone)> Read(Guid studio, Guid run, CancellationToken ct)
    {
        await using var scope = services.CreateAsyncScope();
        var db = scope.ServiceProvider.GetRequiredService<TensarchDb>();
        return (
            await db.RosterRuns.IgnoreQueryFilters().AsNoTracking().SingleAsync(r => r.Id == run, ct),
            await db.Studios.Where(s => s.Id == studio).Select(s => s.TimeZone).SingleAsync(ct)
        );
    }

    private async Task<bool> IsCancelled(Guid run, CancellationToken ct)
    {
        await using var scope = services.CreateAsyncScope();
        var db = scope.ServiceProvider.GetRequiredService<TensarchDb>();
        return await db.RosterRuns.IgnoreQueryFilters().AnyAsync(r => r.Id == run && r.CancelledAt != null, ct);
    }

    private async Task Write(Guid run, List<RosterRunLine> lines, DateTimeOffset? ended, CancellationToken ct)
    {
        await using var scope = services.CreateAsyncScope();
        var db = scope.ServiceProvider.GetRequiredService<TensarchDb>();
        var text = StoredJson.Write(lines);
        await db
            .RosterRuns.IgnoreQueryFilters()
            .Where(r => r.Id == run)
            .ExecuteUpdateAsync(r => r.SetProperty(x => x.LinesJson, text).SetProperty(x => x.EndedAt, ended), ct);
    }

    /// <summary>One student, whatever comes of it: what fails does not stop the rest.</summary>
    private async Task<RosterRunLine> One(RosterRunRow run, string zone, RosterRunLine line, CancellationToken ct)
    {
        try
        {
            await using var scope = services.CreateAsyncScope();
            scope.ServiceProvider.GetRequiredService<StudioScope>().Enter(run.StudioId, run.By, zone);
            return await Plan(run, line, scope.ServiceProvider, ct);
        }
        catch (Exception e) when (e is not OperationCanceledException)
        {
            CouldNot(log, e);
            return line with { Outcome = RosterOutcome.Failed, Code = "unexpected" };
        }
    }

    private static async Task<RosterRunLine> Plan(RosterRunRow run, RosterRunLine line, IServiceProvider scoped, CancellationToken ct)
    {
        var (desk, today) = (scoped.GetRequiredService<ProgrammeDesk>(), scoped.GetRequiredService<StudioClock>().Today);
        if (await scoped.GetRequiredService<Standings>().Of(line.StudentId, ct) is not { } standing)
            return line with { Outcome = RosterOutcome.Skipped };
        var current = await desk.Current(line.StudentId, ct);
        var stands = current is { Row.EndedAt: null } && current.Sketch.End >= today ? current : null;
        if ((stands?.Sketch ?? (run.AlsoNew ? ProgrammeSuggestion.Of(standing, today) : null)) is not { } sketch)
            return line with { Outcome = RosterOutcome.Skipped };
        var request = new PlanProgramme(IdOf(run.Id, line.StudentId), current?.Row.Number ?? 0, sketch);
        var kept = await desk.KeepChanged(standing, request, ct);
        return kept.IsOk
            ? line with
            {
                Outcome = kept.Value > 0 ? RosterOutcome.Planned : RosterOutcome.Same,
                Changed = kept.Value,
            }
            : line with
            {
                Outcome = RosterOutcome.Failed,
                Code = kept.Problems[0].Code,
            };
    }

    /// <summary>The same run plans a student once, however often it is begun again.</summary>
    private static Guid IdOf(Guid run, Guid student) =>
        new(SHA256.HashData([.. run.ToByteArray(), .. student.ToByteArray()]).AsSpan(0, 16));

    [LoggerMessage(Level = LogLevel.Error, Message = "A student of a roster could not be planned.")]
    private static partial void CouldNot(ILogger log, Exception e);
}

/// <param name="AlsoNew">Those who have no plan are planned as well, from their goals and days.</param>
public sealed record RosterRunRequest(Guid Id, bool AlsoNew);

/// <param name="Done">So many of the lines are through.</param>
public sealed record RosterRunView(
    Guid Id,
    DateTimeOffset At,
    string By,
    int Done,
    IReadOnlyList<RosterRunLine> Lines,
    DateTimeOffset? CancelledAt,
    DateTimeOffset? EndedAt
);

/// <param name="Run">None where nobody was planned at once yet.</param>
public sealed record RosterPage(RosterRunView? Run);
