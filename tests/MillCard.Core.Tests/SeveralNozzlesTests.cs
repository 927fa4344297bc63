using System.Globalization;
using System.Text;
using MillCard.Core.Documents;
using MillCard.Core.DryRun;
using MillCard.Core.Findings;
using MillCard.Core.Matching;
using MillCard.Core.Meshes;
using MillCard.Core.Rules;
using MillCard.Core.Slicing;
using MillCard.Core.Slicing.Jobs;
using MillCard.Core.Slicing.Paths;
using Xunit;

namespace MillCard.Core.Tests;

/// <summary>Programs of several nozzles, read by a small reader of G-code that shares nothing with the project's own.</summary>
public class SeveralNozzlesTests
{
    private static Filament Filament(string name) =>
        DocumentReader.Read<Filament>(File.ReadAllBytes(Path.Combine(DemoParts.Root, "demo", "filaments", $"{name}.json"))).Document!;

    private static PartToSlice Box(string name, double x, double y, double high, string nozzle)
    {
        var mesh = Solids.Box(20, 20, high);
        return new PartToSlice(new TrialPart { Name = name, File = name, X = x, Y = y, Nozzles = [nozzle] }, mesh, new Footprints(mesh));
    }

    private static SliceJob Job(Card card, params PartToSlice[] parts) => new("several", card.Machine(), Cards.Petg,
        Engine.Plain with { Retraction = new() }, parts);

    private static SliceJob FourTools() => Job(DemoParts.Card("oystercatcher"), Box("a", 60, 120, 1.2, "n1"), Box("b", 110, 120, 2, "n2"),
        Box("c", 160, 120, 1.6, "n3"), Box("d", 210, 120, 0.8, "n4")) with
    {
        Recipe = Engine.Plain with { LineWidth = 0.5, Retraction = new() },
        Loaded = new Dictionary<string, Filament>
        {
            ["n2"] = Filament("glow-marker-pla"),
            ["n3"] = Filament("station-asa-white"),
            ["n4"] = Filament("station-seal-tpu"),
        },
    };

    /// <summary>What stands when a line lays plastic.</summary>
    private sealed record Laid(int Layer, int Tool, double X, double Filament, double Target, IReadOnlyDictionary<int, double> Fans);

    /// <summary>Reads words after a letter; knows T, M104, M109, M106, M107, G0, G1 in mm with relative E and no more.</summary>
    private static List<Laid> Read(string program, double fullFan)
    {
        var (laid, tool, x, layer) = (new List<Laid>(), 0, 0.0, 0);
        var (targets, fans, body) = (new double[16], new Dictionary<int, double>(), false);
        foreach (var line in program.Split('\n'))
        {
            if (line.StartsWith("; layer ", StringComparison.Ordinal)) layer++;
            body |= line == "; layers begin";
            body &= line != "; layers end";
            var words = line.Split(';')[0].Split(' ', StringSplitOptions.RemoveEmptyEntries);
            if (words.Length == 0) continue;
            double? Word(char letter) => words.Skip(1).FirstOrDefault(w => w[0] == letter) is { } word
                ? double.Parse(word.AsSpan(1), CultureInfo.InvariantCulture) : null;
            switch (words[0])
            {
                case ['T', .. var number]: tool = int.Parse(number, CultureInfo.InvariantCulture); break;
                case "M104" or "M109": targets[(int)(Word('T') ?? tool)] = Word('S') ?? Word('R') ?? 0; break;
                case "M106": fans[(int)(Word('P') ?? 0)] = Word('S')!.Value / fullFan; break;
                case "M107": fans[(int)(Word('P') ?? 0)] = 0; break;
                case "G0" or "G1":
                    x = Word('X') ?? x;
                    if (body && Word('E') > 0 && Word('X') is not null)
                        laid.Add(new Laid(layer, tool, x, Word('E')!.Value, targets[tool], new Dictionary<int, double>(fans)));
                    break;
                default: break;
            }
        }
        return laid;
    }

