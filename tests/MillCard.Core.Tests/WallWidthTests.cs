using System.Text.Json;
using CsCheck;
using MillCard.Core.Documents;
using MillCard.Core.Findings;
using MillCard.Core.Geometry;
using MillCard.Core.Slicing;
using MillCard.Core.Slicing.Paths;
using MillCard.Core.Slicing.Sections;
using NetTopologySuite.Geometries;
using Xunit;
using static MillCard.Core.Tests.Engine;

namespace MillCard.Core.Tests;

/// <summary>Walls of every thickness: as much plastic as there is room, no holes between lines, nothing dropped in silence.</summary>
public sealed class WallWidthTests
{
    private const double Height = 0.2, Round = 1 - Math.PI / 4;
    private static readonly Recipe Solid = Plain with { Infill = new() { Density = 1 }, Walls = 3 };
    private static readonly Shape Axis = Plane.Factory.CreatePoint(new Coordinate(20, 20));

    private static Polygon Ring(double thickness) => (Polygon)Axis.Buffer(10, 24).Difference(Axis.Buffer(10 - thickness, 24));

    private static Polygon Outline(params (double X, double Y)[] corners) =>
        Plane.Factory.CreatePolygon([.. corners.Append(corners[0]).Select(c => new Coordinate(c.X, c.Y))]);

    /// <summary>A plate with a fin at its edge.</summary>
    private static Polygon Fin(double thickness) =>
        (Polygon)Shapes.Rectangle(0, 0, 20, 20).Union(Shapes.Rectangle(19.5, 8, 8.5, thickness));

    private static Polygon Star(int tips, double inner, double outer) => Outline([.. Enumerable.Range(0, 2 * tips)
        .Select(i => (20 + (i % 2 == 0 ? outer : inner) * Math.Cos(i * Math.PI / tips),
            20 + (i % 2 == 0 ? outer : inner) * Math.Sin(i * Math.PI / tips)))]);

    private static Polygon Bent(double thickness) => Bent(thickness, 5, 0.15);

    private static Polygon Bent(double thickness, double height, double turn) => (Polygon)Plane.Factory.CreateLineString([.. Enumerable
        .Range(0, 60).Select(i => new Coordinate(20 + 0.2 * i, 20 + height * Math.Sin(i * turn)))]).Buffer(thickness / 2, 8);

    private static SliceResult Sliced(Polygon section, Recipe recipe) => Slice(Solids.Extruded(section, 3 * Height), recipe);

    /// <summary>Where the section of a sliced part lies on the bed.</summary>
    private static Shape Placed(Polygon section) =>
        Plane.Moved(section, 150 - section.EnvelopeInternal.Centre.X, 100 - section.EnvelopeInternal.Centre.Y);

    /// <summary>Plastic of the middle layer against its room: the section without what the round sides of its outermost lines leave
    /// free.</summary>
    private static double Filled(Polygon section, Recipe recipe) => Plastic([Sliced(section, recipe).Layers[1]])
        / ((section.Area - section.Length / 2 * Round * Height) * Height);

    public static TheoryData<double> Thicknesses => [.. Enumerable.Range(0, 25).Select(i => Math.Round(0.25 + 0.2 * i, 2))];

    [Theory, MemberData(nameof(Thicknesses))]
    public void A_straight_rib_holds_its_plastic(double from)
    {
        for (var thickness = from; thickness < from + 0.195; thickness += 0.01)
            Assert.Equal(1, Filled(Shapes.Rectangle(0, 0, 40, thickness), Solid), 0.03);
    }

    [Theory, MemberData(nameof(Thicknesses))]
    public void A_ring_holds_its_plastic(double from)
    {
        foreach (var thickness in new[] { from, from + 0.07, from + 0.13 }) Assert.Equal(1, Filled(Ring(thickness), Solid), 0.03);
    }

