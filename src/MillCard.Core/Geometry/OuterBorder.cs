namespace MillCard.Core.Geometry;

/// <summary>The outline of what borders enclose that may cross each other as they like: points whose winding number is not 0.</summary>
/// <remarks>Every piece between two crossings belongs to the outline where the winding number is 0 on one side of it alone. The number is
/// reckoned from the middle of the piece's cell, so that only what passes the cell counts: the work is that of the pieces as long as few
/// lie in a cell.</remarks>
internal static class OuterBorder
{
    private const int Attempts = 4;

    /// <summary>Cells that more pieces pass are parted, so that the work stays that of the pieces wherever they crowd.</summary>
    private const int Crowd = 64;

    /// <summary>Corners beyond which only crossings are looked for, not all that can be wrong with areas.</summary>
    private const int Large = 20_000;

    /// <summary>The areas; null where too many pieces lie in the same place, or where rounding left gaps in the outline.</summary>
    /// <param name="border">Closed as a whole.</param>
    /// <param name="certain">What it surely encloses: nothing in there is looked at. Null where that is not known.</param>
    /// <param name="stop">Ends the computation.</param>
    public static Shape? Enclosed(IReadOnlyList<DirectedSegment> border, CertainCells? certain, CancellationToken stop)
    {
        // what is sure has a border of its own, so that every piece is broken where it comes out
        var edges = Noding.Of(certain is null ? border : [.. border, .. certain.Border()], certain, stop);
        for (var attempt = 0; attempt < Attempts && edges is not null; attempt++)
        {
            if (edges.Count < 3) return Plane.Empty;
            var outer = Outer(edges, certain, stop);
            if (LinkedRings.Areas(outer, stop) is { } areas && !Cross(outer, stop) && (areas.NumPoints > Large || areas.IsValid))
                return areas;
            edges = Noding.Again(edges, certain, stop);
        }
        return null;
    }

    /// <summary>Whether pieces of an outline cross each other, after all: rounded, those that come very close may.</summary>
    private static bool Cross(List<NodedEdge> outer, CancellationToken stop) =>
        Noding.Again(outer, certain: null, stop) is not { } again || again.Count != outer.Count;

    private static List<NodedEdge> Outer(List<NodedEdge> edges, CertainCells? certain, CancellationToken stop)
    {
        DirectedSegment[] segments = [.. edges.Select(e => e.Segment)];
        var cells = new SegmentCells(segments, stop);
        var numbers = Numbers(edges, segments, cells, stop);
        var (outer, crowded) = (new List<NodedEdge>(), new Dictionary<int, CrowdedCell>());
        for (var i = 0; i < segments.Length; i++)
        {
            if (i % 4096 == 0) stop.ThrowIfCancellationRequested();
            var s = segments[i];
            var (x, y) = ((s.X0 + s.X1) / 2, (s.Y0 + s.Y1) / 2);
            if (certain?.Holds(x, y, x, y) == true) continue;
            var cell = cells.CellOf(x, y);
            var (from, number) = (cells.Middle(cell), numbers[cell]);
            if (cells.In(cell).Length > Crowd)
            {
                if (!crowded.TryGetValue(cell, out var parted)) crowded[cell] = parted = new(edges, segments, cells, cell, number);
                (from, number) = parted.NumberAt(x, y, i);
            }
            else foreach (var k in cells.In(cell)) if (k != i) number += segments[k].Across(from, (x, y)) * edges[k].Times;
            var right = s.Side(from.X, from.Y) > 0 ? number - edges[i].Times : number;
            var left = right + edges[i].Times;
            // turned round where the area lies to the right
            if (right == 0 != (left == 0)) outer.Add(right == 0 ? edges[i] : new(edges[i].To, edges[i].From, edges[i].Times));
        }
        return outer;
    }

    /// <summary>The winding number in the middle of every cell.</summary>
    private static int[] Numbers(List<NodedEdge> edges, DirectedSegment[] segments, SegmentCells cells, CancellationToken stop)
    {
        var crossed = new List<(double X, int By)>[cells.Rows];
        for (var row = 0; row < cells.Rows; row++) crossed[row] = [];
        for (var i = 0; i < segments.Length; i++)
        {
            var s = segments[i];
            var (low, high) = (Math.Min(s.Y0, s.Y1), Math.Max(s.Y0, s.Y1));
            for (int row = cells.CellOf(0, low) / cells.Columns, last = cells.CellOf(0, high) / cells.Columns; row <= last; row++)
            {
                var y = cells.Middle(row * cells.Columns).Y;
                // what goes down has its area to the right of it
                if (s.Y0 <= y != s.Y1 <= y)
                    crossed[row].Add((s.X0 + (y - s.Y0) / (s.Y1 - s.Y0) * (s.X1 - s.X0), s.Y1 < s.Y0 ? edges[i].Times : -edges[i].Times));
            }
        }
        var numbers = new int[cells.Count];
        for (var row = 0; row < cells.Rows; row++)
        {
            stop.ThrowIfCancellationRequested();
            crossed[row].Sort((a, b) => a.X.CompareTo(b.X));
            for (var (column, i, number) = (0, 0, 0); column < cells.Columns; column++)
            {
                var cell = row * cells.Columns + column;
                while (i < crossed[row].Count && crossed[row][i].X <= cells.Middle(cell).X) number += crossed[row][i++].By;
                numbers[cell] = number;
            }
        }
        return numbers;
    }
}
