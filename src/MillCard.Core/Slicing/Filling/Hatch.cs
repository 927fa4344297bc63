using MillCard.Core.Geometry;
using MillCard.Core.Slicing.Paths;
using NetTopologySuite.Geometries;

namespace MillCard.Core.Slicing.Filling;

/// <summary>How neighbouring rows of a hatch are joined.</summary>
public enum Joining
{
    /// <summary>To a zigzag where their ends are near each other.</summary>
    Near,
    /// <summary>To a zigzag wherever the way lies within the area.</summary>
    Far,
    /// <summary>Not at all: all rows run the same way.</summary>
    None,
}

/// <summary>Fills an area with parallel lines: an even-odd scan of its edges, then neighbouring rows joined to a zigzag.</summary>
public static class Hatch
{
    private const double LeastLength = 0.2;

    /// <summary>How far a row lies within a border that runs along it, mm, so that it is sure to cross the area.</summary>
    private const double LeastInside = 1e-4;

    /// <summary>The lines as paths.</summary>
    /// <param name="area">Where the lines' middles may lie.</param>
    /// <param name="angle">Direction of the lines, degrees from X.</param>
    /// <param name="spacing">Distance of the rows, mm. Rows lie at whole multiples of it, so layers match.</param>
    /// <param name="kind">What the lines are for.</param>
    /// <param name="width">Line width, mm.</param>
    /// <param name="phase">By how much all rows are moved sideways, mm.</param>
    /// <param name="joining">How neighbouring rows are joined.</param>
    public static IReadOnlyList<ToolPath> Of(Shape area, double angle, double spacing, PathKind kind, double width, double phase = 0,
        Joining joining = Joining.Near)
    {
        if (area.IsEmpty) return [];
        var frame = new HatchFrame(angle, phase);
        return Laid(area, Scan(area, frame, spacing), frame, spacing, kind, width, joining);
    }

    /// <summary>Lines that fill an area to its borders: rows lie so close to each other that the first and the last of
    /// them meet its borders, and what they leave free along a border that is all but parallel to them gets lines of its own.</summary>
    /// <param name="area">Where the lines' middles may lie.</param>
    /// <param name="angle">Direction of the lines, degrees from X.</param>
    /// <param name="spacing">Usual distance of the rows, mm.</param>
    /// <param name="kind">What the lines are for.</param>
    /// <param name="width">Usual line width, mm.</param>
    /// <param name="least">Least width of a line, mm.</param>
    /// <param name="joining">How neighbouring rows are joined.</param>
    internal static IEnumerable<ToolPath> Full(Polygon area, double angle, double spacing, PathKind kind, double width, double least,
        Joining joining)
    {
        var (low, high) = new HatchFrame(angle, 0).Across(area);
        var room = (high - low + spacing) / Math.Round((high - low + spacing) / spacing);
        // the first row half its room from the border
        var frame = new HatchFrame(angle, low + (room - spacing) / 2 - LeastInside);
        var rows = Scan(area, frame, room);
        return Laid(area, rows, frame, room, kind, width + room - spacing, joining)
            .Concat(Slivers.Of(area, rows, frame, room, width - spacing, least, kind));
    }

    private static IReadOnlyList<ToolPath> Laid(Shape area, SortedDictionary<int, List<(double From, double To)>> rows, HatchFrame frame,
        double spacing, PathKind kind, double width, Joining joining)
    {
        if (rows.Count == 0) return [];
        if (joining == Joining.None) return [.. rows.SelectMany(row =>
            row.Value.Select(piece => new ToolPath(kind,
            [frame.Back(new(piece.From, row.Key * spacing)), frame.Back(new(piece.To, row.Key * spacing))], Closed: false, width)))];
        using var border = new Edges(area);
        return [.. Join(rows, border, frame, spacing, joining == Joining.Far ? double.PositiveInfinity : 2 * spacing)
            .Select(chain => new ToolPath(kind, [.. chain.Way().Select(frame.Back)], Closed: false, width))];
    }

    /// <summary>Pieces of rows within the area, in the turned frame, by row.</summary>
    private static SortedDictionary<int, List<(double From, double To)>> Scan(Shape area, HatchFrame frame, double spacing)
    {
        var crossings = new List<(int Row, double U)>();
        foreach (var ring in Plane.Rings(area)) ScanRing(ring, frame, spacing, crossings);
        crossings.Sort();
        var rows = new SortedDictionary<int, List<(double, double)>>();
        for (var i = 0; i + 1 < crossings.Count; i += 2)
        {
            // every ring is closed, so each row is crossed an even number of times
            if (crossings[i + 1].U - crossings[i].U < LeastLength) continue;
            if (!rows.TryGetValue(crossings[i].Row, out var row)) rows[crossings[i].Row] = row = [];
            row.Add((crossings[i].U, crossings[i + 1].U));
        }
        return rows;
    }

    private static void ScanRing(LineString ring, HatchFrame frame, double spacing, List<(int, double)> crossings)
    {
        var c = ring.CoordinateSequence;
        var (u0, v0) = frame.Turn(c.GetX(0), c.GetY(0));
        for (var i = 1; i < c.Count; i++)
        {
            var (u1, v1) = frame.Turn(c.GetX(i), c.GetY(i));
            // a row at v counts where v0 < v ≤ v1 or v1 < v ≤ v0
            var first = (int)Math.Floor(Math.Min(v0, v1) / spacing) + 1;
            var last = (int)Math.Floor(Math.Max(v0, v1) / spacing);
            for (var row = first; row <= last; row++)
                crossings.Add((row, u0 + (row * spacing - v0) / (v1 - v0) * (u1 - u0)));
            (u0, v0) = (u1, v1);
        }
    }

    private static List<RowChain> Join(SortedDictionary<int, List<(double From, double To)>> rows, Edges border, HatchFrame frame,
        double spacing, double farthest)
    {
        var (chains, open, previous) = (new List<RowChain>(), new List<RowChain>(), int.MinValue);
        foreach (var (row, places) in rows)
        {
            if (row != previous + 1) open.Clear();
            var next = new List<RowChain>();
            foreach (var (from, to) in places)
            {
                var piece = new RowPiece(from, to, row * spacing);
                var (chain, side) = Before(piece);
                if (chain is null) chains.Add(chain = new RowChain(piece));
                else
                {
                    chain.Join(piece, side);
                    open.Remove(chain);
                }
                next.Add(chain);
            }
            (open, previous) = (next, row);
        }
        return chains;

        // it lies beside the other, its near end is not far, and along curved borders the way leaves the area but a little
        bool Follows(RowPiece last, RowPiece piece, int side) => piece.IsBeside(last)
            && Math.Abs(piece.At(side).U - last.At(side).U) <= farthest
            && !border.AreMet(frame.Back(last.At(side).Inside(side)), frame.Back(piece.At(side).Inside(side)));

        (RowChain? Chain, int Side) Before(RowPiece piece)
        {
            foreach (var chain in open)
            {
                if (chain.MayEndOn(1) && Follows(chain.Last, piece, 1)) return (chain, 1);
                if (chain.MayEndOn(-1) && Follows(chain.Last, piece, -1)) return (chain, -1);
            }
            return default;
        }
    }
}
