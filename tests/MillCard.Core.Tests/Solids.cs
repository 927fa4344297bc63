using MillCard.Core.Files;
using MillCard.Core.Meshes;
using NetTopologySuite.Geometries;
using NetTopologySuite.Triangulate.Polygon;

namespace MillCard.Core.Tests;

/// <summary>Solids with known volumes and sections.</summary>
internal static class Solids
{
    public static Mesh Box(double w, double d, double h) => Prism([(0, 0), (w, 0), (w, d), (0, d)], h);

    public static Mesh Cylinder(double r, double h, int n = 720) =>
        Prism([.. Enumerable.Range(0, n).Select(i => (r * Math.Cos(2 * Math.PI * i / n), r * Math.Sin(2 * Math.PI * i / n)))], h);

    /// <summary>A prism over a star-shaped outline about its first corners' mean.</summary>
    public static Mesh Prism((double X, double Y)[] outline, double h)
    {
        var n = outline.Length;
        var (cx, cy) = (outline.Average(p => p.X), outline.Average(p => p.Y));
        var corners = new List<float>();
        foreach (var z in new[] { 0, h })
        {
            foreach (var (x, y) in outline) corners.AddRange(
            [(float)x, (float)y, (float)z]); corners.AddRange([(float)cx, (float)cy, (float)z]);
        }
        var faces = new List<int>();
        for (var i = 0; i < n; i++)
        {
            var j = (i + 1) % n;
            faces.AddRange([j, i, n, i + n + 1, j + n + 1, 2 * n + 1, i, j, j + n + 1, i, j + n + 1, i + n + 1]);
        }
        return new Mesh([.. corners], [.. faces]);
    }

    /// <summary>A prism over any outline, its caps cut to triangles by NetTopologySuite.</summary>
    public static Mesh Extruded(Polygon outline, double h)
    {
        var (corners, faces) = (new List<float>(), new List<int>());
        int Corner(Coordinate at, double z)
        {
            corners.AddRange([(float)at.X, (float)at.Y, (float)z]);
            return corners.Count / 3 - 1;
        }
        var normal = (Polygon)outline.Copy();
        normal.Normalize();
        // normalized shells run clockwise, holes the other way: the solid to the right
        foreach (var ring in normal.InteriorRings.Prepend(normal.ExteriorRing))
            for (var (i, c) = (1, ring.Coordinates); i < c.Length; i++)
            {
                var (a, b, d, e) = (Corner(c[i - 1], 0), Corner(c[i], 0), Corner(c[i], h), Corner(c[i - 1], h));
                faces.AddRange([b, a, e, b, e, d]);
            }
        var caps = ConstrainedDelaunayTriangulator.Triangulate(normal);
        for (var t = 0; t < caps.NumGeometries; t++)
        {
            var c = caps.GetGeometryN(t).Coordinates;
            if (NetTopologySuite.Algorithm.Orientation.IsCCW(c)) (c[0], c[1]) = (c[1], c[0]);
            faces.AddRange([Corner(c[0], 0), Corner(c[1], 0), Corner(c[2], 0), Corner(c[1], h), Corner(c[0], h), Corner(c[2], h)]);
        }
        return new Mesh([.. corners], [.. faces]);
    }

    /// <summary>A mesh moved.</summary>
    public static Mesh Placed(Mesh mesh, double x, double y, double z) =>
        new([.. mesh.Corners.Select((c, i) => c + (float)(i % 3 == 0 ? x : i % 3 == 1 ? y : z))], mesh.Faces);

    /// <summary>Meshes as one.</summary>
    public static Mesh Joined(params Mesh[] meshes)
    {
        var corners = new List<float>();
        var faces = new List<int>();
        foreach (var mesh in meshes)
        {
            faces.AddRange(mesh.Faces.Select(f => f + corners.Count / 3));
            corners.AddRange(mesh.Corners);
        }
        return new Mesh([.. corners], [.. faces]);
    }

