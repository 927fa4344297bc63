using System.Text;
using MillCard.Core.Documents;
using MillCard.Core.DryRun;
using MillCard.Core.Findings;
using MillCard.Core.Meshes;
using MillCard.Core.Reach;
using MillCard.Core.Rules;
using MillCard.Core.Slicing;
using MillCard.Core.Slicing.Jobs;
using Xunit;

namespace MillCard.Core.Tests;

/// <summary>Slicing one part after the other, with more than one nozzle, and in the modes of two carriages.</summary>
public class OneAtATimeTests
{
    private static readonly Recipe Quick = Cards.Standard with
    {
        Layers = new() { First = 0.3, Others = 0.3 },
        Infill = new() { Density = 0.1 },
        Skirt = new() { Rounds = 0 }
    };

    private static SliceJob Job(Card card, params (double X, double Y, double Height, string[] Nozzles)[] parts)
    {
        var taken = parts.Select((p, i) =>
        {
            var mesh = Solids.Box(16, 16, p.Height);
            return new PartToSlice(new TrialPart { Name = $"part {i + 1}", File = "f", X = p.X, Y = p.Y, Nozzles = p.Nozzles }, mesh,
                new Footprints(mesh));
        });
        return new SliceJob("test", card.Machine(), Cards.Petg, Quick, [.. taken]) { Sequence = Sequence.OneAtATime };
    }

    private static string Text(SliceResult result) => Encoding.UTF8.GetString(result.Gcode.Span);

    [Fact]
    public void Each_part_is_finished_before_the_next_and_the_nozzle_passes_above()
    {
        var result = Engine.Slice(Job(Cards.Dunlin, (30, 30, 12, []), (95, 95, 9, [])));
        Assert.True(result.Sliced, string.Join('\n', result.Findings.Select(f => f.Message)));
        Assert.DoesNotContain(result.Findings, f => f.Severity == Severity.Stop);
        Assert.Equal([0, 1], result.Layers.Select(l => l.Part!.Value).Distinct());
        // between the parts Z goes to 12 and the clearance of 1 before X and Y move
        var moves = result.Run!.Moves.ToArray();
        var over = Array.FindIndex(moves, m => m.From.X < 60 && m.To.X > 60 && m.From.Y < 60 && m.To.Y > 60);
        Assert.True(moves[over].From.Z >= 13 && moves[over].To.Z >= 13);
        Assert.Equal(12 / 0.3 + 9 / 0.3, result.Layers.Count, 1.0);
        // and no higher than that
        Assert.InRange(moves.Skip(over - 3).Take(6).Max(m => m.To.Z), 13, 13.31);
    }

    [Fact]
    public void Parts_that_stand_in_each_others_way_are_refused_with_a_cure()
    {
        var result = Engine.Slice(Job(Cards.Dunlin, (60, 90, 20, []), (86, 90, 20, [])));
        Assert.False(result.Sliced);
        var finding = Assert.Single(result.Findings);
        Assert.Equal("no-order", finding.Rule);
        Assert.Contains("part 1, part 2", finding.Message, StringComparison.Ordinal);
        Assert.Contains("lets it be printed after", finding.Message, StringComparison.Ordinal);
    }

    [Fact]
    public void A_way_over_the_finished_part_beyond_the_travel_of_Z_is_refused()
    {
        var card = Cards.Bare(300, 200,
            height: 40) with
        { Motion = Cards.Bare().Motion with { Axes = new() { Z = new() { Min = 0, Max = 40 } } } };
        card = card with { Head = card.Head with { Clearance = 2 } };
        Assert.Equal("no-way-over", Assert.Single(Engine.Slice(Job(card, (50, 50, 39, []), (200, 50, 39, []))).Findings).Rule);
    }

    [Fact]
    public void The_dry_run_sees_a_head_that_runs_into_what_is_printed()
    {
        // all at once refuses nothing here; written by hand, the second part comes too near the first
        var program = new StringBuilder("G28\nM109 S235\nG90\nM83\nG92 E0\nG1 Z0.3 F600\n");
        void Tower(double x, double height)
        {
            program.Append("G0 Z30\n").Append($"G0 X{x} Y80\n");
            for (var z = 0.3; z < height; z += 0.3) program.Append(
                FormattableString.Invariant(
                $"G0 X{x} Y80 Z{z:0.0} F3000\nG1 X{x + 10} Y80 E0.4\nG1 X{x + 10} Y90 E0.4\nG1 X{x} Y90 E0.4\nG1 X{x} Y80 E0.4\n"));
        }
        Tower(40, 12);
        Tower(60, 6);
        var hit = Assert.Single(RuleBook.Check(SimulatedMachine.Run(Cards.Dunlin.Machine(), Encoding.UTF8.GetBytes(program.ToString())),
            Cards.Dunlin.Machine()), f => f.Rule == "head-hits-print");
        Assert.Contains("fan duct", hit.Message, StringComparison.Ordinal);

        program = new("G28\nM109 S235\nG90\nM83\nG92 E0\nG1 Z0.3 F600\n");
        Tower(40, 12);
        Tower(66, 6);
        Assert.DoesNotContain(RuleBook.Check(SimulatedMachine.Run(Cards.Dunlin.Machine(), Encoding.UTF8.GetBytes(program.ToString())),
            Cards.Dunlin.Machine()), f => f.Rule == "head-hits-print");
    }

