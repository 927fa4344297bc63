using System.Net;
using System.Text.Json.Nodes;
using MillCard.Web.Work;
using Xunit;

namespace MillCard.Web.Tests;

public sealed class QueueTests(Server server)
{
    private static readonly TimeSpan Patience = TimeSpan.FromSeconds(30);
    private static readonly MemoryWatch Unwatched = new(long.MaxValue, () => 0);

    /// <summary>Work that runs until it is let go, and tells when it began.</summary>
    private sealed class Held
    {
        private readonly TaskCompletionSource _go = new(TaskCreationOptions.RunContinuationsAsynchronously);
        public TaskCompletionSource Began { get; } = new(TaskCreationOptions.RunContinuationsAsynchronously);
        public int Work(CancellationToken stop)
        {
            Began.TrySetResult();
            _go.Task.Wait(stop);
            return 1;
        }
        public void LetGo() => _go.TrySetResult();
    }

    [Fact]
    public async Task Askers_take_turns_and_each_is_told_its_place()
    {
        using var lane = new WorkLane("test", 1, 100, long.MaxValue, Unwatched);
        var held = new Held();
        var first = lane.RunAsync("a", 0, held.Work, null, default);
        await held.Began.Task.WaitAsync(Patience);
        var done = new List<string>();
        var places = new Dictionary<string, List<int>>();
        Task Ask(string asker, int number)
        {
            var name = $"{asker}{number}";
            places[name] = [];
            return lane.RunAsync(asker, 0, _ => { lock (done) done.Add(name); return 0; },
                place => { lock (places) places[name].Add(place.Place); }, default);
        }
        Task[] all = [Ask("a", 1), Ask("a", 2), Ask("a", 3), Ask("b", 1), Ask("b", 2), Ask("c", 1)];
        Assert.Equal(6, lane.Length);
        Assert.Equal((1, 4, 6), (places["a1"][^1], places["a2"][^1], places["a3"][^1]));
        held.LetGo();
        await Task.WhenAll([first, .. all]).WaitAsync(Patience);
        Assert.Equal(["a1", "b1", "c1", "a2", "b2", "a3"], done);
        Assert.All(places.Values, told => Assert.True(told.Count == 0 || told[^1] == 1));
        Assert.Equal(0, lane.Length);
    }

    [Fact]
    public async Task So_many_run_at_once_and_no_more_wait_than_stated()
    {
        using var lane = new WorkLane("test", 2, 3, long.MaxValue, Unwatched);
        Held[] held = [new(), new(), new(), new(), new()];
        var running = held.Select(h => lane.RunAsync("a", 0, h.Work, null, default)).ToArray();
        await Task.WhenAll(held[0].Began.Task, held[1].Began.Task).WaitAsync(Patience);
        Assert.Equal((3, false), (lane.Length, held[2].Began.Task.IsCompleted));
        await Assert.ThrowsAsync<BusyException>(() => lane.RunAsync("b", 0, _ => 0, null, default));
        foreach (var one in held) one.LetGo();
        Assert.Equal(5, (await Task.WhenAll(running).WaitAsync(Patience)).Sum());
    }

    [Fact]
    public async Task What_runs_together_keeps_to_the_memory_and_one_alone_may_take_more()
    {
        using var lane = new WorkLane("test", 4, 10, 100, Unwatched);
        Held[] held = [new(), new(), new()];
        Task[] running = [lane.RunAsync("a", 500, held[0].Work, null, default), lane.RunAsync("b", 60, held[1].Work, null, default),
            lane.RunAsync("c", 60, held[2].Work, null, default)];
        await held[0].Began.Task.WaitAsync(Patience);
        Assert.False(held[1].Began.Task.IsCompleted);
        held[0].LetGo();
        await held[1].Began.Task.WaitAsync(Patience);
        Assert.False(held[2].Began.Task.IsCompleted);
        held[1].LetGo();
        await held[2].Began.Task.WaitAsync(Patience);
        held[2].LetGo();
        await Task.WhenAll(running).WaitAsync(Patience);
    }

    [Fact]
    public async Task Who_leaves_goes_out_of_the_queue_and_failures_free_the_place()
    {
        using var lane = new WorkLane("test", 1, 10, long.MaxValue, Unwatched);
        var held = new Held();
        using var leave = new CancellationTokenSource();
        using var end = new CancellationTokenSource();
        var first = lane.RunAsync("a", 0, held.Work, null, end.Token);
        await held.Began.Task.WaitAsync(Patience);
        var waiting = lane.RunAsync("a", 0, _ => 0, null, leave.Token);
        await leave.CancelAsync();
        await Assert.ThrowsAnyAsync<OperationCanceledException>(() => waiting.WaitAsync(Patience));
        Assert.Equal(0, lane.Length);
        await end.CancelAsync();
        await Assert.ThrowsAnyAsync<OperationCanceledException>(() => first.WaitAsync(Patience));
        await Assert.ThrowsAsync<InvalidOperationException>(() =>
            lane.RunAsync<int>("a", 0, _ => throw new InvalidOperationException(), null, default).WaitAsync(Patience));
        Assert.Equal(7, await lane.RunAsync("a", 0, _ => 7, null, default).WaitAsync(Patience));
    }

