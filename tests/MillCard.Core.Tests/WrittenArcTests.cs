using System.Globalization;
using System.Text;
using CsCheck;
using MillCard.Core.Documents;
using MillCard.Core.Findings;
using MillCard.Core.Geometry;
using MillCard.Core.Slicing;
using MillCard.Core.Slicing.Paths;
using MillCard.Core.Slicing.Writing;
using Xunit;
using static MillCard.Core.Tests.Engine;

namespace MillCard.Core.Tests;

/// <summary>Curves written as arcs, read back from the program's text.</summary>
public class WrittenArcTests
{
    private static readonly Recipe Round = Plain with { Arcs = true, Deviation = 0.01 };

    /// <summary>An arc as its words say.</summary>
    private readonly record struct ReadArc(Point From, Point To, Point Centre, bool Clockwise, double Fed)
    {
        public double Radius => Centre.To(From);
        public double Sweep
        {
            get
            {
                var turn = Math.Atan2(To.Y - Centre.Y, To.X - Centre.X) - Math.Atan2(From.Y - Centre.Y, From.X - Centre.X);
                return ((Clockwise ? -turn : turn) + 4 * Math.PI) % (2 * Math.PI);
            }
        }
    }

    private static (ReadArc[] Arcs, int Lines) Read(SliceResult result)
    {
        var (arcs, at, lines, body) = (new List<ReadArc>(), new Point(0, 0), 0, false);
        foreach (var line in Encoding.ASCII.GetString(result.Gcode.Span).Split('\n'))
        {
            body |= line == "; layers begin";
            var words = line.Split(';')[0].Split(' ', StringSplitOptions.RemoveEmptyEntries);
            if (words.Length == 0 || words[0] is not ("G0" or "G1" or "G2" or "G3")) continue;
            double? Word(char letter) => words.Skip(1).FirstOrDefault(w => w[0] == letter) is { } word
                ? double.Parse(word.AsSpan(1), CultureInfo.InvariantCulture) : null;
            var to = new Point(Word('X') ?? at.X, Word('Y') ?? at.Y);
            if (words[0] is "G2" or "G3")
                arcs.Add(new(at, to, new(at.X + Word('I')!.Value, at.Y + Word('J')!.Value), words[0] == "G2", Word('E')!.Value));
            else if (body && Word('E') > 0 && at.To(to) > 0) lines++;
            at = to;
        }
        return ([.. arcs], lines);
    }

    [Fact]
    public void A_round_wall_is_a_few_arcs_on_its_own_circle()
    {
        var recipe = Round with { Walls = 2, Infill = new() { Density = 0 }, TopLayers = 0, BottomLayers = 0 };
        var (arcs, lines) = Read(Slice(Solids.Cylinder(12, 2, 256), recipe));
        var (_, straight) = Read(Slice(Solids.Cylinder(12, 2, 256), recipe with { Arcs = false }));
        // ten layers of two walls, three arcs each, and the last chord of each
        Assert.InRange(arcs.Length, 20, 80);
        Assert.True(arcs.Length + lines < straight / 8, $"{arcs.Length} + {lines} of {straight}");
        Assert.All(arcs, arc => Assert.True(arc.Centre.To(new Point(150, 100)) < 0.1));
        Assert.All(arcs, arc => Assert.Contains(new[] { 12 - 0.225, 12 - 0.225 - Flow.ExtrudedLine.Spacing(0.45, 0.2) },
            r => Math.Abs(arc.Radius - r) < 0.02));
        Assert.All(arcs, arc => Assert.InRange(arc.Sweep, 0.1, Math.PI));
        // both ends lie on the circle as well as positions are written
        Assert.All(arcs, arc => Assert.Equal(arc.Radius, arc.Centre.To(arc.To), 0.002));
        var perMm = Flow.ExtrudedLine.Area(0.45, 0.2) / (Math.PI * 1.75 * 1.75 / 4);
        Assert.All(arcs, arc => Assert.Equal(arc.Radius * arc.Sweep * perMm, arc.Fed, 0.0005));
    }

    [Fact]
    public void The_dry_run_of_arcs_takes_and_lays_what_that_of_chords_does()
    {
        var gland = DemoParts.Read("cable-gland");
        var (with, without) = (Slice(gland, Round), Slice(gland, Round with { Arcs = false }));
        Assert.NotEmpty(Read(with).Arcs);
        Assert.Equal(1, with.Run!.Filament / without.Run!.Filament, 0.002);
        Assert.Equal(1, with.Run.TotalSeconds / without.Run.TotalSeconds, 0.05);
        Assert.Equal(without.Findings.Select(f => f.Rule).Distinct().Order(), with.Findings.Select(f => f.Rule).Distinct().Order());
    }

