namespace MillCard.Web.Work;

/// <summary>Work was ended because it took too much memory; the message is a sentence.</summary>
internal sealed class MemoryShortException(string message) : Exception(message);

/// <summary>Ends work before the system ends the server for the memory that it takes: what has run longest, one at a time, until the rest
/// has room.</summary>
internal sealed class MemoryWatch : IDisposable
{
    /// <summary>Setting: megabytes that the heap may take; without it, most of what the machine has.</summary>
    private const string Setting = "Memory:Most";

    private const double ShareOfMemory = 0.75;
    private static readonly TimeSpan Often = TimeSpan.FromMilliseconds(200);
    private readonly long _budget;
    private readonly Func<long> _heap;
    private readonly Timer _timer;
    private readonly Lock _gate = new();
    private readonly List<CancellationTokenSource> _running = [];
    private CancellationTokenSource? _ended;

    /// <param name="budget">Bytes that the heap may take.</param>
    /// <param name="heap">Bytes that it takes.</param>
    public MemoryWatch(long budget, Func<long> heap)
    {
        (_budget, _heap) = (budget, heap);
        _timer = new(_ => Look(), null, Timeout.InfiniteTimeSpan, Often);
    }

    /// <summary>Looks at this process.</summary>
    public static MemoryWatch Of(IConfiguration configuration) => new(configuration.GetValue<long?>(Setting) is { } most ? most << 20
        : (long)(GC.GetGCMemoryInfo().TotalAvailableMemoryBytes * ShareOfMemory), () => GC.GetGCMemoryInfo().HeapSizeBytes);

    /// <summary>Does work that is ended where memory runs short.</summary>
    /// <param name="work">The work.</param>
    /// <param name="stop">Ends it too.</param>
    /// <exception cref="MemoryShortException">It was ended for its memory.</exception>
    public async Task<T> RunAsync<T>(Func<CancellationToken, Task<T>> work, CancellationToken stop)
    {
        using var own = CancellationTokenSource.CreateLinkedTokenSource(stop);
        Begin(own);
        try
        {
            return await work(own.Token);
        }
        catch (Exception) when (own.IsCancellationRequested && !stop.IsCancellationRequested)
        {
            throw new MemoryShortException(Invariant($"This took more than the {_budget / 1e9:0.##} GB of memory that there is for it,")
                + " and was ended. Try it with a coarser mesh, or with fewer parts.");
        }
        finally
        {
            End(own);
        }
    }

    private void Begin(CancellationTokenSource work)
    {
        lock (_gate)
        {
            _running.Add(work);
            if (_running.Count == 1) _timer.Change(Often, Often);
        }
    }

    private void End(CancellationTokenSource work)
    {
        lock (_gate)
        {
            _running.Remove(work);
            if (_running.Count == 0) _timer.Change(Timeout.InfiniteTimeSpan, Often);
            if (_ended != work) return;
            // what it took is known to be free only then, and others are not to be ended for it
            GC.Collect();
            _ended = null;
        }
    }

    private void Look()
    {
        CancellationTokenSource? longest;
        lock (_gate)
        {
            if (_ended is not null || _running.Count == 0 || _heap() <= _budget) return;
            longest = _ended = _running[0];
        }
        try { longest.Cancel(); }
        catch (ObjectDisposedException)
        {
            // it came to its end by itself
        }
    }

    public void Dispose() => _timer.Dispose();
}
