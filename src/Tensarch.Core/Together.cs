namespace Tensarch.Core;

/// <summary>Work that does not depend on one another, done side by side on whatever its caller runs on.</summary>
internal static class Together
{
    /// <returns>In the order of what it was done to.</returns>
    public static TResult[] Each<T, TResult>(IReadOnlyList<T> all, Func<T, TResult> work)
    {
        var done = new TResult[all.Count];
        Parallel.For(0, all.Count, new ParallelOptions { TaskScheduler = TaskScheduler.Current }, i => done[i] = work(all[i]));
        return done;
    }
}
