using CsCheck;
using MillCard.Core.Geometry;
using Xunit;

namespace MillCard.Core.Tests;

/// <summary>Outlines of squares of a raster, against counting the squares and their sides.</summary>
public sealed class CellRingsTests
{
    private const int Side = 128;

    private static List<(int Column, int Row)[]>? Rings(HashSet<(int Column, int Row)> squares, int most = 100_000) =>
        CellRings.Of(Side, row =>
        {
            var bits = new ulong[Side / 64];
            foreach (var (column, _) in squares.Where(s => s.Row == row)) bits[column / 64] |= 1UL << column;
            return bits;
        }, most, CancellationToken.None);

    /// <summary>Twice the area to the left of a ring.</summary>
    private static int Twice((int Column, int Row)[] ring) => ring.Zip([.. ring[1..], ring[0]],
        (a, b) => a.Column * b.Row - b.Column * a.Row).Sum();

    private static int Length((int Column, int Row)[] ring) => ring.Zip([.. ring[1..], ring[0]],
        (a, b) => Math.Abs(a.Column - b.Column) + Math.Abs(a.Row - b.Row)).Sum();

    // over the bound between two words, so dense that squares meet at corners in both ways
    [Fact]
    public void Outlines_enclose_the_squares_and_run_along_every_side_that_is_free() =>
        Gen.Select(Gen.Int[55, 75], Gen.Int[1, 20]).HashSet[0, 250].Sample(squares =>
        {
            var rings = Rings(squares)!;
            Assert.Equal(2 * squares.Count, rings.Sum(Twice));
            var free = squares.Sum(s => new[] { (1, 0), (-1, 0), (0, 1), (0, -1) }
                .Count(d => !squares.Contains((s.Item1 + d.Item1, s.Item2 + d.Item2))));
            Assert.Equal(free, rings.Sum(Length));
            // a corner where two squares meet is gone through by two rings, or by one on both its ways
            Assert.All(rings, ring => Assert.All(ring.Zip([.. ring[1..], ring[0]]),
                way => Assert.True(way.First.Column == way.Second.Column != (way.First.Row == way.Second.Row))));
        }, iter: 300);

    [Theory, InlineData(63, 64), InlineData(64, 63), InlineData(70, 71)]
    public void Squares_that_meet_at_a_corner_have_an_outline_each(int lower, int upper)
    {
        var rings = Rings([(lower, 5), (upper, 6)])!;
        Assert.Equal([2, 2], rings.Select(Twice));
        Assert.All(rings, ring => Assert.Equal(4, ring.Length));
    }

    [Fact]
    public void A_hole_has_an_outline_of_its_own_that_runs_the_other_way()
    {
        var frame = Enumerable.Range(0, 9).Select(i => (60 + i % 3, 5 + i / 3)).Where(s => s != (61, 6)).ToHashSet();
        Assert.Equal([-2, 18], Rings(frame)!.Select(Twice).Order());
    }

    [Fact]
    public void There_are_none_where_their_pieces_are_too_many()
    {
        HashSet<(int, int)> squares = [.. Enumerable.Range(0, 20).Select(i => (5 + 2 * i, 5))];
        Assert.Equal(20, Rings(squares, 80)!.Count);
        Assert.Null(Rings([.. squares, .. squares.Select(s => (s.Item1, 9))], 80));
    }
}
