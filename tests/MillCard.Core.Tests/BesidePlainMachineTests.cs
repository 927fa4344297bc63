using System.Globalization;
using System.Text;
using MillCard.Core.Documents;
using MillCard.Core.DryRun;
using MillCard.Core.Heat;
using Xunit;

namespace MillCard.Core.Tests;

/// <summary>Random programs of every dialect on the simulated machine and on one that was written apart from it.</summary>
public class BesidePlainMachineTests
{
    private const int Programs = 400;

    public static TheoryData<FlavourId> Dialects => [.. Enum.GetValues<FlavourId>()];

    private static Card CardOf(FlavourId id)
    {
        var bare = Cards.Bare(220, 220, 250);
        return bare with
        {
            Firmware = new() { Flavour = id },
            Head = bare.Head with { Probe = null },
            Motion = bare.Motion with
            {
                Corner = new() { Kind = CornerKind.JunctionDeviation, Value = 0.02 },
                Axes = new()
                {
                    X = new() { MaxSpeed = 200, MaxAcceleration = 1500 },
                    Y = new() { MaxSpeed = 180, MaxAcceleration = 1200 },
                    Z = new() { MaxSpeed = 12, MaxAcceleration = 120 },
                    E = new() { MaxSpeed = 60, MaxAcceleration = 3000 }
                },
            },
        };
    }

    private static PlainMachine.Facts FactsOf(Card card)
    {
        var (nozzle, bed) = (Heaters.Nozzle(card, card.Head.Nozzles![0]), Heaters.Bed(card)!);
        return new([200, 180, 12, 60], [1500, 1200, 120, 3000], 0.02, nozzle.Room, nozzle.Reachable, nozzle.TimeConstant, bed.Reachable,
            bed.TimeConstant, card.Head.Nozzles[0].Retraction?.Length ?? 1);
    }

    /// <summary>Lines that only some dialects have, as they are written there.</summary>
    private static string[] Own(FlavourId id) => id switch
    {
        FlavourId.Marlin => ["M203 X{100} Y{100}", "M204 P{900} T{900}", "M204 S{900}", "M206 X{5}", "M207 S{3} F2400",
            "M207 S{3} F2400 Z0.4", "M208 S0.1 F900", "G10", "G11", "M290 Z0.1", "M200 D1.75", "M200 D0", "M201 X{900}"],
        FlavourId.RepRapFirmware => ["M203 X{6000} Y{6000}", "M204 P{900} T{900}", "M207 S{3} F2400", "M207 S{3} F2400 T1200 R0.2 Z0.3",
            "G10", "G11", "M290 Z0.1", "M120", "M121", "G10 L2 P1 X{9} Y{9}", "G10 L20 P1 X{9}", "G10 L2 P2 Z{3}", "G55", "G54",
            "M200 D1.75", "M200 D0"],
        FlavourId.Klipper => ["SET_VELOCITY_LIMIT VELOCITY={200} ACCEL={1500}", "M204 S{900}", "M204 P{900} T{900}", "M204 P500",
            "SET_RETRACTION RETRACT_LENGTH={3} RETRACT_SPEED=40 UNRETRACT_SPEED=20 UNRETRACT_EXTRA_LENGTH=0.1", "G10", "G11",
            "SET_GCODE_OFFSET Z={1}", "SET_GCODE_OFFSET Z_ADJUST=0.1 MOVE=1", "SAVE_GCODE_STATE NAME=s", "RESTORE_GCODE_STATE NAME=s",
                "RESTORE_GCODE_STATE NAME=s MOVE=1 MOVE_SPEED=40"],
        FlavourId.Repetier => ["M201 X{900}", "G10", "G11", "M200 D1.75", "M200 D0"],
        FlavourId.Smoothieware => ["M203 X{100} Y{100}", "M204 S{900}", "M207 S{3} F2400", "M208 S0.1 F900", "G10", "G11", "M120", "M121",
            "G10 L2 P1 X{9} Y{9}", "G10 L20 P1 X{9}", "G55", "G54", "M200 D1.75", "M200 D0"],
        _ => ["M201 X{900}", "M204 S{900}", "M207 S{3} F2400", "G10", "G11"],
    };

