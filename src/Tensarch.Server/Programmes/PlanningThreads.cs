using System.Collections.Concurrent;

namespace Tensarch.Server.Programmes;

/// <summary>
/// Threads of its own for long work, and for what is done side by side in it: the pool's, which answer requests, are left alone. (A lower priority of theirs
/// would be handed down on Linux to every thread that the pool begins from one of them.)
/// </summary>
internal sealed class PlanningThreads : TaskScheduler, IDisposable
{
    private readonly BlockingCollection<Task> waiting = [];
    private readonly int threads;

    public PlanningThreads(int threads)
    {
        this.threads = threads;
        for (var i = 0; i < threads; i++)
            new Thread(Work) { IsBackground = true, Name = "planning" }.Start();
    }

    public override int MaximumConcurrencyLevel => threads;

    public void Dispose() => waiting.CompleteAdding();

    protected override void QueueTask(Task task) => waiting.Add(task);

    /// <summary>Also what is queued already: who waits for a part of its own work would else wait for a thread that waits too.</summary>
    protected override bool TryExecuteTaskInline(Task task, bool taskWasPreviouslyQueued) => Current == this && TryExecuteTask(task);

    protected override IEnumerable<Task> GetScheduledTasks() => [.. waiting];

    private void Work()
    {
        foreach (var task in waiting.GetConsumingEnumerable())
            TryExecuteTask(task);
    }
}
