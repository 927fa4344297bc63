using MillCard.Core.Geometry;
using NetTopologySuite.Geometries;

namespace MillCard.Core.Slicing.Supporting;

/// <summary>Where a part's supports may stand, in the part's own frame, as far round it as they ever reach.</summary>
/// <param name="Areas">The different areas.</param>
/// <param name="OnLayer">Which of them holds on each layer.</param>
internal sealed record GroundUnderPart(IReadOnlyList<Shape> Areas, IReadOnlyList<int> OnLayer)
{
    /// <summary>Supports that would lean out farther end there, mm.</summary>
    private const double Reach = 20;

    /// <summary>Where supports may stand on a layer.</summary>
    public Shape Of(int layer) => Areas[OnLayer[layer]];

    /// <summary>Gathers it.</summary>
    /// <param name="regions">The part's cross-sections, in its own frame.</param>
    /// <param name="x">Where the frame's zero lies, mm, bed frame.</param>
    /// <param name="y">Where the frame's zero lies, mm, bed frame.</param>
    /// <param name="grounds">Of the nozzles that lay body and interface, by layer, bed frame.</param>
    public static GroundUnderPart Of(Shape[] regions, double x, double y, Func<int, (Shape Body, Shape Interface)> grounds)
    {
        var (box, areas, known) = (new Envelope(), new List<Shape>(), new Dictionary<(Shape, Shape), int>());
        foreach (var region in regions) box.ExpandToInclude(region.EnvelopeInternal);
        box.ExpandBy(Reach);
        var round = Plane.Factory.ToGeometry(box);
        return new(areas, [.. regions.Select((_, layer) => Number(grounds(layer)))]);

        int Number((Shape Body, Shape Interface) both)
        {
            if (known.TryGetValue(both, out var number)) return number;
            areas.Add(Within(Within(round, both.Body), both.Interface));
            return known[both] = areas.Count - 1;
        }

        Shape Within(Shape left, Shape ground) => Plane.Moved(ground, -x, -y) is var here && here.Covers(left) ? left
            : Plane.Intersection(left, here);
    }
}
