using NetTopologySuite.Geometries;

namespace MillCard.Core.Geometry;

/// <summary>Draws rings with fewer corners (D. Douglas and T. Peucker, The Canadian Cartographer 10, 1973).</summary>
/// <remarks>
/// Without recursion, and of the corners that lie farthest off about equally the one in the middle is kept: a comb of many teeth is
/// halved again and again instead of losing tooth after tooth, so that the time stays near n log n.
/// </remarks>
public static class Thinning
{
    private const double AsFar = 0.9;

    /// <summary>Corners of a ring, closed, no left-out corner further off than the error. It may cross itself where the ring comes close to
    /// itself.</summary>
    /// <param name="ring">Closed: its last corner is its first.</param>
    /// <param name="error">In the ring's own unit.</param>
    /// <param name="stop">Ends the computation.</param>
    public static Coordinate[] Of(Coordinate[] ring, double error, CancellationToken stop = default)
    {
        if (ring.Length < 5) return ring;
        var keep = Kept(ring.Length, Farthest(ring.Length, i => ring[i].Distance(ring[0])), (from, to, i) => Off(ring, from, to, i), error,
            stop);
        return [.. ring.Where((_, i) => keep[i])];
    }

    /// <summary>Which points of a curve are kept.</summary>
    /// <param name="count">Number of its points; of a closed one the last is the first again.</param>
    /// <param name="middle">A point between the ends that is kept anyway; null for none.</param>
    /// <param name="off">How far a point (the third) lies off the straight way between two others.</param>
    /// <param name="error">How far a left-out point may lie off.</param>
    /// <param name="stop">Ends the computation.</param>
    public static bool[] Kept(int count, int? middle, Func<int, int, int, double> off, double error, CancellationToken stop = default)
    {
        var keep = new bool[count];
        keep[0] = keep[^1] = true;
        var sections = new Stack<(int From, int To)>();
        if (middle is { } split)
        {
            keep[split] = true;
            sections.Push((0, split));
            sections.Push((split, count - 1));
        }
        else sections.Push((0, count - 1));
        while (sections.TryPop(out var section))
        {
            stop.ThrowIfCancellationRequested();
            if (Farthest(section.From, section.To, off, error) is not { } at) continue;
            keep[at] = true;
            sections.Push((section.From, at));
            sections.Push((at, section.To));
        }
        return keep;
    }

    /// <summary>A ring has no ends: its first corner and the one farthest from it stand for them.</summary>
    public static int Farthest(int count, Func<int, double> fromFirst) => Enumerable.Range(0, count).MaxBy(fromFirst);

    private static int? Farthest(int from, int to, Func<int, int, int, double> off, double error)
    {
        var most = 0.0;
        for (var i = from + 1; i < to; i++) most = Math.Max(most, off(from, to, i));
        if (most <= error) return null;
        var (middle, best) = ((from + to) / 2, -1);
        for (var i = from + 1; i < to; i++)
            if (off(from, to, i) >= AsFar * most && (best < 0 || Math.Abs(i - middle) < Math.Abs(best - middle))) best = i;
        return best;
    }

    private static double Off(Coordinate[] ring, int from, int to, int i)
    {
        var (a, b, p) = (At(ring[from]), At(ring[to]), At(ring[i]));
        return p.To(a.Towards(b, a.NearestShare(b, p)));

        static Point At(Coordinate c) => new(c.X, c.Y);
    }
}
