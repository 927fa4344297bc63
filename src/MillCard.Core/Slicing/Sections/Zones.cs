using MillCard.Core.Documents;
using MillCard.Core.Geometry;
using MillCard.Core.Meshes;

namespace MillCard.Core.Slicing.Sections;

/// <summary>A zone of a job, with its mesh where it has one.</summary>
/// <param name="Zone">The document.</param>
/// <param name="Mesh">Of a mesh zone; null for the others.</param>
public sealed record ZoneToSlice(Zone Zone, Mesh? Mesh = null);

/// <summary>A piece of a layer where one set of settings holds.</summary>
/// <param name="Recipe">What lines are laid by.</param>
/// <param name="Paces">Which of the part's paces they are laid at.</param>
/// <param name="Area">Where.</param>
internal readonly record struct Piece(Recipe Recipe, int Paces, Shape Area);

/// <summary>The zones of a job cut at the layers of a part.</summary>
internal sealed class Zones
{
    private readonly IReadOnlyList<ZoneToSlice> _zones;
    private readonly ZoneSettings _settings;
    private readonly Shape[][] _sections;

    /// <param name="zones">In their order, in the frame of what they are to part.</param>
    /// <param name="settings">What holds in each.</param>
    /// <param name="places">The layers.</param>
    public Zones(IReadOnlyList<ZoneToSlice> zones, ZoneSettings settings, LayerPlace[] places)
    {
        (_zones, _settings) = (zones, settings);
        double[] heights = [.. places.Select(p => p.Middle)];
        _sections = [.. zones.Select(z => Sections(z, heights))];
    }

    /// <summary>Sections less what zones cut away; those that none of them meets stay the same.</summary>
    public Shape[] Cut(Shape[] regions)
    {
        if (!Any(ZoneUse.Cut)) return regions;
        var cut = new Shape[regions.Length];
        for (var i = 0; i < cut.Length; i++)
        {
            var (away, isSame) = (Of(ZoneUse.Cut, i), i > 0 && ReferenceEquals(regions[i], regions[i - 1]));
            cut[i] = away.IsEmpty ? regions[i] : Plane.Difference(regions[i], away);
            if (isSame && cut[i].EqualsExact(cut[i - 1])) cut[i] = cut[i - 1];
        }
        return cut;
    }

    /// <summary>A layer's area by the settings that hold there; a later zone wins. The last is what no zone covers.</summary>
    public IReadOnlyList<Piece> PiecesOf(int layer, Shape region)
    {
        var pieces = new List<Piece>();
        var rest = region;
        for (var i = _zones.Count - 1; i >= 0 && !rest.IsEmpty; i--)
        {
            if (_zones[i].Zone.Use != ZoneUse.Settings || _sections[i][layer].IsEmpty) continue;
            var piece = Plane.Intersection(rest, _sections[i][layer]);
            if (piece.IsEmpty) continue;
            pieces.Add(_settings.Of(i) with { Area = piece });
            rest = Plane.Difference(rest, _sections[i][layer]);
        }
        if (!rest.IsEmpty || pieces.Count == 0) pieces.Add(_settings.Own with { Area = rest });
        return pieces;
    }

    /// <summary>Where zones of a use lie on a layer.</summary>
    public Shape Of(ZoneUse use, int layer) => Plane.Union(
        [.. _zones.Select((z, i) => (z.Zone.Use, Section: _sections[i][layer])).Where(z => z.Use == use && !z.Section.IsEmpty)
        .Select(z => z.Section)]);

    private bool Any(ZoneUse use) => _zones.Any(z => z.Zone.Use == use);

    /// <summary>More than any bed, about any part's middle.</summary>
    internal static Shape Everywhere { get; } = Shapes.Rectangle(-30000, -30000, 60000, 60000);

    private static Shape[] Sections(ZoneToSlice zone, double[] heights)
    {
        if (zone is { Zone: MeshZone at, Mesh: { } mesh })
        {
            var placed = Placement.Place(mesh, at.X, at.Y, 0);
            var sections = new CrossSections(placed, Neighbours.Of(placed), [.. heights.Select(z => z - at.Z)]);
            return [.. sections.All().Select(Regions.Of)];
        }
        var (shape, height) = zone.Zone switch
        {
            BoxZone box => (Shapes.Rectangle(box.X - box.Width / 2, box.Y - box.Depth / 2, box.Width, box.Depth), box.Height),
            CylinderZone cylinder => ((Shape)Shapes.Ellipse(cylinder.X, cylinder.Y, cylinder.Radius, cylinder.Radius, Side.Outside),
                cylinder.Height),
            HeightsZone span => (Everywhere, span.Height),
            _ => (Plane.Empty, 0),
        };
        return [.. heights.Select(z => z >= zone.Zone.Z && z <= zone.Zone.Z + height ? shape : Plane.Empty)];
    }
}
