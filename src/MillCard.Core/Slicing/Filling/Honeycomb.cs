namespace MillCard.Core.Slicing.Filling;

/// <summary>Hexagonal cells of rows that meander; where two rows meet, two lines lie side by side.</summary>
internal static class Honeycomb
{
    /// <summary>A cell of side a has 3√3/2·a² of area and, one wall in three being double, 4·a of line.</summary>
    public static IEnumerable<ToolPath> Fill(FillPlace place)
    {
        var side = 4 / (1.5 * Math.Sqrt(3)) * place.Spacing / place.Density;
        return place.Cut(Rows(place, side));
    }

    private static IEnumerable<IReadOnlyList<Point>> Rows(FillPlace place, double side)
    {
        var box = place.Area.EnvelopeInternal;
        var (step, rise, half) = (1.5 * side, Math.Sqrt(3) / 2 * side, place.Spacing / 2);
        var (first, last) = ((int)Math.Floor(box.MinX / step) - 1, (int)Math.Ceiling(box.MaxX / step) + 1);
        for (var row = (int)Math.Floor(box.MinY / rise) - 1; row <= (int)Math.Ceiling(box.MaxY / rise) + 1; row++)
        {
            var points = new List<Point>();
            for (var column = first; column <= last; column++)
            {
                // up on every other column; the neighbour row comes down there, and the two keep half a spacing from the common wall
                var up = ((column + row) % 2 + 2) % 2 == 0;
                var y = row * rise + (up ? rise / 2 - half : -(rise / 2 - half));
                points.Add(new Point(column * step - side / 2, y));
                points.Add(new Point(column * step + side / 2, y));
            }
            yield return points;
        }
    }
}