    private static string Text(SliceResult result)
    {
        Assert.True(result.Sliced, string.Join('\n', result.Findings.Select(f => f.Message)));
        return Encoding.UTF8.GetString(result.Gcode.Span);
    }

    [Fact]
    public void Every_tool_lays_its_own_part_hot_as_its_filament_asks_under_its_own_fan()
    {
        var job = FourTools();
        var result = Engine.Slice(job);
        var laid = Read(Text(result), 1);
        Assert.Equal([0, 1, 2, 3], laid.Select(l => l.Tool).Distinct().Order());
        foreach (var line in laid)
        {
            var part = Assert.Single(job.Parts, p => Math.Abs(p.Part.X - line.X) < 20);
            Assert.Equal(part.Part.Nozzles[0], $"n{line.Tool + 1}");
            var filament = job.Loaded.GetValueOrDefault(part.Part.Nozzles[0], job.Filament);
            Assert.Equal(line.Layer == 1 ? filament.Nozzle.First : filament.Nozzle.Others, line.Target);
            // each tool's fan has the tool's number; no other runs, and its own never faster than the filament asks
            Assert.All(line.Fans, fan => Assert.True(fan.Key == line.Tool || fan.Value == 0));
            Assert.True(line.Fans.GetValueOrDefault(line.Tool) <= Math.Max(filament.Fan.Share, filament.Fan.Curve.Select(c => c[1])
                .DefaultIfEmpty(0).Max()) + 0.006);
        }
        Assert.All([0, 1, 3], tool => Assert.Contains(laid, l => l.Tool == tool && l.Fans.GetValueOrDefault(tool) > 0.1));
    }

    [Fact]
    public void Mass_by_nozzle_is_volume_by_density()
    {
        var job = FourTools();
        var result = Engine.Slice(job);
        var spent = Spent.Of(result.Run!, job.Machine.Card, job.Filaments).ByNozzle;
        for (var n = 0; n < 4; n++)
        {
            var filament = job.FilamentOf(n);
            var volume = result.Layers.Sum(l => l.Paths.Where(p => p.Nozzle == n)
                .Sum(p => p.Length * p.SectionAt(l.Place.Height))) * (filament.Flow ?? 1);
            // what is pulled back at the last change or by the end routine is not laid
            var back = 7 * Math.PI * 1.75 * 1.75 / 4;
            Assert.InRange(spent[n].Grams!.Value, 0.998 * (volume - back) * filament.Density!.Value / 1000,
                1.002 * volume * filament.Density.Value / 1000);
        }
        var header = Text(result).Split('\n').TakeWhile(l => l.StartsWith(';')).ToArray();
        foreach (var (id, n) in new[] { ("n1", 0), ("n2", 1), ("n3", 2), ("n4", 3) })
            Assert.Contains(header, l => l.StartsWith($"; nozzle {id}: {job.FilamentOf(n).Name}, ", StringComparison.Ordinal)
                && l.EndsWith(FormattableString.Invariant($"{spent[n].Grams:0.0} g"), StringComparison.Ordinal));
    }

    [Fact]
    public void Time_by_nozzle_adds_up_and_in_copy_both_run_together()
    {
        var job = FourTools();
        var run = Engine.Slice(job).Run!;
        var spent = Spent.Of(run, job.Machine.Card, job.Filaments).ByNozzle;
        Assert.Equal(run.TotalSeconds, spent.Sum(n => n.Seconds), 1e-3);
        Assert.All(spent, n => Assert.True(n.Seconds > 10));
        var copy = Job(DemoParts.Card("avocet"), Box("a", 100, 120, 1, "n1")) with { Mode = new() { Kind = ModeKind.Copy } };
        var both = Spent.Of(Engine.Slice(copy).Run!, copy.Machine.Card, copy.Filaments, 2).ByNozzle;
        Assert.Equal(both[0].Seconds, both[1].Seconds);
        Assert.Equal(both[0].Filament, both[1].Filament, 1e-3);
    }

