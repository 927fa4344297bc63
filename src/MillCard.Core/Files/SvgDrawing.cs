using System.Globalization;
using System.Xml;
using System.Xml.Linq;
using MillCard.Core.Geometry;
using NetTopologySuite.Geometries;

namespace MillCard.Core.Files;

/// <summary>Reads the closed rings of an SVG drawing (W3C SVG 1.1): paths and basic shapes with their transforms, in groups, nested
/// drawings and
/// uses. Text, pictures, clips and what is not displayed are left out; what would move or scale shapes in a way that is not read is refused
/// with a
/// sentence.</summary>
internal sealed class SvgDrawing
{
    private const int MostShapes = 20_000;
    private const int MostPoints = 2_000_000;
    private const int Deepest = 64;
    private static readonly string[] NotDrawn = ["defs", "symbol", "clipPath", "mask", "marker", "pattern", "linearGradient",
        "radialGradient",
        "filter", "style", "script", "title", "desc", "metadata", "text", "image", "foreignObject"];

    private readonly Dictionary<string, XElement> _named = [];
    private readonly List<IReadOnlyList<Coordinate>> _rings = [];
    private int _shapes, _points;

    private SvgDrawing(XElement root)
    {
        foreach (var element in root.DescendantsAndSelf())
            if ((string?)element.Attribute("id") is { } id) _named.TryAdd(id, element);
    }

    /// <summary>Its rings, in its own units, Y down, with what it says of its unit in mm.</summary>
    /// <param name="file">The whole file.</param>
    /// <param name="settings">Bounds of the reader.</param>
    /// <exception cref="OutlineException">It cannot be read; the message says why.</exception>
    public static (IReadOnlyList<IReadOnlyList<Coordinate>> Rings, double? MillimetresPerUnit) Read(byte[] file, XmlReaderSettings settings)
    {
        XElement root;
        try
        {
            using var reader = XmlReader.Create(new MemoryStream(file), settings);
            root = XElement.Load(reader);
        }
        catch (XmlException broken)
        {
            throw new OutlineException($"This drawing cannot be read: it is broken at line {broken.LineNumber}.", broken);
        }
        if (root.Name.LocalName != "svg")
            throw new OutlineException($"This is XML, but no drawing: its root is {root.Name.LocalName}, not svg.");
        var drawing = new SvgDrawing(root);
        drawing.Children(root, SvgTransform.None, 0);
        return (drawing._rings, Unit(root));
    }

    private void Children(XElement parent, SvgTransform to, int depth)
    {
        foreach (var child in parent.Elements()) Draw(child, to, depth + 1);
    }

    private void Draw(XElement element, SvgTransform to, int depth)
    {
        if (depth > Deepest) throw new OutlineException($"This drawing nests more than {Deepest} groups and uses in each other.");
        if (++_shapes > MostShapes) throw new OutlineException($"This drawing has more than {MostShapes} shapes; keep the outline alone.");
        var name = element.Name.LocalName;
        if (NotDrawn.Contains(name) || Text(element, "display") == "none" || Style(element, "display") == "none") return;
        if (Style(element, "transform") is not null)
            throw new OutlineException(
                "This drawing moves its shapes by a style sheet (style with transform); write them as the attribute transform.");
        if (Text(element, "transform") is { Length: > 0 } moved) to = to.Then(SvgTransform.Of(moved));
        switch (name)
        {
            case "g" or "a" or "switch": Children(element, to, depth); break;
            case "svg": Nested(element, to, depth); break;
            case "use": Use(element, to, depth); break;
            default:
                foreach (var ring in PathOf(element, name) is { } path ? SvgPath.Rings(path) : [])
                {
                    if ((_points += ring.Count) > MostPoints)
                        throw new OutlineException("This drawing has too many corners; keep the outline alone.");
                    _rings.Add([.. ring.Select(to.Apply)]);
                }
                break;
        }
    }

    private void Nested(XElement element, SvgTransform to, int depth)
    {
        if (element.Attribute("viewBox") is not null)
            throw new OutlineException(
                "This drawing holds another one with a viewBox of its own, which would be scaled; flatten it where it was drawn.");
        Children(element, to.Then(SvgTransform.Moved(Number(element, "x"), Number(element, "y"))), depth);
    }

