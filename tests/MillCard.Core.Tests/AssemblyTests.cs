using MillCard.Core.Documents;
using MillCard.Core.Geometry;
using MillCard.Core.Meshes;
using MillCard.Core.Reach;
using MillCard.Core.Slicing;
using MillCard.Core.Slicing.Jobs;
using MillCard.Core.Slicing.Paths;
using Xunit;

namespace MillCard.Core.Tests;

/// <summary>Parts that are lifted, sunk, mirrored, and that belong together.</summary>
public sealed class AssemblyTests
{
    private static PartToSlice Body(string name, Mesh mesh, double x, double y, double lift = 0, string? assembly = "sign",
        bool mirrored = false)
    {
        var part = new TrialPart
        {
            Name = name,
            File = name,
            X = x,
            Y = y,
            Lift = lift,
            Assembly = assembly,
            Scale = mirrored ? new PartScale { Mirrored = true } : null,
        };
        return new PartToSlice(part, mesh, Stance.Of(part).Stood(mesh));
    }

    private static SliceJob Job(params PartToSlice[] parts) => new("test", Cards.Bare().Machine(), Cards.Petg, Engine.Plain, parts);

    private static SliceResult Slice(SliceJob job)
    {
        var result = Engine.Slice(job);
        Assert.True(result.Sliced, string.Join('\n', result.Findings.Select(f => f.Message)));
        return result;
    }

    private static IEnumerable<string> Said(SliceResult result, string rule) =>
        result.Findings.Where(f => f.Rule == rule).Select(f => f.Message);

    private static readonly Mesh Plate = Solids.Box(30, 20, 2), Letter = Solids.Box(10, 8, 1);

    [Fact]
    public void A_body_on_another_is_carried_by_it()
    {
        var result = Slice(Job(Body("plate", Plate, 100, 100), Body("letter", Letter, 100, 100, lift: 2)));
        Assert.Equal(15, result.Layers.Count);
        var upper = result.Layers.Where(l => l.Place.Middle > 2).ToArray();
        Assert.All(upper, layer => Assert.All(layer.Paths, path => Assert.Equal(1, path.Part)));
        Assert.DoesNotContain(upper.SelectMany(l => l.Paths), path => path.Kind == PathKind.Bridge || path.Hanging is not null);
        Assert.Empty(Said(result, "island-in-air").Concat(Said(result, "bodies-overlap")).Concat(Said(result, "body-apart")));
        // the same two, not put together, are in each other's way
        Assert.False(Engine.Slice(Job(Body("plate", Plate, 100, 100, assembly: null), Body("letter", Letter, 100, 100, 2, null))).Sliced);
    }

    [Fact]
    public void A_body_beside_nothing_begins_in_the_air_and_is_told_to_be_apart()
    {
        var result = Slice(Job(Body("plate", Plate, 100, 100), Body("letter", Letter, 100, 100, lift: 2.6)));
        Assert.Contains("letter", Assert.Single(Said(result, "island-in-air")), StringComparison.Ordinal);
        Assert.Equal(2, Said(result, "body-apart").Count());
        var beside = Slice(Job(Body("plate", Plate, 100, 100), Body("letter", Letter, 120.4, 100)));
        Assert.Contains(Said(beside, "body-apart"), said => said.StartsWith("letter touches no other", StringComparison.Ordinal)
            && said.Contains("plate is 0.40 mm away", StringComparison.Ordinal));
        Assert.Empty(Said(Slice(Job(Body("plate", Plate, 100, 100), Body("letter", Letter, 120, 100))), "body-apart"));
    }

    [Fact]
    public void Where_bodies_overlap_the_later_one_is_printed()
    {
        var result = Slice(Job(Body("plate", Plate, 100, 100), Body("inlay", Letter, 100, 100, lift: 1)));
        Assert.Matches(@"inlay overlaps plate by (7.99|8.00) mm on layer", Assert.Single(Said(result, "bodies-overlap")));
        // the plastic is that of both without what they share
        var (plate, inlay) = (Plastic(result, 0), Plastic(result, 1));
        var alone = Slice(Job(Body("plate", Plate, 100, 100)));
        Assert.True(plate < Plastic(alone, 0) - 0.5 * Letter.Volume());
        var pocket = Shapes.Rectangle(95, 96, 10, 8);
        foreach (var path in result.Layers.Where(l => l.Place.Middle > 1.01).SelectMany(l => l.Paths))
            Assert.True(path.Part == 1 || Plane.Intersection(Engine.Inked(path, 0.06), pocket).Area < 0.05, $"{path.Kind}");
        Assert.InRange(inlay / Letter.Volume(), 0.8, 1.2);

        static double Plastic(SliceResult result, int part) => Engine.Plastic(result.Layers, path => path.Part == part);
    }

