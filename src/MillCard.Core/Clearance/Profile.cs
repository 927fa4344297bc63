using System.Collections.Concurrent;
using MillCard.Core.Geometry;
using MillCard.Core.Reach;
using NetTopologySuite.Geometries;
using NetTopologySuite.Geometries.Prepared;
using NetTopologySuite.Geometries.Utilities;
using NetTopologySuite.Operation.Distance;

namespace MillCard.Core.Clearance;

/// <summary>A part at one turn, or its mirror image, with its own place at (0, 0): as it stands when finished and as it is printed.</summary>
internal sealed class Profile(Footprints footprints, double turn, bool mirrored, Apron apron)
{
    private readonly ConcurrentDictionary<double, Standing> _above = new();
    private readonly ConcurrentDictionary<HeadSolid, Shape> _swept = new();

    /// <summary>Its height, mm.</summary>
    public double Height => footprints.Height;

    /// <summary>All paths with the travels between them, skirt included: the convex hull.</summary>
    public Polygon Path { get; } = (Polygon)Shapes.Hull(Seen(footprints.Below(double.PositiveInfinity, 0, 0, turn, apron), mirrored));

    /// <summary>The silhouette of what rises above a height.</summary>
    public Standing Above(double height) => _above.GetOrAdd(Math.Max(0, height), h => new Standing(Seen(footprints.Placed(footprints.Above(h), 0, 0, turn), mirrored)));

    /// <summary>What a thing of the head sweeps while this part is printed: path ⊕ outline.</summary>
    public Shape Swept(HeadSolid solid) => _swept.GetOrAdd(solid, s => MinkowskiSum.Of(Path, s.Outline));

    private static Shape Seen(Shape shape, bool mirrored) => mirrored ? AffineTransformation.ScaleInstance(-1, 1).Transform(shape) : shape;
}

/// <summary>A silhouette with indexes for asking about many places.</summary>
internal sealed class Standing(Shape area)
{
    private readonly Lazy<IPreparedGeometry> _prepared = new(() => PreparedGeometryFactory.Prepare(area));
    private readonly Lazy<IndexedFacetDistance> _border = new(() => new IndexedFacetDistance(area));

    public Shape Area => area;

    /// <summary>The distance to a shape, mm; 0 where they touch, negative where they overlap by more than 1 µm.</summary>
    public double Gap(Shape shape)
    {
        lock (_prepared) if (!_prepared.Value.Intersects(shape)) return _border.Value.Distance(shape);
        var overlap = Plane.Intersection(area, shape);
        return overlap.IsEmpty || Plane.Offset(overlap, -Plane.Touch / 2).IsEmpty ? 0 : -1;
    }
}
