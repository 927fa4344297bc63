using NetTopologySuite.Geometries;
using NetTopologySuite.Triangulate.Polygon;

namespace MillCard.Core.Geometry;

/// <summary>Minkowski sums of areas: what a shape sweeps when its zero runs over another.</summary>
public static class MinkowskiSum
{
    /// <summary>Sums are rounded to this many decimals: the hull's orientation test goes wrong on numbers that underflow.</summary>
    private const int Decimals = 9;

    /// <summary>The sum of any areas with any others.</summary>
    /// <param name="shape">Areas, holes allowed.</param>
    /// <param name="with">Areas, holes allowed.</param>
    public static Shape Of(Shape shape, Shape with)
    {
        var sums = from a in Plane.Polygons(shape) from b in Plane.Polygons(with) select OfPair(Filled(a, b), Filled(b, a));
        return Plane.WithoutSlits(Plane.Union([.. sums]));
    }

    private static Shape OfPair(Polygon a, Polygon b)
    {
        if (IsConvex(a)) return OfConvex(b, a);
        if (IsConvex(b)) return OfConvex(a, b);
        var (p, q) = (ConvexPieces(a).ToArray(), ConvexPieces(b).ToArray());
        var (whole, pieces) = p.Length < q.Length ? (b, p) : (a, q);
        return Plane.Union([.. pieces.AsParallel().AsOrdered().Select(piece => OfConvex(whole, piece))]);
    }

    /// <summary>The polygon without the holes in which another one has no room: they leave no trace in the sum.</summary>
    private static Polygon Filled(Polygon polygon, Polygon other)
    {
        if (polygon.NumInteriorRings == 0) return polygon;
        var (width, height) = (other.EnvelopeInternal.Width, other.EnvelopeInternal.Height);
        var kept = polygon.InteriorRings.Where(r => r.EnvelopeInternal.Width > width && r.EnvelopeInternal.Height > height)
            .Cast<LinearRing>().ToArray();
        return kept.Length == polygon.NumInteriorRings ? polygon : Plane.Factory.CreatePolygon((LinearRing)polygon.ExteriorRing, kept);
    }

    /// <summary>The sum of any areas with one convex polygon: the union of the hulls of (edge ⊕ convex) over all edges, and of the shape
    /// moved by one point of it.</summary>
    /// <param name="shape">Areas, holes allowed.</param>
    /// <param name="convex">A convex polygon; it need not contain the zero.</param>
    public static Shape OfConvex(Shape shape, Polygon convex)
    {
        var corners = convex.ExteriorRing.Coordinates[..^1];
        var sums = new List<Shape>();
        foreach (var polygon in Plane.Polygons(shape))
        {
            if (IsConvex(polygon))
            {
                sums.Add(OfConvexPair(polygon, convex));
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

    /// <summary>The sum of two convex polygons: their edges merged in the order of their directions.</summary>
    /// <param name="a">Convex.</param>
    /// <param name="b">Convex.</param>
    public static Polygon OfConvexPair(Polygon a, Polygon b)
    {
        var (p, q) = (FromLowest(a), FromLowest(b));
        var ring = new Coordinate[p.Length + q.Length + 1];
        var (i, j, n) = (0, 0, 0);
        while (i < p.Length || j < q.Length)
        {
            ring[n++] = new Coordinate(Math.Round(p[i % p.Length].X + q[j % q.Length].X, Decimals),
                Math.Round(p[i % p.Length].Y + q[j % q.Length].Y, Decimals));
            if (i == p.Length) { j++; continue; }
            if (j == q.Length) { i++; continue; }
            var (u, v) = (p[(i + 1) % p.Length], q[(j + 1) % q.Length]);
            var turn = (u.X - p[i].X) * (v.Y - q[j].Y) - (u.Y - p[i].Y) * (v.X - q[j].X);
            if (turn >= 0) i++;
            if (turn <= 0) j++;
        }
        ring[n++] = ring[0].Copy();
        return Plane.Factory.CreatePolygon(ring[..n]);
    }

    /// <summary>A convex polygon with a disc grown on, to the safe side.</summary>
    /// <param name="convex">Convex.</param>
    /// <param name="margin">Radius of the disc, mm.</param>
    public static Polygon Grown(Polygon convex, double margin) => margin > 0
        ? OfConvexPair(convex, Shapes.Ellipse(0, 0, margin, margin, Side.Outside)) : convex;

    /// <summary>Corners counter-clockwise, beginning with the lowest, the leftmost of those.</summary>
    private static Coordinate[] FromLowest(Polygon convex)
    {
        var corners = convex.ExteriorRing.Coordinates[..^1];
        if (!NetTopologySuite.Algorithm.Orientation.IsCCW(convex.ExteriorRing.Coordinates)) Array.Reverse(corners);
        var low = 0;
        for (var i = 1; i < corners.Length; i++)
            if (corners[i].Y < corners[low].Y || corners[i].Y == corners[low].Y && corners[i].X < corners[low].X) low = i;
        return [.. corners[low..], .. corners[..low]];
    }

    /// <summary>Convex pieces that together make the areas.</summary>
    public static IEnumerable<Polygon> ConvexPieces(Shape shape)
    {
        foreach (var polygon in Plane.Polygons(shape))
        {
            if (IsConvex(polygon)) { yield return polygon; continue; }
            foreach (var piece in Merged(Plane.Polygons(PolygonTriangulator.Triangulate(polygon)).Where(t => t.Area > 0)))
                yield return piece;
        }
    }

    /// <summary>Triangles joined across shared edges as long as they stay convex; at most four times as many as needed (Hertel and Mehlhorn
    /// 1983).</summary>
    private static IEnumerable<Polygon> Merged(IEnumerable<Polygon> triangles)
    {
        var pieces = triangles.Select(FromLowest).ToArray();
        var owner = new Dictionary<(double, double, double, double), int>();
        for (var i = 0; i < pieces.Length; i++) Own(i);
        foreach (var edge in owner.Keys.ToArray())
        {
            var across = (edge.Item3, edge.Item4, edge.Item1, edge.Item2);
            if (!owner.TryGetValue(edge, out var i) || !owner.TryGetValue(across, out var j) || i == j) continue;
            var (p, q) = (From(pieces[i], edge.Item3, edge.Item4), From(pieces[j], edge.Item1, edge.Item2));
            if (Turns(p[^2], p[^1], q[1]) < 0 || Turns(q[^2], q[^1], p[1]) < 0) continue;
            (pieces[i], pieces[j]) = ([.. p, .. q[1..^1]], []);
            owner.Remove(edge);
            owner.Remove(across);
            Own(i);
        }
        return pieces.Where(p => p.Length > 0).Select(p => Plane.Factory.CreatePolygon([.. p, p[0].Copy()]));

        void Own(int i)
        {
            for (var k = 0; k < pieces[i].Length; k++)
            {
                var (a, b) = (pieces[i][k], pieces[i][(k + 1) % pieces[i].Length]);
                owner[(a.X, a.Y, b.X, b.Y)] = i;
            }
        }

        static Coordinate[] From(Coordinate[] ring, double x, double y)
        {
            var at = Array.FindIndex(ring, c => c.X == x && c.Y == y);
            return [.. ring[at..], .. ring[..at]];
        }

        static double Turns(Coordinate a, Coordinate b, Coordinate c) => (b.X - a.X) * (c.Y - b.Y) - (b.Y - a.Y) * (c.X - b.X);
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
