using MillCard.Core.Geometry;
using NetTopologySuite.Geometries;

namespace MillCard.Core.Slicing;

/// <summary>Tells cheaply whether an inset lost anything: where nothing closes up, its area follows from edges and corners alone.</summary>
internal static class Inset
{
    /// <summary>Less than this is no place for a line, mm².</summary>
    private const double Unnoticed = 0.02;

    /// <summary>Whether an inset has the area that moving every edge inwards gives: A − P·d + d²·(Σ tan(θ/2) over corners that point outwards − Σ |θ|/2 over those that point inwards).</summary>
    /// <param name="before">Areas.</param>
    /// <param name="after">The same, inset.</param>
    /// <param name="distance">By how much, mm.</param>
    public static bool KeepsItsForm(Shape before, Shape after, double distance)
    {
        if (before.IsEmpty) return true;
        if (after.IsEmpty) return false;
        var expected = before.Area;
        foreach (var polygon in Plane.Polygons(before))
        {
            expected -= Lost(polygon.ExteriorRing, distance, isHole: false);
            foreach (var hole in polygon.InteriorRings) expected -= Lost(hole, distance, isHole: true);
        }
        return Math.Abs(expected - after.Area) < Unnoticed;
    }

    private static double Lost(LineString ring, double distance, bool isHole)
    {
        var c = ring.CoordinateSequence;
        var n = c.Count - 1;
        var twice = 0.0;
        for (var i = 0; i < n; i++) twice += c.GetX(i) * c.GetY(i + 1) - c.GetX(i + 1) * c.GetY(i);
        // with the solid to the left of the way, corners that turn left point outwards
        var side = twice > 0 != isHole ? 1 : -1;
        var (length, corners) = (0.0, 0.0);
        var (px, py) = (c.GetX(0) - c.GetX(n - 1), c.GetY(0) - c.GetY(n - 1));
        for (var i = 0; i < n; i++)
        {
            var (x, y) = (c.GetX(i + 1) - c.GetX(i), c.GetY(i + 1) - c.GetY(i));
            length += Math.Sqrt(x * x + y * y);
            var turn = side * Math.Atan2(px * y - py * x, px * x + py * y);
            corners += turn > 0 ? Math.Tan(turn / 2) : turn / 2;
            (px, py) = (x, y);
        }
        return length * distance - distance * distance * corners;
    }
}
