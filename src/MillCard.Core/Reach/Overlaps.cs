using System.Collections.Concurrent;
using MillCard.Core.Geometry;
using MillCard.Core.Machines;
using MillCard.Core.Meshes;

namespace MillCard.Core.Reach;

/// <summary>Where parts overlap regions and one another, kept while they are dragged.</summary>
internal sealed class Overlaps
{
    private const int MostSpaces = 400;
    private readonly ConcurrentDictionary<(Footprints, double Turn, bool Mirrored, Forbidden), ForbiddenPlaces> _spaces = new();
    private readonly ConcurrentDictionary<(Footprints, double Turn, bool Mirrored, Footprints Other, double OtherTurn, bool OtherMirrored),
        Shape> _overlaps = new();

    /// <summary>Whether <see cref="SpaceOf"/> is at hand.</summary>
    public bool IsKnown(PlacedPart part, Forbidden forbidden) =>
        _spaces.ContainsKey((part.Part.Footprints, part.Part.Turn, part.Mirrored, forbidden));

    /// <summary>Where the part's place is such that it overlaps a region. It depends on the turn alone, so it is kept while the part is
    /// dragged.</summary>
    public ForbiddenPlaces SpaceOf(PlacedPart part, Forbidden forbidden)
    {
        if (_spaces.Count > MostSpaces) _spaces.Clear();
        return _spaces.GetOrAdd((part.Part.Footprints, part.Part.Turn, part.Mirrored, forbidden), _ =>
            new ForbiddenPlaces(ConfigurationSpace(Plane.Moved(part.Below(forbidden.Below), -part.At.X, -part.At.Y), forbidden.Core,
                part.Stop), forbidden.Margin));
    }

    /// <summary>Displacements of the part at which it overlaps a region: region ⊕ (−part).</summary>
    private static Shape ConfigurationSpace(Shape part, Shape region, CancellationToken stop) =>
        MinkowskiSum.Of(MinkowskiSum.Negated(part), region, stop);

    /// <summary>Displacements at which a part overlaps another one. They depend on the turns alone, so they are kept while parts are
    /// dragged.</summary>
    public Shape Of(PlacedPart part, PlacedPart other)
    {
        if (_overlaps.Count > MostSpaces) _overlaps.Clear();
        var (a, b) = (part.Part, other.Part);
        var space = _overlaps.GetOrAdd((a.Footprints, a.Turn, part.Mirrored, b.Footprints, b.Turn, other.Mirrored),
            _ => ConfigurationSpace(part.Plain, other.Plain, part.Stop));
        return Plane.Moved(space, other.At.X - part.At.X, other.At.Y - part.At.Y);
    }
}
