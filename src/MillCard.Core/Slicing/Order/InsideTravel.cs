using MillCard.Core.Geometry;

namespace MillCard.Core.Slicing.Order;

/// <summary>Ways from line to line that stay within a part, so that nothing is dragged over its outside.</summary>
internal sealed class InsideTravel : IDisposable
{
    private const double LongestDetour = 3;
    private const double Always = 8;

    private readonly Edges _outline;
    private readonly IReadOnlyList<Point[]> _rings;

    /// <param name="region">The layer's cross-section.</param>
    /// <param name="rings">Ways round along which it may be gone: the middles of its outer walls.</param>
    public InsideTravel(Shape region, IReadOnlyList<Point[]> rings) => (_outline, _rings) = (new Edges(region), rings);

    /// <summary>Gives the memory back.</summary>
    public void Dispose() => _outline.Dispose();

    /// <summary>The corners of a way between two points, without them; null where none is known that is not far longer than the straight
    /// one.</summary>
    public Point[]? Between(Point from, Point to)
    {
        if (Inside(from, to)) return [];
        var straight = from.To(to);
        Point[]? best = null;
        var least = Math.Max(Always, LongestDetour * straight);
        foreach (var ring in _rings)
        {
            if (Crossings(ring, from, to) is not { } cut) continue;
            foreach (var way in new[] { Walk(ring, cut.First, cut.Last, 1), Walk(ring, cut.First, cut.Last, -1) })
            {
                var length = from.To(way[0]) + to.To(way[^1]);
                for (var i = 1; i < way.Length; i++) length += way[i - 1].To(way[i]);
                if (length < least && Holds(from, way, to)) (best, least) = (way, length);
            }
        }
        return best;
    }

    private bool Inside(Point a, Point b) => !_outline.AreMet(a, b);

    private bool Holds(Point from, Point[] way, Point to)
    {
        if (!Inside(from, way[0]) || !Inside(way[^1], to)) return false;
        for (var i = 1; i < way.Length; i++) if (!Inside(way[i - 1], way[i])) return false;
        return true;
    }

    /// <summary>Where the straight way first and last meets a ring: number of the corner at the edge's end, and the point.</summary>
    private static ((int Edge, Point At) First, (int Edge, Point At) Last)? Crossings(Point[] ring, Point a, Point b)
    {
        (int, Point)? first = null, last = null;
        var (least, most) = (double.MaxValue, double.MinValue);
        var (dx, dy) = (b.X - a.X, b.Y - a.Y);
        var before = ring[^1];
        for (var i = 0; i < ring.Length; before = ring[i++])
        {
            var corner = ring[i];
            var (s0, s1) = (dx * (before.Y - a.Y) - dy * (before.X - a.X), dx * (corner.Y - a.Y) - dy * (corner.X - a.X));
            if (s0 < 0 == s1 < 0) continue;
            var u = s0 / (s0 - s1);
            var at = new Point(before.X + u * (corner.X - before.X), before.Y + u * (corner.Y - before.Y));
            var t = ((at.X - a.X) * dx + (at.Y - a.Y) * dy) / (dx * dx + dy * dy);
            if (t is < 0 or > 1) continue;
            if (t < least) (least, first) = (t, (i, at));
            if (t > most) (most, last) = (t, (i, at));
        }
        return first is { } f && last is { } l && most > least ? (f, l) : null;
    }

    private static Point[] Walk(Point[] ring, (int Edge, Point At) first, (int Edge, Point At) last, int direction)
    {
        var way = new List<Point> { first.At };
        var n = ring.Length;
        // edge i runs from corner i − 1 to corner i
        for (var edge = first.Edge; edge != last.Edge; edge = (edge + direction + n) % n)
            way.Add(ring[direction > 0 ? edge : (edge + n - 1) % n]);
        way.Add(last.At);
        return [.. way];
    }
}
