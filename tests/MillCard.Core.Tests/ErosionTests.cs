using CsCheck;
using MillCard.Core.Geometry;
using NetTopologySuite.Geometries;
using Xunit;

namespace MillCard.Core.Tests;

/// <summary>Where a shape may be moved within a region, against looking at single places.</summary>
public class ErosionTests
{
    private static readonly Polygon Part = DrawnOutlines.Star([6, 3, 5, 2, 4, 6, 3]);

    public static TheoryData<string, Shape> Regions => new()
    {
        { "rectangle", Shapes.Rectangle(-20, -15, 50, 30) },
        { "rectangle, other way round", Shapes.Rectangle(-20, -15, 50, 30).Reverse() },
        { "round", Shapes.Ellipse(3, -4, 22, 18, Side.Inside) },
        { "triangle", Plane.Factory.CreatePolygon([new(-30, -20), new(35, -20), new(0, 30), new(-30, -20)]) },
        { "with a hole", Plane.Difference(Shapes.Rectangle(-25, -20, 60, 45), Shapes.Rectangle(4, 2, 6, 5)) },
        { "L", Plane.Difference(Shapes.Rectangle(-25, -20, 60, 45), Shapes.Rectangle(5, 0, 60, 45)) },
    };

    [Theory, MemberData(nameof(Regions))]
    public void A_place_is_free_where_the_part_lies_within(string name, Shape region)
    {
        var free = Erosion.Of(region, Part);
        var (inside, outside) = (0, 0);
        Gen.Select(Gen.Double[-40, 40], Gen.Double[-40, 40]).Sample((x, y) =>
        {
            var moved = Plane.Moved(Part, x, y);
            var over = Plane.Difference(moved, region).Area;
            // places on the border of both are left to rounding
            if (Plane.Factory.CreatePoint(new Coordinate(x, y)).Distance(free.Boundary) < 0.01) return;
            var isFree = free.Covers(Plane.Factory.CreatePoint(new Coordinate(x, y)));
            Assert.True(isFree == over < 1e-6, $"{name} at {x}, {y}: free {isFree}, {over} mm² over");
            if (isFree) Interlocked.Increment(ref inside);
            else Interlocked.Increment(ref outside);
        }, iter: 400);
        Assert.True(inside > 5 && outside > 5, $"{inside} inside, {outside} outside");
    }

    // the erosion of a rectangle by a rectangle is the rectangle of their differences
    [Fact]
    public void A_rectangle_has_room_for_a_rectangle_by_their_differences()
    {
        var free = Erosion.Of(Shapes.Rectangle(0, 0, 200, 100), Shapes.Rectangle(-10, -5, 20, 10)).EnvelopeInternal;
        Assert.Equal([10, 190, 5, 95], new[] { free.MinX, free.MaxX, free.MinY, free.MaxY }.Select(at => Math.Round(at, 9)));
    }

    [Fact]
    public void What_is_too_large_has_no_place()
    {
        Assert.True(Erosion.Of(Shapes.Rectangle(0, 0, 20, 20), Shapes.Rectangle(0, 0, 20.1, 5)).IsEmpty);
        Assert.True(Erosion.Of(Plane.Empty, Part).IsEmpty);
        var holed = Plane.Difference(Shapes.Rectangle(0, 0, 20, 20), Shapes.Rectangle(5, 5, 10, 10));
        Assert.True(Erosion.Of(holed, Shapes.Rectangle(0, 0, 6, 6)).IsEmpty);
    }
}