    // A filament of 1.75 and twice the parts: the header of a copy counts both.
    [Fact]
    public void A_copy_counts_both_parts_in_header_and_figures()
    {
        var card = DemoParts.Card("avocet");
        var job = Job(card, Box("a", 100, 120, 1, "n1"));
        double Grams(SliceJob j) => Spent.Of(Engine.Slice(j).Run!, card, j.Filaments, j.Copies).Grams!.Value;
        var copy = job with { Mode = new() { Kind = ModeKind.Copy } };
        Assert.Equal(2 * Grams(job with { Mode = new() { Kind = ModeKind.Single } }), Grams(copy), 0.05);
        var text = Text(Engine.Slice(copy));
        Assert.Contains("; nozzle n1: ", text, StringComparison.Ordinal);
        Assert.Contains("; nozzle n2: ", text, StringComparison.Ordinal);
    }

    // Fans: n1 has 0 and 2, n2 has 1 and 2. In copy the second's own runs at what the trial says.
    [Theory, InlineData(null, 0.4), InlineData(0.7, 0.7), InlineData(0.0, 0.0)]
    public void In_copy_the_second_nozzles_fan_runs_as_the_trial_says(double? said, double runs)
    {
        var job = Job(DemoParts.Card("avocet"), Box("a", 100, 120, 2, "n1")) with { Mode = new() { Kind = ModeKind.Copy, Fan = said } };
        var last = Read(Text(Engine.Slice(job)), 255)[^1];
        Assert.Equal((0.4, 0.4), (Math.Round(last.Fans[0], 2), Math.Round(last.Fans[2], 2)));
        Assert.Equal(runs, Math.Round(last.Fans.GetValueOrDefault(1), 2));
        var single = Read(Text(Engine.Slice(job with { Mode = new() { Kind = ModeKind.Single } })), 255);
        Assert.All(single, l => Assert.Equal(0, l.Fans.GetValueOrDefault(1)));
    }

    [Fact]
    public void A_fan_that_cannot_be_told_or_is_nobodys_is_said()
    {
        var card = DemoParts.Card("avocet");
        var plain = card with { Firmware = card.Firmware with { Flavour = FlavourId.RepRap } };
        var job = Job(plain, Box("a", 100, 120, 1, "n1")) with { Mode = new() { Kind = ModeKind.Single } };
        Assert.Contains(Engine.Slice(job).Findings, f => f.Rule == "fan-not-told");
        var bare = card with
        {
            Head = card.Head with { Nozzles = [.. card.Head.Nozzles!.Select(n => n with { Fans = [] })] },
            Modes = [.. card.Modes.Select(m => m with { Start = null })],
            Routines = card.Routines with { Start = "{{ mode.command }}\nG28\nM109 S240\n" },
        };
        var copy = Job(bare, Box("a", 100, 120, 1, "n1")) with { Mode = new() { Kind = ModeKind.Copy, Fan = 0.5 } };
        Assert.Contains(Engine.Slice(copy).Findings, f => f.Rule == "second-fan-not-set");
        Assert.DoesNotContain(Engine.Slice(copy with { Machine = card.Machine() }).Findings, f => f.Rule == "second-fan-not-set");
    }

    // 75 and 100 °C: the bed takes the warmer, and it is said.
    [Fact]
    public void Filaments_that_want_beds_of_their_own_get_the_warmer_and_it_is_said()
    {
        var job = FourTools();
        var result = Engine.Slice(job);
        var found = Assert.Single(result.Findings, f => f.Rule == "beds-differ");
        Assert.Equal((Severity.Caution, "/loaded/n4"), (found.Severity, found.Pointer));
        Assert.Contains("one of 100: it is heated to 100 °C", found.Message, StringComparison.Ordinal);
        Assert.Contains("\nM140 S100\n", Text(result), StringComparison.Ordinal);
        Assert.Contains("\nM140 S95\n", Text(result), StringComparison.Ordinal);
        Assert.DoesNotContain(Engine.Slice(job with { Loaded = new Dictionary<string, Filament>() }).Findings,
            f => f.Rule == "beds-differ");
    }

