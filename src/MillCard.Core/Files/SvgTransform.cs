using System.Globalization;
using System.Text.RegularExpressions;
using MillCard.Core.Geometry;
using NetTopologySuite.Geometries;

namespace MillCard.Core.Files;

/// <summary>An affine map of a drawing: x' = a·x + c·y + e, y' = b·x + d·y + f (SVG 1.1, 7.6).</summary>
internal readonly partial record struct SvgTransform(double A, double B, double C, double D, double E, double F)
{
    /// <summary>Nothing is moved.</summary>
    public static SvgTransform None { get; } = new(1, 0, 0, 1, 0, 0);

    /// <summary>A translation.</summary>
    public static SvgTransform Moved(double x, double y) => new(1, 0, 0, 1, x, y);

    /// <summary>What stands in the attribute transform: any number of maps, the last one first applied.</summary>
    /// <exception cref="OutlineException">It is none; the message says what is not understood.</exception>
    public static SvgTransform Of(string text)
    {
        var (whole, at) = (None, 0);
        foreach (Match step in Step().Matches(text))
        {
            if (text.AsSpan(at, step.Index - at).Trim(" ,\n\r\t").Length > 0) throw Unknown(text);
            at = step.Index + step.Length;
            whole = whole.Then(One(step.Groups["name"].Value, step.Groups["values"].Value, text));
        }
        return text.AsSpan(at).Trim(" ,\n\r\t").Length > 0 ? throw Unknown(text) : whole;
    }

    /// <summary>This map after another: the other one is applied first.</summary>
    public SvgTransform Then(SvgTransform inner) => new(A * inner.A + C * inner.B, B * inner.A + D * inner.B, A * inner.C + C * inner.D,
        B * inner.C + D * inner.D, A * inner.E + C * inner.F + E, B * inner.E + D * inner.F + F);

    /// <summary>A point where the map puts it.</summary>
    public Coordinate Apply(Coordinate point) => new(A * point.X + C * point.Y + E, B * point.X + D * point.Y + F);

    private static SvgTransform One(string name, string values, string text)
    {
        double[] v = [.. Number().Matches(values).Select(m => double.Parse(m.ValueSpan, NumberStyles.Float, CultureInfo.InvariantCulture))];
        if (v.Any(x => !(Math.Abs(x) < 1e7))) throw Unknown(text);
        var radians = v.Length > 0 ? v[0] * Math.PI / 180 : 0;
        return (name, v.Length) switch
        {
            ("matrix", 6) => new(v[0], v[1], v[2], v[3], v[4], v[5]),
            ("translate", 1) => Moved(v[0], 0),
            ("translate", 2) => Moved(v[0], v[1]),
            ("scale", 1) => new(v[0], 0, 0, v[0], 0, 0),
            ("scale", 2) => new(v[0], 0, 0, v[1], 0, 0),
            ("rotate", 1) => Turned(radians),
            ("rotate", 3) => Moved(v[1], v[2]).Then(Turned(radians)).Then(Moved(-v[1], -v[2])),
            ("skewX", 1) => new(1, 0, Math.Tan(radians), 1, 0, 0),
            ("skewY", 1) => new(1, Math.Tan(radians), 0, 1, 0, 0),
            _ => throw Unknown(text),
        };
    }

    private static SvgTransform Turned(double radians)
    {
        var (sin, cos) = Math.SinCos(radians);
        return new(cos, sin, -sin, cos, 0, 0);
    }

    private static OutlineException Unknown(string text) =>
        new($"The transform “{(text.Length > 60 ? $"{text[..60]}…" : text)}” is not understood; flatten the shapes where they were drawn.");

    [GeneratedRegex(@"(?<name>[A-Za-z]+)\s*\((?<values>[^()]{0,400})\)", RegexOptions.CultureInvariant)]
    private static partial Regex Step();

    [GeneratedRegex(@"[-+]?(?:\d+\.?\d*|\.\d+)(?:[eE][-+]?\d+)?", RegexOptions.CultureInvariant)]
    private static partial Regex Number();
}
