using MillCard.Core.Geometry;
using MillCard.Core.Slicing.Paths;
using NetTopologySuite.Geometries;
using NetTopologySuite.Geometries.Prepared;

namespace MillCard.Core.Slicing.Filling;

/// <summary>Lines that hang between two banks, laid across the shorter way.</summary>
internal static class Bridges
{
    private const int StepDegrees = 10;
    private const double Anchored = 0.6;

    /// <summary>A bridge: where its lines lie, and their direction.</summary>
    /// <param name="Area">mm, the banks it is anchored on included.</param>
    /// <param name="Angle">Degrees from X.</param>
    /// <param name="Span">Mean free length of its lines, mm.</param>
    public sealed record Bridge(Shape Area, double Angle, double Span);

    /// <summary>The bridges of a layer.</summary>
    /// <param name="inside">Where the layer's fill may lie.</param>
    /// <param name="below">The cross-section of the layer below.</param>
    /// <param name="width">Line width, mm.</param>
    public static IEnumerable<Bridge> Of(Shape inside, Shape below, double width)
    {
        var bare = Plane.Difference(inside, below);
        if (bare.Area < 4 * width * width) yield break;
        bare = Plane.Opened(bare, width / 2);
        foreach (var free in Plane.Polygons(bare))
        {
            if (free.Area < 4 * width * width) continue;
            // as far as the walls let it, it lies on its banks
            var area = Plane.Intersection(Plane.Offset(free, 3 * width), inside);
            if (Best(free, below, width) is { } best) yield return new Bridge(area, best.Angle, best.Span);
        }
    }

    /// <summary>The direction in which most of the way is held at both ends; of equals the one with the shortest spans.</summary>
    private static (double Angle, double Span)? Best(Polygon free, Shape below, double width)
    {
        var banks = PreparedGeometryFactory.Prepare(below);
        (double Angle, double Span, double Held)? best = null;
        for (var angle = 0; angle < 180; angle += StepDegrees)
        {
            var (held, all, spans) = (0.0, 0.0, 0);
            foreach (var line in Hatch.Of(free, angle, Math.Max(width, Math.Sqrt(free.Area) / 20), PathKind.Bridge, width,
                joining: Joining.None))
            {
                var (from, to) = (line.Points[0], line.Points[^1]);
                var length = from.To(to);
                all += length;
                if (!OnBank(from, to, -1) || !OnBank(to, from, -1)) continue;
                held += length;
                spans++;
                bool OnBank(Point end, Point other, double side)
                {
                    var reach = side * 1.5 * width / length;
                    return banks.Contains(
                        Plane.Factory.CreatePoint(new Coordinate(end.X + (other.X - end.X) * reach, end.Y + (other.Y - end.Y) * reach)));
                }
            }
            if (spans == 0 || all == 0 || held / all < Anchored) continue;
            var (share, span) = (Math.Round(held / all, 1), held / spans);
            if (best is null || share > best.Value.Held || share == best.Value.Held && span < best.Value.Span - 1e-6)
                best = (angle, span, share);
        }
        return best is { } found ? (found.Angle, found.Span) : null;
    }
}
