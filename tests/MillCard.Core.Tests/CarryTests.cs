using System.Text;
using MillCard.Core.Documents;
using MillCard.Core.DryRun;
using MillCard.Core.Routines.Carrying;
using Xunit;

namespace MillCard.Core.Tests;

/// <summary>Lines carried from every dialect to every other: what the machine then does is the same, or the line is listed as
/// lost.</summary>
/// <remarks>What each command does is from memory of the firmwares' public documentation.</remarks>
public class CarryTests
{
    private static readonly FlavourId[] All = Enum.GetValues<FlavourId>();

    /// <summary>Lines that routines hold, by the dialect they are written in; a bar parts lines.</summary>
    private static readonly Dictionary<FlavourId, string[]> Lines = new()
    {
        [FlavourId.Marlin] =
        [
            "M104 S150", "M104 T1 S150", "M109 S60|M104 S0", "M140 S50", "M190 S40", "M109 R60", "M190 R30", "M106 S128", "M106 S1",
                "M106 P0 S255", "M106 P1 S200", "M107",
            "G4 P500", "G4 S2", "M207 S2 F2400|G10|G1 X30|G11", "M207 S2 F1800 Z0.4|G10|G1 X30|G11",
                "M207 S3 F2400|M208 S0.2 F600|G10|G1 X30|G11",
            "M203 X40 Y40", "M201 X300 Y300", "M204 P400 T400", "M204 P400 T800", "M204 S600", "M204 P500", "M205 X4 Y4", "M205 J0.03",
                "M220 S50", "M221 S90",
            "G92 E3", "G92 X5 Y5", "G91|G1 Z2|G90", "M82|G92 E0|G1 X20 E1|M83", "T1", "M218 T1 X20 Y1", "M290 Z0.1", "M206 X2", "G54",
                "M420 S1", "M420 S0", "G29", "G34", "M600", "M0",
            "M400", "M84", "M605 S1", "M486 S0", "M486 S-1", "M73 P10", "M117 hello", "M851 Z-1", "M92 X80", "M200 D1.75", "G20|G1 X1|G21",
                "G28 X", "G27", "M500", "M900 K0.04", "M141 S40", "M191 S30", "G60|G1 X90|G61",
        ],
        [FlavourId.RepRapFirmware] =
        [
            "G10 P0 S150 R100", "G10 P1 S150", "G10 P1 X20 Y1", "M568 P0 S140 R90 A2", "M568 P0 A0", "M104 S100|M140 S40|M116",
                "M566 X240 Y240", "M566 X240 Y240 Z12 E300", "M572 D0 S0.04",
            "M207 S2 F2400|G10|G1 X30|G11", "M207 S2 F2400 R0.3 T1200|G10|G1 X30|G11", "G10 L2 P1 X3|G1 X30", "M290 S0.1", "M290 R0 S0.2",
                "M120|G91|G1 Z1|M121", "M203 X2400 Y2400", "M201 X300 Y300",
            "M204 P400 T400", "G29", "G29 S1", "G29 S2", "M561", "G32", "M106 S0.5", "M106 P1 S0.5", "M141 S40", "M0", "M226",
                "M98 P\"x.g\"", "M109 S60", "M190 S40", "T1", "M220 S50", "M84", "M486 S0", "M200 D1.75",
        ],
        [FlavourId.Klipper] =
        [
            "SET_HEATER_TEMPERATURE HEATER=extruder TARGET=150", "SET_HEATER_TEMPERATURE HEATER=extruder1 TARGET=150",
                "SET_HEATER_TEMPERATURE HEATER=heater_bed TARGET=50", "M104 S100|TEMPERATURE_WAIT SENSOR=extruder MINIMUM=100",
            "M109 S60", "M190 S40", "BED_MESH_PROFILE LOAD=default", "BED_MESH_CALIBRATE", "BED_MESH_CLEAR", "Z_TILT_ADJUST",
                "SET_GCODE_OFFSET Z=0.2 MOVE=1", "SET_GCODE_OFFSET Z_ADJUST=0.1 MOVE=1", "SET_PRESSURE_ADVANCE ADVANCE=0.04",
            "SET_RETRACTION RETRACT_LENGTH=2 RETRACT_SPEED=40 UNRETRACT_SPEED=40|G10|G1 X30|G11",
                "SET_RETRACTION RETRACT_LENGTH=2 RETRACT_SPEED=40 UNRETRACT_EXTRA_LENGTH=0.2 UNRETRACT_SPEED=20|G10|G1 X30|G11",
            "SAVE_GCODE_STATE NAME=a|G91|G1 Z1|RESTORE_GCODE_STATE NAME=a", "SET_VELOCITY_LIMIT ACCEL=400",
                "SET_VELOCITY_LIMIT SQUARE_CORNER_VELOCITY=4", "ACTIVATE_EXTRUDER EXTRUDER=extruder1", "TURN_OFF_HEATERS", "PAUSE",
            "M204 S400", "M204 P400 T800", "EXCLUDE_OBJECT_START NAME=a", "EXCLUDE_OBJECT_END NAME=a",
                "SET_DUAL_CARRIAGE CARRIAGE=0 MODE=PRIMARY", "G10|G11", "M84", "M106 S200", "G4 P500",
        ],
        [FlavourId.Repetier] =
        [
            "M104 S150", "M109 S60", "M190 S40", "M116", "M201 X300 Y300", "M207 X4", "M233 Y0.04", "G10|G1 X30|G11", "G32", "M320",
                "M321", "M290 Z0.1", "M106 S128", "M600", "M601 S1", "M84", "M220 S50", "M221 S90", "T1", "G92 E0", "M401|G1 X90|M402",
        ],
        [FlavourId.Smoothieware] =
        [
            "M104 S150", "M109 S60", "M190 S40", "M203 X40 Y40", "M204 S400", "M205 X0.03", "M207 S2 F2400|M208 S0.2 F1200|G10|G1 X30|G11",
                "G10 L2 P1 X3|G1 X30", "M120|G91|G1 Z1|M121", "M375", "M561", "G32", "M106 S128", "M84", "M220 S50", "T1", "M200 D1.75",
                "M206 X2",
        ],
        [FlavourId.RepRap] =
        [
            "M104 S150", "M109 S60", "M190 S40", "M104 S100|M116", "M201 X300 Y300", "M204 S400", "M207 S2 F2400|G10|G1 X30|G11", "G29",
                "M106 S128", "M84", "M0", "T1", "G92 E0", "M141 S40", "M226", "M220 S50",
        ],
    };

