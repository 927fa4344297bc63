using CsCheck;
using MillCard.Core.Documents;
using MillCard.Core.Motion;
using Xunit;

namespace MillCard.Core.Tests;

/// <summary>Layer heights that fall on motor steps.</summary>
public class LadderTests
{
    // an M8 screw of 1.25 mm and a motor of 1.8°: 1.25 / 200 mm a full step
    private static readonly Ladder Fine = new(0.00625, 16);

    // a screw of 8 mm lead: 0.04 mm a full step
    private static readonly Ladder Coarse = new(0.04, 16);

    [Fact]
    public void Rungs_are_whole_steps_from_one_height_to_the_other() =>
        Assert.Equal([0.12, 0.16, 0.2, 0.24, 0.28], Coarse.Between(0.12, 0.3).Select(r => r.Height));

    [Fact]
    public void Half_steps_stand_between_them_when_they_are_asked_for()
    {
        var rungs = Coarse.Between(0.12, 0.2, halves: true);
        Assert.Equal([0.12, 0.14, 0.16, 0.18, 0.2], rungs.Select(r => r.Height));
        Assert.Equal([true, false, true, false, true], rungs.Select(r => r.Whole));
        Assert.Equal([6, 7, 8, 9, 10], rungs.Select(r => r.HalfSteps));
    }

    [Fact]
    public void A_bound_that_is_a_rung_but_for_rounding_is_one()
    {
        Assert.Equal([0.08, 0.12], Coarse.Between(0.0804, 0.1196).Select(r => r.Height));
        Assert.Empty(Coarse.Between(0.0806, 0.1194));
        Assert.Equal(0.04, Coarse.Between(0, 0.1)[0].Height);
    }

    [Fact]
    public void There_are_never_more_than_asked_for_and_those_left_are_whole_steps() => Gen.Select(Gen.Double[0.001, 0.05],
        Gen.Double[0.05, 0.2], Gen.Double[0.2, 0.6], Gen.Bool, Gen.Int[3, 50]).Sample((step, from, to, halves, most) =>
    {
        var rungs = new Ladder(step, 16).Between(from, to, halves, most);
        Assert.InRange(rungs.Count, 0, most + 1);
        Assert.All(rungs, r => Assert.InRange(r.Height, from - Ladder.On - 1e-6, to + Ladder.On + 1e-6));
        Assert.All(rungs, r => Assert.Equal(r.HalfSteps * step / 2, r.Height, 1e-6));
        var gaps = rungs.Zip(rungs.Skip(1)).Select(pair => pair.Second.HalfSteps - pair.First.HalfSteps).Distinct().ToArray();
        Assert.True(gaps.Length <= 1);
        if (gaps is [> 1 and var gap]) Assert.True(gap % 2 == 0 && int.IsPow2(gap));
    }, iter: 500);

    [Theory]
    [InlineData(0.2, LadderPlace.WholeSteps)]
    [InlineData(0.2004, LadderPlace.WholeSteps)]
    [InlineData(0.2006, LadderPlace.Between)]
    [InlineData(0.18, LadderPlace.HalfSteps)]
    [InlineData(0.1796, LadderPlace.HalfSteps)]
    [InlineData(0.1794, LadderPlace.Between)]
    [InlineData(0.19, LadderPlace.Between)]
    public void A_height_lies_on_a_rung_within_half_a_thousandth(double height, LadderPlace place) =>
        Assert.Equal(place, Coarse.PlaceOf(height));

    [Theory]
    [InlineData(0.21, 0.2)]
    [InlineData(0.221, 0.24)]
    [InlineData(0.01, 0.04)]
    [InlineData(0, 0.04)]
    public void The_nearest_rung_is_a_whole_step_and_never_none(double height, double rung) =>
        Assert.Equal((rung, true), (Coarse.Nearest(height).Height, Coarse.Nearest(height).Whole));

    [Fact]
    public void Nearest_is_nearest() => Gen.Double[0.0032, 0.5].Sample(height =>
        Assert.InRange(Math.Abs(Fine.Nearest(height).Height - height), 0, 0.00625 / 2 + 1e-6), iter: 200);

    private static readonly Card Machine = Cards.Bare() with
    {
        Motion = new MotionFacts
        {
            Axes = new() { Z = new() { Drive = new ScrewDrive { Pitch = 2, Starts = 4, StepAngle = 1.8, Microsteps = 16 } } },
        },
    };

    [Fact]
    public void A_card_has_the_ladder_of_its_screw_and_none_without_it()
    {
        Assert.Equal(Coarse, Ladder.Of(Machine));
        Assert.Null(Ladder.Of(Cards.Bare() with { Motion = new() }));
        Assert.Null(Ladder.Of(Machine with
        {
            Motion = new() { Axes = new() { Z = new() { Drive = new ScrewDrive { Pitch = 2, StepAngle = 1.8 } } } },
        }));
    }

    private static Recipe Resolved(LayerSizes layers, double? ofNozzle = null) => Ladder.Resolved(
        new Recipe { LineWidth = 0.5, LineWidthOfNozzle = ofNozzle, Layers = layers }, Machine);

    [Fact]
    public void Rungs_go_before_mm_and_mm_lie_on_a_rung_where_they_are_to()
    {
        Assert.Equal((0.2, 0.24), Heights(new() { Others = 0.17, Rungs = 5, FirstRungs = 6 }));
        Assert.Equal((0.16, 0.28), Heights(new() { Others = 0.17, First = 0.27, OnRung = true }));
        Assert.Equal((0.17, 0.27), Heights(new() { Others = 0.17, First = 0.27 }));
        foreach (var once in new[] { new() { Others = 0.17, OnRung = true }, new LayerSizes { Others = 0.06, OnRung = true } }
            .Select(layers => Resolved(layers).Layers)) Assert.Equal(once, Resolved(once).Layers);

        static (double?, double?) Heights(LayerSizes layers) => Resolved(layers).Layers is var l ? (l.Others, l.First) : default;
    }

    [Fact]
    public void A_share_of_the_nozzle_goes_before_a_width_in_mm()
    {
        var bore = Machine.Head.Nozzles![0].Diameter!.Value;
        Assert.Equal(1.1 * bore, Resolved(new(), ofNozzle: 1.1).LineWidth!.Value, 1e-4);
        Assert.Equal(0.5, Resolved(new()).LineWidth);
        // a nozzle that the card does not have
        var none = Machine.Head.Nozzles!.Count;
        Assert.Equal(0.5, Ladder.Resolved(new Recipe { LineWidth = 0.5, LineWidthOfNozzle = 1.1 }, Machine, none).LineWidth);
        Assert.Equal(0.16, Ladder.Heights(new() { Others = 0.17, OnRung = true }, Machine, none).Others.Height);
    }
}
