using System.Net;
using System.Text.Json.Nodes;
using MillCard.Web.Work;
using Xunit;

namespace MillCard.Web.Tests;

/// <summary>Work that takes more memory than there is.</summary>
public sealed class MemoryWatchTests
{
    private static readonly TimeSpan Patience = TimeSpan.FromSeconds(30);
    private const long Budget = 3_000_000_000;
    private long _heap;

    private static CancellationToken Stop => TestContext.Current.CancellationToken;

    private MemoryWatch Watch() => new(Budget, () => Volatile.Read(ref _heap));

    /// <summary>Work that runs until it is stopped, and then needs its memory no more.</summary>
    private async Task<int> UntilStopped(CancellationToken stop)
    {
        try
        {
            await Task.Delay(Timeout.Infinite, stop);
        }
        finally
        {
            Volatile.Write(ref _heap, 0);
        }
        return 1;
    }

    [Fact]
    public async Task What_has_run_longest_is_ended_and_the_rest_goes_on()
    {
        using var watch = Watch();
        var let = new TaskCompletionSource<int>();
        var first = watch.RunAsync(UntilStopped, Stop);
        var second = watch.RunAsync(stop => let.Task.WaitAsync(stop), Stop);
        Volatile.Write(ref _heap, Budget + 1);
        var ended = await Assert.ThrowsAsync<MemoryShortException>(() => first.WaitAsync(Patience, Stop));
        Assert.StartsWith("This took more than the 3 GB of memory", ended.Message, StringComparison.Ordinal);
        // several looks later
        await Task.Delay(TimeSpan.FromSeconds(1), Stop);
        Assert.False(second.IsCompleted);
        let.SetResult(2);
        Assert.Equal(2, await second.WaitAsync(Patience, Stop));
    }

    [Fact]
    public async Task One_after_the_other_is_ended_until_the_rest_has_room()
    {
        using var watch = Watch();
        Task<int> Endless(CancellationToken stop) => new TaskCompletionSource<int>().Task.WaitAsync(stop);
        Task[] all = [watch.RunAsync(Endless, Stop), watch.RunAsync(Endless, Stop), watch.RunAsync(UntilStopped, Stop)];
        Volatile.Write(ref _heap, Budget + 1);
        foreach (var one in all) await Assert.ThrowsAsync<MemoryShortException>(() => one.WaitAsync(Patience, Stop));
        Assert.Equal(7, await watch.RunAsync(_ => Task.FromResult(7), Stop));
    }

    [Fact]
    public async Task Within_the_budget_nothing_is_ended_and_who_leaves_is_not_told_of_memory()
    {
        using var watch = Watch();
        Volatile.Write(ref _heap, Budget);
        using var leave = CancellationTokenSource.CreateLinkedTokenSource(Stop);
        var running = watch.RunAsync(UntilStopped, leave.Token);
        await Task.Delay(TimeSpan.FromSeconds(1), Stop);
        Assert.False(running.IsCompleted);
        await leave.CancelAsync();
        await Assert.ThrowsAnyAsync<OperationCanceledException>(() => running.WaitAsync(Patience, Stop));
        await Assert.ThrowsAsync<InvalidOperationException>(() => watch.RunAsync<int>(_ => throw new InvalidOperationException(), Stop));
    }

    [Fact]
    public async Task A_slice_that_takes_too_much_is_refused_in_a_sentence()
    {
        await using var server = new Server { Demo = null, Settings = new Dictionary<string, string> { ["Memory:Most"] = "1" } };
        await server.InitializeAsync();
        var card = Wire.Example("card");
        card["envelope"]!["keepOuts"] = new JsonArray();
        using var form = Wire.Job(Wire.Box(100, 80, 120), 90, 80, card: card);
        var answer = await server.Client.PostAsync("/api/slice", form, Stop);
        Assert.Equal(HttpStatusCode.UnprocessableEntity, answer.StatusCode);
        Assert.Contains("GB of memory", (await answer.BodyAsync()).GetProperty("detail").GetString(), StringComparison.Ordinal);
    }
}
