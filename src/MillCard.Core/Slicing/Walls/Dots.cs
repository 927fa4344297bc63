using MillCard.Core.Flow;
using MillCard.Core.Geometry;
using MillCard.Core.Slicing.Paths;
using NetTopologySuite.Geometries;

namespace MillCard.Core.Slicing.Walls;

/// <summary>Drops in holes between lines that are hardly longer than wide: in the middle of what is round, and where several sides
/// meet.</summary>
internal static class Dots
{
    /// <summary>Smaller holes are closed by what lies round them, mm.</summary>
    private const double LeastRadius = 0.05;

    /// <summary>Ways in which room for a stroke is looked for, over half a turn.</summary>
    private const int Ways = 16;

    /// <summary>Between a disc and the square round it: holes are cornered.</summary>
    private const double AreaOfHole = 3.6;

    /// <summary>The drops.</summary>
    /// <param name="polygon">A polygon.</param>
    /// <param name="outline">Of it.</param>
    /// <param name="paths">Lines in it.</param>
    /// <param name="plan">How lines are to be laid.</param>
    public static IEnumerable<ToolPath> Of(Polygon polygon, Outline outline, IReadOnlyList<ToolPath> paths, WallPlan plan)
    {
        if (outline.Middle is { StartPoint: var middle, Length: var room })
            return Drop(new(middle.X, middle.Y), room, outline.Lines[0][0]) is { } one ? [one] : [];
        var (found, drops) = (new List<Point>(), new List<ToolPath>());
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
                if (IsNear(found, at, rib.Radius)
                    || Drop(at, rib.Radius, outline.Lines[ring][i]) is not { } drop) continue;
                found.Add(at);
                drops.Add(drop);
            }
        }
        return drops;

        // in the hole round a point, where there is one that is no wider than a line
        ToolPath? Drop(Point at, double room, int lines)
        {
            var radius = Math.Min(room, Free(at, paths, outline.Beading));
            // what is wider than a line is left to fill, unless one is to lie in the middle or lines stand for fill there
            var most = lines % 2 == 1 || lines > 2 * plan.Count ? plan.Most : plan.Inner;
            if (radius <= LeastRadius || paths.Count > 0 && 2 * radius > most) return null;
            // a stroke as wide as the hole, as long as its plastic asks for, the way where there is most room for it
            var area = paths.Count == 0 ? Beading.Filled(polygon, plan.Height) : AreaOfHole * radius * radius;
            var length = area * plan.Height / ExtrudedLine.Area(2 * radius, plan.Height);
            var (from, to) = paths.Count == 0 ? LongestChord(polygon, at) : (new(at.X - radius, at.Y), new(at.X + radius, at.Y));
            var share = (1 + length / from.To(to)) / 2;
            return new ToolPath(PathKind.Thin, [to.Towards(from, share), from.Towards(to, share)], Closed: false, 2 * radius);
        }
    }

    // apart: within the loop a closure would be made for every rib
    private static bool IsNear(List<Point> found, Point at, double radius) => found.Exists(f => f.To(at) < radius);

    /// <summary>The longest way through a point of a polygon that stays inside.</summary>
    private static (Point From, Point To) LongestChord(Polygon polygon, Point at)
    {
        using var edges = new Edges(polygon);
        var reach = polygon.EnvelopeInternal.Diameter;
        (Point From, Point To) longest = (at, at);
        var shares = new List<double>();
        for (var way = 0; way < Ways; way++)
        {
            var (sine, cosine) = Math.SinCos(Math.PI * way / Ways);
            Point from = new(at.X - reach * cosine, at.Y - reach * sine), to = new(at.X + reach * cosine, at.Y + reach * sine);
            shares.Clear();
            edges.Crossings(from, to, shares);
            // the point itself is half of the way
            var chord = (From: from.Towards(to, shares.Where(s => s <= 0.5).Max()), To: from.Towards(to, shares.Where(s => s > 0.5).Min()));
            if (chord.From.To(chord.To) > longest.From.To(longest.To)) longest = chord;
        }
        return longest;
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
