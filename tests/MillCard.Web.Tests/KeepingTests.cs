using System.Net;
using System.Text.Json;
using System.Text.Json.Nodes;
using Microsoft.EntityFrameworkCore;
using Microsoft.Extensions.DependencyInjection;
using MillCard.Store;
using MillCard.Web.Http;
using Npgsql;
using Xunit;

namespace MillCard.Web.Tests;

/// <summary>Nothing is lost: the bin, files, revisions at once, a database that fails.</summary>
public sealed class KeepingTests(Server server)
{
    private async Task<string> MadeAsync(string kinds, JsonNode document) =>
        (await (await server.Client.PostAsync($"/api/{kinds}", Wire.Json(document))).BodyAsync()).GetProperty("id").GetString()!;

    [Fact]
    public async Task The_bin_lists_what_was_deleted_brings_it_back_and_clears_it_now()
    {
        var (card, filament) = (await MadeAsync("cards", Wire.Example("card")), await MadeAsync("filaments", Wire.Example("filament")));
        var trial = Wire.Example("trial");
        trial["card"] = card;
        await MadeAsync("trials", trial);
        await server.Client.DeleteAsync($"/api/cards/{card}");
        await server.Client.DeleteAsync($"/api/filaments/{filament}");
        async Task<JsonElement[]> Bin() => [.. (await (await server.Client.GetAsync("/api/bin")).BodyAsync()).EnumerateArray()
            .Where(e => e.GetProperty("id").GetString() is { } id && (id == card || id == filament))];
        var entries = await Bin();
        Assert.Equal([("filament", 0), ("card", 1)],
            entries.Select(e => (e.GetProperty("kind").GetString()!, e.GetProperty("trials").GetInt32())));
        Assert.All(entries, e => Assert.Equal(30,
            (e.GetProperty("goesAt").GetDateTimeOffset() - e.GetProperty("deletedAt").GetDateTimeOffset()).TotalDays));
        await server.Client.PostAsync($"/api/filaments/{filament}/restore", null);
        Assert.Equal(card, Assert.Single(await Bin()).GetProperty("id").GetString());
        Assert.Equal(HttpStatusCode.OK, (await server.Client.DeleteAsync($"/api/bin/{card}")).StatusCode);
        Assert.Empty(await Bin());
        Assert.Equal(HttpStatusCode.NotFound, (await server.Client.DeleteAsync($"/api/bin/{card}")).StatusCode);
        Assert.Equal(HttpStatusCode.NotFound, (await server.Client.PostAsync($"/api/cards/{card}/restore", null)).StatusCode);
        Assert.Equal(HttpStatusCode.NotFound, (await server.Client.DeleteAsync($"/api/bin/{filament}")).StatusCode);
    }

    [Fact]
    public async Task Files_that_nothing_names_go_after_a_time_and_all_others_stay()
    {
        async Task<string> Sent(float size) => (await (
            await server.Client.PostAsync("/api/meshes", new ByteArrayContent(Wire.Box(size, size, size)))).BodyAsync())[0]
            .GetProperty("hash").GetString()!;
        var (inTrial, inRevision, nowhere) = (await Sent(11.5f), await Sent(12.5f), await Sent(13.5f));
        var card = Wire.Example("card");
        card["envelope"]!["plate"] = new JsonObject { ["kind"] = "mesh", ["file"] = inRevision };
        var id = await MadeAsync("cards", card);
        await server.Client.PostAsync($"/api/cards/{id}/revisions", Wire.Json(new JsonObject { ["note"] = "with its plate" }));
        card["envelope"]!.AsObject().Remove("plate");
        var version = (await (await server.Client.GetAsync($"/api/cards/{id}")).BodyAsync()).GetProperty("version").GetUInt32();
        using var save = new HttpRequestMessage(HttpMethod.Put, $"/api/cards/{id}") { Content = Wire.Json(card) };
        save.Headers.TryAddWithoutValidation("If-Match", $"\"{version}\"");
        Assert.Equal(HttpStatusCode.OK, (await server.Client.SendAsync(save)).StatusCode);
        var trial = Wire.Example("trial");
        trial["card"] = id;
        trial["parts"] = JsonNode.Parse($$"""[{ "name": "part", "file": "{{inTrial}}" }]""");
        await MadeAsync("trials", trial);

        await using var scope = server.Services.CreateAsyncScope();
        var context = scope.ServiceProvider.GetRequiredService<MillCardContext>();
        Task<bool> There(string hash) => context.Blobs.AnyAsync(b => b.Hash == hash);
        await new Leftovers(context, TimeProvider.System).ClearAsync(default);
        Assert.True(await There(nowhere));
        var later = new Leftovers(context, new Later(Leftovers.Keeps + TimeSpan.FromHours(1)));
        var (files, bytes) = await later.ClearAsync(default);
        Assert.True(files >= 1 && bytes >= 684);
        Assert.Equal((false, true, true), (await There(nowhere), await There(inTrial), await There(inRevision)));
        Assert.Equal((0, 0L), await later.ClearAsync(default));
    }

    private sealed class Later(TimeSpan by) : TimeProvider
    {
        public override DateTimeOffset GetUtcNow() => base.GetUtcNow() + by;
    }

