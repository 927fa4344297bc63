using System.Net;
using System.Text.Json;
using System.Text.Json.Nodes;
using Xunit;

namespace MillCard.Web.Tests;

/// <summary>Reach, print order and change of nozzle, as scripts and pages ask for them.</summary>
public class HeadTests(Server server)
{
    private static JsonObject CardWithHead()
    {
        var card = Wire.Example("card");
        card["envelope"]!["keepOuts"] = new JsonArray();
        card["head"]!["clearance"] = 0;
        card["head"]!["beams"] = new JsonArray();
        card["head"]!["bodies"] = new JsonArray(new JsonObject
        {
            ["name"] = "block",
            ["outline"] = new JsonObject { ["shape"] = "rectangle", ["x"] = -10, ["y"] = -20, ["width"] = 60, ["depth"] = 40 },
            ["underside"] = 5,
        });
        return card;
    }

    private static MultipartFormDataContent Job(JsonObject card, params (string Name, double X, double Y)[] parts)
    {
        var job = new JsonObject
        {
            ["card"] = card,
            ["parts"] = new JsonArray(
            [.. parts.Select(p => new JsonObject { ["name"] = p.Name, ["file"] = "box.stl", ["x"] = p.X, ["y"] = p.Y })])
        };
        return new MultipartFormDataContent { { new StringContent(job.ToJsonString()), "job" },
            { new ByteArrayContent(Wire.Box(20, 20, 20)), "files", "box.stl" } };
    }

    [Fact]
    public async Task The_order_comes_with_conflicts_and_their_cures()
    {
        var answer = await (await server.Client.PostAsync("/api/order", Job(CardWithHead(), ("right", 110, 80), ("left", 70, 80))))
            .BodyAsync();
        Assert.Equal(["left", "right"], answer.GetProperty("order").EnumerateArray().Select(n => n.GetString()));
        var conflict = Assert.Single(answer.GetProperty("conflicts").EnumerateArray());
        Assert.Equal(("right", "left", "block"),
            (conflict.GetProperty("first").GetString(), conflict.GetProperty("then").GetString(), conflict.GetProperty("with")
            .GetString()));
        Assert.Equal(-30, conflict.GetProperty("cure").GetProperty("x").GetDouble(), 3);
        Assert.Equal(0, conflict.GetProperty("cure").GetProperty("y").GetDouble(), 3);
    }

    [Fact]
    public async Task Where_there_is_no_order_it_is_null()
    {
        var answer = await (await server.Client.PostAsync("/api/order", Job(CardWithHead(), ("a", 70, 80), ("b", 78, 106)))).BodyAsync();
        Assert.Equal(JsonValueKind.Null, answer.GetProperty("order").ValueKind);
        Assert.Equal(2, answer.GetProperty("conflicts").GetArrayLength());
    }

    [Fact]
    public async Task A_script_may_slice_one_at_a_time()
    {
        var card = CardWithHead();
        JsonObject Job(string sequence) => new()
        {
            ["card"] = card.DeepClone(),
            ["filament"] = Wire.Example("filament"),
            ["recipe"] = Wire.Example("recipe"),
            ["sequence"] = sequence,
            ["parts"] = new JsonArray(new JsonObject { ["name"] = "right", ["file"] = "box.stl", ["x"] = 130, ["y"] = 90 },
                new JsonObject { ["name"] = "left", ["file"] = "box.stl", ["x"] = 60, ["y"] = 90 }),
        };
        async Task<string> SliceAsync(string sequence) => await (await server.Client.PostAsync("/api/slice",
            new MultipartFormDataContent { { new StringContent(Job(sequence).ToJsonString()), "job" },
                { new ByteArrayContent(Wire.Box(12, 12, 8)), "files", "box.stl" } })).Content.ReadAsStringAsync();
        var (together, apart) = (await SliceAsync("all-at-once"), await SliceAsync("one-at-a-time"));
        Assert.DoesNotContain("; part 2 of 2", together, StringComparison.Ordinal);
        Assert.Contains("; part 2 of 2", apart, StringComparison.Ordinal);
        Assert.Equal(2 * together.Split('\n').Count(l => l.StartsWith("; layer ", StringComparison.Ordinal)), apart.Split('\n')
            .Count(l => l.StartsWith("; layer ", StringComparison.Ordinal)));
    }

    [Fact]
    public async Task Reach_is_told_by_nozzle_by_set_and_by_mode()
    {
        var card = JsonNode.Parse(await server.Client.GetStringAsync("/api/cards/0b9d3f5e-52f7-4f0f-9d38-4b1b7f6f0a13"))!["document"]!;
        var answer = await (await server.Client.PostAsync("/api/reach", Wire.Json(card))).BodyAsync();
        Assert.Equal(["n1", "n2"], answer.GetProperty("nozzles").EnumerateArray().Select(n => n.GetProperty("nozzle").GetString()));
        // the first carriage goes from −44 to 290, the second from 20 to 354, on a bed of 310 × 290
        Assert.Equal([290 * 290, 290 * 290], answer.GetProperty("nozzles").EnumerateArray().Select(n => n.GetProperty("area").GetDouble()));
        Assert.Equal(270 * 290, answer.GetProperty("sets")[0].GetProperty("area").GetDouble());
        Assert.Equal(["single", "copy", "mirror", "two-material", "two-material"], answer.GetProperty("modes").EnumerateArray()
            .Select(m => m.GetProperty("mode").GetString()));
        var ring = answer.GetProperty("modes")[2].GetProperty("polygons")[0][0].EnumerateArray().Select(p => p[0].GetDouble()).ToArray();
        Assert.Equal((0, 155 - 32), (ring.Min(), ring.Max()));
        Assert.True(answer.GetProperty("probe").GetProperty("area").GetDouble() > 0);
    }

