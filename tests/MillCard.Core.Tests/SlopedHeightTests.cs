using CsCheck;
using MillCard.Core.Documents;
using MillCard.Core.Findings;
using MillCard.Core.Geometry;
using MillCard.Core.Meshes;
using MillCard.Core.Slicing.Jobs;
using MillCard.Core.Slicing.Sections;
using Xunit;
using static MillCard.Core.Tests.Engine;

namespace MillCard.Core.Tests;

/// <summary>Layers as high as the surface allows, against the surface's own formula.</summary>
public class SlopedHeightTests
{
    private const double Radius = 15;

    private static readonly Mesh Ball = Solids.Revolved(
        t => (Radius * Math.Sin(Math.PI * t), Radius * (1 - Math.Cos(Math.PI * t))), 240, 96);

    private static LayerSizes Sizes(double error, double lowest = 0.08, double highest = 0.32) =>
        new() { First = 0.24, Others = 0.2, Error = error, Lowest = lowest, Highest = highest };

    private static LayerPlace[] Places(LayerSizes sizes, double? step, params Mesh[] meshes) =>
        LayerHeights.Of(meshes.Max(m => m.Box.MaxZ), sizes, new SlopedHeights(meshes, sizes, step), new([]));

    // A sphere's normal at a height z has n·z = (z − R)/R: a layer of height h stands off it by h·|n·z| at most.
    [Theory, InlineData(0.05, 0.04), InlineData(0.1, 0.04), InlineData(0.05, null), InlineData(0.1, 0.02)]
    public void Every_layer_of_a_ball_keeps_the_error_or_is_the_lowest(double error, double? step)
    {
        var places = Places(Sizes(error), step, Ball);
        var (below, rung) = (0.24, step ?? 0.01);
        Assert.Equal(new LayerPlace(0.24, 0.24), places[0]);
        foreach (var (place, next) in places.Skip(1).Zip(places.Skip(2).Append(default)))
        {
            Assert.Equal(below, place.Top - place.Height, 1e-9);
            Assert.Equal(0, Math.IEEERemainder(place.Height, rung), 1e-9);
            Assert.InRange(place.Height, 0.08 - 1e-9, 0.32 + 1e-9);
            var flatness = Math.Max(Math.Abs(below - Radius), Math.Abs(place.Top - Radius)) / Radius;
            // facets of the ball are as steep as their middles
            Assert.True(place.Height <= 0.08 + 1e-9 || place.Height * (flatness - 0.02) <= error, $"{place} at {flatness:0.00}");
            // and one rung more would not have done, but for the highest
            var more = place.Height + rung;
            if (more < 0.32 + 1e-9 && next != default)
                Assert.True(more * (Math.Max(Math.Abs(below - Radius), Math.Abs(below + more - Radius)) / Radius + 0.03) > error,
                    $"{place}");
            below = place.Top;
        }
        Assert.True(Math.Abs(places[^1].Top - 2 * Radius) <= 0.16 + 1e-9);
    }

    [Fact]
    public void Upright_walls_are_as_high_as_they_may_be_and_flat_tops_do_not_count()
    {
        var places = Places(Sizes(0.05), 0.04, Solids.Box(20, 20, 10));
        Assert.All(places.Skip(1), p => Assert.Equal(0.32, p.Height, 1e-9));
    }

    [Fact]
    public void Without_bounds_none_is_higher_than_usual_nor_lower_than_half() => Assert.Equal([0.12, 0.2],
        Places(new() { First = 0.24, Others = 0.2, Error = 0.05 }, 0.04, Ball).Skip(1)
            .Aggregate((Low: 1.0, High: 0.0), (b, p) => (Math.Min(b.Low, p.Height), Math.Max(b.High, p.Height)))
            is var (low, high) ? [Math.Round(low, 6), Math.Round(high, 6)] : []);

