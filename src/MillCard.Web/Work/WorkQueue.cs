using MillCard.Core.Slicing;

namespace MillCard.Web.Work;

/// <summary>The one way to long work. Large work and small work have lanes of their own, so that small work never waits behind
/// large.</summary>
/// <param name="http">Knows who asks.</param>
/// <param name="watch">Looks at the memory that all of it takes.</param>
internal sealed class WorkQueue(IHttpContextAccessor http, MemoryWatch watch) : IDisposable
{
    /// <summary>Stage of progress that says where a job waits.</summary>
    public const string Queue = "queue";

    /// <summary>The header in which a page says which page it is: pages of one machine take turns too.</summary>
    public const string AskerHeader = "Asker";

    private const int MostWaiting = 128;
    private const long SmallInput = 1 << 20;
    private const double ShareOfMemory = 0.5;

    // what a job takes beyond its input: layers, areas and the program; measured roughly
    private const int BytesPerInputByte = 40;
    private const long LeastBytes = 64L << 20;

    private static readonly long Budget = (long)(GC.GetGCMemoryInfo().TotalAvailableMemoryBytes * ShareOfMemory);
    private readonly WorkLane _large = new("large work", Environment.ProcessorCount, MostWaiting, Budget, watch);
    private readonly WorkLane _small = new("small work", Math.Max(2, Environment.ProcessorCount), MostWaiting, Budget, watch);

    /// <summary>Slicing, and whatever takes long however small its input is.</summary>
    /// <exception cref="BusyException">Too much waits already.</exception>
    public Task<T> LargeAsync<T>(long input, Func<CancellationToken, T> work, CancellationToken stop,
        IProgress<Progress>? progress = null) =>
        _large.RunAsync(Asker, LeastBytes + input * BytesPerInputByte, work, progress is null ? null
            : place => progress.Report(new Progress(Queue, place.Place, place.Of)), stop);

    /// <summary>Work that takes as long as its input is large: a small one takes the other lane.</summary>
    /// <exception cref="BusyException">Too much waits already.</exception>
    public Task<T> BySizeAsync<T>(long input, Func<CancellationToken, T> work, CancellationToken stop) =>
        input > SmallInput ? LargeAsync(input, work, stop) : _small.RunAsync(Asker, input * BytesPerInputByte, work, null, stop);

    /// <summary>Refuses while there is still an answer to refuse with: a stream has sent its status before its work begins.</summary>
    /// <exception cref="BusyException">Too much waits already.</exception>
    public void EnsureRoom() => _large.EnsureRoom();

    private string Asker => http.HttpContext?.Request.Headers[AskerHeader] is [{ Length: > 0 and <= 40 } page]
        ? page
        : http.HttpContext?.Connection.RemoteIpAddress?.ToString() ?? "";

    public void Dispose()
    {
        _large.Dispose();
        _small.Dispose();
    }
}