    /// <summary>A lattice of struts along the edges of cubes, and along their diagonals in space where that is asked for.</summary>
    /// <param name="cells">Cubes along each axis.</param>
    /// <param name="cell">Their edge, mm.</param>
    /// <param name="strut">Side of a strut's square, mm.</param>
    /// <param name="diagonals">Whether there are struts from corner to corner through the cubes.</param>
    public static Mesh Lattice(int cells, double cell, double strut, bool diagonals)
    {
        var struts = new List<Mesh>();
        var (length, all) = (cells * cell, Enumerable.Range(0, cells + 1).Select(i => i * cell).ToArray());
        foreach (var u in all)
            foreach (var v in all)
            {
                struts.Add(Placed(Block.Of(length + strut, strut, strut), 0, u, v));
                struts.Add(Placed(Block.Of(strut, length + strut, strut), u, 0, v));
                struts.Add(Placed(Block.Of(strut, strut, length + strut), u, v, 0));
            }
        if (!diagonals) return Joined([.. struts]);
        var along = Block.Of(strut, strut, cell * Math.Sqrt(3));
        foreach (var (x, y) in new[] { (1, 1), (1, -1), (-1, 1), (-1, -1) })
        {
            var tilted = Placement.Oriented(along, null, FlatSides.Down(-x, -y, -1));
            for (var i = 0; i < cells * cells * cells; i++)
                struts.Add(Placed(tilted, i % cells * cell + (x < 0 ? cell : 0), i / cells % cells * cell + (y < 0 ? cell : 0),
                    i / cells / cells * cell));
        }
        return Joined([.. struts]);
    }

    /// <summary>A gate: two walls 20 mm apart and a lintel.</summary>
    public static Mesh Gate { get; } = Joined(Block.Of(8, 30, 8), Placed(Block.Of(8, 30, 8), 28, 0, 0),
        Placed(Block.Of(36, 30, 3), 0, 0, 8));

    /// <summary>A cone that widens upwards and leans out from the upright by an angle.</summary>
    public static Mesh Leaning(double degrees, double high)
    {
        const double foot = 10;
        var rim = foot + high * Math.Tan(degrees * Math.PI / 180);
        return Revolved(t => t < 1 / 3.0 ? (3 * t * foot, 0) : t < 2 / 3.0
            ? (foot + (3 * t - 1) * (rim - foot), (3 * t - 1) * high) : (rim * 3 * (1 - t), high), 96, 180);
    }

    /// <summary>A post of 8 by 8 by 2 mm with a plate of 24 by 24 by 2 mm on its top.</summary>
    public static Mesh Mushroom { get; } = Joined(Placed(Block.Of(8, 8, 2), 8, 8, 0), Placed(Block.Of(24, 24, 2), 0, 0, 2));

    /// <summary>A post of 20 by 20 by 4 mm with a shelf of 2 mm on its top that juts out by 6 mm.</summary>
    public static Mesh Shelf { get; } = Joined(Block.Of(20, 20, 4), Placed(Block.Of(26, 20, 2), 0, 0, 4));

    /// <summary>A closed surface of revolution about Z from (radius, z) points that begin and end at radius 0.</summary>
    public static Mesh Revolved(Func<double, (double R, double Z)> profile, int rings, int n)
    {
        var corners = new List<float>();
        for (var k = 0; k <= rings; k++)
        {
            var (r, z) = profile((double)k / rings);
            for (var i = 0; i < n; i++)
                corners.AddRange([(float)(r * Math.Cos(2 * Math.PI * i / n)), (float)(r * Math.Sin(2 * Math.PI * i / n)), (float)z]);
        }
        return Grid(corners, rings, n, wrap: false);
    }

    public static Mesh Torus(double ring, double tube, int rings, int n)
    {
        var corners = new List<float>();
        for (var k = 0; k < rings; k++)
        {
            var (r, z) = (ring + tube * Math.Cos(2 * Math.PI * k / rings), tube + tube * Math.Sin(2 * Math.PI * k / rings));
            for (var i = 0; i < n; i++)
                corners.AddRange([(float)(r * Math.Cos(2 * Math.PI * i / n)), (float)(r * Math.Sin(2 * Math.PI * i / n)), (float)z]);
        }
        return Grid(corners, rings, n, wrap: true);
    }

