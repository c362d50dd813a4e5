using Tensarch.Server.Programmes;

namespace Tensarch.Server.Tests.Programmes;

/// <summary>Planning takes its turn: two at once in all, one of a person, and nobody takes every place.</summary>
public sealed class PlanningTurnsTests : IDisposable
{
    private readonly PlanningTurns turns = new();
    private readonly TaskCompletionSource go = new();
    private int running;
    private int most;

    public void Dispose() => turns.Dispose();

    private int Work(CancellationToken ended)
    {
        var now = Interlocked.Increment(ref running);
        lock (turns)
            most = Math.Max(most, now);
        go.Task.Wait(ended);
        return Interlocked.Decrement(ref running);
    }

    private async Task Until(int so)
    {
        while (Volatile.Read(ref running) < so)
            await Task.Delay(5);
    }

    [Fact]
    public async Task Two_plans_are_made_at_once_whoever_asked_and_one_of_each_person()
    {
        var person = Guid.NewGuid();
        var asked = new[] { person, person, Guid.NewGuid(), Guid.NewGuid() }
            .Select(who => turns.Run(who, Work, CancellationToken.None))
            .ToList();
        await Until(2);
        go.SetResult();
        await Task.WhenAll(asked);
        Assert.Equal(2, most);
    }

    [Fact]
    public async Task What_one_person_tries_on_two_pages_goes_one_after_the_other()
    {
        var person = Guid.NewGuid();
        var first = turns.Run(person, Work, CancellationToken.None);
        await Until(1);
        var second = turns.Run(person, _ => 7, CancellationToken.None);
        Assert.False(second.IsCompleted);
        go.SetResult();
        Assert.Equal(0, await first);
        Assert.Equal(7, await second);
    }

    [Fact]
    public async Task Who_leaves_frees_the_place_at_once()
    {
        using var leaves = new CancellationTokenSource();
        var left = turns.Run(Guid.NewGuid(), Work, leaves.Token);
        await Until(1);
        await leaves.CancelAsync();
        await Assert.ThrowsAnyAsync<OperationCanceledException>(() => left);
        Assert.Equal(1, await turns.Run(Guid.NewGuid(), _ => 1, CancellationToken.None));
    }

    [Fact]
    public async Task More_than_can_be_worked_out_soon_is_refused()
    {
        var asked = Enumerable.Range(0, 24).Select(_ => turns.Run(Guid.NewGuid(), Work, CancellationToken.None)).ToList();
        await Assert.ThrowsAsync<TooManyPlansException>(() => turns.Run(Guid.NewGuid(), Work, CancellationToken.None));
        go.SetResult();
        await Task.WhenAll(asked);
    }

    [Fact]
    public async Task One_person_cannot_take_every_place_in_the_queue()
    {
        var person = Guid.NewGuid();
        var asked = Enumerable.Range(0, 6).Select(_ => turns.Run(person, Work, CancellationToken.None)).ToList();
        await Assert.ThrowsAsync<TooManyPlansException>(() => turns.Run(person, Work, CancellationToken.None));
        var other = turns.Run(Guid.NewGuid(), _ => 7, CancellationToken.None);
        Assert.Equal(7, await other);
        go.SetResult();
        await Task.WhenAll(asked);
        Assert.Equal(1, await turns.Run(person, _ => 1, CancellationToken.None));
    }

    [Fact]
    public async Task Plans_at_once_with_work_side_by_side_in_each_end_and_take_no_thread_that_answers_requests()
    {
        var ofThePool = 0;
        int SideBySide(CancellationToken _)
        {
            for (var n = 0; n < 200; n++)
                Parallel.For(
                    0,
                    16,
                    new ParallelOptions { TaskScheduler = TaskScheduler.Current },
                    _ =>
                    {
                        Thread.SpinWait(2_000);
                        if (Thread.CurrentThread.IsThreadPoolThread)
                            Interlocked.Increment(ref ofThePool);
                    }
                );
            return 1;
        }
        var asked = Enumerable.Range(0, 6).Select(_ => turns.Run(Guid.NewGuid(), SideBySide, CancellationToken.None));
        Assert.Equal(6, (await Task.WhenAll(asked).WaitAsync(TimeSpan.FromMinutes(1))).Sum());
        Assert.Equal(0, ofThePool);
    }
}
