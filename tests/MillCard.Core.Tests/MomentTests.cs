using System.Text;
using MillCard.Core.Documents;
using MillCard.Core.DryRun;
using MillCard.Core.Findings;
using MillCard.Core.Rules;
using Xunit;

namespace MillCard.Core.Tests;

/// <summary>What happens within one line: calls of macros and files, conditions, and what only the running printer knows.</summary>
public class MomentTests
{
    private const string Macros = """
        [gcode_macro START]
        gcode:
          M140 S60
          M104 S150
          G28
          M190 S60
          M109 S{params.HOT|default(205)}
          M83
          G1 X10 Y10 Z0.3 F6000
          G1 X100 E9 F1200

        [gcode_macro EARLY]
        gcode:
          G28
          M104 S205
          M83
          G1 X100 E9 F1200
          M109 S205

        [gcode_macro COOL_DOWN]
        gcode:
          M109 S240
          G28
          M104 S200

        [gcode_macro MAYBE]
        gcode:
          {% if printer["filament_switch_sensor runout"].filament_detected %}
            G28
          {% endif %}
          G1 X50 F3000
        """;

    private static readonly Card Klipper = Cards.Bare(180, 160,
        170) with
    { Firmware = new() { Flavour = FlavourId.Klipper, Macros = Macros } };

    private static Finding[] Find(string program, Card card) =>
        Spoken.AllKept(RuleBook.Check(SimulatedMachine.Run(card.Machine(), Encoding.UTF8.GetBytes(program)), card.Machine()));

    private static Card RepRapFirmware(string? files = null) =>
        Klipper with { Firmware = new() { Flavour = FlavourId.RepRapFirmware, Macros = files } };

    [Fact]
    public void A_macro_that_warms_and_primes_is_looked_at_moment_by_moment()
    {
        var rules = Find("START\nG1 X50 E2\nM104 S0\nM140 S0\n", Klipper).Select(f => f.Rule).ToArray();
        Assert.Empty(rules.Intersect(["cold-extrusion", "no-wait-before-extrusion", "hot-and-idle", "left-to-chance", "bed-still-cold",
            "move-before-home"]));
        var early = Find("EARLY\nM104 S0\n", Klipper);
        Assert.Contains(early, f => f is { Rule: "cold-extrusion", Line: 1, Severity: Severity.Stop });
        Assert.Contains(early, f => f is { Rule: "no-wait-before-extrusion", Line: 1 });
    }

    [Fact]
    public void A_wait_before_a_macro_that_warms_and_primes_heats_twice() =>
        Assert.Contains(Find("M190 S60\nSTART\n", Klipper), f => f is { Rule: "heated-twice", Line: 1 });

    [Fact]
    public void What_is_fed_cold_behind_a_macro_is_found_at_its_line() =>
        Assert.Contains(Find("START\nM104 S0\nG4 P600000\nG1 X50 E2\n", Klipper), f => f is { Rule: "cold-extrusion", Line: 4 });

    [Fact]
    public void A_condition_that_only_the_printer_knows_is_tried_both_ways()
    {
        var found = Find("MAYBE\n", Klipper);
        var move = Assert.Single(found, f => f.Rule == "move-before-home" && f.Severity != Severity.Note);
        Assert.Equal(Severity.Caution, move.Severity);
        Assert.Contains("filament_detected", move.Why);
        Assert.Contains(found, f => f is { Rule: "not-followed", Line: 1 });
    }

    [Fact]
    public void What_stands_behind_a_macro_that_the_card_does_not_hold_is_no_stop()
    {
        var without = Klipper with { Firmware = new() { Flavour = FlavourId.Klipper } };
        var found = Find("START_UP BED=60\nG1 X50 E2\n", without);
        Assert.DoesNotContain(found, f => f.Severity == Severity.Stop
            && f.Rule is "move-before-home" or "cold-extrusion" or "no-wait-before-extrusion");
        Assert.Contains(found, f => f.Rule == "cold-extrusion" && f.Why.Contains("START_UP"));
        Assert.Contains(Find("G1 X50 E2\nSTART_UP BED=60\n", without), f => f is { Rule: "cold-extrusion", Severity: Severity.Stop });
    }