    /// <summary>A square bar twisted about an axis beside it.</summary>
    /// <param name="radius">Distance of its middle from the axis, mm.</param>
    /// <param name="side">mm.</param>
    /// <param name="height">mm.</param>
    /// <param name="turns">Turns over its height.</param>
    /// <param name="steps">Pieces over its height.</param>
    public static Mesh Twisted(double radius, double side, double height, double turns, int steps) =>
        Stacked(steps, 4, height, (k, i) =>
        {
            var (sin, cos) = Math.SinCos(2 * Math.PI * turns * k / steps);
            var (x, y) = (radius + (i is 0 or 3 ? -side / 2 : side / 2), i < 2 ? -side / 2 : side / 2);
            return (x * cos - y * sin, x * sin + y * cos);
        });

    /// <summary>A bolt with a saw-toothed thread.</summary>
    /// <param name="outer">Radius over the thread, mm.</param>
    /// <param name="inner">Radius of its ground, mm.</param>
    /// <param name="starts">Number of starts.</param>
    /// <param name="turns">Turns over its height.</param>
    /// <param name="n">Pieces round, and to a turn.</param>
    public static Mesh Thread(double outer, double inner, int starts, double turns, int n) =>
        Stacked((int)(turns * n), n, 2 * turns, (k, i) =>
        {
            var tooth = Math.Abs((starts * (double)i / n + (double)k / n) % 1 - 0.5) * 2;
            var (sin, cos) = Math.SinCos(2 * Math.PI * i / n);
            var r = inner + (outer - inner) * tooth;
            return (r * cos, r * sin);
        });

    /// <summary>Outlines of n corners, counter-clockwise, one above the other, closed at both ends.</summary>
    private static Mesh Stacked(int steps, int n, double height, Func<int, int, (double X, double Y)> at)
    {
        var corners = new List<float>();
        for (var k = 0; k <= steps; k++)
            for (var i = 0; i < n; i++)
            {
                var (x, y) = at(k, i);
                corners.AddRange([(float)x, (float)y, (float)(height * k / steps)]);
            }
        var faces = new List<int>();
        for (var k = 0; k < steps; k++)
            for (var i = 0; i < n; i++)
            {
                var (a, b) = (k * n + i, k * n + (i + 1) % n);
                faces.AddRange([a, b, b + n, a, b + n, a + n]);
            }
        foreach (var (first, up) in new[] { (0, false), (steps * n, true) })
        {
            var middle = corners.Count / 3;
            var ring = Enumerable.Range(first, n).ToArray();
            corners.AddRange([ring.Average(c => corners[3 * c]), ring.Average(c => corners[3 * c + 1]), corners[3 * first + 2]]);
            for (var i = 0; i < n; i++)
            {
                var (a, b) = (ring[i], ring[(i + 1) % n]);
                faces.AddRange(up ? [a, b, middle] : [b, a, middle]);
            }
        }
        return new Mesh([.. corners], [.. faces]);
    }

    private static Mesh Grid(List<float> corners, int rings, int n, bool wrap)
    {
        var rows = corners.Count / 3 / n;
        var faces = new List<int>();
        for (var k = 0; k < rings; k++)
            for (var i = 0; i < n; i++)
            {
                var (a, b, c, d) = (k * n + i, k * n + (i + 1) % n, (k + 1) % rows * n + (i + 1) % n, (k + 1) % rows * n + i);
                if (!wrap && k + 1 > rings) continue;
                faces.AddRange([a, b, c, a, c, d]);
            }
        // welding drops the faces that shrink to a point at the poles
        return Stl.Read(Stl.Write(new Mesh([.. corners], [.. faces])));
    }
}
