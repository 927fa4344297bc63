using System.Net;
using System.Text.Json;
using System.Text.Json.Nodes;
using Microsoft.Extensions.DependencyInjection;
using MillCard.Store;
using Xunit;

namespace MillCard.Web.Tests;

/// <summary>Documents in the database: drafts, versions, and what is kept.</summary>
public class DocumentTests(Server server)
{
    private async Task<JsonElement> MakeAsync(JsonObject card)
    {
        var made = await server.Client.PostAsync("/api/cards", Wire.Json(card));
        Assert.Equal(HttpStatusCode.Created, made.StatusCode);
        return await made.BodyAsync();
    }

    private Task<HttpResponseMessage> SaveAsync(string id, string? version, JsonObject card)
    {
        var request = new HttpRequestMessage(HttpMethod.Put, $"/api/cards/{id}") { Content = Wire.Json(card) };
        if (version is not null) request.Headers.TryAddWithoutValidation("If-Match", $"\"{version}\"");
        return server.Client.SendAsync(request);
    }

    [Fact]
    public async Task The_demo_cards_are_there()
    {
        var cards = await (await server.Client.GetAsync("/api/cards")).BodyAsync();
        var dunlin = cards.EnumerateArray().Single(c => c.GetProperty("id").GetString() == "0b9d3f5e-52f7-4f0f-9d38-4b1b7f6f0a01");
        Assert.Equal(180, dunlin.GetProperty("card").GetProperty("bed").GetProperty("width").GetDouble());
        Assert.Equal(0, dunlin.GetProperty("card").GetProperty("stops").GetInt32());
    }

    [Fact]
    public async Task A_draft_may_lack_everything_and_keeps_what_it_does_not_know()
    {
        var made = await MakeAsync(new JsonObject
        {
            ["schema"] = "mill-card/card/1",
            ["envelope"] = new JsonObject { ["bed"] = new JsonObject { ["shape"] = "ellipse", ["width"] = 180 }, ["fromTheFuture"] = 7 }
        });
        var read = await (await server.Client.GetAsync($"/api/cards/{made.GetProperty("id").GetString()}")).BodyAsync();
        var envelope = read.GetProperty("document").GetProperty("envelope");
        Assert.Equal(180, envelope.GetProperty("bed").GetProperty("width").GetDouble());
        Assert.Equal(7, envelope.GetProperty("fromTheFuture").GetInt32());
        Assert.False(envelope.TryGetProperty("height", out _));
    }

    [Fact]
    public async Task Two_who_save_the_same_version_do_not_overwrite_each_other()
    {
        var made = await MakeAsync(Wire.Example("card"));
        var (id, version) = (made.GetProperty("id").GetString()!, made.GetProperty("version").GetRawText());
        var (one, two) = (Wire.Example("card"), Wire.Example("card"));
        (one["notes"], two["notes"]) = ("mine", "yours");

        var first = await SaveAsync(id, version, one);
        Assert.Equal(HttpStatusCode.OK, first.StatusCode);
        var second = await SaveAsync(id, version, two);
        Assert.Equal(HttpStatusCode.PreconditionFailed, second.StatusCode);
        var clash = await second.BodyAsync();
        Assert.Equal("mine", clash.GetProperty("current").GetProperty("document").GetProperty("notes").GetString());
        Assert.Equal("yours", clash.GetProperty("sent").GetProperty("notes").GetString());

        Assert.Equal(HttpStatusCode.OK,
            (await SaveAsync(id, clash.GetProperty("current").GetProperty("version").GetRawText(), two)).StatusCode);
        Assert.Equal((HttpStatusCode)428, (await SaveAsync(id, null, two)).StatusCode);
    }

    [Fact]
    public async Task Many_who_save_at_once_leave_one_winner()
    {
        var made = await MakeAsync(Wire.Example("card"));
        var (id, version) = (made.GetProperty("id").GetString()!, made.GetProperty("version").GetRawText());
        var answers = await Task.WhenAll(Enumerable.Range(0, 12).Select(i =>
        {
            var card = Wire.Example("card");
            card["notes"] = $"note {i}";
            return SaveAsync(id, version, card);
        }));
        Assert.Single(answers, a => a.StatusCode == HttpStatusCode.OK);
        Assert.Equal(11, answers.Count(a => a.StatusCode == HttpStatusCode.PreconditionFailed));
    }

