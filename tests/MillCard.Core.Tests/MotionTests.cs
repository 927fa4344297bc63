using MillCard.Core.Documents;
using MillCard.Core.Flow;
using MillCard.Core.Heat;
using MillCard.Core.Motion;
using Xunit;

namespace MillCard.Core.Tests;

public class MotionTests
{
    // Rectangle with half-round ends: elementary geometry; the model itself is common practice, no source.
    [Theory, InlineData(0.40, 0.20, 0.07142, 0.029691), InlineData(0.45, 0.20, 0.08142, 0.033849),
        InlineData(0.50, 0.28, 0.12318, 0.051210), InlineData(0.60, 0.30, 0.16069, 0.066805)]
    public void The_extruded_line_has_its_section_and_feed(double w, double h, double area, double feed)
    {
        Assert.Equal(area, ExtrudedLine.Area(w, h), 5);
        Assert.Equal(feed, ExtrudedLine.FeedPerMm(w, h, 1.75), 6);
    }

    [Fact]
    public void More_flow_feeds_more_and_reaches_the_melting_limit_at_less_speed()
    {
        Assert.Equal(1.1 * ExtrudedLine.FeedPerMm(0.45, 0.2, 1.75), ExtrudedLine.FeedPerMm(0.45, 0.2, 1.75, 1.1), 1e-12);
        Assert.Equal(ExtrudedLine.FastestSpeed(11, 0.45, 0.2) / 1.1, ExtrudedLine.FastestSpeed(11, 0.45, 0.2, 1.1), 1e-9);
    }

    [Fact]
    public void Thicker_filament_is_fed_less() => Assert.Equal(0.011195, ExtrudedLine.FeedPerMm(0.4, 0.2, 2.85), 6);

    [Theory, InlineData(0.40, 0.20, 154.0), InlineData(0.45, 0.20, 135.1), InlineData(0.50, 0.28, 89.3), InlineData(0.60, 0.30, 68.5)]
    public void The_melting_limit_caps_the_speed(double w, double h, double speed) =>
        Assert.Equal(speed, ExtrudedLine.FastestSpeed(11, w, h), 1);

    // Uniformly accelerated motion: d = v²/2a up and down (any mechanics textbook).
    [Theory, InlineData(100, 1.1), InlineData(5, 0.141421), InlineData(1, 0.063246)]
    public void A_move_from_rest_to_rest_takes_its_time(double distance, double seconds)
    {
        Assert.Equal(seconds, Trapezoid.Time(distance, 0, 100, 0, 1000), 6);
        var total = 0.0;
        var limits = Limits.Of(Cards.Bare() with { Motion = Free });
        var planner = new Planner(limits, (_, t) => total += t);
        planner.Add(0, distance, 0, 0, 0, 100);
        planner.Drain();
        Assert.Equal(seconds, total, 6);
    }

    // v = √(a δ sin(θ/2) / (1 − sin(θ/2))): the arc of an imagined circle tangent to both segments; common practice, no source.
    [Theory, InlineData(60, 4.472), InlineData(90, 6.949), InlineData(120, 11.370), InlineData(135, 15.580), InlineData(150, 23.811)]
    public void Corners_are_taken_at_the_junction_speed(double angle, double speed) =>
        Assert.Equal(speed, CornerSpeed.Junction(1000, 0.02, Math.Cos(Math.PI - angle * Math.PI / 180)), 3);

    [Fact]
    public void The_square_corner_speed_is_the_junction_speed_at_a_right_angle() =>
        Assert.Equal(5, CornerSpeed.Junction(1000, CornerSpeed.DeviationOfSquareCorner(5, 1000), 0), 9);

    [Fact]
    public void A_straight_cut_into_pieces_takes_as_long_as_whole()
    {
        double Time(int pieces)
        {
            var total = 0.0;
            var planner = new Planner(Limits.Of(Cards.Bare() with { Motion = Free }), (_, t) => total += t);
            for (var i = 0; i < pieces; i++) planner.Add(i, 200.0 / pieces, 0, 0, 0, 100);
            planner.Drain();
            return total;
        }
        Assert.Equal(Time(1), Time(10), 9);
        Assert.Equal(Time(1), Time(5000), 6);
    }

    [Fact]
    public void A_heater_follows_the_law_of_cooling()
    {
        // Newton's law of cooling, worked by hand: T0 20, T∞ 58, τ 300 s
        var bed = new HeatModel(20, 58, 300);
        Assert.Equal(31.40, bed.Heated(20, 107), 2);
        Assert.Equal(321.8, bed.Time(20, 45), 1);
        Assert.Equal(double.PositiveInfinity, bed.Time(20, 58));
    }

    private static MotionFacts Free => new()
    {
        Axes = new() { X = new() { MaxSpeed = 5000, MaxAcceleration = 1000 }, Y = new() { MaxSpeed = 5000, MaxAcceleration = 1000 } },
        Corner = new() { Kind = CornerKind.JunctionDeviation, Value = 0.02 },
    };
}
