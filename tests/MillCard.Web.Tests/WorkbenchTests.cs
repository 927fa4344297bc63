using System.Net;
using System.Text.Json;
using System.Text.Json.Nodes;
using MillCard.Web.Hosting;
using Xunit;

namespace MillCard.Web.Tests;

/// <summary>Parts made from others, kept states of a trial, and a trial on every card.</summary>
public class WorkbenchTests(Server server)
{
    private const string Dunlin = "0b9d3f5e-52f7-4f0f-9d38-4b1b7f6f0a01";

    private async Task<JsonObject> PartAsync(byte[] file, double x = 90, double y = 100, double lift = 0)
    {
        var kept = await (await server.Client.PostAsync("/api/meshes", new ByteArrayContent(file))).BodyAsync();
        return new JsonObject
        {
            ["name"] = "box",
            ["file"] = kept[0].GetProperty("hash").GetString(),
            ["x"] = x,
            ["y"] = y,
            ["lift"] = lift
        };
    }

    private async Task<JsonElement> AskAsync(string address, JsonObject body, HttpStatusCode status = HttpStatusCode.OK)
    {
        var answer = await server.Client.PostAsync(address, Wire.Json(body));
        Assert.Equal(status, answer.StatusCode);
        return await answer.BodyAsync();
    }

    private async Task<double[]> SizeAsync(JsonElement part) =>
        [.. (await (await server.Client.GetAsync($"/api/meshes/{part.GetProperty("file").GetString()}")).BodyAsync()).GetProperty("size")
            .EnumerateArray().Select(v => Math.Round(v.GetDouble(), 3))];

    private async Task<string> TrialAsync(params JsonObject[] parts)
    {
        var trial = Wire.Example("trial");
        trial["card"] = Dunlin;
        trial["parts"] = new JsonArray([.. parts]);
        return (await (await server.Client.PostAsync("/api/trials", Wire.Json(trial))).BodyAsync()).GetProperty("id").GetString()!;
    }

    [Fact]
    public async Task A_part_is_cut_and_its_halves_are_files_of_their_own()
    {
        var question = new JsonObject
        {
            ["part"] = await PartAsync(Wire.Box(30, 20, 10)),
            ["along"] = "x",
            ["at"] = 12,
            ["onCutFaces"] = true
        };
        var parts = (await AskAsync("/api/parts/cut", question)).GetProperty("parts");
        Assert.Equal(["box, lower", "box, upper"], parts.EnumerateArray().Select(p => p.GetProperty("name").GetString()));
        var (lower, upper) = (await SizeAsync(parts[0]), await SizeAsync(parts[1]));
        Assert.Equal((12, 18), (lower[2], upper[2]));

        question["at"] = 31;
        Assert.Contains("misses it", (await AskAsync("/api/parts/cut", question, HttpStatusCode.UnprocessableEntity)).ToString());
        question["at"] = -1;
        Assert.Equal(["/at"], (await AskAsync("/api/parts/cut", question, HttpStatusCode.UnprocessableEntity)).Pointers());
    }

    [Fact]
    public async Task Bodies_come_apart_where_they_stand_and_are_joined_again()
    {
        var part = await PartAsync(Wire.Boxes((20, 20, 4, 0), (10, 10, 3, 4)), lift: 1);
        var bodies = (await AskAsync("/api/parts/split", new JsonObject { ["parts"] = new JsonArray(part.DeepClone()) }))
            .GetProperty("parts");
        Assert.Equal([1, 5], bodies.EnumerateArray().Select(b => b.GetProperty("lift").GetDouble()));
        Assert.Single(bodies.EnumerateArray().Select(b => b.GetProperty("assembly").GetString()).Distinct());
        var all = JsonNode.Parse(bodies.GetRawText())!;
        var met = await AskAsync("/api/parts/meeting", new JsonObject { ["parts"] = all.DeepClone() });
        Assert.True(met.GetProperty("belongTogether").GetBoolean());
        Assert.Equal("touch", met.GetProperty("meetings")[0].GetProperty("how").GetString());

        // stood on its head, what was above comes to lie below
        JsonObject Tilt(int leads) => new() { ["parts"] = all.DeepClone(), ["leads"] = leads, ["tilt"] = new JsonObject { ["x"] = 180 } };
        var tilted = (await AskAsync("/api/parts/tilt", Tilt(0))).GetProperty("parts");
        Assert.Equal([4, 1], tilted.EnumerateArray().Select(b => b.GetProperty("lift").GetDouble()));
        var nobody = await server.Client.PostAsync("/api/parts/tilt", Wire.Json(Tilt(2)));
        Assert.Equal(HttpStatusCode.UnprocessableEntity, nobody.StatusCode);
        Assert.Equal(["/leads"], (await nobody.BodyAsync()).Pointers());

        var joined = (await AskAsync("/api/parts/join", new JsonObject { ["parts"] = all.DeepClone() })).GetProperty("parts");
        var size = await SizeAsync(Assert.Single(joined.EnumerateArray()));
        Assert.Equal([20, 20, 7], size);
        Assert.Equal(1, joined[0].GetProperty("lift").GetDouble());
    }

