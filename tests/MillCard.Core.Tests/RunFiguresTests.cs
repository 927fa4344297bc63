using System.Text;
using MillCard.Core.Documents;
using MillCard.Core.DryRun;
using Xunit;

namespace MillCard.Core.Tests;

/// <summary>What a dry run shows over time, where its layers lie, and what it uses.</summary>
public class RunFiguresTests
{
    /// <summary>Axes so quick that a move takes its way over its speed.</summary>
    private static readonly Card Quick = Cards.Bare() with
    {
        CostPerHour = null,
        Motion = new()
        {
            Axes = new()
            {
                X = new() { MaxSpeed = 5000, MaxAcceleration = 1e9 },
                Y = new() { MaxSpeed = 5000, MaxAcceleration = 1e9 },
                Z = new() { MaxSpeed = 5000, MaxAcceleration = 1e9 },
                E = new() { MaxSpeed = 5000, MaxAcceleration = 1e9 },
            },
        },
    };

    private static DryRunReport Run(string program, Card? card = null) =>
        SimulatedMachine.Run((card ?? Quick).Machine(), Encoding.ASCII.GetBytes(program));

    // 100 mm at 50 mm/s, 2 s; then a wait of 1 s; then 30 mm at 10 mm/s with 1.5 mm of filament, 3 s
    private const string Moves = "G28\nG92 E0\nG1 X100 F3000\nG4 P1000\nG1 X130 E1.5 F600\n";

    [Fact]
    public void Speed_and_feed_are_those_of_the_line_that_runs()
    {
        var run = Run(Moves);
        var start = run.Starts[2] + 0.25;
        var series = RunSeries.Of(run, start, start + 5.5, 12);
        Assert.Equal(Enumerable.Range(0, 12).Select(i => start + i / 2.0), series.Seconds, Near);
        Assert.Equal([50, 50, 50, 50, 0, 0, 10, 10, 10, 10, 10, 10], series.Speed, Near);
        Assert.Equal([0, 0, 0, 0, 0, 0, 0.5, 0.5, 0.5, 0.5, 0.5, 0.5], series.Feed, Near);
    }

    private static bool Near(double a, double b) => Math.Abs(a - b) < 0.011;

    [Fact]
    public void Temperatures_and_targets_are_those_of_the_heaters_and_the_fan_that_of_the_part()
    {
        var run = Run("M140 S50\nM104 S200\nG28\nG4 S20\nM106 S127.5\nG4 S20\nM107\nG4 S20\n");
        var (middle, end) = (run.Starts[4], run.TotalSeconds);
        var series = RunSeries.Of(run, 0, end, 121);
        for (var i = 0; i < series.Seconds.Length; i++)
        {
            Assert.Equal(run.Nozzle.At(series.Seconds[i]), series.Nozzle[i], 0.006);
            Assert.Equal(run.Bed!.At(series.Seconds[i]), series.Bed![i], 0.006);
        }
        Assert.Equal((200, 50), (series.NozzleTarget[60], series.BedTarget![60]));
        Assert.Null(series.Chamber);
        var at = Array.FindIndex(series.Seconds, s => s > middle);
        Assert.Equal((0, 0.5, 0), (series.Fan[at - 1], series.Fan[at], series.Fan[^1]), NearFan);
        Assert.All(series.Speed[(at + 1)..], speed => Assert.Equal(0, speed));
    }

    private static bool NearFan((double A, double B, double C) a, (double A, double B, double C) b) =>
        Near(a.A, b.A) && Near(a.B, b.B) && Near(a.C, b.C);

    [Fact]
    public void One_point_stands_at_the_begin() => Assert.Equal([3.0], RunSeries.Of(Run(Moves), 3, 9, 1).Seconds);

    private const string Home = "M109 S200\nG28\nG92 E0\nG1 Z0.2 F3000\n";
    private const string PrimeLine = "G1 X5 Y5\nG1 X5 Y100 E5 F1200\nG1 X5.4 Y100 E5.02\nG1 X5.4 Y5 E10\n";
    private const string Square = "G1 X50 Y50 F6000\nG1 X70 Y50 E11 F1200\nG1 X70 Y70 E12\nG1 X50 Y70 E13\nG1 X50 Y50 E14\n";
    private const string Upper = "G1 Z0.4\nG1 X70 Y50 E15\nG1 X70 Y70 E16\nG1 X50 Y70 E17\nG1 X50 Y50 E18\n";
    private const string After = "G1 E16 F2400\nG1 Z30\nG1 X0 Y180\nM104 S0\n";

