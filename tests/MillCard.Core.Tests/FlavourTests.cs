using System.Text;
using MillCard.Core.Documents;
using MillCard.Core.DryRun;
using MillCard.Core.Findings;
using MillCard.Core.Flavours;
using MillCard.Core.Macros;
using MillCard.Core.Slicing;
using Xunit;

namespace MillCard.Core.Tests;

public class FlavourTests
{
    public static TheoryData<FlavourId> All => [.. Enum.GetValues<FlavourId>()];

    /// <summary>Meanings that change nothing which the simulated machine shows; all others must do something or be asked for by a rule.</summary>
    private static readonly Meaning[] WithoutEffect =
    [
        Meaning.None, Meaning.Mesh, Meaning.MeshDrop, Meaning.Park, Meaning.WorkOffset, Meaning.BabyStep, Meaning.ToolOffset, Meaning.StepsPerMm, Meaning.PressureCompensation,
        Meaning.FilamentDiameter, Meaning.ColdExtrusion, Meaning.SoftEndStops, Meaning.Geometry, Meaning.Tuning, Meaning.PartLabel, Meaning.MacroCall,
    ];

    [Theory, MemberData(nameof(All))]
    public void The_dry_run_understands_every_command_of_a_table(FlavourId id)
    {
        var card = Cards.Bare() with { Firmware = new() { Flavour = id } };
        foreach (var command in Flavour.Of(id).Commands)
        {
            var line = command.Word == "T" ? "T0" : command.Word;
            var run = SimulatedMachine.Run(card.Machine(), Encoding.UTF8.GetBytes(line + "\n"));
            Assert.Empty(run.Unknown);
            if (WithoutEffect.Contains(command.Meaning)) Assert.Equal(0, run.TotalSeconds);
            else Assert.NotEqual(EffectKind.Message, run.EffectList[0].Kind == EffectKind.Message && NeedsWords(command.Meaning) ? EffectKind.Setting : run.EffectList[0].Kind);
        }
    }

    private static readonly string[] Places = ["x", "y", "z", "e", "slowest", "value", "printing", "travel", "index", "count", "distance", "warmer", "fan255"];

    private static bool NeedsWords(Meaning meaning) => meaning is Meaning.SetNozzle or Meaning.SetBed or Meaning.SetChamber or Meaning.WaitNozzle or Meaning.WaitBed or Meaning.WaitChamber or Meaning.WaitByName;

    [Theory, MemberData(nameof(All))]
    public void A_dialect_understands_its_own_spellings(FlavourId id)
    {
        var flavour = Flavour.Of(id);
        var card = Cards.Bare() with { Firmware = new() { Flavour = id } };
        foreach (var what in flavour.Spellings.Keys)
        {
            var line = flavour.Spell(what, [.. Places.Select(p => (p, (object?)50)), ("tool", 0), ("fan1", 0.5), ("name", "clamp"), ("key", "clamp"), ("text", "hello")]);
            Assert.NotNull(line);
            Assert.Empty(SimulatedMachine.Run(card.Machine(), Encoding.UTF8.GetBytes(line + "\n")).Unknown);
        }
    }

    [Theory, MemberData(nameof(All))]
    public void The_same_part_comes_out_right_on_every_dialect(FlavourId id)
    {
        string Carried(string? text) => string.Join('\n', Carry.Of(text!, FlavourId.Marlin, id).Select(l => l.After));
        var card = Cards.Dunlin with
        {
            Firmware = Cards.Dunlin.Firmware with { Flavour = id, Present = ["EXCLUDE_OBJECT_DEFINE", "EXCLUDE_OBJECT_START", "EXCLUDE_OBJECT_END", "M117"] },
            Motion = Cards.Dunlin.Motion with { Limits = LimitsUse.Stated },
            Routines = new() { Start = Carried(Cards.Dunlin.Routines.Start), End = Carried(Cards.Dunlin.Routines.End) },
        };
        var job = DemoParts.Job(card, "cable-gland") with { Filament = Cards.Petg with { PressureCompensation = 0.04 } };
        var sliced = Slicer.Slice(job);
        Assert.DoesNotContain(sliced.Findings, f => f.Severity == Severity.Stop || f.Rule is "unknown-command" or "unknown-macro" or "wrong-unit" or "parameter-range");
        var marlin = Slicer.Slice(DemoParts.Job(Cards.Dunlin, "cable-gland"));
        Assert.Equal(marlin.Run!.Filament, sliced.Run!.Filament, 1.0);
        var text = Encoding.UTF8.GetString(sliced.Gcode.Span);
        if (Flavour.Of(id).Spell("pressure-compensation", ("value", 0.04), ("tool", 0)) is { } compensation) Assert.Contains(compensation + "\n", text);
        if (Flavour.Of(id).Spellings.ContainsKey("part-begin")) Assert.Equal(1, text.Split('\n').Count(l => l.StartsWith(Flavour.Of(id).Spellings["part-begin"].Split('{')[0], StringComparison.Ordinal) && !l.Contains("-1")));
    }

