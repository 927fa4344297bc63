using MillCard.Core.Geometry;
using NetTopologySuite.Algorithm;
using NetTopologySuite.Geometries;
using NetTopologySuite.Noding;

namespace MillCard.Core.Slicing.Walls;

/// <summary>Areas made smaller by a distance, as lines within them are laid.</summary>
/// <remarks>Most outlines of a part keep their form: every edge moves sideways, none vanishes and none meets another. They are moved edge
/// by edge here, corner for corner; where that does not do, the general buffer is asked.</remarks>
internal static class Inset
{
    /// <summary>An edge has vanished when it is shorter than this, mm.</summary>
    private const double LeastEdge = 1e-6;

    /// <summary>An area made smaller.</summary>
    /// <param name="before">Valid areas.</param>
    /// <param name="distance">By how much, mm; more than 0.</param>
    /// <param name="chords">Chords a quarter turn, where a corner is rounded.</param>
    public static Shape Of(Shape before, double distance, int chords) =>
        WithoutLoss(before, distance, chords) ?? Plane.Offset(before, -distance, chords);

    /// <summary>An area made smaller where all its edges stay; null where one of them would vanish or meet another.</summary>
    /// <param name="before">Valid areas.</param>
    /// <param name="distance">By how much, mm; more than 0.</param>
    /// <param name="chords">Chords a quarter turn, where a corner is rounded.</param>
    public static Shape? WithoutLoss(Shape before, double distance, int chords) =>
        before.IsEmpty ? before : Moved(before, distance, chords);

    private static Shape? Moved(Shape before, double distance, int chords)
    {
        var polygons = new List<Polygon>();
        foreach (var polygon in Plane.Polygons(before))
        {
            if (Moved(polygon.ExteriorRing, distance, chords, isHole: false) is not { } shell) return null;
            var holes = new LinearRing[polygon.NumInteriorRings];
            for (var i = 0; i < holes.Length; i++)
            {
                if (Moved(polygon.GetInteriorRingN(i), distance, chords, isHole: true) is not { } hole) return null;
                // outlines that do not cross can only have passed each other whole
                if (!PointLocation.IsInRing(hole.GetCoordinateN(0), shell.Coordinates)) return null;
                holes[i] = hole;
            }
            polygons.Add(Plane.Factory.CreatePolygon(shell, holes));
        }
        Shape moved = polygons.Count == 1 ? polygons[0] : Plane.Factory.CreateMultiPolygon([.. polygons]);
        return new FastNodingValidator(SegmentStringUtil.ExtractSegmentStrings(moved)).IsValid ? moved : null;
    }

    /// <summary>A ring with every edge moved towards the solid: corners that point outwards stay sharp, those that point inwards are
    /// rounded where they turn by more than a chord does. Null where an edge vanishes.</summary>
    private static LinearRing? Moved(LineString ring, double distance, int chords, bool isHole)
    {
        var c = ring.Coordinates;
        var n = c.Length - 1;
        // with the solid to the left of the way, the left normal leads inwards
        var shift = Orientation.IsCCWArea(c) != isHole ? distance : -distance;
        var (step, leastCosine) = (Math.PI / 2 / chords, Math.Cos(1.01 * Math.PI / 2 / chords));
        var moved = new List<Coordinate>(n + 16);
        var (px, py, _) = Direction(c[n - 1], c[0]);
        var (taken, firstTaken) = (0.0, 0.0);
        for (var i = 0; i < n; i++)
        {
            var (x, y, length) = Direction(c[i], c[i + 1]);
            if (!(length > LeastEdge)) return null;
            var (cross, dot) = (px * y - py * x, px * x + py * y);
            var closes = cross * shift > 0;
            if (!closes && dot < leastCosine) Round(c[i], px, py, Math.Atan2(cross, dot));
            else
            {
                if (dot < -0.999) return null;
                var mitre = shift / (1 + dot);
                moved.Add(new Coordinate(c[i].X - mitre * (py + y), c[i].Y + mitre * (px + x)));
            }
            // what a corner takes from the edges on both its sides: d·tan(θ/2)
            var takes = closes ? distance * Math.Abs(cross) / (1 + dot) : 0;
            if (i == 0) firstTaken = takes;
            else if (EdgeLength(i - 1) - taken - takes < LeastEdge) return null;
            taken = takes;
            (px, py) = (x, y);
        }
        if (EdgeLength(n - 1) - taken - firstTaken < LeastEdge) return null;
        moved.Add(moved[0].Copy());
        return Plane.Factory.CreateLinearRing([.. moved]);

        double EdgeLength(int edge) => c[edge].Distance(c[edge + 1]);

        void Round(Coordinate corner, double dx, double dy, double turn)
        {
            var pieces = (int)Math.Ceiling(Math.Abs(turn) / step);
            for (var k = 0; k <= pieces; k++)
            {
                var (sin, cos) = Math.SinCos(turn * k / pieces);
                moved.Add(new Coordinate(corner.X - shift * (sin * dx + cos * dy), corner.Y + shift * (cos * dx - sin * dy)));
            }
        }
    }

    private static (double X, double Y, double Length) Direction(Coordinate a, Coordinate b)
    {
        var (x, y) = (b.X - a.X, b.Y - a.Y);
        var length = Math.Sqrt(x * x + y * y);
        return (x / length, y / length, length);
    }
}
