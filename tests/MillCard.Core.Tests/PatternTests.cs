using System.Text.Json;
using System.Text.Json.Nodes;
using MillCard.Core.Documents;
using MillCard.Core.Findings;
using MillCard.Core.Meshes;
using MillCard.Core.Rules;
using MillCard.Core.Slicing.Jobs;
using MillCard.Core.Patterns;
using MillCard.Core.Starting;
using Xunit;

namespace MillCard.Core.Tests;

public class PatternTests
{
    public static TheoryData<string> Ids => [.. Pattern.All.Select(p => p.Id)];

    private static Card Named(string id) => Pattern.All.Single(p => p.Id == id).Start() with { Name = "new" };

    [Fact]
    public void There_are_about_two_dozen_and_each_has_its_own_id_and_name()
    {
        Assert.InRange(Pattern.All.Select(p => p.Id).Distinct().Count(), 24, 30);
        Assert.Equal(Pattern.All.Count, Pattern.All.Select(p => p.Name).Distinct().Count());
    }

    [Theory, MemberData(nameof(Ids))]
    public void A_card_from_a_pattern_is_complete_once_named_and_every_figure_is_assumed(string id)
    {
        var card = Named(id);
        var json = JsonSerializer.SerializeToElement(card, DocumentJson.Options);
        Assert.Empty(SchemaCheck.Of(DocumentSchema.Of(typeof(Card)), json));
        Assert.DoesNotContain(RuleBook.Check(card), f => f.Severity >= Severity.Note);
        Assert.Equal(id, card.Pattern!.Id);
        Assert.All(card.Sources.Values, s => Assert.Equal(SourceKind.Assumed, s.Source));
        foreach (var bites in new[] { "/envelope/height", "/envelope/origin", "/envelope/heated", "/envelope/bed/width",
            "/head/nozzles/0/diameter", "/head/nozzles/0/filamentDiameter", "/firmware/flavour" })
            Assert.Contains(bites, card.Sources.Keys);
        var document = JsonNode.Parse(json.GetRawText())!;
        foreach (var pointer in card.Sources.Keys)
            Assert.NotNull(pointer[1..].Split('/')
                .Aggregate((JsonNode?)document, (at, step) => int.TryParse(step, out var i) && at is JsonArray list ? list[i] : at?[step]));
    }

    [Theory, MemberData(nameof(Ids))]
    public void With_what_is_proposed_a_first_part_is_sliced_and_runs_without_a_stop(string id)
    {
        var card = Named(id);
        var machine = card.Machine();
        var box = machine.Bed.EnvelopeInternal;
        var mesh = Solids.Box(20, 20, 4);
        var part = new TrialPart { Name = "cube", File = "cube", X = box.Width / 2, Y = box.Height / 2 };
        var sliced = Engine.Slice(new SliceJob("first", machine, Proposal.Filament(card), Proposal.Recipe(card),
            [new PartToSlice(part, mesh, new Footprints(mesh))]));
        Assert.True(sliced.Sliced);
        Assert.DoesNotContain(sliced.Findings, f => f.Severity >= Severity.Caution);
    }

    [Fact]
    public void What_follows_has_the_cards_numbers()
    {
        var follows = Consequences.Of(Cards.Dunlin, Proposal.Recipe(Cards.Dunlin)).ToDictionary(c => c.Title, c => c.Says);
        Assert.StartsWith("Parts may be 165 mm high", follows["height"]);
        Assert.Contains("X 0 to 180 and from Y 0 to 160", follows["frame"]);
        // (2.85 / 1.75)² = 265 %: a machine fed 2.85 with 1.75 on the card
        Assert.Contains("265.2 %", follows["filament"]);
        Assert.Contains("288 cm²", follows["bed"]);
    }
}
