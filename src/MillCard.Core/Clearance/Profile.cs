using System.Collections.Concurrent;
using MillCard.Core.Geometry;
using MillCard.Core.Machines;
using MillCard.Core.Meshes;
using NetTopologySuite.Geometries;
using NetTopologySuite.Geometries.Prepared;
using NetTopologySuite.Geometries.Utilities;
using NetTopologySuite.Operation.Distance;

namespace MillCard.Core.Clearance;

/// <summary>A part at one turn, or its mirror image, with its own place at (0, 0): as it stands when finished and as it is
/// printed.</summary>
internal sealed class Profile(Footprints footprints, double turn, bool mirrored, Apron apron, CancellationToken stop)
{
    private readonly ConcurrentDictionary<double, Standing> _above = new();
    private readonly ConcurrentDictionary<HeadSolid, Swept> _swept = new();
    private Swept? _own;

    /// <summary>Its height, mm.</summary>
    public double Height => footprints.Height;

    /// <summary>All paths with the travels between them, skirt included: the convex hull.</summary>
    public Polygon Path { get; } = (Polygon)Shapes.Hull(Seen(footprints.Below(double.PositiveInfinity, 0, 0, turn, apron, stop), mirrored));

    /// <summary>The silhouette of what rises above a height.</summary>
    public Standing Above(double height) =>
        _above.GetOrAdd(Math.Max(0, height), h => new Standing(Seen(footprints.Placed(footprints.Above(h), 0, 0, turn), mirrored)));

    /// <summary>What a thing of the head sweeps while this part is printed: path ⊕ outline.</summary>
    public Swept Swept(HeadSolid solid) => _swept.GetOrAdd(solid, s => new Swept(Path, s.Outline.EnvelopeInternal, s.Pieces));

    /// <summary>What the nozzle itself passes over.</summary>
    public Swept SweptByNozzle => _own ??= new Swept(Path);

    private static Shape Seen(Shape shape, bool mirrored) => mirrored ? AffineTransformation.ScaleInstance(-1, 1).Transform(shape) : shape;
}

/// <summary>A path with the outline of a thing of the head grown on: convex pieces, which need not be united to ask how near they
/// come.</summary>
internal sealed class Swept
{
    private readonly Lazy<IReadOnlyList<Polygon>> _pieces;

    /// <summary>The path alone.</summary>
    public Swept(Polygon path) => (Box, _pieces) = (path.EnvelopeInternal, new(() => [path]));

    /// <summary>The path and what is grown on; made when somebody comes near.</summary>
    public Swept(Polygon path, Envelope outline, IReadOnlyList<Polygon> pieces)
    {
        var own = path.EnvelopeInternal;
        Box = new Envelope(own.MinX + outline.MinX, own.MaxX + outline.MaxX, own.MinY + outline.MinY, own.MaxY + outline.MaxY);
        _pieces = new(() => [.. pieces.Select(piece => MinkowskiSum.OfConvexPair(path, piece))]);
    }

    public IReadOnlyList<Polygon> Pieces => _pieces.Value;
    public Envelope Box { get; }
}

/// <summary>A silhouette with indexes for asking about many places.</summary>
internal sealed class Standing(Shape area)
{
    private readonly Lazy<IPreparedGeometry> _prepared = new(() => PreparedGeometryFactory.Prepare(area));
    private readonly Lazy<IndexedFacetDistance> _border = new(() => new IndexedFacetDistance(area));
    private readonly Lazy<Shape> _hull = new(() => Shapes.Hull(area));

    public Shape Area => area;

    /// <summary>Its convex hull.</summary>
    public Shape Hull => _hull.Value;

    /// <summary>The distance to a swept area moved by (x, y), mm; 0 where they touch, negative where they overlap by more than 1
    /// µm.</summary>
    /// <param name="swept">The area.</param>
    /// <param name="x">Its displacement.</param>
    /// <param name="y">Its displacement.</param>
    /// <param name="enough">A gap of at least this need not be told exactly.</param>
    public double Gap(Swept swept, double x, double y, double enough)
    {
        var least = enough;
        foreach (var piece in swept.Pieces)
        {
            if (least < 0) break;
            if (Boxes.Apart(area.EnvelopeInternal, piece.EnvelopeInternal, x, y) >= least) continue;
            least = Math.Min(least, Gap(Plane.Moved(piece, x, y)));
        }
        return least;
    }

    private double Gap(Shape shape)
    {
        lock (_prepared) if (!_prepared.Value.Intersects(shape)) return _border.Value.Distance(shape);
        var overlap = Plane.Intersection(area, shape);
        return overlap.IsEmpty || Plane.Offset(overlap, -Plane.Touch / 2).IsEmpty ? 0 : -1;
    }
}

/// <summary>Bounding boxes.</summary>
internal static class Boxes
{
    /// <summary>The distance of two boxes, mm, the second moved by (x, y); what they hold is no nearer. Negative infinity where they
    /// overlap.</summary>
    public static double Apart(Envelope a, Envelope b, double x, double y)
    {
        var dx = Math.Max(b.MinX + x - a.MaxX, a.MinX - b.MaxX - x);
        var dy = Math.Max(b.MinY + y - a.MaxY, a.MinY - b.MaxY - y);
        if (dx < 0 && dy < 0) return double.NegativeInfinity;
        return Math.Sqrt(Math.Max(0, dx) * Math.Max(0, dx) + Math.Max(0, dy) * Math.Max(0, dy));
    }
}
