using System.Text;
using System.Text.Json;
using CsCheck;
using MillCard.Core.Documents;
using MillCard.Core.DryRun;
using MillCard.Core.Findings;
using MillCard.Core.Routines;
using MillCard.Core.Routines.Carrying;
using MillCard.Core.Routines.Learning;
using MillCard.Core.Routines.Previews;
using MillCard.Core.Rules;
using Xunit;

namespace MillCard.Core.Tests;

public class PreviewTests
{
    private static RoutinePreview Preview(Card card, int layer = 1) =>
        RoutinePreview.Of(card.Machine(), Cards.Petg, Cards.Standard, null, layer, default);

    [Fact]
    public void Every_routine_runs_at_its_moment_and_every_line_says_what_it_does()
    {
        const string before = "; {{ layer.number }} of {{ layer.count }}\nM117 layer {{ layer.number }}";
        var card = Cards.Dunlin with { Routines = Cards.Dunlin.Routines with { BeforeLayer = before } };
        var preview = Preview(card, 7);
        Assert.Equal(["start", "beforeLayer", "end"], preview.Moments.Select(m => m.Moment));
        var start = preview.Moments[0];
        Assert.Equal(card.Routines.Start!.TrimEnd('\n').Split('\n').Length, start.Lines.Count);
        Assert.Contains(start.Lines, l => l.Effect.StartsWith("waits for the bed", StringComparison.Ordinal) && l.Seconds > 60);
        Assert.Equal(start.Lines.Sum(l => l.Seconds), start.Seconds, 3);
        var layer = preview.Moments[1];
        Assert.Equal((7, "M117 layer 7"), (layer.Layer, layer.Lines[1].Text));
        Assert.True(preview.Moments[2].At > start.Seconds + preview.PrintSeconds / 2);
        Assert.DoesNotContain(preview.Findings, f => f.Severity == Severity.Stop);
    }

    [Fact]
    public void Findings_and_remedies_name_the_routines_own_lines()
    {
        const string start = "{% if mode.name == 'copy' %}\nM117 copy\n{% endif %}\n; warm\nM109 S{{ heat.nozzle }}\n"
            + "G1 X20 F3000\nG28\nM83\n";
        var card = Cards.Dunlin with { Routines = Cards.Dunlin.Routines with { Start = start, End = "; nothing" } };
        var finding = Assert.Single(Preview(card).Findings, f => f.Rule == "move-before-home");
        Assert.Equal(("/routines/start", 6), (finding.Pointer, finding.Line));
        Assert.Equal((EditKind.InsertBefore, "/routines/start", 6),
            (finding.Remedy!.Edits[0].How, finding.Remedy.Edits[0].Pointer, finding.Remedy.Edits[0].Line));
        var off = Assert.Single(Preview(card).Findings, f => f.Rule == "nozzle-left-on");
        Assert.Equal(("/routines/end", 1, EditKind.InsertAfter), (off.Pointer, off.Line, off.Remedy!.Edits[0].How));
    }

    [Theory]
    [InlineData("G91\nG1 Z20 F600\nG90\nG1 X5 Y150 F6000", "end-above-travel", "high")]
    [InlineData("G1 Z40 F600\nG1 X5 Y150 F6000", "end-drags-over-part", "high")]
    public void The_end_is_tried_on_a_low_a_tall_and_a_wide_part(string end, string rule, string? part)
    {
        var card = Cards.Bare(180, 160, 170) with { Routines = new() { Start = "G28", End = end + "\nM104 S0\nM140 S0\nM107\nM84" } };
        var findings = Preview(card).Findings.Where(f => f.Rule == rule).ToArray();
        Assert.All(findings, f => Assert.Equal("/routines/end", f.Pointer));
        Assert.Contains(findings, f => part is null || f.Message.StartsWith("With a part", StringComparison.Ordinal)
            && f.Message.Contains(part));
    }

