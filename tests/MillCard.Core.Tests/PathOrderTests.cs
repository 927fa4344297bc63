using CsCheck;
using MillCard.Core.Geometry;
using MillCard.Core.Slicing.Order;
using MillCard.Core.Slicing.Paths;
using MillCard.Core.Slicing.Sections;
using Xunit;
using Point = MillCard.Core.Geometry.Point;

namespace MillCard.Core.Tests;

/// <summary>Which line comes next, where it begins, and the way to it.</summary>
public class PathOrderTests
{
    private static readonly Gen<Point> Points = Gen.Select(Gen.Double[0, 50], Gen.Double[0, 50]).Select(p => new Point(p.Item1, p.Item2));

    private static readonly Gen<ToolPath> Paths =
        from points in Points.Array[2, 6]
        from closed in Gen.Bool
        select new ToolPath(PathKind.Infill, points, closed && points.Length > 2, 0.4);

    private static IEnumerable<Point> Begins(ToolPath path, bool keepSeams) =>
        path.Closed && !keepSeams ? path.Points : path.Closed ? [path.Points[0]] : [path.Points[0], path.Points[^1]];

    [Fact]
    public void The_next_line_is_the_one_that_begins_nearest() => Gen.Select(Paths.Array[1, 12], Points, Gen.Bool)
        .Sample((paths, start, keepSeams) =>
    {
        var here = start;
        var left = paths.ToList();
        foreach (var next in TravelOrder.Of(paths, start, keepSeams))
        {
            Assert.Equal(left.Min(p => Begins(p, keepSeams).Min(at => at.To(here))), here.To(next.Points[0]), 1e-9);
            var own = left.Single(p => p.Points.Order(ByPlace).SequenceEqual(next.Points.Order(ByPlace)));
            Assert.Equal((own.Length, own.Closed, own.Width), (next.Length, next.Closed, next.Width), Alike);
            left.Remove(own);
            here = next.End;
        }
        Assert.Empty(left);
    }, iter: 200);

    private static readonly Comparer<Point> ByPlace = Comparer<Point>.Create((a, b) => (a.X, a.Y).CompareTo((b.X, b.Y)));

    private static bool Alike((double Length, bool Closed, double Width) a, (double Length, bool Closed, double Width) b) =>
        Math.Abs(a.Length - b.Length) < 1e-9 && a.Closed == b.Closed && a.Width == b.Width;

    [Fact]
    public void A_ring_begins_at_the_corner_it_is_told_to_and_keeps_its_sense()
    {
        Point[] corners = [new(0, 0), new(4, 0), new(4, 3)];
        var ring = new ToolPath(PathKind.OuterWall, corners, Closed: true, 0.4);
        Assert.Equal([corners[1], corners[2], corners[0]], ring.From(1).Points);
        Assert.Equal((12, new Point(4, 0)), (ring.From(1).Length, ring.From(1).End));
        var line = new ToolPath(PathKind.Infill, corners, Closed: false, 0.4);
        Assert.Equal([corners[2], corners[1], corners[0]], line.From(2).Points);
        Assert.Equal((7, new Point(0, 0)), (line.From(2).Length, line.From(2).End));
        Assert.Equal(new Point(4, 3), line.From(0).End);
    }

    /// <summary>A U open to the back: 30 wide, 20 deep, arms of 6.</summary>
    private static readonly Shape U = Plane.Difference(Shapes.Rectangle(0, 0, 30, 20), Shapes.Rectangle(6, 6, 18, 20));

    private static readonly Point[] Middle = [new(0.2, 0.2), new(29.8, 0.2), new(29.8, 19.8), new(24.2, 19.8), new(24.2, 5.8),
        new(5.8, 5.8), new(5.8, 19.8), new(0.2, 19.8)];

    [Fact]
    public void A_way_from_arm_to_arm_stays_within_the_part() => Gen.Select(Gen.Double[0.5, 5.5], Gen.Double[1, 19], Gen.Double[24.5, 29.5],
        Gen.Double[1, 19]).Sample((x0, y0, x1, y1) =>
    {
        using var inside = new InsideTravel(U, [Middle]);
        var (from, to) = (new Point(x0, y0), new Point(x1, y1));
        if (inside.Between(from, to) is not { } way)
        {
            // only where every way round is far longer than the straight one
            Assert.True(y0 > 7 && y1 > 7, $"{from} {to}");
            return;
        }
        Point[] whole = [from, .. way, to];
        for (var i = 1; i < whole.Length; i++)
            Assert.True(U.Covers(Plane.Factory.CreateLineString([new(whole[i - 1].X, whole[i - 1].Y), new(whole[i].X, whole[i].Y)])));
        var length = 0.0;
        for (var i = 1; i < whole.Length; i++) length += whole[i - 1].To(whole[i]);
        Assert.InRange(length, from.To(to), Math.Max(8, 3 * from.To(to)));
    }, iter: 300);

    [Fact]
    public void A_way_that_is_free_has_no_corners_and_one_without_rings_is_not_known()
    {
        using var inside = new InsideTravel(U, [Middle]);
        Assert.Equal([], inside.Between(new(1, 1), new(29, 1))!);
        using var ringless = new InsideTravel(U, []);
        Assert.Null(ringless.Between(new(3, 15), new(27, 15)));
        Assert.Null(inside.Between(new(3, 30), new(3, 40)) is { Length: > 0 } ? "a way outside" : null);
    }

    [Fact]
    public void The_shorter_way_round_is_gone()
    {
        // a square ring: from its left side to its right, nearer to the front
        var ring = Plane.Difference(Shapes.Rectangle(0, 0, 30, 30), Shapes.Rectangle(5, 5, 20, 20));
        Point[] hole = [new(4, 4), new(26, 4), new(26, 26), new(4, 26)];
        using var inside = new InsideTravel(ring, [hole]);
        var way = inside.Between(new(2, 8), new(28, 8))!;
        Assert.Equal([new(4, 8), new(4, 4), new(26, 4), new(26, 8)], way);
        var back = inside.Between(new(2, 22), new(28, 22))!;
        Assert.Equal([new(4, 22), new(4, 26), new(26, 26), new(26, 22)], back);
    }

    [Fact]
    public void A_run_of_layers_has_in_common_what_all_of_them_have() => Gen.Select(Gen.Double[-6, 6].Array[1, 14], Gen.Int[1, 9])
        .Sample((at, longest) =>
    {
        Shape[] regions = [.. at.Select(x => (Shape)Shapes.Rectangle(x, -x / 2, 10, 10))];
        var common = new CommonToNeighbours(regions);
        for (var first = -1; first < regions.Length; first++)
            for (var count = 1; count <= longest; count++)
            {
                var outside = first < 0 || first + count > regions.Length;
                var expected = outside ? Plane.Empty : regions[first..(first + count)].Aggregate(Plane.Intersection);
                Assert.Equal(expected.Area, common.Of(first, count).Area, 1e-6);
                var inner = Shapes.Rectangle(0, 0, 4, 4);
                using var edges = new Edges(inner);
                Assert.Equal(!outside && regions[first..(first + count)].All(r => Nesting.LiesClearlyWithin(inner, r)),
                    common.ClearlyHolds(first, count, inner, edges));
            }
    }, iter: 60);
}
