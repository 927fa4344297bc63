using CsCheck;
using MillCard.Core.Geometry;
using MillCard.Core.Slicing.Closing;
using MillCard.Core.Slicing.Paths;
using NetTopologySuite.Geometries;
using Xunit;
using Point = MillCard.Core.Geometry.Point;

namespace MillCard.Core.Tests;

/// <summary>Lines led into the holes that they leave between each other.</summary>
public sealed class HolesTests
{
    private const double Width = 0.4;
    private static readonly Shape Plate = Shapes.Rectangle(-3.2, -0.2, 6.4, 1.14);

    private static ToolPath Line(PathKind kind, params (double X, double Y)[] points) =>
        new(kind, [.. points.Select(p => new Point(p.X, p.Y))], Closed: false, Width);

    private static readonly Gen<ToolPath> AnyLine =
        from points in Gen.Select(Gen.Double[-4, 4], Gen.Double[-4, 4], (x, y) => new Point(x, y)).Array[3, 6]
        from widths in Gen.Double[0.2, 0.8].Array[points.Length]
        from closed in Gen.Bool
        from varies in Gen.Bool
        select new ToolPath(PathKind.Solid, points, closed, Width) { Widths = varies ? widths : null };

    /// <summary>The plastic of a line by NetTopologySuite's distance, where its width is the same all along.</summary>
    private static double FreeOf(ToolPath path, Point at)
    {
        var way = path.Closed ? path.Points.Append(path.Points[0]) : path.Points;
        return Plane.Factory.CreateLineString([.. way.Select(p => new Coordinate(p.X, p.Y))])
            .Distance(Plane.Factory.CreatePoint(new Coordinate(at.X, at.Y))) - path.Width / 2;
    }

    [Fact]
    public void A_place_is_as_far_from_lines_as_from_the_nearest_of_them_whatever_was_asked_before() =>
        Gen.Select(AnyLine.Select(p => p with { Widths = null }).Array[1, 8], Gen.Select(Gen.Double[-5, 5], Gen.Double[-5, 5]).Array[1, 40],
            Gen.Double[0.01, 1]).Sample((paths, places, reach) =>
        {
            var strokes = new Strokes(paths, reach);
            foreach (var (x, y) in places)
            {
                var (free, on) = strokes.Nearest(new(x, y));
                Assert.Equal(Math.Min(reach, paths.Min(p => FreeOf(p, new(x, y)))), free, 1e-9);
                // on the middle of a line, half its width farther
                Assert.Equal(free < reach ? free + Width / 2 : 0, on.To(new(x, y)), 1e-9);
            }
        });

    [Fact]
    public void What_was_added_is_found_from_as_far_as_the_lines() =>
        Gen.Select(AnyLine, Gen.Double[-4, 4], Gen.Double[-4, 4], Gen.Double[-0.6, 0.6]).Sample((path, x, y, beside) =>
        {
            var strokes = new Strokes([path], 0.3);
            var added = new Stroke(new(x, y), new(x + 1, y), 0.1, 0.1, 0, ~0);
            strokes.Add(added);
            Point at = new(x + 0.5, y + beside);
            var without = new Strokes([path], 0.3).Free(at);
            Assert.Equal(Math.Min(without, Math.Abs(beside) - 0.1), strokes.Free(at), 1e-9);
            if (Math.Abs(beside) < 0.4) Assert.Equal([added], strokes.AddedNear(at));
        });

    [Fact]
    public void Stretches_near_a_place_are_told_once_each_in_their_order() =>
        Gen.Select(AnyLine.Array[1, 6], Gen.Double[-5, 5], Gen.Double[-5, 5]).Sample((paths, x, y) =>
        {
            var near = new Strokes(paths, 0.3).Near(new(x, y)).ToArray();
            Assert.Equal(near.Select(s => (s.Path, s.Point)).Distinct().Order(), near.Select(s => (s.Path, s.Point)));
            // none that is in reach is missing
            var all = new Strokes(paths, 100).Near(new(x, y)).Where(s => s.Off(new(x, y)).Free < 0.3);
            Assert.Empty(all.Except(near));
        });