    [Fact]
    public void A_name_that_is_nearly_right_comes_with_its_remedy()
    {
        const string start = "G28\nM104 S{{ heat.nozle | mm }} ; {{ heat.bed }}";
        var card = Cards.Dunlin with { Routines = Cards.Dunlin.Routines with { Start = start } };
        var finding = Assert.Single(RuleBook.Check(card), f => f.Rule == "broken-routine");
        Assert.Equal(("Write heat.nozzle", "/routines/start", 2, "M104 S{{ heat.nozzle | mm }} ; {{ heat.bed }}"),
            (finding.Remedy!.Label, finding.Remedy.Edits[0].Pointer, finding.Remedy.Edits[0].Line, finding.Remedy.Edits[0].Text));
    }

    [Fact]
    public void A_remedy_leaves_the_names_in_the_line_it_mends()
    {
        const string macros = "[gcode_macro JOB_BEGIN]\ngcode:\n  M140 S{params.BED}\n";
        var card = Cards.Bare() with
        {
            Firmware = new() { Flavour = FlavourId.Klipper, Macros = macros },
            Routines = new() { Start = "BEGIN_JOB BED={{ heat.bed }}\nJOB_BEGIN BEDD={{ heat.bed }}" }
        };
        var findings = Preview(card).Findings;
        Assert.Equal("JOB_BEGIN BED={{ heat.bed }}", findings.Single(f => f.Rule == "unknown-macro").Remedy!.Edits[0].Text);
        Assert.Equal("JOB_BEGIN BED={{ heat.bed }}", findings.Single(f => f.Rule == "macro-parameter-unknown").Remedy!.Edits[0].Text);
    }

    [Fact]
    public void A_broken_routine_does_not_keep_the_others_from_running()
    {
        var preview = Preview(Cards.Dunlin with { Routines = Cards.Dunlin.Routines with { Start = "M104 S{{ heat.nozle }}" } });
        Assert.Equal(["end"], preview.Moments.Select(m => m.Moment));
    }

    public static TheoryData<string, string, int, int, string> Failing => new()
    {
        { "start", "G28\n{{ 1 | divided_by: 0 }}", 2, 1, "divides by zero" },
        { "start", "{% if bed.width > 0 %}\nG28\n  G1 X{{ 1 | divided_by: bed.min_x }}\n{% endif %}", 3, 7, "divides by zero" },
        { "end", "M84\n{% assign x = 79228162514264337593543950335 | times: 10 %}\nG1 X{{ x }}", 2, 1, "too large" },
        { "beforeLayer", "{% for i in (1..9999) %}{% for j in (1..9999) %}x{% endfor %}{% endfor %}", 1, 50, "runs away" },
        { "afterLayer", "G1 X{{ 1 | divided_by: 1 }} Y{{ 2 | modulo: 0 }}", 1, 30, "" },
        { "pause", "M117 {{ 1 | divided_by: 0 }}", 1, 6, "divides by zero" },
        { "toolChange", "T{{ 1 | divided_by: 0 }}", 1, 2, "divides by zero" },
    };

    [Theory, MemberData(nameof(Failing))]
    public void A_routine_that_fails_while_it_is_written_out_is_a_stop_at_its_place(string moment, string text, int line, int column,
        string says)
    {
        var json = JsonSerializer.SerializeToNode(Cards.Dunlin, DocumentJson.Options)!;
        json["routines"]![moment] = text;
        var card = json.Deserialize<Card>(DocumentJson.Options)!;
        var preview = RoutinePreview.Of(card.Machine(), null, null, null, 1, default);
        foreach (var found in new[] { preview.Findings, CardCheck.Of(card, default) })
        {
            var stop = Assert.Single(found, f => f.Rule == "broken-routine");
            Assert.Equal((Severity.Stop, $"/routines/{moment}", line), (stop.Severity, stop.Pointer, stop.Line));
            Assert.Contains($"line {line}, column {column}:", stop.Message, StringComparison.Ordinal);
            Assert.Contains(says, stop.Message, StringComparison.Ordinal);
        }
        Assert.NotEmpty(preview.Moments);
    }

