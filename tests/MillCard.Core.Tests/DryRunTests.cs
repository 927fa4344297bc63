using System.Text;
using MillCard.Core.Documents;
using MillCard.Core.DryRun;
using MillCard.Core.Findings;
using MillCard.Core.Rules;
using Xunit;

namespace MillCard.Core.Tests;

public class DryRunTests
{
    private const string Warm = "M140 S60\nM104 S200\nG28\nM190 S60\nM109 S200\n";
    private const string Off = "M104 S0\nM140 S0\n";

    private static DryRunReport Run(string gcode, Card? card = null) =>
        SimulatedMachine.Run((card ?? Cards.Dunlin).Machine(), Encoding.UTF8.GetBytes(gcode));

    private static Finding[] Find(string gcode, Card? card = null) =>
        Spoken.AllKept(RuleBook.Check(Run(gcode, card), (card ?? Cards.Dunlin).Machine()));

    private static void Fires(string rule, string gcode, int line, Card? card = null) =>
        Assert.Contains(Find(gcode, card), f => f.Rule == rule && f.Line == line && f.Severity == Severity.Stop);

    private static void DoesNotFire(string rule, string gcode, Card? card = null) =>
        Assert.DoesNotContain(Find(gcode, card), f => f.Rule == rule && f.Severity == Severity.Stop);

    [Fact]
    public void Moving_before_homing_stops_and_a_short_lift_is_noted()
    {
        Fires("move-before-home", "G1 X10 F600\nG28\n", 1);
        DoesNotFire("move-before-home", "G28\nG1 X10\n");
        var lift = Assert.Single(Find("G91\nG1 Z5 F600\nG90\nG28\n"), f => f.Rule == "move-before-home");
        Assert.Equal((Severity.Note, 2), (lift.Severity, lift.Line));
        Fires("move-before-home", "G91\nG1 X3 Z5 F600\nG90\nG28\n", 2);
    }

    [Fact]
    public void A_spline_climbs_evenly()
    {
        var heights = Run("G28\nG1 X20 Y20 Z5 F3000\nG5 X40 Y40 Z7 I5 J0 P-5 Q0\n").Moves.ToArray().Where(m => m.Line == 2)
            .Select(m => (double)m.To.Z).ToArray();
        Assert.True(heights.Length > 4);
        for (var i = 0; i < heights.Length; i++) Assert.Equal(5 + 2.0 * (i + 1) / heights.Length, heights[i], 1e-4);
    }

    [Fact]
    public void Moving_beyond_the_travel_stops()
    {
        Fires("outside-travel", "G28\nG1 X180\nG1 X180.5\nG1 X182\n", 3);
        Fires("outside-travel", "G28\nG1 Z171\n", 2);
        DoesNotFire("outside-travel", "G28\nG1 X180 Y160 Z170\nG92 X0\nG1 X-180\n");
    }

    // Two inches: X is called 1 in where it stands at 50.8 mm, and one inch more is 76.2.
    [Fact]
    public void A_place_that_is_named_in_inches_counts_in_inches()
    {
        var last = Run("G28\nG1 X50.8 Y50 Z5 F3000\nG20\nG92 X1\nG1 X2 F60\n").Moves[^1];
        Assert.Equal(76.2, last.To.X, 0.01);
        Assert.Equal(76.2, Run("G28\nG1 X50.8 Y50 Z5 F3000\nG92 X25.4\nG20\nG1 X2 F60\n").Moves[^1].To.X, 0.01);
    }

    [Fact]
    public void A_delta_reaches_a_disc()
    {
        var delta = Cards.Bare() with
        {
            Envelope = Cards.Bare().Envelope with { Bed = new EllipseBed { Width = 180, Depth = 180 }, Origin = new() { X = 90, Y = 90 } },
            Motion = new() { Layout = MotionLayout.Delta, Axes = new() { X = new() { Min = -90, Max = 90 } } },
        };
        DoesNotFire("outside-travel", "G28\nG1 X-63 Y63 Z5\n", delta);
        Fires("outside-travel", "G28\nG1 X-65 Y65 Z5\n", 2, delta);
    }

    [Fact]
    public void Running_through_an_obstacle_stops_only_below_its_top()
    {
        Fires("through-keep-out", "G28\nG1 X90 Y70 Z5.9\nG1 X0\n", 3);
        Fires("through-keep-out", "G28\nG1 X6 Y70 Z20\nG1 Z3\n", 3);
        DoesNotFire("through-keep-out", "G28\nG1 Z6\nG1 X90 Y70\nG1 X0\n");
        DoesNotFire("through-keep-out", "G28\nG1 X90 Y70 Z1\nG1 X124 Y122\n");
    }

    [Fact]
    public void Plastic_in_a_reserved_place_stops_and_a_travel_does_not()
    {
        var card = Cards.Bare();
        card = card with { Envelope = card.Envelope with { KeepOuts = [Cards.Box("wiper", KeepOutKind.Reserved, 100, 0, 20, 20)] } };
        Fires("through-keep-out", Warm + "G1 X90 Y10\nG1 X130 E3\n" + Off, 7, card);
        DoesNotFire("through-keep-out", Warm + "G1 X90 Y10\nG1 X130\n" + Off, card);
    }

    [Fact]
    public void Cold_filament_stops()
    {
        Fires("cold-extrusion", "G28\nG1 E5 F100\n", 2);
        Fires("cold-extrusion", Warm + "M104 S0\nG4 S600\nG1 X20 E2\n", 8);
        DoesNotFire("cold-extrusion", Warm + "M83\nG1 X20 E2\n" + Off);
    }

