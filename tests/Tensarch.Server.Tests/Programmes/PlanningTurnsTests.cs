using Tensarch.Server.Programmes;

namespace Tensarch.Server.Tests.Programmes;

/// <summary>Planning takes its turn: two at once in all, one of a person, and a try ends the try before it.</summary>
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
            .Select(who => turns.Run(who, isTry: false, Work, CancellationToken.None))
            .ToList();
        await Until(2);
        go.SetResult();
        await Task.WhenAll(asked);
        Assert.Equal(2, most);
    }

    [Fact]
    public async Task A_try_ends_the_try_before_it_and_takes_its_place()
    {
        var person = Guid.NewGuid();
        var first = turns.Run(person, isTry: true, Work, CancellationToken.None);
        await Until(1);
        var second = turns.Run(person, isTry: true, _ => 7, CancellationToken.None);
        await Assert.ThrowsAnyAsync<OperationCanceledException>(() => first);
        Assert.Equal(7, await second);
    }

    [Fact]
    public async Task Who_leaves_frees_the_place_at_once()
    {
        using var leaves = new CancellationTokenSource();
        var left = turns.Run(Guid.NewGuid(), isTry: false, Work, leaves.Token);
        await Until(1);
        await leaves.CancelAsync();
        await Assert.ThrowsAnyAsync<OperationCanceledException>(() => left);
        Assert.Equal(1, await turns.Run(Guid.NewGuid(), isTry: false, _ => 1, CancellationToken.None));
    }

    [Fact]
    public async Task More_than_can_be_worked_out_soon_is_refused()
    {
        var asked = Enumerable.Range(0, 24).Select(_ => turns.Run(Guid.NewGuid(), isTry: false, Work, CancellationToken.None)).ToList();
        await Assert.ThrowsAsync<TooManyPlansException>(() => turns.Run(Guid.NewGuid(), isTry: false, Work, CancellationToken.None));
        go.SetResult();
        await Task.WhenAll(asked);
    }
}
