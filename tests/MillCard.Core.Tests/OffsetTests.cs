using System.Text;
using MillCard.Core.Documents;
using MillCard.Core.DryRun;
using Xunit;

namespace MillCard.Core.Tests;

/// <summary>What the words of a program count from, where the head then stands, and what of a machine's state is remembered.</summary>
/// <remarks>What each command does is from memory of the firmwares' public documentation.</remarks>
public class OffsetTests
{
    private static DryRunReport Run(FlavourId flavour, string program) =>
        SimulatedMachine.Run((Cards.Bare(180, 160, 170) with { Firmware = new() { Flavour = flavour } })
            .Machine(), Encoding.UTF8.GetBytes(program));

    /// <summary>Dialect, program, where the head stands at its end.</summary>
    public static TheoryData<FlavourId, string, float, float, float> Ends => new()
    {
        { FlavourId.Klipper, "G28\nSET_GCODE_OFFSET Z=-0.2\nG1 Z1\n", 0, 0, 0.8f },
        { FlavourId.Klipper, "G28\nSET_GCODE_OFFSET Z=0.3\nSET_GCODE_OFFSET Z_ADJUST=0.1 X=2\nG1 X10 Z1\n", 12, 0, 1.4f },
        { FlavourId.Klipper, "G28\nG1 Z5\nSET_GCODE_OFFSET Z=0.3\n", 0, 0, 5 },
        { FlavourId.Klipper, "G28\nG1 Z5\nSET_GCODE_OFFSET Z=0.3 MOVE=1\n", 0, 0, 5.3f },
        { FlavourId.Klipper, "SET_GCODE_OFFSET Z=0.3\nG28\nG1 Z5\n", 0, 0, 5.3f },
        { FlavourId.Klipper, "G28\nG1 X5\nSAVE_GCODE_STATE NAME=a\nG91\nG1 X20 Y20\nRESTORE_GCODE_STATE NAME=a\nG1 Y30\n", 25, 30, 0 },
        { FlavourId.Klipper, "G28\nG1 X5\nSAVE_GCODE_STATE NAME=a\nG1 X20 Y20\nRESTORE_GCODE_STATE NAME=a MOVE=1 MOVE_SPEED=50\n", 5, 0,
            0 },
        { FlavourId.Klipper, "G28\nSAVE_GCODE_STATE NAME=a\nG92 X-10\nSAVE_GCODE_STATE NAME=b\nRESTORE_GCODE_STATE NAME=a\nG1 X5\n", 5, 0,
            0 },
        { FlavourId.Marlin, "G28\nM206 Z0.5 X-3\nG1 X10 Z2\n", 13, 0, 1.5f },
        { FlavourId.Marlin, "M206 Z0.5\nG28\nG1 Z2\n", 0, 0, 1.5f },
        { FlavourId.Marlin, "G28\nG1 Z2\nM290 Z-0.1\n", 0, 0, 1.9f },
        { FlavourId.Marlin, "G28\nM290 Z-0.1\nG1 Z2\n", 0, 0, 1.9f },
        { FlavourId.RepRapFirmware, "G28\nM290 S0.1\nG1 Z2\n", 0, 0, 2.1f },
        { FlavourId.RepRapFirmware, "G28\nG10 L2 P2 X10 Y5\nG1 X1 Y1\nG55\nG1 X1\n", 11, 1, 0 },
        { FlavourId.RepRapFirmware, "G28\nG10 L2 P2 X10 Y5\nG55\nG1 X1 Y1\nG54\nG1 Y2\n", 11, 2, 0 },
        { FlavourId.RepRapFirmware, "G28\nG1 X30\nG10 L20 P1 X0\nG1 X5 Y7\n", 35, 7, 0 },
        { FlavourId.RepRapFirmware, "G28\nG10 L2 P1 Z0.2\nG28\nG1 Z1\n", 0, 0, 1.2f },
        { FlavourId.Smoothieware, "G28\nG10 L2 P9 X4\nG59.3\nG1 X1\n", 5, 0, 0 },
        { FlavourId.Smoothieware, "G28\nG10 L20 P2 X-4\nG55\nG1 X1\n", 5, 0, 0 },
        { FlavourId.RepRapFirmware, "G28\nM120\nG91\nM121\nG1 X5\nG1 X5\n", 5, 0, 0 },
    };

