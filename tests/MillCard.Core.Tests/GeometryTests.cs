using CsCheck;
using MillCard.Core.Geometry;
using MillCard.Core.Meshes;
using MillCard.Core.Slicing.Sections;
using MillCard.Core.Slicing.Walls;
using NetTopologySuite.Geometries;
using Xunit;
using Point = MillCard.Core.Geometry.Point;

namespace MillCard.Core.Tests;

public class GeometryTests
{
    private static readonly Gen<Polygon> Convex = DrawnOutlines.Convex(50, 5, 20);

    private static readonly Gen<Polygon> Star = Gen.Double[3, 40].Array[5, 24].Select(DrawnOutlines.Star);

    // Steiner's formula, area(A ⊕ disc r) = A + P·r + πr² for convex A: J. Steiner 1840; Schneider, "Convex Bodies", section 4.
    [Fact]
    public void Growing_a_convex_outline_follows_Steiners_formula() => Gen.Select(Convex, Gen.Double[0.5, 30]).Sample((shape, r) =>
    {
        var exact = shape.Area + shape.Length * r + Math.PI * r * r;
        var grown = Plane.GrowOutside(shape, r).Area;
        Assert.InRange(grown, exact, exact + 0.011 * (shape.Length + 2 * Math.PI * r));
    }, iter: 300);

    /// <summary>Outlines with holes, some of which meet their border, in two pieces or one.</summary>
    private static readonly Gen<Shape> Areas =
        from outer in Star
        from hole in Star
        from size in Gen.Double[0.02, 0.5]
        from piece in Star
        from x in Gen.Double[-80, 80]
        select Plane.Union(Plane.Difference(outer, NetTopologySuite.Geometries.Utilities.AffineTransformation.ScaleInstance(size, size)
            .Transform(hole)), Plane.Moved(piece, x, 0));

    // NetTopologySuite's own buffer, as an independent reference. It rounds corners that point inwards with the same number of chords and
    // drops points of the outline within a hundredth of the distance.
    [Fact]
    public void Outlines_moved_edge_by_edge_are_where_the_buffer_puts_them() => Gen.Select(Areas, Gen.Double[0.1, 3])
        .Sample((area, distance) =>
    {
        var inset = Inset.Of(area, distance, 6);
        var buffer = Plane.Offset(area, -distance, 6);
        var within = 0.012 * distance;
        Assert.True(inset.IsValid);
        Assert.True(inset.SymmetricDifference(buffer).Area <= within * area.Length, $"{inset.Area} {buffer.Area}");
    }, iter: 400);

    // NetTopologySuite's predicates, as an independent reference.
    [Fact]
    public void What_lies_within_and_what_meets_is_told_as_the_reference_tells_it() =>
        Gen.Select(Areas, Areas, Gen.Double[0.05, 1.5], Gen.Double[-60, 60]).Sample((a, b, scale, x) =>
    {
        var moved = Plane.Moved(NetTopologySuite.Geometries.Utilities.AffineTransformation.ScaleInstance(scale, scale).Transform(b), x, 0);
        Assert.Equal(a.Covers(moved) && !a.Boundary.Intersects(moved.Boundary), Nesting.LiesClearlyWithin(moved, a));
        using var edges = new Edges(moved);
        Assert.Equal(Nesting.LiesClearlyWithin(moved, a), Nesting.LiesClearlyWithin(moved, edges, a));
        Assert.Equal(a.Intersects(moved), Nesting.Meet(a, moved));
        Assert.True(Nesting.LiesClearlyWithin(a, a));
        // a part of an area that shares some of its edges is not clearly within it, and is told to meet it
        var half = Plane.Intersection(a, Shapes.Rectangle(-100, 0, 200, 100));
        Assert.True(half.IsEmpty || !Nesting.LiesClearlyWithin(half, a) && Nesting.Meet(half, a));
    }, iter: 300);

