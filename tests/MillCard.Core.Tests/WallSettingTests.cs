using MillCard.Core.Documents;
using MillCard.Core.Geometry;
using MillCard.Core.Meshes;
using MillCard.Core.Slicing;
using MillCard.Core.Slicing.Jobs;
using MillCard.Core.Slicing.Paths;
using MillCard.Core.Slicing.Walls;
using NetTopologySuite.Geometries;
using Xunit;
using static MillCard.Core.Tests.Engine;
using Point = MillCard.Core.Geometry.Point;

namespace MillCard.Core.Tests;

/// <summary>Settings of walls, seen in the program's own text.</summary>
public class WallSettingTests
{
    private const double Width = 0.45, Height = 0.2;

    private static readonly Recipe Walled = Plain with
    {
        LineWidth = Width,
        Walls = 2,
        TopLayers = 0,
        BottomLayers = 0,
        Infill = new() { Density = 0 },
        Speeds = Plain.Speeds with { OuterWall = 40, InnerWall = 50, FirstLayer = 40, Bridge = 15, LeastLayerTime = 0 },
    };

    private static ReadMove[] Read(Mesh mesh, Recipe recipe) => ReadMoves.Of(Slice(mesh, recipe).Gcode);

    private static double Radius(Point p) => p.To(new Point(150, 100));

    // Layers of 0.2 mm hang over by 0.2·tan: of a line of 0.45 mm that is 0.26, 0.54, 0.80 and 1.2 times its width.
    [Theory, InlineData(20, 40.0), InlineData(31, 36.0), InlineData(50.5, 24.0), InlineData(61, 12.0), InlineData(69.7, 15.0)]
    public void A_wall_is_as_slow_as_its_share_over_air_asks_for(double degrees, double speed)
    {
        var recipe = Walled with { Speeds = Walled.Speeds with { Overhangs = new() { Quarter = 0.9, Half = 0.6, ThreeQuarters = 0.3 } } };
        var moves = Read(Solids.Leaning(degrees, 3), recipe).Laying(8);
        var outer = moves.Where(m => Radius(m.Middle) > moves.Max(o => Radius(o.Middle)) - Width / 2).ToArray();
        Assert.Equal(2 * Math.PI * outer.Average(m => Radius(m.Middle)), outer.Sum(m => m.Length), 0.5);
        Assert.All(outer, m => Assert.Equal(speed, m.Speed, 0.01));
    }

    [Fact]
    public void What_hangs_wholly_gets_the_bridges_speed_and_fan_and_the_rest_its_own()
    {
        var result = Engine.Slice(Job(Solids.Shelf, Walled) with
        {
            Filament = Cards.Petg with { Fan = new() { Share = 0.2, FromLayer = 1, Bridge = 1 } },
        });
        var moves = ReadMoves.Of(result.Gcode).Laying(21);
        var edge = moves.Min(m => Math.Min(m.From.X, m.To.X)) - Width / 2 + 20;
        var hanging = moves.Where(m => Math.Min(m.From.X, m.To.X) >= edge + Width / 2 - 0.02 && m.Speed == 15).ToArray();
        // three sides of what juts out, by two walls
        Assert.InRange(hanging.Sum(m => m.Length), 2 * (20 + 2 * 6) - 6, 2 * (20 + 2 * 6));
        Assert.All(hanging, m => Assert.Equal(255, m.Fan));
        var carried = moves.Where(m => Math.Max(m.From.X, m.To.X) < edge + Width).ToArray();
        Assert.True(carried.Length > 4);
        Assert.All(carried, m => Assert.Equal(51, m.Fan));
        Assert.All(carried, m => Assert.True(m.Speed is 40 or 50));
        // the same lines as without
        Assert.Equal(Slice(Solids.Shelf, Walled with { Speeds = Walled.Speeds with { Bridge = 40 } }).Layers[20].Paths.Sum(p => p.Length),
            moves.Sum(m => m.Length), 0.05);
        // and nothing where nothing hangs
        Assert.All(ReadMoves.Of(result.Gcode).Laying(20), m => Assert.True(m.Speed is 40 or 50));
    }

