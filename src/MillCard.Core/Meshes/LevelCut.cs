using MillCard.Core.Geometry;
using NetTopologySuite.Geometries;
using NetTopologySuite.Operation.Polygonize;
using NetTopologySuite.Triangulate.Polygon;

namespace MillCard.Core.Meshes;

/// <summary>A round hole that goes straight into both sides of a cut.</summary>
/// <param name="X">Of its axis, mm.</param>
/// <param name="Y">Of its axis, mm.</param>
/// <param name="Radius">mm.</param>
/// <param name="Depth">Into each side, mm.</param>
public readonly record struct Bore(double X, double Y, double Radius, double Depth)
{
    private const int Sides = 48;

    /// <summary>Its corners on the plane, counter-clockwise.</summary>
    internal (float X, float Y)[] Ring()
    {
        var (x, y, radius) = (X, Y, Radius);
        return [.. Enumerable.Range(0, Sides).Select(i => Math.SinCos(2 * Math.PI * i / Sides))
            .Select(a => ((float)(x + radius * a.Cos), (float)(y + radius * a.Sin)))];
    }
}

/// <summary>What a level plane makes of a mesh: both sides of it, closed where the mesh is.</summary>
/// <param name="Below">What lies below; no faces where there is nothing.</param>
/// <param name="Above">What lies above; no faces where there is nothing.</param>
/// <param name="IsClosed">Whether the cut could be closed; it cannot where the mesh has holes there or runs through itself.</param>
public sealed record LevelCut(Mesh Below, Mesh Above, bool IsClosed)
{
    /// <summary>Cuts a mesh at a height.</summary>
    /// <remarks>
    /// Faces that cross the plane are parted; corners on it are the same numbers for both neighbours, so both sides fit together exactly.
    /// Faces in the plane itself go: what closes the cut takes their place. The cut is closed by triangles over the corners that are there.
    /// </remarks>
    /// <param name="mesh">Any mesh.</param>
    /// <param name="height">mm.</param>
    /// <param name="bores">Holes in both sides; each has to lie in what is solid.</param>
    public static LevelCut Of(Mesh mesh, double height, IReadOnlyList<Bore>? bores = null)
    {
        bores ??= [];
        var level = (float)height;
        // bodies that touch share no edge: each is closed by itself
        var bodies = MeshBodies.Of(mesh);
        var (below, above) = (bodies.Select(body => Side(body, level, -1, bores)).ToArray(),
            bodies.Select(body => Side(body, level, 1, bores)).ToArray());
        return new(MeshBodies.Joined([.. below.Select(side => side.Mesh)]), MeshBodies.Joined([.. above.Select(side => side.Mesh)]),
            below.Concat(above).All(side => side.IsClosed));
    }

    private static (Mesh Mesh, bool IsClosed) Side(Mesh mesh, float level, int side, IReadOnlyList<Bore> bores)
    {
        var (table, faces) = (new CornerTable(mesh.FaceCount), new List<int>(mesh.Faces.Length));
        for (var f = 0; f < mesh.Faces.Length; f += 3) Part(mesh, f, level, side, table, faces);
        if (faces.Count == 0) return (new Mesh([], []), true);
        List<float> corners = [.. table.Corners()];
        var isClosed = Close(corners, faces, level, side, bores);
        return (new Mesh([.. corners], [.. faces]), isClosed);
    }

    /// <summary>What of a face lies on one side, as a fan.</summary>
    private static void Part(Mesh mesh, int face, float level, int side, CornerTable table, List<int> faces)
    {
        Span<int> kept = stackalloc int[4];
        var (count, isStrictly) = (0, false);
        for (var k = 0; k < 3; k++)
        {
            var (a, b) = (3 * mesh.Faces[face + k], 3 * mesh.Faces[face + (k + 1) % 3]);
            var (here, next) = (side * Math.Sign(mesh.Corners[a + 2] - level), side * Math.Sign(mesh.Corners[b + 2] - level));
            isStrictly |= here > 0;
            if (here >= 0) kept[count++] = table.Weld(mesh.Corners[a], mesh.Corners[a + 1], mesh.Corners[a + 2]);
            if (here * next < 0) kept[count++] = Crossing(mesh, a, b, level, table);
        }
        if (!isStrictly) return;
        for (var k = 1; k + 1 < count; k++)
            if (kept[0] != kept[k] && kept[k] != kept[k + 1] && kept[k + 1] != kept[0]) faces.AddRange([kept[0], kept[k], kept[k + 1]]);
    }

