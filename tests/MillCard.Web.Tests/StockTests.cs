using System.IO.Compression;
using System.Net;
using System.Text;
using System.Text.Json;
using System.Text.Json.Nodes;
using Xunit;

namespace MillCard.Web.Tests;

/// <summary>Filaments and recipes against cards; a trial's settings, comparisons and files.</summary>
public class StockTests(Server server)
{
    private const string Dunlin = "0b9d3f5e-52f7-4f0f-9d38-4b1b7f6f0a01", Kittiwake = "0b9d3f5e-52f7-4f0f-9d38-4b1b7f6f0a11",
        Cormorant = "0b9d3f5e-52f7-4f0f-9d38-4b1b7f6f0a12";
    private const string Petg = "0b9d3f5e-52f7-4f0f-9d38-4b1b7f6f0a02", Standard = "0b9d3f5e-52f7-4f0f-9d38-4b1b7f6f0a03",
        Marker = "0b9d3f5e-52f7-4f0f-9d38-4b1b7f6f0a0a";

    private async Task<JsonElement> GetAsync(string address) => await (await server.Client.GetAsync(address)).BodyAsync();

    private async Task<string> TrialAsync(Action<JsonNode>? and = null)
    {
        var trial = Wire.Example("trial");
        (trial["card"], trial["filament"], trial["recipe"]) = (Dunlin, Petg, Standard);
        trial["parts"] = new JsonArray(new JsonObject
        {
            ["name"] = "box",
            ["file"] = await server.Client.PutMeshAsync(Wire.Box(20, 20, 4)),
            ["x"] = 90,
            ["y"] = 90
        });
        and?.Invoke(trial);
        return (await (await server.Client.PostAsync("/api/trials", Wire.Json(trial))).BodyAsync()).GetProperty("id").GetString()!;
    }

    private async Task<JsonElement[]> MessagesAsync(string address, HttpMethod? method = null)
    {
        var text = await (await server.Client.SendAsync(
            new HttpRequestMessage(method ?? HttpMethod.Get, address))).Content.ReadAsStringAsync();
        return [.. text.TrimEnd().Split('\n').Select(line => JsonDocument.Parse(line).RootElement)];
    }

    [Fact]
    public async Task Filaments_and_recipes_are_matched_to_every_card_with_reasons()
    {
        var cards = await GetAsync($"/api/filaments/{Petg}/matches");
        string Verdict(string id) => cards.EnumerateArray().First(c => c.GetProperty("id").GetString() == id).GetProperty("verdict")
            .GetString()!;
        Assert.Equal(("fits", "does-not-fit"), (Verdict(Dunlin), Verdict(Cormorant)));
        Assert.Contains("The print would never start.", cards.EnumerateArray().First(c => c.GetProperty("id").GetString() == Cormorant)
            .GetProperty("reasons")[0].GetProperty("message").GetString());
        var card = await GetAsync($"/api/cards/{Dunlin}/matches");
        Assert.Contains(card.GetProperty("filaments").EnumerateArray(), f => f.GetProperty("id").GetString() == Marker
            && f.GetProperty("verdict").GetString() == "does-not-fit");
        Assert.True(card.GetProperty("recipes").GetArrayLength() >= 3);
        var table = await GetAsync("/api/matches");
        Assert.All(table.GetProperty("recipes")
            .EnumerateArray(), r => Assert.Equal(table.GetProperty("cards").GetArrayLength(), r.GetProperty("matches").GetArrayLength()));
        var question = new JsonObject
        {
            ["card"] = Wire.Example("card"),
            ["filament"] = Wire.Example("filament"),
            ["recipe"] = Wire.Example("recipe")
        };
        Assert.Equal("fits", (await (await server.Client.PostAsync("/api/match", Wire.Json(question))).BodyAsync()).GetProperty("verdict")
            .GetString());
        Assert.Equal(HttpStatusCode.NotFound, (await server.Client.GetAsync($"/api/filaments/{Guid.NewGuid()}/matches")).StatusCode);
    }

    [Fact]
    public async Task A_copy_for_another_card_lists_what_it_left_out()
    {
        var copy = await (await server.Client.PostAsync($"/api/filaments/{Marker}/copies?card={Kittiwake}", null)).BodyAsync();
        Assert.Equal(["/retraction", "/flow"], copy.GetProperty("left").EnumerateArray().Select(l => l.GetProperty("pointer").GetString()));
        var made = (await GetAsync($"/api/filaments/{copy.GetProperty("id").GetString()}")).GetProperty("document");
        Assert.Equal("Station night marker, glowing, for Kittiwake", made.GetProperty("name").GetString());
        Assert.False(made.TryGetProperty("retraction", out _));
    }

