using System.Net;
using System.Text;
using System.Text.Json;
using System.Text.Json.Nodes;
using Xunit;

namespace MillCard.Web.Tests;

/// <summary>Routines over the API: what they do, passages, other dialects, learning, macros.</summary>
public class RoutineTests(Server server)
{
    private async Task<JsonElement> AskAsync(string path, JsonNode body) =>
        await (await server.Client.PostAsync($"/api/routines/{path}", Wire.Json(body))).BodyAsync();

    [Fact]
    public async Task Routines_run_with_an_imagined_part_and_findings_name_their_lines()
    {
        var card = Wire.Example("card");
        card["routines"]!["start"] = "M109 S{{ heat.nozzle }}\nG1 X20 F3000\nG28\n";
        var preview = await AskAsync("preview", new JsonObject { ["card"] = card, ["layer"] = 3 });
        var start = preview.GetProperty("moments")[0];
        Assert.Equal("start", start.GetProperty("moment").GetString());
        Assert.Equal(3, start.GetProperty("lines").GetArrayLength());
        var finding = preview.GetProperty("findings").EnumerateArray().Single(f => f.GetProperty("rule").GetString() == "move-before-home");
        Assert.Equal(("/routines/start", 2), (finding.GetProperty("pointer").GetString(), finding.GetProperty("line").GetInt32()));
        Assert.Equal("insert-before", finding.GetProperty("remedy").GetProperty("edits")[0].GetProperty("how").GetString());
    }

    [Fact]
    public async Task A_card_that_is_not_complete_is_refused_at_the_field()
    {
        var card = Wire.Example("card");
        card["envelope"]!.AsObject().Remove("height");
        var answer = await server.Client.PostAsync("/api/routines/preview", Wire.Json(new JsonObject { ["card"] = card }));
        Assert.Equal(HttpStatusCode.UnprocessableEntity, answer.StatusCode);
        Assert.Contains("/card/envelope/height", (await answer.BodyAsync()).Pointers());
    }

    [Fact]
    public async Task Passages_come_from_the_facts()
    {
        var passages = await AskAsync("passages", Wire.Example("card"));
        var prime = passages.EnumerateArray().Single(p => p.GetProperty("id").GetString() == "prime-line");
        Assert.Contains("left clip", prime.GetProperty("about").GetString());
    }

    [Fact]
    public async Task Routines_are_carried_to_another_flavour()
    {
        var card = Wire.Example("card");
        card["routines"]!["start"] = "M203 X180\nM420 S1\n";
        var carried = await AskAsync("carry", new JsonObject { ["card"] = card, ["to"] = "reprapfirmware" });
        var lines = carried[0].GetProperty("lines");
        Assert.Equal(("M203 X10800", "changed"), (lines[0].GetProperty("after").GetString(), lines[0].GetProperty("kind").GetString()));
        Assert.Equal("G29 S1", lines[1].GetProperty("after").GetString());
    }

    [Fact]
    public async Task A_program_tells_what_it_was_made_with()
    {
        var gcode = new StringBuilder("M140 S60\nM104 S210\nG28\nM190 S60\nM109 S210\nM83\n");
        for (var z = 1; z <= 20; z++)
            for (var i = 0; i < 10; i++) gcode.Append(System.Globalization.CultureInfo.InvariantCulture,
                $"G1 X{50 + i % 2 * 40} Y{50 + i} Z{z * 0.25:0.###} E1.3 F2400\n");
        gcode.Append("G1 E-2 F1800\nG1 Z60 F600\nM104 S0\nM140 S0\nM84\n");
        var learned = await AskAsync("learn", new JsonObject { ["card"] = Wire.Example("card"), ["gcode"] = gcode.ToString() });
        Assert.Contains("M109 S{{ heat.nozzle }}", learned.GetProperty("start").GetString());
        Assert.Contains(learned.GetProperty("values").EnumerateArray(), v => v.GetProperty("pointer").GetString() == "/layers/others"
            && v.GetProperty("value").GetDouble() == 0.25);
    }

    [Fact]
    public async Task A_macro_file_is_listed_and_flavours_tell_their_commands()
    {
        var macros = await (await server.Client.PostAsync("/api/routines/macros",
            new StringContent("[gcode_macro PARK]\ngcode:\n  G1 X{params.X}\n", Encoding.UTF8, "text/plain"))).BodyAsync();
        Assert.Equal(("PARK", "X"), (macros[0].GetProperty("name").GetString(), macros[0].GetProperty("parameters")[0].GetString()));
        var flavours = await (await server.Client.GetAsync("/api/flavours")).BodyAsync();
        Assert.Equal(6, flavours.GetArrayLength());
        Assert.All(flavours.EnumerateArray(),
            f => Assert.Contains(f.GetProperty("commands").EnumerateArray(), c => c.GetProperty("word").GetString() == "G28"));
    }
}
