using System.Text;
using MillCard.Core.Documents;
using MillCard.Core.DryRun;
using MillCard.Core.Findings;
using MillCard.Core.Routines.Carrying;
using MillCard.Core.Rules;
using MillCard.Core.Patterns;
using Xunit;

namespace MillCard.Core.Tests;

/// <summary>Every rule about dry runs: a program in which it fires, at its line, and one in which it must not.</summary>
public class RuleTests
{
    private const string Warm = "M140 S60\nM104 S200\nG28\nM190 S60\nM109 S200\nM83\n";
    private const string Layers = "; layers begin\nG90\nM83\nG1 X60 Y60 Z0.2 F3000\nG1 X80 E0.8\nG1 Y80 E0.8\nG1 X60 E0.8\nG1 Y60 "
        + "E0.8\nG1 Z20\nG1 X80 E0.8\n; layers end\n";
    private const string Off = "M104 S0\nM140 S0\nM107\nM84\n";
    private const string Aside = "G1 Z40 F600\nG0 X5 Y155\n";

    private static readonly Card Plain = Cards.Bare(180, 160, 170) with
    {
        Motion = Cards.Dunlin.Motion with
        {
            Axes = new()
            {
                X = new() { MaxSpeed = 180, StepsPerMm = 80, Min = 0, Max = 180 },
                Y = new() { MaxSpeed = 180, StepsPerMm = 80, Min = 0, Max = 160 },
                Z = new() { MaxSpeed = 20, StepsPerMm = 400, Min = 0, Max = 170 }
            },
            StepRate = 100_000
        },
    };

    private static Card On(FlavourId flavour, string? macros = null, bool present = false) =>
        Plain with
        {
            Firmware = Plain.Firmware with
            {
                Flavour = flavour,
                Macros = macros,
                Present = present
        ? ["M73", "M117", "M118", "G10", "G11", "BED_MESH_CALIBRATE", "SET_DUAL_CARRIAGE"] : []
            }
        };

    private const string Warmer = "[gcode_macro JOB_BEGIN]\ndescription: warms up\ngcode:\n  {% set bed = "
        + "params.BED|default(60)|float %}\n  M140 S{bed}\n  {% if bed > 0 %}\n  M190 S{bed}\n  {% endif %}\n  M109 "
        + "S{params.NOZZLE|default(200)}\n\n[extruder]\nrotation_distance: 7.7\n";

    private const string Endless = "[gcode_macro GO_ROUND]\ngcode:\n  G4 P1\n  GO_ROUND\n";

    /// <summary>Lines of 10.05 mm to and fro after a way to where they begin, so much filament each.</summary>
    private static string Lines(int count, double filament) => "G0 X30 Y19\n" + string.Concat(Enumerable.Range(0, count).Select(i =>
        FormattableString.Invariant($"G1 X{20 + 10 * (i % 2)} Y{20 + i} E{filament}\n")));

    /// <summary>Lines that, read as positions, pull filament back on every second one but the first, and more that do not.</summary>
    private static string Sawtooth(int teeth, int more) => "G1 X5 Y5 E0.1 F3000\n"
        + string.Concat(Enumerable.Range(0, teeth).Select(i => $"G1 X{20 + i} Y20 E0.3\nG1 X{20 + i} Y40 E0.5\n"))
        + string.Concat(Enumerable.Range(0, more).Select(i => FormattableString.Invariant($"G1 X{60 + i} Y50 E{0.6 + 0.1 * i:0.#}\n")));

    /// <summary>Many short moves along a line.</summary>
    private static string Crumbs(double each) => string.Concat(Enumerable.Range(1, 120).Select(i =>
        string.Create(System.Globalization.CultureInfo.InvariantCulture, $"G1 X{i * each:0.###} E0.001 F4800\n")));

    private static readonly Card Klipper = On(FlavourId.Klipper, Warmer);
    private static readonly Card TwoNozzles = Plain with
    {
        Head = Plain.Head with
        {
            Nozzles = [Plain.Head.Nozzles![0],
        Plain.Head.Nozzles[0] with { Id = "n2", Offset = new() { X = 20 } }]
        }
    };

    internal static readonly Dictionary<string, Card> Machines = new()
    {
        ["wide"] = Plain with { Motion = Cards.Bare().Motion },
        ["slow board"] = Plain with
        {
            Motion = Plain.Motion with { StepRate = 10_000 },
            Firmware = Plain.Firmware with { MovesPerSecond = 50 },
        },
        ["weak bed"] = Plain with { Heat = Plain.Heat with { Bed = new() { Best = 71 } } },
        ["RepRapFirmware"] = On(FlavourId.RepRapFirmware),
        ["Klipper without macros"] = On(FlavourId.Klipper),
        ["Klipper"] = Klipper,
        ["Klipper going round"] = On(FlavourId.Klipper, Warmer + Endless),
        ["two nozzles"] = TwoNozzles,
        ["Dunlin"] = Cards.Dunlin,
        ["plain"] = Plain,
        ["unheated"] = Plain with { Envelope = Plain.Envelope with { Heated = false } },
        ["clip"] = Plain with
        {
            Envelope = Plain.Envelope with { KeepOuts = [Cards.Box("clip", KeepOutKind.Obstacle, 0, 60, 12, 20, 6)] },
        },
        ["thick filament"] = Plain with
        {
            Head = Plain.Head with
            {
                Nozzles = [
            Plain.Head.Nozzles![0] with { FilamentDiameter = 2.85 }]
            }
        },
        ["two filaments"] = TwoNozzles with
        {
            Head = TwoNozzles.Head with
            {
                Nozzles = [TwoNozzles.Head.Nozzles![0],
            TwoNozzles.Head.Nozzles[1] with { FilamentDiameter = 2.85 }]
            }
        },
        ["delta"] = Plain with
        {
            Envelope = Plain.Envelope with { Origin = new() { X = 90, Y = 80 } },
            Motion = new() { Layout = MotionLayout.Delta, Axes = new() { X = new() { Max = 90 }, Z = new() { Max = 170 } } },
        },
        ["carriages"] = Pattern.All.Single(p => p.Id == "two-carriages").Card with { Firmware = new() { Flavour = FlavourId.Marlin } },
    };