    // what used to vanish, to be laid twice or to stay hollow between two skins
    [Theory, InlineData(0.448), InlineData(0.449), InlineData(0.45), InlineData(0.4505), InlineData(0.455), InlineData(1), InlineData(1.01),
        InlineData(1.75), InlineData(1.8), InlineData(2.1), InlineData(2.2), InlineData(3)]
    public void A_fin_on_a_plate_holds_its_plastic(double thickness)
    {
        var fin = Shapes.Rectangle(20, 8, 8, thickness);
        var layer = Sliced(Fin(thickness), Solid).Layers[1];
        // the part's middle stands at X 150, Y 100
        var (x, y) = (150 - 14.0, 100 - 10.0);
        // two sides and the end stand free
        Assert.Equal(1, LaidIn(layer, Plane.Moved(fin, x, y)) / ((fin.Area - (8 + thickness / 2) * Round * Height) * Height), 0.04);
    }

    /// <summary>Plastic of a layer's lines within an area, mm³.</summary>
    private static double LaidIn(LayerPlan layer, Shape area) => layer.Paths.Sum(path =>
        Enumerable.Range(1, path.Points.Length - (path.Closed ? 0 : 1)).Sum(i =>
        {
            var (a, b) = (path.Points[i - 1], path.Points[i % path.Points.Length]);
            return Plane.Factory.CreateLineString([new(a.X, a.Y), new(b.X, b.Y)]).Intersection(area).Length * path.SectionTo(i, Height);
        }));

    [Theory, InlineData(0.3), InlineData(0.45), InlineData(0.6)]
    public void A_straight_rib_of_one_line_is_one_move(double thickness)
    {
        var path = Assert.Single(Sliced(Shapes.Rectangle(0, 0, 40, thickness), Solid).Layers[1].Paths);
        Assert.Equal(2, path.Points.Length);
        Assert.Equal(thickness, path.Widest, 0.005);
    }

    [Fact]
    public void A_wedge_gets_ever_more_lines_and_its_single_one_widens_as_it_does()
    {
        // 0.3 to 3.1 mm thick over 40 mm
        var paths = Sliced(Outline((0, 0), (40, -1.4), (40, 1.7), (0, 0.3)), Solid).Layers[1].Paths;
        int Across(double at) => paths.Sum(p => Crossings(p, 150 - 20 + at));
        Assert.Equal([1, 2, 3, 4, 5, 6, 7], new[] { 2.0, 8, 14, 20, 25, 31, 37 }.Select(Across));
        var single = paths.Where(p => p.Points.Min(q => q.X) < 131).MinBy(p => p.Length)!;
        Assert.NotNull(single.Widths);
        Assert.InRange(single.Widths.Max() / single.Widths.Min(), 1.8, 2.4);
    }

    private static int Crossings(ToolPath path, double x) => Enumerable.Range(1, path.Points.Length - (path.Closed ? 0 : 1))
        .Count(i => path.Points[i - 1].X < x != path.Points[i % path.Points.Length].X < x);

    public static TheoryData<string> Shaped =>
        ["ring", "wide ring", "star", "bent", "thick bent", "tee", "angle", "letter", "fin", "square", "dot", "block", "disc", "five sides",
            "eight tips", "point", "flat point", "six arms", "nine tips", "capital", "bend", "long fin", "leaning bar",
            "eight long tips", "steep bend", "small star", "cross", "zigzag", "small point", "nine small tips", "twelve tips"];

