using System.Text.Json;
using System.Text.Json.Nodes;
using CsCheck;
using MillCard.Core.Documents;
using MillCard.Core.Files;
using MillCard.Core.Meshes;
using MillCard.Core.Reach;
using MillCard.Web.Trials;
using Xunit;

namespace MillCard.Web.Tests;

public class ShelfTests
{
    private static readonly JsonObject Documents = new()
    {
        ["card"] = Whole<Card>("card"),
        ["recipe"] = Whole<Recipe>("recipe"),
        ["limits"] = JsonNode.Parse("""{ "height": 160, "margin": 1 }""")
    };

    private static readonly IReadOnlyList<StandingPart> Parts = Cube();

    private static readonly string[] Facts = [.. Leaves(Documents, "").Where(p => Changed(p, 1.07) is not null)];

    /// <summary>The example of a kind with all that is usual written out.</summary>
    private static JsonNode Whole<T>(string kind)
        where T : class => JsonSerializer.SerializeToNode(Read<T>(Wire.Example(kind)), DocumentJson.Options)!;

    private static IReadOnlyList<StandingPart> Cube()
    {
        var mesh = MeshFile.ReadOne(Wire.Box(20, 20, 20));
        var part = new TrialPart { Name = "cube", File = "cube", X = 21, Y = 21 };
        return [StandingPart.Of(part, new Footprints(Placement.Oriented(mesh, null, null)))];
    }

    /// <summary>Pointers of all numbers and switches.</summary>
    private static IEnumerable<string> Leaves(JsonNode? node, string at) => node switch
    {
        JsonObject members => members.SelectMany(m => Leaves(m.Value, $"{at}/{m.Key}")),
        JsonArray items => items.SelectMany((item, i) => Leaves(item, $"{at}/{i}")),
        JsonValue value when value.GetValueKind() is JsonValueKind.Number or JsonValueKind.True or JsonValueKind.False => [at],
        _ => [],
    };

    /// <summary>The documents with one fact changed; null where they would not hold any more.</summary>
    private static (Card, Recipe, TrialLimits)? Changed(string pointer, double by)
    {
        var changed = Documents.DeepClone();
        var steps = pointer.Split('/')[1..];
        JsonNode Step(JsonNode at, string step) => at is JsonArray ? at[int.Parse(step)]! : at[step]!;
        var parent = steps[..^1].Aggregate((JsonNode)changed, Step);
        var value = Step(parent, steps[^1]).AsValue();
        JsonNode next = value.GetValueKind() == JsonValueKind.Number ? value.GetValue<double>() * by : !value.GetValue<bool>();
        if (parent is JsonArray list) list[int.Parse(steps[^1])] = next; else parent[steps[^1]] = next;
        return (Read<Card>(changed["card"]!), Read<Recipe>(changed["recipe"]!), Read<TrialLimits>(changed["limits"]!)) is ({ } card,
            { } recipe, { } limits) ? (card, recipe, limits) : null;
    }

    private static T? Read<T>(JsonNode json) where T : class => DocumentReader.Read<T>(JsonSerializer.SerializeToElement(json)).Document;

    private static string Answer(FitShelf shelf, (Card Card, Recipe Recipe, TrialLimits Limits) asked) =>
        JsonSerializer.Serialize(shelf.Take(asked.Card, asked.Recipe, asked.Limits)
            .Of(Parts, null, cures: Cures.LeftOut, CancellationToken.None), DocumentJson.Options);

    [Fact]
    public void A_warm_verdict_is_the_cold_one_whatever_fact_is_changed()
    {
        using var warm = new FitShelf();
        Assert.True(Facts.Length > 100, $"only {Facts.Length} facts can be changed");
        Gen.Select(Gen.Int[0, Facts.Length - 1].Select(i => Facts[i]), Gen.Double[0.5, 3])
            .Where((fact, by) => Changed(fact, by) is not null).Sample((fact, by) =>
        {
            using var cold = new FitShelf();
            var asked = Changed(fact, by)!.Value;
            Assert.Equal(Answer(cold, asked), Answer(warm, asked));
        }, iter: 300, threads: 1);
    }

    // ten rounds of skirt in lines three nozzles wide take 14 mm more than in lines one nozzle wide
    [Fact]
    public void The_width_of_a_skirts_lines_bears_on_the_verdict()
    {
        using var warm = new FitShelf();
        var (card, recipe) = (Read<Card>(Documents["card"]!)!, Read<Recipe>(Documents["recipe"]!)!);
        Recipe Wide(double lines) => recipe with { LineWidth = null, LineWidthOfNozzle = lines, Skirt = recipe.Skirt with { Rounds = 10 } };
        string Verdict(double lines) => Answer(warm, (card, Wide(lines), new TrialLimits()));
        Assert.NotEqual(Verdict(1), Verdict(3));
    }
}