    [Fact]
    public void A_square_has_no_arcs() =>
        Assert.Empty(Read(Slice(Solids.Box(20, 20, 2), Round with { Skirt = new() { Rounds = 0 } })).Arcs);

    [Fact]
    public void A_firmware_that_may_not_know_arcs_gets_none_and_it_is_told()
    {
        var klipper = Cards.Bare() with { Firmware = Cards.Bare().Firmware with { Flavour = FlavourId.Klipper } };
        var result = Slice(Solids.Cylinder(12, 2, 256), Round, klipper);
        Assert.Empty(Read(result).Arcs);
        Assert.Equal(Severity.Note, Assert.Single(result.Findings, f => f.Rule == "arcs-not-known").Severity);
        var known = klipper with { Firmware = klipper.Firmware with { Present = ["G2", "G3"] } };
        var there = Slice(Solids.Cylinder(12, 2, 256), Round, known);
        Assert.NotEmpty(Read(there).Arcs);
        Assert.DoesNotContain(there.Findings, f => f.Rule == "arcs-not-known");
    }

    // Points of a circle with noise: an arc never leaves its points by more than the error, and is found where the noise is small.
    [Fact]
    public void An_arc_keeps_within_its_error() => Gen.Select(Gen.Double[2, 60], Gen.Double[0.02, 0.15], Gen.Int[5, 40],
        Gen.Double[0, 0.03], Gen.Int[0, 10000], Gen.Bool).Sample((radius, step, count, noise, seed, clockwise) =>
    {
        var random = new Random(seed);
        Point[] points = [.. Enumerable.Range(0, count).Select(i => (clockwise ? -i : i) * step).Select(a =>
            (R: radius + noise * (random.NextDouble() - 0.5), A: a)).Select(p => new Point(p.R * Math.Cos(p.A), p.R * Math.Sin(p.A)))];
        var path = new ToolPath(PathKind.OuterWall, points, Closed: false, 0.45);
        if (Arcs.From(path, 0, 0.01) is not { } arc)
        {
            var sagitta = radius * (1 - Math.Cos(step / 2));
            Assert.True(noise > 0.001 || sagitta > 0.019 || 3 * step > Math.PI);
            return;
        }
        for (var i = 0; i <= arc.End; i++) Assert.InRange(Math.Abs(arc.Centre.To(points[i]) - arc.Centre.To(points[0])), 0, 0.01);
        Assert.True(noise > 0.001 || clockwise == arc.Sweep < 0);
        Assert.InRange(Math.Abs(arc.Sweep), 0, Math.PI);
    }, iter: 500);
}

/// <summary>How quickly moves follow each other.</summary>
public class MoveRateTests
{
    private static DryRun.DryRunReport Run(int moves, double each, int speed) => DryRun.SimulatedMachine.Run(Cards.Bare().Machine(),
        Encoding.ASCII.GetBytes("G28\nM83\nG1 X10 Y10 Z0.2 F6000\n" + string.Concat(Enumerable.Range(1, moves).Select(i =>
            string.Create(CultureInfo.InvariantCulture, $"G1 X{10 + i * each:0.###} E0.01 F{60 * speed}\n")))));

    // 0.1 mm at 50 mm/s: 500 moves a second once it is up to speed, in a line
    [Fact]
    public void The_busiest_second_is_counted_by_the_lines_that_begin_in_it()
    {
        Assert.InRange(DryRun.BusiestSecond.Of(Run(1200, 0.1, 50)).Moves, 490, 502);
        Assert.Equal(21, DryRun.BusiestSecond.Of(Run(20, 0.1, 50)).Moves);
    }

    [Fact]
    public void More_than_the_board_takes_is_told_and_what_it_has_in_stock_is_not()
    {
        Finding[] With(int? most, int moves) => [.. new Rules.DryRunRules.MovesTooQuick().Look(Run(moves, 0.1, 50),
            (Cards.Bare() with { Firmware = Cards.Bare().Firmware with { MovesPerSecond = most } }).Machine())];
        Assert.Contains("the board takes 200", Assert.Single(With(200, 1200)).Message, StringComparison.Ordinal);
        Assert.Empty(With(200, 216 - 1));
        Assert.Single(With(200, 217));
        Assert.Empty(With(520, 1200));
        Assert.Empty(With(null, 1200));
    }
}