    // a bore keeps its outline while the cone round it narrows; NetTopologySuite's predicate is the reference
    [Fact]
    public void Outlines_that_both_areas_have_do_not_count_as_meeting() =>
        Gen.Select(Areas, Gen.Double[0.3, 1.2], Gen.Bool).Sample((area, scale, withoutHole) =>
    {
        foreach (var polygon in Plane.Polygons(area))
        {
            var shell = (LinearRing)NetTopologySuite.Geometries.Utilities.AffineTransformation.ScaleInstance(scale, scale)
                .Transform(polygon.ExteriorRing);
            var holes = polygon.InteriorRings.Cast<LinearRing>().ToArray();
            var other = Plane.Factory.CreatePolygon(shell, withoutHole ? [.. holes.Skip(1)] : holes);
            if (!other.IsValid) continue;
            foreach (var (inner, outer) in new[] { (other, polygon), (polygon, other) })
            {
                var covers = outer.Covers(inner);
                if (Nesting.LiesClearlyWithin(inner, outer)) Assert.True(covers);
                else Assert.True(!covers || inner.ExteriorRing.Intersects(outer.ExteriorRing));
            }
        }
    }, iter: 300);

    // squares that touch at a corner, beside each other and as holes
    [Fact]
    public void Areas_that_touch_what_both_have_are_not_taken_for_parts_of_it()
    {
        var (square, beside) = (Shapes.Rectangle(0, 0, 10, 10), Shapes.Rectangle(10, 10, 2, 2));
        var both = Plane.Factory.CreateMultiPolygon([(Polygon)square, (Polygon)beside]);
        var far = (Polygon)Shapes.Rectangle(20, 20, 1, 1);
        Assert.False(Nesting.LiesClearlyWithin(both, Plane.Factory.CreateMultiPolygon([(Polygon)square, far])));
        Assert.True(Nesting.LiesClearlyWithin(square, Plane.Factory.CreateMultiPolygon([(Polygon)square, far])));

        Polygon Holed(params Shape[] holes) => Plane.Factory.CreatePolygon((LinearRing)((Polygon)square).ExteriorRing,
            [.. holes.Select(h => (LinearRing)((Polygon)h).ExteriorRing)]);
        var (one, touching, apart) = (Shapes.Rectangle(2, 2, 3, 3), Shapes.Rectangle(5, 5, 3, 3), Shapes.Rectangle(6, 2, 1, 1));
        Assert.True(Nesting.LiesClearlyWithin(Holed(one, apart), Holed(one)));
        Assert.False(Nesting.LiesClearlyWithin(Holed(one), Holed(one, apart)));
        Assert.False(Nesting.LiesClearlyWithin(Holed(one), Holed(one, touching)));
        Assert.False(Nesting.LiesClearlyWithin(one, Holed(one)));
        Assert.True(Nesting.LiesClearlyWithin(Holed(Shapes.Rectangle(1, 1, 5, 5)), Holed(one)));
        Assert.False(Nesting.LiesClearlyWithin(Holed(one), Holed(Shapes.Rectangle(1, 1, 5, 5))));
    }

    // NetTopologySuite's intersection of a line with areas, as an independent reference.
    [Fact]
    public void Curves_are_cut_as_the_reference_cuts_them() =>
        Gen.Select(Areas, Gen.Select(Gen.Double[-60, 60], Gen.Double[-60, 60]).Array[2, 12]).Sample((area, corners) =>
    {
        using var clip = new Clip(area);
        Point[] way = [.. corners.Select(c => new Point(c.Item1, c.Item2))];
        var reference = 0.0;
        for (var i = 1; i < way.Length; i++)
            reference += area.Intersection(
                Plane.Factory.CreateLineString([new Coordinate(way[i - 1].X, way[i - 1].Y), new Coordinate(way[i].X, way[i].Y)])).Length;
        Assert.Equal(reference, clip.Of(way, 0).Sum(piece => piece.Zip(piece.Skip(1), (p, q) => p.To(q)).Sum()), 1e-6);
    }, iter: 300);

