using MillCard.Core.Flow;
using MillCard.Core.Geometry;
using MillCard.Core.Slicing.Paths;
using MillCard.Core.Slicing.Walls;
using NetTopologySuite.Geometries;

namespace MillCard.Core.Slicing.Filling;

/// <summary>Fills an area wholly: rows where it is wide, lines along its border where it is but a strip, in which rows would be all
/// turns.</summary>
/// <param name="Angle">Direction of the rows, degrees from X.</param>
/// <param name="Width">Usual line width, mm.</param>
/// <param name="Height">Of the layer, mm.</param>
/// <param name="Least">Least width of a line, mm; null where all are to be as wide as usual.</param>
/// <param name="Most">Greatest width of a line, mm.</param>
internal sealed record SolidFill(double Angle, double Width, double Height, double? Least, double Most)
{
    /// <summary>A strip is no wider than so many lines beside the one that has its middle in it.</summary>
    private const double Strip = 4;

    /// <summary>Lines that may lie across a strip, beside one on each side.</summary>
    private const int Between = 4;

    private const int Chords = 4;

    /// <summary>How far outside the area the walls lie, mm.</summary>
    private double Beside => ((1 - WallLines.Lap) * Spacing + Width - Spacing) / 2;

    private double Spacing => ExtrudedLine.Spacing(Width, Height);

    /// <summary>The lines.</summary>
    /// <param name="area">Where their middles may lie.</param>
    /// <param name="kind">What they are for.</param>
    /// <param name="joining">How neighbouring rows are joined.</param>
    public IReadOnlyList<ToolPath> Of(Shape area, PathKind kind, Joining joining = Joining.Near)
    {
        if (Least is not { } least) return Hatch.Of(area, Angle, Spacing, kind, Width, joining: joining);
        var (strips, wide) = (new List<Polygon>(), new List<Polygon>());
        foreach (var polygon in Plane.Polygons(area)) (IsStrip(polygon) ? strips : wide).Add(polygon);
        return
        [
            .. strips.SelectMany(strip => Along(strip, kind, least)),
            .. wide.SelectMany(polygon => Rows(polygon, kind, least, joining)),
        ];
    }

    private IEnumerable<ToolPath> Rows(Polygon area, PathKind kind, double least, Joining joining) =>
        Hatch.Full(area, Angle, Spacing, kind, Width, least, joining);

    private bool IsStrip(Polygon polygon) =>
        // no disc in it is greater than its area over half of its border
        polygon.Area < Strip / 2 * Spacing * polygon.Length && Plane.Offset(polygon, -Strip / 2 * Spacing).IsEmpty;

    private IEnumerable<ToolPath> Along(Polygon strip, PathKind kind, double least)
    {
        // up to the walls, and half of the round sides more, which lines reckon to stand free
        var room = Plane.Offset(strip, Beside, Chords);
        var lines = WallLines.Of(room, new(1, Width, Width, Height, Between, least, Most, Varying: true));
        // where several arms meet there may be room left
        return lines.Walls.SelectMany(wall => wall).Concat(lines.Thin).Select(path => path with { Kind = kind })
            .Concat(Plane.Polygons(lines.Inside).SelectMany(left => Rows(left, kind, least, Joining.Near)));
    }
}