    /// <summary>Where an edge crosses the plane; the same numbers whichever way it runs.</summary>
    private static int Crossing(Mesh mesh, int a, int b, float level, CornerTable table)
    {
        if (mesh.Corners[a + 2] > mesh.Corners[b + 2]) (a, b) = (b, a);
        double low = mesh.Corners[a + 2], high = mesh.Corners[b + 2];
        var share = (level - low) / (high - low);
        return table.Weld(Along(0), Along(1), level);

        float Along(int axis) => (float)(mesh.Corners[a + axis] + share * ((double)mesh.Corners[b + axis] - mesh.Corners[a + axis]));
    }

    /// <summary>Adds the faces in the plane that close it; whether they do.</summary>
    private static bool Close(List<float> corners, List<int> faces, float level, int side, IReadOnlyList<Bore> bores)
    {
        var open = OpenEdges(corners, faces, level);
        if (open.Count == 0) return true;
        var numbers = new Dictionary<(double, double), int>();
        foreach (var (from, _) in open) numbers[(corners[3 * from], corners[3 * from + 1])] = from;
        var lines = open.Select(e => (Shape)Plane.Factory.CreateLineString([At(e.From), At(e.To)])).ToArray();
        var polygonizer = new Polygonizer();
        polygonizer.Add(lines);
        var inside = polygonizer.GetPolygons().Cast<Polygon>().Where(piece => Winds(piece.InteriorPoint.Coordinate)).ToArray();
        foreach (var piece in inside)
            foreach (var triangle in ((GeometryCollection)PolygonTriangulator.Triangulate(Bored(piece))).Geometries)
            {
                var ring = triangle.Coordinates;
                if (!numbers.TryGetValue((ring[0].X, ring[0].Y), out var a) || !numbers.TryGetValue((ring[1].X, ring[1].Y), out var b)
                    || !numbers.TryGetValue((ring[2].X, ring[2].Y), out var c)) return false;
                // seen from outside: from above where what is kept lies below
                var turnsLeft = NetTopologySuite.Algorithm.Orientation.IsCCW(ring);
                if (turnsLeft) Add(a, b, c);
                else Add(a, c, b);
            }
        return OpenEdges(corners, faces, level).Count == 0;

        Polygon Bored(Polygon piece)
        {
            LinearRing[] holes = [.. bores.Where(b => piece.Covers(Plane.Factory.CreatePoint(new Coordinate(b.X, b.Y)))).Select(Sunk)];
            return holes.Length == 0 ? piece : Plane.Factory.CreatePolygon((LinearRing)piece.ExteriorRing, [.. piece.Holes, .. holes]);
        }

        // wall and floor of a hole; its rim is left to the faces round it
        LinearRing Sunk(Bore bore)
        {
            var ring = bore.Ring();
            var (rim, n) = (corners.Count / 3, ring.Length);
            foreach (var z in new[] { level, level + side * (float)bore.Depth })
                foreach (var (x, y) in ring) corners.AddRange([x, y, z]);
            for (var i = 0; i < n; i++)
            {
                var next = (i + 1) % n;
                numbers[(ring[i].X, ring[i].Y)] = rim + i;
                Add(rim + i, rim + next, rim + n + i);
                Add(rim + next, rim + n + next, rim + n + i);
                if (i > 0 && i < n - 1) Add(rim + n, rim + n + i, rim + n + next);
            }
            return Plane.Factory.CreateLinearRing([.. ring.Append(ring[0]).Select(p => new Coordinate(p.X, p.Y))]);
        }

        void Add(int a, int b, int c) => faces.AddRange(side < 0 ? [a, b, c] : [a, c, b]);

        Coordinate At(int corner) => new(corners[3 * corner], corners[3 * corner + 1]);

        // how often the open edges run round a point
        bool Winds(Coordinate p)
        {
            var winding = 0;
            foreach (var (from, to) in open)
            {
                var (a, b) = (At(from), At(to));
                var left = (b.X - a.X) * (p.Y - a.Y) - (p.X - a.X) * (b.Y - a.Y);
                if (a.Y <= p.Y && b.Y > p.Y && left > 0) winding++;
                else if (a.Y > p.Y && b.Y <= p.Y && left < 0) winding--;
            }
            return winding != 0;
        }
    }

    /// <summary>Edges in the plane with a face on one side only.</summary>
    private static List<(int From, int To)> OpenEdges(List<float> corners, List<int> faces, float level)
    {
        var left = new Dictionary<(int, int), int>();
        for (var f = 0; f < faces.Count; f += 3)
            for (var k = 0; k < 3; k++)
            {
                var (from, to) = (faces[f + k], faces[f + (k + 1) % 3]);
                if (corners[3 * from + 2] != level || corners[3 * to + 2] != level) continue;
                if (left.TryGetValue((to, from), out var others) && others > 0) left[(to, from)] = others - 1;
                else left[(from, to)] = left.GetValueOrDefault((from, to)) + 1;
            }
        return [.. left.Where(e => e.Value > 0).Select(e => e.Key)];
    }
}
