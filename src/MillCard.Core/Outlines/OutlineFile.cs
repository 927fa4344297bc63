using System.Globalization;
using System.Text;
using System.Xml;
using MillCard.Core.Geometry;
using MillCard.Core.Meshes;
using NetTopologySuite.Geometries;

namespace MillCard.Core.Outlines;

/// <summary>An outline read from a drawing or a mesh.</summary>
/// <param name="Points">Corners [x, y], Y up, the front-left corner of the bounding box at (0, 0), in the file's own unit.</param>
/// <param name="MillimetresPerUnit">What the file itself says of its unit; null where it says nothing.</param>
public sealed record ReadOutline(double[][] Points, double? MillimetresPerUnit)
{
    /// <summary>Size along X and Y, in the file's own unit.</summary>
    public double[] Size => [Points.Max(p => p[0]), Points.Max(p => p[1])];
}

/// <summary>Takes the outline of a plate from SVG path data, an SVG drawing, or an STL mesh seen from above. The largest ring counts.</summary>
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
        var footprints = new Reach.Footprints(Stl.Read(file, stop));
        return OfRings(Plane.Polygons(footprints.Whole).Select(p => (IReadOnlyList<Coordinate>)p.ExteriorRing.Coordinates), 1, stop);
    }

    private static ReadOutline OfDrawing(byte[] file, CancellationToken stop)
    {
        var rings = new List<IReadOnlyList<Coordinate>>();
        double? unit = null;
        var settings = new XmlReaderSettings { DtdProcessing = DtdProcessing.Prohibit, XmlResolver = null, MaxCharactersInDocument = MostCharacters };
        try
        {
            using var reader = XmlReader.Create(new MemoryStream(file), settings);
            while (reader.Read())
            {
                if (reader.NodeType != XmlNodeType.Element) continue;
                if (reader.LocalName == "svg") unit ??= Unit(reader);
                if (reader.GetAttribute("transform") is { Length: > 0 } && reader.LocalName is "g" or "path" or "polygon" or "rect")
                    throw new OutlineException("This drawing moves or scales its shapes (transform); flatten them where it was drawn, or paste the path alone.");
                if (reader.LocalName == "path" && reader.GetAttribute("d") is { } data) rings.AddRange(SvgPath.Rings(data).Select(Flipped));
                if (reader.LocalName == "polygon" && reader.GetAttribute("points") is { } points) rings.AddRange(SvgPath.Rings("M" + points).Select(Flipped));
                if (reader.LocalName == "rect") rings.AddRange(SvgPath.Rings($"M{reader.GetAttribute("x") ?? "0"},{reader.GetAttribute("y") ?? "0"}h{reader.GetAttribute("width")}v{reader.GetAttribute("height")}h-{reader.GetAttribute("width")}z").Select(Flipped));
            }
        }
        catch (XmlException broken)
        {
            throw new OutlineException($"This drawing cannot be read: it is broken at line {broken.LineNumber}.", broken);
        }
        return OfRings(rings, unit, stop);
    }

    private static double? Unit(XmlReader svg)
    {
        var (width, box) = (svg.GetAttribute("width"), svg.GetAttribute("viewBox"));
        if (width is null || box?.Split([' ', ','], StringSplitOptions.RemoveEmptyEntries) is not [_, _, var units, _]) return null;
        foreach (var (suffix, factor) in new[] { ("mm", 1.0), ("cm", 10.0), ("in", 25.4) })
            if (width.EndsWith(suffix, StringComparison.Ordinal)
                && double.TryParse(width[..^suffix.Length], CultureInfo.InvariantCulture, out var size) && double.TryParse(units, CultureInfo.InvariantCulture, out var of) && of > 0)
                return size * factor / of;
        return null;
    }

    private static ReadOutline OfRings(IEnumerable<IReadOnlyList<Coordinate>> rings, double? unit, CancellationToken stop)
    {
        var largest = rings.Select(Area).OfType<Polygon>().MaxBy(p => p.Area) ?? throw new OutlineException("No closed outline was found in this.");
        if (!largest.IsValid) throw new OutlineException("The outline crosses itself.");
        var box = largest.EnvelopeInternal;
        var size = Math.Max(box.Width, box.Height);
        var drawn = largest;
        for (var error = size / 20_000; drawn.NumPoints > MostCorners || !drawn.IsValid; error *= 2)
        {
            // 0.2 mm on a bed of 200: what needs more is no outline of a plate
            if (error > size / Coarsest) throw new OutlineException($"This outline has {largest.NumPoints} corners and cannot be drawn with {MostCorners}; simplify it where it was drawn.");
            drawn = Plane.Factory.CreatePolygon(Thinning.Of(largest.ExteriorRing.Coordinates, error, stop));
        }
        return new ReadOutline([.. drawn.ExteriorRing.Coordinates.SkipLast(1).Select(c => new[] { Math.Round(c.X - box.MinX, 4), Math.Round(c.Y - box.MinY, 4) })], unit);
    }

    private static Polygon? Area(IReadOnlyList<Coordinate> ring)
    {
        var closed = ring.Where((c, i) => i == 0 || !c.Equals2D(ring[i - 1])).ToList();
        if (!closed[0].Equals2D(closed[^1])) closed.Add(closed[0].Copy());
        return closed.Count < 4 ? null : Plane.Factory.CreatePolygon([.. closed]) is { Area: > 0 } polygon ? polygon : null;
    }

    private static IReadOnlyList<Coordinate> Flipped(IReadOnlyList<Coordinate> ring) => [.. ring.Select(c => new Coordinate(c.X, -c.Y))];
}