    [Fact]
    public async Task A_part_is_drawn_and_set_on_a_face()
    {
        var part = await PartAsync(Wire.Box(30, 20, 10));
        var file = await server.Client.GetByteArrayAsync($"/api/meshes/{part["file"]}/solid");
        Assert.Equal("MCS1"u8.ToArray(), file[..4]);
        Assert.Equal([8, 12, 18, 12], Enumerable.Range(1, 4).Select(i => BitConverter.ToInt32(file, 4 * i)));
        var missing = await server.Client.GetAsync($"/api/meshes/{part["file"]}/standing?face=12");
        Assert.Equal(HttpStatusCode.UnprocessableEntity, missing.StatusCode);
        Assert.Equal(["/face"], (await missing.BodyAsync()).Pointers());
        Assert.Equal(HttpStatusCode.OK, (await server.Client.GetAsync($"/api/meshes/{part["file"]}/standing?face=3")).StatusCode);
    }

    [Fact]
    public async Task A_state_is_kept_with_what_came_of_it_once_it_is_computed()
    {
        var id = await TrialAsync(await PartAsync(Wire.Box(20, 20, 4)));
        var early = await server.Client.PostAsync($"/api/trials/{id}/variants", null);
        Assert.Equal(HttpStatusCode.Conflict, early.StatusCode);
        await (await server.Client.PostAsync($"/api/trials/{id}/slice", null)).Content.ReadAsStringAsync();
        var kept = await (await server.Client.PostAsync($"/api/trials/{id}/variants", null)).BodyAsync();
        Assert.Equal("A", Assert.Single(kept.EnumerateArray()).GetProperty("letter").GetString());
        Assert.Empty(kept[0].GetProperty("otherwise").EnumerateArray());
        Assert.InRange(kept[0].GetProperty("figures").GetProperty("seconds").GetDouble(), 60, 4000);

        var stored = await (await server.Client.GetAsync($"/api/trials/{id}")).BodyAsync();
        var changed = JsonNode.Parse(stored.GetProperty("document").GetRawText())!.AsObject();
        changed["sequence"] = "one-at-a-time";
        changed["parts"]![0]!["x"] = 80;
        using var put = new HttpRequestMessage(HttpMethod.Put, $"/api/trials/{id}") { Content = Wire.Json(changed) };
        put.Headers.TryAddWithoutValidation("If-Match", $"\"{stored.GetProperty("version").GetUInt32()}\"");
        Assert.Equal(HttpStatusCode.OK, (await server.Client.SendAsync(put)).StatusCode);
        var now = await (await server.Client.GetAsync($"/api/trials/{id}/variants")).BodyAsync();
        Assert.Equal(["parts", "sequence"], now[0].GetProperty("otherwise").EnumerateArray().Select(o => o.GetString()!).Order());
        var state = await (await server.Client.GetAsync($"/api/trials/{id}/variants/A")).BodyAsync();
        Assert.Equal(90, state.GetProperty("trial").GetProperty("parts")[0].GetProperty("x").GetDouble());
        Assert.True(state.GetProperty("recipe").TryGetProperty("layers", out _));
        // the check of the data knows a variant for what it is
        using var told = new StringWriter();
        await server.Services.CheckDataAsync(told);
        Assert.DoesNotContain("Revision A of the trial", told.ToString(), StringComparison.Ordinal);
        Assert.Equal(HttpStatusCode.NotFound, (await server.Client.GetAsync($"/api/trials/{id}/variants/B")).StatusCode);
        Assert.Equal(HttpStatusCode.Conflict, (await server.Client.PostAsync($"/api/trials/{id}/variants", null)).StatusCode);
    }

    [Fact]
    public async Task A_trial_is_looked_at_on_every_card_of_the_rack()
    {
        var id = await TrialAsync(await PartAsync(Wire.Box(20, 20, 4)));
        var text = await server.Client.GetStringAsync($"/api/trials/{id}/on-cards");
        JsonElement[] messages = [.. text.TrimEnd().Split('\n').Select(line => JsonDocument.Parse(line).RootElement)];
        Assert.Equal(messages[0].GetProperty("of").GetInt32(), messages.Length);
        var on = messages.Select(m => m.GetProperty("on")).ToDictionary(o => o.GetProperty("card").GetString()!);
        var own = on[Dunlin];
        Assert.InRange(own.GetProperty("figures").GetProperty("seconds").GetDouble(), 60, 4000);
        Assert.InRange(own.GetProperty("perBed").GetInt32(), 2, 200);
        Assert.Contains(on.Values, o => o.TryGetProperty("why", out var why) && why.GetString()?.Contains("not complete") == true);
        Assert.All(on.Values.Where(o => o.TryGetProperty("figures", out var f) && f.ValueKind == JsonValueKind.Object),
            o => Assert.Equal(o.GetProperty("card").GetString(), o.GetProperty("trial").GetProperty("card").GetString()));
    }
}