    [Fact]
    public async Task A_dozen_revisions_at_once_get_a_dozen_letters()
    {
        var id = await MadeAsync("cards", Wire.Example("card"));
        var answers = await Task.WhenAll(Enumerable.Range(0, 12)
            .Select(i => server.Client.PostAsync($"/api/cards/{id}/revisions", Wire.Json(new JsonObject { ["note"] = $"{i}" }))));
        Assert.All(answers, answer => Assert.Equal(HttpStatusCode.OK, answer.StatusCode));
        var letters = (await (await server.Client.GetAsync($"/api/cards/{id}/revisions")).BodyAsync()).EnumerateArray()
            .Select(r => r.GetProperty("letter").GetString()!);
        Assert.Equal("LKJIHGFEDCBA", string.Concat(letters));
    }

    [Theory]
    [InlineData("53100", 503, "disk")]
    [InlineData("57P01", 503, "does not answer")]
    [InlineData("22P05", 422, "cannot be stored")]
    public void Whatever_wraps_a_failure_of_the_database_it_is_told_as_one(string state, int status, string says)
    {
        var inner = new PostgresException("no space left on device", "ERROR", "ERROR", state);
        foreach (var wrapped in new Exception[] { inner, new DbUpdateException("saving failed", inner),
            new InvalidOperationException("transient", new DbUpdateException("saving failed", inner)) })
        {
            var told = new Failures(Microsoft.Extensions.Logging.Abstractions.NullLogger<Failures>.Instance)
                .Tell(wrapped, new Microsoft.AspNetCore.Http.DefaultHttpContext());
            Assert.Equal(status, told.StatusCode);
            Assert.Contains(says, told.Value!.Detail, StringComparison.Ordinal);
        }
    }

    [Fact]
    public async Task A_database_that_is_away_is_a_503_with_a_time_to_try_again()
    {
        await using var away = new Microsoft.AspNetCore.Mvc.Testing.WebApplicationFactory<Program>().WithWebHostBuilder(host => host
            .UseSetting("ConnectionStrings:MillCard", "Host=127.0.0.1;Port=1;Username=x;Password=x;Database=x;Timeout=2")
            .UseSetting("PrepareDatabase", "false"));
        using var client = away.CreateClient();
        foreach (var answer in new[] { await client.GetAsync("/api/cards"),
            await client.PostAsync("/api/cards", Wire.Json(Wire.Example("card"))), await client.GetAsync("/api/health") })
        {
            Assert.Equal(HttpStatusCode.ServiceUnavailable, answer.StatusCode);
            Assert.True(answer.Headers.RetryAfter?.Delta > TimeSpan.Zero);
        }
    }

    [Theory]
    [InlineData("/notes", """{ "name": "x", "notes": "a\u0000b" }""")]
    [InlineData("/envelope/keepOuts/0/name", """{ "name": "x", "envelope": { "keepOuts": [{ "name": "\ud800", "kind": "reserved" }] } }""")]
    [InlineData("", """{ "\udc00": 1 }""")]
    public async Task Text_that_cannot_be_stored_is_refused_at_its_place(string pointer, string json)
    {
        var answer = await server.Client.PostAsync("/api/cards", new StringContent(json, System.Text.Encoding.UTF8, "application/json"));
        Assert.Equal(HttpStatusCode.UnprocessableEntity, answer.StatusCode);
        Assert.Equal(pointer, Assert.Single((await answer.BodyAsync()).Pointers()));
    }

    [Fact]
    public async Task A_crossed_outline_is_named_with_its_place_wherever_the_card_stands()
    {
        var card = Wire.Example("card");
        card["envelope"]!["keepOuts"]![0]!["outline"] = JsonNode.Parse(
            """{ "shape": "polygon", "points": [[0, 0], [10, 10], [10, 0], [0, 10]] }""");
        var name = (string)card["envelope"]!["keepOuts"]![0]!["name"]!;
        foreach (var (answer, pointer) in new[] { (await server.Client.PostAsync("/api/fit",
            Wire.Job(Wire.Box(9, 9, 9), 50, 50, card: card)), "/card/envelope/keepOuts/0/outline"),
            (await server.Client.PostAsync("/api/reach", Wire.Json(card)), "/envelope/keepOuts/0/outline") })
        {
            var problem = await answer.BodyAsync();
            Assert.Equal(pointer, Assert.Single(problem.Pointers()));
            Assert.Contains(name, problem.GetProperty("detail").GetString(), StringComparison.Ordinal);
        }
        var check = await (await server.Client.PostAsync("/api/check", Wire.Json(card))).BodyAsync();
        Assert.Contains("bad-outline", check.RulesFound());
    }

    [Fact]
    public async Task Queries_are_held_to_numbers_and_echoes_are_short()
    {
        var hash = (await (await server.Client.PostAsync("/api/meshes", new ByteArrayContent(Wire.Box(9, 9, 9)))).BodyAsync())[0]
            .GetProperty("hash").GetString();
        foreach (var (query, pointer) in new[] { ("scaleX=NaN", "/x"), ("scaleY=1e308", "/y"), ("tiltX=Infinity", "/x"),
            ("scaleZ=0", "/z") })
        {
            var answer = await server.Client.GetAsync($"/api/meshes/{hash}?{query}");
            Assert.Equal(HttpStatusCode.UnprocessableEntity, answer.StatusCode);
            Assert.Equal(pointer, Assert.Single((await answer.BodyAsync()).Pointers()));
        }
        var long_ = new string('9', 300);
        var refused = await server.Client.PostAsync("/api/check",
            new StringContent($$"""{ "costPerHour": {{long_}} }""", System.Text.Encoding.UTF8, "application/json"));
        var message = (await refused.BodyAsync()).GetProperty("errors").EnumerateArray()
            .First(e => e.GetProperty("pointer").GetString() == "/costPerHour").GetProperty("message").GetString()!;
        Assert.InRange(message.Length, 20, 200);
    }
}
