using CsCheck;
using MillCard.Core.Geometry;
using NetTopologySuite.Geometries;
using Xunit;

namespace MillCard.Core.Tests;

/// <summary>Points of curves measured from straight ways between others.</summary>
public class MeasuredCurveTests
{
    private static readonly Gen<(double X, double Y, double Side)[]> Curves =
        Gen.Select(Gen.Double[-50, 50], Gen.Double[-50, 50], Gen.Double[-3, 3]).Array[2, 70];

    // NetTopologySuite's distance between a point and a line, as an independent reference
    [Fact]
    public void Points_are_as_far_off_as_from_the_line_between_both_ends_or_as_their_sides_are() =>
        Gen.Select(Curves, Gen.Bool, Gen.Int[0, 69], Gen.Int[0, 69]).Sample((points, hasSides, one, other) =>
        {
            var (from, to) = (Math.Min(one, other) % points.Length, Math.Max(one, other) % points.Length);
            if (from > to) (from, to) = (to, from);
            using var curve = new MeasuredCurve(points.Length, hasSides);
            foreach (var (i, (x, y, side)) in points.Index()) curve.Put(i, x, y, side);
            var most = curve.Measure(from, to);
            var squares = curve.Squares.ToArray();
            var line = new LineSegment(points[from].X, points[from].Y, points[to].X, points[to].Y);
            var expected = Enumerable.Range(from + 1, Math.Max(0, to - from - 1)).Select(i =>
            {
                var at = new Coordinate(points[i].X, points[i].Y);
                var evenly = points[from].Side + Math.Clamp(line.ProjectionFactor(at), 0, 1) * (points[to].Side - points[from].Side);
                return Math.Max(line.Distance(at), hasSides ? Math.Abs(points[i].Side - evenly) : 0);
            }).ToArray();
            foreach (var (i, far) in expected.Index()) Assert.Equal(far, Math.Sqrt(squares[from + 1 + i]), 1e-9);
            Assert.Equal(expected.DefaultIfEmpty(0).Max(), Math.Sqrt(most), 1e-9);
        });

    [Fact]
    public void Between_two_of_one_place_points_are_as_far_as_from_it()
    {
        using var curve = new MeasuredCurve(4, hasSides: false);
        foreach (var (i, (x, y)) in new[] { (1.0, 1.0), (4, 5), (1, 2), (1, 1) }.Index()) curve.Put(i, x, y);
        Assert.Equal(25, curve.Measure(0, 3), 1e-12);
        Assert.Equal([25, 1], curve.Squares[1..3].ToArray());
    }
}
