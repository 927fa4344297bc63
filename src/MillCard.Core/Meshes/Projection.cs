using System.Runtime.InteropServices;
using MillCard.Core.Geometry;
using NetTopologySuite.Geometries;

namespace MillCard.Core.Meshes;

/// <summary>The true projection of a part, or of what of it lies below or above a height, onto the bed.</summary>
/// <remarks>
/// A vertical line through a solid leaves it downwards through a face that looks down; so the projection of what lies below z
/// is that of the downward faces cut at z; for what lies above, the same upside down. Their border is broken up where it crosses itself,
/// and the pieces that have nothing to their right are the outline. On twisted bars, threads and heaps the crossings may be as many as the
/// square of the faces, while the outline of their union is short: there squares that are surely covered are left out of sight, and where
/// even that is too much, patches of the faces are added in no order, and those that lie in what is covered already, to a slack, are left
/// out. Downward faces all wind the same way, so all of this comes to the same area.
/// </remarks>
public static class Projection
{
    /// <summary>Faces of a patch: enough to share most of its edges, few enough not to wind round itself.</summary>
    private const int PatchFaces = 128;
    private const int FirstFaces = 256;

    /// <summary>The share of faces not held by certain squares up to which those are worth having.</summary>
    private const double Few = 0.9;

    /// <summary>By how much a face of a heap may reach over what is covered and still add nothing, mm: finer than any printer.</summary>
    private const double Slack = 3 * Plane.Touch;

    /// <summary>So few faces are resolved crossing by crossing, however they lie.</summary>
    private const int FewFaces = 64;

    /// <summary>Where faces lie too close to be looked at together, more pieces than these that keep apart are a heap: neither time nor
    /// memory would hold.</summary>
    private const int MostPieces = 2000;

    /// <summary>The areas covered by what of the mesh lies below a height.</summary>
    /// <param name="mesh">A closed mesh; a broken one gives what its faces tell.</param>
    /// <param name="neighbours">Of the same mesh.</param>
    /// <param name="height">mm, in the mesh's own frame; infinite for all of it.</param>
    /// <param name="stop">Ends the computation.</param>
    /// <exception cref="MeshRefusedException">A heap of loose faces, too many to tell its outline.</exception>
    public static Shape Below(Mesh mesh, Neighbours neighbours, double height, CancellationToken stop = default) =>
        Of(new DownwardFaces(mesh, neighbours, height, 1), stop);

    /// <summary>The areas covered by what of the mesh rises above a height.</summary>
    /// <param name="mesh">A closed mesh; a broken one gives what its faces tell.</param>
    /// <param name="neighbours">Of the same mesh.</param>
    /// <param name="height">mm, in the mesh's own frame.</param>
    /// <param name="stop">Ends the computation.</param>
    /// <exception cref="MeshRefusedException">A heap of loose faces, too many to tell its outline.</exception>
    public static Shape Above(Mesh mesh, Neighbours neighbours, double height, CancellationToken stop = default) =>
        Of(new DownwardFaces(mesh, neighbours, -height, -1), stop);

    private static Shape Of(DownwardFaces faces, CancellationToken stop)
    {
        var chosen = faces.All(stop);
        var border = faces.Border(chosen);
        if (OuterBorder.Enclosed(border, certain: null, stop) is { } enclosed) return Plane.WithoutSlits(enclosed);
        var filled = FilledCells.Of([.. chosen.Where(faces.IsWhole).Select(faces.Seen)], stop);
        var certain = filled ?? EnclosedCells.Of(border, stop);
        var rest = chosen.FindAll(face => !certain.Holds(faces.Seen(face)));
        // where they lie deep and each of them reaches to the border, too much of it crosses to be looked at together
        var atOnce = filled is null || rest.Count < Few * chosen.Count;
        return atOnce && OuterBorder.Enclosed(faces.Border(rest), certain, stop) is { } outside
            ? Plane.WithoutSlits(outside)
            : Covering(faces, rest, certain.Area(stop), stop);
    }

    /// <summary>Patches in no order, twice as many each time; faces that lie in what is covered already add nothing.</summary>
    private static Shape Covering(DownwardFaces faces, List<int> chosen, Shape covered, CancellationToken stop)
    {
        var patches = faces.Patches(chosen, PatchFaces, stop);
        new Random(patches.Count).Shuffle(CollectionsMarshal.AsSpan(patches));
        var (next, most) = (new List<int>(), FirstFaces);
        for (var i = 0; i < patches.Count; i++)
        {
            next.AddRange(patches[i]);
            if (next.Count < most && i + 1 < patches.Count) continue;
            covered = With(faces, next, Thinned(covered, stop), stop);
            next.Clear();
            most *= 2;
        }
        return covered;
    }

    /// <summary>What is covered with some faces more; fewer at a time where they are too many to look at together.</summary>
    private static Shape With(DownwardFaces faces, List<int> more, Shape covered, CancellationToken stop)
    {
        var cover = new Cover(covered, Slack);
        more.RemoveAll(face => cover.Holds(faces.Seen(face)));
        for (var (from, count) = (0, more.Count); from < more.Count;)
        {
            stop.ThrowIfCancellationRequested();
            var next = more.GetRange(from, Math.Min(count, more.Count - from));
            var border = faces.Border(next);
            if (OuterBorder.Enclosed([.. border, .. Plane.Border(covered)], certain: null, stop) is { } all)
                (covered, from) = (Plane.WithoutSlits(all), from + next.Count);
            else if (count > FewFaces) count = Math.Max(1, next.Count / 4);
            else (covered, from) = (Plane.UnionOnRaster(covered, Winding.Resolve(border, stop)), from + next.Count);
            if (covered.NumGeometries > MostPieces)
                throw new MeshRefusedException($"Seen from above these are more than {MostPieces} loose pieces, many of them one over "
                    + "the other: a heap of faces, no part. Repair it, or leave out what does not belong to the part.");
        }
        return covered;
    }

    /// <summary>Areas without the corners of their outline that change nothing: turns of a bar make a curve of as many corners as it has
    /// faces.</summary>
    private static Shape Thinned(Shape areas, CancellationToken stop)
    {
        LinearRing Ring(LineString ring) => Plane.Factory.CreateLinearRing(Thinning.Of(ring.Coordinates, Slack / 3, stop));
        return Plane.Factory.BuildGeometry([.. Plane.Polygons(areas).Where(p => p.ExteriorRing.NumPoints > 3)
            .Select(p => Plane.Factory.CreatePolygon(Ring(p.ExteriorRing), [.. p.InteriorRings.Select(Ring)]))]);
    }
}
