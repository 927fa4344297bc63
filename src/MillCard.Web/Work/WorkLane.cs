namespace MillCard.Web.Work;

/// <summary>Too much waits already; the message is a sentence.</summary>
internal sealed class BusyException(string message) : Exception(message);

/// <summary>Where a piece of work stands among those that wait.</summary>
/// <param name="Place">Counted from 1.</param>
/// <param name="Of">How many wait.</param>
internal sealed record QueuePlace(int Place, int Of);

/// <summary>Work that waits for its turn: so many at once, the askers in turn, no more waiting than stated, within a budget of
/// memory.</summary>
/// <param name="name">Its name, for its threads.</param>
/// <param name="atOnce">How many run at once.</param>
/// <param name="most">How many may wait.</param>
/// <param name="memory">Bytes that all that runs together may be thought to take; one alone may take more.</param>
/// <param name="watch">Looks at what it does take.</param>
internal sealed class WorkLane(string name, int atOnce, int most, long memory, MemoryWatch watch) : IDisposable
{
    private sealed record Waiting(long Bytes, Action<QueuePlace>? Told, CancellationToken Stop)
    {
        public TaskCompletionSource Turn { get; } = new(TaskCreationOptions.RunContinuationsAsynchronously);
    }

    private readonly WorkThreads _threads = new(name, atOnce);
    private readonly Lock _gate = new();
    // whoever asked stands here once, however much waits for him; the first is next
    private readonly LinkedList<(string Asker, LinkedList<Waiting> Work)> _askers = new();
    private int _running, _waiting;
    private long _taken;

    /// <summary>How many wait.</summary>
    public int Length
    {
        get { lock (_gate) return _waiting; }
    }

    /// <summary>Refuses where as many wait as may.</summary>
    /// <exception cref="BusyException">Too much waits already.</exception>
    public void EnsureRoom()
    {
        lock (_gate)
            if (_waiting >= most) throw new BusyException($"{_waiting} other jobs wait already; try again in a moment.");
    }

    /// <summary>Does work when its turn comes.</summary>
    /// <param name="asker">Who asks; askers take turns.</param>
    /// <param name="bytes">Memory it will take, about.</param>
    /// <param name="work">The work.</param>
    /// <param name="told">Told the place while it waits.</param>
    /// <param name="stop">Leaves the queue, or ends the work.</param>
    /// <exception cref="BusyException">Too much waits already.</exception>
    /// <exception cref="MemoryShortException">It was ended for its memory.</exception>
    public async Task<T> RunAsync<T>(string asker, long bytes, Func<CancellationToken, T> work, Action<QueuePlace>? told,
        CancellationToken stop)
    {
        var waiting = Join(asker, bytes, told, stop);
        await using (stop.Register(() => Leave(asker, waiting)))
            await waiting.Turn.Task;
        try
        {
            return await watch.RunAsync(left =>
                Task.Factory.StartNew(() => work(left), left, TaskCreationOptions.None, _threads), stop);
        }
        finally
        {
            lock (_gate)
            {
                _running--;
                _taken -= bytes;
                Start();
            }
        }
    }

    private Waiting Join(string asker, long bytes, Action<QueuePlace>? told, CancellationToken stop)
    {
        stop.ThrowIfCancellationRequested();
        lock (_gate)
        {
            EnsureRoom();
            var waiting = new Waiting(bytes, told, stop);
            var place = _askers.FirstOrDefault(a => a.Asker == asker);
            if (place.Work is null) _askers.AddLast(place = (asker, new LinkedList<Waiting>()));
            place.Work.AddLast(waiting);
            _waiting++;
            Start();
            return waiting;
        }
    }

    private void Leave(string asker, Waiting waiting)
    {
        lock (_gate)
        {
            var place = _askers.FirstOrDefault(a => a.Asker == asker);
            if (place.Work is null || !place.Work.Remove(waiting)) return;
            if (place.Work.Count == 0) _askers.Remove(place);
            _waiting--;
            Start();
        }
        waiting.Turn.TrySetCanceled(waiting.Stop);
    }

    /// <summary>Starts what may run now, and tells the others where they stand.</summary>
    private void Start()
    {
        while (_running < atOnce && _askers.First is { } first && (_running == 0 || _taken + first.Value.Work.First!.Value.Bytes <= memory))
        {
            var (asker, work) = first.Value;
            var next = work.First!.Value;
            work.RemoveFirst();
            _askers.RemoveFirst();
            if (work.Count > 0) _askers.AddLast((asker, work));
            _waiting--;
            _running++;
            _taken += next.Bytes;
            next.Turn.TrySetResult();
        }
        var place = 0;
        foreach (var waiting in InTurn()) waiting.Told?.Invoke(new QueuePlace(++place, _waiting));
    }

    /// <summary>All that wait, in the order in which they come: the askers in turn.</summary>
    private IEnumerable<Waiting> InTurn()
    {
        var heads = _askers.Select(a => a.Work.First).ToList();
        while (heads.Count > 0)
        {
            foreach (var head in heads) yield return head!.Value;
            heads = [.. heads.Select(head => head!.Next).Where(next => next is not null)];
        }
    }

    public void Dispose() => _threads.Dispose();
}
