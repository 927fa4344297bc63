using CsCheck;
using MillCard.Core.Geometry;
using NetTopologySuite.Algorithm;
using NetTopologySuite.Geometries;
using Xunit;

namespace MillCard.Core.Tests;

/// <summary>Whether segments cross each other very often.</summary>
public class CrossingsTests
{
    private static bool AreMany(IEnumerable<DirectedSegment> segments) => Crossings.AreMany([.. segments], CancellationToken.None);

    /// <summary>So many lines each way, which all cross, far from zero.</summary>
    private static IEnumerable<DirectedSegment> Lattice(int each, double x, double y) =>
        Enumerable.Range(0, each).SelectMany(i => new DirectedSegment[]
        {
            new(x - 1, y + i, x + each, y + i), new(x + i, y - 1, x + i, y + each),
        });

    [Theory]
    [InlineData(0, 0)]
    [InlineData(900, 900)]
    [InlineData(-900, 900)]
    [InlineData(900, -900)]
    public void A_lattice_crosses_itself_many_times_wherever_it_lies(double x, double y) => Assert.True(AreMany(Lattice(30, x, y)));

    [Theory]
    [InlineData(0, 0)]
    [InlineData(900, -900)]
    public void What_lies_beside_one_another_does_not(double x, double y)
    {
        Assert.False(AreMany(Enumerable.Range(0, 3000).Select(i => new DirectedSegment(x, y + i * 0.01, x + 1, y + i * 0.01))));
        Assert.False(AreMany(Enumerable.Range(0, 3000).Select(i => new DirectedSegment(x + i * 0.01, y, x + i * 0.01, y + 1))));
        Assert.False(AreMany(Enumerable.Range(0, 500).Select(i => new DirectedSegment(x + i, y + i, x + i + 1, y + i + 1))));
    }

    [Fact]
    public void Nothing_crosses_where_there_is_next_to_nothing()
    {
        Assert.False(AreMany([]));
        Assert.False(AreMany([new(0, 0, 1, 1)]));
        Assert.False(AreMany([new(0, 0, 2, 2), new(0, 2, 2, 0)]));
        Assert.False(AreMany([new(3, 3, 3, 3), new(3, 3, 3, 3)]));
    }

    [Fact]
    public void Some_crossings_a_segment_are_not_many() =>
        // pairs that cross once each, a hundred times as far from one another as they are long
        Assert.False(AreMany(Enumerable.Range(0, 2000).SelectMany(i => new DirectedSegment[]
        {
            new(i * 200, 0, i * 200 + 2, 2), new(i * 200, 2, i * 200 + 2, 0),
        })));

    private static readonly Gen<DirectedSegment[]> Heaps =
        from many in Gen.Int[20, 160]
        from x in Gen.Double[-500, 500]
        from length in Gen.Int[0, 2].Select(i => new[] { 1.0, 8, 60 }[i])
        from ends in Gen.Select(Gen.Double[0, 40], Gen.Double[0, 40], Gen.Double[-1, 1], Gen.Double[-1, 1]).Array[many]
        select ends.Select(e => new DirectedSegment(x + e.Item1, e.Item2, x + e.Item1 + length * e.Item3, e.Item2 + length * e.Item4))
            .ToArray();

    // every pair looked at by NetTopologySuite, as an independent reference
    [Fact]
    public void It_is_told_as_one_who_looks_at_all_pairs_tells_it()
    {
        var (crossed, uncrossed) = (0, 0);
        Heaps.Sample(segments =>
        {
            var crossings = 0;
            for (var i = 0; i < segments.Length; i++) for (var k = 0; k < i; k++) if (Cross(segments[i], segments[k])) crossings++;
            var many = AreMany(segments);
            // a crossing near the edge of a cell may be missed, none is counted twice
            if (crossings > 1.5 * (100 + segments.Length)) Assert.True(many, $"{crossings} of {segments.Length}");
            if (crossings <= 100 + segments.Length) Assert.False(many, $"{crossings} of {segments.Length}");
            if (many) Interlocked.Increment(ref crossed);
            else Interlocked.Increment(ref uncrossed);
        }, iter: 300);
        Assert.True(crossed > 20 && uncrossed > 20, $"{crossed}, {uncrossed}");
    }

    private static bool Cross(DirectedSegment a, DirectedSegment b)
    {
        var finder = new RobustLineIntersector();
        finder.ComputeIntersection(new(a.X0, a.Y0), new(a.X1, a.Y1), new(b.X0, b.Y0), new Coordinate(b.X1, b.Y1));
        return finder.IsProper;
    }
}
