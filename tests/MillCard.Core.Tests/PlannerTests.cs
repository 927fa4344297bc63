using CsCheck;
using MillCard.Core.Documents;
using MillCard.Core.Motion;
using Xunit;

namespace MillCard.Core.Tests;

/// <summary>The planner against a fine-grained integration of the same speed limits along the path.</summary>
public class PlannerTests
{
    private sealed record Segment(double X, double Y, double Speed);

    private static readonly Gen<Segment[]> Paths = Gen.Select(Gen.Double[-20, 20], Gen.Double[-20, 20], Gen.Double[20, 200])
        .Select((x, y, speed) => new Segment(x, y, speed)).Where(s => Math.Abs(s.X) + Math.Abs(s.Y) > 0.2).Array[2, 40];

    private static Limits Of(CornerKind kind, double value, double speed = 150, double acceleration = 1000)
    {
        var axis = new Axis { MaxSpeed = speed, MaxAcceleration = acceleration };
        return Limits.Of(Cards.Dunlin with
        {
            Motion = new()
            {
                Axes = new() { X = axis, Y = axis },
                Corner = new() { Kind = kind, Value = value }
            }
        });
    }

    private static double Planned(Segment[] path, Limits limits)
    {
        var total = 0.0;
        var planner = new Planner(limits, (_, seconds) => total += seconds);
        for (var i = 0; i < path.Length; i++) planner.Add(i, path[i].X, path[i].Y, 0, 0, path[i].Speed);
        planner.Drain();
        return total;
    }

    /// <summary>Speeds at points every step of the way: no more than asked for, than the axes allow, than the corners allow, and reached
    /// from both sides within the acceleration.</summary>
    private static double Integrated(Segment[] path, CornerKind kind, double value, double speed, double acceleration)
    {
        const double step = 0.002;
        var (most, pull, ways) = (new List<double>(), new List<double>(), new List<double>());
        for (var i = 0; i < path.Length; i++)
        {
            var length = Math.Sqrt(path[i].X * path[i].X + path[i].Y * path[i].Y);
            var largest = Math.Max(Math.Abs(path[i].X), Math.Abs(path[i].Y)) / length;
            var pieces = (int)Math.Ceiling(length / step);
            for (var k = 0; k < pieces; k++)
            {
                most.Add(k == 0 ? i == 0 ? 0 : Corner(path[i - 1], path[i]) : Math.Min(path[i].Speed, speed / largest));
                pull.Add(acceleration / largest);
                ways.Add(length / pieces);
            }
        }
        most.Add(0);
        for (var i = 0; i < ways.Count; i++) most[i + 1] = Math.Min(most[i + 1], Math.Sqrt(most[i] * most[i] + 2 * pull[i] * ways[i]));
        for (var i = ways.Count - 1; i >= 0; i--) most[i] = Math.Min(most[i], Math.Sqrt(most[i + 1] * most[i + 1] + 2 * pull[i] * ways[i]));
        var total = 0.0;
        for (var i = 0; i < ways.Count; i++) total += 2 * ways[i] / (most[i] + most[i + 1]);
        return total;

        double Corner(Segment a, Segment b)
        {
            var (la, lb) = (Math.Sqrt(a.X * a.X + a.Y * a.Y), Math.Sqrt(b.X * b.X + b.Y * b.Y));
            var (ax, ay, bx, by) = (a.X / la, a.Y / la, b.X / lb, b.Y / lb);
            double Cruise(Segment s, double l) => Math.Min(s.Speed, speed / (Math.Max(Math.Abs(s.X), Math.Abs(s.Y)) / l));
            var slower = Math.Min(Cruise(a, la), Cruise(b, lb));
            if (kind == CornerKind.InstantSpeedChange)
                return Math.Min(slower, Math.Min(value / Math.Max(1e-12, Math.Abs(bx - ax)), value / Math.Max(1e-12, Math.Abs(by - ay))));
            var least = Math.Min(acceleration / Math.Max(Math.Abs(ax), Math.Abs(ay)), acceleration / Math.Max(Math.Abs(bx), Math.Abs(by)));
            // θ between the segments: 180° straight on
            var half = Math.Sin((Math.PI - Math.Acos(Math.Clamp(ax * bx + ay * by, -1, 1))) / 2);
            return half >= 1 ? slower : Math.Min(slower, Math.Sqrt(least * value * half / (1 - half)));
        }
    }

    [Theory, InlineData(CornerKind.JunctionDeviation, 0.02), InlineData(CornerKind.InstantSpeedChange, 8.0)]
    public void Time_agrees_with_a_fine_grained_integration(CornerKind kind, double value) =>
        Paths.Sample(path => Assert.Equal(1, Planned(path, Of(kind, value)) / Integrated(path, kind, value, 150, 1000), 0.005), iter: 150);

    [Theory, InlineData(CornerKind.JunctionDeviation, 0.02, 0.05), InlineData(CornerKind.InstantSpeedChange, 5.0, 12.0)]
    public void Larger_limits_never_take_longer(CornerKind kind, double value, double larger) => Paths.Sample(path =>
    {
        var time = Planned(path, Of(kind, value));
        foreach (var limits in new[] { Of(kind, larger), Of(kind, value, speed: 220), Of(kind, value, acceleration: 2500) })
            Assert.True(Planned(path, limits) <= time * (1 + 1e-9));
    }, iter: 400);
}
