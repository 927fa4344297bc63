using MillCard.Core.Documents;
using MillCard.Core.Geometry;
using MillCard.Core.Slicing.Closing;
using MillCard.Core.Slicing.Paths;
using MillCard.Core.Slicing.Walls;
using Xunit;
using Point = MillCard.Core.Geometry.Point;

namespace MillCard.Core.Tests;

/// <summary>Where a wall begins.</summary>
public class SeamTests
{
    /// <summary>An arrow, counter-clockwise: a sharp tip at the right, a notch at the left.</summary>
    private static readonly Point[] Arrow = [new(6, -0.5), new(30, 5), new(6, 10.5), new(0, 10), new(4, 5), new(0, 0)];

    private static readonly ToolPath Ring = new(PathKind.OuterWall, Arrow, Closed: true, 0.4);

    private static Point Begin(Seam seam, Point guide = default, int layer = 0) => Seams.At(Ring, seam, guide, layer).Points[0];

    [Fact]
    public void It_lies_at_the_back() => Assert.Equal(new Point(6, 10.5), Begin(Seam.Back));

    [Fact]
    public void Of_two_corners_at_the_back_it_is_the_right_one() => Assert.Equal(new Point(8, 8), Seams.At(
        new(PathKind.OuterWall, [new(0, 0), new(0, 8), new(8, 8), new(8, 0)], Closed: true, 0.4), Seam.Back, default, 0).Points[0]);

    [Fact]
    public void It_lies_in_a_notch_before_a_tip()
    {
        // the notch turns by 180° − 2·atan(5/4) = 77°, the tip by 153°: doubled, the notch hides it better
        Assert.Equal(new Point(4, 5), Begin(Seam.Sharpest));
        Assert.Equal(new Point(4, 5), Seams.First(Ring));
        var convex = new ToolPath(PathKind.OuterWall, [new(0, 0), new(0, 10), new(6, 10.5), new(30, 5), new(6, -0.5)], Closed: true, 0.4);
        Assert.Equal(new Point(30, 5), Seams.First(convex));
    }

    // into the tip, off a straight side both ways, twice from one corner
    [Fact]
    public void A_way_aside_and_back_is_no_corner()
    {
        var aside = Ring.Aside([(1, new(30.2, 5)), (0.5, new(18, 2.4)), (2.5, new(3, 10.5)), (3, new(-0.1, 10.1)), (3, new(0.1, 9.9)),
            (5, new(-0.1, -0.1))]);
        Assert.Equal(Ring.Points.Length + 14, aside.Points.Length);
        Assert.Equal(new Point(4, 5), Seams.First(aside));
        Assert.All([Seam.Sharpest, Seam.Hollow], seam => Assert.Equal(new Point(4, 5), Seams.At(aside, seam, default, 0).Points[0]));
        var convex = new ToolPath(PathKind.InnerWall, [new(6, -0.5), new(30, 5), new(6, 10.5), new(0, 10), new(0, 0)], Closed: true, 0.4);
        Assert.Equal(new Point(30, 5), Seams.First(convex.Aside([(0.5, new(18, 2.4)), (2.5, new(3, 10)), (4.5, new(3, 0))])));
    }

    [Fact]
    public void It_lies_over_the_one_below()
    {
        Assert.Equal(new Point(0, 10), Begin(Seam.Aligned, new Point(-3, 12)));
        Assert.Equal(new Point(6, -0.5), Begin(Seam.Aligned, new Point(7, -2)));
    }

    [Fact]
    public void Scattered_ones_come_to_every_corner_and_seldom_to_the_same_twice_running()
    {
        var begins = Enumerable.Range(0, 60).Select(layer => Begin(Seam.Scattered, default, layer)).ToArray();
        Assert.Equal(Arrow.Length, begins.Distinct().Count());
        Assert.True(begins.Zip(begins.Skip(1)).Count(pair => pair.First == pair.Second) < 6);
    }

    [Fact]
    public void Where_none_is_wanted_the_next_best_corner_takes_it()
    {
        var notThere = Shapes.Rectangle(5, 9, 3, 3);
        Assert.Equal(new Point(0, 10), Seams.At(Ring, Seam.Back, default, 0, notThere).Points[0]);
        Assert.All(Enumerable.Range(0, 60), layer => Assert.NotEqual(new Point(6, 10.5),
            Seams.At(Ring, Seam.Scattered, default, layer, notThere).Points[0]));
        // where it is wanted nowhere, it has to lie somewhere
        Assert.Equal(new Point(6, 10.5), Seams.At(Ring, Seam.Back, default, 0, Shapes.Rectangle(-10, -10, 60, 60)).Points[0]);
    }

    [Fact]
    public void The_ring_stays_the_ring()
    {
        var turned = Seams.At(Ring, Seam.Back, default, 0);
        Assert.Equal(Ring.Length, turned.Length, 1e-9);
        Assert.Equal(Arrow.ToHashSet(), [.. turned.Points]);
        Assert.Equal(new Point(0, 10), turned.Points[1]);
    }
}
