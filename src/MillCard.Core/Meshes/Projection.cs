using System.Runtime.InteropServices;
using MillCard.Core.Geometry;

namespace MillCard.Core.Meshes;

/// <summary>The true projection of a part, or of what of it lies below or above a height, onto the bed.</summary>
/// <remarks>
/// A vertical line through a solid leaves it downwards through a face that looks down; so the projection of what lies below z
/// is that of the downward faces cut at z; for what lies above, the same upside down. Where the border of all those faces hardly crosses
/// itself, it is resolved at once by winding number. Where it does, as on twisted bars and threads, the crossings may be as many as the
/// square of the faces, while the outline of their union is short: there squares that are surely covered come first, and of the faces that
/// reach beyond them patches are taken, each is resolved alone, patches are united, and those that lie within what is covered already, to
/// half of <see cref="Plane.Touch"/>, are left out. Downward faces all wind the same way, so both come to the same area.
/// </remarks>
public static class Projection
{
    /// <summary>Faces of a patch: enough to share most of its edges, few enough not to wind round itself.</summary>
    private const int PatchFaces = 128;
    private const int FirstPatches = 64;

    /// <summary>The areas covered by what of the mesh lies below a height.</summary>
    /// <param name="mesh">A closed mesh; a broken one gives what its faces tell.</param>
    /// <param name="neighbours">Of the same mesh.</param>
    /// <param name="height">mm, in the mesh's own frame; infinite for all of it.</param>
    /// <param name="stop">Ends the computation.</param>
    public static Shape Below(Mesh mesh, Neighbours neighbours, double height, CancellationToken stop = default) =>
        Of(new DownwardFaces(mesh, neighbours, height, 1), stop);

    /// <summary>The areas covered by what of the mesh rises above a height.</summary>
    /// <param name="mesh">A closed mesh; a broken one gives what its faces tell.</param>
    /// <param name="neighbours">Of the same mesh.</param>
    /// <param name="height">mm, in the mesh's own frame.</param>
    /// <param name="stop">Ends the computation.</param>
    public static Shape Above(Mesh mesh, Neighbours neighbours, double height, CancellationToken stop = default) =>
        Of(new DownwardFaces(mesh, neighbours, -height, -1), stop);

    private static Shape Of(DownwardFaces faces, CancellationToken stop)
    {
        var chosen = faces.All(stop);
        var border = faces.Border(chosen, patch: null);
        if (!Crossings.AreMany(border, stop)) return Plane.WithoutSlits(Winding.Resolve(border, stop));
        var certain = new CertainCells(border, stop);
        return Covering(faces, chosen.FindAll(face => !certain.Holds(faces.Seen(face))), certain.Area(stop), stop);
    }

    /// <summary>Patches in no order, twice as many each time; those that lie in what is covered already add nothing.</summary>
    private static Shape Covering(DownwardFaces faces, List<int> chosen, Shape covered, CancellationToken stop)
    {
        var (patches, patchOf) = faces.Patches(chosen, PatchFaces, stop);
        new Random(patches.Count).Shuffle(CollectionsMarshal.AsSpan(patches));
        for (var (from, count) = (0, FirstPatches); from < patches.Count; (from, count) = (from + count, 2 * count))
        {
            var cover = new Cover(covered);
            var open = patches.Skip(from).Take(count).Where(patch => !patch.All(face => cover.Holds(faces.Seen(face)))).ToArray();
            stop.ThrowIfCancellationRequested();
            covered = Plane.UnionOnRaster(covered, United(open, 0, open.Length, patch => Area(faces, patch, patchOf, stop), stop));
        }
        return Plane.WithoutSlits(covered);
    }

    /// <summary>What a patch covers; one that folds over itself is halved until its parts hardly do.</summary>
    private static Shape Area(DownwardFaces faces, List<int> patch, int[] patchOf, CancellationToken stop)
    {
        var border = faces.Border(patch, patchOf);
        if (patch.Count < 2 || !Crossings.AreMany(border, stop)) return Winding.Resolve(border, stop);
        var (first, second) = (patch[..(patch.Count / 2)], patch[(patch.Count / 2)..]);
        // a number that no other patch has
        foreach (var face in second) patchOf[face] = -2 - second[0];
        return Plane.UnionOnRaster(Area(faces, first, patchOf, stop), Area(faces, second, patchOf, stop));
    }

    /// <summary>The union of areas, two by two.</summary>
    private static Shape United<T>(IReadOnlyList<T> all, int from, int to, Func<T, Shape> area, CancellationToken stop)
    {
        stop.ThrowIfCancellationRequested();
        if (to - from == 0) return Plane.Empty;
        if (to - from == 1) return area(all[from]);
        var middle = (from + to) / 2;
        return Plane.WithoutSlits(Plane.UnionOnRaster(United(all, from, middle, area, stop), United(all, middle, to, area, stop)));
    }
}
