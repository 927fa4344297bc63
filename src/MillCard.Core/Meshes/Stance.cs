using MillCard.Core.Documents;

namespace MillCard.Core.Meshes;

/// <summary>How a part stands, but for its place and its turn about Z.</summary>
/// <param name="Scale">Ratios of size, and whether it is mirrored; null for none.</param>
/// <param name="Tilt">About X and then about Y; null for none.</param>
/// <param name="Lift">Of its lowest point above the bed, mm; below 0 it is sunk into it.</param>
public sealed record Stance(PartScale? Scale = null, Tilt? Tilt = null, double Lift = 0)
{
    /// <summary>As its file has it, on the bed.</summary>
    public static Stance Upright { get; } = new();

    /// <summary>Of a part of a trial.</summary>
    public static Stance Of(TrialPart part) => new(part.Scale, part.Tilt, part.Lift);

    /// <summary>The projections of a mesh that stands so.</summary>
    /// <param name="mesh">As its file has it.</param>
    /// <param name="stop">Ends the computation.</param>
    /// <exception cref="MeshRefusedException">Nothing of it is left above the bed.</exception>
    public Footprints Stood(Mesh mesh, CancellationToken stop = default) => new(Placement.Oriented(mesh, Scale, Tilt), Lift, stop);
}
