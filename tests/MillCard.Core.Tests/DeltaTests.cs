using CsCheck;
using MillCard.Core.Motion;
using Xunit;

namespace MillCard.Core.Tests;

/// <summary>The arms of a delta, by Pythagoras.</summary>
public class DeltaTests
{
    private static readonly DeltaGeometry Delta = new(270, 130);

    [Fact]
    public void Every_arm_is_as_long_as_it_is() => Gen.Select(Gen.Double[-100, 100], Gen.Double[-100, 100], Gen.Double[0, 250])
        .Sample((x, y, z) =>
    {
        var (back, left, right) = Delta.Carriages(x, y, z);
        foreach (var (height, angle) in new[] { (back, 90.0), (left, 210), (right, 330) })
        {
            var (tx, ty) = (130 * Math.Cos(angle * Math.PI / 180), 130 * Math.Sin(angle * Math.PI / 180));
            Assert.Equal(270, Math.Sqrt((x - tx) * (x - tx) + (y - ty) * (y - ty) + (height - z) * (height - z)), 1e-9);
            Assert.True(height > z);
        }
    }, iter: 300);

    // 270² − 130² = 56 000
    [Fact]
    public void In_the_middle_all_carriages_stand_alike()
    {
        var (back, left, right) = Delta.Carriages(0, 0, 10);
        Assert.Equal([10 + Math.Sqrt(56_000), 10 + Math.Sqrt(56_000), 10 + Math.Sqrt(56_000)], [back, left, right], Close);
        Assert.Equal(500 - Math.Sqrt(56_000), Delta.Ceiling(0, 0, 500), 1e-9);
        Assert.Equal(Math.Asin(Math.Sqrt(56_000) / 270) * 180 / Math.PI, Delta.FlattestArm(0, 0), 1e-9);
    }

    private static bool Close(double a, double b) => Math.Abs(a - b) < 1e-9;

    [Fact]
    public void The_ceiling_is_where_the_highest_carriage_is_home() => Gen.Select(Gen.Double[-100, 100], Gen.Double[-100, 100])
        .Sample((x, y) =>
    {
        var (back, left, right) = Delta.Carriages(x, y, Delta.Ceiling(x, y, 480));
        Assert.Equal(480, Math.Max(back, Math.Max(left, right)), 1e-9);
    }, iter: 200);

    [Fact]
    public void Towards_a_tower_its_arm_stands_steeper_and_those_opposite_lie_flatter()
    {
        var (back, left, right) = Delta.Carriages(0, 60, 0);
        Assert.True(back > left && Math.Abs(left - right) < 1e-9);
        Assert.True(Delta.FlattestArm(0, 60) < Delta.FlattestArm(0, 0));
        // straight away from the tower at the back it is that tower's arm
        Assert.Equal(Math.Asin(Math.Sqrt(270 * 270 - 210 * 210) / 270) * 180 / Math.PI, Delta.FlattestArm(0, -80), 1e-9);
    }

    [Fact]
    public void Out_of_an_arms_reach_nothing_is_known()
    {
        Assert.True(double.IsNaN(Delta.FlattestArm(0, -145)));
        Assert.True(double.IsNaN(Delta.Carriages(0, -145, 0).Back));
        Assert.True(double.IsNaN(Delta.Ceiling(0, -145, 480)));
        Assert.False(double.IsNaN(Delta.FlattestArm(0, -139)));
    }

    [Fact]
    public void Within_the_reach_every_arm_stands_at_its_least_angle_or_more()
    {
        // 270 · cos 20° − 130 = 123.7, less than the towers' radius
        Assert.Equal(270 * Math.Cos(20 * Math.PI / 180) - 130, Delta.ReachRadius, 1e-9);
        Gen.Double[0, 2 * Math.PI].Sample(angle => Assert.True(Delta.FlattestArm(Delta.ReachRadius * Math.Cos(angle),
            Delta.ReachRadius * Math.Sin(angle)) >= DeltaGeometry.LeastAngle - 1e-6), iter: 100);
        Assert.Equal(DeltaGeometry.LeastAngle, Delta.FlattestArm(0, -Delta.ReachRadius), 1e-6);
        Assert.Equal(100, new DeltaGeometry(400, 100).ReachRadius);
        Assert.Equal(0, new DeltaGeometry(100, 120).ReachRadius);
    }
}
