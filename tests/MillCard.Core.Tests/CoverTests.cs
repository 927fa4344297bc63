using CsCheck;
using MillCard.Core.Geometry;
using Xunit;
using Triangle = MillCard.Core.Geometry.Triangle;

namespace MillCard.Core.Tests;

/// <summary>Whether triangles lie within an area, against NetTopologySuite's own answer.</summary>
public class CoverTests
{
    private static readonly Shape Area = Plane.Union(
        Plane.Difference(Shapes.Ellipse(5, 0, 30, 20, Side.Inside), Shapes.Rectangle(-4, -6, 9, 12)),
        Shapes.Rectangle(60, -20, 13, 40));

    private static Gen<Triangle> Triangles(double size) =>
        from x in Gen.Double[-30, 80]
        from y in Gen.Double[-25, 25]
        from corners in Gen.Double[-1, 1].Array[6]
        select new Triangle(x + size * corners[0], y + size * corners[1], x + size * corners[2], y + size * corners[3],
            x + size * corners[4], y + size * corners[5]);

    [Theory]
    [InlineData(0.4)]
    [InlineData(3)]
    [InlineData(15)]
    public void A_triangle_is_held_where_the_area_covers_it(double size)
    {
        var cover = new Cover(Area, Plane.Touch / 2);
        var wider = Plane.Offset(Area, 2 * Plane.Touch);
        var (held, not) = (0, 0);
        Triangles(size).Sample(t =>
        {
            var drawn = DrawnOutlines.Of(t);
            var covers = Area.Covers(drawn);
            // slivers and those that reach just over the border are left to rounding
            if (drawn.Area < 1e-3 || covers != wider.Covers(drawn)) return;
            Assert.True(cover.Holds(t) == covers, $"{t}: {covers}");
            if (covers) Interlocked.Increment(ref held);
            else Interlocked.Increment(ref not);
        }, iter: 2000);
        Assert.True(held > 20 && not > 20, $"{held} held, {not} not");
    }

    [Fact]
    public void What_reaches_over_by_less_than_a_touch_is_held_and_by_more_is_not()
    {
        var cover = new Cover(Shapes.Rectangle(0, 0, 10, 10), Plane.Touch / 2);
        Assert.True(cover.Holds(new(0, 0, 10, 0, 10, 10)));
        Assert.True(cover.Holds(new(0, 0, 10 + 0.3 * Plane.Touch, 0, 10, 10)));
        Assert.False(cover.Holds(new(0, 0, 10 + 0.8 * Plane.Touch, 0, 10, 10)));
        Assert.False(cover.Holds(new(-0.8 * Plane.Touch, 0, 10, 0, 10, 10)));
        Assert.False(cover.Holds(new(1, 1, 9, 1, 5, 10 + 0.8 * Plane.Touch)));
        Assert.False(cover.Holds(new(1, 9, 9, 9, 5, -0.8 * Plane.Touch)));
    }

    [Fact]
    public void A_hole_that_lies_within_a_triangle_is_not_held()
    {
        var cover = new Cover(Plane.Difference(Shapes.Rectangle(0, 0, 40, 40), Shapes.Rectangle(19, 12, 0.5, 0.5)), Plane.Touch / 2);
        Assert.False(cover.Holds(new(5, 5, 35, 5, 20, 35)));
        Assert.True(cover.Holds(new(5, 30, 35, 30, 20, 38)));
    }

    [Fact]
    public void Nothing_holds_nothing() => Assert.False(new Cover(Plane.Empty, Plane.Touch / 2).Holds(new(0, 0, 1, 0, 0, 1)));
}