    [Fact]
    public async Task A_bad_value_is_refused_and_the_draft_stays()
    {
        var made = await MakeAsync(Wire.Example("card"));
        var (id, version) = (made.GetProperty("id").GetString()!, made.GetProperty("version").GetRawText());
        var card = Wire.Example("card");
        card["envelope"]!["bed"]!["width"] = 0;
        var refused = await SaveAsync(id, version, card);
        Assert.Equal(HttpStatusCode.UnprocessableEntity, refused.StatusCode);
        Assert.Equal(["/envelope/bed/width"], (await refused.BodyAsync()).Pointers());
        var read = await (await server.Client.GetAsync($"/api/cards/{id}")).BodyAsync();
        Assert.Equal(version, read.GetProperty("version").GetRawText());
    }

    [Fact]
    public async Task A_card_is_put_away_deleted_and_brought_back()
    {
        var id = (await MakeAsync(Wire.Example("card"))).GetProperty("id").GetString()!;
        async Task<bool> ListedAsync(bool archived) =>
            (await (await server.Client.GetAsync($"/api/cards?archived={archived}")).BodyAsync()).EnumerateArray()
                .Any(c => c.GetProperty("id").GetString() == id);

        Assert.Equal(HttpStatusCode.NoContent, (await server.Client.PostAsync($"/api/cards/{id}/archive", null)).StatusCode);
        Assert.True(await ListedAsync(archived: true) && !await ListedAsync(archived: false));
        Assert.Equal(HttpStatusCode.NoContent, (await server.Client.DeleteAsync($"/api/cards/{id}")).StatusCode);
        Assert.False(await ListedAsync(archived: true) || await ListedAsync(archived: false));
        Assert.Equal(HttpStatusCode.NotFound, (await server.Client.GetAsync($"/api/cards/{id}")).StatusCode);
        Assert.Equal(HttpStatusCode.NoContent, (await server.Client.PostAsync($"/api/cards/{id}/restore", null)).StatusCode);
        Assert.True(await ListedAsync(archived: false));
        Assert.Equal(HttpStatusCode.NotFound, (await server.Client.DeleteAsync($"/api/cards/{Guid.NewGuid()}")).StatusCode);
    }

    [Fact]
    public async Task What_lay_in_the_bin_for_long_is_cleared_with_all_that_belongs_to_it()
    {
        var card = (await MakeAsync(Wire.Example("card"))).GetProperty("id").GetString()!;
        var trial = Wire.Example("trial");
        trial["card"] = card;
        await server.Client.PostAsync("/api/trials", Wire.Json(trial));
        await server.Client.DeleteAsync($"/api/cards/{card}");
        await using var scope = server.Services.CreateAsyncScope();
        var context = scope.ServiceProvider.GetRequiredService<MillCardContext>();
        Assert.Equal(0, await new Bin(context, TimeProvider.System).ClearOldAsync(default));
        Assert.True(await new Bin(context, new Later(Bin.Keeps + TimeSpan.FromHours(1))).ClearOldAsync(default) >= 1);
        Assert.Empty((await (await server.Client.GetAsync($"/api/trials?card={card}")).BodyAsync()).EnumerateArray());
    }

    private sealed class Later(TimeSpan by) : TimeProvider
    {
        public override DateTimeOffset GetUtcNow() => base.GetUtcNow() + by;
    }

    [Fact]
    public async Task A_trial_needs_a_card_that_is_there()
    {
        var trial = Wire.Example("trial");
        foreach (var card in new[] { Guid.NewGuid().ToString(), null })
        {
            trial["card"] = card;
            var answer = await server.Client.PostAsync("/api/trials", Wire.Json(trial));
            Assert.Equal(HttpStatusCode.UnprocessableEntity, answer.StatusCode);
            Assert.Contains("/card", (await answer.BodyAsync()).Pointers());
        }
    }
}
