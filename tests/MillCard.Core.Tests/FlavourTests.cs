using System.Text;
using CsCheck;
using MillCard.Core.Documents;
using MillCard.Core.DryRun;
using MillCard.Core.Findings;
using MillCard.Core.Flavours;
using MillCard.Core.Macros;
using MillCard.Core.Routines.Carrying;
using MillCard.Core.Rules;
using Xunit;

namespace MillCard.Core.Tests;

public class FlavourTests
{
    public static TheoryData<FlavourId> All => [.. Enum.GetValues<FlavourId>()];

    /// <summary>Meanings that change nothing which the simulated machine shows; all others must do something or be asked for by a
    /// rule.</summary>
    private static readonly Meaning[] WithoutEffect =
    [
        Meaning.None, Meaning.Mesh, Meaning.MeshDrop, Meaning.Park, Meaning.ToolOffset, Meaning.StepsPerMm, Meaning.PressureCompensation,
        Meaning.FilamentDiameter, Meaning.ColdExtrusion, Meaning.SoftEndStops, Meaning.Geometry, Meaning.Tuning, Meaning.PartLabel,
            Meaning.MacroCall,
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
            else Assert.NotEqual(EffectKind.Message, run.EffectList[0].Kind == EffectKind.Message && NeedsWords(command.Meaning)
                ? EffectKind.Setting : run.EffectList[0].Kind);
        }
    }

    private static readonly string[] Places = ["x", "y", "z", "e", "slowest", "value", "printing", "travel", "index", "count", "distance",
        "warmer", "fan255", "retraction", "length", "minute", "second", "lift", "more", "priming", "primingSecond", "fan"];

    private static bool NeedsWords(Meaning meaning) =>
        meaning is Meaning.SetNozzle or Meaning.SetBed or Meaning.SetChamber
            or Meaning.WaitNozzle or Meaning.WaitBed or Meaning.WaitChamber or Meaning.WaitByName;

    [Theory, MemberData(nameof(All))]
    public void A_dialect_understands_its_own_spellings(FlavourId id)
    {
        var flavour = Flavour.Of(id);
        var card = Cards.Bare() with { Firmware = new() { Flavour = id } };
        foreach (var what in flavour.Spellings.Keys)
        {
            var line = flavour.Spell(what,
                [.. Places.Select(p => (p, (object?)50)), ("tool", 0), ("fan1", 0.5), ("name", "clamp"), ("key", "clamp"),
                ("text", "hello")]);
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
            Firmware = Cards.Dunlin.Firmware with
            {
                Flavour = id,
                Present = ["EXCLUDE_OBJECT_DEFINE", "EXCLUDE_OBJECT_START", "EXCLUDE_OBJECT_END", "M117"]
            },
            Motion = Cards.Dunlin.Motion with { Limits = LimitsUse.Stated },
            Routines = new() { Start = Carried(Cards.Dunlin.Routines.Start), End = Carried(Cards.Dunlin.Routines.End) },
        };
        var job = DemoParts.Job(card, "cable-gland") with { Filament = Cards.Petg with { PressureCompensation = 0.04 } };
        var sliced = Engine.Slice(job);
        Assert.DoesNotContain(sliced.Findings, f => f.Severity == Severity.Stop
            || f.Rule is "unknown-command" or "unknown-macro" or "wrong-unit" or "parameter-range");
        var marlin = Engine.Slice(DemoParts.Job(Cards.Dunlin, "cable-gland"));
        Assert.Equal(marlin.Run!.Filament, sliced.Run!.Filament, 1.0);
        var text = Encoding.UTF8.GetString(sliced.Gcode.Span);
        if (Flavour.Of(id).Spell("pressure-compensation", ("value", 0.04), ("tool", 0)) is { } compensation)
            Assert.Contains(compensation + "\n", text);
        if (Flavour.Of(id).Spellings.ContainsKey("part-begin"))
            Assert.Equal(1, text.Split('\n')
            .Count(l => l.StartsWith(Flavour.Of(id).Spellings["part-begin"].Split('{')[0], StringComparison.Ordinal) && !l.Contains("-1")));
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
        Assert.Equal(filament, SimulatedMachine.Run(card.Machine(), "G28\nM83\nG90\nG92 E0\nG1 X10 E7\nG1 X20 E8\n"u8.ToArray()).Filament,
            6);
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
        var file = MacroFile.Of("[printer]\nkinematics: corexy\n\n[gcode_macro PARK]\ndescription: to the back\nvariable_x: 5\n"
            + "gcode:\n    G1 X{params.X|default(5)} Y{150 - 3 * 10}\n\n    M84\n[gcode_macro G28]\nrename_existing: G9928\ngcode:\n  "
            + "G9928\n  G1 Z{ 2 + 3 }\n");
        Assert.Equal(["PARK", "G28"], file.Macros.Select(m => m.Name));
        Assert.Equal("to the back", file.Find("park")!.About);
        Assert.Equal(["G1 X7 Y120", "M84"], MacroText.Render(file.Find("PARK")!, new Dictionary<string, string> { ["X"] = "7" }).Lines);
    }

    [Theory]
    [InlineData("{% if params.A|default(1)|int > 3 %}M1{% elif params.B is defined %}M2{% else %}M3{% endif %}", "A=5", "M1")]
    [InlineData("{% if params.A|default(1)|int > 3 %}M1{% elif params.A == '2' %}M2{% else %}M3{% endif %}", "A=2", "M2")]
    [InlineData("{% set z = [1]|max %}G1 Z{z}", "", "G1 Z1")]
    [InlineData("{% set z = printer.probe.last_z %}G1 Z{z}", "", "")]
    [InlineData("{% for i in range(3) %}G1 X{i}\n{% endfor %}M5", "", "G1 X0\nG1 X1\nG1 X2\nM5")]
    [InlineData("{% for i in range(1, 7, 2) %}{% if i != 3 %}G1 X{i}\n{% endif %}{% endfor %}", "", "G1 X1\nG1 X5")]
    [InlineData("{% for i in printer.objects %}M1\n{% endfor %}M5", "", "M5")]
    [InlineData("{% if params.A is defined %}M1{% else %}M2{% endif %}", "", "M2")]
    [InlineData("{% if params.A is not defined %}M1{% else %}M2{% endif %}", "", "M1")]
    [InlineData("{% if 'b' in params.A.lower() %}M1{% else %}M2{% endif %}", "A=ABC", "M1")]
    [InlineData("{% for v in params.A.split(',') %}G1 X{v|int * 2}\n{% endfor %}", "A=1,2", "G1 X2\nG1 X4")]
    [InlineData("{# a note #}M1 # why\n# M2\nM3", "", "M1\nM3")]
    [InlineData("{% if true %}{% if false %}M1{% elif true %}M2{% endif %}M3{% else %}M4{% endif %}", "", "M2M3")]
    [InlineData("{action_respond_info('x')}M1", "", "M1")]
    [InlineData("G1 X{params.get('A', 4)} Y{params.get('B', 5)}", "A=1", "G1 X1 Y5")]
    [InlineData("G1 X{printer.toolhead.position.x}\nM5", "", "M5")]
    [InlineData("G1 X{ 10 / 4 } Y{ (1 + 2) * 3 } Z{ 7 // 2 }", "", "G1 X2.5 Y9 Z3")]
    public void Macro_templates_are_followed_as_far_as_the_printer_need_not_be_asked(string text, string given, string expected)
    {
        var parameters = given.Split(' ', StringSplitOptions.RemoveEmptyEntries).Select(p => p.Split('='))
            .ToDictionary(p => p[0], p => p[1]);
        Assert.Equal(expected, string.Join('\n', MacroText.Render(new Macro("X", text), parameters).Lines));
    }

    [Fact]
    public void A_macro_that_calls_itself_ends()
    {
        var card = Cards.Bare() with
        {
            Firmware = new()
            {
                Flavour = FlavourId.Klipper,
                Macros = "[gcode_macro AA]\ngcode:\n  AA\n  BB\n[gcode_macro BB]\ngcode:\n  AA\n  M84\n"
            }
        };
        Assert.NotEmpty(SimulatedMachine.Run(card.Machine(), "AA\n"u8.ToArray()).MacroCalls);
    }

    private static DryRunReport Klipper(string macros, string program)
    {
        var card = Cards.Dunlin with { Firmware = new() { Flavour = FlavourId.Klipper, Macros = macros.ReplaceLineEndings("\n") } };
        return SimulatedMachine.Run(card.Machine(), System.Text.Encoding.UTF8.GetBytes(program));
    }

    private static string[] Steps(DryRunReport run) => [.. run.MacroCalls.SelectMany(c => c.Steps).Select(s => s.Text)];

    [Fact]
    public void Macros_that_stand_for_commands_are_entered_and_reach_the_command_by_its_new_name()
    {
        var run = Klipper("[gcode_macro G28]\nrename_existing: G28.1\ngcode:\n  G28.1 {rawparams}\n  G1 Z10 F600\n[gcode_macro M600]\n"
            + "gcode:\n  _PARK X=5\n[gcode_macro _PARK]\ngcode:\n  G1 X{params.X} F3000\n[gcode_macro T0]\ngcode:\n  M117 first\n",
            "G28\nM600\nT0\n");
        Assert.Equal(["G28", "M600", "_PARK", "T0"], run.MacroCalls.Select(c => c.Macro.Name));
        Assert.Equal((5f, 10f), (run.End.Position.X, run.End.Position.Z));
        Assert.Empty(run.Unknown);
        Assert.Empty(run.Recursions);
        Assert.True(run.Moves.ToArray().All(m => m.Known));
    }

    [Fact]
    public void What_the_run_knows_decides_conditions_at_their_moment()
    {
        const string Macros = """
            [gcode_macro HOME_IF_NEEDED]
            gcode:
              {% if "xyz" not in printer.toolhead.homed_axes %}
                G28
              {% endif %}
            [gcode_macro HEAT]
            variable_ready: 0
            gcode:
              {% if printer.extruder.target < 200 and printer["gcode_macro HEAT"].ready == 0 %}
                M104 S210
                SET_GCODE_VARIABLE MACRO=HEAT VARIABLE=ready VALUE=1
              {% endif %}
              {% if printer.bed_mesh is defined %}
                BED_MESH_PROFILE LOAD=default
              {% endif %}
              {% if printer.quad_gantry_level is defined %}
                QUAD_GANTRY_LEVEL
              {% endif %}
            [bed_mesh]
            speed: 100
            """;
        var run = Klipper(Macros, "HOME_IF_NEEDED\nHOME_IF_NEEDED\nHEAT\nHEAT\nM104 S0\nHEAT\n");
        Assert.Equal(1, Steps(run).Count(s => s == "G28"));
        Assert.Equal(1, Steps(run).Count(s => s == "M104 S210"));
        Assert.Equal(3, Steps(run).Count(s => s.StartsWith("BED_MESH_PROFILE", StringComparison.Ordinal)));
        Assert.DoesNotContain("QUAD_GANTRY_LEVEL", Steps(run));
        Assert.All(run.MacroCalls, c => Assert.Empty(c.Unfollowed));
    }

    [Fact]
    public void A_macro_that_calls_itself_is_told_as_that()
    {
        var run = Klipper("[gcode_macro AA]\ngcode:\n  BB\n[gcode_macro BB]\ngcode:\n  AA\n  M117 x\n", "AA\n");
        var finding = Assert.Single(RuleBook.Check(run, Cards.Dunlin.Machine()), f => f.Rule == "macro-calls-itself");
        Assert.Equal((Severity.Stop, 1), (finding.Severity, finding.Line));
        Assert.Contains("AA calls itself", finding.Message, StringComparison.Ordinal);
    }

    // from memory of the firmwares' public documentation: what E words are behind each way to say how words count
    [Theory]
    [InlineData(FlavourId.Marlin, "2.1", "M83|G90", false)]
    [InlineData(FlavourId.Marlin, "1.1.9", "M83|G90", true)]
    [InlineData(FlavourId.Marlin, "1.1.9", "M82|G91", true)]
    [InlineData(FlavourId.Marlin, null, "M82|G91", true)]
    [InlineData(FlavourId.Marlin, null, "G91|M82", false)]
    [InlineData(FlavourId.Klipper, null, "M82|G91", true)]
    [InlineData(FlavourId.Klipper, null, "G91|M82", true)]
    [InlineData(FlavourId.Klipper, null, "M82|G91|G90", false)]
    [InlineData(FlavourId.Klipper, null, "M83|G90", true)]
    [InlineData(FlavourId.Repetier, null, "M82|G91", true)]
    [InlineData(FlavourId.Repetier, null, "M83|G91|G90", true)]
    [InlineData(FlavourId.RepRap, null, "M83|G90", true)]
    [InlineData(FlavourId.RepRap, null, "M82|G91", true)]
    [InlineData(FlavourId.RepRapFirmware, null, "M82|G91", false)]
    [InlineData(FlavourId.RepRapFirmware, null, "M83|G90", true)]
    [InlineData(FlavourId.Smoothieware, null, "M83|G90", false)]
    public void E_words_count_as_the_dialect_has_it(FlavourId flavour, string? version, string said, bool lengths)
    {
        var card = Cards.Bare() with { Firmware = new() { Flavour = flavour, Version = version } };
        var run = SimulatedMachine.Run(card.Machine(),
            System.Text.Encoding.ASCII.GetBytes($"G28\n{said.Replace('|', '\n')}\nG92 E0\nG1 X1 E5 F600\nG1 X2 E5\n"));
        Assert.Equal(lengths ? 10 : 5, run.Filament, 6);
    }

    // whatever is said: carried to another dialect, every E word feeds what it fed before
    [Fact]
    public void Carried_words_count_as_they_did() =>
        Gen.Select(Gen.Enum<FlavourId>(), Gen.Enum<FlavourId>(),
            Gen.OneOf(Gen.Const("G90"), Gen.Const("G91"), Gen.Const("M82"), Gen.Const("M83"), Gen.Const("G1 X1 E2 F600")).Array[1, 12])
            .Sample((from, to, lines) =>
        {
            double Fed(FlavourId flavour, string text) =>
                SimulatedMachine.Run((Cards.Bare() with { Firmware = new() { Flavour = flavour } })
                .Machine(), System.Text.Encoding.ASCII.GetBytes($"G28\n{text}\n")).Filament;
            var text = string.Join('\n', lines);
            var carried = Carry.Of(text, from, to);
            if (carried.Any(l => l.Note?.Contains("whatever M82 says", StringComparison.Ordinal) == true)) return;
            Assert.Equal(Fed(from, text), Fed(to, string.Join('\n', carried.Select(l => l.After))), 6);
        }, iter: 3000);
}
