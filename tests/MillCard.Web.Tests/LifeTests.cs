using System.Net;
using System.Text.Json;
using System.Text.Json.Nodes;
using MillCard.Core.Documents;
using MillCard.StandIn;
using Xunit;

namespace MillCard.Web.Tests;

/// <summary>Living with a card: revisions, proof, prints, and the line to a stand-in.</summary>
public class LifeTests(Server server)
{
    private async Task<string> CardAsync(Action<JsonObject>? change = null)
    {
        var card = Wire.Example("card");
        change?.Invoke(card);
        return (await (await server.Client.PostAsync("/api/cards", Wire.Json(card))).BodyAsync()).GetProperty("id").GetString()!;
    }

    private async Task<(HttpStatusCode Status, JsonElement Body)> PostAsync(string path, JsonNode? body = null)
    {
        var answer = await server.Client.PostAsync(path, body is null ? null : Wire.Json(body));
        return (answer.StatusCode, await answer.BodyAsync());
    }

    /// <summary>What a test of the line gave; where the machine had so much else to do that the stand-in was silent for too long, the next
    /// one.</summary>
    private async Task<JsonElement> TestedAsync(string card)
    {
        var (status, body) = await PostAsync($"/api/cards/{card}/line/test");
        for (var again = 0; again < 4 && status != HttpStatusCode.OK; again++)
            (status, body) = await PostAsync($"/api/cards/{card}/line/test");
        Assert.True(status == HttpStatusCode.OK, body.ToString());
        return body;
    }

    private async Task<string> SlicedTrialAsync(string card)
    {
        var mesh = (await (await server.Client.PostAsync("/api/meshes", new ByteArrayContent(Wire.Box(20, 20, 4)))).BodyAsync())[0];
        var ids = new Dictionary<string, string>();
        foreach (var kind in new[] { "filament", "recipe" })
            ids[kind] = (await PostAsync($"/api/{kind}s", Wire.Example(kind))).Body.GetProperty("id").GetString()!;
        var trial = Wire.Example("trial");
        (trial["card"], trial["filament"], trial["recipe"]) = (card, ids["filament"], ids["recipe"]);
        trial["parts"] = new JsonArray(
            new JsonObject { ["name"] = "box", ["file"] = mesh.GetProperty("hash").GetString(), ["x"] = 90, ["y"] = 100 });
        var id = (await PostAsync("/api/trials", trial)).Body.GetProperty("id").GetString()!;
        var messages = await (await server.Client.PostAsync($"/api/trials/{id}/slice", null)).Content.ReadAsStringAsync();
        Assert.Contains("\"run\"", messages.TrimEnd().Split('\n')[^1]);
        return id;
    }

    [Fact]
    public async Task A_revision_is_stamped_and_the_stamp_lapses_with_the_fact_it_rests_on()
    {
        var card = await CardAsync();
        var trial = await SlicedTrialAsync(card);
        Assert.Equal("A", (await PostAsync($"/api/cards/{card}/revisions", new JsonObject { ["note"] = "first" })).Body[0]
            .GetProperty("letter").GetString());
        var stamped = (await PostAsync($"/api/cards/{card}/revisions/A/proof", new JsonObject { ["trial"] = trial })).Body[0];
        Assert.Empty(stamped.GetProperty("proof").GetProperty("lapsed").EnumerateArray());
        Assert.Equal(("A", false, true), await StateAsync(card));

        var document = await (await server.Client.GetAsync($"/api/trials/{trial}")).BodyAsync();
        var filament = document.GetProperty("document").GetProperty("filament").GetString();
        var stored = await server.Client.GetAsync($"/api/filaments/{filament}");
        var changed = JsonNode.Parse((await stored.BodyAsync()).GetProperty("document").GetRawText())!;
        changed["nozzle"]!["others"] = 238;
        var save = new HttpRequestMessage(HttpMethod.Put, $"/api/filaments/{filament}") { Content = Wire.Json(changed) };
        save.Headers.TryAddWithoutValidation("If-Match", stored.Headers.ETag!.Tag);
        (await server.Client.SendAsync(save)).EnsureSuccessStatusCode();

        var lapsed = (await (await server.Client.GetAsync($"/api/cards/{card}/revisions")).BodyAsync())[0].GetProperty("proof")
            .GetProperty("lapsed");
        Assert.Equal(["/filament/nozzle/others"], lapsed.EnumerateArray().Select(p => p.GetString()));
        Assert.Equal(("A", false, false), await StateAsync(card));
        await ChangeCardAsync(card, c => c["notes"] = "beside the window");
        Assert.Equal(("A", false, false), await StateAsync(card));
        await ChangeCardAsync(card, c => c["envelope"]!["height"] = 160);
        Assert.Equal(("A", true, false), await StateAsync(card));
        var whole = await (await server.Client.GetAsync($"/api/cards/{card}/revisions/A")).BodyAsync();
        Assert.Equal("Dunlin", whole.GetProperty("name").GetString());
    }