    /// <summary>Every line of every dialect, to every other one.</summary>
    public static TheoryData<FlavourId, FlavourId> Pairs => [.. from a in All from b in All where a != b select (a, b)];

    private static Card CardOf(FlavourId id)
    {
        var bare = Cards.Bare(180, 160, 170);
        var nozzle = bare.Head.Nozzles![0] with { Offset = new() };
        return bare with
        {
            Firmware = new() { Flavour = id },
            Head = bare.Head with { Nozzles = [nozzle, nozzle with { Id = "second" }], Fans = [], Probe = null },
            Heat = bare.Heat with { Housing = Housing.HeatedChamber },
            Motion = bare.Motion with { Corner = new() { Kind = CornerKind.JunctionDeviation, Value = 0.02 } },
        };
    }

    private static string Program(string lines) =>
        $"G90\nM83\nG28\nG1 X10 Y10 Z5 F3000\n{lines.Replace('|', '\n')}\nG1 X60 Y40 E2 F6000\nG1 X61 E-1\nG1 Z6\nG1 X10 Y20 E1\nG1 E1\n";

    private sealed record Effect(Spot At, double Filament, string Targets, double Fan, bool Motors, double Seconds)
    {
        public static Effect Of(DryRunReport run) => new(
            run.End.Position, run.FilamentOf.Sum(),
                string.Join(' ', run.Nozzles.Select(n => n.Target).Append(run.Bed!.Target).Append(run.Chamber!.Target)), run.End.Fan,
                run.End.MotorsOn, run.TotalSeconds);
    }

