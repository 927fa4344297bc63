namespace MillCard.Core.Meshes;

/// <summary>Turns faces so that all are counter-clockwise seen from outside.</summary>
internal static class Orientation
{
    /// <summary>The mesh, faces turned where they disagree with most of their piece, and all where the whole is inside out.</summary>
    /// <param name="mesh">As read.</param>
    /// <param name="stop">Ends the repair.</param>
    public static Mesh Repaired(Mesh mesh, CancellationToken stop = default)
    {
        var neighbours = Neighbours.Of(mesh, stop);
        if (neighbours.HasCrowdedEdges && Once(mesh, stop) is { RepeatedFaces: > 0 } once)
            (mesh, neighbours) = (once, Neighbours.Of(once, stop));
        var repaired = neighbours.OpenEdges == 0 ? mesh : mesh with { Faces = Agreeing(mesh) };
        stop.ThrowIfCancellationRequested();
        return repaired.Volume() < 0 ? repaired with { Faces = Turned(repaired.Faces, _ => true) } : repaired;
    }

    /// <summary>Every face once: the same three corners in the same sense are the same face.</summary>
    private static Mesh Once(Mesh mesh, CancellationToken stop)
    {
        var seen = new HashSet<(int, int, int)>(mesh.FaceCount);
        var kept = new List<int>(mesh.Faces.Length);
        for (var f = 0; f < mesh.Faces.Length; f += 3)
        {
            if (f % (3 << 16) == 0) stop.ThrowIfCancellationRequested();
            var (a, b, c) = (mesh.Faces[f], mesh.Faces[f + 1], mesh.Faces[f + 2]);
            if (seen.Add(FromLeast(a, b, c))) kept.AddRange([a, b, c]);
        }
        return mesh with { Faces = [.. kept], RepeatedFaces = mesh.FaceCount - kept.Count / 3 };
    }

    /// <summary>A face's corners in their turn, the least first.</summary>
    private static (int, int, int) FromLeast(int a, int b, int c)
    {
        var least = Math.Min(a, Math.Min(b, c));
        if (a == least) return (a, b, c);
        return b == least ? (b, c, a) : (c, a, b);
    }

    private static int[] Turned(int[] faces, Func<int, bool> which)
    {
        var turned = faces.ToArray();
        for (var f = 0; f < faces.Length / 3; f++)
            if (which(f)) (turned[3 * f + 1], turned[3 * f + 2]) = (turned[3 * f + 2], turned[3 * f + 1]);
        return turned;
    }

    /// <summary>Walks from face to face over edges that exactly two share, and turns those that run the same edge the same way.</summary>
    private static int[] Agreeing(Mesh mesh)
    {
        var faces = mesh.Faces;
        var order = new int[faces.Length];
        var keys = new long[faces.Length];
        for (var h = 0; h < faces.Length; h++)
        {
            var (a, b) = Ends(faces, h);
            (order[h], keys[h]) = (h, ((long)Math.Min(a, b) << 32) | (uint)Math.Max(a, b));
        }
        Array.Sort(keys, order);
        var across = new int[faces.Length];
        Array.Fill(across, -1);
        for (var i = 0; i < keys.Length;)
        {
            var end = i + 1;
            while (end < keys.Length && keys[end] == keys[i]) end++;
            if (end - i == 2) (across[order[i]], across[order[i + 1]]) = (order[i + 1], order[i]);
            i = end;
        }
        var turn = new sbyte[faces.Length / 3];
        var piece = new List<int>();
        for (var start = 0; start < turn.Length; start++)
        {
            if (turn[start] != 0) continue;
            piece.Clear();
            piece.Add(start);
            turn[start] = 1;
            for (var i = 0; i < piece.Count; i++)
                for (var k = 0; k < 3; k++)
                {
                    var h = 3 * piece[i] + k;
                    if (across[h] < 0 || turn[across[h] / 3] != 0) continue;
                    var same = Ends(faces, h).From == Ends(faces, across[h]).From;
                    turn[across[h] / 3] = (sbyte)(same ? -turn[piece[i]] : turn[piece[i]]);
                    piece.Add(across[h] / 3);
                }
            // the greater number knows better which side is out
            if (piece.Count(f => turn[f] < 0) > piece.Count / 2)
                foreach (var f in piece) turn[f] = (sbyte)-turn[f];
        }
        return Turned(faces, f => turn[f] < 0);
    }

    private static (int From, int To) Ends(int[] faces, int h) => (faces[h], faces[h % 3 == 2 ? h - 2 : h + 1]);
}
