using System.Text.Json;
using System.Text.Json.Nodes;
using Xunit;

namespace MillCard.Web.Tests;

/// <summary>The search over everything, in the demo data.</summary>
public sealed class SearchTests(Server server) : IClassFixture<Server>
{
    private async Task<JsonElement[]> FindAsync(string text) =>
        [.. (await (await server.Client.GetAsync($"/api/search?text={Uri.EscapeDataString(text)}")).BodyAsync()).EnumerateArray()];

    private static string Said(JsonElement one) => $"{one.GetProperty("kind").GetString()} {one.GetProperty("name").GetString()}";

    private static string? Of(JsonElement one, string member) => one.TryGetProperty(member, out var value) ? value.GetString() : null;

    [Fact]
    public async Task A_name_comes_first_and_what_was_changed_last_where_nothing_is_sought()
    {
        var first = (await FindAsync("dunl"))[0];
        Assert.Equal("card Dunlin", Said(first));
        Assert.Null(Of(first, "pointer"));
        Assert.Equal(12, (await FindAsync("  ")).Length);
    }

    [Fact]
    public async Task The_text_of_a_routine_is_found_with_its_line()
    {
        var found = Assert.Single(await FindAsync("CLIPS prime"), f => Of(f, "pointer") == "/routines/start");
        Assert.Equal("card Dunlin", Said(found));
        Assert.Contains("clear of the clips", Of(found, "text"), StringComparison.Ordinal);
        Assert.True(found.GetProperty("line").GetInt32() > 3);
    }

    [Fact]
    public async Task Tags_notes_of_revisions_and_records_of_prints_are_found()
    {
        var made = await (await server.Client.PostAsync("/api/recipes", Wire.Json(new JsonObject
        {
            ["schema"] = "mill-card/recipe/1",
            ["name"] = "Thin",
            ["tags"] = new JsonArray("sea \"water\"", "100%"),
            ["notes"] = "for the\nouter_rings",
        }))).BodyAsync();
        foreach (var text in new[] { "\"water\"", "100%", "outer_rings", "water OUTER" })
            Assert.Equal(made.GetProperty("id").GetString(), Of(Assert.Single(await FindAsync(text)), "id"));
        Assert.Empty(await FindAsync("outer-rings"));
        Assert.Empty(await FindAsync("100_"));
        var revisions = await (await server.Client.GetAsync("/api/cards/0b9d3f5e-52f7-4f0f-9d38-4b1b7f6f0a01/revisions")).BodyAsync();
        var note = revisions[0].GetProperty("note").GetString()!;
        Assert.Contains(await FindAsync(note), f => Said(f) == "revision Dunlin"
            && Of(f, "text")!.StartsWith("C: ", StringComparison.Ordinal));
        var prints = await (await server.Client.GetAsync("/api/cards/0b9d3f5e-52f7-4f0f-9d38-4b1b7f6f0a01/prints")).BodyAsync();
        var line = prints.GetProperty("prints")[0].GetProperty("record").GetProperty("line").GetString()!;
        Assert.Contains(await FindAsync(line), f => Said(f) == "print Dunlin");
    }

    [Fact]
    public async Task Names_of_members_are_no_texts_and_what_lies_in_the_bin_says_so()
    {
        Assert.Empty(await FindAsync("maxAcceleration stepsPerMm"));
        var made = await (await server.Client.PostAsync("/api/filaments", Wire.Json(new JsonObject
        {
            ["schema"] = "mill-card/filament/1",
            ["name"] = "Whelk grey",
        }))).BodyAsync();
        await server.Client.DeleteAsync($"/api/filaments/{made.GetProperty("id").GetString()}");
        Assert.Equal("bin", Of(Assert.Single(await FindAsync("whelk")), "place"));
    }

    [Theory]
    [InlineData("\0")]
    [InlineData("\\")]
    [InlineData("%' or 1=1 --")]
    public async Task Whatever_is_sought_is_answered(string text) => Assert.True((await FindAsync(text)).Length < 13);
}