    [Theory]
    [InlineData("if move.axes[0].homed\n  G1 X5\nelse\n  G28\n  G1 X7\n", 7)]
    [InlineData("G28\nif move.axes[0].homed && !false\n  G1 X5\nelif true\n  G1 X6\nelse\n  G1 X7\n", 5)]
    [InlineData("G28\nwhile iterations < 4\n  G91\n  G1 X{iterations + 1}\nG90\n", 10)]
    [InlineData("G28\nvar a = 3\nset var.a = var.a * 2\nG1 X{var.a}\n", 6)]
    [InlineData("G28\nglobal a = max(3, 8)\nG1 X{global.a + 0.5}\n", 8.5)]
    [InlineData("G28\nwhile true\n  if iterations = 3\n    break\n  G1 X{iterations}\n", 2)]
    [InlineData("G28\nwhile iterations < 5\n  if mod(iterations, 2) == 1\n    continue\n  G91\n  G1 X1\n", 3)]
    [InlineData("G28\nG1 X{move.axes[0].max / 2 > 50 ? 20 : 30}\n", 30)]
    [InlineData("G28\nG1 X4\nabort \"enough\"\nG1 X9\n", 4)]
    [InlineData("G28\nG1 X{exists(global.nothing) ? 1 : 2}\n", 2)]
    [InlineData("G28\nM98 P\"move.g\" X12\n", 12)]
    [InlineData("G28\nT1\n", 33)]
    [InlineData("G28\nG1 X3 ; {not read}\n", 3)]
    [InlineData("G28\nwhile iterations < 3\n  while iterations < 5\n    G91\n  G91\n  G1 X{iterations + 1}\n", 6)]
    public void Conditions_loops_and_files_run_as_they_are_written(string program, double x)
    {
        var card = RepRapFirmware("[move.g]\nG1 X{param.X}\nM99\nG1 X1\n[tpre1.g]\nG1 X33\n");
        card = card with
        {
            Head = card.Head with
            {
                Nozzles = [card.Head.Nozzles![0] with { Offset = null },
                card.Head.Nozzles[0] with { Id = "second", Offset = null }]
            },
            Motion = card.Motion with { Axes = new() { X = new() { Min = 0, Max = 60 } } },
        };
        Assert.Equal(x, SimulatedMachine.Run(card.Machine(), Encoding.UTF8.GetBytes(program)).End.Exact.X, 6);
    }

    [Fact]
    public void A_loop_without_end_is_left_and_said()
    {
        var run = SimulatedMachine.Run(RepRapFirmware().Machine(), "while true\n  G4 P1\nG28\n"u8.ToArray());
        Assert.Contains(run.Unfollowed, u => u.Line == 0);
        Assert.Equal("runs in the loop of line 1", run.EffectOf(1));
        Assert.True(run.Seconds[0] is > 1 and < 3);
    }

    [Fact]
    public void Lines_that_are_passed_over_say_so() =>
        Assert.Equal("is passed over", SimulatedMachine.Run(RepRapFirmware().Machine(), "if false\n  G28\nG90\n"u8.ToArray()).EffectOf(1));

    [Fact]
    public void Off_is_said_in_many_ways()
    {
        foreach (var off in new[] { "M0", "M568 P0 A0\nM140 S0", "G10 P0 S-273\nM140 S-276", "M104 S0\nM140 S0" })
        {
            var run = SimulatedMachine.Run(RepRapFirmware().Machine(), Encoding.UTF8.GetBytes($"M140 S60\nM104 S200\n{off}\n"));
            Assert.Equal((0, 0), (run.End.NozzleTarget, run.End.BedTarget));
        }
    }

    [Fact]
    public void Without_a_tool_nothing_can_be_fed()
    {
        var found = Find("M109 S200\nG28\nM83\nT-1\nG1 X20 E2\n", RepRapFirmware());
        Assert.Contains(found, f => f is { Rule: "tool-not-there", Line: 5 });
        Assert.DoesNotContain(Find("M109 S200\nG28\nM83\nT-1\nT0\nG1 X20 E2\nT-1\n", RepRapFirmware()), f => f.Rule == "tool-not-there");
        Assert.Contains(Find("T-1\n", Klipper with { Firmware = new() { Flavour = FlavourId.Marlin } }), f => f.Rule == "tool-not-there");
        Assert.Contains(Find("G10 P3 S200\n", RepRapFirmware()), f => f is { Rule: "tool-not-there", Line: 1 });
    }

