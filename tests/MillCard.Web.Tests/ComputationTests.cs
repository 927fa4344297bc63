using System.Net;
using System.Text;
using System.Text.Json;
using System.Text.Json.Nodes;
using MillCard.Core.Files;
using MillCard.Core.Meshes;
using Xunit;

namespace MillCard.Web.Tests;

/// <summary>The endpoints that take documents and give results.</summary>
public class ComputationTests(Server server)
{
    private const string Print = "G28\nM140 S60\nM104 S150\nM190 S60\nM109 S200\nG90\nM83\nG1 X50 Y50 Z0.2 F600\nM400\nG1 X150 E5 "
        + "F1200\nM400\nG1 Z20 F600\nG0 X5 Y150 F6000\nM104 S0\nM140 S0\nM84\n";

    [Fact]
    public async Task Says_that_it_is_well() =>
        Assert.Matches("""^{"status":"ok","version":"\d+\.\d+\.\d+"}$""", await server.Client.GetStringAsync("/api/health"));

    [Fact]
    public async Task A_good_card_has_no_stop()
    {
        var answer = await server.Client.PostAsync("/api/check", Wire.Json(Wire.Example("card")));
        Assert.Equal(HttpStatusCode.OK, answer.StatusCode);
        Assert.DoesNotContain((await answer.BodyAsync()).GetProperty("findings").EnumerateArray(), f => f.GetProperty("severity")
            .GetString() == "stop");
    }

    [Theory]
    [InlineData("/envelope/bed/width", "0", "/envelope/bed/width")]
    [InlineData("/envelope/height", null, "/envelope/height")]
    [InlineData("/envelope/bed/shape", "\"heart\"", "/envelope/bed/shape")]
    [InlineData("/firmware/flavour", "\"unheard-of\"", "/firmware/flavour")]
    [InlineData("/head/nozzles/0/diameter", "\"0.4\"", "/head/nozzles/0/diameter")]
    public async Task A_card_that_breaks_its_schema_is_refused_at_the_field(string change, string? to, string pointer)
    {
        var card = Wire.Example("card");
        var steps = change[1..].Split('/');
        JsonNode at = card;
        foreach (var step in steps[..^1]) at = int.TryParse(step, out var index) ? at[index]! : at[step]!;
        if (to is null) at.AsObject().Remove(steps[^1]); else at[steps[^1]] = JsonNode.Parse(to);

        var answer = await server.Client.PostAsync("/api/check", Wire.Json(card));
        Assert.Equal(HttpStatusCode.UnprocessableEntity, answer.StatusCode);
        Assert.Equal("application/problem+json", answer.Content.Headers.ContentType!.MediaType);
        Assert.Contains(pointer, (await answer.BodyAsync()).Pointers());
    }

    [Fact]
    public async Task What_a_draft_lacks_is_found_and_not_refused()
    {
        var card = Wire.Example("card");
        card["envelope"]!.AsObject().Remove("height");
        var answer = await server.Client.PostAsync("/api/check?draft=true", Wire.Json(card));
        Assert.Equal(HttpStatusCode.OK, answer.StatusCode);
        Assert.Contains("missing-fact", (await answer.BodyAsync()).RulesFound());
    }

    [Fact]
    public async Task A_dry_run_tells_line_by_line()
    {
        var question = new JsonObject { ["card"] = Wire.Example("card"), ["gcode"] = Print };
        var run = await (await server.Client.PostAsync("/api/dry-run", Wire.Json(question))).BodyAsync();
        Assert.Empty(run.RulesFound());
        var lines = run.GetProperty("lines").EnumerateArray().ToArray();
        Assert.Equal(16, lines.Length);
        Assert.Equal(1, lines[0].GetProperty("line").GetInt32());
        // 100 mm at 20 mm/s, 1500 mm/s² at both ends: t = d/v + v/a, a trapezoid from rest to rest
        Assert.Equal(100 / 20.0 + 20 / 1500.0, lines[9].GetProperty("seconds").GetDouble(), 3);
        Assert.Equal(5, run.GetProperty("filament").GetDouble(), 6);
        Assert.Equal(150, run.GetProperty("extents").GetProperty("maxX").GetDouble(), 3);

        var brief = await (await server.Client.PostAsync("/api/dry-run?lines=false", Wire.Json(question))).BodyAsync();
        Assert.False(brief.TryGetProperty("lines", out _));
        Assert.Equal(run.GetProperty("seconds").GetDouble(), brief.GetProperty("seconds").GetDouble());
    }

