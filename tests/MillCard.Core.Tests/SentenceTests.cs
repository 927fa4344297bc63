using System.Text.Json;
using MillCard.Core.Documents;
using MillCard.Core.Matching;
using MillCard.Core.Wording;
using Xunit;

namespace MillCard.Core.Tests;

/// <summary>Sentences carry the values that they speak.</summary>
public class SentenceTests
{
    private sealed record Wait(double Target);

    [Fact]
    public void Values_are_kept_by_the_names_they_have_where_they_stand()
    {
        var (now, wait, nozzles, line, missing) = (21.37, new Wait(215), new[] { "n1", "n2" }, 6, (double?)null);
        var said = Sentence.Of($"{nozzles[1]} is at {now:0.#} °C, not {wait.Target:0}{missing:0} (line {line + 1}, {2 * now:0} twice).");
        Assert.Equal("n2 is at 21.4 °C, not 215 (line 7, 43 twice).", said.Text);
        Assert.Equal(["line", "missing", "now", "nozzles", "target"], said.Values!.Keys);
        Assert.Equal(21.37, said.Values["now"]);
        Assert.Equal(215.0, said.Values["target"]);
        Assert.Equal(7.0, said.Values["line"]);
        Assert.Equal("n2", said.Values["nozzles"]);
    }

    [Fact]
    public void A_sentence_within_a_sentence_brings_its_values_along()
    {
        var (count, top) = (3, 12.5);
        var more = Sentence.When(count > 1, $" {count} moves do.");
        Assert.Equal(["count", "top"], Sentence.Of($"It is {top:0.#} mm high.{more}").Values!.Keys);
        Assert.Null(Sentence.When(count > 3, $"{top}"));
        var nothing = Sentence.Of($"Nothing.{Sentence.When(false, $"{top}")}");
        Assert.Equal("Nothing.", nothing.Text);
        Assert.Null(nothing.Values);
    }

    [Fact]
    public void What_is_no_number_in_JSON_is_kept_as_a_text()
    {
        var (least, level) = (double.NaN, double.PositiveInfinity);
        var values = Sentence.Of($"{least} to {level}").Values!;
        Assert.Equal(["NaN", "Infinity"], values.Values);
        Assert.Contains("Infinity", JsonSerializer.Serialize(values, DocumentJson.Options), StringComparison.Ordinal);
    }

    [Fact]
    public void Numbers_that_a_sentence_speaks_and_does_not_keep_are_found()
    {
        Assert.Equal(["7"], Spoken.NotKept("G91 stands on line 7.", null));
        Assert.Empty(Spoken.NotKept("It is 12.4 mm high.", new Dictionary<string, object> { ["top"] = 12.36 }));
        Assert.Equal(["12.4"], Spoken.NotKept("It is 12.4 mm high.", new Dictionary<string, object> { ["top"] = 12.46 }));
    }

    [Fact]
    public void A_finding_tells_its_values_to_a_script()
    {
        var bad = Cards.Dunlin with { Motion = Cards.Dunlin.Motion with { StepRate = 100 } };
        var finding = Rules.RuleBook.Check(bad).First(f => f.Rule == "step-rate-too-high");
        var json = JsonSerializer.SerializeToElement(finding, DocumentJson.Options).GetProperty("values");
        Assert.Equal(100, json.GetProperty("board").GetDouble());
        Assert.Equal(100.0, finding.Values!["board"]);
    }

    [Fact]
    public void Reasons_of_every_filament_and_recipe_on_every_card_keep_what_they_speak()
    {
        var (codes, cards) = (new HashSet<string>(), DemoParts.All<Card>("cards").ToArray());
        Needs[] needs = [new(), new() { NozzleFrom = 0.6, Flow = 30, Chamber = 60, Width = 900, Depth = 900, Height = 900 },
            new() { NozzleTo = 0.3 }, new() { NozzleFrom = 1, NozzleTo = 1.2 }];
        foreach (var card in cards)
            foreach (var need in needs)
            {
                foreach (var filament in DemoParts.All<Filament>("filaments")) Look(FilamentMatch.Of(card, filament with { Needs = need }));
                foreach (var recipe in DemoParts.All<Recipe>("recipes")) Look(RecipeMatch.Of(card, recipe with { Needs = need }));
            }
        Assert.True(codes.Count > 15, string.Join(' ', codes));

        void Look(Match match)
        {
            Spoken.AllKept(match);
            codes.UnionWith(match.Reasons.Select(r => r.Code));
        }
    }
}