    /// <summary>How a card stands to its last revision, as the rack is told it.</summary>
    private async Task<(string Letter, bool Changed, bool Proved)> StateAsync(string card)
    {
        var states = await (await server.Client.GetAsync("/api/cards/states")).BodyAsync();
        var one = states.EnumerateArray().Single(s => s.GetProperty("card").GetString() == card);
        return (one.GetProperty("letter").GetString()!, one.GetProperty("changed").GetBoolean(), one.GetProperty("proved").GetBoolean());
    }

    private async Task ChangeCardAsync(string card, Action<JsonNode> edit)
    {
        var stored = await server.Client.GetAsync($"/api/cards/{card}");
        var changed = JsonNode.Parse((await stored.BodyAsync()).GetProperty("document").GetRawText())!;
        edit(changed);
        var save = new HttpRequestMessage(HttpMethod.Put, $"/api/cards/{card}") { Content = Wire.Json(changed) };
        save.Headers.TryAddWithoutValidation("If-Match", stored.Headers.ETag!.Tag);
        (await server.Client.SendAsync(save)).EnsureSuccessStatusCode();
    }

    [Fact]
    public async Task What_was_sliced_for_other_facts_does_not_prove_a_revision()
    {
        var card = await CardAsync();
        var trial = await SlicedTrialAsync(card);
        var stored = await server.Client.GetAsync($"/api/cards/{card}");
        var changed = JsonNode.Parse((await stored.BodyAsync()).GetProperty("document").GetRawText())!;
        changed["envelope"]!["height"] = 160;
        var save = new HttpRequestMessage(HttpMethod.Put, $"/api/cards/{card}") { Content = Wire.Json(changed) };
        save.Headers.TryAddWithoutValidation("If-Match", stored.Headers.ETag!.Tag);
        (await server.Client.SendAsync(save)).EnsureSuccessStatusCode();
        await PostAsync($"/api/cards/{card}/revisions", new JsonObject());
        var (status, body) = await PostAsync($"/api/cards/{card}/revisions/A/proof", new JsonObject { ["trial"] = trial });
        Assert.Equal(HttpStatusCode.UnprocessableEntity, status);
        Assert.Contains("/envelope/height", body.GetProperty("detail").GetString());
    }

    [Fact]
    public async Task Prints_are_noted_with_a_picture_and_the_safer_value_is_proposed_first()
    {
        var card = await CardAsync();
        JsonObject Record(string outcome, double value) =>
            new()
            {
                ["outcome"] = outcome,
                ["line"] = "seen",
                ["tried"] = new JsonArray(new JsonObject { ["pointer"] = "/head/nozzles/0/maxFlow", ["value"] = value })
            };
        await PostAsync($"/api/cards/{card}/prints", Record("good", 12));
        await PostAsync($"/api/cards/{card}/prints", Record("failed", 15));
        var prints = (await PostAsync($"/api/cards/{card}/prints", Record("flawed", 10))).Body;
        Assert.Equal([10, 12], prints.GetProperty("open")[0].GetProperty("values").EnumerateArray()
            .Select(v => v.GetProperty("value").GetDouble()));
        var print = prints.GetProperty("prints")[0].GetProperty("id").GetString();

        byte[] picture = [0x89, (byte)'P', (byte)'N', (byte)'G', 1, 2, 3];
        Assert.Equal(HttpStatusCode.NoContent,
            (await server.Client.PutAsync($"/api/cards/{card}/prints/{print}/picture", new ByteArrayContent(picture))).StatusCode);
        Assert.Equal(picture, await server.Client.GetByteArrayAsync($"/api/cards/{card}/prints/{print}/picture"));
        Assert.Equal(HttpStatusCode.UnprocessableEntity,
            (await server.Client.PutAsync($"/api/cards/{card}/prints/{print}/picture",
            new ByteArrayContent("<svg/>"u8.ToArray()))).StatusCode);
        Assert.Equal(HttpStatusCode.NoContent, (await server.Client.DeleteAsync($"/api/cards/{card}/prints/{print}")).StatusCode);
        Assert.Equal(HttpStatusCode.UnprocessableEntity,
            (await PostAsync($"/api/cards/{card}/prints", new JsonObject { ["outcome"] = "good", ["revision"] = "Q" })).Status);
    }

