using System.Text;
using System.Xml;
using MillCard.Core.Geometry;
using MillCard.Core.Meshes;
using NetTopologySuite.Geometries;
using NetTopologySuite.Operation.Valid;

namespace MillCard.Core.Files;

/// <summary>An outline read from a drawing or a mesh.</summary>
/// <param name="Points">Corners [x, y], Y up, the front-left corner of the bounding box at (0, 0), in the file's own unit.</param>
/// <param name="MillimetresPerUnit">What the file itself says of its unit; null where it says nothing.</param>
public sealed record ReadOutline(double[][] Points, double? MillimetresPerUnit)
{
    /// <summary>Size along X and Y, in the file's own unit.</summary>
    public double[] Size => [Points.Max(p => p[0]), Points.Max(p => p[1])];
}

/// <summary>Takes the outline of a plate from SVG path data, an SVG drawing, or an STL mesh seen from above. The largest ring
/// counts.</summary>
public static class OutlineFile
{
    private const int MostCorners = 2000;
    private const double Coarsest = 1000;
    private const int MostCharacters = 20_000_000;

    /// <summary>Reads by content.</summary>
    /// <param name="file">The whole file.</param>
    /// <param name="stop">Ends the reading.</param>
    /// <exception cref="OutlineException">It holds no outline; the message says why.</exception>
    /// <exception cref="MeshRefusedException">It is a broken mesh.</exception>
    public static ReadOutline Read(byte[] file, CancellationToken stop = default)
    {
        var start = Encoding.UTF8.GetString(file.AsSpan(0, Math.Min(file.Length, 400))).TrimStart('\uFEFF', ' ', '\n', '\r', '\t');
        if (start.StartsWith('<')) return OfDrawing(file, stop);
        if (start.Length > 0 && start[0] is 'M' or 'm' && file.Length < MostCharacters && !start.Contains('\0', StringComparison.Ordinal))
            return OfRings(SvgPath.Rings(Encoding.UTF8.GetString(file)).Select(Flipped), null, stop);
        var footprints = new Footprints(Stl.Read(file, stop), stop);
        return OfRings(Plane.Polygons(footprints.Whole).Select(p => (IReadOnlyList<Coordinate>)p.ExteriorRing.Coordinates), 1, stop);
    }

    private static readonly XmlReaderSettings Drawing =
        new() { DtdProcessing = DtdProcessing.Prohibit, XmlResolver = null, MaxCharactersInDocument = MostCharacters };

    private static ReadOutline OfDrawing(byte[] file, CancellationToken stop)
    {
        var (rings, unit) = SvgDrawing.Read(file, Drawing);
        return OfRings(rings.Select(Flipped), unit, stop);
    }

    private static ReadOutline OfRings(IEnumerable<IReadOnlyList<Coordinate>> rings, double? unit, CancellationToken stop)
    {
        Polygon[] areas = [.. rings.Select(Area).OfType<Polygon>()];
        var largest = areas.MaxBy(p => p.Area);
        // what crosses itself may enclose as much one way round as the other
        var crossing = areas.Where(p => p.EnvelopeInternal.Area >= (largest?.Area ?? 0)).Select(p => new IsValidOp(p).ValidationError)
            .FirstOrDefault(e => e is not null);
        if (crossing is not null)
            throw new OutlineException(Invariant(
                $"The outline crosses itself at {crossing.Coordinate.X:0.##}, {-crossing.Coordinate.Y:0.##} of the drawing."));
        if (largest is not { Area: > 0 }) throw new OutlineException("No closed outline was found in this.");
        var box = largest.EnvelopeInternal;
        var size = Math.Max(box.Width, box.Height);
        var drawn = largest;
        for (var error = size / 20_000; drawn.NumPoints > MostCorners || !drawn.IsValid; error *= 2)
        {
            // 0.2 mm on a bed of 200: what needs more is no outline of a plate
            if (error > size / Coarsest) throw new OutlineException(
                $"This outline has {largest.NumPoints} corners and cannot be drawn with {MostCorners}; simplify it where it was drawn.");
            drawn = Plane.Factory.CreatePolygon(Thinning.Of(largest.ExteriorRing.Coordinates, error, stop));
        }
        return new ReadOutline([.. drawn.ExteriorRing.Coordinates.SkipLast(1)
            .Select(c => new[] { Math.Round(c.X - box.MinX, 4), Math.Round(c.Y - box.MinY, 4) })], unit);
    }

    private static Polygon? Area(IReadOnlyList<Coordinate> ring)
    {
        var closed = ring.Where((c, i) => i == 0 || !c.Equals2D(ring[i - 1])).ToList();
        if (!closed[0].Equals2D(closed[^1])) closed.Add(closed[0].Copy());
        return closed.Count >= 4 && Plane.Factory.CreatePolygon([.. closed]) is { EnvelopeInternal.Area: > 0 } polygon ? polygon : null;
    }

    private static IReadOnlyList<Coordinate> Flipped(IReadOnlyList<Coordinate> ring) => [.. ring.Select(c => new Coordinate(c.X, -c.Y))];
}
