using System.Text.Json;
using MillCard.Core.Documents;
using MillCard.Core.Records;
using MillCard.Core.Settings;
using Xunit;

namespace MillCard.Core.Tests;

/// <summary>One description of a setting is all that schema, refusal, departure, effect, learning and redline need.</summary>
public class DescriptionTests
{
    /// <summary>A document with one setting beside what every document has.</summary>
    public sealed record Loom : OpenRecord, IDocument
    {
        public static string Kind => "loom";
        public string Schema { get; init; } = "mill-card/loom/1";
        public string? Name { get; init; }
        [Group("Weave")]
        [Field("thread tension", "N", AtLeast = 0.5, AtMost = 8, Short = "tension", Also = "pull, strain", Hint = "at the reed",
            Otherwise = "as the warp", Departs = Departs.Zone, Pages = FieldPages.Trial)]
        [Tends("Tighter is finer.", Surface = 2, Time = -1)]
        public double? Tension { get; init; }
        [Group("Weave")][Field("pattern")] public Twill Pattern { get; init; }
        public IReadOnlyDictionary<string, FactSource> Sources { get; init; } = new Dictionary<string, FactSource>();
    }

    public enum Twill
    {
        Plain,
        [Word("like a fish's bones")] Herringbone,
        TwoByTwo,
    }

    private static JsonElement Json(object value) => JsonSerializer.SerializeToElement(value, DocumentJson.Options);

    [Fact]
    public void The_schema_says_all_that_a_page_needs()
    {
        var tension = DocumentSchema.Of(typeof(Loom), draft: true)["properties"]!["tension"]!;
        Assert.Equal(("thread tension", "tension", "N", "Weave"), ((string)tension["title"]!, (string)tension["x-short"]!,
            (string)tension["x-unit"]!, (string)tension["x-group"]!));
        Assert.Equal((0.5, 8), ((double)tension["minimum"]!, (double)tension["maximum"]!));
        Assert.Equal(("pull, strain", "at the reed", "as the warp", "zone", "Tighter is finer."), ((string)tension["x-also"]!,
            (string)tension["x-hint"]!, (string)tension["x-otherwise"]!, (string)tension["x-departs"]!, (string)tension["x-says"]!));
        Assert.Equal("""["trial"]""", tension["x-pages"]!.ToJsonString());
        Assert.Equal("""{"time":-1,"surface":2}""", tension["x-tends"]!.ToJsonString());
        Assert.Equal("""{"plain":"plain","herringbone":"like a fish\u0027s bones","two-by-two":"two by two"}""",
            DocumentSchema.Of(typeof(Loom), draft: true)["properties"]!["pattern"]!["x-words"]!.ToJsonString());
    }

    [Fact]
    public void A_refusal_names_it_with_its_limits()
    {
        var refused = Assert.Single(SchemaCheck.Of(DocumentSchema.Of(typeof(Loom)), Json(new Loom { Name = "a", Tension = 9 })));
        Assert.Equal("/tension", refused.Pointer);
        Assert.Equal("Thread tension must be at least 0.5 and at most 8 N; 9 is not.", refused.Message);
    }

    [Fact]
    public void It_is_a_setting_with_an_effect_and_a_change_of_it_is_named()
    {
        var leaf = Assert.Single(Leaves.Of<Loom>(), l => l.Pointer == "/tension");
        Assert.Equal(("thread tension", "N", Departs.Zone), (leaf.Label, leaf.Unit, leaf.Departs));
        Assert.Equal([new Tendency(Outcome.Time, -1), new Tendency(Outcome.Surface, 2)], leaf.Tends!.Tendencies);
        Assert.Equal(["/tension"], Differences.Of(Json(new Loom { Tension = 2 }), Json(new Loom { Tension = 3 })));
    }

    [Fact]
    public void Members_are_found_through_lists_and_kinds()
    {
        Assert.Equal("Z hop", Fields.At(typeof(Card), "/head/nozzles/0/retraction/lift")?.Label);
        Assert.Equal("bed depth", Fields.At(typeof(Card), "/envelope/bed/depth")?.Label);
        Assert.Equal("radius", Fields.At(typeof(Card), "/head/bodies/@duct/outline/radius")?.Label);
        Assert.Null(Fields.At(typeof(Card), "/envelope/bed/girth"));
    }

    [Fact]
    public void Every_setting_of_a_recipe_stands_under_a_heading_and_says_what_it_moves()
    {
        Assert.All(Leaves.Of<Recipe>(), leaf => Assert.NotNull(leaf.Field));
        Assert.Equal(Leaves.Of<Recipe>().Select(l => l.Pointer), Effects.All.Select(e => e.Pointer));
        var zones = Leaves.Of<Recipe>().Where(l => l.Departs == Departs.Zone).Select(l => l.Pointer).ToArray();
        Assert.Contains("/infill/density", zones);
        Assert.DoesNotContain("/skirt/gap", zones);
        Assert.DoesNotContain("/supports/angle", zones);
    }
}
