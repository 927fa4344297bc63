using System.Globalization;
using System.Text;
using MillCard.Core.Documents;
using MillCard.Core.DryRun;
using MillCard.Core.Routines.Learning;
using MillCard.Core.Rules;
using Xunit;

namespace MillCard.Core.Tests;

/// <summary>What programs of other writers tell: where their layers are, and routines that are true for other prints, too.</summary>
public class LearnedTests
{
    private const string Warm = "M140 S60\nM104 S210\nG28\nM190 S60\nM109 S210\nG90\n";
    private static readonly Card Card = Cards.Bare(180, 160, 170) with { Motion = Cards.Dunlin.Motion };

    /// <summary>Five layers of a square of 30 mm, E as lengths or as positions that go on from a figure.</summary>
    private static string Square(bool positions = false, double scale = 1, double e = 0)
    {
        var text = new StringBuilder();
        string E(double mm) => (positions ? e += mm * scale : mm * scale).ToString("0.#####", CultureInfo.InvariantCulture);
        for (var layer = 1; layer <= 5; layer++)
        {
            text.Append(CultureInfo.InvariantCulture, $"G1 Z{0.2 * layer:0.##} F600\nG0 X60 Y60 F6000\nG1 F1800\n");
            foreach (var corner in new[] { "X90", "Y90", "X60", "Y60" })
                text.Append(CultureInfo.InvariantCulture, $"G1 {corner} E{E(1)}\n");
        }
        return text.ToString();
    }

    private static DryRunReport Run(string program) => SimulatedMachine.Run(Card.Machine(), Encoding.UTF8.GetBytes(program));

    private static Learned Of(string program, Card? card = null) => Learned.Of((card ?? Card).Machine(), Encoding.UTF8.GetBytes(program));

    [Theory]
    [InlineData("")]
    [InlineData("G1 Z0.3 F600\nG1 X5 Y5 F6000\nG1 X100 E9 F900\nG92 E0\nG1 Z2 F600\n")]
    [InlineData("G1 Z0.3 F600\nG1 X5 Y5 F6000\nG1 Y100 E9 F900\nG1 X5.4\nG1 Y5 E9\nG1 Z2 F600\n")]
    [InlineData("G1 X5 Y5 Z5 F6000\nG1 Z0.3\nG1 X40 E6 F900\nG1 X60 F6000\n")]
    public void Layers_begin_behind_what_primes_the_nozzle(string prime)
    {
        var program = Warm + "M83\n" + prime + Square() + "G1 Z20 F600\nM104 S0\nM140 S0\nM84\n";
        var run = Run(program);
        Assert.Equal("G1 Z0.2 F600", run.Text.Text(run.LayersBegin));
        Assert.Equal("G1 Y60 E1", run.Text.Text(run.LayersEnd));
        Assert.Equal("G1 Z20 F600", run.Text.Text(run.LayersEnd + 1));
        var learned = Of(program);
        if (prime.Length > 0) Assert.Contains(prime.Split('\n')[2], learned.Start);
        Assert.DoesNotContain("X90", learned.Start);
    }

    /// <summary>A rule about the begin or the end of layers, what stands before and behind them, and the same set right.</summary>
    public static TheoryData<string, string, string, string, string> Around => new()
    {
        { "end-drags-over-part", "", "G1 X5 Y150 F6000\nG1 Z30\n", "", "G1 Z30 F600\nG1 X5 Y150\n" },
        { "end-above-travel", "", "G1 Z171 F600\nG1 X5 Y150\n", "", "G1 Z170 F600\nG1 X5 Y150\n" },
        { "prime-line-under-part", "G1 X50 Y60 Z0.3 F6000\nG1 X95 E4 F900\nG1 Z2 F600\n", "",
            "G1 X50 Y5 Z0.3 F6000\nG1 X95 E4 F900\nG1 Z2 F600\n", "" },
        { "filament-ends-unbalanced", "G1 X5 Y5 Z0.3 F6000\nG1 X95 E4 F900\nG1 E-3\nG1 Z2 F600\n", "",
            "G1 X5 Y5 Z0.3 F6000\nG1 X95 E4 F900\nG1 E-3\nG1 Z2 F600\nG1 E3\n", "" },
        { "redundant-dwell-at-end", "", "G1 Z30 F600\nG1 X5 Y150\nG4 S60\n", "", "G1 Z30 F600\nG1 X5 Y150\n" },
        { "in-the-way-at-the-end", "", "G1 Z10 F600\n", "", "G1 Z30 F600\nG1 X5 Y150\n" },
        { "relative-left-on", "G91\nG1 Z1 F600\n", "", "G91\nG1 Z1 F600\nG90\n", "" },
    };