    [Fact]
    public void A_place_is_as_deep_in_an_area_as_it_is_far_from_its_border()
    {
        var ell = Shapes.Rectangle(0, 0, 4, 4).Difference(Shapes.Rectangle(2, 2, 3, 3));
        using var depth = new AreaDepth(ell, 0.1);
        foreach (var (x, y, expected) in new[] { (0.15, 1.0, 0.25), (0.1, 0.05, 0.15), (-0.1, 1, 0.0), (1.9, 1.9, 0.1 + Math.Sqrt(0.02)),
            (2.1, 2.2, 0.0), (-0.2, 4.05, -0.1), (-0.05, -0.2, -0.1) })
            Assert.Equal(expected, depth.At(new(x, y)).Depth, 1e-9);
        Assert.Equal((double.PositiveInfinity, double.NegativeInfinity), (depth.At(new(1, 1)).Depth, depth.At(new(6, 6)).Depth));
    }

    // what is added goes out and comes back to where it went from; without it the line is as before
    [Fact]
    public void A_line_led_aside_is_the_same_line_with_ways_there_and_back() => Gen.Select(AnyLine,
        Gen.Select(Gen.Double[0, 1], Gen.Double[-5, 5], Gen.Double[-5, 5]).Array[1, 5], Gen.Int[0, 4]).Sample((path, ways, whole) =>
        {
            var last = path.Points.Length - (path.Closed ? 0 : 1);
            (double Place, Point To)[] led = [.. ways.Select((w, i) => (i < whole ? Math.Round(w.Item1 * last) : w.Item1 * last,
                new Point(w.Item2, w.Item3)))];
            var aside = path.Aside(led);
            Assert.All(led, way => Assert.Contains(way.To, aside.Points));
            Assert.Equal(aside.Points.Length, aside.Widths?.Length ?? aside.Points.Length);
            Assert.Equal(path.Widths is null, aside.Widths is null);
            var (expected, ends) = (path.Length, path.Closed ? [] : new[] { 0, last });
            foreach (var group in led.GroupBy(way => path.Closed && way.Place >= last ? 0 : way.Place))
            {
                var lengths = group.Select(way => path.At(group.Key).Point.To(way.To)).ToArray();
                expected += 2 * lengths.Sum();
                if (Array.Exists(ends, end => end == group.Key)) expected -= group.Key == 0 ? lengths[0] : lengths[^1];
            }
            Assert.Equal(expected, aside.Length, 1e-9);
            for (var i = 0; i < path.Points.Length; i++) Assert.Contains(path.Points[i], aside.Points);
            // each way is laid once, where the line does not go back over itself anyway
            if (path.Points.Concat(led.Select(way => way.To)).Distinct().Count() < path.Points.Length + led.Length) return;
            var (even, section) = (aside with { Widths = null }, path.SectionAt(0.2));
            var added = led.Sum(way => path.At(path.Closed && way.Place >= last ? 0 : way.Place).Point.To(way.To));
            Assert.Equal((path.Length + added) * section, even.VolumeAt(0.2), 1e-9);
        });

    [Fact]
    public void A_program_goes_back_over_what_it_laid_aside_without_laying_more()
    {
        Coordinate[] corners = [.. Enumerable.Range(0, 10).Select(i => (Angle: i * Math.PI / 5, R: i % 2 == 0 ? 9 : 4.5))
            .Select(p => new Coordinate(p.R * Math.Cos(p.Angle), p.R * Math.Sin(p.Angle)))];
        var tips = Plane.Factory.CreatePolygon([.. corners, corners[0]]);
        var recipe = Engine.Plain with { Infill = new() { Density = 1 } };
        var sliced = Engine.Slice(Solids.Extruded(tips, 0.6), recipe);
        var moves = ReadMoves.Of(sliced.Gcode).Where(move => move.Layer == 2).ToArray();
        var back = Enumerable.Range(1, moves.Length - 1).Where(i => moves[i - 1].Fed > 0 && moves[i].To == moves[i - 1].From).ToArray();
        Assert.InRange(back.Length, 10, 200);
        Assert.All(back, i => Assert.Equal(0, moves[i].Fed));
        var laid = moves.Where(move => move.Length > 0).Sum(move => move.Fed) * Math.PI * 1.75 * 1.75 / 4;
        Assert.Equal(1, sliced.Layers[1].Paths.Sum(path => path.VolumeAt(0.2)) / laid, 0.001);
        // flow that may change only slowly does not stop for such a way
        double Seconds(double slope) => Engine.Slice(Solids.Extruded(tips, 0.6),
            recipe with { Speeds = recipe.Speeds with { FlowChange = slope } }).Run!.TotalSeconds;
        Assert.InRange(Seconds(500) / sliced.Run!.TotalSeconds, 0.99, 1.02);
    }