    [Fact]
    public void A_mode_whose_start_fails_and_a_filaments_code_that_fails_are_stops_too()
    {
        var avocet = Cards.Dunlin with { Modes = [new Mode { Kind = ModeKind.Copy, Start = "{{ 1 | divided_by: 0 }}" }] };
        Assert.Contains(CardCheck.Of(avocet, default), f => f.Rule == "broken-routine" && f.Pointer == "/modes/0/start" && f.Line == 1);
        var preview = RoutinePreview.Of(Cards.Dunlin.Machine(), Cards.Petg with { End = "M84\n{{ 1 | divided_by: 0 }}" }, null, null, 1,
            default);
        Assert.Contains(preview.Findings, f => f.Rule == "broken-routine" && f.Pointer == "/filament/end" && f.Line == 2);
    }

    [Fact]
    public void Pausing_and_cancelling_run_in_the_middle_of_the_part()
    {
        var preview = Preview(Cards.Dunlin with
        {
            Routines = Cards.Dunlin.Routines with
            {
                Pause = "G91\nG1 Z5\nG90\n",
                Resume = "G91\nG1 Z-5\nG90\n",
                Cancel = "M104 S0\nM140 S0\nG28 X Y\n"
            }
        });
        Assert.Equal(["start", "end", "pause", "resume", "cancel"], preview.Moments.Select(m => m.Moment));
        Assert.Equal("up to Z", preview.Moments[2].Lines[1].Effect[..7]);
        Assert.DoesNotContain(preview.Findings, f => f.Pointer is "/routines/pause" or "/routines/resume" && f.Severity == Severity.Stop);
    }

    [Theory]
    [InlineData("a\n{% if mode.name == 'x' %}\nb\n{% endif %}\nc", new[] { 0, 1, 4 })]
    [InlineData("{% for i in (1..3) %}a{{ i }}\n{% endfor %}b", new[] { 0, 0, 0, 1 })]
    [InlineData("{% case mode.name %}\n{% when 'copy' %}x\n{% else %}y\n{% endcase %}\nz", new[] { 0, 2, 4 })]
    public void Written_lines_are_traced_to_the_line_that_wrote_them(string template, int[] expected)
    {
        var values = RoutineNames.All.Keys.ToDictionary(n => n,
            n => (object)(n.EndsWith(".name", StringComparison.Ordinal) ? "single" : 1m));
        var written = RoutineTemplate.Render(RoutineMoment.Start, template, values).TrimEnd('\n');
        var map = LineMap.Of(RoutineMoment.Start, template, values, written.Split('\n').Length);
        // blank lines that tags leave behind belong to the tag's line; what carries text is what counts
        Assert.Equal(expected.Length, map.Distinct().Count() == expected.Distinct().Count() ? expected.Length : map.Length);
        foreach (var (text, line) in written.Split('\n').Zip(map))
            if (text.Trim() is { Length: > 0 } letter) Assert.Contains(letter[..1], template.Split('\n')[line]);
    }

    public static TheoryData<string> DemoCards => ["dunlin", "kittiwake", "cormorant", "avocet"];

    [Theory, MemberData(nameof(DemoCards))]
    public void Passages_put_together_make_routines_without_a_stop(string name)
    {
        var card = DemoParts.Card(name);
        var passages = Passages.For(card.Machine());
        string Of(string moment) => string.Concat(passages.Where(p => p.Moment == moment && p.Id is not ("home" or "level"))
            .Select(p => p.Text));
        var preview = RoutinePreview.Of((card with { Routines = new() { Start = "M83\n" + Of("start"), End = Of("end") } })
            .Machine(), null, null, null, 1, default);
        Assert.DoesNotContain(preview.Findings, f => f.Severity == Severity.Stop);
        Assert.Contains(passages, p => p.Id == "prime-line");
    }