    [Fact]
    public void What_a_neighbour_carries_needs_no_support()
    {
        var job = Job(Body("plate", Plate, 100, 100), Body("letter", Letter, 100, 100, lift: 2));
        var held = job with { Recipe = Engine.Plain with { Supports = new() { Pattern = SupportPattern.Crossed } } };
        Assert.DoesNotContain(Slice(held).Layers.SelectMany(l => l.Paths), p => p.Kind is PathKind.Support or PathKind.Interface);
        var free = held with { Parts = [held.Parts[1]] };
        Assert.Contains(Slice(free).Layers.SelectMany(l => l.Paths), p => p.Kind is PathKind.Support or PathKind.Interface);
    }

    [Fact]
    public void Bodies_that_belong_together_are_not_printed_one_after_the_other() =>
        Assert.Contains(Engine.Slice(Job(Body("plate", Plate, 100, 100), Body("letter", Letter, 100, 100, lift: 2))
            with
        { Sequence = Sequence.OneAtATime }).Findings, f => f.Rule == "assembly-grows-together");

    [Fact]
    public void A_sunk_part_loses_what_lies_below_the_bed()
    {
        var sunk = Body("ball", Solids.Torus(20, 6, 60, 40), 100, 100, lift: -6);
        Assert.Equal(6, sunk.Footprints.Height, 3);
        Assert.Equal(0, sunk.Footprints.OpenEdges);
        Assert.InRange(Slice(Job(sunk)).Layers.Count, 29, 31);
        var gone = Assert.Throws<MeshRefusedException>(() => Body("ball", Letter, 0, 0, lift: -1));
        Assert.Contains("nothing of it is left", gone.Message, StringComparison.Ordinal);
    }

    [Theory]
    [InlineData(0)]
    [InlineData(90)]
    [InlineData(35)]
    public void A_sunk_part_stays_where_it_was(double turn)
    {
        // a step: sunk by its low half, the high half alone is left
        var step = Solids.Joined(Solids.Box(20, 10, 4), Solids.Placed(Solids.Box(10, 10, 4), 0, 0, 4));
        var (whole, sunk) = (Stance.Upright.Stood(step), new Stance(Lift: -4).Stood(step));
        var (own, left) = (whole.Placed(whole.Above(5), 50, 60, turn), sunk.Placed(sunk.Whole, 50, 60, turn));
        Assert.True(Plane.Difference(own, left).Area + Plane.Difference(left, own).Area < 1e-3);
    }

    [Fact]
    public void A_mirrored_part_is_the_image_of_the_part_and_still_closed_outwards()
    {
        var ell = Solids.Prism([(0, 0), (20, 0), (20, 5), (5, 5), (5, 20), (0, 20)], 3);
        var mirrored = Placement.Oriented(ell, new PartScale { Mirrored = true }, null);
        Assert.Equal(ell.Volume(), mirrored.Volume(), 1e-6);
        var (own, image) = (Stance.Upright.Stood(ell).Whole, new Stance(new PartScale { Mirrored = true }).Stood(ell).Whole);
        var turned = NetTopologySuite.Geometries.Utilities.AffineTransformation.ScaleInstance(-1, 1).Transform(own);
        Assert.True(Plane.Difference(image, turned).Area + Plane.Difference(turned, image).Area < 1e-6);
        Assert.True(Plane.Difference(image, own).Area > 50);
    }

    [Fact]
    public void Fellows_may_touch_and_overlap_others_may_not()
    {
        PartToSlice[] parts = [Body("a", Plate, 100, 100), Body("b", Plate, 110, 100), Body("c", Plate, 120, 100, assembly: "other")];
        var fits = new Fit(Cards.Bare().Machine()).Of(Job(parts).Standing);
        Assert.Equal([("a", "c"), ("b", "c"), ("c", "a"), ("c", "b")],
            fits.SelectMany(f => f.Violations.Select(v => (f.Name, v.With!))).Order());
    }
}
