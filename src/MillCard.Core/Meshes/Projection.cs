using MillCard.Core.Geometry;

namespace MillCard.Core.Meshes;

/// <summary>The projection of a part, or of what of it lies below or above a height, onto the bed.</summary>
/// <param name="Area">The areas covered: all of them.</param>
/// <param name="Beyond">How far beyond what is truly covered a point of the areas may be, mm; 0 where the outline is the true one.</param>
/// <remarks>
/// A vertical line through a solid leaves it downwards through a face that looks down; so the projection of what lies below z
/// is that of the downward faces cut at z; for what lies above, the same upside down. Their border is broken up where it crosses itself,
/// and the pieces that have nothing to their right are the outline. On twisted bars, threads and heaps the crossings may be as many as the
/// square of the faces, while the outline of their union is short: there squares that are surely covered are left out of sight, and where
/// even that is too much, the outline is that of the squares of a very fine raster that they touch. Downward faces all wind the same way,
/// so all of this comes to the same area.
/// </remarks>
public readonly record struct Projection(Shape Area, double Beyond)
{
    /// <summary>The share of faces not held by certain squares up to which those are worth having.</summary>
    private const double Few = 0.9;

    /// <summary>So few pieces are resolved crossing by crossing, wherever they lie.</summary>
    private const int FewPieces = 500;

    /// <summary>The areas covered by what of the mesh lies below a height.</summary>
    /// <param name="mesh">A closed mesh; a broken one gives what its faces tell.</param>
    /// <param name="neighbours">Of the same mesh.</param>
    /// <param name="height">mm, in the mesh's own frame; infinite for all of it.</param>
    /// <param name="stop">Ends the computation.</param>
    public static Projection Below(Mesh mesh, Neighbours neighbours, double height, CancellationToken stop = default) =>
        Of(new DownwardFaces(mesh, neighbours, height, 1), stop);

    /// <summary>The areas covered by what of the mesh rises above a height.</summary>
    /// <param name="mesh">A closed mesh; a broken one gives what its faces tell.</param>
    /// <param name="neighbours">Of the same mesh.</param>
    /// <param name="height">mm, in the mesh's own frame.</param>
    /// <param name="stop">Ends the computation.</param>
    public static Projection Above(Mesh mesh, Neighbours neighbours, double height, CancellationToken stop = default) =>
        Of(new DownwardFaces(mesh, neighbours, -height, -1), stop);

    private static Projection Of(DownwardFaces faces, CancellationToken stop)
    {
        var chosen = faces.All(stop);
        var border = faces.Border(chosen);
        var enclosed = OuterBorder.Enclosed(border, certain: null, stop);
        if (enclosed is { NumPoints: <= TouchedCells.MostCorners }) return new(Plane.WithoutSlits(enclosed), 0);
        if (border.Count <= FewPieces) return new(Winding.Resolve(border, stop), 0);
        var filled = FilledCells.Of([.. chosen.Where(faces.IsWhole).Select(faces.Seen)], stop);
        var certain = filled ?? EnclosedCells.Of(border, stop);
        var rest = chosen.FindAll(face => !certain.Holds(faces.Seen(face)));
        // where they lie deep and each of them reaches to the border, too much of it crosses to be looked at together; an outline that was
        // found already, and has too many corners, would be found again
        var atOnce = enclosed is null && (filled is null || rest.Count < Few * chosen.Count);
        if (atOnce && OuterBorder.Enclosed(faces.Border(rest), certain, stop) is { NumPoints: <= TouchedCells.MostCorners } outside)
            return new(Plane.WithoutSlits(outside), 0);
        var (area, beyond) = TouchedCells.Outline([.. rest.SelectMany(faces.Covered)], certain, stop);
        return new(area, beyond);
    }
}