    private static Polygon Of(string shape) => shape switch
    {
        "ring" => Ring(1),
        "wide ring" => Ring(1.9),
        "star" => Star(5, 2.4, 7),
        "bent" => Bent(0.9),
        "thick bent" => Bent(2.3),
        "tee" => (Polygon)Shapes.Rectangle(0, 0, 14, 1.2).Union(Shapes.Rectangle(6.4, 0, 1.2, 9)),
        "angle" => (Polygon)Shapes.Rectangle(0, 0, 14, 1.6).Union(Shapes.Rectangle(0, 0, 1.6, 9)),
        "letter" => (Polygon)Shapes.Rectangle(0, 0, 1.5, 9).Union(Shapes.Rectangle(0, 0, 6, 0.8)).Union(Shapes.Rectangle(0, 4, 5, 0.8))
            .Union(Shapes.Rectangle(0, 8.2, 6, 0.8)),
        "fin" => Fin(1),
        "block" => Shapes.Rectangle(0, 0, 12, 9),
        "disc" => (Polygon)Axis.Buffer(6, 24),
        "five sides" => Star(5, 8 * Math.Cos(Math.PI / 5), 8),
        "eight tips" => Star(8, 5, 9),
        "square" => Shapes.Rectangle(0, 0, 1.3, 1.3),
        "point" => Outline((0, 0), (10, 0), (5, 12)),
        "flat point" => Outline((0, 0), (12, 0), (6, 6)),
        "six arms" => Star(6, 2, 5),
        "nine tips" => Star(9, 6, 10),
        "capital" => (Polygon)Outline((0, 0), (4, 11), (5.5, 11), (9.5, 0), (8, 0), (4.75, 9), (1.5, 0))
            .Union(Shapes.Rectangle(2, 3, 5.5, 1.2)),
        "bend" => Bent(3.7),
        "long fin" => Fin(1.9),
        "eight long tips" => Star(8, 3, 8),
        "steep bend" => Bent(3.35),
        "small star" => Star(7, 3, 6),
        "cross" => (Polygon)Shapes.Rectangle(0, 6.645, 14, 0.71).Union(Shapes.Rectangle(6.645, 0, 0.71, 14)),
        "zigzag" => (Polygon)Plane.Factory.CreateLineString([new(0, 10), new(2.5, 0), new(5, 8), new(7.5, 0), new(10, 10)])
            .Buffer(0.3, 8),
        "small point" => Outline((0, 0), (3, 0), (1.5, 2.598)),
        "nine small tips" => Star(9, 2.4, 7),
        "twelve tips" => Star(12, 3.2, 9.9),
        "leaning bar" => Outline((0, 0), (12, 5), (10, 8.2), (-2, 3.2)),
        _ => (Polygon)Axis.Buffer(0.4, 12),
    };

    // the program is read by itself and held against the outline from which the mesh was made
    [Theory, MemberData(nameof(Shaped))]
    public void What_the_program_lays_covers_the_section_and_hardly_more(string shape)
    {
        var (cover, outside, hole, plastic) = Read(Of(shape));
        // sharp tips are narrower than the least line; what overlaps in the turns of a single line makes it narrower
        var least = shape is "star" or "square" or "dot" or "six arms" or "small point" or "nine small tips" or "twelve tips" or "zigzag"
            ? 0.96 : 0.98;
        Assert.True(cover >= least, $"{cover:0.000} of it is covered");
        Assert.InRange(outside, 0, 0.225);
        Assert.InRange(hole, 0, 0.11);
        Assert.InRange(plastic, 0.97, 1.03);
    }

    [Theory, InlineData(0.4), InlineData(0.6), InlineData(0.72), InlineData(1.12), InlineData(1.56), InlineData(2.44)]
    public void A_pin_is_full(double radius)
    {
        foreach (var pin in new[] { (Polygon)Axis.Buffer(radius, 24), (Polygon)Axis.Buffer(radius, 2) })
        {
            var (cover, _, hole, plastic) = Read(pin);
            Assert.True(cover >= 0.97, $"{cover:0.000} of it is covered");
            Assert.InRange(hole, 0, 0.11);
            Assert.InRange(plastic, 0.97, 1.04);
        }
    }

    // the third of four walls goes round the hub, in which the fourth finds no room
    [Fact]
    public void What_walls_enclose_is_filled_where_the_next_has_no_room()
    {
        var (cover, _, hole, plastic) = Read(Star(5, 2, 6), Solid with { Walls = 4 });
        Assert.True(cover >= 0.98, $"{cover:0.000} of it is covered");
        Assert.InRange(hole, 0, 0.11);
        Assert.InRange(plastic, 0.97, 1.03);
    }