    [Fact]
    public async Task Loops_within_the_work_run_on_its_own_threads()
    {
        using var lane = new WorkLane("lane of the test", 2, 10, long.MaxValue, Unwatched);
        var names = await lane.RunAsync("a", 0, _ =>
        {
            var seen = new System.Collections.Concurrent.ConcurrentBag<string?>();
            Parallel.For(0, 64, new ParallelOptions { TaskScheduler = TaskScheduler.Current },
                i => { Thread.Sleep(1); seen.Add(Thread.CurrentThread.Name); });
            return seen.Distinct().ToArray();
        }, null, default);
        Assert.All(names, name => Assert.StartsWith("lane of the test", name, StringComparison.Ordinal));
        Assert.Equal(2, names.Length);
    }

    [Fact]
    public async Task A_job_may_come_as_a_file_part_too()
    {
        var form = Wire.Job(Wire.Box(10, 10, 4), 60, 60);
        var job = await form.First().ReadAsStringAsync();
        using var parts = new MultipartFormDataContent { { new StringContent(job), "job", "job.json" },
            { new ByteArrayContent(Wire.Box(10, 10, 4)), "files", "part.stl" } };
        var answer = await server.Client.PostAsync("/api/slice", parts);
        Assert.Equal(HttpStatusCode.OK, answer.StatusCode);
        Assert.Contains("; layers: 20", await answer.Content.ReadAsStringAsync(), StringComparison.Ordinal);
    }

    [Fact]
    public async Task Too_many_fields_are_told_as_fields()
    {
        using var form = new MultipartFormDataContent();
        for (var i = 0; i < 300; i++) form.Add(new StringContent("x"), $"field{i}");
        var answer = await server.Client.PostAsync("/api/slice", form);
        Assert.Equal(HttpStatusCode.RequestEntityTooLarge, answer.StatusCode);
        Assert.Contains("fields", (await answer.BodyAsync()).GetProperty("detail").GetString(), StringComparison.Ordinal);
    }

    [Theory]
    [InlineData("GET", "/hubs/line/negotiate", "http://elsewhere.example", HttpStatusCode.Forbidden)]
    [InlineData("POST", "/api/cards", "http://elsewhere.example", HttpStatusCode.Forbidden)]
    [InlineData("GET", "/api/cards", "http://elsewhere.example", HttpStatusCode.OK)]
    [InlineData("GET", "/api/cards", "http://localhost", HttpStatusCode.OK)]
    public async Task What_acts_is_taken_from_own_pages_alone(string method, string address, string origin, HttpStatusCode expected)
    {
        using var request = new HttpRequestMessage(new HttpMethod(method), address);
        request.Headers.TryAddWithoutValidation("Origin", origin);
        var answer = await server.Client.SendAsync(request);
        Assert.Equal(expected, answer.StatusCode);
        if (expected == HttpStatusCode.OK) Assert.True(answer.Headers.CacheControl!.NoStore);
    }

    [Fact]
    public async Task A_web_socket_of_another_page_is_refused()
    {
        var sockets = ((Microsoft.AspNetCore.TestHost.TestServer)server.Services.GetService(
            typeof(Microsoft.AspNetCore.Hosting.Server.IServer))!).CreateWebSocketClient();
        sockets.ConfigureRequest = request => request.Headers.Origin = "http://elsewhere.example";
        var refused = await Assert.ThrowsAnyAsync<Exception>(() => sockets.ConnectAsync(new Uri("ws://localhost/hubs/line"), default));
        Assert.Contains("403", refused.Message, StringComparison.Ordinal);
    }

    [Fact]
    public async Task Another_host_gets_problem_details()
    {
        using var request = new HttpRequestMessage(HttpMethod.Get, "/api/cards");
        request.Headers.Host = "elsewhere.example";
        var answer = await server.Client.SendAsync(request);
        Assert.Equal((HttpStatusCode.BadRequest, "application/problem+json"),
            (answer.StatusCode, answer.Content.Headers.ContentType!.MediaType));
    }

    [Fact]
    public async Task A_line_to_a_host_that_is_not_listed_is_refused_at_its_field()
    {
        var card = Wire.Example("card");
        card["line"] = new JsonObject { ["host"] = "192.0.2.1", ["port"] = 80 };
        var id = (await (await server.Client.PostAsync("/api/cards", Wire.Json(card))).BodyAsync()).GetProperty("id").GetString();
        var answer = await server.Client.PostAsync($"/api/cards/{id}/line/test", null);
        Assert.Equal(HttpStatusCode.UnprocessableEntity, answer.StatusCode);
        Assert.Equal("/line/host", Assert.Single((await answer.BodyAsync()).Pointers()));
    }

    [Fact]
    public async Task Carrying_says_which_member_is_missing()
    {
        var answer = await server.Client.PostAsync("/api/routines/carry",
            Wire.Json(new JsonObject { ["card"] = Wire.Example("card"), ["flavour"] = "klipper" }));
        Assert.Equal(HttpStatusCode.UnprocessableEntity, answer.StatusCode);
        Assert.Equal("/to", Assert.Single((await answer.BodyAsync()).Pointers()));
    }
}
