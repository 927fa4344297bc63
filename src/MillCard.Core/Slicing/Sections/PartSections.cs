using MillCard.Core.Documents;
using MillCard.Core.Geometry;
using MillCard.Core.Meshes;
using NetTopologySuite.Geometries;

namespace MillCard.Core.Slicing.Sections;

/// <summary>A part cut in the middle of every layer.</summary>
/// <param name="Regions">What is plastic, one a layer, with the recipe's compensation.</param>
/// <param name="Unclosed">Outlines that were left out because they could not be closed.</param>
/// <param name="Crossing">Layers whose outlines cross each other.</param>
/// <param name="OpenEdges">Edges of the mesh that have no partner.</param>
internal sealed record PartSections(Shape[] Regions, int Unclosed, int Crossing, int OpenEdges)
{
    /// <summary>Cuts a part in its own frame, layers in parallel.</summary>
    /// <param name="part">Its mesh, unturned.</param>
    /// <param name="places">The layers.</param>
    /// <param name="compensation">What outlines are grown by.</param>
    /// <param name="options">How parallel, and when to stop.</param>
    /// <param name="done">Told how many layers are cut.</param>
    public static PartSections Of(Footprints part, LayerPlace[] places, Compensation compensation, ParallelOptions options,
        Action<int> done)
    {
        var (unclosed, crossing, cut) = (0, 0, 0);
        var regions = new Shape[places.Length];
        var sections = new CrossSections(part.Mesh, part.Neighbours, [.. places.Select(p => p.Middle)]);
        Parallel.For(0, places.Length, options, sections.NewTracer, (i, _, tracer) =>
        {
            var contours = tracer.Trace(i);
            if (contours.Unclosed > 0) Interlocked.Add(ref unclosed, contours.Unclosed);
            var grown = compensation.Xy + (i == 0 ? compensation.FirstLayer : 0);
            regions[i] = Grown(Sections.Regions.Of(contours, out var crosses), grown, grown + compensation.Holes);
            if (crosses) Interlocked.Increment(ref crossing);
            done(Interlocked.Increment(ref cut));
            return tracer;
        }, tracer => tracer.Dispose());
        // equal neighbours share one shape: comparing them costs nothing then
        for (var i = 1; i < regions.Length; i++) if (regions[i].EqualsExact(regions[i - 1])) regions[i] = regions[i - 1];
        return new(regions, unclosed, crossing, part.OpenEdges);
    }

    /// <summary>Regions changed; equal neighbours stay one shape.</summary>
    public static Shape[] Mapped(Shape[] regions, Func<Shape, Shape> change)
    {
        var mapped = new Shape[regions.Length];
        for (var i = 0; i < mapped.Length; i++)
            mapped[i] = i > 0 && ReferenceEquals(regions[i], regions[i - 1]) ? mapped[i - 1] : change(regions[i]);
        return mapped;
    }

    private const int BytesOfShape = 600, BytesOfCorner = 48;

    /// <summary>What regions take in memory, about.</summary>
    public static long BytesOf(Shape[] regions) =>
        regions.Distinct(ReferenceEqualityComparer.Instance).Cast<Shape>().Sum(r => BytesOfShape + (long)r.NumPoints * BytesOfCorner);

    /// <summary>A section with its outer outlines moved outwards and those of its holes inwards.</summary>
    private static Shape Grown(Shape section, double outlines, double holes)
    {
        if (outlines == holes) return Plane.Offset(section, outlines);
        return Plane.Union([.. Plane.Polygons(section).Select(polygon => Plane.Difference(
            Plane.Offset(Plane.Factory.CreatePolygon((LinearRing)polygon.ExteriorRing), outlines),
            Plane.Union([.. polygon.Holes.Select(hole => Plane.Offset(Plane.Factory.CreatePolygon(hole), -holes))])))]);
    }
}