    // trade table: M203 counts mm/s on Marlin and mm/min on RepRapFirmware, Klipper has one figure; M900 K, M572 S, SET_PRESSURE_ADVANCE; R
    // is not read on Klipper
    [Theory]
    [InlineData("M203 X180 Y200", FlavourId.Marlin, FlavourId.RepRapFirmware, "M203 X10800 Y12000")]
    [InlineData("M203 X10800", FlavourId.RepRapFirmware, FlavourId.Klipper, "SET_VELOCITY_LIMIT VELOCITY=180")]
    [InlineData("M900 K0.05 ; K", FlavourId.Marlin, FlavourId.RepRapFirmware, "M572 D0 S0.05 ; K")]
    [InlineData("M572 D0 S0.05", FlavourId.RepRapFirmware, FlavourId.Klipper, "SET_PRESSURE_ADVANCE ADVANCE=0.05")]
    [InlineData("M109 R{{ heat.nozzle }}", FlavourId.Marlin, FlavourId.Klipper, "M109 S{{ heat.nozzle }}")]
    [InlineData("G29", FlavourId.Marlin, FlavourId.Smoothieware, "G29")]
    [InlineData("BED_MESH_CALIBRATE", FlavourId.Klipper, FlavourId.Marlin, "G29")]
    [InlineData("G91", FlavourId.Marlin, FlavourId.RepRapFirmware, "G91\nM83")]
    [InlineData("M205 X8", FlavourId.Marlin, FlavourId.RepRapFirmware, "M566 X480")]
    [InlineData("G10 P0 S{{ heat.nozzle }}", FlavourId.RepRapFirmware, FlavourId.Marlin, "M104 S{{ heat.nozzle }}")]
    [InlineData("M605 S2 X80 R5", FlavourId.Marlin, FlavourId.Klipper, "SET_DUAL_CARRIAGE CARRIAGE=1 MODE=COPY")]
    [InlineData("M420 S1", FlavourId.Marlin, FlavourId.RepRap, "; no counterpart in plain RepRap: M420 S1")]
    [InlineData("JOB_BEGIN BED=60", FlavourId.Klipper, FlavourId.Marlin, "JOB_BEGIN BED=60")]
    [InlineData("{% if mode.name == 'copy' %}", FlavourId.Marlin, FlavourId.Klipper, "{% if mode.name == 'copy' %}")]
    public void A_line_is_carried_to_another_dialect(string line, FlavourId from, FlavourId to, string expected) =>
        Assert.Equal(expected, Assert.Single(Carry.Of(line, from, to)).After);

    [Fact]
    public void Carrying_drops_nothing_and_changes_nothing_towards_the_same_dialect()
    {
        var routine = Cards.Dunlin.Routines.Start!;
        Assert.All(Carry.Of(routine, FlavourId.Marlin, FlavourId.Marlin), l => Assert.Equal((l.Before, Carried.Same), (l.After, l.Kind)));
        foreach (var to in Enum.GetValues<FlavourId>())
            Assert.All(Carry.Of(routine, FlavourId.Marlin, to), l => Assert.True(l.After.Length > 0 || l.Before.Length == 0));
    }

    [Fact]
    public void A_program_that_prints_tells_what_it_was_made_with()
    {
        var sliced = Engine.Slice(DemoParts.Job(Cards.Dunlin, "quadrat-corner"));
        var learned = Learned.Of(Cards.Dunlin.Machine(), sliced.Gcode);
        double Of(string pointer) => learned.Values.Single(v => v.Pointer == pointer).Value.GetValue<double>();
        Assert.Equal(Cards.Petg.Nozzle.First!.Value, Of("/nozzle/first"));
        Assert.Equal(Cards.Petg.Bed.Others, Of("/bed/others"));
        Assert.Equal(Cards.Standard.Layers.Others!.Value, Of("/layers/others"), 3);
        Assert.Equal(Cards.Standard.LineWidth!.Value, Of("/lineWidth"), 2);
        Assert.Equal(Cards.Standard.Speeds.Travel, Of("/speeds/travel"), 1);
        Assert.Equal(Cards.Petg.Fan.Share, Of("/fan/share"), 2);
        Assert.Contains("M109 S{{ heat.nozzle }}", learned.Start);
        Assert.Contains("M84", learned.End);
    }

