using MillCard.Core.Documents;
using MillCard.Core.Findings;
using MillCard.Core.Flow;
using MillCard.Core.Matching;
using MillCard.Core.Meshes;
using MillCard.Core.Slicing;
using MillCard.Core.Slicing.Paths;
using Xunit;

namespace MillCard.Core.Tests;

/// <summary>Supports whose interface is laid by a nozzle of its own.</summary>
public class InterfaceNozzleTests
{
    private static readonly Recipe Held = Engine.Plain with
    {
        LineWidth = 0.5,
        Retraction = new(),
        Supports = new() { Pattern = SupportPattern.Crossed, InterfaceNozzle = 2 },
    };

    private static SliceResult Slice(Recipe recipe, string nozzle = "n1") => Engine.Slice(new("held",
        DemoParts.Card("oystercatcher").Machine(), Cards.Petg, recipe, [new(new TrialPart
        {
            Name = "table",
            File = "table",
            X = 120,
            Y = 120,
            Nozzles = [nozzle],
        }, Solids.Mushroom, new Footprints(Solids.Mushroom))]));

    [Theory, InlineData("n1", 0), InlineData("n3", 2)]
    public void The_interface_is_laid_by_its_own_nozzle_and_nothing_else_is(string nozzle, int own)
    {
        var result = Slice(Held, nozzle);
        var laying = ReadMoves.Of(result.Gcode).Where(m => m.Layer > 0 && m.Fed > 0 && m.Length > 0).ToArray();
        Assert.Equal([Math.Min(own, 1), Math.Max(own, 1)], laying.Select(m => m.Tool).Distinct().Order());
        var area = ExtrudedLine.FilamentArea(1.75);
        for (var layer = 1; layer <= result.Layers.Count; layer++)
        {
            var dense = result.Layers[layer - 1].Paths.Where(p => p.Kind == PathKind.Interface).Sum(p => p.VolumeAt(0.2)) / area;
            Assert.Equal(dense, laying.Where(m => m.Layer == layer && m.Tool == 1).Sum(m => m.Fed), 0.01);
        }
        // two layers of interface under the plate, and none on the bed
        Assert.Equal([8, 9], laying.Where(m => m.Tool == 1).Select(m => m.Layer).Distinct().Order());
        Assert.Contains(1, result.Run!.FilamentOf.Index().Where(f => f.Item > 0).Select(f => f.Index));
    }

    [Fact]
    public void The_same_is_laid_as_by_one_nozzle()
    {
        var (two, one) = (Slice(Held), Slice(Held with { Supports = Held.Supports with { InterfaceNozzle = null } }));
        Assert.Single(ReadMoves.Of(one.Gcode).Where(m => m.Layer > 0 && m.Fed > 0).Select(m => m.Tool).Distinct());
        Assert.Equal(Engine.Plastic(one.Layers), Engine.Plastic(two.Layers), 1e-6);
        Assert.Equal(one.Layers[8].Paths.Select(p => Math.Round(p.Length, 6)).Order(),
            two.Layers[8].Paths.Select(p => Math.Round(p.Length, 6)).Order());
    }

    [Fact]
    public void A_nozzle_that_is_not_there_is_refused_at_its_place_and_does_not_match()
    {
        var recipe = Held with { Supports = Held.Supports with { InterfaceNozzle = 9 } };
        Assert.Contains(Slice(recipe).Findings, f => f is
        {
            Rule: "nozzle-not-there", Severity: Severity.Stop,
            Pointer: "/recipe/supports/interfaceNozzle"
        });
        var reasons = RecipeMatch.Of(DemoParts.Card("oystercatcher"), recipe).Reasons;
        Assert.Contains(reasons, r => r is { Code: "nozzle-of-interface", Verdict: Verdict.DoesNotFit });
        Assert.DoesNotContain(RecipeMatch.Of(DemoParts.Card("oystercatcher"), Held).Reasons, r => r.Code == "nozzle-of-interface");
        // without supports nothing asks for it
        Assert.DoesNotContain(Slice(recipe with { Supports = recipe.Supports with { Pattern = SupportPattern.None } }).Findings,
            f => f.Rule == "nozzle-not-there");
    }
}
