using NetTopologySuite.Algorithm.Construct;
using NetTopologySuite.Geometries;

namespace MillCard.Core.Slicing.Walls;

/// <summary>One polygon with the number of lines across it at every rib of its rings.</summary>
internal sealed class Outline
{
    /// <summary>How exactly the thickness of round things is found, mm.</summary>
    private const double RoundError = 0.005;

    /// <param name="polygon">Valid.</param>
    /// <param name="beading">How lines lie by thickness.</param>
    public Outline(Polygon polygon, Beading beading)
    {
        Beading = beading;
        Ribs = Walls.Ribs.Of(polygon, beading.Wide / 2);
        if (Array.TrueForAll(Ribs, ring => !Array.Exists(ring, Counts))) Middle = MaximumInscribedCircle.GetRadiusLine(polygon, RoundError);
        Thickness = [.. Ribs.Select(Across)];
        Lines = LineCounts.Of(this);
    }

    /// <summary>How lines lie by thickness.</summary>
    public Beading Beading { get; }

    /// <summary>From the middle of something round, of which no two sides face each other, to its nearest side; null for all else. Its ribs
    /// end where their discs touch neighbouring sides, which says little.</summary>
    public LineString? Middle { get; }

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

    /// <summary>Whether there is room left between lines that have no other between them and the lines in the middle: where several middles
    /// meet and in bends.</summary>
    /// <param name="index">Number of the line from the outline, from 0.</param>
    /// <param name="step">From its middle to that of what is laid beside it, mm.</param>
    public bool HasRoomWithin(int index, double step)
    {
        for (var ring = 0; ring < Ribs.Length; ring++)
            for (var i = 0; i < Ribs[ring].Length; i++)
            {
                var (lines, thickness) = (Lines[ring][i], Thickness[ring][i]);
                if (lines / 2 - 1 != index || IsWide(ring, i)) continue;
                // a line in the middle takes as much again
                if (Ribs[ring][i].Radius > Beading.DepthOf(thickness, lines, index) + (1 + lines % 2) * step) return true;
            }
        return false;
    }

    /// <summary>Twice the radius where sides face each other or it is wide; round corners it goes evenly from one such place to the
    /// next. Tips that no line fits into say nothing of what lies beside them.</summary>
    private double[] Across(Rib[] ribs)
    {
        var n = ribs.Length;
        var thickness = new double[n];
        bool Holds(Rib rib) => Counts(rib) && 2 * rib.Radius >= Beading.Change(0);
        Predicate<Rib> counts = Array.Exists(ribs, Holds) ? Holds : Counts;
        var first = Array.FindIndex(ribs, counts);
        if (first < 0) Array.Fill(thickness, 2 * (Middle?.Length ?? (n == 0 ? 0 : ribs.Max(r => r.Radius))));
        else
            for (int i = first, next; i < first + n; i = next)
            {
                for (next = i + 1; !counts(ribs[next % n]);) next++;
                thickness[i % n] = 2 * ribs[i % n].Radius;
                Round(ribs, thickness, i, 2 * ribs[next % n].Radius, next);
            }
        for (var i = 0; i < n; i++) if (Counts(ribs[i])) thickness[i] = 2 * ribs[i].Radius;
        return thickness;
    }

    /// <summary>Thickness between two places, each the other's next.</summary>
    private static void Round(Rib[] ribs, double[] thickness, int first, double to, int next)
    {
        var (n, from) = (ribs.Length, thickness[first % ribs.Length]);
        var (least, most) = (Math.Min(from, to), Math.Max(from, to));
        var widest = first;
        for (var k = first + 1; k < next; k++) if (widest == first || ribs[k % n].Radius > ribs[widest % n].Radius) widest = k;
        if (widest > first && ribs[widest % n].Radius > most)
        {
            // no corner of what lies on both sides: much more room, between two tips of a rough outline
            thickness[widest % n] = 2 * ribs[widest % n].Radius;
            Round(ribs, thickness, first, thickness[widest % n], widest);
            Round(ribs, thickness, widest, to, next);
            return;
        }
        // corners say nothing of what lies beside them, nor do the ribs between several
        var hasCorner = false;
        for (var k = first + 1; k < next && !hasCorner; k++) hasCorner = 2 * ribs[k % n].Radius <= least;
        for (var k = first + 1; k < next; k++)
            thickness[k % n] = hasCorner ? from + (to - from) * (k - first) / (next - first) : Math.Min(2 * ribs[k % n].Radius, most);
    }

    private bool Counts(Rib rib) => rib.Faces || 2 * rib.Radius >= Beading.Wide;
}
