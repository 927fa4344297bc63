using CsCheck;
using MillCard.Core.Geometry;
using NetTopologySuite.Geometries;
using Xunit;
using Triangle = MillCard.Core.Geometry.Triangle;

namespace MillCard.Core.Tests;

/// <summary>Squares that heaps of triangles surely cover, against NetTopologySuite's own answers.</summary>
public sealed class CertainCellsTests
{
    private static readonly CancellationToken Stop = CancellationToken.None;

    /// <summary>Corners beside all lines of a raster.</summary>
    private static readonly Gen<Triangle> Triangles =
        Gen.Int[-1000, 999].Select(c => 0.01 * c + 0.003).Array[6]
            .Select(c => new Triangle(c[0], c[1], c[2], c[3], c[4], c[5])).Where(t => t.TwiceArea > 0.1);

    [Fact]
    public void What_of_a_triangle_lies_between_two_heights_is_as_wide_as_its_section() =>
        Gen.Select(Triangles, Gen.Int[-120, 120].Select(b => 0.1 * b), Gen.Int[1, 50].Select(h => 0.1 * h)).Sample((t, bottom, height) =>
    {
        var (left, right) = new Banded(t).Between(bottom, bottom + height);
        var section = DrawnOutlines.Of(t).Intersection(Shapes.Rectangle(-50, bottom, 100, height)).EnvelopeInternal;
        Assert.Equal(section.IsNull, left > right);
        if (section.IsNull) return;
        Assert.Equal(section.MinX, left, 1e-6);
        Assert.Equal(section.MaxX, right, 1e-6);
    }, iter: 1000);

    /// <summary>Triangles of about a size anywhere on a square of 20.</summary>
    private static Triangle[] Heap(int count, double size)
    {
        var random = new Random(3);
        double Near() => size * (2 * random.NextDouble() - 1);
        return [.. Enumerable.Range(0, count).Select(_ => (X: 20 * random.NextDouble(), Y: 20 * random.NextDouble()))
            .Select(p => new Triangle(p.X, p.Y, p.X + Near(), p.Y + Near(), p.X + Near(), p.Y + Near()))];
    }

    [Theory, InlineData(10_000, 0.9), InlineData(30_000, 3)]
    public void What_is_surely_filled_lies_in_one_triangle_or_another(int count, double size)
    {
        var heap = Heap(count, size);
        var filled = FilledCells.Of(heap, Stop)!;
        var (random, held) = (new Random(5), 0);
        for (var i = 0; i < 2000; i++)
        {
            var (x, y) = (-size + (20 + 2 * size) * random.NextDouble(), -size + (20 + 2 * size) * random.NextDouble());
            if (!filled.Holds(x, y, x, y)) continue;
            held++;
            Assert.Contains(heap, t => Contains(t, x, y));
        }
        // about half at the border of the lot, nearly all within
        Assert.InRange(held, 1000, 2000);
    }

    private static bool Contains(Triangle t, double x, double y)
    {
        var (a, b, c) = (Turn(t.X0, t.Y0, t.X1, t.Y1), Turn(t.X1, t.Y1, t.X2, t.Y2), Turn(t.X2, t.Y2, t.X0, t.Y0));
        return a >= 0 && b >= 0 && c >= 0 || a <= 0 && b <= 0 && c <= 0;

        double Turn(double ax, double ay, double bx, double by) => (bx - ax) * (y - ay) - (by - ay) * (x - ax);
    }

    [Fact]
    public void A_triangle_is_held_where_every_square_that_it_meets_is_sure()
    {
        const int Side = 40;
        var raster = SquareRaster.Over(-10, -10, 10, 10, Side);
        Gen.Select(Triangles, Gen.Int[3, Side - 4], Gen.Int[3, Side - 4]).Sample((t, row, column) =>
        {
            var sure = new bool[Side * Side];
            sure.AsSpan().Fill(true);
            sure[row * Side + column] = false;
            var (square, drawn) = (Shapes.Rectangle(raster.X(column), raster.Y(row), raster.Size, raster.Size), DrawnOutlines.Of(t));
            // where a corner is hardly touched is left to rounding
            if (drawn.Distance(square) is > 0 and < 1e-6 || drawn.Intersection(square).Area is > 0 and < 1e-6) return;
            Assert.Equal(!square.Intersects(drawn), new CertainCells(raster, sure).Holds(t));
        }, iter: 2000);
    }

    [Fact]
    public void Few_triangles_and_those_that_lie_beside_each_other_are_left_to_others()
    {
        Assert.Null(FilledCells.Of(Heap(9_999, 3), Stop));
        Assert.Null(FilledCells.Of(Heap(10_000, 0.4), Stop));
        Assert.Throws<OperationCanceledException>(() => FilledCells.Of(Heap(10_000, 3), new CancellationToken(canceled: true)));
    }

    [Fact]
    public void The_border_of_squares_encloses_them()
    {
        var raster = SquareRaster.Over(0, 0, 12, 9, 12);
        var sure = new bool[144];
        // a ring of three squares all round a hole of two by three, and a lone one that goes
        for (var row = 1; row < 9; row++) sure.AsSpan(row * 12 + 1, 9).Fill(true);
        foreach (var row in new[] { 4, 5 }) sure.AsSpan(row * 12 + 4, 3).Clear();
        sure[10 * 12 + 11] = true;
        var area = OuterBorder.Enclosed(new CertainCells(raster, sure).Border(), certain: null, Stop)!;
        Assert.Equal(72 - 6, area.Area, 1e-6);
        Assert.Equal((1, 1, 10, 9), (area.EnvelopeInternal.MinX, area.EnvelopeInternal.MinY, area.EnvelopeInternal.MaxX,
            area.EnvelopeInternal.MaxY));
        Assert.Single(((Polygon)area).InteriorRings);
    }
}
