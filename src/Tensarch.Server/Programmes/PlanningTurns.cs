using System.Collections.Concurrent;

namespace Tensarch.Server.Programmes;

/// <summary>
/// Who plans when: two plans at a time in all, whoever asked, and one of each person. Whoever leaves frees the place at once, and so does a page that tries
/// again, for it leaves its try before. So planning takes no more of the machine than it is given, however often it is asked for, and what one person does
/// on two pages goes one after the other.
/// </summary>
public sealed class PlanningTurns : IDisposable
{
    private const int AtOnce = 2;

    /// <summary>More than so many who wait are told to come back later: of all, and of one person.</summary>
    private const int MostWaiting = 24;
    private const int MostOfOne = 6;

    private readonly SemaphoreSlim places = new(AtOnce);
    private readonly PlanningThreads threads = new(Math.Max(AtOnce, Environment.ProcessorCount));
    private readonly ConcurrentDictionary<Guid, Queue> people = [];
    private int waiting;

    private sealed class Queue : IDisposable
    {
        public readonly SemaphoreSlim Place = new(1);
        public int Waiting;

        public void Dispose() => Place.Dispose();
    }

    /// <summary>Works something out in its turn, on a thread that answers no request: nobody else's request waits for it.</summary>
    /// <exception cref="OperationCanceledException">Whoever asked has left.</exception>
    /// <exception cref="TooManyPlansException">Too many wait already.</exception>
    public async Task<T> Run<T>(Guid person, Func<CancellationToken, T> work, CancellationToken leaves)
    {
        var own = people.GetOrAdd(person, _ => new());
        try
        {
            if (Interlocked.Increment(ref own.Waiting) > MostOfOne | Interlocked.Increment(ref waiting) > MostWaiting)
                throw new TooManyPlansException();
            return await InTurn(own.Place, work, leaves);
        }
        finally
        {
            Interlocked.Decrement(ref own.Waiting);
            Interlocked.Decrement(ref waiting);
        }
    }

    public void Dispose()
    {
        places.Dispose();
        threads.Dispose();
        foreach (var own in people.Values)
            own.Dispose();
    }

    private async Task<T> InTurn<T>(SemaphoreSlim own, Func<CancellationToken, T> work, CancellationToken ended)
    {
        await own.WaitAsync(ended);
        try
        {
            await places.WaitAsync(ended);
            try
            {
                return await Task.Factory.StartNew(() => work(ended), ended, TaskCreationOptions.None, threads);
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
