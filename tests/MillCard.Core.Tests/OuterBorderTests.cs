using CsCheck;
using MillCard.Core.Geometry;
using MillCard.Core.Meshes;
using NetTopologySuite.Geometries;
using Xunit;

namespace MillCard.Core.Tests;

/// <summary>Outlines of heaps of triangles, against the triangles themselves.</summary>
public class OuterBorderTests
{
    /// <summary>Three corners counter-clockwise; null where they lie on a line.</summary>
    private static Coordinate[]? Turned(double x0, double y0, double x1, double y1, double x2, double y2) =>
        ((x1 - x0) * (y2 - y0) - (y1 - y0) * (x2 - x0)) switch
        {
            > 1e-3 => [new(x0, y0), new(x1, y1), new(x2, y2), new(x0, y0)],
            < -1e-3 => [new(x0, y0), new(x2, y2), new(x1, y1), new(x0, y0)],
            _ => null,
        };

    private static Gen<Coordinate[][]> Heap(Gen<double> at, int most) =>
        Gen.Select(at, at, at, at, at, at, (a, b, c, d, e, f) => Turned(a, b, c, d, e, f)).Array[1, most]
            .Select(all => all.OfType<Coordinate[]>().ToArray());

    private static IEnumerable<DirectedSegment> Border(Coordinate[][] triangles) => triangles.SelectMany(t =>
        Enumerable.Range(1, 3).Select(i => new DirectedSegment(t[i - 1].X, t[i - 1].Y, t[i].X, t[i].Y)));

    /// <summary>Whether the outline was found; where it was it must be right: on level lines across it, as much lies in it as lies in one
    /// triangle or another. Not held against an overlay of outlines that nearly coincide, which itself comes out wrong at times.</summary>
    private static bool Covers(Coordinate[][] triangles, CertainCells? certain = null)
    {
        var enclosed = OuterBorder.Enclosed([.. Border(triangles)], certain, TestContext.Current.CancellationToken);
        if (enclosed is null) return false;
        Assert.True(enclosed.IsValid);
        var lines = Enumerable.Range(0, 60).Select(i => 10 * (i + 0.3819660113) / 60).ToArray();
        var outline = Plane.Rings(enclosed).Select(r => r.Coordinates).ToArray();
        Assert.Equal(0, lines.Average(y => Math.Abs(Length(triangles.Select(t => At(t, y))) - Length([At(outline, y)]))), 1e-4);
        // and it is its own, not another's of the same length
        Assert.Equal(0, lines.Average(y => Math.Abs(Length([.. triangles.Select(t => At(t, y)), At(outline, y)])
            - Length([At(outline, y)]))), 1e-4);
        return true;
    }

    /// <summary>Where a level line crosses rings, from left to right.</summary>
    private static double[] At(Coordinate[][] rings, double y) => [.. rings.SelectMany(ring => At(ring, y)).Order()];

    private static double[] At(Coordinate[] ring, double y) => [.. Enumerable.Range(1, ring.Length - 1)
        .Where(i => ring[i - 1].Y <= y != ring[i].Y <= y)
        .Select(i => ring[i - 1].X + (y - ring[i - 1].Y) / (ring[i].Y - ring[i - 1].Y) * (ring[i].X - ring[i - 1].X)).Order()];

    /// <summary>How much of a line lies between one crossing and the next of any of them.</summary>
    private static double Length(IEnumerable<double[]> crossings)
    {
        var (sum, until) = (0.0, double.NegativeInfinity);
        foreach (var (from, to) in crossings.SelectMany(all => all.Chunk(2)).Select(pair => (pair[0], pair[1])).Order())
        {
            sum += Math.Max(0, to - Math.Max(from, until));
            until = Math.Max(until, to);
        }
        return sum;
    }

    /// <summary>Seldom does rounding leave a gap.</summary>
    private static void Covers(Gen<Coordinate[][]> heaps, int count, Func<Coordinate[][], CertainCells?>? certain = null)
    {
        var lost = 0;
        heaps.Sample(triangles =>
        {
            if (!Covers(triangles, certain?.Invoke(triangles))) Interlocked.Increment(ref lost);
        }, iter: count);
        Assert.InRange(lost, 0, count / 10);
    }

