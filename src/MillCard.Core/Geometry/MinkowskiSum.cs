using NetTopologySuite.Geometries;
using NetTopologySuite.Triangulate.Polygon;

namespace MillCard.Core.Geometry;

/// <summary>Minkowski sums of areas: what a shape sweeps when its zero runs over another.</summary>
public static class MinkowskiSum
{
    /// <summary>Sums are rounded to this many decimals: tests of orientation go wrong on numbers that underflow.</summary>
    private const int Decimals = 9;

    /// <summary>The sum of any areas with any others.</summary>
    /// <param name="shape">Areas, holes allowed.</param>
    /// <param name="with">Areas, holes allowed.</param>
    /// <param name="stop">Ends the computation.</param>
    public static Shape Of(Shape shape, Shape with, CancellationToken stop = default)
    {
        var sums = from a in Plane.Polygons(shape)
                   from b in Plane.Polygons(with)
                   from sum in SumsOf(Filled(a, b), Filled(b, a), stop)
                   select sum;
        return Plane.WithoutSlits(ManyAreas.Union([.. sums], stop));
    }

    /// <summary>Areas that together are the sum of two polygons.</summary>
    private static IEnumerable<Shape> SumsOf(Polygon a, Polygon b, CancellationToken stop)
    {
        if (IsConvex(a)) return Swept(b, FromLowest(a));
        if (IsConvex(b)) return Swept(a, FromLowest(b));
        var (p, q) = (ConvexPieces(a).ToArray(), ConvexPieces(b).ToArray());
        var (whole, pieces) = p.Length < q.Length ? (b, p) : (a, q);
        return pieces.AsParallel().AsOrdered().WithCancellation(stop)
            .Select(piece => ManyAreas.Union([.. Swept(whole, FromLowest(piece))], stop));
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

    /// <summary>The sum of any areas with one convex polygon.</summary>
    /// <param name="shape">Areas, holes allowed.</param>
    /// <param name="convex">A convex polygon; it need not contain the zero.</param>
    /// <param name="stop">Ends the computation.</param>
    public static Shape OfConvex(Shape shape, Polygon convex, CancellationToken stop = default)
    {
        var corners = FromLowest(convex);
        return Plane.WithoutSlits(ManyAreas.Union([.. Plane.Polygons(shape).SelectMany(polygon => Swept(polygon, corners))], stop));
    }

    /// <summary>The sums of (edge ⊕ convex) over all edges, and the polygon moved by one point of the convex one.</summary>
    private static IEnumerable<Shape> Swept(Polygon polygon, Coordinate[] convex)
    {
        if (IsConvex(polygon)) return [OfConvexPair(FromLowest(polygon), convex)];
        var edges = from ring in Plane.Rings(polygon)
                    let corners = ring.Coordinates
                    from i in Enumerable.Range(1, corners.Length - 1)
                    where !corners[i - 1].Equals2D(corners[i])
                    select OfConvexPair(FromLowest(corners[i - 1], corners[i]), convex);
        return edges.Prepend(Plane.Moved(polygon, convex[0].X, convex[0].Y));
    }

    /// <summary>What an outline passes over on a straight way: its sum with a segment.</summary>
    /// <param name="outline">Convex or not, about its zero.</param>
    /// <param name="from">Where the zero begins.</param>
    /// <param name="to">Where the zero ends.</param>
    public static Shape Along(Polygon outline, Point from, Point to)
    {
        var way = FromLowest(new Coordinate(from.X, from.Y), new Coordinate(to.X, to.Y));
        return Plane.Union([.. ConvexPieces(outline).Select(piece => OfConvexPair(way, FromLowest(piece)))]);
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
    public static Polygon OfConvexPair(Polygon a, Polygon b) => OfConvexPair(FromLowest(a), FromLowest(b));

    /// <summary>The same for corners from the lowest on; one of the two may be an edge.</summary>
    private static Polygon OfConvexPair(Coordinate[] p, Coordinate[] q)
    {
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
        // an edge of no length has no direction by which it could be merged
        var corners = CoordinateArrays.RemoveRepeatedPoints(convex.ExteriorRing.Coordinates)[..^1];
        if (!NetTopologySuite.Algorithm.Orientation.IsCCW(convex.ExteriorRing.Coordinates)) Array.Reverse(corners);
        var low = 0;
        for (var i = 1; i < corners.Length; i++)
            if (corners[i].Y < corners[low].Y || corners[i].Y == corners[low].Y && corners[i].X < corners[low].X) low = i;
        return [.. corners[low..], .. corners[..low]];
    }

    private static Coordinate[] FromLowest(Coordinate a, Coordinate b) => b.Y < a.Y || b.Y == a.Y && b.X < a.X ? [b, a] : [a, b];

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
}
