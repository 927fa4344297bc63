using NetTopologySuite.Geometries;

namespace MillCard.Core.Slicing.Walls;

/// <summary>One polygon with the number of lines across it at every rib of its rings.</summary>
internal sealed class Outline
{
    /// <param name="polygon">Valid.</param>
    /// <param name="beading">How lines lie by thickness.</param>
    public Outline(Polygon polygon, Beading beading)
    {
        Beading = beading;
        Ribs = Walls.Ribs.Of(polygon, beading.Wide / 2);
        Thickness = [.. Ribs.Select(Across)];
        Lines = LineCounts.Of(this);
    }

    /// <summary>How lines lie by thickness.</summary>
    public Beading Beading { get; }

    /// <summary>Ribs of every ring.</summary>
    public Rib[][] Ribs { get; }

    /// <summary>Thickness by which lines are laid, at every rib, mm.</summary>
    public double[][] Thickness { get; }

    /// <summary>Lines across the place, at every rib.</summary>
    public int[][] Lines { get; }

    /// <summary>Whether it is wide at a rib.</summary>
    public bool IsWide(int ring, int i) => 2 * Ribs[ring][i].Radius >= Beading.Wide;

    /// <summary>Whether the rib ends in the middle between two sides, or where several such middles meet: there is more room than they
    /// have.</summary>
    public bool HasMiddle(int ring, int i) =>
        Ribs[ring][i] is { OtherRing: >= 0 } rib && (rib.Faces || 2 * rib.Radius > 1.01 * Thickness[ring][i]);

    /// <summary>Twice the radius where sides face each other or it is wide; round corners it goes evenly from one such place to the
    /// next.</summary>
    private double[] Across(Rib[] ribs)
    {
        var n = ribs.Length;
        var thickness = new double[n];
        var first = Array.FindIndex(ribs, Counts);
        if (first < 0) Array.Fill(thickness, n == 0 ? 0 : 2 * ribs.Max(r => r.Radius));
        else
            for (int i = first, next; i < first + n; i = next)
            {
                for (next = i + 1; !Counts(ribs[next % n]);) next++;
                var (from, to) = (2 * ribs[i % n].Radius, 2 * ribs[next % n].Radius);
                var (least, most) = (Math.Min(from, to), Math.Max(from, to));
                thickness[i % n] = from;
                for (var k = i + 1; k < next; k++)
                    thickness[k % n] = 2 * ribs[k % n].Radius is var own && own > least ? Math.Min(own, most)
                        : from + (to - from) * (k - i) / (next - i);
            }
        return thickness;
    }

    private bool Counts(Rib rib) => rib.Faces || 2 * rib.Radius >= Beading.Wide;
}