    // the table of the trade document: M203 counts mm/s on Marlin and mm/min on RepRapFirmware, one figure on Klipper
    [Theory]
    [InlineData(FlavourId.Marlin, "M203 X180 Y200")]
    [InlineData(FlavourId.RepRapFirmware, "M203 X180 Y200")]
    [InlineData(FlavourId.Klipper, "SET_VELOCITY_LIMIT VELOCITY=180")]
    [InlineData(FlavourId.Repetier, null)]
    public void Speed_limits_are_spelled_as_the_dialect_has_them(FlavourId id, string? expected) =>
        Assert.Equal(expected, Flavour.Of(id).Spell("speed-limits", ("x", 180.0), ("y", 200.0), ("slowest", 180.0)));

    // G90 changes E too on Marlin and Smoothieware, not on RepRapFirmware and Klipper; from memory of the firmwares' public documentation
    [Theory]
    [InlineData(FlavourId.Marlin, 8)]
    [InlineData(FlavourId.Smoothieware, 8)]
    [InlineData(FlavourId.RepRapFirmware, 15)]
    [InlineData(FlavourId.Klipper, 15)]
    public void G90_counts_E_where_the_dialect_says_so(FlavourId id, double filament)
    {
        var card = Cards.Bare() with { Firmware = new() { Flavour = id } };
        Assert.Equal(filament, SimulatedMachine.Run(card.Machine(), "G28\nM83\nG90\nG92 E0\nG1 X10 E7\nG1 X20 E8\n"u8.ToArray()).Filament, 6);
    }

    [Fact]
    public void Klipper_waits_while_hotter_and_Marlin_does_not()
    {
        var klipper = Cards.Bare() with { Firmware = new() { Flavour = FlavourId.Klipper } };
        var gcode = "M109 S240\nM109 S200\n"u8.ToArray();
        Assert.True(SimulatedMachine.Run(klipper.Machine(), gcode).Seconds[1] > 5);
        Assert.Equal(0, SimulatedMachine.Run(Cards.Bare().Machine(), gcode).Seconds[1]);
    }

    [Fact]
    public void Firmware_retraction_pulls_back_and_pushes_in_once()
    {
        var run = SimulatedMachine.Run(Cards.Bare().Machine(), "G28\nM207 S2\nG10\nG10\nG11\nG11\n"u8.ToArray());
        Assert.Equal([-2f, 2f], run.Moves.ToArray().Select(m => m.Filament));
    }

    [Fact]
    public void Overrides_count()
    {
        var run = SimulatedMachine.Run(Cards.Bare().Machine(), "G28\nM83\nM220 S50\nM221 S200\nG1 X100 E1 F6000\n"u8.ToArray());
        Assert.Equal((50f, 2f), (run.Moves[0].Speed, run.Moves[0].Filament));
    }

    [Fact]
    public void A_macro_file_gives_its_macros_and_passes_over_the_rest()
    {
        var file = MacroFile.Of("[printer]\nkinematics: corexy\n\n[gcode_macro PARK]\ndescription: to the back\nvariable_x: 5\ngcode:\n    G1 X{params.X|default(5)} Y{150 - 3 * 10}\n\n    M84\n[gcode_macro G28]\nrename_existing: G9928\ngcode:\n  G9928\n  G1 Z{ 2 + 3 }\n");
        Assert.Equal(["PARK", "G28"], file.Macros.Select(m => m.Name));
        Assert.Equal("to the back", file.Find("park")!.About);
        Assert.Equal(["G1 X7 Y120", "M84"], MacroText.Render(file.Find("PARK")!, new Dictionary<string, string> { ["X"] = "7" }).Lines);
    }

    [Theory]
    [InlineData("{% if params.A|default(1)|int > 3 %}M1{% elif params.B is defined %}M2{% else %}M3{% endif %}", "A=5", "M1")]
    [InlineData("{% if params.A|default(1)|int > 3 %}M1{% elif params.A == '2' %}M2{% else %}M3{% endif %}", "A=2", "M2")]
    [InlineData("{% set z = [1]|max %}G1 Z{z}", "", "")]
    [InlineData("{% for i in range(3) %}M1{% endfor %}M5", "", "M5")]
    [InlineData("G1 X{printer.toolhead.position.x}\nM5", "", "M5")]
    [InlineData("G1 X{ 10 / 4 } Y{ (1 + 2) * 3 } Z{ 7 // 2 }", "", "G1 X2.5 Y9 Z3")]
    public void Macro_templates_are_followed_as_far_as_the_printer_need_not_be_asked(string text, string given, string expected)
    {
        var parameters = given.Split(' ', StringSplitOptions.RemoveEmptyEntries).Select(p => p.Split('=')).ToDictionary(p => p[0], p => p[1]);
        Assert.Equal(expected, string.Join('\n', MacroText.Render(new Macro("X", text), parameters).Lines));
    }

    [Fact]
    public void A_macro_that_calls_itself_ends()
    {
        var card = Cards.Bare() with { Firmware = new() { Flavour = FlavourId.Klipper, Macros = "[gcode_macro AA]\ngcode:\n  AA\n  BB\n[gcode_macro BB]\ngcode:\n  AA\n  M84\n" } };
        Assert.NotEmpty(SimulatedMachine.Run(card.Machine(), "AA\n"u8.ToArray()).MacroCalls);
    }
}