    [Theory, MemberData(nameof(Around))]
    public void Rules_about_begin_and_end_hold_for_programs_of_other_writers(string rule, string before, string behind, string right,
        string rightBehind)
    {
        string[] Found(string start, string end) =>
            [.. RuleBook.Check(Run(Warm + "M83\n" + start + Square() + end + "M104 S0\nM140 S0\nM84\n"), Card.Machine())
                .Select(f => f.Rule)];
        Assert.Contains(rule, Found(before, behind));
        Assert.DoesNotContain(rule, Found(right, rightBehind));
    }

    [Fact]
    public void A_few_lines_of_a_routine_are_no_layers() =>
        Assert.Equal(-1, Run(Warm + "M83\nG1 X5 Y5 Z0.3\nG1 X100 E9 F900\nM84\n").LayersBegin);

    [Fact]
    public void The_end_of_a_program_that_counts_positions_is_written_as_lengths()
    {
        var program = Warm + "M82\nG92 E0\n" + Square(positions: true) + "G1 E18.5 F2400\nG91\nG1 Z5 E-2\nG90\nG1 X5 Y150\nM104 S0\n";
        var learned = Of(program);
        Assert.Equal("M83\nG1 E-1.5 F2400\nG91\nG1 Z5 E-2\nG90\nM83\nG1 X5 Y150\nM104 S0\n", learned.End);
        Assert.Contains(learned.Notes, n => n.Contains("positions of that print"));
    }

    [Fact]
    public void Volumes_become_lengths()
    {
        var area = Math.PI / 4 * 1.75 * 1.75;
        var learned = Of(Warm + "M200 D1.75\nM83\nG1 X5 Y5 Z0.3 F6000\nG1 X100 E24.0528 F900\nG92 E0\n" + Square(scale: area)
            + "G1 E-4.8106\nM104 S0\n");
        Assert.DoesNotContain("M200", learned.Start);
        Assert.Equal(10, LengthIn(learned.Start!, "G1 X100 E"), 3);
        Assert.Equal(-2, LengthIn(learned.End!, "G1 E"), 3);
        Assert.Equal(0.2, learned.Values.Single(v => v.Pointer == "/layers/others").Value.GetValue<double>(), 6);
    }

    private static double LengthIn(string routine, string begin) =>
        double.Parse(routine.Split('\n').Single(l => l.StartsWith(begin, StringComparison.Ordinal))[begin.Length..]
            .Split(' ')[0], CultureInfo.InvariantCulture);

    [Fact]
    public void A_height_above_that_print_counts_from_the_part()
    {
        var learned = Of(Warm + "M83\n" + Square() + "G1 Z6 F600\nG1 X5 Y150\n");
        Assert.StartsWith("G1 Z{{ part.height | plus: 5 | mm }} F600\n", learned.End);
        Assert.Single(learned.Notes);
    }

    [Fact]
    public void Of_several_nozzles_the_one_that_lays_most_is_told()
    {
        var card = Card with { Head = Card.Head with { Nozzles = [Card.Head.Nozzles![0], Card.Head.Nozzles[0] with { Id = "right" }] } };
        var learned = Of(Warm + "M104 T1 S230\nM109 T1 S230\nM83\nT0\nG1 Z0.2\nG0 X20 Y20\nG1 X21 E0.1\nT1\n" + Square() + "M104 T1 S0\n",
            card);
        Assert.Equal(230, learned.Values.Single(v => v.Pointer == "/nozzle/first").Value.GetValue<double>());
        Assert.Contains(learned.Notes, n => n.Contains("right"));
    }

    [Fact]
    public void Arcs_tell_the_same_as_lines()
    {
        static string Ring(int layer) => string.Create(CultureInfo.InvariantCulture,
            $"G1 Z{0.2 * layer:0.##} F600\nG0 X60 Y60 F6000\nG2 X60 Y60 I15 J0 E{2 * Math.PI * 15 / 30:0.####} F1800\n");
        var rings = string.Concat(Enumerable.Range(1, 5).Select(Ring));
        var (arcs, lines) = (Of(Warm + "M83\n" + rings), Of(Warm + "M83\n" + Square()));
        foreach (var pointer in new[] { "/layers/first", "/layers/others", "/lineWidth" })
            Assert.Equal(lines.Values.Single(v => v.Pointer == pointer).Value.GetValue<double>(),
                arcs.Values.Single(v => v.Pointer == pointer).Value.GetValue<double>(), 2);
        Assert.Equal("M140 S{{ heat.bed }}", arcs.Start!.Split('\n')[0]);
    }
}
