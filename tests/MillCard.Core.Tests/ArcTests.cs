using System.Globalization;
using System.Text;
using CsCheck;
using MillCard.Core.DryRun;
using Xunit;

namespace MillCard.Core.Tests;

/// <summary>Arcs against the circle they are cut from: known centre, begin, sense and sweep.</summary>
public class ArcTests
{
    private static string Say(double value) => value.ToString("0.############", CultureInfo.InvariantCulture);

    private static DryRunReport Run(string gcode) =>
        SimulatedMachine.Run(Cards.Bare().Machine(), Encoding.ASCII.GetBytes("G28\nM83\n" + gcode));

    private static readonly Gen<double> Sweeps = Gen.Double[0.02, 2 * Math.PI - 0.02]
        .Select(Gen.Bool, (sweep, clockwise) => clockwise ? -sweep : sweep);

    /// <summary>Length of the way, and the farthest any corner of it lies off the circle.</summary>
    private static (double Length, double Off) Way(DryRunReport run, double cx, double cy, double radius)
    {
        var moves = run.Moves.ToArray().Where(m => m.Line >= 3).ToArray();
        return (moves.Sum(m => Math.Sqrt(Math.Pow(m.To.X - m.From.X, 2) + Math.Pow(m.To.Y - m.From.Y, 2))),
            moves.Max(m => Math.Abs(Math.Sqrt(Math.Pow(m.To.X - cx, 2) + Math.Pow(m.To.Y - cy, 2)) - radius)));
    }

    // From (160, 100) to (150, 110) with a radius of 10: counter-clockwise a quarter about (150, 100), or with a negative
    // radius three quarters about (160, 110); clockwise the other way round.
    [Theory, InlineData(3, 10, 0.25, 150, 100), InlineData(3, -10, 0.75, 160, 110), InlineData(2, 10, 0.25, 160, 110),
        InlineData(2, -10, 0.75, 150, 100)]
    public void A_negative_radius_takes_the_long_way_round(int sense, double radius, double turn, double cx, double cy)
    {
        var run = Run($"G1 X160 Y100 Z1 F6000\nG{sense} X150 Y110 R{Say(radius)}\n");
        var (length, off) = Way(run, cx, cy, 10);
        Assert.Equal(turn * 2 * Math.PI * 10, length, 0.1);
        Assert.InRange(off, 0, 1e-3);
    }

    [Fact]
    public void An_arc_by_its_centre_goes_the_way_round_it_was_asked_for() =>
        Gen.Select(Gen.Double[0, 2 * Math.PI], Sweeps, Gen.Double[0.5, 60], Gen.Double[0, 5]).Sample((from, sweep, radius, rise) =>
        {
            const double cx = 150, cy = 100;
            var (x0, y0) = (cx + radius * Math.Cos(from), cy + radius * Math.Sin(from));
            var (x1, y1) = (cx + radius * Math.Cos(from + sweep), cy + radius * Math.Sin(from + sweep));
            var run = Run($"G1 X{Say(x0)} Y{Say(y0)} Z1 F6000\nG{(sweep < 0 ? 2 : 3)} X{Say(x1)} Y{Say(y1)} Z{Say(1 + rise)} "
                + $"I{Say(cx - x0)} J{Say(cy - y0)} E2\n");
            var (length, off) = Way(run, cx, cy, radius);
            // chords are shorter than the arc by no more than their error of 0.01 mm allows
            Assert.InRange(length, Math.Abs(sweep) * radius * (1 - 0.04 / radius - 0.002), Math.Abs(sweep) * radius + 1e-3);
            Assert.InRange(off, 0, 1e-3);
            Assert.InRange(run.End.Position.Z - 1 - rise, -1e-4, 1e-4);
            Assert.Equal(2, run.Filament, 6);
        }, iter: 2000);

    [Fact]
    public void An_arc_by_its_radius_is_the_shorter_one_and_by_a_negative_radius_the_longer() =>
        Gen.Select(Gen.Double[0, 2 * Math.PI], Sweeps, Gen.Double[0.5, 60])
            .Where((_, sweep, _) => Math.Abs(Math.Abs(sweep) - Math.PI) > 0.05 && Math.Abs(sweep) < 6).Sample((from, sweep, radius) =>
        {
            const double cx = 150, cy = 100;
            var (x0, y0) = (cx + radius * Math.Cos(from), cy + radius * Math.Sin(from));
            var (x1, y1) = (cx + radius * Math.Cos(from + sweep), cy + radius * Math.Sin(from + sweep));
            var run = Run($"G1 X{Say(x0)} Y{Say(y0)} F6000\nG{(sweep < 0 ? 2 : 3)} X{Say(x1)} Y{Say(y1)} "
                + $"R{Say(Math.Abs(sweep) > Math.PI ? -radius : radius)}\n");
            var (length, off) = Way(run, cx, cy, radius);
            Assert.InRange(length, Math.Abs(sweep) * radius * (1 - 0.04 / radius - 0.002) - 1e-3, Math.Abs(sweep) * radius + 1e-2);
            Assert.InRange(off, 0, 1e-2);
        }, iter: 2000);

    [Theory]
    [InlineData("G2 X50 Y50 I10 J0", 10)]
    [InlineData("G2 X50 Y50 I-10 J0", 10)]
    [InlineData("G2 X50 Y50 I0 J10", 10)]
    [InlineData("G3 X50 Y50 I10 J0", 10)]
    [InlineData("G3 X50 Y50 I-10 J0", 10)]
    [InlineData("G3 X50 Y50 I0 J-10", 10)]
    [InlineData("G2 I10", 10)]
    [InlineData("G3 X50 Y50 Z3 I3 J4", 5)]
    [InlineData("G2 X50 Y50.0000000001 I10 J0", 10)]
    [InlineData("G3 X50 Y49.9999999999 I-10 J0", 10)]
    public void A_full_circle_goes_all_the_way_round(string arc, double radius)
    {
        var run = Run($"G1 X50 Y50 Z1 F6000\n{arc}\n");
        var moves = run.Moves.ToArray().Where(m => m.Line == 3).ToArray();
        Assert.InRange(moves.Sum(m => Math.Sqrt(Math.Pow(m.To.X - m.From.X, 2) + Math.Pow(m.To.Y - m.From.Y, 2))),
            2 * Math.PI * radius * 0.995, 2 * Math.PI * radius);
    }
}
