using NetTopologySuite.Geometries;

namespace MillCard.Core.Geometry;

/// <summary>Where a shape may be moved so that it stays within a region.</summary>
public static class Erosion
{
    /// <summary>Displacements at which a shape lies within a region: the region's erosion by the shape.</summary>
    public static Shape Of(Shape region, Shape shape)
    {
        if (region.IsEmpty) return Plane.Empty;
        if (region is Polygon polygon && MinkowskiSum.IsConvex(polygon)) return OfConvex(polygon, Shapes.Hull(shape).Coordinates);
        var box = shape.EnvelopeInternal;
        var frame = region.EnvelopeInternal;
        var around = Shapes.Rectangle(frame.MinX - 2 * box.Width - 1, frame.MinY - 2 * box.Height - 1, frame.Width + 4 * box.Width + 2,
            frame.Height + 4 * box.Height + 2);
        var blocked = MinkowskiSum.Of(MinkowskiSum.Negated(shape), Plane.Difference(around, region));
        var centres = Shapes.Rectangle(frame.MinX - box.MinX, frame.MinY - box.MinY, Math.Max(0, frame.Width - box.Width),
            Math.Max(0, frame.Height - box.Height));
        return Plane.Difference(centres, blocked);
    }

    private static Shape OfConvex(Polygon region, Coordinate[] hull)
    {
        var ring = region.ExteriorRing.Coordinates;
        if (NetTopologySuite.Algorithm.Orientation.IsCCW(ring)) ring = [.. ring.Reverse()];
        var box = region.EnvelopeInternal;
        List<Coordinate> free = [new(box.MinX - 9999, box.MinY - 9999), new(box.MaxX + 9999, box.MinY - 9999),
            new(box.MaxX + 9999, box.MaxY + 9999), new(box.MinX - 9999, box.MaxY + 9999)];
        for (var i = 0; i + 1 < ring.Length && free.Count > 0; i++)
        {
            // clockwise ring: the outward normal of an edge (dx, dy) is (−dy, dx)
            var (nx, ny) = (-(ring[i + 1].Y - ring[i].Y), ring[i + 1].X - ring[i].X);
            var reach = hull.Max(p => nx * p.X + ny * p.Y);
            var most = nx * ring[i].X + ny * ring[i].Y - reach;
            free = CutOff(free, nx, ny, most);
        }
        if (free.Count < 3) return Plane.Empty;
        free.Add(free[0]);
        return Plane.Factory.CreatePolygon([.. free]);
    }

    private static List<Coordinate> CutOff(List<Coordinate> polygon, double nx, double ny, double most)
    {
        var kept = new List<Coordinate>(polygon.Count + 1);
        for (var i = 0; i < polygon.Count; i++)
        {
            var (a, b) = (polygon[i], polygon[(i + 1) % polygon.Count]);
            var (da, db) = (nx * a.X + ny * a.Y - most, nx * b.X + ny * b.Y - most);
            if (da <= 0) kept.Add(a);
            if (da < 0 && db > 0 || da > 0 && db < 0)
                kept.Add(new Coordinate(a.X + da / (da - db) * (b.X - a.X), a.Y + da / (da - db) * (b.Y - a.Y)));
        }
        return kept;
    }
}
