using System.Net;
using System.Text.Json.Nodes;
using Microsoft.Extensions.DependencyInjection;
using MillCard.Core.Documents;
using MillCard.Store;
using MillCard.Web.Hosting;
using Xunit;

namespace MillCard.Web.Tests;

/// <summary>The trials that were worked on last, sliced after a start.</summary>
public sealed class RehearsalTests : IAsyncLifetime
{
    private readonly Server _server = new() { Demo = null };

    public ValueTask InitializeAsync() => _server.InitializeAsync();

    public ValueTask DisposeAsync() => _server.DisposeAsync();

    private static CancellationToken Stop => TestContext.Current.CancellationToken;

    private async Task<string> AddAsync(string kind, JsonObject document) =>
        (await (await _server.Client.PostAsync($"/api/{kind}", Wire.Json(document), Stop)).BodyAsync()).GetProperty("id").GetString()!;

    private async Task<string> TrialAsync(string hash, double x, bool complete = true)
    {
        var part = new JsonObject { ["name"] = "box", ["file"] = hash, ["x"] = x, ["y"] = 100 };
        var trial = new JsonObject
        {
            ["schema"] = "mill-card/trial/1",
            ["name"] = "boxes",
            ["card"] = await AddAsync("cards", Wire.Example("card")),
            ["parts"] = new JsonArray(part),
        };
        if (complete)
            (trial["filament"], trial["recipe"]) = (await AddAsync("filaments", Wire.Example("filament")),
                await AddAsync("recipes", Wire.Example("recipe")));
        return await AddAsync("trials", trial);
    }

    private async Task<HttpStatusCode> RunOfAsync(string trial) =>
        (await _server.Client.GetAsync($"/api/trials/{trial}/run", Stop)).StatusCode;

    [Fact]
    public async Task What_can_be_sliced_is_and_nothing_of_it_is_kept()
    {
        var hash = await _server.Client.PutMeshAsync(Wire.Box(20, 20, 6));
        string[] trials = [await TrialAsync(hash, 90), await TrialAsync(hash, 5000), await TrialAsync(hash, 90, complete: false)];

        Assert.Equal(1, await _server.Services.GetRequiredService<Rehearsal>().AllAsync(Stop));
        foreach (var trial in trials) Assert.Equal(HttpStatusCode.NoContent, await RunOfAsync(trial));

        await (await _server.Client.PostAsync($"/api/trials/{trials[0]}/slice", null, Stop)).Content.ReadAsStringAsync(Stop);
        Assert.Equal(HttpStatusCode.OK, await RunOfAsync(trials[0]));
        Assert.Equal(1, await _server.Services.GetRequiredService<Rehearsal>().AllAsync(Stop));
        Assert.Equal(HttpStatusCode.OK, (await _server.Client.GetAsync($"/api/trials/{trials[0]}/run/program", Stop)).StatusCode);
    }

    [Fact]
    public async Task Those_saved_last_come_first()
    {
        var trials = new List<Guid>();
        foreach (var x in new[] { 70, 80, 90 }) trials.Add(Guid.Parse(await TrialAsync("none", x)));
        await using var scope = _server.Services.CreateAsyncScope();
        var store = scope.ServiceProvider.GetRequiredService<DocumentStore<Trial>>();
        Assert.Equal([trials[2], trials[1]], await store.LatestAsync(2, Stop));
        await store.PutAsync(trials[2], DocumentPlace.Bin, Stop);
        Assert.Equal([trials[1], trials[0]], await store.LatestAsync(2, Stop));
        Assert.Equal(0, await _server.Services.GetRequiredService<Rehearsal>().AllAsync(Stop));
    }
}