    /// <summary>Rule, machine, a program in which it fires, the line, a program in which it must not.</summary>
    public static TheoryData<string, string, string, int, string> Cases => new()
    {
        { "move-before-home", "plain", "G1 X10 F600\nG28\n", 1, "G28\nG1 X10 F600\n" },
        { "level-before-home", "plain", "G29\nG28\n", 1, "G28\nG29\n" },
        { "mesh-dropped", "plain", "G28\nG29\nG28\n" + Warm, 3, "G28\nG29\nG28\nM420 S1\n" },
        { "outside-travel", "plain", "G28\nG1 X182 F600\n", 2, "G28\nG1 X180 F600\n" },
        { "below-bed", "plain", "G28\nG1 Z-0.5 F600\n", 2, "G28\nG1 Z0 F600\n" },
        { "through-keep-out", "Dunlin", "G28\nG1 X90 Y70 Z5.9\nG1 X0\n", 3, "G28\nG1 Z20\nG1 X0\n" },
        { "prime-line-off-bed", "wide", Warm + "G1 X200 Y5 Z0.3 F3000\nG1 X190 E3\n" + Off, 8,
            Warm + "G1 X100 Y5 Z0.3 F3000\nG1 X90 E3\n" + Off },
        { "prime-line-under-part", "plain", Warm + "G1 X50 Y60 Z0.3 F3000\nG1 X90 E3\n" + Layers + Aside + Off, 8,
            Warm + "G1 X50 Y5 Z0.3 F3000\nG1 X90 E3\n" + Layers + Aside + Off },
        { "end-drags-over-part", "plain", Warm + Layers + "G0 X5 Y155\n" + Aside + Off, 18, Warm + Layers + Aside + Off },
        { "end-above-travel", "plain", Warm + Layers + "G1 Z171 F600\n" + Off, 18, Warm + Layers + "G1 Z170 F600\n" + Off },
        { "home-onto-part", "plain", Warm + Layers + "G28\n" + Off, 18, Warm + Layers + "G28 X Y\n" + Off },
        { "head-left-on-part", "plain", Warm + Layers + Off, 21, Warm + Layers + Aside + Off },
        { "in-the-way-at-the-end", "plain", Warm + Layers + "G1 Z30 F600\n" + Off, 22, Warm + Layers + Aside + Off },
        { "geometry-changed-after-home", "plain", "G28\nM206 X5\n" + Warm.Replace("G28\n", "") + "G1 X9 E1\n", 2,
            "M206 X5\n" + Warm + "G1 X9 E1\n" },
        { "line-without-effect", "plain", "M141 S50\n", 1, "M140 S50\n" },
        { "speed-over-limit", "plain", "G28\nG1 X100 F12000\n", 2, "G28\nG1 X100 F10800\n" },
        { "moves-too-quick", "slow board", "G28\nM83\n" + Crumbs(0.1), 3, "G28\nM83\n" + Crumbs(1.4) },
        { "step-rate", "slow board", "G28\nG1 X100 F9000\n", 2, "G28\nG1 X100 F7000\n" },
        { "relative-left-on", "plain", "G28\nG91\nG1 X5 F600\n", 2, "G28\nG91\nG1 X5 F600\nG90\n" },
        { "head-hits-print", "plain", Warm + "G1 X20 Y20 Z5\nG1 X40 E1\nG1 Y30 E1\nG1 X60\nG1 Z1\nG1 X30 Y25\n" + Off, 12,
            Warm + "G1 X20 Y20 Z5\nG1 X40 E1\nG1 Y30 E1\nG1 X60\nG1 Z6\nG1 X30 Y25\n" + Off },
        { "target-over-rating", "plain", "M104 S265\n", 1, "M104 S255\n" },
        { "wait-never-ends", "weak bed", "M190 S85\n", 1, "M190 S70\n" },
        { "wait-does-not-wait", "plain", "M109 S240\nM109 S200\n", 2, "M109 S200\nM109 S240\n" },
        { "cold-extrusion", "plain", "G28\nM83\nG1 X20 E2\n", 3, Warm + "G1 X20 E2\n" },
        { "no-wait-before-extrusion", "plain", "G28\nM104 S240\nG4 S75\nG1 X20 E2\n", 4, Warm + "G1 X20 E2\n" },
        { "hot-and-idle", "plain", "M109 S200\nM190 S90\nG28\nM83\nG1 X20 E2\n", 2,
            "M104 S150\nM190 S90\nG28\nM109 S200\nM83\nG1 X20 E2\n" },
        { "left-to-chance", "plain", "G28\nM104 S200\nM190 S60\nM83\nG1 X20 E2\n", 5,
            "G28\nM104 S200\nM190 S60\nM109 S200\nM83\nG1 X20 E2\n" },
        { "bed-still-cold", "plain", "M140 S60\nM109 S200\nG28\nM83\nG1 X20 E2\n", 5,
            "M140 S60\nM109 S200\nM190 S60\nG28\nM83\nG1 X20 E2\n" },
        { "serial-heating", "plain", "M190 S60\nM109 S200\n", 1, "M104 S150\nM190 S60\nM109 S200\n" },
        { "heated-twice", "Klipper", "M190 S60\nJOB_BEGIN BED=60 NOZZLE=200\n", 1, "JOB_BEGIN BED=60 NOZZLE=200\n" },
        { "nozzle-left-on", "plain", "M104 S200\n", 1, "M104 S200\nM104 S0\n" },
        { "bed-left-on", "plain", "M140 S60\n", 1, "M140 S60\nM140 S0\n" },
        { "fan-left-on", "plain", "M106 S255\n", 1, "M106 S255\nM107\n" },
        { "motors-left-on", "plain", Warm + "G1 X20 E2\nM104 S0\n", 8, Warm + "G1 X20 E2\n" + Off },
        { "redundant-dwell-at-end", "plain", Warm + Layers + Aside + "G4 S60\n" + Off, 20, Warm + Layers + Aside + Off + "G4 S1\n" },
        { "mode-mismatch", "plain", Warm + "G1 X20 E100 F600\nG1 X30 E100.4\nG1 X40 E100.8\nG1 X50 E101.2\n" + Off, 7,
            Warm.Replace("M83", "M82") + "G1 X20 E1 F600\nG1 X30 E1.5\nG1 X40 E2\nG1 X50 E2.5\n" + Off },
        { "mode-mismatch", "plain", Warm.Replace("M83", "M82")
            + "G1 X20 E0.4 F600\nG1 X30 E0.5\nG1 X40 E0.3\nG1 X50 E0.5\nG1 X60 E0.2\nG1 X50 E0.5\n" + Off, 7,
            Warm + "G1 X20 E0.4 F600\nG1 X21 E-0.5\nG1 E0.5\nG1 X40 E0.3\nG1 X41 E-0.5\nG1 E0.5\nG1 X50 E0.2\n" + Off },
        { "filament-ends-unbalanced", "plain", Warm + "G1 E5 F300\nG1 E-2\n" + Layers + Off, 8,
            Warm + "G1 E5 F300\nG1 E-2\nG1 E2\n" + Layers + Off },
        { "flow-over-limit", "plain", Warm + "G1 X20 E1 F600\nG1 X70 E4 F6000\n" + Off, 8,
            Warm + "G1 X20 E1 F600\nG1 X70 E2 F3000\n" + Off },
        // 3 % are allowed over 11 mm³/s: at 60 mm/s over 50 mm, 1.75 mm filament of 3.926 mm
        { "flow-over-limit", "plain", Warm + "G1 X20 E1 F600\nG1 X70 E3.96 F3600\n" + Off, 8,
            Warm + "G1 X20 E1 F600\nG1 X70 E3.89 F3600\n" + Off },
        { "feed-of-the-other-nozzle", "two nozzles", Warm + "T1\nG1 X30 E2\n" + Off, 8, Warm + "T0\nG1 X30 E2\n" + Off },
        { "filament-diameter-mismatch", "plain", "M200 D2.85\n", 1, "M200 D1.75\n" },
        { "unknown-command", "plain", "M9999\n", 1, "M105\n" },
        { "macro-calls-itself", "Klipper going round", "GO_ROUND\n", 1, "JOB_BEGIN\n" },
        { "unknown-macro", "Klipper", "BEGIN_JOB\n", 1, "JOB_BEGIN\n" },
        { "wrong-unit", "RepRapFirmware", "M203 X180 Y180\n", 1, "M203 X10800 Y10800\n" },
        { "parameter-range", "plain", "M106 S300\nM107\n", 1, "M106 S255\nM107\n" },
        { "line-too-long", "plain", "M117 " + new string('x', 100) + "\n", 1, "G28 ; " + new string('x', 100) + "\n" },
        { "not-ascii", "plain", "M117 Möwe\n", 1, "G28 ; Möwe\n" },
        { "tool-not-there", "plain", "T1\n", 1, "T0\n" },
        { "macro-parameter-unknown", "Klipper", "JOB_BEGIN BEDS=60\n", 1, "JOB_BEGIN BED=60\n" },
        { "setting-overridden", "plain", "M203 X250\n", 1, "M203 X180\n" },
        { "tuning-values-in-start", "plain", "M301 P20 I1 D80\n", 1, "M105\n" },
        { "carriage-mode-left-on", "plain", "M605 S2 X80\n", 1, "M605 S2 X80\nM605 S1\n" },
        { "carriages-meet", "carriages", "G28\nM605 S2 X50\nG1 X20 Y50 F3000\nM605 S1\n", 3,
            "G28\nM605 S2 X110\nG1 X20 Y50 F3000\nM605 S1\n" },
        { "mesh-dropped", "plain", "M420 S1\nG28\n" + Warm, 2, "G28\nM420 S1\n" },
        { "head-hits-print", "plain", Warm + "G1 X10 Y20 Z0.3\nG1 X60 E3\nG1 Z5\nG1 X15 Y20 Z0.2\n" + Off, 10,
            Warm + "G1 X10 Y20 Z0.3\nG1 X60 E3\nG1 Z5\nG1 X70 Y40\nG1 X100 Y60 Z0.2\n" + Off },
        { "head-hits-print", "plain", Warm + "G1 X10 Y20 Z1\nG1 X60 E9\nG1 Z0.2\nG1 X10\n" + Off, 10,
            Warm + "G1 X10 Y20 Z0.3\nG1 X60 E3\nG1 Z0.2\nG1 X90\n" + Off },
        { "not-followed", "plain", "G28\nG42 I1 J1\n", 2, "G28\n" },
        { "flavour-cannot", "Klipper without macros", "BED_MESH_CALIBRATE\n", 1, "G28\n" },
    };

