using MillCard.Core.Geometry;
using MillCard.Core.Slicing.Walls;
using Xunit;

namespace MillCard.Core.Tests;

/// <summary>What an inset says of the form that it leaves.</summary>
public sealed class InsetTests
{
    private const double Distance = 0.225;

    private static Shape PlateWithBump(double wide, double high) =>
        Plane.Union(Shapes.Rectangle(0, 0, 20, 20), Shapes.Rectangle(10 - wide / 2, 20, wide, high));

    [Fact]
    public void A_square_keeps_its_form_and_loses_a_strip_all_round()
    {
        var inset = Inset.Of(Shapes.Rectangle(0, 0, 20, 20), Distance, 8);
        Assert.True(inset.KeepsForm);
        Assert.Equal(19.55 * 19.55, inset.Area.Area, 1e-9);
    }

    [Theory]
    // 0.05 mm narrower than the inset takes: from about 0.63 mm of height on that is 0.02 mm²
    [InlineData(0.4, 3, false)]
    [InlineData(0.4, 0.8, false)]
    [InlineData(0.4, 0.3, true)]
    [InlineData(0.6, 3, true)]
    public void A_bump_that_closes_up_is_told_unless_it_is_no_place_for_a_line(double wide, double high, bool keeps) =>
        Assert.Equal(keeps, Inset.Of(PlateWithBump(wide, high), Distance, 8).KeepsForm);

    [Fact]
    public void A_hole_loses_nothing_and_a_slit_of_two_widths_does()
    {
        var plate = Plane.Difference(Shapes.Rectangle(0, 0, 20, 20), Shapes.Rectangle(5, 5, 4, 4));
        Assert.NotNull(Inset.WithoutLoss(plate, Distance, 8));
        // between the hole and the edge 0.4 mm are left: both insets meet there
        Assert.Null(Inset.WithoutLoss(Plane.Difference(Shapes.Rectangle(0, 0, 20, 20), Shapes.Rectangle(0.4, 5, 4, 4)), Distance, 8));
    }
}
