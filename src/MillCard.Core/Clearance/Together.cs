using MillCard.Core.Meshes;
using MillCard.Core.Reach;

namespace MillCard.Core.Clearance;

/// <summary>Parts of an assembly as one part, so that they are laid as one.</summary>
internal sealed class Together
{
    private readonly IReadOnlyList<StandingPart> _parts;
    private readonly int[][] _groups;

    /// <param name="parts">All of them.</param>
    /// <param name="held">Which keep their places.</param>
    /// <param name="stop">Ends the making of their projections.</param>
    public Together(IReadOnlyList<StandingPart> parts, IReadOnlySet<int> held, CancellationToken stop)
    {
        _parts = parts;
        _groups = [.. parts.Index().GroupBy(p => p.Item.Assembly ?? $"\n{p.Index}").Select(group => group.Select(p => p.Index).ToArray())];
        Parts = [.. _groups.Select(group => group.Length == 1 ? parts[group[0]] : One([.. group.Select(i => parts[i])], stop))];
        Held = Enumerable.Range(0, _groups.Length).Where(g => _groups[g].Any(held.Contains)).ToHashSet();
    }

    /// <summary>One a part, or an assembly.</summary>
    public IReadOnlyList<StandingPart> Parts { get; }

    /// <summary>Which of them keep their places.</summary>
    public IReadOnlySet<int> Held { get; }

    /// <summary>Places of all parts from those of <see cref="Parts"/>, which are turned by quarters at most.</summary>
    public IReadOnlyList<Place?> Each(IReadOnlyList<Place?> places)
    {
        var each = new Place?[_parts.Count];
        foreach (var (group, members) in _groups.Index())
            foreach (var i in members)
                if (places[group] is { } place) each[i] = members.Length == 1 ? place : Moved(_parts[i], Parts[group], place);
        return each;
    }

    private static Place Moved(StandingPart part, StandingPart whole, Place place)
    {
        var (sin, cos) = Placement.SinCos(place.Turn);
        var (x, y) = (part.X - whole.X, part.Y - whole.Y);
        return new(place.X + cos * x - sin * y, place.Y + sin * x + cos * y, part.Turn + place.Turn);
    }

    private static StandingPart One(StandingPart[] parts, CancellationToken stop)
    {
        var mesh = MeshBodies.Joined([.. parts.Select(p => Placement.Place(p.Footprints.Mesh, p.X, p.Y, p.Turn, p.Footprints.Box.MinZ))]);
        var box = mesh.Box;
        return new StandingPart(string.Join(", ", parts.Select(p => p.Name)), new Footprints(mesh, box.MinZ, stop),
            ((double)box.MinX + box.MaxX) / 2, ((double)box.MinY + box.MaxY) / 2, 0,
            [.. parts.SelectMany(p => p.Nozzles ?? []).Distinct()]);
    }
}
