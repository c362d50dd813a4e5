using System.Collections.Concurrent;
using System.Diagnostics.CodeAnalysis;
using System.Runtime.InteropServices;

namespace Tensarch.Server.Hosting;

/// <summary>Runs long work on threads of its own, behind everything else on the machine: whoever answers a question about a body comes first.</summary>
public sealed class LowPriorityScheduler : TaskScheduler, IDisposable
{
    /// <summary>As a niceness, of 0 to 19.</summary>
    private const int Behind = 10;

    private readonly BlockingCollection<Task> waiting = [];

    /// <param name="threads">So many pieces of work at once.</param>
    public LowPriorityScheduler(int threads)
    {
        for (var i = 0; i < threads; i++)
            new Thread(Work) { IsBackground = true, Name = "planning" }.Start();
    }

    public override int MaximumConcurrencyLevel => Math.Max(1, Environment.ProcessorCount);

    public void Dispose() => waiting.CompleteAdding();

    protected override void QueueTask(Task task) => waiting.Add(task);

    /// <summary>Only on a thread that is behind already.</summary>
    protected override bool TryExecuteTaskInline(Task task, bool taskWasPreviouslyQueued) =>
        Current == this && !taskWasPreviouslyQueued && TryExecuteTask(task);

    protected override IEnumerable<Task> GetScheduledTasks() => [.. waiting];

    private void Work()
    {
        StepBack();
        foreach (var task in waiting.GetConsumingEnumerable())
            TryExecuteTask(task);
    }

    /// <summary>Where nobody may say so the work is done all the same.</summary>
    private static void StepBack()
    {
        // Elsewhere a thread's own priority is heard; Linux knows a niceness of each thread.
        if (!OperatingSystem.IsLinux())
            Thread.CurrentThread.Priority = ThreadPriority.BelowNormal;
        else
            _ = SetPriority(OneThread, 0, Behind);
    }

    /// <summary>Of one thread, and 0 is the one that asks.</summary>
    private const int OneThread = 0;

    [SuppressMessage("Interoperability", "SYSLIB1054", Justification = "Three numbers need no marshalling that is made ahead.")]
    [DllImport("libc", EntryPoint = "setpriority"), DefaultDllImportSearchPaths(DllImportSearchPath.SafeDirectories)]
    private static extern int SetPriority(int which, int who, int priority);
}
