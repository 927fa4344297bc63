using CsCheck;
using MillCard.Core.Heat;
using Xunit;

namespace MillCard.Core.Tests;

/// <summary>A heater over a run, against the law of cooling stepped through in small times.</summary>
public class HeaterTests
{
    private static readonly HeatModel Bed = new(20, 120, 300);

    /// <summary>dT/dt = (T∞ − T)/τ, by Runge and Kutta's midpoint rule in steps of 0.05 s.</summary>
    private static double Stepped(double from, double end, double seconds)
    {
        var (t, step) = (from, 0.05);
        for (var i = 0; i < (int)Math.Round(seconds / step); i++)
        {
            var middle = t + (end - t) / 300 * step / 2;
            t += (end - middle) / 300 * step;
        }
        return t;
    }

    [Theory]
    [InlineData(20, 100)]
    [InlineData(60, 40)]
    [InlineData(110, 900)]
    public void Heating_and_cooling_follow_their_differential_equation(double from, double seconds)
    {
        Assert.Equal(Stepped(from, 120, seconds), Bed.Heated(from, seconds), 1e-5);
        Assert.Equal(Stepped(from, 20, seconds), Bed.Cooled(from, seconds), 1e-5);
    }

    [Fact]
    public void The_time_from_one_temperature_to_another_leads_there() => Gen.Select(Gen.Double[20.5, 119], Gen.Double[20.5, 119])
        .Sample((from, to) =>
    {
        var time = Bed.Time(from, to);
        Assert.Equal(to, to >= from ? Bed.Heated(from, time) : Bed.Cooled(from, time), 1e-6);
    }, iter: 300);

    [Fact]
    public void What_lies_at_or_beyond_the_ends_is_never_reached()
    {
        Assert.Equal([double.PositiveInfinity, double.PositiveInfinity, double.PositiveInfinity, double.PositiveInfinity],
            [Bed.Time(20, 120), Bed.Time(20, 130), Bed.Time(60, 20), Bed.Time(60, 10)]);
        Assert.Equal(0, Bed.Time(60, 60));
        Assert.True(Bed.Reaches(120.9));
        Assert.False(Bed.Reaches(121));
    }

    private static HeaterTrace Trace(params (double At, double Target)[] targets)
    {
        var trace = new HeaterTrace(Bed);
        foreach (var (at, target) in targets) trace.Set(at, target);
        return trace;
    }

    [Fact]
    public void It_begins_in_the_room_and_rises_to_its_target_and_no_further()
    {
        var trace = Trace((10, 60));
        Assert.Equal((20, 20), (trace.At(0), trace.At(10)));
        Assert.Equal(Bed.Heated(20, 50), trace.At(60), 1e-9);
        Assert.Equal(60, trace.At(2000));
        Assert.Equal((0, 60, 60), (trace.TargetAt(9), trace.TargetAt(10), trace.Target));
    }

    [Fact]
    public void Off_it_falls_to_the_room_and_a_lower_target_stops_the_fall()
    {
        var trace = Trace((0, 60), (1000, 0), (1100, 40));
        Assert.Equal(Bed.Cooled(60, 50), trace.At(1050), 1e-9);
        Assert.Equal(Bed.Cooled(Bed.Cooled(60, 100), 30), trace.At(1130), 1e-9);
        Assert.Equal(40, trace.At(5000));
        Assert.Equal(20, Trace((0, 60), (1000, 0)).At(1e6), 1e-6);
        Assert.Equal(20, Trace((0, 60), (1000, 5)).At(1e6), 1e-6);
    }

    [Fact]
    public void A_wait_ends_a_degree_before_its_target()
    {
        Assert.Equal(Bed.Time(20, 59), Trace((0, 60)).Wait(0, coolsToo: false), 1e-9);
        Assert.Equal(Bed.Time(20, 59) - 40, Trace((0, 60)).Wait(40, coolsToo: false), 1e-6);
        Assert.Equal(0, Trace((0, 60)).Wait(Bed.Time(20, 59.01), coolsToo: false));
        Assert.Equal(double.PositiveInfinity, Trace((0, 125)).Wait(0, coolsToo: false));
        Assert.True(double.IsFinite(Trace((0, 120.5)).Wait(0, coolsToo: false)));
    }

    [Fact]
    public void A_wait_for_less_takes_the_time_of_cooling_only_where_it_waits_for_that()
    {
        var trace = Trace((0, 80), (2000, 50));
        Assert.Equal(0, trace.Wait(2000, coolsToo: false));
        Assert.Equal(Bed.Time(80, 51), trace.Wait(2000, coolsToo: true), 1e-6);
        Assert.Equal(0, Trace((0, 50.5), (2000, 50)).Wait(2000, coolsToo: true));
    }

    [Fact]
    public void The_time_to_a_level_is_told_where_the_target_lets_it_pass()
    {
        var trace = Trace((0, 60));
        Assert.Equal(Bed.Time(20, 45), trace.TimeTo(0, 45), 1e-9);
        Assert.Equal(0, trace.TimeTo(0, 20));
        Assert.Equal(Bed.Time(20, 59.99), trace.TimeTo(0, 60.5), 1e-6);
        Assert.Equal(double.PositiveInfinity, trace.TimeTo(0, 61.5));
        var cooling = Trace((0, 80), (2000, 50));
        Assert.Equal(Bed.Time(80, 65), cooling.TimeTo(2000, 65), 1e-6);
        Assert.Equal(Bed.Time(80, 50.01), cooling.TimeTo(2000, 49.5), 1e-6);
        Assert.Equal(double.PositiveInfinity, cooling.TimeTo(2000, 48.5));
        // off, it ends in the room
        Assert.Equal(double.PositiveInfinity, Trace((0, 80), (2000, 0)).TimeTo(2000, 10));
        Assert.Equal(Bed.Time(80, 30), Trace((0, 80), (2000, 0)).TimeTo(2000, 30), 1e-6);
    }

    [Fact]
    public void One_trace_goes_on_where_another_is()
    {
        var (other, trace) = (Trace((0, 60), (300, 90)), Trace((0, 10)));
        trace.GoOnFrom(other, 400);
        Assert.Equal((90, other.At(400), other.At(450)), (trace.Target, trace.At(400), trace.At(450)), Near);
    }

    private static bool Near((double A, double B, double C) a, (double A, double B, double C) b) =>
        Math.Abs(a.A - b.A) < 1e-9 && Math.Abs(a.B - b.B) < 1e-9 && Math.Abs(a.C - b.C) < 1e-9;
}
