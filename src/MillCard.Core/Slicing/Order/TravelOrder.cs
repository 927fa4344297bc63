using MillCard.Core.Slicing.Paths;

namespace MillCard.Core.Slicing.Order;

/// <summary>The order of paths by nearest next, deterministic.</summary>
internal static class TravelOrder
{
    /// <summary>Paths so that each begins near where the last ended; closed ones begin at their nearest corner unless they keep their
    /// seams, open ones may run backwards.</summary>
    public static IEnumerable<ToolPath> Of(IReadOnlyList<ToolPath> paths, Point start, bool keepSeams = false)
    {
        var left = new List<ToolPath>(paths);
        var here = start;
        while (left.Count > 0)
        {
            var (best, corner, least) = (0, 0, double.MaxValue);
            for (var i = 0; i < left.Count && least > 0; i++)
            {
                var points = left[i].Points;
                if (left[i].Closed && !keepSeams)
                {
                    for (var k = 0; k < points.Length; k++) Try(i, k, points[k]);
                }
                else
                {
                    Try(i, 0, points[0]);
                    if (!left[i].Closed) Try(i, points.Length - 1, points[^1]);
                }
            }
            var next = left[best].From(corner);
            left.RemoveAt(best);
            here = next.End;
            yield return next;

            void Try(int path, int at, Point point)
            {
                var (dx, dy) = (point.X - here.X, point.Y - here.Y);
                if (dx * dx + dy * dy is var d && d < least) (best, corner, least) = (path, at, d);
            }
        }
    }
}