    [Fact]
    public void A_support_carries_a_wall_as_the_part_does()
    {
        var held = Walled with { Supports = new() { Pattern = SupportPattern.Crossed, GapXy = 0.2, InterfaceSpacing = 0 } };
        static double Slow(ReadMove[] moves) => moves.Laying(21).Where(m => m.Speed == 15).Sum(m => m.Length);
        Assert.True(Slow(Read(Solids.Shelf, Walled)) > 50);
        Assert.True(Slow(Read(Solids.Shelf, held)) < 5);
    }

    /// <summary>A plate with a round hole.</summary>
    private static Mesh Drilled(double radius) => Solids.Extruded((Polygon)Plane.Difference(Shapes.Rectangle(0, 0, 30, 30),
        Plane.Factory.CreatePoint(new Coordinate(15, 15)).Buffer(radius, 32)), 2);

    [Fact]
    public void Small_rings_are_slower_and_no_others()
    {
        var moves = Read(Drilled(3), Walled with { Speeds = Walled.Speeds with { Small = 12, SmallBelow = 22 } }).Laying(5);
        // rings round the hole: of 3.225 mm radius 20.3 mm long, the next one 22.9
        foreach (var m in moves) Assert.Equal(Radius(m.Middle) < 3.4, m.Speed == 12);
        Assert.Contains(moves, m => m.Speed == 12);
    }

    [Theory, InlineData(0.2), InlineData(-0.15)]
    public void Holes_alone_are_compensated_by_their_own_setting(double holes)
    {
        var moves = Read(Drilled(6), Walled with { Compensation = new() { Xy = 0.1, Holes = holes } }).Laying(5);
        Assert.Equal(6 - 0.1 - holes + Width / 2, moves.Min(m => Radius(m.Middle)), 0.02);
        Assert.Equal(15 + 0.1 - Width / 2, moves.Max(m => m.To.X) - 150, 0.01);
    }

    [Fact]
    public void Every_other_layer_has_one_wall_more()
    {
        var moves = Read(Block.Of(20, 20, 2), Walled with { Wall = new() { Alternate = true } });
        for (var layer = 1; layer <= 10; layer++) Assert.Equal(layer % 2 == 0 ? 3 : 2, moves.Laying(layer).Runs().Count);
    }

    [Fact]
    public void Fill_comes_before_walls_where_that_is_wanted()
    {
        var filled = Walled with { Infill = new() { Density = 0.3 } };
        static bool WallsFirst(ReadMove[] moves) => moves.Laying(5).Runs() is var runs
            && Math.Abs(runs[0][0].Turned % 90) < 1e-3 && Math.Abs(runs[^1][0].Turned % 90 - 45) < 1e-3;
        Assert.True(WallsFirst(Read(Block.Of(20, 20, 2), filled)));
        var first = Read(Block.Of(20, 20, 2), filled with { Wall = new() { FillFirst = true } });
        Assert.False(WallsFirst(first));
        Assert.Equal(Read(Block.Of(20, 20, 2), filled).Laying(5).Sum(m => m.Fed), first.Laying(5).Sum(m => m.Fed), 0.01);
    }

    [Fact]
    public void A_texture_stays_within_its_depth_and_leaves_the_inner_wall_alone()
    {
        var (plain, rough) = (Read(Block.Of(20, 20, 2), Walled), Read(Block.Of(20, 20, 2),
            Walled with { Wall = new() { Texture = 0.4, TextureGrain = 0.5 }, Deviation = 0 }));
        double Off(Point p) => 10 - Width / 2 - Math.Max(Math.Abs(p.X - 150), Math.Abs(p.Y - 100));
        var outer = rough.Laying(5).Where(m => m.Speed == 40).ToArray();
        var offs = outer.Where(m => Math.Min(Math.Abs(m.To.X - 150), Math.Abs(m.To.Y - 100)) < 9).Select(m => Off(m.To)).ToArray();
        Assert.InRange(outer.Length, 140, 170);
        Assert.InRange(offs.Max(), 0.15, 0.2001);
        Assert.InRange(offs.Min(), -0.2001, -0.15);
        Assert.InRange(offs.Average(), -0.03, 0.03);
        Assert.Equal(plain.Laying(5).Where(m => m.Speed == 50).Select(m => m.To),
            rough.Laying(5).Where(m => m.Speed == 50).Select(m => m.To));
        // no two layers alike, and the first stays smooth
        Assert.NotEqual(outer.Select(m => m.To), rough.Laying(6).Where(m => m.Speed == 40).Select(m => m.To));
        Assert.Equal(plain.Laying(1).Select(m => m.To), rough.Laying(1).Select(m => m.To));
    }

