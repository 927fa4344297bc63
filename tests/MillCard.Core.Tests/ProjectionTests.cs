using MillCard.Core.Clearance;
using MillCard.Core.Geometry;
using MillCard.Core.Meshes;
using MillCard.Core.Reach;
using NetTopologySuite.Geometries;
using NetTopologySuite.Operation.Union;
using Xunit;

namespace MillCard.Core.Tests;

/// <summary>Projections of parts whose faces overlap many times seen from above.</summary>
public sealed class ProjectionTests
{
    [Theory]
    [InlineData(0.6, 20)]
    [InlineData(2.2, 60)]
    public void A_bar_twisted_about_an_axis_outside_itself_covers_what_its_faces_cover(double turns, int steps) =>
        Covers(Solids.Twisted(10, 6, 40, turns, steps));

    [Fact]
    public void A_thread_covers_what_its_faces_cover() => Covers(Solids.Thread(5, 4, 2, 2.5, 48));

    [Fact]
    public void A_lattice_with_diagonals_covers_what_its_faces_cover() => Covers(Solids.Lattice(2, 7, 1.2, diagonals: true));

    [Fact]
    public void A_lattice_of_very_many_struts_covers_a_grid()
    {
        // 5 000 struts, 60 000 faces, all in line: seen from above squares are left open
        const double Cell = 4, Strut = 0.8;
        const int Cells = 40;
        var lattice = Solids.Lattice(Cells, Cell, Strut, diagonals: false);
        Assert.True(lattice.FaceCount > 60_000);
        var side = Cells * Cell + Strut;
        var open = Cells * Cells * (Cell - Strut) * (Cell - Strut);
        // on a raster of a millionth of a millimetre, along 20 m of edges
        Assert.Equal(side * side - open, Below(lattice, double.PositiveInfinity).Area, 0.03);
    }

    public static TheoryData<string> Demo => [.. DemoParts.Files.Select(f => Path.GetFileNameWithoutExtension(f)!)];

    [Theory, MemberData(nameof(Demo))]
    public void A_part_of_the_demo_covers_what_its_faces_cover(string part) => Covers(DemoParts.Read(part));

    [Fact]
    public void A_heap_of_loose_triangles_covers_what_they_cover()
    {
        var random = new Random(5);
        var corners = Enumerable.Range(0, 3 * 400).SelectMany(_ => new[] { random.NextSingle() * 60, random.NextSingle() * 60,
            random.NextSingle() * 60 }).ToArray();
        var faces = Enumerable.Range(0, 3 * 400).ToArray();
        for (var f = 0; f < faces.Length; f += 3) if (Twice(corners, f) > 0) (faces[f], faces[f + 1]) = (faces[f + 1], faces[f]);
        Covers(new Mesh(corners, faces));
    }

    [Fact]
    public void Part_of_a_twisted_bar_covers_what_lies_below_the_height()
    {
        // one whole turn below 40 of 80 mm: the same bar as one of 40 mm
        var tall = Solids.Twisted(10, 6, 80, 2, 96);
        var low = Solids.Twisted(10, 6, 40, 1, 48);
        var (below, whole) = (Below(tall, 40), Below(low, double.PositiveInfinity));
        Assert.Equal(0, Plane.Difference(below, whole).Area + Plane.Difference(whole, below).Area, 0.02);
        var above = Projection.Above(tall, Neighbours.Of(tall), 40).Area;
        Assert.Equal(whole.Area, above.Area, 0.05);
    }

    [Fact]
    public void A_bar_of_many_turns_covers_the_ring_that_it_sweeps()
    {
        // a square of 6 whose middle runs round at 10: from the inner side's middle at 7 to the outer corners
        var ring = Math.PI * (13 * 13 + 3 * 3 - 7 * 7);
        var swept = Below(Solids.Twisted(10, 6, 400, 12, 600), double.PositiveInfinity);
        Assert.InRange(swept.Area, 0.995 * ring, ring);
    }