    [Fact]
    public async Task Every_setting_of_a_trial_is_told_with_what_gives_it()
    {
        var id = await TrialAsync(t => t["parts"]![0]!["settings"] = new JsonObject { ["/walls"] = 6 });
        var settings = (await GetAsync($"/api/trials/{id}/settings")).EnumerateArray().ToArray();
        Assert.True(settings.Length > 120);
        Assert.Contains(settings, s => s.GetProperty("label").GetString() == "walls" && s.GetProperty("from").GetString() == "part"
            && s.GetProperty("value").GetString() == "6");
        Assert.Contains(settings, s => s.GetProperty("from").GetString() == "card" && s.GetProperty("label").GetString() == "flavour"
            && s.GetProperty("value").GetString() == "marlin");
        Assert.True((await GetAsync("/api/effects")).GetArrayLength() > 60);
    }

    [Fact]
    public async Task What_if_slices_variants_of_a_setting_an_outcome_and_a_parts_sides()
    {
        var id = await TrialAsync();
        var messages = await MessagesAsync($"/api/trials/{id}/what-if?setting=/infill/pattern");
        Assert.Equal(7, messages[0].GetProperty("of").GetInt32());
        Assert.Equal(8, messages.Length);
        Assert.All(messages.Skip(1),
            m => Assert.True(m.GetProperty("variant").GetProperty("figures").GetProperty("seconds").GetDouble() > 60));
        var denser = await MessagesAsync($"/api/trials/{id}/what-if?setting=/infill/density");
        Assert.True(denser[2].GetProperty("variant").GetProperty("figures").GetProperty("grams").GetDouble() > denser[0].GetProperty("now")
            .GetProperty("grams").GetDouble());
        var stronger = await MessagesAsync($"/api/trials/{id}/what-if?outcome=strength");
        Assert.Equal("/walls", stronger[1].GetProperty("variant").GetProperty("pointer").GetString());
        var sides = await MessagesAsync($"/api/trials/{id}/what-if?part=0");
        Assert.True(sides.Length >= 4 && sides.All(s => s.GetProperty("variant").TryGetProperty("overhang", out _)));
        var incomplete = await MessagesAsync($"/api/trials/{await TrialAsync(t => t.AsObject().Remove("recipe"))}/what-if?setting=/walls");
        Assert.Contains("No recipe is chosen yet.", incomplete[0].GetProperty("problem").GetRawText());
    }

    [Fact]
    public async Task The_arranged_bed_goes_out_as_3MF_and_comes_back_as_its_parts()
    {
        var id = await TrialAsync(t => t["parts"]!.AsArray()
            .Add(new JsonObject { ["name"] = "second", ["file"] = t["parts"]![0]!["file"]!.DeepClone(), ["x"] = 130, ["y"] = 90 }));
        var file = await server.Client.GetByteArrayAsync($"/api/trials/{id}/bed?format=3mf");
        using (var archive = new ZipArchive(new MemoryStream(file))) Assert.NotNull(archive.GetEntry("3D/3dmodel.model"));
        var kept = await server.Client.PostAsync("/api/meshes", new ByteArrayContent(file));
        var parts = (await kept.BodyAsync()).EnumerateArray().ToArray();
        Assert.Equal(["box", "second"], parts.Select(p => p.GetProperty("name").GetString()));
        Assert.Equal(40, parts[1].GetProperty("at")[0].GetDouble() - parts[0].GetProperty("at")[0].GetDouble(), 0.01);
        var stl = await server.Client.GetByteArrayAsync($"/api/trials/{id}/bed?format=stl");
        Assert.Equal(24, BitConverter.ToInt32(stl, 80));
        var broken = await server.Client.PostAsync("/api/meshes", new ByteArrayContent(file[..^50]));
        Assert.Equal(HttpStatusCode.UnprocessableEntity, broken.StatusCode);
        Assert.Contains("cut short", await broken.Content.ReadAsStringAsync());
    }

