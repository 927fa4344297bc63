using MillCard.Core.Geometry;

namespace MillCard.Core.Meshes;

/// <summary>The true projection of a part, or of what of it lies below or above a height, onto the bed.</summary>
/// <remarks>
/// A vertical line through a solid leaves it downwards through a face that looks down; so the projection of what lies below z
/// is that of the downward faces cut at z; for what lies above, the same upside down. Only the border of those faces is
/// resolved, by winding number.
/// </remarks>
public static class Projection
{
    /// <summary>The areas covered by what of the mesh lies below a height.</summary>
    /// <param name="mesh">A closed mesh; a broken one gives what its faces tell.</param>
    /// <param name="neighbours">Of the same mesh.</param>
    /// <param name="height">mm, in the mesh's own frame; infinite for all of it.</param>
    public static Shape Below(Mesh mesh, Neighbours neighbours, double height) => Of(mesh, neighbours, height, 1);

    /// <summary>The areas covered by what of the mesh rises above a height.</summary>
    /// <param name="mesh">A closed mesh; a broken one gives what its faces tell.</param>
    /// <param name="neighbours">Of the same mesh.</param>
    /// <param name="height">mm, in the mesh's own frame.</param>
    public static Shape Above(Mesh mesh, Neighbours neighbours, double height) => Of(mesh, neighbours, -height, -1);

    private static Shape Of(Mesh mesh, Neighbours neighbours, double height, int up)
    {
        var segments = new List<DirectedSegment>();
        for (var f = 0; f < mesh.FaceCount; f++)
            if (LooksDown(mesh, f, up) && Lowest(mesh, f, up) < height) AddBorder(mesh, neighbours, f, height, up, segments);
        return Plane.WithoutSlits(Winding.Resolve(segments));
    }

    private static void AddBorder(Mesh mesh, Neighbours neighbours, int face, double height, int up, List<DirectedSegment> segments)
    {
        Span<(double X, double Y)> cut = stackalloc (double, double)[2];
        var cuts = 0;
        for (var k = 0; k < 3; k++)
        {
            var (a, b) = (Corner(mesh, face, k, up), Corner(mesh, face, (k + 1) % 3, up));
            var (inA, inB) = (a.Z < height, b.Z < height);
            if (inA != inB) cut[cuts++] = inA ? Cut(a, b, height) : Cut(b, a, height);
            if (!inA && !inB) continue;
            var across = neighbours.Across(3 * face + k);
            if (across >= 0 && LooksDown(mesh, across / 3, up)) continue;
            var from = inA ? (a.X, a.Y) : Cut(b, a, height);
            var to = inB ? (b.X, b.Y) : Cut(a, b, height);
            // seen from above a downward face runs clockwise: turn it round
            segments.Add(up > 0 ? new DirectedSegment(to.Item1, to.Item2, from.Item1, from.Item2)
                : new DirectedSegment(from.Item1, from.Item2, to.Item1, to.Item2));
        }
        if (cuts == 2) AddCut(mesh, face, up, cut, segments);
    }

    private static void AddCut(Mesh mesh, int face, int up, Span<(double X, double Y)> cut, List<DirectedSegment> segments)
    {
        // the part of the face on the near side of the cut lies to one side of it; keep it on the left
        var low = Corner(mesh, face, 0, up);
        for (var k = 1; k < 3; k++) if (Corner(mesh, face, k, up).Z < low.Z) low = Corner(mesh, face, k, up);
        var left = (cut[1].X - cut[0].X) * (low.Y - cut[0].Y) - (cut[1].Y - cut[0].Y) * (low.X - cut[0].X) > 0;
        segments.Add(left ? new DirectedSegment(cut[0].X, cut[0].Y, cut[1].X, cut[1].Y)
            : new DirectedSegment(cut[1].X, cut[1].Y, cut[0].X, cut[0].Y));
    }

    private static (double X, double Y) Cut((double X, double Y, double Z) below, (double X, double Y, double Z) above, double height)
    {
        var t = (height - below.Z) / (above.Z - below.Z);
        return (below.X + t * (above.X - below.X), below.Y + t * (above.Y - below.Y));
    }

    private static bool LooksDown(Mesh mesh, int face, int up)
    {
        var (a, b, c) = (Corner(mesh, face, 0, up), Corner(mesh, face, 1, up), Corner(mesh, face, 2, up));
        return up * ((b.X - a.X) * (c.Y - a.Y) - (b.Y - a.Y) * (c.X - a.X)) < 0;
    }

    private static double Lowest(Mesh mesh, int face, int up) =>
        Math.Min(Corner(mesh, face, 0, up).Z, Math.Min(Corner(mesh, face, 1, up).Z, Corner(mesh, face, 2, up).Z));

    /// <summary>A corner; upside down where <paramref name="up"/> is −1.</summary>
    private static (double X, double Y, double Z) Corner(Mesh mesh, int face, int k, int up)
    {
        var at = 3 * mesh.Faces[3 * face + k];
        return (mesh.Corners[at], mesh.Corners[at + 1], up * mesh.Corners[at + 2]);
    }
}