    [Fact]
    public void Parts_that_grow_together_have_their_layers_in_common()
    {
        var (ball, box) = (Ball, Solids.Box(20, 20, 40));
        PartToSlice At(Mesh mesh, double x) => new(new TrialPart { Name = "p", File = "p", X = x, Y = 100 }, mesh, new Footprints(mesh));
        var result = Engine.Slice(Job(ball, Plain with { Layers = Sizes(0.05) }) with { Parts = [At(ball, 100), At(box, 200)] });
        var tops = result.Layers.Select(l => (l.Place.Top, l.Place.Height)).ToArray();
        var step = Motion.Ladder.Of(Cards.Bare())?.FullStep;
        Assert.Equal(Places(Sizes(0.05), step, box, ball).Select(p => (p.Top, p.Height)), tops);
        // both are laid whole: above the ball there is the box alone, and its layers are high
        Assert.All(tops.Where(t => t.Top > 31), t => Assert.InRange(t.Height, 0.3, 0.33));
        Assert.All(result.Layers.Where(l => l.Place.Top < 29.9), l => Assert.Equal([0, 1], l.Paths.Select(p => p.Part).Distinct().Order()));
    }

    [Theory, InlineData(0.04), InlineData(0.1)]
    public void A_ball_holds_its_plastic_whatever_its_layers(double error)
    {
        var recipe = Plain with { Infill = new() { Density = 1 } };
        var (even, sloped) = (Slice(Ball, recipe), Slice(Ball, recipe with { Layers = Sizes(error) }));
        Assert.Equal(1, Plastic(sloped.Layers) / Plastic(even.Layers), 0.02);
    }

    [Fact]
    public void Shells_are_as_thick_as_with_the_usual_height()
    {
        var recipe = Plain with { TopLayers = 4, Infill = new() { Density = 0 }, Walls = 1, Layers = Sizes(0.04) };
        var sloped = Slice(Ball, recipe);
        // straight above the middle of the ball there is solid fill from 0.8 mm below its top on
        var solid = sloped.Layers.Where(l => l.Place.Top > 20 && l.Paths.Where(p => p.Kind is Slicing.Paths.PathKind.Solid
            or Slicing.Paths.PathKind.Top or Slicing.Paths.PathKind.Bridge)
            .Any(p => Inked(p).Distance(Plane.Factory.CreatePoint(new NetTopologySuite.Geometries.Coordinate(150, 100))) < 0.5)).ToArray();
        Assert.InRange(solid.Sum(l => l.Place.Height), 0.6, 1.1);
    }

    [Theory, InlineData(SupportPattern.Crossed), InlineData(SupportPattern.Branching)]
    public void Supports_keep_their_gap_where_heights_vary(SupportPattern pattern)
    {
        // a table 10 mm up beside a ball, whose layers are low where it is flat
        var table = Solids.Joined(Solids.Placed(Block.Of(10, 10, 10), 10, 10, 0), Solids.Placed(Block.Of(30, 30, 3), 0, 0, 10));
        var part = Solids.Joined(table, Solids.Placed(Ball, 60, 15, 0));
        foreach (var gap in new[] { 0.2, 0.5 })
        {
            var layers = Slice(part, Plain with
            {
                Layers = Sizes(0.05),
                Supports = new() { Pattern = pattern, GapZ = gap }
            }).Layers;
            var over = layers.First(l => l.Place.Top > 10 && l.Place.Middle > 10);
            // the table takes the left 30 mm of 75
            var top = layers.Where(l => l.Paths.Any(p => p.Kind is Slicing.Paths.PathKind.Support or Slicing.Paths.PathKind.Interface
                && p.Points.All(at => at.X < 144))).Max(l => l.Place.Top);
            // the gap asked for, and less than one layer more
            Assert.InRange(over.Place.Top - over.Place.Height - top, gap - 0.01, gap + 0.32);
        }
    }

    [Fact]
    public void A_highest_layer_that_the_line_cannot_be_is_refused() => Assert.Contains(
        Engine.Slice(Job(Ball, Plain with { Layers = Sizes(0.1, highest: 0.6) })).Findings,
        f => f is { Rule: "line-higher-than-wide", Pointer: "/recipe/layers/highest", Severity: Severity.Stop });
}