    [Theory, MemberData(nameof(Ends))]
    public void The_head_stands_where_offsets_and_remembered_states_put_it(FlavourId flavour, string program, float x, float y, float z)
    {
        var at = Run(flavour, program).End.Position;
        Assert.Equal(x, at.X, 1e-4);
        Assert.Equal(y, at.Y, 1e-4);
        Assert.Equal(z, at.Z, 1e-4);
    }

    [Fact]
    public void A_remembered_state_has_its_speed_and_its_filament()
    {
        var run = Run(FlavourId.Klipper,
            "G28\nG92 E5\nG1 F1200\nSAVE_GCODE_STATE NAME=a\nM83\nG1 E-3 F6000\nRESTORE_GCODE_STATE NAME=a\nG1 X10 E6\n");
        Assert.Equal(20, run.MoveList[^1].Speed, 1e-4);
        Assert.Equal(1, run.MoveList[^1].Filament, 1e-6);
    }

    [Theory]
    [InlineData(FlavourId.Klipper, "SET_RETRACTION RETRACT_LENGTH=2 RETRACT_SPEED=40 UNRETRACT_SPEED=20 UNRETRACT_EXTRA_LENGTH=0.5", 20,
        2.5)]
    [InlineData(FlavourId.Marlin, "M207 S2 F2400", 40, 2)]
    [InlineData(FlavourId.RepRapFirmware, "M207 S2 F2400 T1200 R0.5", 20, 2.5)]
    public void Pulling_back_by_the_firmware_has_its_own_speeds(FlavourId flavour, string set, double primed, double length)
    {
        var run = Run(flavour, $"G28\n{set}\nG1 X10 F600\nG10\nG11\nG1 X20\n");
        Assert.Equal([(-2, 40), (length, primed)], run.MoveList.Where(m => m.Filament != 0)
            .Select(m => ((double)m.Filament, (double)m.Speed)));
        Assert.Equal(10, run.MoveList[^1].Speed, 1e-6);
    }

    [Fact]
    public void A_limit_of_speed_holds_along_the_way_not_by_axis()
    {
        var run = Run(FlavourId.Klipper, "G28\nSET_VELOCITY_LIMIT VELOCITY=50\nG1 X30 Y40 F6000\n");
        Assert.Equal(50, run.MoveList[^1].Speed, 1e-4);
    }

    [Theory]
    [InlineData(FlavourId.Klipper, "G4 S5", 0)]
    [InlineData(FlavourId.Klipper, "G4 P500", 0.5)]
    [InlineData(FlavourId.RepRap, "G4 S5", 5)]
    [InlineData(FlavourId.Marlin, "G4 S5", 5)]
    [InlineData(FlavourId.RepRapFirmware, "G4 P500", 0.5)]
    public void A_dwell_reads_what_its_dialect_reads(FlavourId flavour, string line, double seconds) =>
        Assert.Equal(seconds, Run(flavour, line + "\n").TotalSeconds, 1e-9);

    [Theory]
    [InlineData("M140 S-276", "M140 S60\n")]
    [InlineData("M568 P0 A0", "M568 P0 S200\n")]
    public void These_are_ways_to_say_off(string off, string on)
    {
        var end = Run(FlavourId.RepRapFirmware, on + off + "\n").End;
        Assert.Equal((0, 0), (end.NozzleTarget, end.BedTarget));
        Assert.True(Run(FlavourId.RepRapFirmware, on).End is { NozzleTarget: > 0 } or { BedTarget: > 0 });
    }

    [Theory]
    [InlineData("G28 X Y\nG1 X90 Y80 F6000\nG28 Z\nG1 Z5\n", true)]
    [InlineData("G28 X Y\nG1 X90 Y80 Z5 F6000\n", false)]
    [InlineData("G28\nM84\nG1 X5\n", false)]
    [InlineData("G28\nM84 X\nG1 Y5\n", true)]
    [InlineData("G28\nM84 S60\nG1 X5\n", true)]
    public void A_move_is_known_by_the_axes_that_it_moves(string program, bool known) =>
        Assert.Equal(known, Run(FlavourId.Marlin, program).MoveList[^1].Known && Run(FlavourId.Marlin, program).MoveList.All(m => m.Known));

    [Fact]
    public void A_blank_ends_the_number_of_a_command()
    {
        var run = Run(FlavourId.Marlin, "M117 1/149\nG28\nG1 X1 0 F6 00\n");
        Assert.Empty(run.Unknown);
        Assert.Equal((10, 10), (run.End.Position.X, run.MoveList[^1].Speed));
    }
}
