using MillCard.Core.Documents;
using MillCard.Core.Geometry;
using MillCard.Core.Meshes;
using Xunit;
using static MillCard.Core.Tests.Engine;

namespace MillCard.Core.Tests;

/// <summary>Settings of what comes between lines, seen in the program's own text.</summary>
public class TravelSettingTests
{
    private static readonly Recipe Hollow = Plain with
    {
        Walls = 1,
        TopLayers = 0,
        BottomLayers = 0,
        Infill = new() { Density = 0 },
        Retraction = new() { Length = 1, Lift = 0.4, Wipe = 3, StayInside = false },
    };

    /// <summary>A ring upright on the bed.</summary>
    private static Mesh Ring { get; } = Solids.Extruded((NetTopologySuite.Geometries.Polygon)Plane.Difference(
        Shapes.Ellipse(20, 20, 12, 12, Side.Outside), Shapes.Ellipse(20, 20, 6, 6, Side.Outside)), 2);

    [Theory, InlineData(false), InlineData(true)]
    public void A_wipe_runs_over_the_outer_wall_or_a_line_inside_it(bool inside)
    {
        var moves = ReadMoves.Of(Slice(Ring, Hollow with { Retraction = Hollow.Retraction with { WipeInside = inside } }).Gcode);
        double Radius(Point p) => p.To(new Point(150, 100));
        var laid = moves.Laying(5).Select(m => Radius(m.Middle)).ToArray();
        var (outer, hole) = (laid.Max(), laid.Min());
        var ends = moves.Where(m => m.Layer == 5 && m.Fed < 0 && m.Length > 0.5).Select(m => Radius(m.To)).ToArray();
        Assert.NotEmpty(ends);
        var by = inside ? Hollow.LineWidth!.Value : 0;
        Assert.Contains(ends, r => r > 9);
        Assert.Contains(ends, r => r < 9);
        Assert.All(ends, r => Assert.Equal(r > 9 ? outer - by : hole + by, r, 0.03));
    }

    [Fact]
    public void Z_is_lifted_only_over_what_the_layer_has_already()
    {
        // from the outer ring's seam to the hole's nothing lies between; from fill to fill across a hole its walls do
        var recipe = Hollow with { Walls = 2, Infill = new() { Density = 0.4, Pattern = InfillPattern.Grid } };
        var always = ReadMoves.Of(Slice(Ring, recipe).Gcode);
        var seldom = ReadMoves.Of(Slice(Ring, recipe with { Retraction = recipe.Retraction with { LiftOverPrint = true } }).Gcode);
        Assert.Equal(always.Sum(m => Math.Max(0, m.Fed)), seldom.Sum(m => Math.Max(0, m.Fed)), 1e-6);
        var (all, some) = (Travels(always), Travels(seldom));
        Assert.Equal(all.Select(t => (t.From, t.To)), some.Select(t => (t.From, t.To)));
        Assert.All(all.Where(t => t.From.To(t.To) > 2), t => Assert.True(t.Lifted));
        Assert.Contains(some, t => t.Lifted);
        Assert.Contains(some, t => !t.Lifted && t.From.To(t.To) > 2);
        // half of a line is 0.2 to 0.25 mm
        foreach (var travel in some.Where(t => t.From.To(t.To) > 2 && t.Off is < 0.15 or > 0.3))
            Assert.Equal(travel.Off < 0.2, travel.Lifted);
    }

    private sealed record Way(Point From, Point To, bool Lifted, double Off);

    /// <summary>Ways without plastic within a layer, each with its distance from the lines laid before, a line's width at its ends left
    /// out.</summary>
    private static List<Way> Travels(ReadMove[] moves)
    {
        var ways = new List<Way>();
        foreach (var layer in moves.Where(m => m.Layer > 1).GroupBy(m => m.Layer))
        {
            var (laid, low) = (new List<NetTopologySuite.Geometries.LineSegment>(), layer.Where(m => m.Fed > 0).Min(m => m.Z));
            foreach (var move in layer)
            {
                if (move.Length == 0) continue;
                var (a, b) = (move.From, move.To);
                if (move.Fed > 0) laid.Add(new(a.X, a.Y, b.X, b.Y));
                if (move.Fed != 0 || laid.Count == 0) continue;
                var end = Math.Min(0.5, 0.45 / move.Length);
                var (from, to) = (a.Towards(b, end), b.Towards(a, end));
                var way = new NetTopologySuite.Geometries.LineSegment(from.X, from.Y, to.X, to.Y);
                ways.Add(new(a, b, move.Z > low + 0.1, laid.Min(line => line.Distance(way))));
            }
        }
        return ways;
    }
}
