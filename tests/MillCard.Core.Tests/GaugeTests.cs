using System.Text;
using MillCard.Core.Documents;
using MillCard.Core.Findings;
using MillCard.Core.Gauges;
using MillCard.Core.Starting;
using Xunit;

namespace MillCard.Core.Tests;

public class GaugeTests
{
    private static readonly string[] Names = ["dunlin", "kittiwake", "cormorant", "avocet"];

    private static GaugeJob Job(string card) => Job(DemoParts.Card(card));
    private static GaugeJob Job(Card card) => new(card.Machine(), Proposal.Recipe(card), Proposal.Filament(card));
    private static GaugePiece Piece(string id) => GaugePieces.All.Single(p => p.Id == id);
    private static GaugeResult[] Result(string id, GaugeJob job, params (string Name, double Value)[] readings) =>
        [.. Piece(id).Result(job, readings.ToDictionary(r => r.Name, r => r.Value))];

    public static TheoryData<string, string> Pairs => [.. Names.SelectMany(card => GaugePieces.All.Select(piece => (card, piece.Id)))];

    [Theory, MemberData(nameof(Pairs))]
    public void Every_piece_passes_the_dry_run_on_every_demo_card(string card, string piece)
    {
        var job = Job(card);
        var made = GaugePieces.Make(Piece(piece), job);
        if (Piece(piece).NotFor(job.Machine) is not null)
        {
            Assert.Equal("gauge-not-for", Assert.Single(made.Findings).Rule);
            Assert.True(job.Machine.Nozzles.Count < 2);
            return;
        }
        Assert.DoesNotContain(made.Findings, f => f.Severity == Severity.Stop);
        Assert.InRange(made.Run!.TotalSeconds, 60, 4 * 3600);
        Assert.InRange(made.Run.Filament, 5, 10_000);
    }

    [Fact]
    public void A_cube_tells_its_steps_whatever_the_width_of_its_lines()
    {
        var job = Job("dunlin");
        var inside = Piece("steps-cube").Readings(job).Single(r => r.Name == "x-inside").Nominal!.Value;
        // 1 % too long between the middles of the lines, by hand, and lines 0.06 mm wider than they should be
        var middles = (30 + inside) / 2;
        var (wide, narrow) = (30 + 0.01 * middles + 0.06, inside + 0.01 * middles - 0.06);
        var result = Assert.Single(Result("steps-cube", job, ("x", wide), ("x-inside", narrow)));
        Assert.Equal(80 / 1.01, result.New, 0.001);
        // one face alone: 29.7 outside less the line of 0.44
        var (outside, width) = (29.7, job.Width);
        var one = Assert.Single(Result("steps-cube", job, ("x", outside)));
        Assert.Equal(80 * (30 - width) / (outside - width), one.New, 0.001);
        Assert.Contains("measure the other face", one.Says, StringComparison.Ordinal);
        var height = Assert.Single(Result("steps-cube", job, ("z", 20.4)));
        Assert.Equal(("/motion/axes/z/stepsPerMm", true), (height.Pointer, height.New < 400));
    }

    [Theory, InlineData(30.05, true), InlineData(30.06, false), InlineData(29.95, true), InlineData(29.94, false)]
    public void What_lies_within_the_calipers_doubt_changes_nothing(double outside, bool silent)
    {
        var job = Job("dunlin");
        var inside = Piece("steps-cube").Readings(job).Single(r => r.Name == "y-inside").Nominal!.Value + outside - 30;
        var result = Assert.Single(Result("steps-cube", job, ("y", outside), ("y-inside", inside)));
        Assert.Equal(silent, result.New == 80);
        Assert.Equal(silent, result.Says?.Contains("nothing to change", StringComparison.Ordinal) == true);
    }

    [Fact]
    public void A_cube_half_as_large_means_other_microsteps_exactly()
    {
        var card = DemoParts.Card("dunlin");
        var x = card.Motion.Axes.X! with
        {
            StepsPerMm = 160,
            Drive = new BeltDrive { StepAngle = 1.8, Microsteps = 32, Teeth = 20, Pitch = 2 }
        };
        var job = Job(card with { Motion = card.Motion with { Axes = card.Motion.Axes with { X = x } } });
        // asked for 29.56 between the middles, twice as much came, and a little: 16 microsteps give 80 exactly
        var result = Assert.Single(Result("steps-cube", job, ("x", 59.2 + job.Width)));
        Assert.Equal(80, result.Exact);
        Assert.NotEqual(80, result.New);
        Assert.Contains("1/16", result.Says, StringComparison.Ordinal);
    }

    [Fact]
    public void A_thick_wall_asks_for_less_flow()
    {
        var job = Job("dunlin");
        Assert.Equal(Math.Round(job.Recipe.LineWidth!.Value / 0.5, 3), Assert.Single(Result("flow-wall", job, ("wall", 0.5))).New);
        Assert.Empty(Result("flow-wall", job));
    }

