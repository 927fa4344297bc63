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
        var keep = new bool[ring.Length];
        // a ring has no ends: its first corner and the one farthest from it stand for them
        var far = Enumerable.Range(0, ring.Length).MaxBy(i => ring[i].Distance(ring[0]));
        keep[0] = keep[far] = keep[^1] = true;
        var sections = new Stack<(int From, int To)>([(0, far), (far, ring.Length - 1)]);
        while (sections.TryPop(out var section))
        {
            stop.ThrowIfCancellationRequested();
            if (Farthest(ring, section.From, section.To, error) is not { } split) continue;
            keep[split] = true;
            sections.Push((section.From, split));
            sections.Push((split, section.To));
        }
        return [.. ring.Where((_, i) => keep[i])];
    }

    private static int? Farthest(Coordinate[] ring, int from, int to, double error)
    {
        var most = 0.0;
        for (var i = from + 1; i < to; i++) most = Math.Max(most, Off(ring, from, to, i));
        if (most <= error) return null;
        var (middle, best) = ((from + to) / 2, -1);
        for (var i = from + 1; i < to; i++)
            if (Off(ring, from, to, i) >= AsFar * most && (best < 0 || Math.Abs(i - middle) < Math.Abs(best - middle))) best = i;
        return best;
    }

    private static double Off(Coordinate[] ring, int from, int to, int i)
    {
        var (a, b, p) = (ring[from], ring[to], ring[i]);
        var (dx, dy) = (b.X - a.X, b.Y - a.Y);
        var length = dx * dx + dy * dy;
        var t = length > 0 ? Math.Clamp(((p.X - a.X) * dx + (p.Y - a.Y) * dy) / length, 0, 1) : 0;
        var (x, y) = (a.X + t * dx - p.X, a.Y + t * dy - p.Y);
        return Math.Sqrt(x * x + y * y);
    }
}