    [Theory]
    [InlineData("G1 X50 F6000\n", "move-before-home")]
    [InlineData("G28\nG1 X500 F6000\n", "outside-travel")]
    [InlineData("G28\nG1 X6 Z2 F600\nG1 Y70 F6000\n", "through-keep-out")]
    [InlineData("G28\nG1 X50 Y50 Z1 F6000\nM83\nG1 X60 E1\n", "cold-extrusion")]
    [InlineData("G28\nM104 S190\nG4 S300\nM104 S230\nG1 X50 Y50 Z1 F6000\nM83\nG1 X60 E1\nM104 S0\n", "no-wait-before-extrusion")]
    [InlineData("M104 S400\nM104 S0\n", "target-over-rating")]
    [InlineData("M104 S200\n", "nozzle-left-on")]
    [InlineData("M140 S60\n", "bed-left-on")]
    public async Task A_dry_run_finds(string gcode, string rule)
    {
        var run = await (await server.Client.PostAsync("/api/dry-run?lines=false",
            Wire.Json(new JsonObject { ["card"] = Wire.Example("card"), ["gcode"] = gcode }))).BodyAsync();
        Assert.Contains(rule, run.RulesFound());
        Assert.All(run.GetProperty("findings").EnumerateArray(), f => Assert.NotEmpty(f.GetProperty("why").GetString()!));
    }

    [Fact]
    public async Task A_part_is_sliced_to_a_program_that_runs_without_a_stop()
    {
        var answer = await server.Client.PostAsync("/api/slice", Wire.Job(Wire.Box(20, 20, 10), 90, 100));
        Assert.Equal(HttpStatusCode.OK, answer.StatusCode);
        var gcode = await answer.Content.ReadAsStringAsync();
        var run = await (await server.Client.PostAsync("/api/dry-run?lines=false",
            Wire.Json(new JsonObject { ["card"] = Wire.Example("card"), ["gcode"] = gcode }))).BodyAsync();
        Assert.Empty(run.RulesFound());
        // the prime line begins at Y 4; the box ends at 110, less half a line
        Assert.Equal(110 - 0.225, run.GetProperty("extents").GetProperty("maxY").GetDouble() - 4.45, 0.5);
    }

    [Fact]
    public async Task Findings_of_a_slice_stand_in_a_header()
    {
        // a roof without supports begins in the air
        var answer = await server.Client.PostAsync("/api/slice", Wire.Job(Wire.Boxes((20, 20, 2, 0), (20, 20, 2, 8)), 90, 100));
        Assert.Equal(HttpStatusCode.OK, answer.StatusCode);
        var findings = JsonDocument.Parse(Assert.Single(answer.Headers.GetValues("Findings"))).RootElement;
        Assert.Contains("island-in-air", findings.EnumerateArray().Select(f => f.GetProperty("rule").GetString()));
        Assert.Equal(findings.GetArrayLength().ToString(System.Globalization.CultureInfo.InvariantCulture),
            Assert.Single(answer.Headers.GetValues("Findings-Count")));
        var plain = await server.Client.PostAsync("/api/slice", Wire.Job(Wire.Box(20, 20, 10), 90, 100));
        Assert.Equal("[]", Assert.Single(plain.Headers.GetValues("Findings")));
        Assert.Equal("0", Assert.Single(plain.Headers.GetValues("Findings-Count")));
    }

    [Fact]
    public async Task A_part_that_does_not_fit_is_not_sliced()
    {
        var answer = await server.Client.PostAsync("/api/slice", Wire.Job(Wire.Box(20, 20, 10), 5, 100));
        Assert.Equal(HttpStatusCode.UnprocessableEntity, answer.StatusCode);
        Assert.Contains("does-not-fit", (await answer.BodyAsync()).RulesFound());
    }

    [Fact]
    public async Task A_job_without_a_recipe_is_refused_for_slicing_and_taken_for_fitting()
    {
        var slice = await server.Client.PostAsync("/api/slice", Wire.Job(Wire.Box(20, 20, 10), 90, 100, settings: false));
        Assert.Equal(HttpStatusCode.UnprocessableEntity, slice.StatusCode);
        Assert.Contains("/filament", (await slice.BodyAsync()).Pointers());
        var fit = await server.Client.PostAsync("/api/fit", Wire.Job(Wire.Box(20, 20, 10), 90, 100, settings: false));
        Assert.True((await fit.BodyAsync()).GetProperty("parts")[0].GetProperty("fits").GetBoolean());
    }

