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
        using var curve = new MeasuredCurve(ring.Length, hasSides: false);
        for (var i = 0; i < ring.Length; i++) curve.Put(i, ring[i].X, ring[i].Y);
        var keep = Kept(curve, [Farthest(ring.Length, i => ring[i].Distance(ring[0]))], error, stop);
        return [.. ring.Where((_, i) => keep[i])];
    }

    /// <summary>Which points of a curve are kept: its ends always; of a closed one the last is the first again.</summary>
    /// <param name="curve">The curve.</param>
    /// <param name="anyway">Points between its ends that are kept whatever lies beside them, from first to last.</param>
    /// <param name="error">How far a left-out point may lie off.</param>
    /// <param name="stop">Ends the computation.</param>
    internal static bool[] Kept(MeasuredCurve curve, IEnumerable<int> anyway, double error, CancellationToken stop = default)
    {
        var (keep, sections, begin) = (new bool[curve.Count], new Stack<(int From, int To)>(), 0);
        keep[0] = true;
        foreach (var end in anyway.Append(curve.Count - 1))
        {
            keep[end] = true;
            sections.Push((begin, end));
            begin = end;
        }
        while (sections.TryPop(out var section))
        {
            stop.ThrowIfCancellationRequested();
            if (Farthest(section.From, section.To, curve, error) is not { } at) continue;
            keep[at] = true;
            sections.Push((section.From, at));
            sections.Push((at, section.To));
        }
        return keep;
    }

    /// <summary>A ring has no ends: its first corner and the one farthest from it stand for them.</summary>
    public static int Farthest(int count, Func<int, double> fromFirst) => Enumerable.Range(0, count).MaxBy(fromFirst);

    private static int? Farthest(int from, int to, MeasuredCurve curve, double error)
    {
        var most = curve.Measure(from, to);
        if (most <= error * error) return null;
        var (middle, best) = ((from + to) / 2, -1);
        var squares = curve.Squares;
        for (var i = from + 1; i < to; i++)
            if (squares[i] >= AsFar * AsFar * most && (best < 0 || Math.Abs(i - middle) < Math.Abs(best - middle))) best = i;
        return best;
    }
}