    [Fact]
    public void Every_nozzle_in_use_is_matched_with_what_is_in_it()
    {
        var card = DemoParts.Card("oystercatcher");
        var glow = Filament("glow-marker-pla");
        var hard = TrialMatch.Of(card, [new(0, Cards.Petg), new(1, glow)], null, null);
        Assert.NotEqual(Verdict.DoesNotFit, hard.Verdict);
        // brass in n1 does not stand what glows
        var soft = TrialMatch.Of(card, [new(0, glow), new(1, Cards.Petg)], null, null);
        Assert.Equal(Verdict.DoesNotFit, soft.Verdict);
        Assert.StartsWith("n1: It wears brass", soft.Reasons[0].Message, StringComparison.Ordinal);
        Assert.Contains(TrialMatch.Of(card, [new(0, Cards.Petg), new(2, Filament("station-asa-white"))], null, null).Reasons,
            r => r.Message.Contains("it is heated to 100 °C", StringComparison.Ordinal));
        var thick = TrialMatch.Of(card, [new(0, Cards.Petg), new(3, Cards.Petg with { Diameter = 2.85 })], null, null);
        Assert.Equal((Verdict.DoesNotFit, true),
            (thick.Verdict, thick.Reasons[0].Message.StartsWith("n4: It is 2.85", StringComparison.Ordinal)));
    }

    // Avocet's second hot end is rated for 260: 240 + 21 is too much, 240 + 20 is not.
    [Theory, InlineData(20.0, false), InlineData(21.0, true)]
    public void The_rating_looks_at_the_temperature_with_the_difference(double warmer, bool refused)
    {
        var match = TrialMatch.Of(DemoParts.Card("avocet"), [new(0, Cards.Petg), new(1, Cards.Petg)], null,
            new ModeUse { Kind = ModeKind.Copy, Warmer = warmer });
        Assert.Equal(refused, match.Verdict == Verdict.DoesNotFit);
    }

    [Fact]
    public void A_wrong_diameter_in_any_nozzle_stops_the_slice_at_that_nozzle()
    {
        var job = FourTools();
        var wrong = job with
        {
            Loaded = new Dictionary<string,
            Filament>(job.Loaded)
            { ["n3"] = job.Loaded["n3"] with { Diameter = 2.85 } }
        };
        var refused = Engine.Slice(wrong);
        Assert.False(refused.Sliced);
        Assert.Equal("/loaded/n3", Assert.Single(refused.Findings, f => f.Rule == "filament-diameter-mismatch").Pointer);
    }

    // Two boxes of 2 mm in layers of 0.2: nine changes between ten layers' turns and one within each; one at a time needs one.
    [Fact]
    public void What_changes_cost_is_counted_and_a_cheaper_way_is_said_unasked()
    {
        var card = DemoParts.Card("oystercatcher");
        var job = Job(card, Box("a", 60, 120, 2, "n1"), Box("b", 240, 120, 2, "n2"));
        var result = Engine.Slice(job);
        Assert.Equal(10, result.Changes!.Changes);
        Assert.InRange(result.Changes.Seconds, 30, result.Run!.TotalSeconds);
        var said = Assert.Single(result.Findings, f => f.Rule == "changes-cost"
            && f.Message.Contains("One at a time", StringComparison.Ordinal));
        Assert.Contains("(a, b): one change", said.Message, StringComparison.Ordinal);
        Assert.Contains(result.Findings, f => f.Rule == "changes-cost" && f.Message.Contains("All by n1", StringComparison.Ordinal));
        // it is as said: sliced that way it is quicker by what was said, within a quarter
        var other = Engine.Slice(job with { Sequence = Sequence.AllAtOnce, Parts = [job.Parts[0], Box("b", 240, 120, 2, "n1")] });
        Assert.Null(other.Changes);
        var apart = Engine.Slice(job with { Sequence = Sequence.OneAtATime });
        Assert.Equal(1, apart.Changes!.Changes);
        Assert.InRange((result.Run.TotalSeconds - apart.Run!.TotalSeconds) / (result.Changes.Seconds * 0.9), 0.75, 1.25);
        Assert.DoesNotContain(apart.Findings, f => f.Rule == "changes-cost"
            && f.Message.Contains("One at a time", StringComparison.Ordinal));
    }