    // between the arms there is much more room than in them: no corner that as many lines go round
    [Theory, InlineData(8, 3, 8, 5), InlineData(10, 3.2, 9.9, 3)]
    public void Round_a_hub_lie_as_many_lines_as_it_has_room_for(int tips, double inner, double outer, int walls) =>
        Assert.InRange(Read(Star(tips, inner, outer), Solid with { Walls = walls }).Plastic, 0.97, 1.035);

    // bends with more room in them than beside them, in which the walls of both sides do not find each other; and curls so tight that the
    // sides of their neighbours meet
    [Theory, InlineData(3.5, 5, 0.15, 5), InlineData(3.63, 5, 0.15, 5), InlineData(2.85, 2, 0.4, 5), InlineData(1.94, 2, 0.4, 3),
        InlineData(1.42, 2, 0.4, 3)]
    public void What_walls_leave_between_them_in_a_bend_is_filled_once(double thickness, double height, double turn, int walls)
    {
        var (cover, _, hole, plastic) = Read(Bent(thickness, height, turn), Solid with { Walls = walls });
        Assert.True(cover >= 0.98, $"{cover:0.000} of it is covered");
        Assert.InRange(hole, 0, 0.11);
        Assert.InRange(plastic, 0.97, 1.03);
    }

    // in the middle of one there is room for a drop, in that of the other for a third wall, towards which no side is square
    [Theory, InlineData(5, 2.4, 7, 2), InlineData(12, 1.5, 4, 3)]
    public void A_hub_is_filled_to_its_middle(int tips, double inner, double outer, int walls)
    {
        var (_, _, hole, plastic) = Read(Star(tips, inner, outer), Solid with { Walls = walls });
        Assert.InRange(hole, 0, 0.11);
        Assert.InRange(plastic, 0.97, 1.03);
    }

    [Theory, InlineData(1), InlineData(2)]
    public void A_solid_ring_holds_its_plastic_with_few_walls_too(int walls)
    {
        for (var thickness = 2.9; thickness < 4.7; thickness += 0.19)
            Assert.Equal(1, Filled(Ring(thickness), Solid with { Walls = walls }), 0.02);
    }

    // fill lies farther from the corner of a single wall than one way aside reaches
    [Theory, InlineData("block"), InlineData("eight tips"), InlineData("five sides"), InlineData("flat point")]
    public void Fill_reaches_into_the_corners_of_a_single_wall(string shape) =>
        Assert.InRange(Read(Of(shape), Solid with { Walls = 1 }).Hole, 0, 0.11);

    /// <summary>What a program lays of a section: what it covers, how far it reaches out, its greatest hole, its plastic against the room
    /// of the section without what the round sides of its outermost lines leave free.</summary>
    private static (double Cover, double Outside, double Hole, double Plastic) Read(Polygon section, Recipe? recipe = null)
    {
        var box = section.EnvelopeInternal;
        var placed = Placed(section);
        var (x0, y0, x1, y1) = (150 - box.Width / 2 - 1, 100 - box.Height / 2 - 1, 150 + box.Width / 2 + 1, 100 + box.Height / 2 + 1);
        var raster = Raster.Over(x0, y0, x1, y1, 0.02);
        var deposited = new Deposited(ReadMoves.Of(Sliced(section, recipe ?? Solid).Gcode), 2 * Height, Height, Cards.Petg.Diameter!.Value);
        var cells = raster.Of(placed);
        var (cover, outside, hole) = Covered.Of(raster, deposited.On(raster), cells, cells);
        return (cover, outside, hole, deposited.Plastic / ((section.Area - section.Length / 2 * Round * Height) * Height));
    }

