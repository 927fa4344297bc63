using NetTopologySuite.Geometries;
using NetTopologySuite.Index.Strtree;
using NetTopologySuite.Noding;
using NetTopologySuite.Noding.Snap;
using NetTopologySuite.Operation.Polygonize;

namespace MillCard.Core.Geometry;

/// <summary>A directed straight piece of a boundary; the area lies to its left.</summary>
public readonly record struct DirectedSegment(double X0, double Y0, double X1, double Y1)
{
    /// <summary>X where it is at a height, at its ends beyond them; it must not be level.</summary>
    internal double At(double y) => X0 + Math.Clamp((y - Y0) / (Y1 - Y0), 0, 1) * (X1 - X0);

    /// <summary>More than 0 to its left; twice the area of the triangle.</summary>
    internal double Side(double x, double y) => (X1 - X0) * (y - Y0) - (Y1 - Y0) * (x - X0);

    /// <summary>By how much the winding number changes on a straight way that crosses it: 1 more to its left.</summary>
    internal int Across((double X, double Y) from, (double X, double Y) to)
    {
        var (dx, dy) = (to.X - from.X, to.Y - from.Y);
        var (a, b) = (dx * (Y0 - from.Y) - dy * (X0 - from.X) >= 0, dx * (Y1 - from.Y) - dy * (X1 - from.X) >= 0);
        if (a == b) return 0;
        var (left, leftAfter) = (Side(from.X, from.Y) > 0, Side(to.X, to.Y) > 0);
        if (left == leftAfter) return 0;
        return leftAfter ? 1 : -1;
    }
}

/// <summary>Areas from directed segments by winding number, however they cross: a point belongs where the number is not 0.</summary>
public static class Winding
{
    /// <summary>How near points are taken for one, mm: nodes that were moved may cross pieces, then nearer ones have to do.</summary>
    private static readonly double[] Snaps = [1e-6, 1e-7, 1e-8];

    /// <summary>The areas with a winding number other than 0.</summary>
    /// <param name="segments">Segments that together close; order does not matter.</param>
    /// <param name="stop">Ends the computation.</param>
    public static Shape Resolve(IReadOnlyList<DirectedSegment> segments, CancellationToken stop = default)
    {
        if (segments.Count < 3) return Plane.Empty;
        if (OuterBorder.Enclosed(segments, certain: null, stop) is { } enclosed) return enclosed;
        var polygonizer = Noded(segments, Snaps[0], stop);
        for (var finer = 1; finer < Snaps.Length && polygonizer.GetInvalidRingLines().Count > 0; finer++)
            polygonizer = Noded(segments, Snaps[finer], stop);
        var index = new Rays(segments);
        var covered = new List<Shape>();
        foreach (var face in polygonizer.GetPolygons())
        {
            stop.ThrowIfCancellationRequested();
            if (face.Area < 1e-9) continue;
            var inside = face.InteriorPoint.Coordinate;
            if (index.NumberAt(inside.X, inside.Y) != 0) covered.Add(face);
        }
        return Plane.Union(covered);
    }

    /// <summary>Segments broken up where they cross, as faces.</summary>
    private static Polygonizer Noded(IReadOnlyList<DirectedSegment> segments, double snap, CancellationToken stop)
    {
        var strings = new List<ISegmentString>(segments.Count);
        foreach (var s in segments)
            if (s.X0 != s.X1 || s.Y0 != s.Y1) strings.Add(new NodedSegmentString([new(s.X0, s.Y0), new(s.X1, s.Y1)], null));
        var noder = new SnappingNoder(snap);
        noder.ComputeNodes(strings);
        var polygonizer = new Polygonizer();
        var seen = new HashSet<(double, double, double, double)>();
        stop.ThrowIfCancellationRequested();
        foreach (ISegmentString noded in noder.GetNodedSubstrings())
        {
            var c = noded.Coordinates;
            for (var i = 0; i + 1 < c.Length; i++)
            {
                var (a, b) = c[i].CompareTo(c[i + 1]) < 0 ? (c[i], c[i + 1]) : (c[i + 1], c[i]);
                if (!a.Equals2D(b) && seen.Add((a.X, a.Y, b.X, b.Y))) polygonizer.Add(Plane.Factory.CreateLineString([a, b]));
            }
        }
        return polygonizer;
    }

    /// <summary>Segments by the height they span, for a ray to the right.</summary>
    private sealed class Rays
    {
        private readonly STRtree<int> _tree = new(10);
        private readonly IReadOnlyList<DirectedSegment> _segments;

        public Rays(IReadOnlyList<DirectedSegment> segments)
        {
            _segments = segments;
            for (var i = 0; i < segments.Count; i++)
                _tree.Insert(new Envelope(segments[i].X0, segments[i].X1, segments[i].Y0, segments[i].Y1), i);
            _tree.Build();
        }

        public int NumberAt(double x, double y)
        {
            var number = 0;
            foreach (var i in _tree.Query(new Envelope(x, double.MaxValue, y, y)))
            {
                var s = _segments[i];
                if (s.Y0 <= y == s.Y1 <= y) continue;
                var crossing = s.X0 + (y - s.Y0) / (s.Y1 - s.Y0) * (s.X1 - s.X0);
                if (crossing > x) number += s.Y1 > s.Y0 ? 1 : -1;
            }
            return number;
        }
    }
}
