using MillCard.Core.Geometry;
using NetTopologySuite.Geometries;
using NetTopologySuite.Operation.Union;
using Xunit;

namespace MillCard.Core.Tests;

/// <summary>Unions of very many areas, and sums made of them, against NetTopologySuite's union and intersection.</summary>
public sealed class ManyAreasTests
{
    private static readonly CancellationToken Stop = TestContext.Current.CancellationToken;

    /// <summary>Stars, every other one with a hole, strewn over a square.</summary>
    private static Shape[] Strewn(int count, double size, double over, int seed)
    {
        var random = new Random(seed);
        return [.. Enumerable.Range(0, count).Select(i =>
        {
            var (x, y) = (over * random.NextDouble(), over * random.NextDouble());
            var radii = Enumerable.Range(0, 7).Select(_ => size * (0.4 + random.NextDouble())).ToArray();
            var hole = Plane.Factory.CreateLinearRing([.. DrawnOutlines.StarRing([.. radii.Select(r => 0.3 * size)], x, y).Reverse()]);
            var outline = Plane.Factory.CreateLinearRing(DrawnOutlines.StarRing(radii, x, y));
            return Plane.Factory.CreatePolygon(outline, i % 2 == 0 ? [hole] : []);
        })];
    }

    // sparse, so that nothing is certain; and so dense that most lies within what is
    [Theory, InlineData(600, 0.5, 60), InlineData(2000, 2, 40), InlineData(1200, 12, 60)]
    public void The_union_of_very_many_areas_is_the_references(int count, double size, double over)
    {
        var areas = Strewn(count, size, over, seed: 4);
        var union = ManyAreas.Union(areas, Stop);
        Assert.True(union.IsValid);
        Assert.Equal(0, union.SymmetricDifference(UnaryUnionOp.Union(areas)).Area, 2e-6 * union.Length);
    }

    [Fact]
    public void A_point_is_in_the_sum_of_very_many_outlines_where_one_of_them_is_overlapped()
    {
        var strewn = Plane.Union(Strewn(100, 1.2, 100, seed: 9));
        var tile = DrawnOutlines.Star([4, 2, 5, 3, 4]);
        var sum = MinkowskiSum.Of(strewn, MinkowskiSum.Negated(tile), Stop);
        var (random, inside) = (new Random(2), 0);
        for (var i = 0; i < 400; i++)
        {
            var (x, y) = (120 * random.NextDouble() - 10, 120 * random.NextDouble() - 10);
            var moved = Plane.Moved(tile, x, y);
            var (overlap, apart) = (strewn.Intersection(moved).Area, strewn.Distance(moved));
            if (overlap is > 0 and < 1e-3 || apart is > 0 and < 1e-3) continue;
            Assert.Equal(overlap > 0, sum.Covers(Plane.Factory.CreatePoint(new Coordinate(x, y))));
            if (overlap > 0) inside++;
        }
        Assert.InRange(inside, 100, 390);
    }

    [Fact]
    public void A_sum_is_given_up_as_such_while_its_pieces_are_made_side_by_side()
    {
        using var stop = new CancellationTokenSource();
        var arms = DrawnOutlines.Star([.. Enumerable.Range(0, 400).Select(i => i % 2 == 0 ? 50.0 : 20)]);
        stop.CancelAfter(100);
        Assert.ThrowsAny<OperationCanceledException>(() => MinkowskiSum.Of(arms, arms, stop.Token));
    }

    [Fact]
    public void A_union_can_be_given_up() => Assert.Throws<OperationCanceledException>(
        () => ManyAreas.Union(Strewn(600, 1, 60, seed: 1), new CancellationToken(canceled: true)));
}
