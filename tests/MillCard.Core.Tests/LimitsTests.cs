using MillCard.Core.Documents;
using MillCard.Core.Flavours;
using MillCard.Core.Motion;
using Xunit;

namespace MillCard.Core.Tests;

/// <summary>What a run keeps to: what the card says, and what is typical where it says nothing; common practice, no source.</summary>
public class LimitsTests
{
    private static Limits Of(MotionFacts motion) => Limits.Of(Cards.Bare() with { Motion = motion });

    [Fact]
    public void What_is_not_said_is_typical_and_a_delta_lifts_as_fast_as_it_moves()
    {
        var plain = Of(new());
        Assert.Equal([200, 200, 10, 60], plain.Speed);
        Assert.Equal([1500, 1500, 100, 3000], plain.Acceleration);
        var delta = Of(new() { Layout = MotionLayout.Delta });
        Assert.Equal([200, 200, 200, 60], delta.Speed);
        Assert.Equal([1500, 1500, 1500, 3000], delta.Acceleration);
        Assert.Equal((double.PositiveInfinity, double.PositiveInfinity, double.PositiveInfinity),
            (plain.Printing, plain.Travel, plain.Retraction));
    }

    [Fact]
    public void What_is_said_holds_axis_by_axis()
    {
        var limits = Of(new()
        {
            Axes = new()
            {
                X = new() { MaxSpeed = 1, MaxAcceleration = 10 },
                Y = new() { MaxSpeed = 2, MaxAcceleration = 20 },
                Z = new() { MaxSpeed = 3 },
                E = new() { MaxAcceleration = 40 },
            },
        });
        Assert.Equal([1, 2, 3, 60], limits.Speed);
        Assert.Equal([10, 20, 100, 40], limits.Acceleration);
    }

    [Fact]
    public void The_corner_is_the_cards_else_the_dialects()
    {
        var own = Of(new() { Corner = new() { Kind = CornerKind.InstantSpeedChange, Value = 7 } });
        Assert.Equal((CornerKind.InstantSpeedChange, 7), (own.Corner, own.CornerValue));
        Assert.Equal([7, 7, 0.4, 5], own.Jump);
        var square = Of(new() { Corner = new() { Kind = CornerKind.SquareCornerSpeed, Value = 7 } });
        Assert.Equal([10, 10, 0.4, 5], square.Jump);
        foreach (var flavour in new[] { FlavourId.Marlin, FlavourId.Klipper, FlavourId.RepRapFirmware })
        {
            var limits = Limits.Of(Cards.Bare() with { Motion = new(), Firmware = new() { Flavour = flavour } });
            Assert.Equal((Flavour.Of(flavour).Corner.Kind, Flavour.Of(flavour).Corner.Value), (limits.Corner, limits.CornerValue));
        }
    }
}