    private const string Two = Warm + "G1 X20 E2\nG1 X30 E2\n";

    /// <summary>The same at a rule's bounds: a program that is just over one, and one that just is not.</summary>
    public static TheoryData<string, string, string, int, string> Bounds => new()
    {
        { "outside-travel", "plain", "G28\nG1 X180.015 F600\n", 2, "G28\nG1 X180.005 F600\n" },
        { "outside-travel", "plain", "G28\nG1 Y-0.015 F600\n", 2, "G28\nG1 Y-0.005 F600\n" },
        { "outside-travel", "plain", Warm + "G1 Z170.015 F600\n", 7, Warm + Layers + "G1 Z171 F600\n" },
        { "outside-travel", "delta", "G28\nG1 X63.65 Y63.65 F600\n", 2, "G28\nG1 X63.64 Y63.64 F600\n" },
        { "carriages-meet", "carriages", "G28\nM605 S2 X59.985\nG1 X60 Y50 F3000\nM605 S1\n", 3,
            "G28\nM605 S2 X59.995\nG1 X60 Y50 F3000\nM605 S1\n" },
        { "below-bed", "plain", "G28\nG1 Z-0.008 F600\n", 2, "G28\nG1 Z-0.005 F600\n" },
        { "end-above-travel", "plain", Warm + Layers + "G1 Z170.018 F600\n" + Off, 18, Warm + Layers + "G1 Z170.005 F600\n" + Off },
        { "end-drags-over-part", "plain", Warm + Layers + "G1 Z20.1\nG0 X5 Y155\n" + Off, 19,
            Warm + Layers + "G1 Z20.2\nG0 X5 Y155\n" + Off },
        { "end-drags-over-part", "plain", Warm + Layers + "G1 Z20.15\nG0 X5 Y155\n" + Off, 19,
            Warm + Layers + "G1 Z20.16\nG0 X5 Y155\n" + Off },
        { "end-drags-over-part", "plain", Warm + Layers + "G1 X78.5\n" + Aside + Off, 18, Warm + Layers + "G1 X79.1\n" + Aside + Off },
        // a wipe back along the last line while filament is pulled back
        { "end-drags-over-part", "plain", Warm + Layers + "G1 X67 E-1\n" + Aside + Off, 18, Warm + Layers + "G1 X69 E-1\n" + Aside + Off },
        // from before it to behind it, from right to left, and down into it
        { "through-keep-out", "Dunlin", "G28\nG1 X6 Y10 Z30\nG1 Z3\nG1 Y130\n", 4, "G28\nG1 X90 Y10 Z30\nG1 Z3\nG1 Y130\n" },
        { "through-keep-out", "Dunlin", "G28\nG1 X90 Y70 Z3\nG1 X10\n", 3, "G28\nG1 X90 Y130 Z3\nG1 X60\n" },
        { "through-keep-out", "Dunlin", "G28\nG1 X6 Y70 Z30\nG1 Z5\n", 3, "G28\nG1 X6 Y70 Z30\nG1 Z29\n" },
        { "prime-line-off-bed", "wide", Warm + "G1 X200 Y5 Z1.9 F3000\nG1 X190 E3\n" + Off, 8,
            Warm + "G1 X200 Y5 Z2.1 F3000\nG1 X190 E3\n" + Off },
        { "prime-line-under-part", "plain", Warm + "G1 X50 Y60 Z0.3 F3000\nG1 X90 E3\n" + Layers.Replace("Z0.2", "Z0.9") + Aside + Off, 8,
            Warm + "G1 X50 Y60 Z0.3 F3000\nG1 X90 E3\n" + Layers.Replace("Z0.2", "Z1.1") + Aside + Off },
        { "head-left-on-part", "plain", Warm + Layers + "G1 X79.1\n" + Off, 22, Warm + Layers + "G1 X78.5\n" + Off },
        { "head-left-on-part", "plain", Warm + Layers + "G1 Z20.9\n" + Off, 22, Warm + Layers + "G1 Z21.5\n" + Off },
        { "head-left-on-part", "plain", Warm + Layers + "M104 S0\nM109 R110\n" + Off, 23, Warm + Layers + "M104 S0\nM109 R90\n" + Off },
        // the other nozzle is cold
        { "head-left-on-part", "two nozzles", Warm + Layers + Off, 21, Warm + Layers + Aside + Off },
        { "in-the-way-at-the-end", "plain", Warm + Layers + "G1 Z21.5 F600\n" + Off, 22, Warm + Layers + "G1 Z20.8 F600\n" + Off },
        { "in-the-way-at-the-end", "plain", Warm + Layers + "G1 Z59 F600\n" + Off, 22, Warm + Layers + "G1 Z60.5 F600\n" + Off },
        { "in-the-way-at-the-end", "plain", Warm + Layers + "G1 Z30 F600\nG1 X60.5 Y79.5\n" + Off, 23,
            Warm + Layers + "G1 Z30 F600\nG1 X59.5 Y79.5\n" + Off },
        { "in-the-way-at-the-end", "plain", Warm + Layers + "G1 Z30 F600\nG1 X80 Y80\n" + Off, 23,
            Warm + Layers + "G1 Z30 F600\nG1 X80.1 Y80\n" + Off },
        { "in-the-way-at-the-end", "plain", Warm + Layers + "G1 Z30 F600\nG1 X60 Y60\n" + Off, 23,
            Warm + Layers + "G1 Z30 F600\nG1 X60 Y59.9\n" + Off },
        { "in-the-way-at-the-end", "plain", Warm + Layers + "G1 Z30 F600\nG1 X79.5 Y60.5\n" + Off, 23,
            Warm + Layers + "G1 Z30 F600\nG1 X79.5 Y80.5\n" + Off },
        { "redundant-dwell-at-end", "plain", Warm + Layers + Aside + "G4 S5\n" + Off, 20, Warm + Layers + Aside + "G4 S4\n" + Off },
        // 1 % over 180 mm/s is allowed
        { "speed-over-limit", "plain", "G28\nG1 X100 F10950\n", 2, "G28\nG1 X100 F10900\n" },
        { "speed-over-limit", "plain", "G28\nG1 X0.015 F12000\n", 2, "G28\nG1 X0.008 F12000\n" },
        { "speed-over-limit", "plain", "G28\nG1 X40 Y40 F16000\n", 2, "G28\nG1 X40 Y40 F15000\n" },
        { "speed-over-limit", "plain", "G28\nG1 Y0.5 F12000\n", 2, "G28\nG1 Y0.5 F10800\n" },
        { "speed-over-limit", "plain", "G28\nG1 Z0.5 F1300\n", 2, "G28\nG1 Z0.5 F1200\n" },
        { "feed-of-the-other-nozzle", "two nozzles", "G28\nM104 T1 S200\nM109 T1 S200\nM83\nG1 X20 E2\n", 5,
            "G28\nM104 T1 S200\nM109 T1 S200\nM83\nT1\nG1 X20 E2\n" },
        { "step-rate", "slow board", "G28\nG1 Y100 F9000\n", 2, "G28\nG1 X50 Y50 F9000\n" },
        // an axis goes no faster than it can
        { "step-rate", "slow board", "G28\nG1 X100 Z10 F7560\n", 2, "G28\nG1 X100 Z10 F7515\n" },
        { "step-rate", "slow board", "G28\nG1 X100 F20000\n", 2, "G28\nG1 Z10 F1560\n" },
        { "step-rate", "slow board", "G28\nG1 X100 F7560\n", 2, "G28\nG1 X100 F7440\n" },
        { "setting-overridden", "plain", "M203 X180.27\n", 1, "M203 X180.1\n" },
        { "target-over-rating", "plain", "M104 S261\n", 1, "M104 S260\n" },
        // steady at 200 °C it stands up to 1 °C beside it
        { "wait-does-not-wait", "plain", "M109 S200\nG4 S120\nM109 S195\n", 3, "M109 S200\nG4 S120\nM109 S199.5\n" },
        { "cold-extrusion", "plain", "G28\nM83\nM109 S168\nG1 X20 E2\n", 4, "G28\nM83\nM109 S172\nG4 S60\nG1 X20 E2\n" },
        { "serial-heating", "plain", "M190 S28\nM109 S200\n", 1, "M190 S23\nM109 S200\n" },
        // hot for two minutes while the other one prints, and just in time
        { "hot-and-idle", "two nozzles", "G28\nM83\nM109 S200\nG1 X20 E2\nM104 T1 S200\nG4 S300\nT1\nG1 X40 E2\n", 6,
            "G28\nM83\nM109 S200\nG1 X20 E2\nG4 S240\nM104 T1 S200\nM109 T1 S200\nT1\nG1 X40 E2\n" },
        { "filament-ends-unbalanced", "plain", Warm + "G1 E5 F300\nG1 E-0.07\n" + Layers + Off, 8,
            Warm + "G1 E5 F300\nG1 E-0.04\n" + Layers + Off },
        { "filament-ends-unbalanced", "plain", Warm + "G1 E5 F300\nG1 E-2\nG1 E0.5\n" + Layers + Off, 8,
            Warm + "G1 E5 F300\nG1 E-2\nG1 E0.5\nG1 E1.5\n" + Layers + Off },
        { "filament-diameter-mismatch", "plain", "M200 D1.82\n", 1, "M200 D1.79\n" },
        { "relative-left-on", "plain", Warm + "G91\n" + Layers.Replace("G90\n", "") + "G90\n" + Off, 7,
            Warm + "G91\nG90\n" + Layers + Off },
        // a jump is more than 1 mm, too; three of them tell, or one in ten of all moves that lay
        { "mode-mismatch", "plain", Warm + "G1 X20 E100 F600\nG1 X30 E100.4\nG1 X40 E100.8\n" + Off, 7,
            Warm + "G1 X20 E100 F600\nG1 X30 E100.4\nG1 X40 E0.8\n" + Off },
        { "mode-mismatch", "plain", Warm + Lines(26, 0.4) + Lines(3, 9) + Off, 35, Warm + Lines(27, 0.4) + Lines(3, 9) + Off },
        // 0.4 mm of bore may lay 0.798 mm of filament on a mm of way
        { "mode-mismatch", "plain", Warm + Lines(3, 8.1) + Off, 8, Warm + Lines(3, 7.9) + Off },
        { "mode-mismatch", "plain", Warm.Replace("M83", "M82") + Sawtooth(4, 5) + Off, 7,
            Warm.Replace("M83", "M82") + Sawtooth(4, 6) + Off },
        { "wrong-unit", "plain", "M203 X2001\n", 1, "M203 X2000 Y10\n" },
        { "wrong-unit", "plain", "M203 Y2001\n", 1, "M203 Z100 E300\n" },
        { "wrong-unit", "plain", "M203 Z101\n", 1, "M203 Z0.5 E2\n" },
        { "wrong-unit", "plain", "M203 E301\n", 1, "M203 X0\n" },
        { "wrong-unit", "RepRapFirmware", "M203 X599\n", 1, "M203 X600\n" },
        { "setting-overridden", "plain", "M92 X80.2\n", 1, "M92 X80 Z400\n" },
        { "motors-left-on", "plain", Two + "M104 S0\n", 9, Two + "M104 S0\nM18\n" },
        { "head-hits-print", "plain", Warm + "G1 X20 Y20 Z5\nG1 X60 E1\nG1 X20 Z4.97\n" + Off, 9,
            Warm + "G1 X20 Y20 Z5\nG1 X60 E1\nG1 X20 Z4.985\n" + Off },
        // up to 15 mm straight up are usual before homing
        { "move-before-home", "plain", "G1 Z15\nG28\n", 1, "G28\nG1 Z15\n" },
        { "move-before-home", "plain", "G1 Z15.1\nG28\n", 1, "G28\nG1 Z15.1\n" },
        { "move-before-home", "plain", "G1 Z10\nG1 Z4\nG28\n", 2, "G28\nG1 Z10\nG1 Z4\n" },
        { "move-before-home", "plain", "G1 X5 Z10\nG1 Y5\nG28\n", 1, "G28\nG1 X5 Z10\n" },
        { "move-before-home", "plain", "G1 Y5 Z10\nG28\n", 1, "G28\nG1 Y5 Z10\n" },
        { "setting-overridden", "plain", Warm + "M203 X250\n" + Layers + Aside + Off, 7,
            Warm + Layers.Replace("; layers end", "M203 X250\n; layers end") + Aside + Off },
        { "line-without-effect", "unheated", "M190 S0\n", 1, "M190 S0.5\n" },
        { "prime-line-off-bed", "wide", Warm + "G1 X200 Y5 Z2 F3000\nG1 X190 E3\nG1 X200 E3\n" + Off, 8,
            Warm + "G1 X200 Y5 Z2.1 F3000\nG1 X190 E3\n" + Off },
        { "prime-line-off-bed", "wide", Warm + "G1 X170 Y5 Z0.3 F3000\nG1 X190 E3\n" + Off, 8,
            Warm + "G1 X170 Y5 Z0.3 F3000\nG1 X179 E3\n" + Off },
        // the clip ends at Y 60; 5 µm of its 6 mm are allowed
        { "through-keep-out", "clip", "G28\nG1 X6 Y100 Z10\nG1 Y40 Z3.9\n", 3, "G28\nG1 X6 Y100 Z10\nG1 Y40 Z4.01\n" },
        { "through-keep-out", "clip", "G28\nG1 Z10\nG1 X6 Y40\nG1 Z3.9\nG1 Y100 Z10\n", 5,
            "G28\nG1 Z10\nG1 X6 Y40\nG1 Z4.01\nG1 Y100 Z10\n" },
        { "through-keep-out", "clip", "G28\nG1 Z5.99\nG1 X6 Y100\n", 3, "G28\nG1 Z5.996\nG1 X6 Y100\nG1 Y40\n" },
        { "mode-mismatch", "thick filament", Warm + Lines(3, 3.1) + Off, 8, Warm + Lines(3, 2.95) + Off },
        { "relative-left-on", "plain", Warm + "G91\nG90\nG91\nM107\n" + Layers.Replace("G90\n", "") + "G90\n" + Off, 9,
            Warm + "G91\nG90\nM107\n" + Layers + Off },
        { "filament-diameter-mismatch", "plain", "M200 D0.9\n", 1, "M200 D0\n" },
        { "filament-diameter-mismatch", "two filaments", "M200 T1 D1.75\n", 1, "M200 T1 D2.85\nM200 T0 D1.75\n" },
        { "unknown-command", "Klipper", "M9999\nM9998\n", 1, "M105\n" },
        { "unknown-command", "plain", "M9998\nM9999\n", 1, "M105\n" },
        { "not-ascii", "plain", "M117 Möwe\nM117 Öl\n", 1, ";Möwe\n" },
        { "prime-line-under-part", "plain", Warm + "G1 X79.5 Y30 Z0.3 F3000\nG1 Y80.5 E3\n" + Layers + Aside + Off, 8,
            Warm + "G1 X81.5 Y30 Z0.3 F3000\nG1 Y80.5 E3\n" + Layers + Aside + Off },
        { "flow-over-limit", "plain", Warm + "G1 X20 Y5 Z0.3 F3000\nG1 X70 E4 F6000\nG1 X20 E4\n" + Off, 8,
            Warm + "G1 X20 Y5 Z0.3 F3000\nG1 X70 E2 F6000\nG1 X20 E2\n" + Off },
        { "wait-does-not-wait", "RepRapFirmware", "M109 S240\nM109 S200\n", 2, "M109 S200\nG4 S120\nM109 S199.5\n" },
    };

