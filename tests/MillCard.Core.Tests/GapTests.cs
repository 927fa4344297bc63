using CsCheck;
using MillCard.Core.Clearance;
using MillCard.Core.Geometry;
using NetTopologySuite.Geometries;
using Xunit;

namespace MillCard.Core.Tests;

/// <summary>How near things of the head come to what stands, and who waits for whom.</summary>
public class GapTests
{
    private static readonly Gen<Polygon> Hulls = DrawnOutlines.Convex(20, 4, 12);

    // NetTopologySuite's distance of envelopes and of areas, as an independent reference
    [Fact]
    public void Boxes_are_as_far_apart_as_they_are() => Gen.Select(Hulls, Hulls, Gen.Double[-60, 60], Gen.Double[-60, 60])
        .Sample((a, b, x, y) =>
    {
        var (one, other) = (a.EnvelopeInternal, Plane.Moved(b, x, y).EnvelopeInternal);
        var apart = Boxes.Apart(one, b.EnvelopeInternal, x, y);
        if (one.Intersects(other)) Assert.True(apart <= 1e-9);
        else Assert.Equal(one.Distance(other), apart, 1e-9);
    }, iter: 1000);

    [Fact]
    public void What_is_swept_by_an_outline_comes_as_near_as_its_sum_does() => Gen.Select(Hulls, Hulls, Hulls, Gen.Double[-90, 90])
        .Sample((standing, path, outline, x) =>
    {
        var swept = new Swept(path, outline.EnvelopeInternal, [outline]);
        var sum = Plane.Moved(MinkowskiSum.Of(path, outline), x, 0);
        Assert.Equal(sum.EnvelopeInternal.MinX - x, swept.Box.MinX, 1e-6);
        Assert.Equal(sum.EnvelopeInternal.MaxY, swept.Box.MaxY, 1e-6);
        var gap = new Standing(standing).Gap(swept, x, 0, double.PositiveInfinity);
        var overlap = standing.Intersection(sum).Area;
        if (overlap > 0.1) Assert.Equal(-1, gap);
        else if (overlap == 0) Assert.Equal(standing.Distance(sum), gap, 1e-6);
    }, iter: 400);

    [Fact]
    public void A_gap_that_is_enough_need_not_be_told_exactly_and_a_smaller_one_is()
    {
        var standing = new Standing(Shapes.Rectangle(0, 0, 10, 10));
        var swept = new Swept((Polygon)Shapes.Rectangle(0, 0, 5, 5));
        Assert.Equal(3, standing.Gap(swept, 13, 0, 8), 1e-9);
        Assert.Equal(2, standing.Gap(swept, 13, 0, 2));
        Assert.Equal(0, standing.Gap(swept, 10, 2, 8), 1e-9);
        Assert.Equal(-1, standing.Gap(swept, 9.9, 2, 8));
        Assert.Equal(5, standing.Gap(swept, 13, 14, 8), 1e-9);
    }

    private static Conflict Before(int first, int then) => new(first, then, "the head", null);

    private static readonly Gen<(int Count, (int First, int Then)[] Pairs)> Graphs =
        from count in Gen.Int[1, 7]
        from pairs in Gen.Select(Gen.Int[0, count - 1], Gen.Int[0, count - 1]).Array[0, 10]
        select (count, pairs.Where(p => p.Item1 != p.Item2).ToArray());

    // reachability by trying all ways, as an independent look
    [Fact]
    public void Parts_that_wait_for_each_other_are_found_and_no_others() => Graphs.Sample(graph =>
    {
        var reaches = new bool[graph.Count, graph.Count];
        int[] all = [.. Enumerable.Range(0, graph.Count)];
        foreach (var (first, then) in graph.Pairs) reaches[first, then] = true;
        foreach (var k in all) foreach (var i in all) foreach (var j in all) reaches[i, j] |= reaches[i, k] && reaches[k, j];
        var expected = all.Where(i => reaches[i, i])
            .Select(i => string.Join(' ', all.Where(j => j == i || (reaches[i, j] && reaches[j, i])))).Distinct().Order();
        var found = Cycles.Of(graph.Count, [.. graph.Pairs.Select(p => Before(p.First, p.Then))]);
        Assert.Equal(expected, found.Select(c => string.Join(' ', c)).Order());
    }, iter: 1000);
}