    [Fact]
    public async Task Turning_comes_first_and_the_middle_of_the_turned_box_lies_at_x_y()
    {
        // 60 × 20 turned by 90° is 20 × 60: centred at x 13 it reaches from 3 to 23, right at the margin of 3
        var answer = await server.Client.PostAsync("/api/fit", Wire.Job(Wire.Box(60, 20, 10), 13, 125, 90, settings: false));
        Assert.True((await answer.BodyAsync()).GetProperty("parts")[0].GetProperty("fits").GetBoolean());
        var further = await server.Client.PostAsync("/api/fit", Wire.Job(Wire.Box(60, 20, 10), 12, 125, 90, settings: false));
        var violation = (await further.BodyAsync()).GetProperty("parts")[0].GetProperty("violations")[0];
        Assert.Equal("bed", violation.GetProperty("kind").GetString());
        Assert.Equal(1, violation.GetProperty("distance").GetDouble(), 3);
        Assert.Equal(1, violation.GetProperty("move").GetProperty("x").GetDouble(), 3);
    }

    // loose faces, nearly all of them in one place: more crossings than are looked at one by one
    [Fact]
    public async Task A_part_whose_outline_is_taken_wider_than_it_is_says_by_how_much()
    {
        var random = new Random(5);
        var corners = new List<float>();
        for (var i = 0; i < 17_000; i++)
        {
            var (x, y) = i < 1_000 ? (i % 40, i / 40) : (10 + random.NextSingle(), 30 + random.NextSingle());
            corners.AddRange([x, y, 1, x, y + 1, 1, x + 1, y, 1.1f]);
        }
        var heap = Stl.Write(new Mesh([.. corners], [.. Enumerable.Range(0, corners.Count / 3)]));
        var answer = await server.Client.PostAsync("/api/fit", Wire.Job(heap, 90, 100, settings: false));
        var part = (await answer.BodyAsync()).GetProperty("parts")[0];
        Assert.True(part.GetProperty("fits").GetBoolean());
        Assert.InRange(part.GetProperty("outlineBeyond").GetDouble(), 0.001, 0.05);
        var plain = await server.Client.PostAsync("/api/fit", Wire.Job(Wire.Box(20, 20, 10), 90, 100, settings: false));
        Assert.Equal(0, (await plain.BodyAsync()).GetProperty("parts")[0].GetProperty("outlineBeyond").GetDouble());
        var kept = await server.Client.PostAsync("/api/meshes", new ByteArrayContent(heap));
        Assert.InRange((await kept.BodyAsync())[0].GetProperty("outlineBeyond").GetDouble(), 0.001, 0.05);
    }

    [Theory]
    [InlineData("text", "not an STL")]
    [InlineData("short", "cut short")]
    [InlineData("empty", "empty")]
    public async Task A_file_that_is_no_mesh_is_refused_in_a_sentence(string kind, string says)
    {
        byte[] file = kind switch
        {
            "text" => [.. "this is a shopping list\0"u8, 1, 2, 3],
            "short" => Wire.DemoPart("quadrat-corner")[..1000],
            _ => []
        };
        var answer = await server.Client.PostAsync("/api/fit", Wire.Job(file, 90, 100));
        Assert.Equal(HttpStatusCode.UnprocessableEntity, answer.StatusCode);
        Assert.Contains(says, (await answer.BodyAsync()).GetProperty("detail").GetString());
    }

    [Fact]
    public async Task A_body_that_is_not_JSON_or_too_deep_is_refused()
    {
        foreach (var body in new[] { "{", "[]", "null", string.Concat(Enumerable.Repeat("[", 5000)) })
        {
            var answer = await server.Client.PostAsync("/api/check", new StringContent(body, Encoding.UTF8, "application/json"));
            Assert.Equal(HttpStatusCode.UnprocessableEntity, answer.StatusCode);
        }
    }

    [Fact]
    public async Task Schemas_examples_and_the_description_are_served()
    {
        foreach (var kind in new[] { "card", "filament", "recipe", "trial" })
        {
            Assert.Contains($"mill-card/{kind}/1", await server.Client.GetStringAsync($"/api/schemas/{kind}-1.json"));
            Assert.Contains($"mill-card/{kind}/1", await server.Client.GetStringAsync($"/api/examples/{kind}"));
        }
        Assert.StartsWith("3.1", JsonNode.Parse(await server.Client.GetStringAsync("/openapi/v1.json"))!["openapi"]!.GetValue<string>());
        Assert.Equal(HttpStatusCode.NotFound, (await server.Client.GetAsync("/api/schemas/teapot-1.json")).StatusCode);
    }
}