    public static TheoryData<string, string, string> Layers => new()
    {
        { "the way to the first line belongs to the layers, and the way down before it", Home + Square + Upper + After, "G1 Z0.2 F3000" },
        { "a line that primes does not", Home + PrimeLine + Square + Upper + After, "G1 X50 Y50 F6000" },
        { "nor does a lift after it", Home + PrimeLine + "G1 Z5\n" + "G1 X50 Y50 F6000\nG1 Z0.2\n" + Square[17..] + Upper + After,
            "G1 X50 Y50 F6000" },
        { "a position named anew parts them", Home + PrimeLine + "G92 E10\n" + Square + Upper + After, "G1 X50 Y50 F6000" },
    };

    [Theory, MemberData(nameof(Layers))]
    public void Layers_without_marks_are_found(string what, string program, string first)
    {
        var run = Run(program);
        Assert.True(run.LayersBegin >= 0, what);
        Assert.Equal(first, run.Text.Text(run.LayersBegin).Trim());
        Assert.Equal("G1 X50 Y50 E18", run.Text.Text(run.LayersEnd).Trim());
    }

    [Theory]
    [InlineData("G28\nG1 X50\nG1 Y50\n")]
    [InlineData(Home + PrimeLine + After)]
    [InlineData(Home + "G1 X5 Y5\nG1 X100 Y5 E5\nG1 X100 Y6 E5.1\nG1 X5 Y6 E10\n" + After)]
    public void What_goes_round_nothing_has_no_layers(string program)
    {
        var run = Run(program);
        Assert.Equal((-1, -1), (run.LayersBegin, run.LayersEnd));
    }

    private static readonly Filament Priced = new() { Name = "a", Diameter = 1.75, Density = 1.25, PricePerKg = 20 };

    // 1000 mm of 1.75 mm: 2405.3 mm³, 3.0066 g at 1.25 g/cm³, 0.0601 at 20 a kg
    [Fact]
    public void Filament_is_weighed_and_paid_and_the_machine_by_the_hour()
    {
        var run = Run("G28\nM83\nG1 X100 E1000 F60\n");
        var spent = Spent.Of(run, Quick, [Priced]);
        Assert.Equal((1000, 3.0066, 0.060132), (spent.Filament, Math.Round(spent.Grams!.Value, 4), Math.Round(spent.Cost!.Value, 6)));
        var hourly = Spent.Of(run, Quick with { CostPerHour = 3.6 }, [Priced]);
        Assert.Equal(0.060132 + run.TotalSeconds / 1000, hourly.Cost!.Value, 1e-6);
        Assert.Equal(run.TotalSeconds, spent.ByNozzle.Single().Seconds, 1e-9);
    }

    [Fact]
    public void What_is_not_known_is_not_made_up()
    {
        var run = Run("G28\nM83\nG1 X100 E1000 F60\n");
        Assert.Equal((null, null), (Spent.Of(run, Quick, [Priced with { Density = null }]).Grams,
            Spent.Of(run, Quick, [Priced with { PricePerKg = null }]).Cost));
        // without a price of the filament the machine's hour is what it costs as far as that is known
        Assert.Equal(run.TotalSeconds / 1000,
            Spent.Of(run, Quick with { CostPerHour = 3.6 }, [Priced with { PricePerKg = null }]).Cost!.Value, 1e-9);
        Assert.Null(Spent.Of(run, Quick, [null]).Grams);
        Assert.Equal((0, 0.0), (Spent.Of(Run("G28\n"), Quick, [null]).Filament, Spent.Of(Run("G28\n"), Quick, [null]).Grams!.Value));
    }

    [Fact]
    public void A_program_that_does_not_name_its_copies_counts_them_all_the_same()
    {
        var run = Run("G28\nM83\nG1 X100 E1000 F60\n");
        Assert.Equal((2000, 2 * 3.0066), (Spent.Of(run, Quick, [Priced], copies: 2).Filament,
            Math.Round(Spent.Of(run, Quick, [Priced], copies: 2).Grams!.Value, 4)));
    }
}