    // no turn falls on another: the outline has a corner for every step, and every face crosses nearly all others
    [Theory, InlineData(1_000), InlineData(5_000), InlineData(40_000)]
    public void A_bar_of_many_turns_none_of_which_repeats_covers_the_ring_that_it_sweeps(int steps)
    {
        var (ring, round) = (Math.PI * (13 * 13 + 3 * 3 - 7 * 7), 2 * Math.PI * (Math.Sqrt(13 * 13 + 3 * 3) + 7));
        var mesh = Solids.Twisted(10, 6, 400, steps / 50 / Math.Sqrt(2), steps);
        var (swept, beyond) = Projection.Below(mesh, Neighbours.Of(mesh), double.PositiveInfinity);
        Assert.True(swept.IsValid);
        Assert.InRange(swept.Area, 0.9997 * ring, ring + 1.1 * round * beyond);
        Assert.InRange(beyond, 0, steps > 5_000 ? 0.4 : 0.02);
    }

    // whatever the way that is chosen by how much lies on each other, of all of them and of what lies below a height
    [Theory, InlineData(2_000, 0.5), InlineData(10_000, 0.5), InlineData(4_000, 4), InlineData(20_000, 2), InlineData(20_000, 2, 10),
        InlineData(10_000, 0.5, 4), InlineData(60_000, 0.3, 19.5)]
    public void Loose_triangles_cover_what_a_raster_of_points_says(int count, double side, double height = 1000)
    {
        var random = new Random(7);
        var corners = Enumerable.Range(0, count).SelectMany(_ =>
        {
            var (x, y, z) = (20 * random.NextSingle(), 20 * random.NextSingle(), 20 * random.NextSingle());
            return new[] { x, y, z, x, y + (float)side, z, x + (float)side, y, z + 4 };
        }).ToArray();
        var mesh = new Mesh(corners, [.. Enumerable.Range(0, 3 * count)]);
        var covered = Below(mesh, height);
        Assert.True(covered.IsValid);
        using var edges = new Edges(covered);
        for (var i = 0; i < 1000; i++)
        {
            var (x, y) = (22 * random.NextDouble(), 22 * random.NextDouble());
            var depth = Enumerable.Range(0, count).Max(f => DepthIn(corners.AsSpan(9 * f, 9), x, y));
            if (Math.Abs(depth) > 0.005) Assert.True(edges.Hold(x, y) == depth > 0, $"{x}, {y}: {depth}");
        }

        // how far inside the right-angled triangle, which climbs by 4 along X and ends at the height; below 0 outside
        double DepthIn(ReadOnlySpan<float> c, double x, double y) => Math.Min(Math.Min(x - c[0], y - c[1]),
            Math.Min((side - (x - c[0]) - (y - c[1])) / Math.Sqrt(2), (height - c[2]) / 4 * side - (x - c[0])));
    }

    // five thousand triangles far from each other, and so many in one place that not all pairs of them can be looked at
    [Fact]
    public void Of_a_heap_of_very_many_pieces_none_is_lost_and_nothing_is_told_far_from_them()
    {
        var random = new Random(5);
        var corners = new List<float>();
        for (var i = 0; i < 21_000; i++)
        {
            var (x, y) = i < 5_000 ? (3 * (i % 70), 3 * (i / 70)) : (random.NextSingle(), 300 + random.NextSingle());
            corners.AddRange([x, y, 1, x, y + 1, 1, x + 1, y, 1.1f]);
        }
        var mesh = new Mesh([.. corners], [.. Enumerable.Range(0, corners.Count / 3)]);
        var (covered, beyond) = Projection.Below(mesh, Neighbours.Of(mesh), double.PositiveInfinity);
        Assert.InRange(beyond, 0.01, 0.15);
        Assert.Equal(5_001, covered.NumGeometries);
        // the outline of every piece, 3.42 mm long, may stand so far off
        Assert.InRange(covered.Area, 5_000 * 0.5 + 3.2, 5_000 * 0.5 + 3.6 + 5_001 * 4 * beyond);
    }

