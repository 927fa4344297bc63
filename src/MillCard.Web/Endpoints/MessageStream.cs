using System.Text.Json;
using MillCard.Core.Documents;
using MillCard.Core.Slicing;
using MillCard.Web.Http;

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

    /// <summary>Does the work, tells how far it has come ten times a second at most, and ends with its result, or with why it
    /// failed.</summary>
    public static async Task WriteAsync<T>(
        HttpResponse response, Func<IProgress<Progress>, Task<T>> work, Func<Progress, T> step, Func<Refusal, T> failed,
            CancellationToken stop)
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
        await LineAsync(response, await OutcomeAsync(response, () => running, failed, stop), stop);
    }

    /// <summary>Writes messages as they come; a failure in between is the last of them.</summary>
    public static async Task WriteAllAsync<T>(HttpResponse response, IAsyncEnumerable<T> messages, Func<Refusal, T> failed,
        CancellationToken stop)
    {
        response.ContentType = MediaType;
        await using var each = messages.GetAsyncEnumerator(stop);
        for (var more = true; more;)
        {
            var message = await OutcomeAsync<T[]>(response, async () => (more = await each.MoveNextAsync()) ? [each.Current]
                : Array.Empty<T>(), refusal => [failed(refusal)], stop);
            foreach (var one in message) await LineAsync(response, one, stop);
        }
    }

    /// <summary>The result, or why there is none: the status has gone out already, so a failure is a message too.</summary>
    private static async Task<T> OutcomeAsync<T>(HttpResponse response, Func<Task<T>> work, Func<Refusal, T> failed, CancellationToken stop)
    {
        try
        {
            return await work();
        }
        catch (Exception failure) when (!stop.IsCancellationRequested)
        {
            var failures = response.HttpContext.RequestServices.GetRequiredService<Failures>();
            return failed(failures.Tell(failure, response.HttpContext).Value!);
        }
    }

    /// <summary>One message.</summary>
    public static async Task LineAsync<T>(HttpResponse response, T message, CancellationToken stop)
    {
        await JsonSerializer.SerializeAsync(response.Body, message, DocumentJson.Options, stop);
        await response.Body.WriteAsync("\n"u8.ToArray(), stop);
        await response.Body.FlushAsync(stop);
    }
}
