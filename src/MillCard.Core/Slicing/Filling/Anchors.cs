using MillCard.Core.Slicing.Paths;

namespace MillCard.Core.Slicing.Filling;

/// <summary>Ends of rows that run on along the wall for a while instead of to the next row.</summary>
internal static class Anchors
{
    /// <summary>The zigzag in pieces: joins of at most two anchors stay, of longer ones each row keeps an anchor.</summary>
    /// <param name="zigzag">Rows, each of two points, one after the other.</param>
    /// <param name="length">Of an anchor, mm; 0 for rows that end at the wall.</param>
    public static IEnumerable<ToolPath> Of(ToolPath zigzag, double length)
    {
        var points = new List<Point> { zigzag.Points[0], zigzag.Points[1] };
        for (var row = 2; row < zigzag.Points.Length; row += 2)
        {
            var (end, next) = (zigzag.Points[row - 1], zigzag.Points[row]);
            var join = end.To(next);
            if (join > 2 * length)
            {
                if (length > 0) points.Add(end.Towards(next, length / join));
                yield return zigzag with { Points = [.. points] };
                points.Clear();
                if (length > 0) points.Add(next.Towards(end, length / join));
            }
            points.Add(next);
            points.Add(zigzag.Points[row + 1]);
        }
        yield return zigzag with { Points = [.. points] };
    }
}