    // a rib that takes lines where it is solid and fill where it is not: each half keeps to its own
    [Fact]
    public void A_zone_that_is_solid_fills_its_half_of_a_rib_with_lines()
    {
        var rib = Shapes.Rectangle(0, 0, 40, 3.4);
        var sparse = Plain with { Infill = new() { Density = 0.1 }, TopLayers = 0, BottomLayers = 0 };
        var job = Job(Solids.Extruded(rib, 3 * Height), sparse);
        var zone = new BoxZone
        {
            Name = "half",
            X = 160,
            Y = 100,
            Width = 20,
            Depth = 10,
            Height = 5,
            Settings = new Dictionary<string, JsonElement> { ["/infill/density"] = JsonSerializer.SerializeToElement(1.0) },
        };
        var layer = Engine.Slice(job with { Zones = [new ZoneToSlice(zone)] }).Layers[1];
        double FilledFrom(double x) => LaidIn(layer, Plane.Moved(Shapes.Rectangle(0, 0, 20, 3.4), x, 98.3))
            / ((20 * 3.4 - (20 + 1.7) * Round * Height) * Height);
        Assert.Equal(1, FilledFrom(150), 0.05);
        Assert.InRange(FilledFrom(130), 0.6, 0.9);
    }

    [Fact]
    public void Narrow_ends_of_a_noisy_ring_do_not_break_it_into_pieces()
    {
        var random = new Random(5);
        Polygon Rough(double radius) => Outline([.. Enumerable.Range(0, 200).Select(i => i * Math.PI / 100).Select(a =>
        {
            var r = radius + 0.1 * random.NextDouble();
            return (20 + r * Math.Cos(a), 20 + r * Math.Sin(a));
        })]);
        // about where one line becomes two
        var section = (Polygon)Rough(8).Difference(Rough(7.35));
        Assert.Equal(1, Filled(section, Solid), 0.03);
        Assert.InRange(Sliced(section, Solid).Layers[1].Paths.Count, 1, 12);
    }

    [Fact]
    public void What_is_too_thin_for_the_least_line_is_told_with_layer_place_and_size()
    {
        var section = Fin(0.15);
        var finding = Assert.Single(Sliced(section, Solid).Findings, f => f.Rule == "too-thin");
        Assert.Equal(Severity.Caution, finding.Severity);
        Assert.Matches("^part: 3 places on 3 of 3 layers are too thin for a line of 0.2 mm; the largest is 0.1[56][0-9]? mm thick and "
            + @"[78][.0-9]* mm long, on layer 1 \(0.2 mm up\) at X 1[56]\d[.0-9]*, Y 98.1.$", finding.Message);
        Assert.Equal("/recipe/wall/leastLine", finding.Pointer);
        var finer = Solid with { Wall = new() { LeastLine = 0.35 } };
        Assert.DoesNotContain(Sliced(section, finer).Findings, f => f.Rule == "too-thin");
    }

    // the last of a point that leans is a triangle of one drop: a stroke along an axis of the bed would stick out of it
    [Fact]
    public void A_drop_lies_the_way_where_its_section_has_room() => Gen.Select(Gen.Double[0, 2 * Math.PI], Gen.Double[0.4, 0.7],
        Gen.Int[3, 6]).Sample((turn, radius, corners) =>
    {
        var section = Outline([.. Enumerable.Range(0, corners).Select(i => (20 + radius * Math.Cos(turn + i * 2 * Math.PI / corners),
            20 + radius * Math.Sin(turn + i * 2 * Math.PI / corners)))]);
        var placed = Placed(section).Buffer(0.01);
        var paths = Sliced(section, Solid).Layers[1].Paths;
        Assert.NotEmpty(paths);
        foreach (var path in paths) Assert.True(placed.Covers(Inked(path, path.Width / 2 - 0.001)), $"{path.Kind} {path.Width}");
    }, iter: 100);

    [Fact]
    public void The_greatest_line_tells_when_two_are_laid()
    {
        var rib = Shapes.Rectangle(0, 0, 40, 0.6);
        Assert.Equal(PathKind.Thin, Assert.Single(Sliced(rib, Solid).Layers[1].Paths).Kind);
        // a nozzle of 0.4 mm: no line wider than 0.52 mm
        Assert.Equal(PathKind.OuterWall,
            Assert.Single(Sliced(rib, Solid with { Wall = new() { GreatestLine = 1.3 } }).Layers[1].Paths).Kind);
    }
}
