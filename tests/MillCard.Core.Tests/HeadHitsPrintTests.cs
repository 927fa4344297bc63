using System.Text;
using CsCheck;
using MillCard.Core.Documents;
using MillCard.Core.DryRun;
using MillCard.Core.Rules;
using Xunit;
using static System.FormattableString;

namespace MillCard.Core.Tests;

/// <summary>Whether a head runs into a post that was printed, against the head set down step by step on its way.</summary>
public sealed class HeadHitsPrintTests
{
    private const double Corner = 20, Cell = 0.5, High = 120;
    /// <summary>As near as this to a bound is left to rounding, mm.</summary>
    private const double Near = 0.03;

    private sealed record Way(double FromX, double FromY, double FromZ, double ToX, double ToY, double ToZ);

    /// <summary>A post in the middle of a cell of the raster, which begins at the corner of all that was laid.</summary>
    private static readonly Gen<(double X, double Y, double Top)> Posts =
        Gen.Select(Gen.OneOf(Gen.Const(0), Gen.Int[0, 180]), Gen.OneOf(Gen.Const(0), Gen.Int[0, 160]), Gen.Double[10, 60])
            .Select((column, row, top) => (Corner + Cell * column + Cell / 2, Corner + Cell * row + Cell / 2, Math.Round(top, 2)));

    /// <summary>By how much a way goes on; level or not.</summary>
    private static readonly Gen<(double X, double Y, double Rise)> Onwards =
        Gen.Select(Gen.Double[-60, 60], Gen.Double[-60, 60], Gen.OneOf(Gen.Const(0.0), Gen.Double[-9, 9]));

    private static readonly Gen<Body> Bodies =
        Gen.Select(Gen.Double[-40, 25], Gen.Double[-40, 25], Gen.Double[2, 30], Gen.Double[2, 30], Gen.Double[0.5, 12])
            .Select((x, y, width, depth, underside) => new Body
            {
                Name = "duct",
                Underside = Math.Round(underside, 2),
                Outline = new RectangleOutline { X = x, Y = y, Width = width, Depth = depth },
            });

    private static Way Rounded(double x, double y, double z, (double X, double Y, double Rise) on) =>
        new(Math.Round(x, 3), Math.Round(y, 3), Math.Round(Math.Max(0.3, z), 3), Math.Round(x + on.X, 3), Math.Round(y + on.Y, 3),
            Math.Round(Math.Max(0.3, z + on.Rise), 3));

    /// <summary>What of the head hits the post on the way: a program that lays the post, lifts, and sets the nozzle down where the way
    /// begins.</summary>
    private static string[] Hits((double X, double Y, double Top) post, Way way, params Body[] bodies)
    {
        string Dot(double x, double y, double z) => Invariant(
            $"G1 Z{High}\nG1 X{x - 0.05:0.###} Y{y:0.###}\nG1 Z{z:0.###}\nG1 X{x + 0.05:0.###} E0.1\n");
        var program = "M140 S60\nM104 S200\nG28\nM190 S60\nM109 S200\nM83\n" + Dot(Corner + 0.05, Corner, 0.2) + Dot(120, 110, 0.2)
            + Dot(post.X, post.Y, post.Top) + Invariant($"G1 Z{High}\nG1 X{way.FromX} Y{way.FromY}\nG92 E0\n");
        var before = program.Count(c => c == '\n');
        // set down by itself it must not hit: only the way is looked at
        program += Invariant($"G1 Z{way.FromZ}\nG1 X{way.ToX} Y{way.ToY} Z{way.ToZ}\n");
        var card = Cards.Bare(180, 160, 170) with { Motion = Cards.Bare().Motion };
        var machine = (card with { Head = card.Head with { Bodies = bodies } }).Machine();
        return [.. RuleBook.Check(SimulatedMachine.Run(machine, Encoding.UTF8.GetBytes(program)), machine)
            .Where(f => f.Rule == "head-hits-print" && f.Line > before).Select(f => f.Message.Split(' ')[1])];
    }