    // Mixed area: area(A ⊕ B) is a quadratic form; for B = λA it is (1 + λ)² area(A). Schneider, "Convex Bodies", section 5.
    [Fact]
    public void Adding_a_scaled_copy_scales_the_area() => Gen.Select(Convex, Gen.Double[0.1, 2]).Sample((shape, scale) =>
    {
        var copy = (Polygon)NetTopologySuite.Geometries.Utilities.AffineTransformation.ScaleInstance(scale, scale).Transform(shape);
        Assert.Equal((1 + scale) * (1 + scale) * shape.Area, MinkowskiSum.Of(shape, copy).Area, 1e-6 * shape.Area * 10);
    }, iter: 200);

    [Fact]
    public void A_sum_with_an_outline_beside_the_zero_has_the_whole_area() =>
        Assert.Equal(900, MinkowskiSum.Of(Shapes.Rectangle(0, 0, 20, 20), Shapes.Rectangle(30, -5, 10, 10)).Area, 1e-9);

    [Fact]
    public void A_corner_given_twice_leaves_no_dent_in_a_sum()
    {
        var once = Plane.Factory.CreatePolygon([new(0, 0), new(9, 0), new(9, 9), new(0, 9), new(0, 0)]);
        var twice = Plane.Factory.CreatePolygon([new(0, 0), new(0, 0), new(9, 0), new(9, 9), new(9, 9), new(0, 9), new(0, 0)]);
        var steep = Plane.Factory.CreatePolygon([new(0, 0), new(0.2, 1), new(-1, 0.5), new(0, 0)]);
        Assert.Equal(MinkowskiSum.Of(steep, once).Area, MinkowskiSum.Of(steep, twice).Area, 1e-9);
        Assert.True(MinkowskiSum.IsConvex(MinkowskiSum.OfConvexPair(steep, twice)));
    }

    // NetTopologySuite's own buffer, as an independent reference for a disc.
    [Fact]
    public void A_sum_of_any_outline_with_a_disc_is_the_buffer() => Gen.Select(Star, Gen.Double[1, 10]).Sample((shape, r) =>
    {
        var disc = Shapes.Ellipse(0, 0, r, r, Side.Inside);
        var sum = MinkowskiSum.Of(shape, disc);
        var buffer = shape.Buffer(r, 64);
        Assert.True(sum.SymmetricDifference(buffer).Area < 0.012 * (sum.Length + 1), $"{sum.Area} {buffer.Area}");
    }, iter: 60);

    [Fact]
    public void A_point_is_in_the_sum_where_the_outlines_overlap() => Gen.Select(Star, Star, Gen.Double[-90, 90], Gen.Double[-90, 90])
        .Sample((a, b, x, y) =>
    {
        var inSum = MinkowskiSum.Of(a, MinkowskiSum.Negated(b)).Covers(Plane.Factory.CreatePoint(new Coordinate(x, y)));
        var overlap = a.Intersects(Plane.Moved(b, x, y));
        var near = a.Distance(Plane.Moved(b, x, y)) is > 0 and < 1e-6 || a.Intersection(Plane.Moved(b, x, y)).Area is > 0 and < 1e-6;
        Assert.True(near || inSum == overlap);
    }, iter: 50);

    // n ≥ π / acos(1 − 0.01/r): the sagitta of a chord, r(1 − cos(π/n)), is at most 0.01 mm. Elementary geometry.
    [Theory, InlineData(0.5), InlineData(10), InlineData(95), InlineData(1000)]
    public void Circles_are_drawn_to_a_hundredth_on_the_safe_side(double r)
    {
        var (inner, outer) = (Shapes.Ellipse(0, 0, r, r, Side.Inside), Shapes.Ellipse(0, 0, r, r, Side.Outside));
        Assert.All(inner.Coordinates, c => Assert.True(Math.Sqrt(c.X * c.X + c.Y * c.Y) <= r + 1e-9));
        var middle = inner.Distance(Plane.Factory.CreatePoint(new Coordinate(3 * r, 0)));
        Assert.InRange(middle, 2 * r - 1e-9, 2 * r + 0.011);
        Assert.True(outer.Boundary.Distance(Plane.Factory.CreatePoint(new Coordinate(0, 0))) >= r - 1e-9);
        Assert.True(outer.Coordinates.Max(c => Math.Sqrt(c.X * c.X + c.Y * c.Y)) <= r + 0.0101);
    }