    [Fact]
    public void The_dry_run_sees_the_nozzle_pass_through_a_finished_part()
    {
        var result = Engine.Slice(Job(Cards.Dunlin, (30, 30, 12, []), (95, 95, 9, [])));
        // without the way over, the nozzle goes straight through
        var flat = string.Join('\n', Text(result).Split('\n')
            .Where(l => l != "G0 Z13" && !l.StartsWith("G0 Z13 ", StringComparison.Ordinal)));
        Assert.NotEqual(Text(result), flat);
        var through = flat.Replace("; layers end", "G0 X30 Y30 Z5\n; layers end", StringComparison.Ordinal);
        var findings = RuleBook.Check(SimulatedMachine.Run(Cards.Dunlin.Machine(), Encoding.UTF8.GetBytes(through)),
            Cards.Dunlin.Machine());
        Assert.Contains(findings, f => f.Rule == "head-hits-print" && f.Message.Contains("nozzle", StringComparison.Ordinal));
    }

    [Fact]
    public void The_dry_run_sees_a_body_run_into_a_clip()
    {
        // the left clip ends at X 12; the duct reaches 14 to the left of the nozzle, 4.5 above its tip
        Finding[] At(double x, double z) => [.. RuleBook.Check(
            SimulatedMachine.Run(Cards.Dunlin.Machine(),
            Encoding.UTF8.GetBytes(FormattableString.Invariant($"G28\nG0 Z{z}\nG0 X{x} Y40\nG0 Y70\n"))), Cards.Dunlin.Machine())
            .Where(f => f.Rule == "through-keep-out")];
        Assert.Contains("fan duct runs through left clip", Assert.Single(At(20, 1)).Message, StringComparison.Ordinal);
        Assert.Empty(At(20, 2));
        Assert.Empty(At(27, 1));
    }

    [Theory, InlineData(true), InlineData(false)]
    public void A_second_nozzle_is_heated_and_its_offset_applied_once(bool firmware)
    {
        var card = Cards.Bare(300, 200);
        card = card with
        {
            Head = card.Head with
            {
                Nozzles = [card.Head.Nozzles![0], card.Head.Nozzles[0] with { Id = "n2", Offset = new() { X = 24, Y = 2, Z = 0 } }],
                Offsets = new() { Firmware = firmware, Gcode = !firmware },
            },
            Routines = new() { Start = "G28\nM109 S235\n", End = "M104 T0 S0\nM104 T1 S0\nM140 S0\nM107\nG91\nG1 Z10 F600\nG90\n" },
        };
        var result = Engine.Slice(Job(card, (60, 60, 3, []), (150, 60, 3, ["n2"])) with { Sequence = Sequence.AllAtOnce });
        Assert.True(result.Sliced, string.Join('\n', result.Findings.Select(f => f.Message)));
        Assert.DoesNotContain(result.Findings, f => f.Severity == Severity.Stop);
        Assert.Contains("\nT1\nM109 T1 S", Text(result), StringComparison.Ordinal);
        // whoever applies the offset, the tip prints where the part stands
        var second = result.Run!.Moves.ToArray().Where(m => m.Tool == 1 && m.Extrudes).ToArray();
        Assert.InRange(second.Min(m => m.To.X), 142, 142.5);
        Assert.InRange(second.Max(m => m.To.Y), 67.5, 68);
        // every layer begins with the nozzle that the last one ended with
        Assert.InRange(Text(result).Split('\n').Count(l => l is "T0" or "T1"), result.Layers.Count, result.Layers.Count + 1);
    }