    [Theory]
    [InlineData("lines")]
    [InlineData("file")]
    public async Task A_trial_is_sent_and_every_command_is_executed(string how)
    {
        await using var printer = StandInPrinter.Start(DocumentReader.Read<Card>(Examples.Of("card")).Document!,
            speed: double.PositiveInfinity, keep: true);
        var card = await CardAsync(c => c["line"] = new JsonObject { ["host"] = "127.0.0.1", ["port"] = printer.Port });
        var trial = await SlicedTrialAsync(card);
        var tested = await TestedAsync(card);
        Assert.Equal(("marlin", 0), (tested.GetProperty("flavour").GetString(), tested.GetProperty("mismatches").GetArrayLength()));
        Assert.Equal(HttpStatusCode.OK,
            (await PostAsync($"/api/cards/{card}/line/print", new JsonObject { ["trial"] = trial, ["how"] = how })).Status);
        JsonElement job = default;
        for (var i = 0; i < 300; i++)
        {
            job = (await (await server.Client.GetAsync($"/api/cards/{card}/line")).BodyAsync()).GetProperty("job");
            if (job.GetProperty("state").GetString() == "done"
                && (how == "lines" || job.TryGetProperty("onPrinter", out var there) && there.GetString() == "done")) break;
            await Task.Delay(100);
        }
        Assert.Equal("done", job.GetProperty("state").GetString());
        var program = await server.Client.GetByteArrayAsync($"/api/trials/{trial}/run/program");
        var wanted = Core.Lines.LineFrame.CommandsOf(new Core.Gcode.GcodeText(program)).Select(c => c.Command).ToArray();
        Assert.Equal(wanted, printer.Executed!.Where(c => c != "M105"));
    }

    [Fact]
    public async Task A_mismatch_with_the_card_is_said()
    {
        await using var printer = StandInPrinter.Start(DocumentReader.Read<Card>(Examples.Of("card")).Document!,
            speed: double.PositiveInfinity);
        var card = await CardAsync(c =>
        {
            c["line"] = new JsonObject { ["host"] = "localhost", ["port"] = printer.Port };
            c["firmware"]!["flavour"] = "repetier";
            c["motion"]!["axes"]!["x"]!["maxSpeed"] = 250;
        });
        var mismatches = (await TestedAsync(card)).GetProperty("mismatches").EnumerateArray()
            .Select(m => m.GetString()!).ToArray();
        Assert.Contains("The printer says it runs Marlin; the card says Repetier.", mismatches);
        Assert.Contains(mismatches, m => m.Contains("highest speed", StringComparison.Ordinal) && m.Contains("180") && m.Contains("250"));
    }

    [Fact]
    public async Task Only_this_machine_is_called_unless_the_configuration_lists_more()
    {
        var card = await CardAsync(c => c["line"] = new JsonObject { ["host"] = "192.0.2.7", ["port"] = 23 });
        var (status, body) = await PostAsync($"/api/cards/{card}/line/test");
        Assert.Equal(HttpStatusCode.UnprocessableEntity, status);
        Assert.Contains("not allowed", body.GetProperty("detail").GetString());
    }

    [Fact]
    public async Task Macros_are_fetched_over_the_line_where_the_printer_hands_them_out()
    {
        var cormorant = DocumentReader.Read<Card>(
            await File.ReadAllBytesAsync(Path.Combine(Server.Root, "demo", "cards", "cormorant.json"))).Document!;
        await using var printer = StandInPrinter.Start(cormorant, speed: double.PositiveInfinity);
        var card = await CardAsync(c => c["line"] = new JsonObject { ["host"] = "127.0.0.1", ["port"] = printer.Port });
        Assert.Contains("[gcode_macro JOB_BEGIN]", (await PostAsync($"/api/cards/{card}/line/macros")).Body.GetProperty("text")
            .GetString());
        Assert.Contains("M203", (await PostAsync($"/api/cards/{card}/line/settings")).Body.GetProperty("text").GetString());
    }
}