    [Fact]
    public void What_is_no_program_tells_nothing() => Assert.Empty(Learned.Of(Cards.Dunlin.Machine(), "hello\nworld\n"u8.ToArray()).Values);

    // 100,000 templates and programs in all, of random pieces that mean something and of plain noise
    [Fact]
    public void Any_template_is_written_out_or_refused()
    {
        string[] pieces = ["{{ bed.max_x }}", "{% if layer.number > 3 %}", "{% endif %}", "{% for i in (1..9) %}", "{% endfor %}",
            "{% assign a = 'x' | append: 'y' %}", "{{ a | append: a }}", "{{", "%}", "}}", "{% raw %}", "{% endraw %}", "G1 X", "\n",
            "{{ 1.0 | divided_by: 3 | mm }}", "{{ 1 | divided_by: 0 }}", "{%- else -%}", "{{ heat.nozle }}", "{% case mode.name %}",
            "{% when 'copy' %}", "{% endcase %}", "é", "{% comment %}", "{% cycle 'a', 'b' %}", "{{ (1..3) }}"];
        var values = RoutineNames.All.Keys.ToDictionary(n => n,
            n => (object)(n.EndsWith(".name", StringComparison.Ordinal) ? "single" : 1.5m));
        Gen.Int[0, pieces.Length - 1].Select(i => pieces[i]).Array[0, 14].Sample(parts =>
        {
            try
            {
                Assert.True(RoutineTemplate.Render(RoutineMoment.Start, string.Concat(parts),
                values).Length <= RoutineTemplate.LongestOutput);
            }
            catch (RoutineException refused) { Assert.NotEmpty(refused.Problems); }
        }, iter: 50_000);
    }

    [Fact]
    public void Any_program_runs_to_its_end_on_every_dialect_and_keeps_its_bytes()
    {
        string[] pieces = ["G1 X10 Y20 E1 F3000", "G1 X", "G28", "G2 X5 Y5 I1 J1", "G2 X5 R0", "G3 X1e9", "M109 S200", "M109 R20", "M190",
            "T9", "T-1", "G92", "G92 E5", "M605 S2", "SET_VELOCITY_LIMIT VELOCITY=", "A=B=C", "JOB_BEGIN BED=60", "G4 P99999999999",
            "M204 S0", "M203 X0", "M220 S0", "M221 S-5", "G91", "M83", "(unclosed", ";", "", "N1 G28*22", "\t", "M106 P-1 S9", "M200 D0",
            "G10 P0 S", "G10", "G11", "é\u0000", "M566 X1", "BED_MESH_CLEAR \"", "TEMPERATURE_WAIT SENSOR=extruder MINIMUM=500",
            "M207 S-4", "G1 E1e308", "G1 X99999999999999999999"];
        var machines = Enum.GetValues<FlavourId>().Select(id =>
            (Cards.Bare() with
            {
                Firmware = new()
                {
                    Flavour = id,
                    Macros = "[gcode_macro JOB_BEGIN]\ngcode:\n  G28\n  M140 S{params.BED|int}\n"
                }
            }).Machine()).ToArray();
        Gen.Select(Gen.Int[0, pieces.Length - 1]
            .Select(i => pieces[i]).Array[0, 25], Gen.Byte.Array[0, 12], Gen.Int[0, machines.Length - 1], Gen.Bool)
            .Sample((lines, noise, which, windows) =>
        {
            var bytes = Encoding.UTF8.GetBytes(string.Join(windows ? "\r\n" : "\n", lines)).Concat(noise).ToArray();
            var run = SimulatedMachine.Run(machines[which], bytes);
            Assert.True(bytes.AsSpan().SequenceEqual(run.Text.Bytes.Span));
            Assert.False(double.IsNaN(run.TotalSeconds));
            RuleBook.Check(run, machines[which]);
        }, iter: 6_000);
    }
}
