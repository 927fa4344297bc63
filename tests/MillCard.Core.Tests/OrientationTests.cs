using CsCheck;
using MillCard.Core.Documents;
using MillCard.Core.Machines;
using MillCard.Core.Meshes;
using Xunit;

namespace MillCard.Core.Tests;

public class OrientationTests
{
    private static readonly Gen<(double X, double Y, double Z)> Directions =
        Gen.Select(Gen.Double[-1, 1], Gen.Double[-1, 1], Gen.Double[-1, 1])
            .Where(d => d.Item1 * d.Item1 + d.Item2 * d.Item2 + d.Item3 * d.Item3 > 0.01);

    [Fact]
    public void The_tilt_of_a_direction_turns_it_straight_down() => Directions.Sample(d =>
    {
        var arrow = new Mesh([(float)d.X, (float)d.Y, (float)d.Z], []);
        var turned = Placement.Oriented(arrow, null, FlatSides.Down(d.X, d.Y, d.Z)).Corners;
        var length = Math.Sqrt(d.X * d.X + d.Y * d.Y + d.Z * d.Z);
        Assert.Equal(0, turned[0], 1e-5);
        Assert.Equal(0, turned[1], 1e-5);
        Assert.Equal(-length, turned[2], 1e-5);
    });

    [Theory, InlineData(0, 0, -1), InlineData(0, 0, 1), InlineData(1, 0, 0), InlineData(-1, 0, 0), InlineData(0, 1, 0),
        InlineData(0, -1, 0)]
    public void The_six_axes_turn_down_too(double x, double y, double z)
    {
        var turned = Placement.Oriented(new Mesh([(float)x, (float)y, (float)z], []), null, FlatSides.Down(x, y, z)).Corners;
        Assert.Equal([0, 0, -1], turned.Select(v => Math.Round(v, 5) + 0.0));
    }

    [Fact]
    public void A_box_stands_on_its_six_sides_the_largest_first()
    {
        var sides = FlatSides.Of(Solids.Box(60, 40, 20));
        Assert.Equal([2400, 2400, 1200, 1200, 800, 800], sides.Select(s => Math.Round(s.Area, 3)));
        Assert.Equal([20, 20, 40, 40, 60, 60], sides.Select(s => Math.Round(s.Height, 3)));
    }

    [Fact]
    public void A_hollow_is_no_side_to_stand_on()
    {
        // an L: the inner faces of its corner have material beyond their plane
        var ell = Solids.Prism([(0, 0), (30, 0), (30, 10), (10, 10), (10, 30), (0, 30)], 12);
        Assert.DoesNotContain(FlatSides.Of(ell), s => Math.Abs(s.Area - 20 * 12) < 1 && s.Height < 29);
    }

    [Fact]
    public void Scaling_scales_volume_and_size()
    {
        var scaled = Placement.Oriented(Solids.Box(10, 20, 30), new PartScale { X = 2, Y = 0.5, Z = 1 }, null);
        Assert.Equal(6000, scaled.Volume(), 0.01);
        Assert.Equal((20f, 10f, 30f), (scaled.Box.MaxX, scaled.Box.MaxY, scaled.Box.MaxZ));
    }

    [Fact]
    public void A_trials_limits_only_tighten()
    {
        var card = Cards.Dunlin;
        var tight = card.Tightened(new TrialLimits
        {
            Height = 40,
            Margin = 1,
            KeepOuts = [Cards.Box("tape", KeepOutKind.Reserved, 80, 0, 20, 20)]
        }).Machine();
        Assert.Equal(40, tight.Height);
        Assert.Equal(card.Machine().Usable.Area, tight.Usable.Area, 6);
        Assert.Equal(card.Envelope.KeepOuts.Count + 1, tight.KeepOuts.Count);
        Assert.Equal(165, card.Tightened(new TrialLimits { Height = 400 }).Machine().Height);
    }

    [Fact]
    public void Margins_of_single_edges_come_off_the_margin_all_round()
    {
        var card = Cards.Bare(200, 100) with
        {
            Envelope = Cards.Bare(200,
            100).Envelope with
            { Use = new() { Margin = 5, Edges = new() { Left = 20, Back = 3 } } }
        };
        // x from 20 to 195, y from 5 to 95: the strip of 3 at the back lies within the margin of 5
        Assert.Equal(175 * 90, card.Machine().Usable.Area, 3);
    }

    [Fact]
    public void A_tolerance_grows_a_keep_out()
    {
        var region = Region.Of(Cards.Box("clip", KeepOutKind.Obstacle, 0, 0, 10, 20, 5) with { Tolerance = 2 });
        // Steiner's formula: A + P·r + πr²
        Assert.Equal(200 + 60 * 2 + Math.PI * 4, region.Outline.Area, 0.01 * (60 + 4 * Math.PI));
    }
}
