using MillCard.Core.Geometry;
using MillCard.Core.Slicing.Paths;
using NetTopologySuite.Densify;
using NetTopologySuite.Geometries;
using NetTopologySuite.Operation.Distance;
using NetTopologySuite.Simplify;
using NetTopologySuite.Triangulate.Polygon;

namespace MillCard.Core.Slicing.Walls;

/// <summary>Single lines along the middle of narrow areas, as wide as the area is there.</summary>
/// <remarks>The middle is the chordal axis: midpoints of the inner edges of a constrained Delaunay triangulation (L. Prasad, Morphological
/// analysis of shapes, CNLS Newsletter 139, 1997).</remarks>
internal static class ThinLines
{
    private const double Straight = 0.01;
    private const double SameWidth = 0.15;

    /// <summary>The lines.</summary>
    /// <param name="areas">Narrow areas.</param>
    /// <param name="least">Least width of a line, mm.</param>
    /// <param name="most">Greatest width of a line, mm.</param>
    /// <param name="wider">Added to a width where neighbours' round sides are overlapped, mm.</param>
    public static IEnumerable<ToolPath> Of(Shape areas, double least, double most, double wider)
    {
        foreach (var polygon in Plane.Polygons(areas))
        {
            if (DouglasPeuckerSimplifier.Simplify(polygon, Straight) is not Polygon { IsEmpty: false } plain) continue;
            var dense = (Polygon)Densifier.Densify(plain, Math.Max(0.3, 2 * polygon.Area / polygon.Length));
            var width = new IndexedFacetDistance(polygon.Boundary);
            foreach (var chain in Chains(dense))
                foreach (var path in Split([.. chain.Select(p =>
                    (p, 2 * width.Distance(Plane.Factory.CreatePoint(new Coordinate(p.X, p.Y)))))], least, most, wider)) yield return path;
        }
    }

    /// <summary>Pieces of one width each.</summary>
    private static IEnumerable<ToolPath> Split((Point At, double Width)[] chain, double least, double most, double wider)
    {
        var start = 0;
        while (start + 1 < chain.Length)
        {
            var (end, sum) = (start + 1, chain[start].Width);
            while (end < chain.Length && Math.Abs(chain[end].Width - sum / (end - start)) <= SameWidth * most) sum += chain[end++].Width;
            var width = sum / (end - start);
            var points = chain[start..Math.Min(end + (end < chain.Length ? 1 : 0), chain.Length)];
            start = Math.Max(end, start + 1);
            if (width < least || points.Length < 2) continue;
            var path = new ToolPath(PathKind.Thin, [.. points.Select(p => p.At)], Closed: false, Math.Min(width + wider, most));
            if (path.Length >= least) yield return path;
        }
    }

    private static IEnumerable<List<Point>> Chains(Polygon polygon)
    {
        var links = new Dictionary<Point, List<Point>>();
        var triangles = ConstrainedDelaunayTriangulator.Triangulate(polygon);
        var edges = new Dictionary<(Coordinate, Coordinate), int>();
        var corners = new List<Coordinate[]>(triangles.NumGeometries);
        for (var i = 0; i < triangles.NumGeometries; i++) corners.Add(triangles.GetGeometryN(i).Coordinates);
        foreach (var c in corners)
            for (var k = 0; k < 3; k++) edges[Key(c[k], c[k + 1])] = edges.GetValueOrDefault(Key(c[k], c[k + 1])) + 1;
        foreach (var c in corners)
        {
            var inner = Enumerable.Range(0, 3).Where(k => edges[Key(c[k], c[k + 1])] > 1).Select(k => Middle(c[k], c[k + 1])).ToArray();
            if (inner.Length == 2) Link(inner[0], inner[1]);
            else if (inner.Length == 3)
            {
                var centre = new Point((c[0].X + c[1].X + c[2].X) / 3, (c[0].Y + c[1].Y + c[2].Y) / 3);
                foreach (var middle in inner) Link(middle, centre);
            }
        }
        return Walk(links);

        void Link(Point a, Point b)
        {
            Of(a).Add(b);
            Of(b).Add(a);
        }

        List<Point> Of(Point p) => links.TryGetValue(p, out var list) ? list : links[p] = [];
    }

    /// <summary>Longest runs from ends and junctions, then what is left of closed ones.</summary>
    private static IEnumerable<List<Point>> Walk(Dictionary<Point, List<Point>> links)
    {
        foreach (var start in links.Keys.OrderBy(p => links[p].Count == 2).ThenBy(p => p.X).ThenBy(p => p.Y).ToArray())
            while (links[start].Count > 0)
            {
                var chain = new List<Point> { start };
                var at = start;
                while (links[at].Count > 0)
                {
                    var next = links[at][0];
                    links[at].Remove(next);
                    links[next].Remove(at);
                    chain.Add(next);
                    at = next;
                    if (links[at].Count != 1) break;
                }
                yield return chain;
            }
    }

    private static (Coordinate, Coordinate) Key(Coordinate a, Coordinate b) => a.CompareTo(b) < 0 ? (a, b) : (b, a);

    private static Point Middle(Coordinate a, Coordinate b) => a.CompareTo(b) < 0 ? new((a.X + b.X) / 2, (a.Y + b.Y) / 2)
        : new((b.X + a.X) / 2, (b.Y + a.Y) / 2);
}
