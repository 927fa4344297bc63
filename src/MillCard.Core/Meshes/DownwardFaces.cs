using MillCard.Core.Geometry;

namespace MillCard.Core.Meshes;

/// <summary>The faces of a mesh that look down, as far as they lie below a height.</summary>
/// <param name="mesh">Any mesh.</param>
/// <param name="neighbours">Of the same mesh.</param>
/// <param name="height">mm, in the mesh's own frame; with its sign turned where <paramref name="up"/> is −1.</param>
/// <param name="up">1, or −1 for the mesh upside down.</param>
internal sealed class DownwardFaces(Mesh mesh, Neighbours neighbours, double height, int up)
{
    private const int Beat = 1 << 12;

    /// <summary>Their numbers.</summary>
    public List<int> All(CancellationToken stop)
    {
        var all = new List<int>();
        for (var f = 0; f < mesh.FaceCount; f++)
        {
            if (f % Beat == 0) stop.ThrowIfCancellationRequested();
            if (LooksDown(f) && Lowest(f) < height) all.Add(f);
        }
        return all;
    }

    /// <summary>The triangle that a face covers seen from above, or would cover if it were not cut at the height.</summary>
    public Triangle Seen(int face)
    {
        var (a, b, c) = (Corner(face, 0), Corner(face, 1), Corner(face, 2));
        return new(a.X, a.Y, b.X, b.Y, c.X, c.Y);
    }

    /// <summary>Whether a face is not cut at the height.</summary>
    public bool IsWhole(int face) => Math.Max(Corner(face, 0).Z, Math.Max(Corner(face, 1).Z, Corner(face, 2).Z)) <= height;

    /// <summary>What a face covers seen from above as far as it lies below the height: one triangle, or two.</summary>
    public IEnumerable<Triangle> Covered(int face)
    {
        var way = new List<(double X, double Y)>(4);
        for (var k = 0; k < 3; k++)
        {
            var (a, b) = (Corner(face, k), Corner(face, (k + 1) % 3));
            if (a.Z <= height) way.Add((a.X, a.Y));
            if (a.Z <= height != b.Z <= height) way.Add(a.Z <= height ? Cut(a, b) : Cut(b, a));
        }
        for (var i = 2; i < way.Count; i++) yield return new(way[0].X, way[0].Y, way[i - 1].X, way[i - 1].Y, way[i].X, way[i].Y);
    }

    /// <summary>The border of some of them, the area to its left.</summary>
    public List<DirectedSegment> Border(List<int> faces)
    {
        var (segments, within) = (new List<DirectedSegment>(), Marked(faces));
        foreach (var face in faces) AddBorder(face, within, segments);
        return segments;
    }

    private bool[] Marked(List<int> faces)
    {
        var marked = new bool[mesh.FaceCount];
        foreach (var face in faces) marked[face] = true;
        return marked;
    }

    private void AddBorder(int face, bool[] within, List<DirectedSegment> segments)
    {
        Span<(double X, double Y)> cut = stackalloc (double, double)[2];
        var cuts = 0;
        for (var k = 0; k < 3; k++)
        {
            var (a, b) = (Corner(face, k), Corner(face, (k + 1) % 3));
            var (inA, inB) = (a.Z < height, b.Z < height);
            if (inA != inB) cut[cuts++] = inA ? Cut(a, b) : Cut(b, a);
            if (!inA && !inB) continue;
            var across = neighbours.Across(3 * face + k);
            if (across >= 0 && within[across / 3]) continue;
            var from = inA ? (a.X, a.Y) : Cut(b, a);
            var to = inB ? (b.X, b.Y) : Cut(a, b);
            // seen from above a downward face runs clockwise: turn it round
            segments.Add(up > 0 ? new DirectedSegment(to.Item1, to.Item2, from.Item1, from.Item2)
                : new DirectedSegment(from.Item1, from.Item2, to.Item1, to.Item2));
        }
        if (cuts == 2) AddCut(face, cut, segments);
    }

    private void AddCut(int face, Span<(double X, double Y)> cut, List<DirectedSegment> segments)
    {
        // the part of the face on the near side of the cut lies to one side of it; keep it on the left
        var low = Corner(face, 0);
        for (var k = 1; k < 3; k++) if (Corner(face, k).Z < low.Z) low = Corner(face, k);
        var left = (cut[1].X - cut[0].X) * (low.Y - cut[0].Y) - (cut[1].Y - cut[0].Y) * (low.X - cut[0].X) > 0;
        segments.Add(left ? new DirectedSegment(cut[0].X, cut[0].Y, cut[1].X, cut[1].Y)
            : new DirectedSegment(cut[1].X, cut[1].Y, cut[0].X, cut[0].Y));
    }

    private (double X, double Y) Cut((double X, double Y, double Z) below, (double X, double Y, double Z) above)
    {
        var t = (height - below.Z) / (above.Z - below.Z);
        return (below.X + t * (above.X - below.X), below.Y + t * (above.Y - below.Y));
    }

    private bool LooksDown(int face) => up * TwiceArea(face) < 0;

    /// <summary>Twice the area of its projection, positive where it runs counter-clockwise seen from above.</summary>
    private double TwiceArea(int face)
    {
        var (a, b, c) = (Corner(face, 0), Corner(face, 1), Corner(face, 2));
        return (b.X - a.X) * (c.Y - a.Y) - (b.Y - a.Y) * (c.X - a.X);
    }

    private double Lowest(int face) => Math.Min(Corner(face, 0).Z, Math.Min(Corner(face, 1).Z, Corner(face, 2).Z));

    /// <summary>A corner; upside down where <c>up</c> is −1.</summary>
    private (double X, double Y, double Z) Corner(int face, int k)
    {
        var at = 3 * mesh.Faces[3 * face + k];
        return (mesh.Corners[at], mesh.Corners[at + 1], up * mesh.Corners[at + 2]);
    }
}