    [Fact]
    public void A_fan_is_what_the_card_calls_it()
    {
        var marlin = Klipper with
        {
            Firmware = new() { Flavour = FlavourId.Marlin },
            Head = Klipper.Head with
            {
                Fans = [new() { Id = "part", Number = 1, Kind = FanKind.Part },
            new() { Id = "end", Kind = FanKind.HotEnd, OffBelow = 50 }]
            }
        };
        var run = SimulatedMachine.Run(marlin.Machine(), "M106 P1 S255\nM106 P2 S255\n"u8.ToArray());
        Assert.Equal(1, run.End.Fan);
        Assert.Equal(("part fan at 100 %", "fan 2 at 100 %"), (run.EffectOf(0), run.EffectOf(1)));
        // a hot end's fan without a number is no excuse for fan 0
        Assert.Contains(Find("M106 S255\n", marlin), f => f.Rule == "fan-left-on");
    }

    [Theory]
    [InlineData("G28\nG1 Z5 F600\nG53 G1 Z3\n", 3)]
    [InlineData("G28\nG1 Z5 F600\nG92 Z1\nG53 G1 Z3\nG1 Z2\n", 6)]
    [InlineData("G28\nM851 Z-1.7\nG28\nG1 Z1\n", 0.5)]
    [InlineData("M851 Z-1\nG28\nG1 Z1\n", 1.2)]
    [InlineData("G28\nM207 S1 F1800 Z0.5\nG1 Z1\nG10\nG1 Z2\n", 2.5)]
    [InlineData("G28\nM207 S1 F1800 Z0.5\nG1 Z1\nG10\nG1 Z2\nG11\n", 2)]
    [InlineData("G28\nG1 Z4\nG60\nG1 Z9\nG61\n", 4)]
    public void The_height_is_where_offsets_and_lifts_put_it(string program, double z)
    {
        var marlin = Klipper with
        {
            Firmware = new() { Flavour = FlavourId.Marlin },
            Head = Klipper.Head with { Probe = new() { Kind = ProbeKind.Inductive, Z = -1.2 } }
        };
        Assert.Equal(z, SimulatedMachine.Run(marlin.Machine(), Encoding.UTF8.GetBytes(program)).End.Exact.Z, 6);
    }

    [Fact]
    public void Volumes_are_fed_as_lengths_of_that_filament()
    {
        var marlin = Klipper with { Firmware = new() { Flavour = FlavourId.Marlin } };
        var run = SimulatedMachine.Run(marlin.Machine(), "M83\nM200 D2\nG1 E31.41592654\nM200 D0\nG1 E3\n"u8.ToArray());
        Assert.Equal(13, run.Filament, 6);
    }

    [Theory]
    [InlineData("G18\nG2 X10 Z0 I5 K0\n", 10, 0)]
    [InlineData("G19\nG1 Y20 Z20\nG3 Y30 Z20 J5 K0\n", 0, 30)]
    [InlineData("G5 X10 Y10 I5 J0 P-5 Q0\n", 10, 10)]
    public void Curves_end_where_they_are_asked_to(string lines, double x, double y)
    {
        var marlin = Klipper with { Firmware = new() { Flavour = FlavourId.Marlin } };
        var run = SimulatedMachine.Run(marlin.Machine(), Encoding.UTF8.GetBytes("G28\nG1 F3000\n" + lines));
        Assert.Equal((x, y), (run.End.Exact.X, run.End.Exact.Y));
        Assert.True(run.Moves.Length > 20);
    }

    [Fact]
    public void What_is_written_into_a_file_is_not_run() =>
        Assert.Equal(0, SimulatedMachine.Run(RepRapFirmware()
            .Machine(), "G28\nM28 x.g\nG1 X50\nM104 S200\nM29\n"u8.ToArray()).End.Position.X);
}
