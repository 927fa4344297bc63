using NetTopologySuite.Geometries;
using NetTopologySuite.Triangulate.Polygon;

namespace MillCard.Core.Geometry;

/// <summary>Minkowski sums of areas: what a shape sweeps when its zero runs over another.</summary>
public static class MinkowskiSum
{
    /// <summary>Sums are rounded to this many decimals: the hull's orientation test goes wrong on numbers that underflow.</summary>
    private const int Decimals = 9;

    /// <summary>The sum of any areas with any outline.</summary>
    /// <param name="shape">Areas, holes allowed.</param>
    /// <param name="with">Areas; split into convex pieces where they are not convex.</param>
    public static Shape Of(Shape shape, Shape with)
    {
        if (shape.IsEmpty || with.IsEmpty) return Plane.Empty;
        var sums = ConvexPieces(with).Select(piece => OfConvex(shape, piece)).ToArray();
        return Plane.WithoutSlits(Plane.Union(sums));
    }

    /// <summary>The sum of any areas with one convex polygon: the union of the hulls of (edge ⊕ convex) over all edges, and of the shape moved by one point of it.</summary>
    /// <param name="shape">Areas, holes allowed.</param>
    /// <param name="convex">A convex polygon; it need not contain the zero.</param>
    public static Shape OfConvex(Shape shape, Polygon convex)
    {
        var corners = convex.ExteriorRing.Coordinates[..^1];
        var sums = new List<Shape>();
        foreach (var polygon in Plane.Polygons(shape))
        {
            if (polygon.NumInteriorRings == 0 && IsConvex(polygon))
            {
                sums.Add(HullOf(polygon.ExteriorRing.Coordinates[..^1], corners));
                continue;
            }
            sums.Add(Plane.Moved(polygon, corners[0].X, corners[0].Y));
            AddSwept(polygon.ExteriorRing.Coordinates, corners, sums);
            foreach (var hole in polygon.InteriorRings) AddSwept(hole.Coordinates, corners, sums);
        }
        return Plane.WithoutSlits(Plane.Union(sums));
    }

    /// <summary>What an outline passes over on a straight way: its sum with a segment.</summary>
    /// <param name="outline">Convex or not, about its zero.</param>
    /// <param name="from">Where the zero begins.</param>
    /// <param name="to">Where the zero ends.</param>
    public static Shape Along(Polygon outline, Point from, Point to)
    {
        Coordinate[] way = [new(from.X, from.Y), new(to.X, to.Y)];
        return Plane.Union([.. ConvexPieces(outline).Select(piece => HullOf(way, piece.ExteriorRing.Coordinates[..^1]))]);
    }

    /// <summary>The shape mirrored in its zero: −A.</summary>
    public static Shape Negated(Shape shape) =>
        NetTopologySuite.Geometries.Utilities.AffineTransformation.ScaleInstance(-1, -1).Transform(shape);

    /// <summary>Whether the polygon has no hole and no reflex corner.</summary>
    public static bool IsConvex(Polygon polygon)
    {
        if (polygon.NumInteriorRings > 0) return false;
        var ring = polygon.ExteriorRing.Coordinates;
        var sign = 0;
        for (var i = 0; i < ring.Length - 1; i++)
        {
            var (a, b, c) = (ring[i], ring[i + 1], ring[i + 2 < ring.Length ? i + 2 : 1]);
            var turn = Math.Sign((b.X - a.X) * (c.Y - b.Y) - (b.Y - a.Y) * (c.X - b.X));
            if (turn == 0) continue;
            if (sign == 0) sign = turn;
            else if (turn != sign) return false;
        }
        return true;
    }

    private static IEnumerable<Polygon> ConvexPieces(Shape shape)
    {
        foreach (var polygon in Plane.Polygons(shape))
        {
            if (IsConvex(polygon)) { yield return polygon; continue; }
            foreach (var triangle in Plane.Polygons(PolygonTriangulator.Triangulate(polygon)))
                if (triangle.Area > 0) yield return triangle;
        }
    }

    private static void AddSwept(Coordinate[] ring, Coordinate[] corners, List<Shape> sums)
    {
        for (var i = 0; i < ring.Length - 1; i++)
            if (!ring[i].Equals2D(ring[i + 1])) sums.Add(HullOf([ring[i], ring[i + 1]], corners));
    }

    private static Shape HullOf(Coordinate[] a, Coordinate[] b)
    {
        var all = new Coordinate[a.Length * b.Length];
        for (var i = 0; i < a.Length; i++)
            for (var j = 0; j < b.Length; j++)
                all[i * b.Length + j] = new Coordinate(Math.Round(a[i].X + b[j].X, Decimals), Math.Round(a[i].Y + b[j].Y, Decimals));
        return Shapes.Hull(Plane.Factory.CreateMultiPointFromCoords(all));
    }
}