    [Theory, MemberData(nameof(Cases)), MemberData(nameof(Bounds))]
    public void A_rule_fires_at_its_line_and_not_without_cause(string rule, string machine, string fires, int line, string fine)
    {
        Assert.Contains((rule, line), Find(fires, Machines[machine]).Select(f => (f.Rule, f.Line ?? 0)));
        Assert.DoesNotContain(rule, Find(fine, Machines[machine]).Select(f => f.Rule));
    }

    /// <summary>What a rule's case cannot be in a second dialect, and why.</summary>
    private static readonly Dictionary<string, string> OneDialect = new()
    {
        ["mesh-dropped"] = "only Marlin forgets the mesh when it homes",
        ["unknown-macro"] = "only Klipper calls macros by names of their own",
        ["macro-parameter-unknown"] = "only Klipper's macros read parameters by name",
        ["line-too-long"] = "RepRapFirmware's lines may be as long as these",
    };

    private const string Files = "[warm.g]\nM190 S60\nM109 S200\n[round.g]\nG4 P1\nM98 P\"round.g\"\n";

    /// <summary>Cases that are written another way in a second dialect: rule, dialect, a program in which it fires, the line, one in which
    /// it must not.</summary>
    private static readonly Dictionary<string, (FlavourId Dialect, string Fires, int Line, string Fine)> Elsewhere = new()
    {
        ["heated-twice"] = (FlavourId.RepRapFirmware, "M190 S60\nM98 P\"warm.g\"\n", 1, "M98 P\"warm.g\"\n"),
        ["macro-calls-itself"] = (FlavourId.RepRapFirmware, "M98 P\"round.g\"\n", 1, "M98 P\"warm.g\"\n"),
        ["wrong-unit"] = (FlavourId.Marlin, "M203 Z600\n", 1, "M203 Z10\n"),
        ["flavour-cannot"] = (FlavourId.Marlin, "G12\n", 1, "G28\n"),
        ["carriage-mode-left-on"] = (FlavourId.Klipper, "SET_DUAL_CARRIAGE CARRIAGE=1 MODE=COPY\n", 1,
            "SET_DUAL_CARRIAGE CARRIAGE=1 MODE=COPY\nSET_DUAL_CARRIAGE CARRIAGE=0 MODE=PRIMARY\n"),
        ["line-without-effect"] = (FlavourId.RepRapFirmware, "M141 S50\n", 1, "M140 S50\n"),
        ["geometry-changed-after-home"] = (FlavourId.RepRapFirmware, "G28\nM666 X1\n" + Warm.Replace("G28\n", "") + "G1 X9 E1\n", 2,
            "M666 X1\n" + Warm + "G1 X9 E1\n"),
        ["tuning-values-in-start"] = (FlavourId.Klipper, "SAVE_CONFIG\n", 1, "M105\n"),
        ["setting-overridden"] = (FlavourId.RepRapFirmware, "M203 X15000\n", 1, "M203 X10800\n"),
        ["carriages-meet"] = (FlavourId.Klipper,
            "G28\nSET_DUAL_CARRIAGE CARRIAGE=1 MODE=MIRROR\nG1 X130 Y50 F3000\nSET_DUAL_CARRIAGE CARRIAGE=0 MODE=PRIMARY\n", 3,
            "G28\nSET_DUAL_CARRIAGE CARRIAGE=1 MODE=MIRROR\nG1 X20 Y50 F3000\nSET_DUAL_CARRIAGE CARRIAGE=0 MODE=PRIMARY\n"),
        ["not-followed"] = (FlavourId.RepRapFirmware, "G28\nG1 X{sensors.analog[3].lastReading}\n", 2, "G28\nG1 X{10 + 5}\n"),
        ["unknown-command"] = (FlavourId.Klipper, "M9999\n", 1, "M105\n"),
        ["parameter-range"] = (FlavourId.Klipper, "M106 S300\nM107\n", 1, "M106 S255\nM107\n"),
        ["not-ascii"] = (FlavourId.Klipper, "M117 Möwe\n", 1, "G28 ; Möwe\n"),
        ["step-rate"] = (FlavourId.RepRapFirmware, "G28\nG1 X100 F9000\n", 2, "G28\nG1 X100 F7000\n"),
        ["wait-never-ends"] = (FlavourId.Klipper, "M190 S85\n", 1, "M190 S70\n"),
    };

