using MillCard.Core.Documents;
using MillCard.Core.Meshes;

namespace MillCard.Core.Reach;

/// <summary>A part to be fitted.</summary>
/// <param name="Name">Its name.</param>
/// <param name="Footprints">Its projections.</param>
/// <param name="X">Middle of the turned part's bounding box, mm, bed frame.</param>
/// <param name="Y">Middle of the turned part's bounding box, mm, bed frame.</param>
/// <param name="Turn">Degrees, counter-clockwise.</param>
/// <param name="Nozzles">Ids of the nozzles that print it; the first where it is empty or null.</param>
public sealed record StandingPart(string Name, Footprints Footprints, double X, double Y, double Turn,
    IReadOnlyList<string>? Nozzles = null)
{
    /// <summary>What it belongs to; null for a part of its own.</summary>
    public string? Assembly { get; init; }

    /// <summary>Whether another one belongs to the same assembly: they may touch.</summary>
    public bool IsFellowOf(StandingPart other) => Assembly is not null && Assembly == other.Assembly;

    /// <summary>A part of a trial with its footprints.</summary>
    public static StandingPart Of(TrialPart part, Footprints footprints) =>
        new(part.Name, footprints, part.X, part.Y, part.Turn, part.Nozzles) { Assembly = part.Assembly };
}