    // corners on corners, corners on edges, edges along edges, holes that touch their shells
    [Fact]
    public void Triangles_on_a_coarse_grid_cover_their_union() => Covers(Heap(Gen.Int[0, 6].Select(i => (double)i), 14), 1500);

    [Fact]
    public void Triangles_anywhere_cover_their_union() => Covers(Heap(Gen.Double[0, 10], 60), 500);

    // a metre away lies one more: all others crowd in a cell or two of the grid
    [Fact]
    public void Triangles_that_crowd_in_one_place_cover_their_union() => Covers(Heap(Gen.Double[0, 10], 60)
        .Select(heap => heap.Append(Turned(1e3, 1e3, 1e3 + 1, 1e3, 1e3, 1e3 + 1)!).ToArray()), 300);

    [Fact]
    public void What_is_surely_enclosed_changes_nothing() => Covers(Heap(Gen.Double[0, 10], 60), 300,
        triangles => triangles.Length > 0 ? EnclosedCells.Of([.. Border(triangles)], TestContext.Current.CancellationToken) : null);

    [Fact]
    public void What_is_surely_enclosed_lies_in_a_triangle_everywhere() =>
        Gen.Select(Heap(Gen.Double[0, 10], 60), Gen.Int).Sample(LiesInTriangles, iter: 200);

    private static void LiesInTriangles(Coordinate[][] triangles, int seed)
    {
        if (triangles.Length == 0) return;
        var random = new Random(seed);
        var cells = EnclosedCells.Of([.. Border(triangles)], TestContext.Current.CancellationToken);
        for (var i = 0; i < 300; i++)
        {
            var (x, y, size) = (10 * random.NextDouble(), 10 * random.NextDouble(), 0.02 + 0.3 * random.NextDouble());
            if (!cells.Holds(x, y, x + size, y + size)) continue;
            foreach (var (atX, atY) in new[] { (x, y), (x + size, y), (x, y + size), (x + size, y + size), (x + size / 2, y + size / 2) })
                Assert.Contains(triangles, t => Enumerable.Range(1, 3).All(k =>
                    (t[k].X - t[k - 1].X) * (atY - t[k - 1].Y) - (t[k].Y - t[k - 1].Y) * (atX - t[k - 1].X) >= -1e-6));
        }
    }

    [Fact]
    public void Nearly_all_of_a_large_square_is_surely_enclosed_however_it_stands()
    {
        var stop = TestContext.Current.CancellationToken;
        CertainCells Within(params (double X, double Y)[] c) =>
            EnclosedCells.Of([.. c.Zip([.. c[1..], c[0]], (a, b) => new DirectedSegment(a.X, a.Y, b.X, b.Y))], stop);
        var square = Within((0, 0), (10, 0), (10, 10), (0, 10));
        Assert.True(square.Holds(0.2, 0.2, 9.8, 9.8));
        Assert.InRange(square.Rectangles().Sum(r => r.Area), 92, 100);
        var onItsCorner = Within((5, 0), (10, 5), (5, 10), (0, 5));
        Assert.True(onItsCorner.Holds(2.8, 2.8, 7.2, 7.2));
        Assert.InRange(onItsCorner.Rectangles().Sum(r => r.Area), 42, 50);
    }

    // the border of this part runs many times along nearly the same line, where the general overlay lost half of it
    [Fact]
    public void A_border_that_runs_along_itself_many_times_loses_nothing()
    {
        var mesh = DemoParts.Read("net-ring-joint");
        var faces = new DownwardFaces(mesh, Neighbours.Of(mesh), double.PositiveInfinity, 1);
        var border = faces.Border(faces.All(TestContext.Current.CancellationToken));
        Assert.Equal(879.64, Winding.Resolve(border).Area, 0.01);
        // wound the other way round it covers as much
        Assert.Equal(879.64, Winding.Resolve([.. border.Select(s => new DirectedSegment(s.X1, s.Y1, s.X0, s.Y0))]).Area, 0.01);
    }