    [Fact]
    public void Frames_turn_back() => Gen.Select(Gen.Double[-500, 500], Gen.Double[-500, 500], Gen.Double[-500, 500], Gen.Double[-500, 500])
        .Sample((zx, zy, x, y) =>
    {
        var frames = Frames.Of(new Documents.Position { X = zx, Y = zy });
        var back = frames.ToBed(frames.ToMachine(new(x, y)));
        Assert.Equal(x, back.X, 1e-9);
        Assert.Equal(y, back.Y, 1e-9);
    });

    [Fact]
    public void A_centred_origin_has_negative_coordinates() =>
        Assert.Equal(new(-95, 0), Frames.Of(new Documents.Position { X = 95, Y = 95 }).ToMachine(new(0, 95)));

    [Fact]
    public void Winding_covers_what_any_of_two_crossing_outlines_covers() => Gen.Select(Star, Star, Gen.Double[-40, 40]).Sample((a, b, x) =>
    {
        var moved = Plane.Moved(b, x, 3);
        var resolved = Winding.Resolve([.. Segments(a), .. Segments(moved)]);
        Assert.Equal(a.Union(moved).Area, resolved.Area, 1e-3);
    }, iter: 100);

    private static IEnumerable<DirectedSegment> Segments(Shape shape)
    {
        var ring = ((Polygon)shape).ExteriorRing.Coordinates;
        if (!NetTopologySuite.Algorithm.Orientation.IsCCW(ring)) ring = [.. ring.Reverse()];
        for (var i = 1; i < ring.Length; i++) yield return new DirectedSegment(ring[i - 1].X, ring[i - 1].Y, ring[i].X, ring[i].Y);
    }

    [Fact]
    public void Convex_pieces_cover_the_shape_without_overlap() => Gen.Double[5, 20].Array[5, 40].Sample(radii =>
    {
        var ring = radii.Select((r, k) =>
            new Coordinate(r * Math.Cos(2 * Math.PI * k / radii.Length), r * Math.Sin(2 * Math.PI * k / radii.Length))).ToList();
        var star = Plane.Factory.CreatePolygon([.. ring, ring[0].Copy()]);
        var pieces = MinkowskiSum.ConvexPieces(star).ToArray();
        Assert.All(pieces, p => Assert.True(MinkowskiSum.IsConvex(p)));
        Assert.Equal(star.Area, pieces.Sum(p => p.Area), 1e-6);
        Assert.Equal(star.Area, Plane.Union([.. pieces]).Area, 1e-6);
        // fewer than triangles
        Assert.True(pieces.Length < radii.Length - 2 || radii.Length < 7);
    });

    // Hertel and Mehlhorn: an angle needs two, however small it is
    [Theory, InlineData(0.4), InlineData(40)]
    public void Pieces_are_joined_as_long_as_they_stay_convex(double size)
    {
        Coordinate[] angle = [new(0, 0), new(size, 0), new(size, size / 4), new(size / 4, size / 4), new(size / 4, size), new(0, size),
            new(0, 0)];
        Assert.Equal(2, MinkowskiSum.ConvexPieces(Plane.Factory.CreatePolygon(angle)).Count());
    }

    [Fact]
    public void Merging_edges_gives_the_hull_of_all_sums() => Gen.Select(Convex, Convex).Sample((a, b) =>
    {
        var (p, q) = ((Polygon)a, (Polygon)b);
        var all = p.Coordinates.SelectMany(c => q.Coordinates.Select(d => new Coordinate(c.X + d.X, c.Y + d.Y))).ToArray();
        Assert.Equal(Plane.Factory.CreateMultiPointFromCoords(all).ConvexHull().Area, MinkowskiSum.OfConvexPair(p, q).Area, 1e-6);
    });