    [Theory, InlineData("retraction-pair", "band", 3, 0.8), InlineData("flow-ramp", "band", 1, 5.5),
        InlineData("first-layer-patches", "patch", 7, 0.04), InlineData("compensation-steps", "band", 5, 0.04)]
    public void A_count_tells_the_figure(string piece, string reading, double count, double figure) =>
        Assert.Equal(figure, Assert.Single(Result(piece, Job("dunlin"), (reading, count))).New);

    [Fact]
    public void Patches_lie_in_steps_of_two_hundredths_and_bands_change_what_they_say()
    {
        var job = Job("dunlin");
        var patches = GaugePieces.Make(Piece("first-layer-patches"), job).Layers.Select(l => l.Place.Top).ToArray();
        Assert.Equal(9, patches.Length);
        Assert.All(patches.Skip(1).Zip(patches, (a, b) => a - b), step => Assert.Equal(0.02, step, 1e-9));
        var posts = GaugePieces.Make(Piece("retraction-pair"), job);
        Assert.Equal([0, 0.4, 0.8, 1.2, 1.6, 2], posts.Run!.Moves.ToArray().Where(m => m.Filament < 0 && m.From.Z < 24.5)
            .Select(m => Math.Round(-m.Filament, 3)).Prepend(0).Distinct().Order().Where(l => l <= 2 && Math.Abs(l * 10 % 4) < 1e-6));
        var tower = Encoding.UTF8.GetString(GaugePieces.Make(Piece("temperature-steps"), job).Gcode.Span);
        Assert.All([215, 210, 205, 200, 195], degrees => Assert.Contains($"\nM104 S{degrees}\n", tower, StringComparison.Ordinal));
        var ramp = GaugePieces.Make(Piece("flow-ramp"), job).Run!;
        Assert.InRange(ramp.Moves.ToArray().Where(m => m.Extrudes).Max(m => m.Speed), 150, 180.01f);
    }

    [Fact]
    public void Compensation_grows_from_band_to_band_and_long_sides_change_pace()
    {
        var made = GaugePieces.Make(Piece("compensation-steps"), Job("dunlin"));
        var said = Encoding.ASCII.GetString(made.Gcode.Span).Split('\n').Where(l => l.StartsWith("M900 K", StringComparison.Ordinal))
            .Select(l => double.Parse(l.AsSpan(6), System.Globalization.CultureInfo.InvariantCulture)).ToArray();
        Assert.Equal(Enumerable.Range(0, 10).Select(i => Math.Round(0.01 * i, 4)), said);
        var sides = ReadMoves.Of(made.Gcode).Laying(80).Where(m => Math.Abs(m.From.Y - m.To.Y) < 1e-6).ToArray();
        Assert.Equal([20, 100, 20, 20, 100, 20], sides.Select(m => Math.Round(m.Speed)));
        // the plastic of a mm is the same at every pace
        Assert.All(sides, m => Assert.Equal(sides[0].Fed / sides[0].Length, m.Fed / m.Length, 1e-4));
        Assert.DoesNotContain(made.Findings, f => f.Severity == Findings.Severity.Stop);
    }

    [Fact]
    public void A_firmware_without_pressure_compensation_gets_no_piece_that_measures_it()
    {
        var card = DemoParts.Card("dunlin");
        var made = GaugePieces.Make(Piece("compensation-steps"),
            Job(card with { Firmware = card.Firmware with { Flavour = FlavourId.Smoothieware } }));
        Assert.Equal("gauge-not-for", Assert.Single(made.Findings).Rule);
    }

    [Fact]
    public void The_vernier_has_scales_a_tenth_apart_and_its_coinciding_pair_mends_the_offset()
    {
        var job = Job("avocet");
        var lines = GaugePieces.Make(Piece("offset-vernier"), job).Layers[0].Paths.Where(p => p.Points[0].X == p.Points[1].X)
            .ToLookup(p => p.Nozzle, p => p.Points[0].X);
        Assert.Equal(3.0, lines[0].Order().Zip(lines[0].Order().Skip(1), (a, b) => b - a).Average(), 1e-9);
        Assert.Equal(3.1, lines[1].Order().Zip(lines[1].Order().Skip(1), (a, b) => b - a).Average(), 1e-9);
        // the second nozzle lies 0.3 mm too far left: its line 3 coincides with the first's line 3
        var results = Result("offset-vernier", job, ("x", 3), ("y", 0));
        Assert.Equal(("/head/nozzles/1/offset/x", -0.3), (results[0].Pointer, results[0].New));
        Assert.Equal(0, results[1].New);
    }

    [Fact]
    public void A_bed_without_room_says_so()
    {
        var card = Cards.Bare(40, 40);
        Assert.Equal("gauge-does-not-fit", Assert.Single(GaugePieces.Make(Piece("first-layer-patches"), Job(card)).Findings).Rule);
    }
}