    [Fact]
    public void A_top_with_one_wall_is_filled_up_to_it()
    {
        var recipe = Plain with { LineWidth = Width, Walls = 3, TopLayers = 3 };
        var (plain, one) = (Slice(Solids.Shelf, recipe), Slice(Solids.Shelf, recipe with { Top = new() { OneWall = true } }));
        static int Rings(SliceResult result, int layer) => ReadMoves.Of(result.Gcode).Laying(layer).Runs()
            .Count(r => r[^1].To.To(r[0].From) < 0.01);
        Assert.Equal((3, 3), (Rings(plain, 30), Rings(plain, 29)));
        Assert.Equal((1, 3), (Rings(one, 30), Rings(one, 29)));
        Assert.Equal(1, Plastic(one.Layers.TakeLast(1)) / Plastic(plain.Layers.TakeLast(1)), 0.02);
    }

    private static readonly (double, double)[] Ell = [(0, 0), (20, 0), (20, 8), (8, 8), (8, 20), (0, 20)];

    [Fact]
    public void A_seam_in_a_hollow_corner_lies_there_on_every_layer()
    {
        var seams = Seams(Read(Solids.Prism(Ell, 2), Walled with { Walls = 1, Wall = new() { Seam = Seam.Hollow } }));
        // the corner of the contour is 2 mm below and left of the box's middle; the line runs round it at half its width
        Assert.All(seams, s => Assert.Equal(Width / 2, s.To(new Point(148, 98)), 0.02));
    }

    [Fact]
    public void Seams_lie_in_their_zone_where_the_outline_passes_through_it()
    {
        var job = Job(Block.Of(20, 20, 2), Walled) with
        {
            Zones = [new(Box(ZoneUse.Seam, 143, 3, 3))],
        };
        var seams = Seams(ReadMoves.Of(Engine.Slice(job).Gcode));
        Assert.All(seams.Skip(5 * 2), s => Assert.Equal(143, s.X, 0.02));
        Assert.All(seams.Take(5 * 2), s => Assert.NotEqual(143, s.X, 0.5));
    }

    [Fact]
    public void Seams_lie_on_faces_that_are_painted_for_them()
    {
        var job = Job(Block.Of(20, 20, 2), Walled);
        var seams = Seams(ReadMoves.Of(Engine.Slice(Painted(job, true, x => x > 9.9)).Gcode));
        // in the middle of the right side, all walls of a layer side by side
        Assert.All(seams, s => Assert.InRange(s.X, 160 - 2 * Width, 160));
        Assert.All(seams, s => Assert.Equal(100, s.Y, 2.0));
    }

    [Fact]
    public void Seams_keep_off_faces_that_are_painted_against_them()
    {
        var job = Job(Block.Of(20, 20, 2), Walled with { Wall = new() { Seam = Seam.Back } });
        Assert.All(Seams(ReadMoves.Of(Engine.Slice(job).Gcode)), s => Assert.True(s.X > 159));
        // of the two corners at the back the right one is painted with its side
        var seams = Seams(ReadMoves.Of(Engine.Slice(Painted(job, false, x => x > 9.9)).Gcode));
        Assert.All(seams, s => Assert.True(s is { X: < 141, Y: > 109 }));
    }