    public static TheoryData<string> Ruled => [.. Cases.Select(c => c.Data.Item1).Distinct().Where(r => !OneDialect.ContainsKey(r))];

    [Theory, MemberData(nameof(Ruled))]
    public void A_rule_holds_in_a_second_dialect(string rule)
    {
        var (_, machine, fires, line, fine) = Cases.First(c => c.Data.Item1 == rule).Data;
        var card = Machines[machine];
        if (Elsewhere.TryGetValue(rule, out var other))
        {
            var there = card with
            {
                Firmware = card.Firmware with
                {
                    Flavour = other.Dialect,
                    Macros = other.Dialect == FlavourId.RepRapFirmware ? Files : null
                }
            };
            Assert.NotEqual(card.Firmware.Flavour, other.Dialect);
            Assert.Contains((rule, other.Line), Find(other.Fires, there).Select(f => (f.Rule, f.Line ?? 0)));
            Assert.DoesNotContain(rule, Find(other.Fine, there).Select(f => f.Rule));
            return;
        }
        foreach (var dialect in new[] { FlavourId.RepRapFirmware, FlavourId.Smoothieware })
        {
            var there = card with { Firmware = card.Firmware with { Flavour = dialect } };
            var (carried, right) = (Carry.Of(fires, card.Firmware.Flavour!.Value, dialect),
                Carry.Of(fine, card.Firmware.Flavour.Value, dialect));
            var at = carried.Take(line - 1).Sum(l => l.After.Split('\n').Length) + 1;
            Assert.Contains((rule, at), Find(string.Join('\n', carried.Select(l => l.After)), there).Select(f => (f.Rule, f.Line ?? 0)));
            Assert.DoesNotContain(rule, Find(string.Join('\n', right.Select(l => l.After)), there).Select(f => f.Rule));
        }
    }

