namespace MillCard.Core.Meshes;

/// <summary>Tells the bodies of a mesh apart: pieces of surface that share no edge; a hollow stays with the body round it.</summary>
public static class MeshBodies
{
    /// <summary>The bodies, in the order in which their first faces stand; the mesh itself where it is one.</summary>
    /// <param name="mesh">Any mesh.</param>
    /// <param name="stop">Ends it.</param>
    public static IReadOnlyList<Mesh> Of(Mesh mesh, CancellationToken stop = default)
    {
        var shells = Shells(mesh, stop);
        if (shells.Count <= 1) return [mesh];
        var meshes = shells.Select(faces => Taken(mesh, faces)).ToArray();
        var solid = Enumerable.Range(0, meshes.Length).Where(i => meshes[i].Volume() >= 0).ToArray();
        var bodies = solid.ToDictionary(i => i, i => shells[i]);
        foreach (var hollow in Enumerable.Range(0, meshes.Length).Except(solid))
        {
            var round = solid.Where(i => Holds(meshes[i], meshes[hollow])).OrderBy(i => meshes[i].Volume()).ToArray();
            if (round.Length > 0) bodies[round[0]].AddRange(shells[hollow]);
            else bodies[hollow] = shells[hollow];
        }
        return bodies.Count == 1 ? [mesh] : [.. bodies.OrderBy(body => body.Value[0]).Select(body => Taken(mesh, body.Value))];
    }

    /// <summary>All meshes as one; their corners stay apart.</summary>
    public static Mesh Joined(IReadOnlyList<Mesh> meshes)
    {
        var (corners, faces) = (new List<float>(meshes.Sum(m => m.Corners.Length)), new List<int>(meshes.Sum(m => m.Faces.Length)));
        foreach (var mesh in meshes)
        {
            var first = corners.Count / 3;
            corners.AddRange(mesh.Corners);
            faces.AddRange(mesh.Faces.Select(corner => first + corner));
        }
        return new Mesh([.. corners], [.. faces]);
    }

    private static bool Holds(Mesh outer, Mesh inner)
    {
        var (o, i) = (outer.Box, inner.Box);
        return o.MinX <= i.MinX && o.MinY <= i.MinY && o.MinZ <= i.MinZ && o.MaxX >= i.MaxX && o.MaxY >= i.MaxY && o.MaxZ >= i.MaxZ;
    }

    /// <summary>Numbers of the faces of each piece of surface.</summary>
    private static List<List<int>> Shells(Mesh mesh, CancellationToken stop)
    {
        var (across, shells, seen, next) = (Neighbours.Of(mesh, stop), new List<List<int>>(), new bool[mesh.FaceCount], new Stack<int>());
        for (var f = 0; f < seen.Length; f++)
        {
            if (seen[f]) continue;
            var shell = new List<int>();
            next.Push(f);
            seen[f] = true;
            while (next.TryPop(out var face))
            {
                shell.Add(face);
                for (var h = 3 * face; h < 3 * face + 3; h++)
                    if (across.Across(h) is >= 0 and var other && !seen[other / 3])
                    {
                        seen[other / 3] = true;
                        next.Push(other / 3);
                    }
            }
            shell.Sort();
            shells.Add(shell);
        }
        return shells;
    }

    private static Mesh Taken(Mesh mesh, List<int> faces)
    {
        var (numbers, corners, taken) = (new Dictionary<int, int>(), new List<float>(), new List<int>(3 * faces.Count));
        foreach (var face in faces)
            for (var k = 0; k < 3; k++)
            {
                var corner = mesh.Faces[3 * face + k];
                if (!numbers.TryGetValue(corner, out var number))
                {
                    numbers[corner] = number = numbers.Count;
                    corners.AddRange(mesh.Corners.AsSpan(3 * corner, 3));
                }
                taken.Add(number);
            }
        return new Mesh([.. corners], [.. taken]);
    }
}
