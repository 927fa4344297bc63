using MillCard.Core.Geometry;
using MillCard.Core.Slicing.Paths;
using MillCard.Core.Slicing.Walls;

namespace MillCard.Core.Slicing.Filling;

/// <summary>Rings along the contour.</summary>
internal static class Concentric
{
    /// <summary>From the outside in.</summary>
    public static IEnumerable<ToolPath> Fill(FillPlace place)
    {
        var distance = place.Spacing / place.Density;
        for (var area = Plane.Offset(place.Area, -(distance - place.Spacing) / 2); !area.IsEmpty; area = Plane.Offset(area, -distance))
            foreach (var ring in WallLines.Rings(area, PathKind.Infill, place.Width)) yield return ring;
    }
}