    private void Use(XElement element, SvgTransform to, int depth)
    {
        var link = element.Attributes().FirstOrDefault(a => a.Name.LocalName == "href")?.Value ?? "";
        if (!link.StartsWith('#')) throw new OutlineException(
            $"This drawing takes a shape from another file (“{Short(link)}”); put it into the drawing itself.");
        if (!_named.TryGetValue(link[1..], out var used))
            throw new OutlineException($"This drawing uses “{Short(link[1..])}”, which is not in it.");
        to = to.Then(SvgTransform.Moved(Number(element, "x"), Number(element, "y")));
        if (used.Name.LocalName != "symbol") { Draw(used, to, depth + 1); return; }
        if (used.Attribute("viewBox") is not null)
            throw new OutlineException(
                "This drawing uses a symbol with a viewBox of its own, which would be scaled; flatten it where it was drawn.");
        Children(used, to, depth + 1);
    }

    /// <summary>A basic shape as path data (SVG 1.1, chapter 9); null for what draws no ring.</summary>
    private static string? PathOf(XElement element, string name)
    {
        double Of(string attribute) => Number(element, attribute);
        return name switch
        {
            "path" => Text(element, "d"),
            "polygon" or "polyline" => Text(element, "points") is { Length: > 0 } points ? $"M{points}Z" : null,
            "circle" => Ellipse(Of("cx"), Of("cy"), Of("r"), Of("r")),
            "ellipse" => Ellipse(Of("cx"), Of("cy"), Of("rx"), Of("ry")),
            "rect" => Rectangle(Of("x"), Of("y"), Of("width"), Of("height"), Radius(element, "rx"), Radius(element, "ry")),
            _ => null,
        };
    }

    private static string? Ellipse(double cx, double cy, double rx, double ry) => rx <= 0 || ry <= 0 ? null
        : Invariant($"M{cx - rx} {cy}A{rx} {ry} 0 1 1 {cx + rx} {cy}A{rx} {ry} 0 1 1 {cx - rx} {cy}Z");

    /// <summary>One radius stands for both, and none is larger than half a side (SVG 1.1, 9.2).</summary>
    private static string? Rectangle(double x, double y, double width, double height, double? radiusX, double? radiusY)
    {
        if (width <= 0 || height <= 0) return null;
        var rx = Math.Min(radiusX ?? radiusY ?? 0, width / 2);
        var ry = Math.Min(radiusY ?? radiusX ?? 0, height / 2);
        return rx <= 0 || ry <= 0 ? Invariant($"M{x} {y}h{width}v{height}h{-width}Z")
            : Invariant($"M{x + rx} {y}H{x + width - rx}A{rx} {ry} 0 0 1 {x + width} {y + ry}V{y + height - ry}")
                + Invariant(
                    $"A{rx} {ry} 0 0 1 {x + width - rx} {y + height}H{x + rx}A{rx} {ry} 0 0 1 {x} {y + height - ry}")
                + Invariant($"V{y + ry}A{rx} {ry} 0 0 1 {x + rx} {y}Z");
    }

    private static double? Radius(XElement element, string name) => Text(element, name) is null or "auto" ? null : Number(element, name);

    private static double Number(XElement element, string name)
    {
        if (Text(element, name) is not { } text) return 0;
        if (text.EndsWith("px", StringComparison.Ordinal)) text = text[..^2];
        return double.TryParse(text, NumberStyles.Float, CultureInfo.InvariantCulture, out var value) && Math.Abs(value) < 1e7 ? value
            : throw new OutlineException($"A {element.Name.LocalName} of this drawing has {name} “{Short(text)}”; lengths "
                + $"within a drawing are read as plain numbers.");
    }

    private static string? Text(XElement element, string name) => ((string?)element.Attribute(name))?.Trim();

    private static string? Style(XElement element, string name) => Text(element, "style")?.Split(';')
        .Select(rule => rule.Split(':', 2)).FirstOrDefault(rule => rule.Length == 2 && rule[0].Trim() == name)?[1].Trim();

    private static string Short(string text) => text.Length > 40 ? $"{text[..40]}…" : text;

    private static double? Unit(XElement svg)
    {
        var (width, box) = (Text(svg, "width"), Text(svg, "viewBox"));
        if (width is null || box?.Split([' ', ',', '\n', '\t'], StringSplitOptions.RemoveEmptyEntries) is not [_, _, var units, _])
            return null;
        foreach (var (suffix, factor) in new[] { ("mm", 1.0), ("cm", 10.0), ("in", 25.4) })
            if (width.EndsWith(suffix, StringComparison.Ordinal)
                && double.TryParse(width[..^suffix.Length], CultureInfo.InvariantCulture, out var size)
                && double.TryParse(units, CultureInfo.InvariantCulture, out var of) && of > 0)
                return size * factor / of;
        return null;
    }
}
