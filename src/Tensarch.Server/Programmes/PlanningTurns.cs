using System.Collections.Concurrent;

namespace Tensarch.Server.Programmes;

/// <summary>
/// Who plans when: two plans at a time in all, whoever asked, and one of each person; who tries again does not wait for the try before, which ends. So
/// planning takes no more of the machine than it is given, however often it is asked for.
/// </summary>
public sealed class PlanningTurns : IDisposable
{
    private const int AtOnce = 2;

    /// <summary>More than so many who wait are told to come back later.</summary>
    private const int MostWaiting = 24;

    private readonly SemaphoreSlim places = new(AtOnce);
    private readonly ConcurrentDictionary<Guid, SemaphoreSlim> people = [];
    private readonly ConcurrentDictionary<Guid, CancellationTokenSource> tries = [];
    private int waiting;

    /// <summary>Works something out in its turn, on a thread of its own: nobody else's request waits for it.</summary>
    /// <param name="isTry">It is only looked at: the next try of the same person ends it.</param>
    /// <exception cref="OperationCanceledException">Whoever asked has left, or has tried again.</exception>
    /// <exception cref="TooManyPlansException">Too many wait already.</exception>
    public async Task<T> Run<T>(Guid person, bool isTry, Func<CancellationToken, T> work, CancellationToken leaves)
    {
        if (Interlocked.Increment(ref waiting) > MostWaiting)
        {
            Interlocked.Decrement(ref waiting);
            throw new TooManyPlansException();
        }
        using var ended = CancellationTokenSource.CreateLinkedTokenSource(leaves);
        try
        {
            if (isTry && tries.TryRemove(person, out var before))
                await before.CancelAsync();
            if (isTry)
                tries[person] = ended;
            return await InTurn(person, work, ended.Token);
        }
        finally
        {
            Interlocked.Decrement(ref waiting);
            if (isTry)
                tries.TryRemove(new KeyValuePair<Guid, CancellationTokenSource>(person, ended));
        }
    }

    public void Dispose()
    {
        places.Dispose();
        foreach (var own in people.Values)
            own.Dispose();
    }

    private async Task<T> InTurn<T>(Guid person, Func<CancellationToken, T> work, CancellationToken ended)
    {
        var own = people.GetOrAdd(person, _ => new(1));
        await own.WaitAsync(ended);
        try
        {
            await places.WaitAsync(ended);
            try
            {
                return await Task.Factory.StartNew(() => work(ended), ended, TaskCreationOptions.LongRunning, TaskScheduler.Default);
            }
            finally
            {
                places.Release();
            }
        }
        finally
        {
            own.Release();
        }
    }
}

/// <summary>More is asked for than can be worked out soon.</summary>
public sealed class TooManyPlansException : Exception;