    // four thousand triangles far from each other have their true outline, thirty thousand have too many corners
    [Theory, InlineData(64, 0, 0), InlineData(170, 0.1, 2.5)]
    public void An_outline_of_too_many_corners_is_taken_wider(int side, double least, double most)
    {
        var corners = new List<float>();
        for (var i = 0; i < side * side; i++)
        {
            var (x, y) = (2 * (i % side), 2 * (i / side));
            corners.AddRange([x, y, 1, x, y + 0.8f, 1, x + 0.8f, y, 1.1f]);
        }
        var mesh = new Mesh([.. corners], [.. Enumerable.Range(0, corners.Count / 3)]);
        var (covered, beyond) = Projection.Below(mesh, Neighbours.Of(mesh), double.PositiveInfinity);
        Assert.InRange(beyond, least, most);
        var widest = beyond > 0 ? Math.Pow(2 * side + 2 * beyond, 2) : 0.32001 * side * side;
        Assert.InRange(covered.Area, 0.31999 * side * side, widest);
    }

    [Fact]
    public void Footprints_tell_how_far_their_outlines_may_be_off()
    {
        Assert.Equal(0, new Footprints(Solids.Twisted(10, 6, 40, 2, 60)).Beyond);
        var deep = new Footprints(Solids.Twisted(10, 6, 400, 5_000 / 50 / Math.Sqrt(2), 5_000));
        Assert.Equal(Projection.Below(deep.Mesh, deep.Neighbours, double.PositiveInfinity).Beyond, deep.Beyond);
        Assert.InRange(deep.Beyond, 1e-4, 0.02);
    }

    [Fact]
    public void A_fit_can_be_given_up_where_a_projection_is_made_for_it()
    {
        using var stop = new CancellationTokenSource();
        var part = new StandingPart("bar", new Footprints(Solids.Twisted(10, 6, 40, 2, 60)), 60, 50, 0);
        var apron = new Apron(0.3, 4);
        var placed = new PlacedPart(part, new Surroundings(Cards.Bare(120, 110).Machine(), apron), null, stop.Token);
        stop.Cancel();
        // the whole projection is there; that of the lowest layers is not
        Assert.False(placed.Whole.IsEmpty);
        Assert.ThrowsAny<OperationCanceledException>(() => placed.Below(0.5));
        Assert.ThrowsAny<OperationCanceledException>(() => new Profile(part.Footprints, 0, mirrored: false, apron, stop.Token));
    }

    [Fact]
    public void A_projection_can_be_given_up()
    {
        using var stop = new CancellationTokenSource();
        stop.Cancel();
        var mesh = Solids.Twisted(10, 6, 40, 2, 60);
        var neighbours = Neighbours.Of(mesh);
        Assert.ThrowsAny<OperationCanceledException>(() => Projection.Below(mesh, neighbours, double.PositiveInfinity, stop.Token));
    }

    private static Shape Below(Mesh mesh, double height) => Projection.Below(mesh, Neighbours.Of(mesh), height).Area;

    /// <summary>Held against the union of all downward triangles, each by itself.</summary>
    private static void Covers(Mesh mesh)
    {
        var triangles = new List<Shape>();
        for (var f = 0; f < mesh.Faces.Length; f += 3)
            if (Twice(mesh.Corners, mesh.Faces[f], mesh.Faces[f + 1], mesh.Faces[f + 2]) < -1e-6)
                triangles.Add(Plane.Factory.CreatePolygon([.. Enumerable.Range(0, 4).Select(k => At(mesh, mesh.Faces[f + k % 3]))]));
        var expected = UnaryUnionOp.Union(triangles);
        var covered = Below(mesh, double.PositiveInfinity);
        Assert.True(covered.IsValid);
        Assert.Equal(0, expected.Difference(covered).Area, 1e-3 * expected.Length);
        Assert.Equal(0, covered.Difference(expected).Area, 1e-3 * expected.Length);
    }

    private static double Twice(float[] corners, int first) => Twice(corners, first, first + 1, first + 2);

    private static double Twice(float[] c, int a, int b, int d) =>
        (c[3 * b] - c[3 * a]) * (double)(c[3 * d + 1] - c[3 * a + 1]) - (c[3 * b + 1] - c[3 * a + 1]) * (double)(c[3 * d] - c[3 * a]);

    private static Coordinate At(Mesh mesh, int corner) => new(mesh.Corners[3 * corner], mesh.Corners[3 * corner + 1]);
}