    [Theory, InlineData(20, "does without a tower"), InlineData(4, "wants the tower")]
    public void A_tower_says_what_it_costs_and_whether_it_is_needed(double side, string words)
    {
        var mesh = Solids.Box(side, side, 1);
        var small = new PartToSlice(new TrialPart { Name = "b", File = "b", X = 160, Y = 120, Nozzles = ["n2"] }, mesh,
            new Footprints(mesh));
        var job = Job(DemoParts.Card("oystercatcher"), Box("a", 60, 120, 1, "n1"), small);
        job = job with { Recipe = job.Recipe with { NozzleChanges = new() { Tower = 20 } } };
        var result = Engine.Slice(job);
        var tower = Assert.Single(result.Findings, f => f.Rule == "tower-cost");
        Assert.Contains(words, tower.Message, StringComparison.Ordinal);
        var volume = result.Layers.Sum(l => l.Paths.Where(p => p.Kind == PathKind.Tower).Sum(p => p.Length * p.SectionAt(l.Place.Height)));
        Assert.Equal(volume * Cards.Petg.Density!.Value / 1000, result.Changes!.Grams!.Value, 1e-6);
        Assert.Contains(FormattableString.Invariant($"and {result.Changes.Grams:0.0} g"), tower.Message, StringComparison.Ordinal);
    }

    [Fact]
    public void Parked_tools_hang_nowhere_on_the_head()
    {
        var card = DemoParts.Card("oystercatcher");
        Assert.DoesNotContain(card.Machine().HeadOf(0), s => s.Name.StartsWith("nozzle", StringComparison.Ordinal));
        var fixedTools = card with { Head = card.Head with { Changer = null } };
        Assert.Equal(3, fixedTools.Machine().HeadOf(0).Count(s => s.Name.StartsWith("nozzle", StringComparison.Ordinal)));
        Assert.Contains(RuleBook.Check(fixedTools), f => f.Rule == "idle-nozzle-lower");
        Assert.DoesNotContain(RuleBook.Check(card), f => f.Rule == "idle-nozzle-lower");
    }

    // Whoever applies the offset, the firmware or the writer, the tip lays the part where it stands.
    [Theory, InlineData(true), InlineData(false)]
    public void An_offset_from_the_vernier_is_used_once_and_the_tip_proves_it(bool firmware)
    {
        var card = DemoParts.Card("oystercatcher");
        Nozzle[] nozzles = [.. card.Head.Nozzles!.Select(n => n with { Offset = n.Offset! with { Z = 0 } })];
        nozzles[1] = nozzles[1] with { Offset = new() { X = 0.5, Y = -0.3 } };
        card = card with { Head = card.Head with { Nozzles = nozzles, Offsets = new() { Firmware = firmware, Gcode = !firmware } } };
        var moves = Engine.Slice(Job(card, Box("a", 60, 120, 1, "n1"), Box("b", 160, 120, 1, "n2"))).Run!.Moves.ToArray()
            .Where(m => m.Tool == 1 && m.Extrudes).ToArray();
        var half = 10 - Engine.Plain.LineWidth!.Value / 2;
        Assert.Equal(160 - half, moves.Min(m => m.To.X), 0.006);
        Assert.Equal(160 + half, moves.Max(m => m.To.X), 0.006);
        Assert.Equal(120 - half, moves.Min(m => m.To.Y), 0.006);
        Assert.Equal(120 + half, moves.Max(m => m.To.Y), 0.006);
    }
}
