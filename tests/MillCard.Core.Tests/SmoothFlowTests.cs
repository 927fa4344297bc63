using CsCheck;
using MillCard.Core.Meshes;
using MillCard.Core.Slicing.Writing;
using Xunit;
using static MillCard.Core.Tests.Engine;

namespace MillCard.Core.Tests;

/// <summary>Flow that follows a slope, by its own formula and in the program's text.</summary>
public class SmoothFlowTests
{
    private static double Area => Math.PI * Cards.Petg.Diameter!.Value * Cards.Petg.Diameter.Value / 4;

    [Fact]
    public void Flows_keep_their_slope_lay_everything_and_nowhere_exceed_what_is_meant() => Gen.Select(
        Gen.Select(Gen.Double[0.01, 20], Gen.Double[1, 15], (volume, flow) => new FlowOfMove(volume, flow)).Array[1, 30],
        Gen.Double[0.5, 50]).Sample((moves, slope) =>
    {
        var smooth = new SmoothFlow(moves, slope);
        var (flow, least) = (smooth.PiecesOf(0).First().Flow, moves.Min(m => m.Flow));
        foreach (var (i, move) in moves.Index())
        {
            var pieces = smooth.PiecesOf(i).ToArray();
            Assert.Equal(1, pieces.Sum(p => p.Share), 1e-9);
            Assert.All(pieces, p => Assert.InRange(p.Flow, Math.Min(least, move.Flow) - 1e-9, move.Flow + 1e-9));
            foreach (var (share, next) in pieces)
            {
                // a piece stands for a ramp to both sides of its flow: half a step of 0.5 mm³/s
                Assert.InRange(Math.Abs(next - flow), 0, 0.5 + 1e-6 + slope * share * move.Volume / next);
                flow = next;
            }
        }
    }, iter: 3000);

    // 2 mm³/s to 6 at 4 mm³/s² takes 1 s, in which 4 mm³ are laid; then falls the same way
    [Fact]
    public void A_rise_takes_the_volume_that_its_mean_flow_lays()
    {
        var smooth = new SmoothFlow([new(10, 2), new(20, 6), new(10, 2)], 4);
        Assert.Equal([(1.0, 2.0)], smooth.PiecesOf(0).Select(p => (Math.Round(p.Share, 9), Math.Round(p.Flow, 9))));
        var middle = smooth.PiecesOf(1).ToArray();
        Assert.Equal(12.0 / 20, middle.Single(p => Math.Abs(p.Flow - 6) < 1e-9).Share, 1e-9);
        Assert.Equal(1, middle.Where(p => p.Flow < 6).Sum(p => 20 * p.Share / p.Flow) / 2, 0.03);
        Assert.Equal([(1.0, 2.0)], smooth.PiecesOf(2).Select(p => (Math.Round(p.Share, 9), Math.Round(p.Flow, 9))));
    }

    [Fact]
    public void A_programs_flow_changes_slowly_and_its_lines_stay_where_they_are()
    {
        var plain = Plain with
        {
            Infill = new() { Density = 0.3 },
            Speeds = Plain.Speeds with { OuterWall = 20, InnerWall = 40, Infill = 90, Solid = 70, FirstLayer = 20, LeastLayerTime = 0 },
        };
        var smooth = plain with { Speeds = plain.Speeds with { FlowChange = 8 } };
        var mesh = Block.Of(30, 20, 3);
        var (before, after) = (Slice(mesh, plain), Slice(mesh, smooth));
        var (usual, slow) = (ReadMoves.Of(before.Gcode), ReadMoves.Of(after.Gcode));
        Assert.Equal(usual.Sum(m => m.Fed), slow.Sum(m => m.Fed), 0.01);
        Assert.True(slow.Length > usual.Length);
        Assert.True(after.Run!.TotalSeconds > before.Run!.TotalSeconds);
        // every end of a move of before is one of now, in the same order
        var ends = new Queue<(double, double)>(usual.Where(m => m.Fed > 0 && m.Length > 0)
            .Select(m => (Math.Round(m.To.X, 3), Math.Round(m.To.Y, 3))));
        foreach (var move in slow.Where(m => m.Fed > 0 && m.Length > 0))
            if (ends.TryPeek(out var next) && next == (Math.Round(move.To.X, 3), Math.Round(move.To.Y, 3))) ends.Dequeue();
        Assert.Empty(ends);

        (double Flow, double Seconds)[] Flows(ReadMove[] moves) => [.. moves.Where(m => m.Layer > 0 && m.Fed > 0 && m.Length > 0.05)
            .Select(m => (m.Fed * Area / m.Length * m.Speed, m.Length / m.Speed))];
        double Jump(ReadMove[] moves) => Flows(moves) is var f ? f.Zip(f.Skip(1), (a, b) => Math.Abs(b.Flow - a.Flow)).Max() : 0;
        Assert.True(Jump(usual) > 2);
        Assert.InRange(Jump(slow), 0.1, 0.75);
        // steps of a ramp stand for its slope: over several of them it is met
        var flows = Flows(slow);
        for (var i = 0; i + 6 < flows.Length; i++)
        {
            var window = flows[i..(i + 6)];
            Assert.InRange(Math.Abs(window[^1].Flow - window[0].Flow), 0, 8 * window.Sum(w => w.Seconds) + 0.5);
        }
        Assert.Equal(Flows(usual).Max(f => f.Flow), flows.Max(f => f.Flow), 0.01);
    }
}