    [Fact]
    public void No_rule_is_left_without_a_case() =>
        Assert.Empty(RuleBook.ForDryRuns.Select(r => r.Id.Name).Except(Cases.Select(c => c.Data.Item1)));

    [Theory, MemberData(nameof(Cases))]
    public void Taking_the_remedies_silences_the_rule(string rule, string machine, string fires, int line, string fine)
    {
        _ = (line, fine);
        var (program, card) = (fires, Machines[machine]);
        for (var round = 0; round < 8 && Find(program, card)
            .FirstOrDefault(f => f.Rule == rule && f.Remedy is not null) is { } finding; round++)
        {
            if (finding.Remedy!.Edits.Any(e => e.How == EditKind.SetFact)) return;
            program = Edited(program, finding.Remedy.Edits).Replace("{{ clear.z | mm }}", "60").Replace("{{ heat.nozzle }}", "240")
                .Replace("{{ heat.standby }}", "150").Replace("{{ heat.bed }}", "60")
                .Replace("{{ bed.min_x | plus: 5 | mm }}", "5").Replace("{{ bed.max_y | minus: 5 | mm }}", "155");
        }
        Assert.DoesNotContain(rule, Find(program, card).Where(f => f.Remedy is not null).Select(f => f.Rule));
    }

    [Fact]
    public void A_delta_is_left_sideways_by_its_radius_and_upwards_by_its_height() =>
        Assert.Equal(["The move ends 100 mm from the centre; the machine reaches 90. 2 moves do.",
            "The move ends at Z 180; the machine reaches 0 to 170."],
            Find("G28\nG1 X60 Y80 F600\nG1 X-80 Y-60\nG1 X0 Y0\nG1 Z180\n", Machines["delta"])
                .Where(f => f.Rule == "outside-travel").Select(f => f.Message));