    [Fact]
    public async Task Another_nozzle_says_what_follows_and_which_recipes_no_longer_fit()
    {
        var nozzle = Wire.Example("card")["head"]!["nozzles"]![0]!;
        var larger = nozzle.DeepClone();
        larger["diameter"] = 0.8;
        var answer = await (await server.Client.PostAsync("/api/nozzle-change",
            Wire.Json(new JsonObject { ["before"] = nozzle.DeepClone(), ["after"] = larger }))).BodyAsync();
        Assert.Contains(answer.GetProperty("figures").EnumerateArray(), f => f.GetProperty("name").GetString() == "line widths"
            && f.GetProperty("after").GetString() == "0.48 to 1.6 mm");
        var standard = answer.GetProperty("recipes").EnumerateArray().First(r => r.GetProperty("name").GetString() == "Station standard");
        Assert.True(standard.GetProperty("fitBefore").GetBoolean());
        Assert.Contains("56 % of the nozzle", standard.GetProperty("reasons")[0].GetString(), StringComparison.Ordinal);
    }

    [Fact]
    public async Task A_page_gets_worst_moments_and_rows_of_equal_parts()
    {
        var mesh = await server.Client.PostAsync("/api/meshes", new ByteArrayContent(Wire.Box(20, 20, 20)));
        var hash = (await mesh.BodyAsync())[0].GetProperty("hash").GetString();
        JsonObject Part(string name, double x) => new() { ["name"] = name, ["file"] = hash, ["x"] = x, ["y"] = 80 };
        var order = await (await server.Client.PostAsync("/api/trials/order",
            Wire.Json(new JsonObject { ["card"] = CardWithHead(), ["parts"] = new JsonArray(Part("right", 110), Part("left", 70)) })))
            .BodyAsync();
        Assert.Equal([1, 0], order.GetProperty("order").EnumerateArray().Select(n => n.GetInt32()));
        Assert.Equal("block", Assert.Single(order.GetProperty("moments").EnumerateArray()).GetProperty("with").GetString());
        Assert.Contains("drives the block into it", order.GetProperty("conflicts")[0].GetProperty("message")
            .GetString(), StringComparison.Ordinal);

        var packing = await (await server.Client.PostAsync("/api/trials/packing",
            Wire.Json(new JsonObject { ["card"] = CardWithHead(), ["part"] = Part("one", 0) }))).BodyAsync();
        // in one row from left to right 10 mm are enough: 30 mm from part to part on 174 − 20 mm; 40 mm from row to row on 154 − 20
        Assert.Equal((30, 40), (Math.Round(packing.GetProperty("pitchX").GetDouble(), 3),
            Math.Round(packing.GetProperty("pitchY").GetDouble(), 3)));
        Assert.Equal(6 * 4, packing.GetProperty("places").GetArrayLength());
    }

    [Fact]
    public async Task A_page_gets_places_for_parts_and_as_many_more_as_find_room()
    {
        var mesh = await server.Client.PostAsync("/api/meshes", new ByteArrayContent(Wire.Box(40, 30, 10)));
        var hash = (await mesh.BodyAsync())[0].GetProperty("hash").GetString();
        JsonObject Part(double x) => new() { ["name"] = "box", ["file"] = hash, ["x"] = x, ["y"] = 80 };
        async Task<JsonElement> Ask(params (string Name, JsonNode Value)[] more)
        {
            var question = new JsonObject { ["card"] = Wire.Example("card"), ["parts"] = new JsonArray(Part(90), Part(95), Part(100)) };
            foreach (var (name, value) in more) question[name] = value;
            return await (await server.Client.PostAsync("/api/trials/arrange", Wire.Json(question))).BodyAsync();
        }

        var places = (await Ask(("held", new JsonArray(1)))).GetProperty("places");
        Assert.Equal((95, 80), (places[1].GetProperty("x").GetDouble(), places[1].GetProperty("y").GetDouble()));
        var xs = places.EnumerateArray().Select(p => (X: p.GetProperty("x").GetDouble(), Y: p.GetProperty("y").GetDouble())).ToArray();
        Assert.All(xs.SelectMany((a, i) => xs.Take(i).Select(b => (a, b))),
            pair => Assert.True(Math.Abs(pair.a.X - pair.b.X) >= 42 || Math.Abs(pair.a.Y - pair.b.Y) >= 32, $"{pair}"));
        Assert.InRange((await Ask(("fillWith", 0))).GetProperty("more").GetArrayLength(), 8, 40);
        Assert.Equal(HttpStatusCode.UnprocessableEntity, (await server.Client.PostAsync("/api/trials/arrange",
            Wire.Json(new JsonObject { ["card"] = Wire.Example("card"), ["parts"] = new JsonArray() }))).StatusCode);
    }

    [Fact]
    public async Task A_mode_that_the_card_does_not_have_is_refused_at_its_place()
    {
        var trial = new JsonObject
        {
            ["card"] = Wire.Example("card"),
            ["filament"] = Wire.Example("filament"),
            ["recipe"] = Wire.Example("recipe"),
            ["mode"] = new JsonObject { ["kind"] = "copy" },
            ["parts"] = new JsonArray(new JsonObject { ["name"] = "box", ["file"] = "box.stl", ["x"] = 90, ["y"] = 100 })
        };
        var answer = await server.Client.PostAsync("/api/slice",
            new MultipartFormDataContent { { new StringContent(trial.ToJsonString()), "job" },
            { new ByteArrayContent(Wire.Box(12, 12, 8)), "files", "box.stl" } });
        Assert.Equal(HttpStatusCode.UnprocessableEntity, answer.StatusCode);
        Assert.Contains("no-such-mode", (await answer.BodyAsync()).RulesFound());
    }
}
