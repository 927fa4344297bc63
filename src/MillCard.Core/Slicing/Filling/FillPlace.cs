using MillCard.Core.Slicing.Paths;
using MillCard.Core.Slicing.Sections;

namespace MillCard.Core.Slicing.Filling;

/// <summary>Where and how densely an infill is laid.</summary>
/// <param name="Area">Where the lines' middles may lie.</param>
/// <param name="NearSkin">The part of it that lies near the part's skin.</param>
/// <param name="Layer">Number of the layer, counted from 0.</param>
/// <param name="Z">Middle of the layer, mm.</param>
/// <param name="Spacing">Distance at which lines just fill, mm.</param>
/// <param name="Density">Share of the volume, above 0 and below 1.</param>
/// <param name="Width">Line width, mm.</param>
/// <param name="Angle">Direction of straight lines, degrees from X.</param>
/// <param name="Anchor">How far straight lines run on along the wall at their ends, mm; they are joined where nothing is said.</param>
internal sealed record FillPlace(Shape Area, Func<Shape> NearSkin, int Layer, double Z, double Spacing, double Density, double Width,
    double Angle, double? Anchor)
{
    /// <summary>Parallel lines.</summary>
    public IEnumerable<ToolPath> Rows(double angle, double spacing, double phase = 0) => Rows(Area, angle, spacing, phase);

    /// <summary>Parallel lines in a part of the area.</summary>
    public IEnumerable<ToolPath> Rows(Shape area, double angle, double spacing, double phase = 0)
    {
        var joined = Hatch.Of(area, angle, spacing, PathKind.Infill, Width, phase);
        return Anchor is { } length ? joined.SelectMany(path => Anchors.Of(path, length)) : joined;
    }

    /// <summary>Curves cut to the area.</summary>
    public IEnumerable<ToolPath> Cut(IEnumerable<IReadOnlyList<Point>> curves)
    {
        using var clip = new Clip(Area);
        foreach (var curve in curves)
            foreach (var points in clip.Of(curve)) yield return new ToolPath(PathKind.Infill, points, Closed: false, Width);
    }
}