    [Theory]
    [InlineData("T1\nG1 X210\nT0\nG1 X190\n", "X 230; the machine reaches 20 to 200. 2 moves do.")]
    [InlineData("G1 X190\nT1\nG1 X210\n", "X 190; the machine reaches 0 to 180. 2 moves do.")]
    public void What_a_nozzle_reaches_is_said_of_the_one_that_goes_too_far_first(string moves, string said) =>
        Assert.Equal("The move ends at " + said,
            Assert.Single(Find("G28\n" + moves, TwoNozzles), f => f.Rule == "outside-travel").Message);

    [Fact]
    public void A_board_may_get_as_many_moves_a_second_as_it_takes_and_sixteen_that_it_has_read_ahead()
    {
        var program = Encoding.UTF8.GetBytes("G28\nM83\n" + Crumbs(0.2));
        var busiest = BusiestSecond.Of(SimulatedMachine.Run(Plain.Machine(), program));
        bool Stutters(int most)
        {
            var machine = (Plain with { Firmware = Plain.Firmware with { MovesPerSecond = most } }).Machine();
            return RuleBook.Check(SimulatedMachine.Run(machine, program), machine).Any(f => f.Rule == "moves-too-quick");
        }
        Assert.False(Stutters(busiest.Moves - 16));
        Assert.True(Stutters(busiest.Moves - 17));
    }

