using CsCheck;
using MillCard.Core.Geometry;
using MillCard.Core.Slicing.Paths;
using NetTopologySuite.Geometries;
using Xunit;
using static MillCard.Core.Tests.Engine;
using Point = MillCard.Core.Geometry.Point;

namespace MillCard.Core.Tests;

/// <summary>Lines with fewer points that stay where they were.</summary>
public sealed class FewerPointsTests
{
    private static readonly Gen<Point[]> Rings = Gen.Double[9.8, 10.2].Array[6, 150]
        .Select(radii => DrawnOutlines.StarRing(radii, 0, 0)[1..].Select(c => new Point(c.X, c.Y)).ToArray());

    // NetTopologySuite's distance between a point and a line, as an independent reference
    [Fact]
    public void No_point_is_left_out_that_lies_further_off_than_the_deviation() => Gen.Select(Rings, Gen.Bool, Gen.Double[0.005, 0.3])
        .Sample((ring, closed, error) =>
    {
        var thin = new ToolPath(PathKind.OuterWall, ring, closed, 0.45).Thinned(error);
        var way = closed ? thin.Points.Append(thin.Points[0]) : thin.Points;
        var line = Plane.Factory.CreateLineString([.. way.Select(p => new Coordinate(p.X, p.Y))]);
        Assert.Equal((closed, 0.45), (thin.Closed, thin.Width));
        Assert.All(ring, p => Assert.InRange(line.Distance(Plane.Factory.CreatePoint(new Coordinate(p.X, p.Y))), 0, error + 1e-9));
        Assert.Equal(ring.Where(thin.Points.Contains), thin.Points);
        if (!closed) Assert.Equal((ring[0], ring[^1]), (thin.Points[0], thin.Points[^1]));
    }, iter: 300);

    [Fact]
    public void Where_the_width_changes_points_stay()
    {
        var path = new ToolPath(PathKind.Thin, [.. Enumerable.Range(0, 11).Select(i => new Point(i, 0))], Closed: false, 0.5)
        {
            // widens evenly to the middle, then stays
            Widths = [.. Enumerable.Range(0, 11).Select(i => 0.3 + 0.05 * Math.Min(i, 5))],
        };
        var thin = path.Thinned(0.01);
        Assert.Equal([0, 5, 10], thin.Points.Select(p => p.X));
        Assert.Equal(path.VolumeAt(0.2), thin.VolumeAt(0.2), 1e-9);
        Assert.Same(path, path.Thinned(0));
    }

    [Fact]
    public void A_round_wall_takes_as_few_moves_as_the_deviation_allows_and_fills_the_same()
    {
        ToolPath Outer(double deviation) => Slice(Solids.Cylinder(12, 1), Plain with { Deviation = deviation }).Layers[2].Paths
            .First(p => p.Kind == PathKind.OuterWall);
        var (all, few) = (Outer(0), Outer(0.01));
        Assert.InRange(all.Points.Length, 200, 720);
        // a chord of length c leaves a circle by c²/8r: about 74 chords of 1 mm; halving stops within twice that
        Assert.InRange(few.Points.Length, 74, 148);
        Assert.Equal(all.Length, few.Length, 0.03);
    }
}
