using System.Net;
using System.Text.Json;
using System.Text.Json.Nodes;
using Xunit;

namespace MillCard.Web.Tests;

/// <summary>From a dropped file to a saved program.</summary>
public class TrialTests(Server server)
{
    private const string Dunlin = "0b9d3f5e-52f7-4f0f-9d38-4b1b7f6f0a01";

    private async Task<string> TrialAsync(string hash, double x = 90, double y = 100)
    {
        var trial = Wire.Example("trial");
        trial["card"] = Dunlin;
        trial["parts"] = new JsonArray(new JsonObject { ["name"] = "box", ["file"] = hash, ["x"] = x, ["y"] = y });
        return (await (await server.Client.PostAsync("/api/trials", Wire.Json(trial))).BodyAsync()).GetProperty("id").GetString()!;
    }

    private async Task<JsonElement> LastMessageAsync(string id)
    {
        var text = await (await server.Client.PostAsync($"/api/trials/{id}/slice", null)).Content.ReadAsStringAsync();
        return JsonDocument.Parse(text.TrimEnd().Split('\n')[^1]).RootElement;
    }

    [Fact]
    public async Task A_mesh_is_kept_once_and_tells_its_outline()
    {
        var file = Wire.Box(20, 30, 10);
        Assert.Equal(await server.Client.PutMeshAsync(file), await server.Client.PutMeshAsync(file));
        var facts = await (await server.Client.GetAsync($"/api/meshes/{await server.Client.PutMeshAsync(file)}")).BodyAsync();
        Assert.Equal([20, 30, 10], facts.GetProperty("size").EnumerateArray().Select(v => v.GetDouble()));
        Assert.Equal(4, facts.GetProperty("outline")[0].GetArrayLength());
        Assert.Equal(12, facts.GetProperty("faces").GetInt32());
    }

    [Fact]
    public async Task A_trial_is_sliced_looked_at_and_saved()
    {
        var id = await TrialAsync(await server.Client.PutMeshAsync(Wire.Box(20, 20, 6)));
        Assert.Equal(HttpStatusCode.NoContent, (await server.Client.GetAsync($"/api/trials/{id}/run")).StatusCode);
        var result = (await LastMessageAsync(id)).GetProperty("run").GetProperty("result");
        Assert.Empty(result.RulesFound());
        Assert.Equal(30, result.GetProperty("layers").GetInt32());

        var lines = await (await server.Client.GetAsync($"/api/trials/{id}/run/lines?from=1&count=20")).BodyAsync();
        Assert.Contains(lines.EnumerateArray(), l => l.GetProperty("text").GetString() == "G28" && l.GetProperty("effect")
            .GetString()!.Contains("end-stops"));
        var program = await server.Client.GetAsync($"/api/trials/{id}/run/program");
        Assert.EndsWith(".gcode", program.Content.Headers.ContentDisposition!.FileName);
        Assert.Equal(result.GetProperty("lines").GetInt32(), (await program.Content.ReadAsStringAsync()).TrimEnd('\n').Split('\n').Length);
        Assert.Equal("MCL3"u8.ToArray(), (await server.Client.GetByteArrayAsync($"/api/trials/{id}/run/layers"))[..4]);
        var heat = await (await server.Client.GetAsync($"/api/trials/{id}/run/series?points=10")).BodyAsync();
        Assert.Equal(18, heat.GetProperty("nozzle")[0].GetDouble());
    }

    [Fact]
    public async Task A_part_in_the_way_is_said_and_nothing_is_sliced()
    {
        var id = await TrialAsync(await server.Client.PutMeshAsync(Wire.Box(20, 20, 6)), 10, 70);
        var refusal = (await LastMessageAsync(id)).GetProperty("refusal");
        Assert.Contains("does-not-fit", refusal.RulesFound());
        Assert.Equal(HttpStatusCode.NoContent, (await server.Client.GetAsync($"/api/trials/{id}/run")).StatusCode);
    }

    [Fact]
    public async Task A_program_can_be_brought()
    {
        var id = await TrialAsync(await server.Client.PutMeshAsync(Wire.Box(20, 20, 6)));
        var answer = await server.Client.PutAsync($"/api/trials/{id}/run/program?name=old.gcode",
            new StringContent("G28\nG1 X900 F6000\n"));
        var result = (await answer.BodyAsync()).GetProperty("result");
        Assert.Contains("outside-travel", result.RulesFound());
        Assert.Equal("file", result.GetProperty("origin").GetString());
        Assert.Equal(HttpStatusCode.NoContent, (await server.Client.GetAsync($"/api/trials/{id}/run/layers")).StatusCode);
    }

    [Fact]
    public async Task A_program_over_the_limit_is_refused_before_it_is_read()
    {
        var id = await TrialAsync(await server.Client.PutMeshAsync(Wire.Box(20, 20, 6)));
        var limit = (await (await server.Client.GetAsync("/api/limits")).BodyAsync()).GetProperty("gcode").GetInt64();
        var answer = await server.Client.PutAsync($"/api/trials/{id}/run/program?name=long.gcode",
            new ByteArrayContent(new byte[limit + 1]));
        Assert.Equal(HttpStatusCode.RequestEntityTooLarge, answer.StatusCode);
        Assert.Contains("larger than", (await answer.BodyAsync()).GetProperty("detail").GetString());
        Assert.Equal(HttpStatusCode.NoContent, (await server.Client.GetAsync($"/api/trials/{id}/run")).StatusCode);
    }

    [Fact]
    public async Task The_verdict_follows_the_part()
    {
        var hash = await server.Client.PutMeshAsync(Wire.Box(20, 20, 6));
        var part = new JsonObject { ["name"] = "box", ["file"] = hash, ["x"] = 90, ["y"] = 100 };
        var question = new JsonObject { ["card"] = Wire.Example("card"), ["parts"] = new JsonArray(part), ["cure"] = true };
        Assert.True((await (await server.Client.PostAsync("/api/trials/fit", Wire.Json(question))).BodyAsync()).GetProperty("parts")[0]
            .GetProperty("fits").GetBoolean());
        part["x"] = 12;
        var fit = (await (await server.Client.PostAsync("/api/trials/fit", Wire.Json(question))).BodyAsync()).GetProperty("parts")[0];
        // 10 mm to its left edge at 2: the margin is 3
        Assert.Equal(1, fit.GetProperty("violations")[0].GetProperty("distance").GetDouble(), 3);
    }
}