    [Fact]
    public void A_macro_is_stepped_into()
    {
        var run = SimulatedMachine.Run(Klipper.Machine(), Encoding.UTF8.GetBytes("JOB_BEGIN BED=55\nG28\n"));
        var call = Assert.Single(run.MacroCalls);
        Assert.Equal(["M140 S55", "M190 S55", "M109 S200"], call.Steps.Select(s => s.Text));
        Assert.Equal(call.Steps.Sum(s => s.Seconds), run.Seconds[0], 6);
        Assert.True(run.Bed!.At(run.Starts[1]) > 50 && run.Nozzle.At(run.Starts[1]) > 195);
        Assert.Contains("runs JOB_BEGIN", run.EffectOf(0));
    }

    [Fact]
    public void A_name_with_its_words_swapped_is_recognised()
    {
        // it stands twice: told and mended where it stands first
        var finding = Assert.Single(Find("BEGIN_JOB BED=60\nG28\nBEGIN_JOB BED=70\n", Klipper), f => f.Rule == "unknown-macro");
        Assert.Contains("Did you mean JOB_BEGIN?", finding.Message);
        Assert.Equal(1, finding.Line);
        Assert.Equal("JOB_BEGIN BED=60", finding.Remedy!.Edits[0].Text);
        Assert.Equal(1, finding.Remedy.Edits[0].Line);
    }

    [Fact]
    public void A_slip_inside_a_macro_is_told_and_leaves_the_line_that_calls_it_alone()
    {
        var card = On(FlavourId.Klipper, Warmer + "\n[gcode_macro WARM_ALL]\ngcode:\n  BEGIN_JOB BED=60\n");
        var finding = Assert.Single(Find("WARM_ALL\n", card), f => f.Rule == "unknown-macro");
        Assert.Contains("Did you mean JOB_BEGIN? It stands in WARM_ALL.", finding.Message, StringComparison.Ordinal);
        Assert.Null(finding.Remedy);
    }

    [Fact]
    public void A_wait_with_R_ends_never_where_R_is_not_read()
    {
        // trade rule: on Klipper a wait's R is not read, S counts as 0
        var run = SimulatedMachine.Run(Klipper.Machine(), "M109 R180\n"u8.ToArray());
        Assert.Equal(0, run.Nozzle.Target);
        Assert.Equal(0, run.TotalSeconds);
    }

    [Fact]
    public void What_is_left_to_chance_is_told_by_the_moment_whatever_is_switched_off_later()
    {
        const string Program = "G28\nM104 S200\nM190 S60\nM83\nG1 X20 E2\n";
        string Said(string gcode) => Assert.Single(Find(gcode, Plain), f => f.Rule == "left-to-chance").Message;
        Assert.Matches(@"near 200 °C \d+ s before", Said(Program));
        Assert.Equal(Said(Program), Said(Program + "M104 S0\nM140 S0\n"));
    }

    [Fact]
    public void A_size_written_as_a_number_is_noted_and_its_name_offered()
    {
        var card = Plain with { Routines = new() { Start = "G28\nG1 X180 Y{{ bed.max_y }} F6000\nG1 X12" } };
        var finding = Assert.Single(RuleBook.Check(card), f => f.Rule == "hard-coded-size");
        Assert.Equal(("/routines/start", 2, "G1 X{{ bed.max_x }} Y{{ bed.max_y }} F6000"),
            (finding.Pointer, finding.Line, finding.Remedy!.Edits[0].Text));
    }

    internal static Finding[] Find(string gcode, Card card) =>
        Spoken.AllKept(RuleBook.Check(SimulatedMachine.Run(card.Machine(), Encoding.UTF8.GetBytes(gcode)), card.Machine()));

    private static string Edited(string program, IReadOnlyList<Edit> edits)
    {
        var lines = program.TrimEnd('\n').Split('\n').ToList();
        foreach (var edit in edits.OrderByDescending(e => e.Line))
            switch (edit.How)
            {
                case EditKind.InsertBefore: lines.Insert(edit.Line!.Value - 1, edit.Text!); break;
                case EditKind.InsertAfter: lines.Insert(Math.Min(lines.Count, edit.Line!.Value), edit.Text!); break;
                case EditKind.Replace: lines[edit.Line!.Value - 1] = edit.Text!; break;
                case EditKind.Remove: lines.RemoveAt(edit.Line!.Value - 1); break;
            }
        return string.Join('\n', lines) + "\n";
    }
}
