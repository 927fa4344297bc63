using System.Text.Json;
using Microsoft.Extensions.DependencyInjection;
using Microsoft.Extensions.Logging.Abstractions;
using MillCard.Web.Hosting;
using Xunit;

namespace MillCard.Web.Tests;

/// <summary>The workshop that a new database is filled with: its cards look lived in, and what can be computed is computed.</summary>
public sealed class DemoTests(Server server) : IClassFixture<Server>
{
    private const string Dunlin = "0b9d3f5e-52f7-4f0f-9d38-4b1b7f6f0a01", Kittiwake = "0b9d3f5e-52f7-4f0f-9d38-4b1b7f6f0a11",
        Pairs = "0b9d3f5e-52f7-4f0f-9d38-4b1b7f6f0a06";

    private async Task<JsonElement> AskAsync(string address) => await (await server.Client.GetAsync(address)).BodyAsync();

    [Fact]
    public async Task A_card_has_revisions_that_differ_and_prints_with_pictures()
    {
        var revisions = (await AskAsync($"/api/cards/{Dunlin}/revisions")).EnumerateArray().ToArray();
        Assert.Equal(["C", "B", "A"], revisions.Select(r => r.GetProperty("letter").GetString()));
        Assert.All(revisions, r => Assert.NotEqual("", r.GetProperty("note").GetString()));
        Assert.Empty(revisions[0].GetProperty("changed").EnumerateArray());
        Assert.All(revisions.Skip(1), r => Assert.NotEmpty(r.GetProperty("changed").EnumerateArray()));
        var prints = (await AskAsync($"/api/cards/{Dunlin}/prints")).GetProperty("prints").EnumerateArray().ToArray();
        Assert.Equal(3, prints.Select(p => p.GetProperty("record").GetProperty("outcome").GetString()).Distinct().Count());
        var pictured = prints.Single(p => p.GetProperty("picture").GetBoolean());
        var picture = await server.Client.GetByteArrayAsync($"/api/cards/{Dunlin}/prints/{pictured.GetProperty("id").GetString()}/picture");
        Assert.Equal([0x89, (byte)'P', (byte)'N', (byte)'G'], picture[..4]);
    }

    [Fact]
    public async Task Its_proofs_are_made_by_slicing_and_one_has_lapsed()
    {
        Assert.Null(await ProofAsync(Dunlin));
        for (var again = 0; again < 2; again++)
        {
            await using var scope = server.Services.CreateAsyncScope();
            await ActivatorUtilities.CreateInstance<DemoProofs>(scope.ServiceProvider, NullLogger<DemoProofs>.Instance)
                .ProveOnceAsync(scope.ServiceProvider, Path.Combine(Server.Root, "demo"), TestContext.Current.CancellationToken);
        }
        Assert.Empty((await ProofAsync(Dunlin))!.Value.GetProperty("lapsed").EnumerateArray());
        var lapsed = (await ProofAsync(Kittiwake))!.Value.GetProperty("lapsed").EnumerateArray();
        Assert.Equal("/trial/parts/1/x", Assert.Single(lapsed).GetString());
    }

    /// <summary>Of a card's newest revision.</summary>
    private async Task<JsonElement?> ProofAsync(string card) =>
        (await AskAsync($"/api/cards/{card}/revisions"))[0].TryGetProperty("proof", out var proof) ? proof : null;

    [Fact]
    public async Task Every_trial_is_printed_and_only_one_shows_a_stop()
    {
        foreach (var trial in (await AskAsync("/api/trials")).EnumerateArray())
        {
            var id = trial.GetProperty("id").GetString();
            var answer = await (await server.Client.PostAsync($"/api/trials/{id}/slice", null)).Content.ReadAsStringAsync();
            var last = JsonDocument.Parse(answer.Trim().Split('\n')[^1]).RootElement;
            Assert.True(last.TryGetProperty("run", out var run) && run.ValueKind == JsonValueKind.Object, last.GetRawText());
            var stops = run.GetProperty("result").GetProperty("findings").EnumerateArray()
                .Count(f => f.GetProperty("severity").GetString() == "stop");
            Assert.Equal(id == Pairs ? 1 : 0, stops);
        }
    }
}
