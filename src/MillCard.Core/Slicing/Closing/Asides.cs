using MillCard.Core.Slicing.Paths;

namespace MillCard.Core.Slicing.Closing;

/// <summary>Lines led aside on their way.</summary>
internal static class Asides
{
    /// <summary>A line led aside at some places: on from its ends, elsewhere there and back.</summary>
    /// <param name="path">The line, without paces.</param>
    /// <param name="ways">At least one: a place on it, as <see cref="ToolPath.At"/> counts them, and where it is led from there.</param>
    public static ToolPath Aside(this ToolPath path, IEnumerable<(double Place, Point To)> ways)
    {
        var (points, widths, n, next) = (new List<Point>(), new List<double>(), path.Points.Length, 0);
        var sorted = ways.Select(way => path.Closed && way.Place >= n ? way with { Place = 0 } : way).OrderBy(way => way.Place).ToArray();
        for (var i = 0; i < n; i++)
        {
            Add(i, path.Points[i]);
            for (; next < sorted.Length && sorted[next].Place < i + 1; next++)
            {
                var (place, to) = sorted[next];
                var here = path.At(place).Point;
                if (place > i) Add(place, here);
                Add(place, to);
                Add(place, here);
            }
        }
        var first = !path.Closed && sorted[0].Place == 0 ? 1 : 0;
        var count = points.Count - first - (!path.Closed && sorted[^1].Place == n - 1 ? 1 : 0);
        return path with
        {
            Points = [.. points.GetRange(first, count)],
            Widths = path.Widths is null ? null : [.. widths.GetRange(first, count)],
        };

        void Add(double place, Point point)
        {
            points.Add(point);
            widths.Add(path.At(place).Width);
        }
    }
}
