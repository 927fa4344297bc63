using System.Net;
using System.Text.Json;
using System.Text.Json.Nodes;
using Xunit;

namespace MillCard.Web.Tests;

/// <summary>Starting cards, and what belongs to them beside their facts.</summary>
public class CardTests(Server server)
{
    [Fact]
    public async Task A_pattern_gives_a_card_that_remembers_it()
    {
        var patterns = (await (await server.Client.GetAsync("/api/patterns")).BodyAsync()).EnumerateArray().ToArray();
        Assert.InRange(patterns.Length, 24, 30);
        var id = patterns[0].GetProperty("id").GetString();
        var card = await (await server.Client.GetAsync($"/api/patterns/{id}/card")).BodyAsync();
        Assert.Equal(id, card.GetProperty("pattern").GetProperty("id").GetString());
        Assert.All(card.GetProperty("sources").EnumerateObject(), s => Assert.Equal("assumed", s.Value.GetProperty("source").GetString()));
        Assert.Equal(HttpStatusCode.NotFound, (await server.Client.GetAsync("/api/patterns/unheard-of/card")).StatusCode);
    }

    [Fact]
    public async Task What_follows_is_said_of_a_complete_card_only()
    {
        var follows = await (await server.Client.PostAsync("/api/consequences", Wire.Json(Wire.Example("card")))).BodyAsync();
        Assert.NotEmpty(follows.GetProperty("consequences").EnumerateArray());
        Assert.Equal(1.75, follows.GetProperty("filament").GetProperty("diameter").GetDouble());
        var draft = Wire.Example("card");
        draft["head"]!["nozzles"]![0]!.AsObject().Remove("filamentDiameter");
        var refused = await server.Client.PostAsync("/api/consequences", Wire.Json(draft));
        Assert.Equal(HttpStatusCode.UnprocessableEntity, refused.StatusCode);
        Assert.Equal(["/head/nozzles/0/filamentDiameter"], (await refused.BodyAsync()).Pointers());
    }

    [Fact]
    public async Task An_outline_is_taken_from_a_path_and_refused_in_a_sentence_otherwise()
    {
        var outline = await (await server.Client.PostAsync("/api/outlines", new StringContent("M0 0H8V6H4V4H0Z"))).BodyAsync();
        Assert.Equal([8, 6], outline.GetProperty("size").EnumerateArray().Select(v => v.GetDouble()));
        var refused = await server.Client.PostAsync("/api/outlines", new StringContent("M0 0 Lx"));
        Assert.Equal(HttpStatusCode.UnprocessableEntity, refused.StatusCode);
        Assert.Contains("not path data", (await refused.BodyAsync()).GetProperty("detail").GetString());
    }

    [Fact]
    public async Task Only_pictures_are_kept_as_pictures()
    {
        byte[] png = [0x89, 0x50, 0x4E, 0x47, 0x0D, 0x0A, 0x1A, 0x0A, 1, 2, 3];
        var hash = (await (await server.Client.PostAsync("/api/pictures", new ByteArrayContent(png))).BodyAsync()).GetProperty("hash")
            .GetString();
        var answer = await server.Client.GetAsync($"/api/pictures/{hash}");
        Assert.Equal("image/png", answer.Content.Headers.ContentType!.MediaType);
        Assert.Equal(png, await answer.Content.ReadAsByteArrayAsync());
        Assert.Equal(HttpStatusCode.UnprocessableEntity,
            (await server.Client.PostAsync("/api/pictures", new StringContent("<svg onload='x'/>"))).StatusCode);
        var mesh = (await (await server.Client.PostAsync("/api/meshes", new ByteArrayContent(Wire.Box(1, 2, 3)))).BodyAsync())[0]
            .GetProperty("hash").GetString();
        Assert.Equal(HttpStatusCode.NotFound, (await server.Client.GetAsync($"/api/pictures/{mesh}")).StatusCode);
    }

    [Fact]
    public async Task A_part_is_fitted_as_it_is_scaled_and_tilted_and_within_the_trials_limits()
    {
        var hash = (await (await server.Client.PostAsync("/api/meshes", new ByteArrayContent(Wire.Box(60, 40, 10)))).BodyAsync())[0]
            .GetProperty("hash").GetString();
        var facts = await (await server.Client.GetAsync($"/api/meshes/{hash}?scaleX=0.5&tiltX=90")).BodyAsync();
        Assert.Equal([30, 10, 40], facts.GetProperty("size").EnumerateArray().Select(v => Math.Round(v.GetDouble(), 3)));
        var sides = (await (await server.Client.GetAsync($"/api/meshes/{hash}/sides")).BodyAsync()).EnumerateArray().ToArray();
        Assert.Equal(6, sides.Length);

        var part = new JsonObject
        {
            ["name"] = "slab",
            ["file"] = hash,
            ["x"] = 90,
            ["y"] = 100,
            ["scale"] = new JsonObject { ["x"] = 0.5, ["y"] = 1, ["z"] = 1 },
            ["tilt"] = new JsonObject { ["x"] = 90, ["y"] = 0 }
        };
        async Task<JsonElement> FitAsync(JsonObject? limits) =>
            (await (await server.Client.PostAsync("/api/trials/fit",
                Wire.Json(new JsonObject
                {
                    ["card"] = Wire.Example("card"),
                    ["parts"] = new JsonArray(part.DeepClone()),
                    ["limits"] = limits
                }))).BodyAsync()).GetProperty("parts")[0];
        Assert.True((await FitAsync(null)).GetProperty("fits").GetBoolean());
        var tight = await FitAsync(new JsonObject { ["height"] = 38.5 });
        Assert.Equal("height", tight.GetProperty("violations")[0].GetProperty("kind").GetString());
        Assert.Equal(JsonValueKind.Null, tight.GetProperty("violations")[0].GetProperty("move").ValueKind);
        Assert.Equal(1.5, tight.GetProperty("violations")[0].GetProperty("distance").GetDouble(), 3);
    }
}
