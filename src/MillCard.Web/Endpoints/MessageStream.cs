using System.Text.Json;
using MillCard.Core.Documents;
using MillCard.Core.Slicing;

namespace MillCard.Web.Endpoints;

/// <summary>Long work as a stream of JSON messages, one a line.</summary>
internal static class MessageStream
{
    public const string MediaType = "application/x-ndjson";
    private static readonly TimeSpan Beat = TimeSpan.FromMilliseconds(100);

    private sealed class Latest : IProgress<Progress>
    {
        public Progress? Value;
        public void Report(Progress value) => Volatile.Write(ref Value, value);
    }

    /// <summary>Does the work, tells how far it has come ten times a second at most, and ends with its result.</summary>
    public static async Task WriteAsync<T>(HttpResponse response, Func<IProgress<Progress>, Task<T>> work, Func<Progress, T> step, CancellationToken stop)
    {
        response.ContentType = MediaType;
        var latest = new Latest();
        var running = work(latest);
        Progress? said = null;
        while (await Task.WhenAny(running, Task.Delay(Beat, stop)) != running)
        {
            stop.ThrowIfCancellationRequested();
            if (Volatile.Read(ref latest.Value) is not { } now || now == said) continue;
            await LineAsync(response, step(said = now), stop);
        }
        await LineAsync(response, await running, stop);
    }

    /// <summary>One message.</summary>
    public static async Task LineAsync<T>(HttpResponse response, T message, CancellationToken stop)
    {
        await JsonSerializer.SerializeAsync(response.Body, message, DocumentJson.Options, stop);
        await response.Body.WriteAsync("\n"u8.ToArray(), stop);
        await response.Body.FlushAsync(stop);
    }
}
