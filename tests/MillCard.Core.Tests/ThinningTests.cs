using CsCheck;
using MillCard.Core.Geometry;
using NetTopologySuite.Geometries;
using Xunit;

namespace MillCard.Core.Tests;

/// <summary>Rings drawn with fewer corners.</summary>
public class ThinningTests
{
    /// <summary>Rings of many corners, closed, some of them hardly off a straight line.</summary>
    private static readonly Gen<Coordinate[]> Rings =
        Gen.Double[9.5, 10.5].Array[5, 120].Select(radii => DrawnOutlines.StarRing(radii, 40, -70));

    // NetTopologySuite's distance between a point and a line, as an independent reference
    [Fact]
    public void No_corner_is_left_out_that_lies_further_off_than_the_error() => Gen.Select(Rings, Gen.Double[0.01, 2])
        .Sample((ring, error) =>
    {
        var thin = Plane.Factory.CreateLineString(Thinning.Of(ring, error));
        Assert.All(ring, corner => Assert.InRange(thin.Distance(Plane.Factory.CreatePoint(corner)), 0, error + 1e-9));
    }, iter: 300);

    [Fact]
    public void What_is_kept_are_corners_of_the_ring_in_their_order_and_it_stays_closed() => Gen.Select(Rings, Gen.Double[0.01, 2])
        .Sample((ring, error) =>
    {
        var thin = Thinning.Of(ring, error);
        Assert.Equal(thin[0], thin[^1]);
        var at = thin.Take(thin.Length - 1).Select(corner => Array.IndexOf(ring, corner)).ToArray();
        Assert.DoesNotContain(-1, at);
        Assert.Equal(at.Order(), at);
    }, iter: 100);

    [Fact]
    public void Corners_on_straight_edges_go_and_true_ones_stay()
    {
        // a rectangle of 4 by 2 with a corner every 0.25
        var corners = Enumerable.Range(0, 16).Select(i => new Coordinate(i * 0.25, 0))
            .Concat(Enumerable.Range(0, 8).Select(i => new Coordinate(4, i * 0.25)))
            .Concat(Enumerable.Range(0, 16).Select(i => new Coordinate(4 - i * 0.25, 2)))
            .Concat(Enumerable.Range(0, 8).Select(i => new Coordinate(0, 2 - i * 0.25))).Append(new Coordinate(0, 0)).ToArray();
        var thin = Thinning.Of(corners, 0.01);
        Coordinate[] four = [new(0, 0), new(4, 0), new(4, 2), new(0, 2)];
        Assert.All(four, corner => Assert.Contains(corner, thin));
        // of corners that lie about equally far off the one in the middle is kept, so that one more may stay beside a true one
        Assert.InRange(thin.Length, 5, 9);
    }

    [Fact]
    public void A_bulge_goes_as_soon_as_it_may()
    {
        Coordinate[] bulged = [new(0, 0), new(5, -0.3), new(10, 0), new(10, 10), new(0, 10), new(0, 0)];
        Assert.Equal(6, Thinning.Of(bulged, 0.29).Length);
        Assert.Equal(5, Thinning.Of(bulged, 0.31).Length);
        // down to a triangle
        Assert.Equal(4, Thinning.Of([new(0, 0), new(5, -0.3), new(10, 0), new(5, 9), new(0, 0)], 0.31).Length);
    }

    [Fact]
    public void A_comb_of_very_many_teeth_is_thinned_while_its_owner_waits()
    {
        const int Teeth = 200_000;
        var comb = Enumerable.Range(0, Teeth).Select(i => new Coordinate(i, i % 2)).Append(new Coordinate(Teeth, -50))
            .Append(new Coordinate(0, -50)).Append(new Coordinate(0, 0)).ToArray();
        using var stop = new CancellationTokenSource(TimeSpan.FromMinutes(1));
        Assert.Equal(comb.Length, Thinning.Of(comb, 0.1, stop.Token).Length);
    }

    [Fact]
    public void The_corner_farthest_from_the_first_stands_for_the_other_end() =>
        Assert.Equal(2, Thinning.Farthest(4, i => new[] { 0.0, 5, 7, 5 }[i]));

    [Fact]
    public void It_ends_when_it_is_told_to()
    {
        var ring = Shapes.Ellipse(0, 0, 10, 10, Side.Outside).ExteriorRing.Coordinates;
        Assert.Throws<OperationCanceledException>(() => Thinning.Of(ring, 0.01, new CancellationToken(canceled: true)));
    }
}