    private static readonly string[] Common = ["G90", "G91", "M82", "M83", "G92 E0", "G92 X{20} E{3}", "G92 Z{5}", "G4 P{500}", "G4 S{2}",
        "G28", "G28 X", "M220 S{150}", "M221 S{120}", "M400", "M104 S180", "M104 S0", "M109 S170", "M109 S210", "M140 S50", "M190 S45",
        "M190 S60"];

    private static string Figured(string line, Random random) =>
        System.Text.RegularExpressions.Regex.Replace(line, @"\{(\d+)\}",
            m => Math.Round(0.2 * double.Parse(m.Groups[1].ValueSpan, CultureInfo.InvariantCulture)
            + 0.8 * random.NextDouble() * double.Parse(m.Groups[1].ValueSpan, CultureInfo.InvariantCulture), 2)
            .ToString(CultureInfo.InvariantCulture));

    private static string Move(Random random, bool arcs)
    {
        string Word(char letter, double most) =>
            string.Create(CultureInfo.InvariantCulture, $" {letter}{Math.Round(random.NextDouble() * most, 3)}");
        if (arcs && random.Next(6) == 0)
        {
            var (i, j) = (Math.Round(random.NextDouble() * 20 - 10, 3), Math.Round(random.NextDouble() * 20 - 10, 3));
            return string.Create(CultureInfo.InvariantCulture, $"G91\nG{random.Next(2, 4)} X{2 * i} Y{2 * j} I{i} J{j} E1\nG90");
        }
        var text = new StringBuilder(random.Next(3) == 0 ? "G0" : "G1");
        if (random.Next(4) > 0) text.Append(Word('X', 150));
        if (random.Next(4) > 0) text.Append(Word('Y', 150));
        if (random.Next(8) == 0) text.Append(Word('Z', 30));
        if (random.Next(2) == 0) text.Append(Word('E', 6));
        if (random.Next(3) == 0) text.Append(CultureInfo.InvariantCulture, $" F{random.Next(60, 9000)}");
        return text.ToString();
    }

    private static string Program(FlavourId id, Random random, bool arcs)
    {
        string[] own = [.. Own(id), .. Common];
        var lines = new List<string> { "G28", "G1 F3000" };
        var count = random.Next(10, 60);
        for (var i = 0; i < count; i++) lines.Add(random.Next(3) > 0 ? Move(random, arcs) : Figured(own[random.Next(own.Length)], random));
        return string.Join('\n', lines) + "\n";
    }

    [Theory, MemberData(nameof(Dialects))]
    public void Both_machines_stand_at_the_same_place_with_the_same_filament_and_time(FlavourId id)
    {
        var card = CardOf(id);
        var (machine, facts) = (card.Machine(), FactsOf(card));
        for (var seed = 0; seed < Programs; seed++)
        {
            var arcs = seed % 3 == 0;
            var program = Program(id, new Random(seed * 7 + (int)id), arcs);
            var run = SimulatedMachine.Run(machine, Encoding.ASCII.GetBytes(program));
            var plain = new PlainMachine(id, facts).Run(program);
            var (x, y, z) = run.End.Exact;
            var off = Math.Abs(x - plain.At[0]) + Math.Abs(y - plain.At[1]) + Math.Abs(z - plain.At[2]);
            Assert.True(off < 1e-6, $"{id}, program {seed}: {x} {y} {z} and {string.Join(' ', plain.At)}\n{program}");
            Assert.True(Math.Abs(run.Filament - plain.Fed) < 1e-6 * Math.Max(1, Math.Abs(plain.Fed)),
                $"{id}, program {seed}: {run.Filament} and {plain.Fed} mm\n{program}");
            // chords of an arc are as fine as each machine likes, and slow down otherwise
            if (!arcs) Assert.True(Math.Abs(run.TotalSeconds - plain.Seconds) < 0.01 * plain.Seconds,
                $"{id}, program {seed}: {run.TotalSeconds} and {plain.Seconds} s\n{program}");
        }
    }
}