    [Fact]
    public void Not_waiting_for_the_nozzle_stops()
    {
        Fires("no-wait-before-extrusion", "G28\nM104 S240\nG4 S75\nG1 X20 E2\n", 4);
        Fires("no-wait-before-extrusion", "G28\nG1 X20 E2\n", 2);
        DoesNotFire("no-wait-before-extrusion", Warm + "G1 X20 E2\n" + Off);
        DoesNotFire("no-wait-before-extrusion", "G28\nM104 S200\nG4 S900\nG1 X20 E2\n");
    }

    [Fact]
    public void Targets_over_the_rating_stop()
    {
        Fires("target-over-rating", "M104 S265\n" + Off, 1);
        Fires("target-over-rating", "M140 S101\n" + Off, 1);
        Fires("target-over-rating", "M140 S40\n" + Off, 1, Cards.Dunlin with { Envelope = Cards.Dunlin.Envelope with { Heated = false } });
        DoesNotFire("target-over-rating", "M104 S260\nM140 S100\n" + Off);
    }

    [Fact]
    public void A_wait_that_never_ends_stops()
    {
        Fires("wait-never-ends", "M190 S95\n" + Off, 1);
        Fires("wait-never-ends", "M109 R10\n" + Off, 1);
        DoesNotFire("wait-never-ends", "M190 S92\n" + Off);
    }

    [Fact]
    public void Heaters_left_on_stop()
    {
        Fires("nozzle-left-on", Warm + "M140 S0\n", 6);
        Fires("bed-left-on", Warm + "M104 S0\n", 6);
        DoesNotFire("nozzle-left-on", Warm + Off);
        DoesNotFire("bed-left-on", Warm + Off);
    }

    [Fact]
    public void What_the_dialect_does_not_know_is_told()
    {
        Assert.Contains(Find("M999\nM566 X600\nG28\n"), f => f.Rule == "unknown-command" && f.Line == 2);
        Assert.DoesNotContain(Find("M566 X600\nG28\n", Cards.Dunlin with { Firmware = new() { Flavour = FlavourId.RepRapFirmware } }),
            f => f.Rule == "unknown-command");
    }

    [Fact]
    public void Every_line_has_its_start_and_its_words()
    {
        var run = Run("; hello\nG28\nG1 X100 F6000\nM83\nG1 X120 E0.7\nG4 P500\nM104 S0\n", Cards.Bare());
        Assert.Equal(["", "to the end-stops; 30 s", "travels 100 mm to X 100 Y 0", "E words are lengths from here",
            "prints 20 mm to X 120 Y 0, 0.7 mm of filament", "waits 0.5 s", "nozzle heater off"],
            Enumerable.Range(0, 7).Select(run.EffectOf));
        Assert.Equal((0.0, 30.0), (run.Starts[1], run.Starts[2]));
        Assert.Equal(run.Starts[5] + 0.5, run.Starts[6], 9);
        Assert.Equal(run.TotalSeconds, run.Seconds.Sum(), 9);
        Assert.Equal(0.7, run.Filament, 6);
        Assert.Equal((100.0, 120.0), (run.Extents!.MinX, run.Extents.MaxX));
    }

    [Fact]
    public void Waiting_takes_as_long_as_the_heater_needs()
    {
        // first order: room 18, ends at 92, τ 300: 300·ln(74/33) to 59 °C, worked by hand
        Assert.Equal(300 * Math.Log(74.0 / 33), Run("M190 S60\n").TotalSeconds, 3);
        Assert.Equal(0, Run("M190 S60\nM190 S60\n").Seconds[1], 9);
    }

    // Which dialects turn E with G90 and G91: from memory of the firmwares' public documentation.
    [Theory, InlineData(FlavourId.Marlin, 95.0), InlineData(FlavourId.RepRapFirmware, -5.0)]
    public void Relative_words_turn_extrusion_on_one_dialect_only(FlavourId flavour, double fed) =>
        Assert.Equal(fed, Run("G28\nM82\nG92 E100\nG91\nG1 E95 F100\n",
            Cards.Dunlin with { Firmware = new() { Flavour = flavour } }).Filament, 6);

    [Fact]
    public void A_speed_limit_is_in_the_dialects_own_unit()
    {
        const string program = "G28\nM203 X10\nG1 X100 F60000\n";
        Assert.InRange(Run(program).Seconds[2], 10, 10.2);
        Assert.InRange(Run(program, Cards.Dunlin with { Firmware = new() { Flavour = FlavourId.RepRapFirmware } }).Seconds[2], 600, 601);
    }

    [Fact]
    public void A_full_circle_runs_round_its_centre()
    {
        var run = Run("G28\nG1 X60 Y50 F3000\nG2 X60 Y50 I-10 J0 E5\n", Cards.Bare());
        Assert.Equal((40.0, 60.0, 40.0, 60.0),
            (Math.Round(run.Extents!.MinX, 1), Math.Round(run.Extents.MaxX, 1), Math.Round(run.Extents.MinY, 1),
            Math.Round(run.Extents.MaxY, 1)));
        Assert.StartsWith("prints 62.8", run.EffectOf(2), StringComparison.Ordinal);
    }

    [Fact]
    public void The_lines_stay_as_they_came()
    {
        var text = new Gcode.GcodeText("a\r\n\nb"u8.ToArray());
        Assert.Equal(["a", "", "b"], Enumerable.Range(0, text.Count).Select(text.Text));
        Assert.Equal(1, new Gcode.GcodeText("a\n"u8.ToArray()).Count);
    }
}
