using MillCard.Core.Geometry;
using MillCard.Core.Slicing.Walls;
using Xunit;

namespace MillCard.Core.Tests;

/// <summary>Areas made smaller, and where edges are lost on the way.</summary>
public sealed class InsetTests
{
    private const double Distance = 0.225;

    private static Shape PlateWithBump(double wide, double high) =>
        Plane.Union(Shapes.Rectangle(0, 0, 20, 20), Shapes.Rectangle(10 - wide / 2, 20, wide, high));

    [Fact]
    public void A_square_loses_a_strip_all_round()
    {
        var square = Shapes.Rectangle(0, 0, 20, 20);
        Assert.Equal(19.55 * 19.55, Inset.Of(square, Distance, 8).Area, 1e-9);
        Assert.Equal(19.55 * 19.55, Inset.WithoutLoss(square, Distance, 8)!.Area, 1e-9);
    }

    [Theory]
    [InlineData(0.4, 3, true)]
    [InlineData(0.4, 0.3, true)]
    [InlineData(0.44, 3, true)]
    [InlineData(0.46, 3, false)]
    public void A_bump_that_closes_up_is_a_loss_however_small(double wide, double high, bool lost)
    {
        Assert.Equal(lost, Inset.WithoutLoss(PlateWithBump(wide, high), Distance, 8) is null);
        // where it closes up, the rest is there all the same
        var left = Inset.Of(PlateWithBump(wide, high), Distance, 8).Area;
        Assert.InRange(left, 19.55 * 19.55 - 0.05, 19.55 * 19.55 + 0.1);
    }

    [Fact]
    public void A_hole_loses_nothing_and_a_slit_of_two_widths_does()
    {
        var plate = Plane.Difference(Shapes.Rectangle(0, 0, 20, 20), Shapes.Rectangle(5, 5, 4, 4));
        Assert.NotNull(Inset.WithoutLoss(plate, Distance, 8));
        // between the hole and the edge 0.4 mm are left: both insets meet there
        Assert.Null(Inset.WithoutLoss(Plane.Difference(Shapes.Rectangle(0, 0, 20, 20), Shapes.Rectangle(0.4, 5, 4, 4)), Distance, 8));
    }
}
