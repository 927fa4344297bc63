using System.Collections.Concurrent;

namespace MillCard.Web.Work;

/// <summary>Threads of their own for long work, and for the loops within it: the pool's threads stay free for small requests.</summary>
internal sealed class WorkThreads : TaskScheduler, IDisposable
{
    // libraries that split lines by recursion go as deep as a part has corners
    private const int DeepStack = 64 << 20;
    private readonly BlockingCollection<Task> _tasks = [];
    private readonly Thread[] _threads;

    /// <param name="name">Their name.</param>
    /// <param name="count">How many.</param>
    public WorkThreads(string name, int count)
    {
        _threads = [.. Enumerable.Range(1, count).Select(i => new Thread(Work, DeepStack) { Name = $"{name} {i}", IsBackground = true })];
        foreach (var thread in _threads) thread.Start();
    }

    public override int MaximumConcurrencyLevel => _threads.Length;

    protected override void QueueTask(Task task) => _tasks.Add(task);

    // only on a thread of this scheduler, so that a caller's thread never takes long work over
    protected override bool TryExecuteTaskInline(Task task, bool taskWasPreviouslyQueued) => _threads.Contains(Thread.CurrentThread)
        && TryExecuteTask(task);

    protected override IEnumerable<Task> GetScheduledTasks() => [.. _tasks];

    private void Work()
    {
        foreach (var task in _tasks.GetConsumingEnumerable()) TryExecuteTask(task);
    }

    public void Dispose()
    {
        _tasks.CompleteAdding();
        foreach (var thread in _threads) thread.Join(TimeSpan.FromSeconds(5));
        _tasks.Dispose();
    }
}