    [Theory, MemberData(nameof(Pairs))]
    public void What_is_carried_does_the_same_or_is_listed(FlavourId from, FlavourId to)
    {
        var different = new List<string>();
        foreach (var lines in Lines[from])
        {
            var carried = Carry.Of(Program(lines), from, to);
            var after = string.Join('\n', carried.Select(l => l.After));
            var (before, there) = (SimulatedMachine.Run(CardOf(from).Machine(), Encoding.UTF8.GetBytes(Program(lines))),
                SimulatedMachine.Run(CardOf(to).Machine(), Encoding.UTF8.GetBytes(after)));
            if (there.Unknown.Count > 0) different.Add($"{lines}: unknown {there.Unknown[0].Text}");
            if (carried.Any(l => l.Kind == Carried.Lost)) continue;
            var (a, b) = (Effect.Of(before), Effect.Of(there));
            var said = string.Join(' ', carried.Select(l => l.Note).OfType<string>());
            if (Far(a.At, b.At) || Math.Abs(a.Filament - b.Filament) > 1e-4 || a.Targets != b.Targets || Math.Abs(a.Fan - b.Fan) > 0.003
                || a.Motors != b.Motors)
                different.Add($"{lines} → {Shown(carried)}: {a} {b} {said}");
            // a note owns up to times that differ: corner rules, one figure for all moves, waits that probe
            else if (said.Length == 0 && Math.Abs(a.Seconds - b.Seconds) > 0.01 * a.Seconds)
                different.Add($"{lines} → {Shown(carried)}: {a.Seconds} s, {b.Seconds} s");
        }
        Assert.True(different.Count == 0, string.Join('\n', different));
    }

    private static string Shown(IEnumerable<CarriedLine> lines) => string.Join('|', lines.Skip(4).SkipLast(6).Select(l => l.After));

    private static bool Far(Spot a, Spot b) => Math.Abs(a.X - b.X) + Math.Abs(a.Y - b.Y) + Math.Abs(a.Z - b.Z) > 1e-3;

    [Theory]
    [InlineData("SET_RETRACTION RETRACT_LENGTH=2 RETRACT_SPEED=40 UNRETRACT_EXTRA_LENGTH=0.2 UNRETRACT_SPEED=20", FlavourId.Klipper,
        FlavourId.RepRapFirmware)]
    [InlineData("M207 S2 F2400 R0.3 T1200", FlavourId.RepRapFirmware, FlavourId.Klipper)]
    [InlineData("M207 S2 F2400", FlavourId.Marlin, FlavourId.Smoothieware)]
    [InlineData("M120", FlavourId.RepRapFirmware, FlavourId.Klipper)]
    [InlineData("M218 T1 X20 Y1", FlavourId.Marlin, FlavourId.RepRapFirmware)]
    [InlineData("G10 P1 X20 Y1", FlavourId.RepRapFirmware, FlavourId.Marlin)]
    [InlineData("M290 Z0.1", FlavourId.Marlin, FlavourId.Klipper)]
    [InlineData("SET_GCODE_OFFSET Z_ADJUST=0.1 MOVE=1", FlavourId.Klipper, FlavourId.Marlin)]
    [InlineData("M566 X240 Y240 Z12 E300", FlavourId.RepRapFirmware, FlavourId.Marlin)]
    [InlineData("M205 X4 Y4", FlavourId.Marlin, FlavourId.RepRapFirmware)]
    [InlineData("M203 X180 Y180 Z10", FlavourId.Marlin, FlavourId.RepRapFirmware)]
    [InlineData("G29 S1", FlavourId.RepRapFirmware, FlavourId.Klipper)]
    [InlineData("M561", FlavourId.RepRapFirmware, FlavourId.Marlin)]
    [InlineData("M420 S1", FlavourId.Marlin, FlavourId.RepRapFirmware)]
    [InlineData("M106 S128", FlavourId.Marlin, FlavourId.RepRapFirmware)]
    [InlineData("T1", FlavourId.Marlin, FlavourId.Klipper)]
    public void There_and_back_it_is_what_it_was(string line, FlavourId from, FlavourId to)
    {
        var there = string.Join('\n', Carry.Of(line, from, to).Select(l => l.After));
        Assert.Equal(line, string.Join('\n', Carry.Of(there, to, from).Select(l => l.After)).Replace(" NAME=carried_1", ""));
    }
}