    [Fact]
    public async Task Zones_of_a_trial_are_sliced_and_a_departure_that_cannot_be_is_refused_at_its_place()
    {
        static JsonObject Zone(string pointer, JsonNode value) =>
            new()
            {
                ["shape"] = "box",
                ["name"] = "screws",
                ["x"] = 90,
                ["y"] = 90,
                ["z"] = 0,
                ["width"] = 8,
                ["depth"] = 8,
                ["height"] = 4,
                ["settings"] = new JsonObject { [pointer] = value }
            };
        var plain = (await MessagesAsync($"/api/trials/{await TrialAsync()}/slice", HttpMethod.Post))[^1].GetProperty("run")
            .GetProperty("result");
        var dense = await TrialAsync(t => t["zones"] = new JsonArray(Zone("/infill/density", 0.9)));
        var zoned = (await MessagesAsync($"/api/trials/{dense}/slice", HttpMethod.Post))[^1].GetProperty("run").GetProperty("result");
        Assert.True(zoned.GetProperty("grams").GetDouble() > plain.GetProperty("grams").GetDouble());
        Assert.EndsWith("-Station PETG, grey.gcode", plain.GetProperty("fileName").GetString());
        var thin = await TrialAsync(t => t["zones"] = new JsonArray(Zone("/layers/first", 0.1)));
        var refused = (await MessagesAsync($"/api/trials/{thin}/slice", HttpMethod.Post))[^1].GetProperty("refusal");
        Assert.Contains("/zones/0/settings", refused.GetRawText());
    }

    [Fact]
    public async Task A_script_slices_a_3MF_with_a_zone_and_gets_a_named_file()
    {
        var trial = await TrialAsync();
        var job = new JsonObject
        {
            ["card"] = Wire.Example("card"),
            ["filament"] = Wire.Example("filament"),
            ["recipe"] = Wire.Example("recipe"),
            ["parts"] = new JsonArray(new JsonObject { ["name"] = "box", ["file"] = "box.3mf", ["x"] = 90, ["y"] = 90 }),
            ["zones"] = new JsonArray(new JsonObject
            {
                ["shape"] = "cylinder",
                ["name"] = "core",
                ["x"] = 90,
                ["y"] = 90,
                ["radius"] = 4,
                ["height"] = 9,
                ["settings"] = new JsonObject { ["/infill/density"] = 0.8 }
            }),
        };
        using var form = new MultipartFormDataContent { { new StringContent(job.ToJsonString(), Encoding.UTF8), "job" },
            { new ByteArrayContent(await server.Client.GetByteArrayAsync($"/api/trials/{trial}/bed")), "files", "box.3mf" } };
        var answer = await server.Client.PostAsync("/api/slice", form);
        Assert.True(answer.IsSuccessStatusCode, await answer.Content.ReadAsStringAsync());
        Assert.Contains("box-Station PETG", answer.Content.Headers.ContentDisposition!.ToString());
    }

    [Fact]
    public async Task A_recipe_has_revisions_and_a_program_names_the_cards()
    {
        var made = await (await server.Client.PostAsync("/api/recipes", Wire.Json(Wire.Example("recipe")))).BodyAsync();
        var address = $"/api/recipes/{made.GetProperty("id").GetString()}";
        var fixedAs = await (await server.Client.PostAsync($"{address}/revisions", Wire.Json(new JsonObject { ["note"] = "first" })))
            .BodyAsync();
        Assert.Equal(("A", 0), (fixedAs[0].GetProperty("letter").GetString(), fixedAs[0].GetProperty("changed").GetArrayLength()));
        var changed = Wire.Example("recipe");
        changed["walls"] = 7;
        var save = new HttpRequestMessage(HttpMethod.Put, address) { Content = Wire.Json(changed) };
        save.Headers.TryAddWithoutValidation("If-Match", $"\"{made.GetProperty("version").GetUInt32()}\"");
        (await server.Client.SendAsync(save)).EnsureSuccessStatusCode();
        Assert.Equal("/walls", (await GetAsync($"{address}/revisions"))[0].GetProperty("changed")[0].GetString());
        Assert.NotEqual(7, (await GetAsync($"{address}/revisions/A")).GetProperty("walls").GetInt32());

        var card = (await (await server.Client.PostAsync("/api/cards", Wire.Json(Wire.Example("card")))).BodyAsync()).GetProperty("id")
            .GetString();
        var trial = await TrialAsync(t => t["card"] = card);
        async Task<string> HeaderAsync()
        {
            await MessagesAsync($"/api/trials/{trial}/slice", HttpMethod.Post);
            return (await server.Client.GetStringAsync($"/api/trials/{trial}/run/program"))[..200];
        }
        Assert.Contains("; card: Dunlin\n", await HeaderAsync());
        (await server.Client.PostAsync($"/api/cards/{card}/revisions", Wire.Json(new JsonObject { ["note"] = "x" })))
            .EnsureSuccessStatusCode();
        Assert.Contains("; card: Dunlin, revision A\n", await HeaderAsync());
    }
}