    [Theory, InlineData(1, 1), InlineData(0.4, 7)]
    public void Crossings_of_pieces_that_lie_anyhow_are_estimated_without_looking_for_them(double size, int times)
    {
        var random = new Random(11);
        DirectedSegment[] pieces = [.. Enumerable.Range(0, 4000).Select(_ =>
        {
            var (x, y) = (20 * random.NextDouble(), 20 * random.NextDouble());
            var (sin, cos) = Math.SinCos(2 * Math.PI * random.NextDouble());
            return new DirectedSegment(x, y, x + size * cos, y + size * sin);
        })];
        var crossings = pieces.Index().Sum(a => pieces.Take(a.Index).Count(b => Parted(a.Item, b) && Parted(b, a.Item)));
        // the same pieces again, the other way round, are no more
        DirectedSegment[] all = [.. Enumerable.Repeat(pieces, times).SelectMany(p => p),
            .. pieces.Select(s => new DirectedSegment(s.X1, s.Y1, s.X0, s.Y0))];
        Assert.InRange(Noding.Crossings(all) / crossings, 0.6, 1.5);

        static bool Parted(DirectedSegment s, DirectedSegment by)
        {
            double Side(double x, double y) => (by.X1 - by.X0) * (y - by.Y0) - (by.Y1 - by.Y0) * (x - by.X0);
            return Side(s.X0, s.Y0) > 0 != Side(s.X1, s.Y1) > 0;
        }
    }

    [Fact]
    public void Too_much_in_one_place_is_left_to_others()
    {
        var random = new Random(3);
        DirectedSegment[] rays = [.. Enumerable.Range(0, 9000).SelectMany(_ =>
        {
            var (sin, cos) = Math.SinCos(2 * Math.PI * random.NextDouble());
            return Border([Turned(50 * cos, 50 * sin, -50 * cos, -50 * sin, -50 * cos + sin, -50 * sin - cos)!]);
        })];
        Assert.Null(OuterBorder.Enclosed(rays, certain: null, TestContext.Current.CancellationToken));
    }

    private static NodedEdge[] Square(double x, double y, double side, bool hole)
    {
        Node[] corners = [Node.At(x, y), Node.At(x + side, y), Node.At(x + side, y + side), Node.At(x, y + side)];
        if (hole) Array.Reverse(corners);
        return [.. corners.Select((corner, i) => new NodedEdge(corner, corners[(i + 1) % 4], 1))];
    }

    // beside each other, over each other, one in the hole of another
    [Fact]
    public void Every_hole_belongs_to_the_shell_round_it()
    {
        NodedEdge[][] rings = [Square(0, 0, 20, hole: false), Square(5, 5, 4, hole: true), Square(30, 0, 40, hole: false),
            Square(35, 4, 30, hole: true), Square(45, 10, 12, hole: false), Square(47, 12, 3, hole: true), Square(52, 12, 3, hole: true),
            Square(0, 50, 20, hole: false), Square(2, 52, 16, hole: true)];
        foreach (var order in new[] { rings, [.. rings.Reverse()], [.. rings.OrderBy(r => r[0].From.Y)] })
        {
            var areas = LinkedRings.Areas([.. order.SelectMany(r => r)], TestContext.Current.CancellationToken)!;
            Assert.True(areas.IsValid);
            Assert.Equal([(144.0 - 18, 2), (144, 1), (384, 1), (700, 1)], Plane.Polygons(areas)
                .Select(p => (Math.Round(p.Area, 6), p.NumInteriorRings)).Order());
        }
    }

    [Fact]
    public void Areas_that_meet_at_two_corners_stay_two()
    {
        Node Corner(double x, double y) => Node.At(x, y);
        var (low, high) = (Corner(0, -10), Corner(0, 10));
        NodedEdge[] Crescent(double inner, double outer) =>
        [
            new(low, Corner(outer, 0), 1), new(Corner(outer, 0), high, 1), new(high, Corner(inner, 0), 1), new(Corner(inner, 0), low, 1),
        ];
        // in any order of their pieces
        NodedEdge[] pieces = [.. Crescent(inner: -8, outer: -3), .. Crescent(inner: 3, outer: 8)];
        for (var from = 0; from < pieces.Length; from++)
        {
            var areas = LinkedRings.Areas([.. pieces[from..], .. pieces[..from]], TestContext.Current.CancellationToken)!;
            Assert.Equal(2, areas.NumGeometries);
            Assert.True(areas.IsValid);
            Assert.Equal(100, areas.Area, 1e-6);
        }
    }
}