    [Fact]
    public void The_modes_figures_reach_the_start_routine()
    {
        var card = ReachTests.TwoCarriages(gap: 12);
        card = card with
        {
            Routines = new()
            {
                Start = "{% case mode.name %}{% when 'copy' %}M605 S2 X{{ mode.offset }} R{{ mode.warmer }}{% else "
                + "%}M605 S1{% endcase %}\nG28\nM109 S235\n",
                End = "M104 S0\n"
            },
        };
        card = card with
        {
            Modes = [.. card.Modes.Select(m => m.Kind == ModeKind.Mirror
            ? m with { Start = "M605 S3\n; axis {{ mode.offset }}\nG28\nM109 S235\n" } : m)]
        };
        var job = Job(card, (40, 60, 3, [])) with
        {
            Sequence = Sequence.AllAtOnce,
            SecondFilament = Cards.Petg with { Nozzle = Cards.Petg.Nozzle with { First = Cards.Petg.Nozzle.First + 15 } }
        };
        Assert.Contains("\nM605 S2 X48 R15\n", Text(Engine.Slice(job with { Mode = new() { Kind = ModeKind.Copy } })),
            StringComparison.Ordinal);
        Assert.Contains("\nM605 S2 X70 R-5\n",
            Text(Engine.Slice(job with { Mode = new() { Kind = ModeKind.Copy, Distance = 70, Warmer = -5 } })), StringComparison.Ordinal);
        Assert.Contains("\nM605 S3\n; axis 150\n", Text(Engine.Slice(job with { Mode = new() { Kind = ModeKind.Mirror } })),
            StringComparison.Ordinal);
        Assert.Contains("\nM605 S1\n", Text(Engine.Slice(job with { Mode = new() { Kind = ModeKind.Single } })), StringComparison.Ordinal);
        // where nothing is said the machine runs in single mode, its parked carriage in the way
        Assert.Contains("\nM605 S1\n", Text(Engine.Slice(job)), StringComparison.Ordinal);
        Assert.Equal(ViolationKind.Reach, new Fit(card.Machine())
            .Of([new StandingPart("part", job.Parts[0].Footprints, 270, 60, 0)])[0].Violations[0].Kind);
        Assert.Equal("no-such-mode", Engine.Slice(
            job with { Machine = Cards.Dunlin.Machine(), Mode = new() { Kind = ModeKind.Copy } }).Findings[0].Rule);
    }

    [Fact]
    public void The_head_pulls_back_as_its_feed_wants_and_wipes_back_over_the_line()
    {
        var card = Cards.Bare() with { Routines = new() { Start = "G28\nM109 S235\n", End = "M104 S0\n" } };
        Card Fed(Feed feed, HeadRetraction? own = null) =>
            card with { Head = card.Head with { Nozzles = [card.Head.Nozzles![0] with { Feed = feed, Retraction = own }] } };
        double Back(Card c, Recipe recipe) => Engine.Slice(
            Job(c, (60, 60, 1, []), (120, 60, 1, [])) with { Recipe = recipe, Sequence = Sequence.AllAtOnce }).Run!.Moves.ToArray()
            .Min(m => m.Filament);
        var open = Quick with { Retraction = new() };
        Assert.Equal(-0.8, Back(Fed(new() { Kind = FeedKind.Direct }), open), 1e-5);
        Assert.Equal(-5, Back(Fed(new() { Kind = FeedKind.LongTube }), open), 1e-5);
        Assert.Equal(-1.2, Back(Fed(new() { Kind = FeedKind.Direct }, new() { Length = 1.2 }), open), 1e-5);
        Assert.Equal(-0.5, Back(Fed(new() { Kind = FeedKind.Direct }, new() { Length = 1.2 }),
            open with { Retraction = new() { Length = 0.5 } }), 1e-5);
        var wiped = Engine.Slice(Job(Fed(new() { Kind = FeedKind.Direct }, new() { Length = 1, Wipe = 2 }), (60, 60, 1, []),
            (120, 60, 1, [])) with
        { Recipe = open, Sequence = Sequence.AllAtOnce }).Run!.Moves.ToArray();
        // the way and the filament of the moves that wipe, up to the next travel
        var first = Array.FindIndex(wiped, m => m.Filament < 0);
        var wipe = wiped.Skip(first).TakeWhile(m => m.Filament < 0).ToArray();
        Assert.Equal(2, wipe.Sum(m => Math.Sqrt(Math.Pow(m.To.X - m.From.X, 2) + Math.Pow(m.To.Y - m.From.Y, 2))), 0.01);
        Assert.Equal(-1, wipe.Sum(m => m.Filament), 1e-3);
    }

    [Theory, InlineData(0.4, ProbeKind.None, Severity.Caution), InlineData(0.4, ProbeKind.Switch, Severity.Note),
        InlineData(0.1, ProbeKind.None, null)]
    public void An_uneven_bed_is_held_against_the_first_layer(double uneven, ProbeKind kind, Severity? severity)
    {
        var card = Cards.Dunlin with { Head = Cards.Dunlin.Head with { Probe = new() { Kind = kind, Unevenness = uneven } } };
        Assert.Equal(severity, Engine.Slice(Job(card, (90, 90, 2, []))).Findings.FirstOrDefault(f => f.Rule == "uneven-bed")?.Severity);
    }
}
