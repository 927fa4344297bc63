using System.Net;
using System.Text.Json;
using System.Text.Json.Nodes;
using Xunit;

namespace MillCard.Web.Tests;

/// <summary>Drives, flow, heat, settings reports and gauge pieces over HTTP.</summary>
public class MotionTests(Server server)
{
    private async Task<JsonNode> CardAsync(string id) =>
        JsonNode.Parse(await server.Client.GetStringAsync($"/api/cards/0b9d3f5e-52f7-4f0f-9d38-4b1b7f6f0a{id}"))!["document"]!.DeepClone();

    private async Task<JsonElement> AskAsync(string address, JsonNode question)
    {
        var answer = await server.Client.PostAsync(address, Wire.Json(question));
        Assert.Equal(HttpStatusCode.OK, answer.StatusCode);
        return await answer.BodyAsync();
    }

    [Fact]
    public async Task Drives_give_steps_ladder_and_a_deltas_reach()
    {
        var dunlin = await AskAsync("/api/motion", await CardAsync("01"));
        Assert.Equal([80, 80, 400], dunlin.GetProperty("axes").EnumerateArray().Take(3)
            .Select(a => Math.Round(a.GetProperty("stepsPerMm").GetDouble(), 6)));
        Assert.Equal(0.04, dunlin.GetProperty("ladder").GetProperty("fullStep").GetDouble(), 9);
        // 93.4 · 100 / 97.9
        Assert.Equal(95.40, dunlin.GetProperty("axes")[3].GetProperty("corrected").GetDouble(), 0.01);
        var kittiwake = await AskAsync("/api/motion", await CardAsync("11"));
        Assert.Equal(215 * Math.Cos(Math.PI / 9) - 105, kittiwake.GetProperty("delta").GetProperty("reachRadius").GetDouble(), 6);
        Assert.Equal(187.617, kittiwake.GetProperty("delta").GetProperty("carriagesAtCentre").GetDouble(), 0.001);
    }

    [Fact]
    public async Task Lines_have_a_ceiling_and_a_place_on_the_ladder()
    {
        var lines = await AskAsync("/api/flow",
            new JsonObject
            {
                ["card"] = await CardAsync("01"),
                ["widths"] = new JsonArray(0.4, 0.1),
                ["heights"] = new JsonArray(0.2, 0.25)
            });
        Assert.Equal(2, lines.GetArrayLength());
        Assert.Equal(154.0, lines[0].GetProperty("fastest").GetDouble(), 0.05);
        Assert.Equal(("hot-end", "whole-steps"), (lines[0].GetProperty("by").GetString(), lines[0].GetProperty("place").GetString()));
        Assert.Equal(("between", 0.24),
            (lines[1].GetProperty("place").GetString(), lines[1].GetProperty("nearest").GetProperty("height").GetDouble()));
        var refused = await server.Client.PostAsync("/api/flow",
            Wire.Json(new JsonObject { ["widths"] = new JsonArray(0.4), ["heights"] = new JsonArray(0.2) }));
        Assert.Equal(HttpStatusCode.UnprocessableEntity, refused.StatusCode);
    }

    [Fact]
    public async Task A_heaters_end_comes_from_its_log()
    {
        var bed = (await AskAsync("/api/heat", await CardAsync("12")))[0];
        Assert.Equal(("bed", "log", true), (bed.GetProperty("name").GetString(), bed.GetProperty("from").GetString(), bed.GetProperty("fit")
            .GetProperty("tells").GetBoolean()));
        Assert.InRange(bed.GetProperty("reachable").GetDouble(), 70.5, 72.5);
        Assert.Equal(JsonValueKind.Undefined, bed.GetProperty("times").EnumerateArray()
            .First(t => t.GetProperty("degrees").GetDouble() == 80).TryGetProperty("seconds", out var never) ? never.ValueKind
            : JsonValueKind.Undefined);
    }

    [Fact]
    public async Task A_settings_report_is_laid_beside_the_card()
    {
        var report = await AskAsync("/api/settings-report",
            new JsonObject { ["card"] = await CardAsync("01"), ["text"] = "echo: M92 X80 Y80 Z400 E93\necho: M205 J0.013\n" });
        Assert.Equal(4, report.GetProperty("facts").GetArrayLength());
        Assert.Equal("junction-deviation", report.GetProperty("corner").GetProperty("kind").GetString());
    }

    [Fact]
    public async Task Heights_are_told_as_the_slicer_takes_them()
    {
        var card = await CardAsync("01");
        var recipe = new JsonObject { ["layers"] = new JsonObject { ["others"] = 0.25, ["rungs"] = 6 }, ["lineWidth"] = 0.45 };
        var counted = (await AskAsync("/api/recipe-here", new JsonObject { ["card"] = card, ["recipe"] = recipe })).GetProperty("others");
        Assert.Equal((0.24, "rungs"), (counted.GetProperty("height").GetDouble(), counted.GetProperty("from").GetString()));
        recipe = new JsonObject { ["layers"] = new JsonObject { ["others"] = 0.25, ["onRung"] = true }, ["lineWidth"] = 0.45 };
        var about = (await AskAsync("/api/recipe-here", new JsonObject { ["card"] = card.DeepClone(), ["recipe"] = recipe }))
            .GetProperty("others");
        Assert.Equal((0.24, "nearest-rung"), (about.GetProperty("height").GetDouble(), about.GetProperty("from").GetString()));
        Assert.Equal(0.24, about.GetProperty("line").GetProperty("height").GetDouble());
        // two walls of 0.45 in layers of 0.24, which overlap by 0.24 · (1 − π/4)
        var walls = await AskAsync("/api/recipe-here", new JsonObject { ["card"] = card.DeepClone(), ["recipe"] = recipe.DeepClone() });
        Assert.Equal(0.9 - 0.24 * (1 - Math.PI / 4), walls.GetProperty("walls").GetDouble(), 6);
    }

    [Fact]
    public async Task A_gauge_piece_is_made_tried_and_read_off()
    {
        var question = new JsonObject { ["card"] = await CardAsync("01") };
        Assert.Equal(8, (await AskAsync("/api/gauges", question)).GetArrayLength());
        Assert.Empty((await AskAsync("/api/gauges/steps-cube/dry-run", question)).RulesFound());
        var gcode = await server.Client.PostAsync("/api/gauges/steps-cube", Wire.Json(question));
        Assert.Contains("; layers begin", await gcode.Content.ReadAsStringAsync(), StringComparison.Ordinal);
        question["readings"] = new JsonObject { ["x"] = 30.3 };
        // the line of 0.44 left out on both sides: 80 · 29.56 / 29.86
        Assert.Equal(79.196, (await AskAsync("/api/gauges/steps-cube/result", question))[0].GetProperty("new").GetDouble(), 6);
        Assert.Equal(HttpStatusCode.NotFound, (await server.Client.PostAsync("/api/gauges/teapot", Wire.Json(question))).StatusCode);
    }
}
