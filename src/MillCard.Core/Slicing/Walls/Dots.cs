using MillCard.Core.Flow;
using MillCard.Core.Slicing.Paths;
using NetTopologySuite.Geometries;

namespace MillCard.Core.Slicing.Walls;

/// <summary>Drops in holes between lines that are hardly longer than wide: in the middle of what is round, and where several sides
/// meet.</summary>
internal static class Dots
{
    /// <summary>Smaller holes are closed by what lies round them, mm.</summary>
    private const double LeastRadius = 0.05;

    /// <summary>Between a disc and the square round it: holes are cornered.</summary>
    private const double AreaOfHole = 3.6;

    /// <summary>The drops.</summary>
    /// <param name="polygon">A polygon.</param>
    /// <param name="outline">Of it.</param>
    /// <param name="paths">Lines in it.</param>
    /// <param name="plan">How lines are to be laid.</param>
    public static IEnumerable<ToolPath> Of(Polygon polygon, Outline outline, IReadOnlyList<ToolPath> paths, WallPlan plan)
    {
        var found = new List<Point>();
        for (var ring = 0; ring < outline.Ribs.Length; ring++)
        {
            var ribs = outline.Ribs[ring];
            for (var i = 0; i < ribs.Length; i++)
            {
                var (before, rib, next) = (ribs[(i + ribs.Length - 1) % ribs.Length], ribs[i], ribs[(i + 1) % ribs.Length]);
                // where there is most room: not before a corner, nor all along a middle of even thickness
                if (outline.Lines[ring][i] == 0 || outline.IsWide(ring, i) || 2 * rib.Radius < 0.99 * outline.Thickness[ring][i]
                    || rib.Radius < before.Radius || rib.Radius < next.Radius || rib.Faces && rib.Radius == before.Radius) continue;
                var at = rib.At(rib.Radius);
                if (found.Exists(f => f.To(at) < rib.Radius)) continue;
                var radius = Math.Min(rib.Radius, Free(at, paths, outline.Beading));
                // what is wider than a line is left to fill, unless lines stand for fill there
                var most = outline.Lines[ring][i] > 2 * plan.Count ? plan.Most : plan.Inner;
                if (radius <= LeastRadius || paths.Count > 0 && 2 * radius > most) continue;
                found.Add(at);
                // a stroke as wide as the hole, as long as its plastic asks for
                var area = paths.Count == 0 ? outline.Beading.Filled(polygon) : AreaOfHole * radius * radius;
                var reach = area * plan.Height / ExtrudedLine.Area(2 * radius, plan.Height) / 2;
                var box = polygon.EnvelopeInternal;
                var (x, y) = box.Width >= box.Height ? (reach, 0.0) : (0.0, reach);
                yield return new ToolPath(PathKind.Thin, [new Point(at.X - x, at.Y - y), new Point(at.X + x, at.Y + y)], Closed: false,
                    2 * radius);
            }
        }
    }

    /// <summary>How far lines stay away from a point, mm.</summary>
    private static double Free(Point at, IReadOnlyList<ToolPath> paths, Beading beading)
    {
        var least = double.PositiveInfinity;
        foreach (var path in paths)
            for (var i = 1; i < path.Points.Length + (path.Closed ? 1 : 0); i++)
            {
                var (a, b) = (path.Points[i - 1], path.Points[i % path.Points.Length]);
                var t = a.NearestShare(b, at);
                var width = path.Widths is { } w ? w[i - 1] + t * (w[i % w.Length] - w[i - 1]) : path.Width;
                least = Math.Min(least, at.To(a.Towards(b, t)) - beading.RoomOf(width) / 2);
            }
        return least;
    }
}
