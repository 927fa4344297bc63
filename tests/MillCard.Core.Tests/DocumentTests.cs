using System.Text;
using System.Text.Json;
using System.Text.Json.Nodes;
using CsCheck;
using MillCard.Core.Documents;
using MillCard.Core.Rules;
using Xunit;

namespace MillCard.Core.Tests;

public class DocumentTests
{
    private static JsonObject Dunlin() => JsonNode.Parse(Examples.Of("card"))!.AsObject();

    private static IReadOnlyList<FieldError> Errors(JsonNode card, bool draft = false) =>
        DocumentReader.Read<Card>(Encoding.UTF8.GetBytes(card.ToJsonString()), draft).Errors;

    [Fact]
    public void Every_example_holds_its_schema()
    {
        foreach (var (kind, type) in Examples.Kinds)
        {
            using var example = JsonDocument.Parse(Examples.Of(kind));
            Assert.Empty(SchemaCheck.Of(DocumentSchema.Of(type), example.RootElement));
        }
    }

    [Fact]
    public void Writing_a_document_back_gives_the_same_json()
    {
        var again = JsonSerializer.SerializeToNode(Cards.Dunlin, DocumentJson.Options)!;
        Assert.Empty(Errors(again));
        Assert.True(JsonNode.DeepEquals(again,
            JsonSerializer.SerializeToNode(DocumentReader.Read<Card>(Encoding.UTF8.GetBytes(again.ToJsonString())).Document,
            DocumentJson.Options)));
    }

    [Fact]
    public void Members_of_a_later_version_are_kept()
    {
        var card = Dunlin();
        card["envelope"]!["lamp"] = "red";
        var read = DocumentReader.Read<Card>(Encoding.UTF8.GetBytes(card.ToJsonString())).Document;
        Assert.Equal("red", (string?)JsonSerializer.SerializeToNode(read, DocumentJson.Options)!["envelope"]!["lamp"]);
    }

    public static TheoryData<string, FieldProblem, Action<JsonObject>, string> Mistakes => new()
    {
        { "/envelope/bed/width", FieldProblem.OutOfRange, c => c["envelope"]!["bed"]!["width"] = 0,
            "Bed width must be above 0 and at most 2000 mm; 0 is not." },
        { "/envelope/bed/width", FieldProblem.OutOfRange, c => c["envelope"]!["bed"]!["width"] = 1e300, "1E+300" },
        { "/envelope/height", FieldProblem.Missing, c => c["envelope"]!.AsObject().Remove("height"), "Height is missing." },
        { "/envelope/height", FieldProblem.Missing, c => c["envelope"]!["height"] = null, "Height is missing." },
        { "/envelope/heated", FieldProblem.Missing, c => c["envelope"]!.AsObject().Remove("heated"), "Heated bed is missing." },
        { "/envelope/bed/shape", FieldProblem.NoChoice, c => c["envelope"]!["bed"]!["shape"] = "blob", "rectangle, ellipse, polygon" },
        { "/envelope/keepOuts/1/kind", FieldProblem.NoChoice, c => c["envelope"]!["keepOuts"]![1]!["kind"] = "lava",
            "obstacle, bad-surface, reserved" },
        { "/head/nozzles/0/diameter", FieldProblem.WrongKind, c => c["head"]!["nozzles"]![0]!["diameter"] = "wide",
            "Nozzle diameter must be a number." },
        { "/head/nozzles/0/filamentDiameter", FieldProblem.Missing, c => c["head"]!["nozzles"]![0]!.AsObject()
            .Remove("filamentDiameter"), "Filament diameter is missing." },
        { "/firmware/flavour", FieldProblem.NoChoice, c => c["firmware"]!["flavour"] = "x", "marlin, reprapfirmware" },
        { "/name", FieldProblem.Missing, c => c["name"] = "", "Name is empty." },
        { "/schema", FieldProblem.NoChoice, c => c["schema"] = "mill-card/card/99", "mill-card/card/1" },
        { "/head", FieldProblem.Missing, c => c["head"] = null, "missing" },
        { "/envelope", FieldProblem.Missing, c => c.Remove("envelope"), "Envelope is missing." },
        { "/name", FieldProblem.TooLong, c => c["name"] = new string('x', 2000), "at most" },
        { "/envelope/keepOuts", FieldProblem.TooMany, c => c["envelope"]!["keepOuts"] = Many(5000), "entries" },
        { "/head/nozzles", FieldProblem.TooFew, c => c["head"]!["nozzles"] = new JsonArray(), "at least" },
        { "/firmware", FieldProblem.Missing, c => c.Remove("firmware"), "Firmware is missing." },
    };

    private static JsonArray Many(int count) => [.. Enumerable.Range(0, count).Select(_ => (JsonNode)new JsonObject())];

    [Theory, MemberData(nameof(Mistakes))]
    public void A_mistake_is_refused_at_its_place(string pointer, FieldProblem code, Action<JsonObject> spoil, string says)
    {
        var card = Dunlin();
        spoil(card);
        Assert.Contains(Errors(card), e => e.Pointer == pointer && e.Code == code && (e.Message + e.Limit)
            .Contains(says, StringComparison.OrdinalIgnoreCase));
    }

    [Fact]
    public void A_draft_may_lack_what_a_card_needs_and_the_check_says_so()
    {
        var card = Dunlin();
        card["envelope"]!.AsObject().Remove("height");
        card["name"] = null;
        Assert.Empty(Errors(card, draft: true));
        var draft = DocumentReader.Read<Card>(Encoding.UTF8.GetBytes(card.ToJsonString()), draft: true).Document!;
        Assert.Equal(["/envelope/height", "/name"], RuleBook.Check(draft).Where(f => f.Rule == "missing-fact").Select(f => f.Pointer!)
            .Order());
    }

    [Fact]
    public void Any_json_is_read_or_refused() => Gen.Select(Gen.Int[0, 4], Gen.String[0, 30], Gen.Double).Sample((kind, text, number) =>
    {
        var json = kind switch
        {
            0 => text,
            1 => $"[{number:R}]",
            2 => new string('[', 5000),
            3 => $"{{\"envelope\":{JsonSerializer.Serialize(text)}}}",
            _ => "{\"name\":{\"a\":[1,2,{}]}}"
        };
        var reading = DocumentReader.Read<Card>(Encoding.UTF8.GetBytes(json));
        Assert.True(reading.Document is not null || reading.Errors.Count > 0);
    }, iter: 2000);
}
