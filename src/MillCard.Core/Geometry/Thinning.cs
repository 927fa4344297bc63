using System.Buffers;
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
        var keep = Kept(ring.Length, Farthest(ring.Length, i => ring[i].Distance(ring[0])), new OffRing(ring), error, stop);
        return [.. ring.Where((_, i) => keep[i])];
    }

    /// <summary>Which points of a curve are kept.</summary>
    /// <param name="count">Number of its points; of a closed one the last is the first again.</param>
    /// <param name="middle">A point between the ends that is kept anyway; null for none.</param>
    /// <param name="off">How far points lie off straight ways.</param>
    /// <param name="error">How far a left-out point may lie off.</param>
    /// <param name="stop">Ends the computation.</param>
    internal static bool[] Kept<TOff>(int count, int? middle, TOff off, double error, CancellationToken stop = default)
        where TOff : struct, IOffStraight
    {
        var keep = new bool[count];
        var offs = ArrayPool<double>.Shared.Rent(count);
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
            if (Farthest(section.From, section.To, off, offs, error) is not { } at) continue;
            keep[at] = true;
            sections.Push((section.From, at));
            sections.Push((at, section.To));
        }
        ArrayPool<double>.Shared.Return(offs);
        return keep;
    }

    /// <summary>A ring has no ends: its first corner and the one farthest from it stand for them.</summary>
    public static int Farthest(int count, Func<int, double> fromFirst) => Enumerable.Range(0, count).MaxBy(fromFirst);

    private static int? Farthest<TOff>(int from, int to, TOff off, double[] offs, double error) where TOff : struct, IOffStraight
    {
        var most = off.Squares(from, to, offs);
        if (most <= error * error) return null;
        var (middle, best) = ((from + to) / 2, -1);
        for (var i = from + 1; i < to; i++)
            if (offs[i] >= AsFar * AsFar * most && (best < 0 || Math.Abs(i - middle) < Math.Abs(best - middle))) best = i;
        return best;
    }

    private readonly struct OffRing(Coordinate[] ring) : IOffStraight
    {
        public double Squares(int from, int to, double[] offs)
        {
            var (way, most) = (new StraightWay(At(ring[from]), At(ring[to])), 0.0);
            for (var i = from + 1; i < to; i++)
            {
                offs[i] = way.Off(At(ring[i])).Square;
                most = Math.Max(most, offs[i]);
            }
            return most;

            static Point At(Coordinate c) => new(c.X, c.Y);
        }
    }
}

/// <summary>How far points of a curve lie off straight ways between others of it. Asked for every point of a curve again and
/// again.</summary>
internal interface IOffStraight
{
    /// <summary>The square of how far every point between two lies off the straight way from the one to the other, kept by its number; and
    /// the greatest of them.</summary>
    double Squares(int from, int to, double[] offs);
}

/// <summary>A straight way from one point to another, from which many are measured.</summary>
internal readonly struct StraightWay(Point from, Point to)
{
    private readonly double _x = to.X - from.X, _y = to.Y - from.Y;
    private readonly double _perSquare = from == to ? 0 : 1 / ((to.X - from.X) * (to.X - from.X) + (to.Y - from.Y) * (to.Y - from.Y));

    /// <summary>The square of a point's distance, and the share of the way at which it is nearest.</summary>
    public (double Square, double Share) Off(Point at)
    {
        var (x, y) = (at.X - from.X, at.Y - from.Y);
        var share = Math.Clamp((x * _x + y * _y) * _perSquare, 0, 1);
        var (dx, dy) = (x - share * _x, y - share * _y);
        return (dx * dx + dy * dy, share);
    }
}
