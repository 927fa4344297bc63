using MillCard.Core.Slicing.Paths;
using MillCard.Core.Wording;

namespace MillCard.Core.Slicing.Filling;

/// <summary>Hexagonal cells of rows that meander; where two rows meet, two lines lie side by side.</summary>
internal static class Honeycomb
{
    /// <summary>The rows at the density asked for.</summary>
    public static IEnumerable<ToolPath> Fill(FillPlace place) => place.Cut(Rows(place, SideFor(place.Spacing, place.Density)));

    /// <summary>Side of the cells, mm: halved until the share is met.</summary>
    private static double SideFor(double spacing, double density)
    {
        // the share falls as the cells grow; rows that touch hold more than any density asked for
        var (small, large) = (spacing / Math.Sqrt(3), 10 * spacing / density);
        for (var i = 0; i < 60; i++)
        {
            var middle = (small + large) / 2;
            if (ShareAt(middle, spacing) > density) small = middle; else large = middle;
        }
        return large;
    }

    /// <summary>Over two columns a row has two straight walls of side a and two slanted ones between the rows' lines, which keep half a
    /// spacing from the common wall; its area is 3a wide and √3/2·a high.</summary>
    [Formula("Plastic in a honeycomb", "2·s·(a + √(a²/4 + (r − s)²)) / (3·a·r)",
        "Elementary geometry.",
        Where = "a side of a cell, r = a·√3/2, s distance of lines that fill")]
    private static double ShareAt(double side, double spacing)
    {
        var rise = Math.Sqrt(3) / 2 * side;
        return spacing * 2 * (side + Math.Sqrt(side * side / 4 + (rise - spacing) * (rise - spacing))) / (3 * side * rise);
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
