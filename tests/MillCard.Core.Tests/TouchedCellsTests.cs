using MillCard.Core.Geometry;
using NetTopologySuite.Geometries;
using NetTopologySuite.Operation.Union;
using Xunit;
using Triangle = MillCard.Core.Geometry.Triangle;

namespace MillCard.Core.Tests;

/// <summary>Outlines of heaps by the squares that they touch, against NetTopologySuite's union and against points.</summary>
public sealed class TouchedCellsTests
{
    private static readonly CancellationToken Stop = CancellationToken.None;

    private static readonly CertainCells Nothing = new(SquareRaster.Over(0, 0, 1, 1, 4), new bool[16]);

    private static Triangle[] Heap(int count, double size, double over = 20)
    {
        var random = new Random(3);
        double Near() => size * (2 * random.NextDouble() - 1);
        return [.. Enumerable.Range(0, count).Select(_ => (X: over * random.NextDouble(), Y: over * random.NextDouble()))
            .Select(p => new Triangle(p.X, p.Y, p.X + Near(), p.Y + Near(), p.X + Near(), p.Y + Near()))];
    }

    [Theory, InlineData(1, 3), InlineData(2, 8), InlineData(60, 1), InlineData(600, 1), InlineData(1000, 0.1)]
    public void Nothing_is_lost_and_nothing_lies_further_beyond_than_is_told(int count, double size)
    {
        var heap = Heap(count, size);
        var (area, beyond) = TouchedCells.Outline(heap, Nothing, Stop);
        var union = UnaryUnionOp.Union(heap.Select(t => (Shape)DrawnOutlines.Of(t)));
        Assert.True(area.IsValid);
        Assert.Equal(0, union.Difference(area).Area, 1e-9);
        Assert.Equal(0, area.Difference(union.Buffer(beyond)).Area, 1e-4 * area.Length * beyond);
        // some twenty millimetres by sixteen thousand squares
        Assert.InRange(beyond, 0.003, 0.01);
    }

    // each crosses all others: at the finest it would take minutes; and so many specks that their border is too long
    [Theory, InlineData(20_000, 60, 0.5), InlineData(60_000, 0.02, 0.7)]
    public void Squares_grow_where_there_is_too_much_to_draw(int count, double size, double most)
    {
        var heap = Heap(count, size, 100);
        var (area, beyond) = TouchedCells.Outline(heap, Nothing, Stop);
        Assert.True(area.IsValid);
        Assert.InRange(beyond, 0.05, most);
        using var edges = new Edges(area);
        foreach (var t in heap) Assert.True(edges.Hold((t.X0 + t.X1 + t.X2) / 3, (t.Y0 + t.Y1 + t.Y2) / 3));
        var random = new Random(8);
        for (var i = 0; i < 60; i++)
        {
            var (x, y) = (200 * random.NextDouble() - 50, 200 * random.NextDouble() - 50);
            if (edges.Hold(x, y)) Assert.True(heap.Min(t => Off(t, x, y)) <= beyond, $"{x}, {y}");
        }
    }

    private static double Off(Triangle t, double x, double y) =>
        DrawnOutlines.Of(t).Distance(Plane.Factory.CreatePoint(new Coordinate(x, y)));

    [Fact]
    public void A_hole_stays_where_it_is_wide_and_goes_where_it_is_narrower_than_what_may_be_told_beyond()
    {
        Assert.Equal(1, Holes(0.05));
        Assert.Equal(0, Holes(0.001));

        static int Holes(double width) => ((Polygon)TouchedCells.Outline(Framed(width), Nothing, Stop).Area).NumInteriorRings;

        static Triangle[] Framed(double w) => [.. Rectangle(0, 0, 5, 10), .. Rectangle(5 + w, 0, 10, 10), .. Rectangle(4, 0, 6, 3),
            .. Rectangle(4, 7, 6, 10)];

        static Triangle[] Rectangle(double left, double bottom, double right, double top) =>
            [new(left, bottom, right, bottom, right, top), new(left, bottom, right, top, left, top)];
    }

    [Fact]
    public void What_is_certain_is_covered_with_the_triangles()
    {
        var raster = SquareRaster.Over(0, 0, 10, 10, 10);
        var sure = new bool[100];
        for (var row = 2; row < 6; row++) sure.AsSpan(row * 10 + 3, 4).Fill(true);
        var certain = new CertainCells(raster, sure);
        var (area, beyond) = TouchedCells.Outline([new(20, 20, 25, 20, 20, 25)], certain, Stop);
        Assert.Equal(2, area.NumGeometries);
        Assert.True(area.Covers(Shapes.Rectangle(3, 2, 4, 4)));
        Assert.True(Plane.Offset(Shapes.Rectangle(3, 2, 4, 4), beyond).Covers(area.GetGeometryN(0)));
        Assert.InRange(area.Area, 16 + 12.5, 16 + 12.5 + 35 * beyond);
    }

    [Fact]
    public void A_heap_smaller_than_the_finest_square_has_an_outline()
    {
        var (area, beyond) = TouchedCells.Outline([new(3, 3, 3.0001, 3, 3, 3.0001)], Nothing, Stop);
        Assert.InRange(beyond, 0.001, 0.007);
        Assert.InRange(area.Area, 0.9e-5, 9e-5);
    }

    [Fact]
    public void An_outline_can_be_given_up() => Assert.Throws<OperationCanceledException>(
        () => TouchedCells.Outline(Heap(10, 3), Nothing, new CancellationToken(canceled: true)));
}