    /// <summary>Two lines that end before each other, between one beside them and a wall.</summary>
    private static readonly ToolPath[] Broken =
    [
        Line(PathKind.InnerWall, (-3, 0), (3, 0)),
        Line(PathKind.Solid, (-3, 0.38), (-0.3, 0.38)),
        Line(PathKind.Solid, (0.3, 0.38), (3, 0.38)),
        Line(PathKind.Solid, (-3, 0.74), (3, 0.74)),
    ];

    /// <summary>Radius of the greatest hole among them, mm.</summary>
    private static double Largest(IReadOnlyList<ToolPath> paths, double x0 = -0.4, double y0 = 0.1, double x1 = 0.4, double y1 = 0.7,
        Func<Point, double>? depth = null)
    {
        var (raster, strokes) = (Raster.Over(x0, y0, x1, y1, 0.005), new Strokes(paths, 0.3));
        return Enumerable.Range(0, raster.Count)
            .Select(i => new Point(raster.MiddleX(i % raster.Columns), raster.MiddleY(i / raster.Columns)))
            .Max(at => Math.Min(strokes.Free(at), depth?.Invoke(at) ?? double.PositiveInfinity));
    }

    [Fact]
    public void Lines_are_led_into_a_hole_until_it_is_less_than_a_tenth_of_a_millimetre_wide()
    {
        Assert.InRange(Largest(Broken), 0.1, 0.11);
        var led = Holes.Filled(Broken, Plate, Plane.Empty, 0, _ => true);
        Assert.InRange(Largest(led), 0.03, 0.0505);
        // from ends there is no way back, and walls need not be led
        Assert.Equal(Broken[0], led[0]);
        Assert.Contains(led, path => path.End.X is > -0.3 and < 0.3 || path.Points[0].X is > -0.3 and < 0.3);
    }

    [Fact]
    public void Only_lines_that_may_be_led_are_led_and_none_into_what_stays_open()
    {
        var led = Holes.Filled(Broken, Plate, Plane.Empty, 0, path => path == Broken[1]);
        Assert.Equal((Broken[0], Broken[2], Broken[3]), (led[0], led[2], led[3]));
        Assert.NotEqual(Broken[1], led[1]);
        Assert.Equal(Broken, Holes.Filled(Broken, Plate, Shapes.Rectangle(-1, 0, 2, 1), 0, _ => true));
        Assert.Equal(Broken, Holes.Filled(Broken, Plate, Shapes.Rectangle(-1, 0.8, 2, 1), 0.7, _ => true));
        Assert.Equal(Broken, Holes.Filled(Broken, Shapes.Rectangle(-3.2, 0.47, 6.4, 0.47), Plane.Empty, 0, _ => true));
        Assert.Empty(Holes.Filled([], Plate, Plane.Empty, 0, _ => true));
    }

    // an outer wall goes straight past what is nobody's, and only to the tip of its own points
    [Fact]
    public void An_outer_wall_is_led_into_its_own_points_alone()
    {
        static ToolPath Wall(params (double X, double Y)[] points) => Line(PathKind.OuterWall, points) with { Closed = true };
        var triangle = Plane.Factory.CreatePolygon([new(0, 0), new(6, 0), new(3, 5.196), new(0, 0)]);
        var wall = Wall((0.3464, 0.2), (5.6536, 0.2), (3, 4.796));
        var led = Assert.Single(Holes.Filled([wall], triangle, Plane.Offset(triangle, -Width), 0, _ => true));
        using var depth = new AreaDepth(triangle, 0);
        Assert.InRange(Largest([wall], 0, 0, 0.35, 0.2, at => depth.At(at).Depth), 0.06, 0.1);
        Assert.InRange(Largest([led], 0, 0, 0.35, 0.2, at => depth.At(at).Depth), 0.03, 0.0505);
        Assert.All(wall.Points, p => Assert.InRange(led.Points.Count(q => q == p), 2, 3));
        var corner = Wall((0.2, 0.2), (5.8, 0.2), (5.8, 5.8), (0.2, 5.8));
        // a fin that no line fits into
        var finned = Shapes.Rectangle(0, 0, 6, 6).Union(Shapes.Rectangle(5, 3, 4, 0.18));
        Assert.Same(corner, Assert.Single(Holes.Filled([corner], finned, Plane.Offset(finned, -Width), 0, _ => true)));
    }
}