    /// <summary>Whether a rectangle on the head meets the post's middle on the way, the rectangle so much larger and lower.</summary>
    private static bool Meets((double X, double Y, double Top) post, Way way, RectangleOutline box, double underside, double wider)
    {
        const int Steps = 4_000;
        for (var i = 0; i <= Steps; i++)
        {
            var t = (double)i / Steps;
            var (x, y) = (post.X - way.FromX - t * (way.ToX - way.FromX), post.Y - way.FromY - t * (way.ToY - way.FromY));
            if (x > box.X - wider && x < box.X + box.Width + wider && y > box.Y - wider && y < box.Y + box.Depth + wider
                && way.FromZ + t * (way.ToZ - way.FromZ) + underside - wider < post.Top) return true;
        }
        return false;
    }

    private static bool? Meets((double X, double Y, double Top) post, Way way, RectangleOutline box, double underside)
    {
        var surely = Meets(post, way, box, underside, -Near);
        return surely == Meets(post, way, box, underside, Near) ? surely : null;
    }

    [Fact]
    public void A_body_of_the_head_hits_a_post_that_it_passes_too_low()
    {
        var (hit, missed) = (0, 0);
        Gen.Select(Posts, Onwards, Bodies, Gen.Select(Gen.Double[-0.5, 1.5], Gen.Double[-0.5, 1.5], Gen.Double[0, 1], Gen.Double[-4, 2]))
            .Sample((post, on, body, at) =>
        {
            // somewhere on its way the post is about under the body
            var (box, (across, deep, share, above)) = ((RectangleOutline)body.Outline, at);
            var way = Rounded(post.X - box.X - across * box.Width - share * on.X, post.Y - box.Y - deep * box.Depth - share * on.Y,
                post.Top - body.Underside + above - share * on.Rise, on);
            var down = new Way(way.FromX, way.FromY, High, way.FromX, way.FromY, way.FromZ);
            if (Meets(post, way, box, body.Underside) is not { } meets || Meets(post, down, box, body.Underside) is not { } set)
                return;
            var expected = meets || set;
            Assert.True(expected == Hits(post, way, body).Contains("duct"), $"{post} {way} {box} {body.Underside}: {expected}");
            if (expected) Interlocked.Increment(ref hit);
            else Interlocked.Increment(ref missed);
        }, iter: 1500);
        Assert.True(hit > 50 && missed > 50, $"{hit} hit, {missed} missed");
    }

    // the nozzle reaches half a cell round its middle
    [Fact]
    public void The_nozzle_hits_a_post_on_its_way()
    {
        var (hit, missed) = (0, 0);
        Gen.Select(Posts, Onwards, Gen.Double[-0.6, 0.6], Gen.Double[0.1, 0.9], Gen.Double[-4, 2])
            .Sample((post, on, beside, share, above) =>
        {
            // past the post at a distance, level
            var length = Math.Sqrt(on.X * on.X + on.Y * on.Y);
            if (length * Math.Min(share, 1 - share) < 3) return;
            var way = Rounded(post.X - share * on.X - beside * on.Y / length, post.Y - share * on.Y + beside * on.X / length,
                post.Top + above, (on.X, on.Y, 0));
            var away = Math.Abs(Math.Abs(beside) - Cell / 2);
            if (away < 0.01 || Math.Abs(way.FromZ - post.Top) < Near) return;
            var expected = Math.Abs(beside) < Cell / 2 && way.FromZ < post.Top;
            Assert.True(expected == Hits(post, way).Contains("nozzle"), $"{post} {way} {beside}: {expected}");
            if (expected) Interlocked.Increment(ref hit);
            else Interlocked.Increment(ref missed);
        }, iter: 1500);
        Assert.True(hit > 50 && missed > 50, $"{hit} hit, {missed} missed");
    }

    // what was only just laid is brushed when the nozzle sets out from there
    [Theory, InlineData(0.5, 4.7, false), InlineData(0.5, 4.6, true), InlineData(1.2, 4.7, true)]
    public void Shallow_plastic_where_a_way_begins_is_no_hit(double beside, double height, bool hits) =>
        Assert.Equal(hits, Hits((50.25, 50.25, 5), new(50.25 - beside, 50.25, height, 70, 50.25, height)).Contains("nozzle"));

    [Fact]
    public void All_hits_of_a_body_are_counted_in_one_finding()
    {
        var body = new Body { Name = "duct", Underside = 2, Outline = new RectangleOutline { X = 5, Y = -5, Width = 10, Depth = 10 } };
        Assert.Equal(["duct"], Hits((80.25, 80.25, 30), new(60, 80, 10, 70, 82, 12), body));
        Assert.Empty(Hits((80.25, 80.25, 30), new(60, 80, 29, 70, 82, 29), body));
    }
}