    [Fact]
    public void Edges_are_merged_from_whatever_corner_and_in_whatever_sense_a_ring_begins()
    {
        Coordinate[] corners = [new(0, 0), new(10, 1), new(12, 6), new(4, 9), new(-3, 4)];
        var disc = Shapes.Ellipse(0, 0, 3, 2, Side.Outside);
        var sums = from first in Enumerable.Range(0, corners.Length)
                   from sense in Enumerable.Range(0, 2)
                   let ring = corners[first..].Concat(corners[..(first + 1)])
                   let polygon = Plane.Factory.CreatePolygon([.. sense == 0 ? ring.Reverse() : ring])
                   select MinkowskiSum.OfConvexPair(polygon, disc);
        var all = corners.SelectMany(c => disc.Coordinates.Select(d => new Coordinate(c.X + d.X, c.Y + d.Y))).ToArray();
        var hull = Plane.Factory.CreateMultiPointFromCoords(all).ConvexHull();
        Assert.All(sums, sum => Assert.Equal(0, hull.SymmetricDifference(sum).Area, 1e-6));
    }

    // ends on the way, the way's ends on the edge, from both sides
    [Theory, InlineData(0, 2, 5, 2, true), InlineData(-5, 2, 0, 2, true), InlineData(-5, 12, 5, -12, true), InlineData(-5, 3, 5, 3, true),
        InlineData(-5, -5, 5, -5, true), InlineData(-5, 5, 5, 5, true), InlineData(-5, 5.01, 5, 5.01, false),
        InlineData(0.01, -5, 0.01, 5, false), InlineData(0, 5, 0, 9, true), InlineData(0, 5.01, 0, 9, false),
        InlineData(-2, 3, -1, 3, false)]
    public void A_way_that_touches_an_edge_meets_it(double fromX, double fromY, double toX, double toY, bool meets)
    {
        foreach (var (low, high) in new[] { (-5.0, 5.0), (5.0, -5.0) })
        {
            using var edges = new Edges([Plane.Factory.CreateLineString([new(0, low), new(0, high)])]);
            Assert.Equal(meets, edges.AreMet(fromX, fromY, toX, toY));
            Assert.Equal(meets, edges.AreMet(toX, toY, fromX, fromY));
        }
    }

    // half a touch wide
    [Theory, InlineData(0.0004, false), InlineData(0.0006, true)]
    public void Splinters_and_slits_go_that_are_too_narrow_for_anything(double width, bool stays)
    {
        var plate = Shapes.Rectangle(0, 0, 20, 20);
        var cut = Plane.Factory.CreatePolygon((LinearRing)plate.ExteriorRing,
            [(LinearRing)Shapes.Rectangle(5, 5, 10, width).ExteriorRing, (LinearRing)Shapes.Rectangle(5, 10, 5, 5).ExteriorRing]);
        var both = Plane.Factory.CreateMultiPolygon([cut, Shapes.Rectangle(30, 0, width, 10)]);
        var left = Plane.Polygons(Plane.WithoutSlits(both)).ToArray();
        Assert.Equal(stays ? [2, 0] : [1], left.Select(p => p.NumInteriorRings));
    }

    [Fact]
    public void What_lies_apart_is_taken_as_it_is()
    {
        var (here, there) = (Shapes.Rectangle(0, 0, 5, 5), Shapes.Rectangle(20, 0, 5, 5));
        Assert.Same(here, Plane.Difference(here, there));
        Assert.Same(here, Plane.Difference(here, Plane.Empty));
        Assert.True(Plane.Intersection(here, there).IsEmpty);
    }

    [Theory, InlineData("net-ring-joint"), InlineData("tide-gauge-float-clamp")]
    public void A_plain_outline_has_fewer_corners_and_covers_the_true_one(string part)
    {
        var shape = new Footprints(DemoParts.Read(part)).Whole;
        var plain = Plane.PlainOutside(shape);
        Assert.True(part != "net-ring-joint" || plain.NumPoints < shape.NumPoints / 2);
        Assert.True(Plane.Difference(shape, plain).Area < 1e-6);
        Assert.True(plain.Area - shape.Area < 0.011 * shape.Length);
    }
}