    [Fact]
    public void A_face_painted_for_a_seam_asks_for_no_support()
    {
        var table = Solids.Mushroom;
        var job = Job(table, Walled);
        var marked = job.Parts[0] with { Part = job.Parts[0].Part with { Marks = [All(table, MarkUse.Seam)] } };
        Assert.DoesNotContain(Engine.Slice(job with { Parts = [marked] }).Layers.SelectMany(l => l.Paths), p => p.Kind == PathKind.Support);
        marked = marked with { Part = marked.Part with { Marks = [All(table, MarkUse.Support)] } };
        Assert.Contains(Engine.Slice(job with { Parts = [marked] }).Layers.SelectMany(l => l.Paths), p => p.Kind == PathKind.Support);

        static FaceMark All(Mesh mesh, MarkUse use) => new() { Use = use, Wanted = true, Faces = [.. Enumerable.Range(0, mesh.FaceCount)] };
    }

    /// <summary>The upright faces of a part whose corners all satisfy, painted for a seam or against it.</summary>
    private static SliceJob Painted(SliceJob job, bool wanted, Func<float, bool> satisfies)
    {
        var part = job.Parts[0];
        var (middle, mesh) = ((part.Mesh.Box.MinX + part.Mesh.Box.MaxX) / 2, part.Mesh);
        int[] faces = [.. Enumerable.Range(0, mesh.FaceCount)
            .Where(f => Enumerable.Range(0, 3).All(k => satisfies(mesh.Corners[3 * mesh.Faces[3 * f + k]] - middle)))];
        Assert.NotEmpty(faces);
        return job with
        {
            Parts = [part with { Part = part.Part with { Marks = [new() { Use = MarkUse.Seam, Wanted = wanted, Faces = faces }] } }],
        };
    }

    [Theory]
    [InlineData(1)]
    [InlineData(2)]
    [InlineData(4)]
    public void Walls_come_to_as_much_as_is_said(int walls)
    {
        var recipe = Walled with { Walls = walls, Widths = new() { OuterWall = 0.9, InnerWall = 1.2 } };
        var job = Job(Block.Of(30, 30, 2), recipe);
        var moves = ReadMoves.Of(Engine.Slice(job).Gcode).Laying(5);
        var innermost = moves.Runs().Select(r => r.Max(m => m.To.X)).Order().First();
        var inner = walls == 1 ? 0.9 : 1.2;
        Assert.Equal(WallThickness.Of(recipe, 0.2), 165 - (innermost - inner * Width / 2), 5e-3);
    }

    [Fact]
    public void Inner_walls_may_have_a_seam_of_their_own()
    {
        var seams = Seams(Read(Solids.Prism(Ell, 2), Walled with { Wall = new() { Seam = Seam.Hollow, InnerSeam = Seam.Back } }));
        Assert.All(seams.Index().Where(s => s.Index % 2 == 0), s => Assert.InRange(s.Item.Y, 109, 109.5));
        Assert.All(seams.Index().Where(s => s.Index % 2 == 1), s => Assert.Equal(Width / 2, s.Item.To(new Point(148, 98)), 0.02));
    }

    /// <summary>At the back of a block, from 1 mm up.</summary>
    private static BoxZone Box(ZoneUse use, double x, double width, double depth) =>
        new() { Id = "z", Name = "z", Use = use, X = x, Y = 110, Z = 1, Width = width, Depth = depth, Height = 9 };

    private static Point[] Seams(ReadMove[] moves) =>
        [.. Enumerable.Range(1, 10).SelectMany(layer => moves.Laying(layer).Runs().Select(r => r[0].From))];

    [Fact]
    public void A_zone_that_cuts_takes_its_share_away()
    {
        var job = Job(Block.Of(20, 20, 2), Plain with { Infill = new() { Density = 1 } }) with
        {
            Zones = [new(Box(ZoneUse.Cut, 150, 6, 12))],
        };
        var result = Engine.Slice(job);
        Assert.Equal(1, Plastic(result.Layers) / (20 * 20 * 2 - 6 * 6 * 1), 0.02);
        Assert.All(ReadMoves.Of(result.Gcode).Laying(8), m => Assert.False(Math.Abs(m.Middle.X - 150) < 2.9 && m.Middle.Y > 104.1));
    }
}
