using System.Text;
using MillCard.Core.Documents;
using MillCard.Core.DryRun;
using MillCard.Core.Findings;
using MillCard.Core.Rules;
using MillCard.Core.Patterns;
using Xunit;

namespace MillCard.Core.Tests;

/// <summary>Copy and mirror: the second carriage goes along, with its own heat, reach and head.</summary>
public class CarriageTests
{
    // nozzles n1 from −40 to 280 and n2 from 20 to 340, mirror in the middle of the bed
    private static readonly Card Card = Pattern.All.Single(p =>
        p.Id == "two-carriages").Card with
    { Firmware = new() { Flavour = FlavourId.Marlin } };
    private const string Warm = "M140 S60\nM104 S200\nG28\nM190 S60\nM109 S200\nM83\n";

    private static DryRunReport Run(string program, Card? card = null) =>
        SimulatedMachine.Run((card ?? Card).Machine(), Encoding.UTF8.GetBytes(program));

    private static Finding[] Find(string program, Card? card = null) =>
        Spoken.AllKept(RuleBook.Check(Run(program, card), (card ?? Card).Machine()));

    [Fact]
    public void A_copy_prints_at_its_distance_and_the_mirror_on_the_other_side()
    {
        var copy = Run(Warm + "M605 S2 X110\nG1 X20 Y50 Z0.2 F6000\nG1 X60 E2\n");
        Assert.Equal((130, 170), (copy.SecondMoves[^1].From.X, copy.SecondMoves[^1].To.X));
        Assert.Equal([2, 2], copy.FilamentOf);
        var machine = Card.Machine();
        var middle = machine.Frames.ToMachine(new((machine.Bed.EnvelopeInternal.MinX + machine.Bed.EnvelopeInternal.MaxX) / 2, 0)).X;
        var mirror = Run(Warm + "M605 S3\nG1 X20 Y50 Z0.2 F6000\nG1 X60 E2\n");
        Assert.Equal(2 * middle - 60, mirror.SecondMoves[^1].To.X, 3);
        Assert.Empty(Run(Warm + "M605 S1\nG1 X20 E2\n").SecondMoveList);
    }

    [Fact]
    public void The_second_nozzle_is_warmed_by_so_much_more()
    {
        var run = Run("M605 S2 X110 R15\nM109 S200\n");
        Assert.Equal((200, 215), (run.Nozzles[0].Target, run.Nozzles[1].Target));
        var rating = Card with
        {
            Head = Card.Head with
            {
                Nozzles = [Card.Head.Nozzles![0] with { MaxTemperature = 260 },
            Card.Head.Nozzles[1] with { MaxTemperature = 205 }]
            }
        };
        Assert.Contains(Find("M605 S2 X110 R15\nM109 S200\nM104 S0\n", rating), f => f is { Rule: "target-over-rating", Line: 2 });
        Assert.DoesNotContain(Find("M605 S2 X110 R5\nM109 S200\nM104 S0\n", rating), f => f.Rule == "target-over-rating");
    }

    [Fact]
    public void The_second_carriage_has_its_own_travel()
    {
        Assert.Contains(Find(Warm + "M605 S2 X160\nG1 X200 Y50 F6000\n"), f => f is { Rule: "outside-travel", Line: 8 });
        Assert.DoesNotContain(Find(Warm + "M605 S2 X110\nG1 X200 Y50 F6000\n"), f => f.Rule == "outside-travel");
    }

    [Fact]
    public void The_second_head_hits_what_stands_there()
    {
        var card = Card with
        {
            Envelope = Card.Envelope with
            {
                KeepOuts = [
            Cards.Box("clamp", KeepOutKind.Obstacle, 165, 45, 10, 10, 12)]
            }
        };
        const string copy = "M605 S2 X110\nG1 X20 Y50 Z8 F6000\nG1 X60 F6000\n";
        Assert.Contains(Find("G28\n" + copy, card), f => f is { Rule: "through-keep-out", Line: 4 });
        Assert.DoesNotContain(Find("G28\n" + copy.Replace("S2", "S1"), card), f => f.Rule == "through-keep-out");
    }

    [Fact]
    public void Nothing_is_fed_cold_to_the_second_nozzle_unseen() =>
        Assert.Contains(Find(Warm + "M605 S2 X110\nM104 T1 S0\nG4 S900\nG1 X20 Y50 Z0.2 F6000\nG1 X60 E2\n"),
            f => f.Rule is "cold-extrusion" or "feed-of-the-other-nozzle");
}
