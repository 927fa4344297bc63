using MillCard.Core.Geometry;
using MillCard.Core.Slicing.Filling;
using Xunit;

namespace MillCard.Core.Tests;

/// <summary>Where lines may hang, and along which way, on banks drawn by hand: 20 mm free between two of them, 30 mm along.</summary>
public sealed class BridgeTests
{
    private const double Width = 0.45;
    private static readonly Shape Inside = Shapes.Rectangle(0, 0, 40, 30);
    private static readonly Shape Left = Shapes.Rectangle(-5, -5, 15, 40);

    private static Bridges.Bridge[] Over(params Shape[] banks) => [.. Bridges.Of(Inside, Plane.Union(banks), Width)];

    [Fact]
    public void It_crosses_the_shorter_way_and_lies_on_its_banks()
    {
        var bridge = Assert.Single(Over(Left, Shapes.Rectangle(30, -5, 15, 40)));
        Assert.Equal(0, bridge.Angle);
        Assert.Equal(20, bridge.Span, 0.5);
        // three lines wide on either bank, none beyond the fill
        var box = bridge.Area.EnvelopeInternal;
        Assert.Equal((10 - 3 * Width, 30 + 3 * Width, 0, 30), (box.MinX, box.MaxX, box.MinY, box.MaxY));
    }

    [Fact]
    public void What_is_held_at_one_side_alone_is_no_bridge() => Assert.Empty(Over(Left));

    [Theory]
    [InlineData(24, true)]
    [InlineData(12, false)]
    public void Most_of_its_lines_are_held_at_both_ends(double bank, bool held) =>
        Assert.Equal(held, Over(Left, Shapes.Rectangle(30, 0, 15, bank)).Length == 1);

    [Fact]
    public void Lines_run_along_where_only_that_way_is_held()
    {
        // banks before and behind, 10 mm of fill on each: the long way
        var bridge = Assert.Single(Over(Shapes.Rectangle(-5, -5, 50, 7), Shapes.Rectangle(-5, 28, 50, 7)));
        Assert.Equal(90, bridge.Angle);
        Assert.Equal(26, bridge.Span, 0.5);
    }

    [Fact]
    public void What_is_smaller_than_a_few_lines_is_none() =>
        Assert.Empty(Bridges.Of(Inside, Plane.Difference(Shapes.Rectangle(-5, -5, 50, 40), Shapes.Rectangle(10, 10, 0.8, 0.8)), Width));
}
