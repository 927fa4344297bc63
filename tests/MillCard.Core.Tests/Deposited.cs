namespace MillCard.Core.Tests;

/// <summary>What a program lays on one layer, read from its text alone: every move that feeds is a stadium as wide as its plastic asks for
/// at the layer's height.</summary>
internal sealed class Deposited
{
    private readonly List<(ReadMove Move, int Run, double Area)> _lines = [];
    private readonly double _height;

    /// <param name="moves">Of the program.</param>
    /// <param name="top">Top of the layer, mm.</param>
    /// <param name="height">Of the layer, mm.</param>
    /// <param name="filament">Diameter, mm.</param>
    public Deposited(IEnumerable<ReadMove> moves, double top, double height, double filament)
    {
        _height = height;
        var run = 0;
        foreach (var move in moves.Where(m => m.Fed > 0 && m.Length > 0 && Math.Abs(m.Z - top) < 1e-6))
        {
            // a line goes on from where it ended, or from where it began its last move, back over it
            if (_lines.Count > 0 && _lines[^1].Move is var last && last.To.To(move.From) > 1e-6 && last.From.To(move.From) > 1e-6) run++;
            _lines.Add((move, run, move.Fed * Math.PI * filament * filament / 4 / move.Length));
        }
    }

    /// <summary>Plastic on the layer, mm³.</summary>
    public double Plastic => _lines.Sum(l => l.Area * l.Move.Length);

    /// <summary>How many lines, each a run of moves without a gap, lie on each cell.</summary>
    /// <param name="raster">Where.</param>
    /// <param name="square">Whether lines are as wide as their plastic between upright sides, instead of with round sides.</param>
    public byte[] On(Raster raster, bool square = false)
    {
        var (counts, last) = (new byte[raster.Count], new int[raster.Count]);
        foreach (var (move, run, area) in _lines)
        {
            var width = area / _height + (square ? 0 : (1 - Math.PI / 4) * _height);
            var (from, dx, dy) = (move.From, move.To.X - move.From.X, move.To.Y - move.From.Y);
            var (r, square2) = (width / 2, dx * dx + dy * dy);
            for (var row = raster.Row(Math.Min(from.Y, move.To.Y) - r); row <= raster.Row(Math.Max(from.Y, move.To.Y) + r); row++)
                for (var column = raster.Column(Math.Min(from.X, move.To.X) - r);
                    column <= raster.Column(Math.Max(from.X, move.To.X) + r); column++)
                {
                    var (px, py) = (raster.MiddleX(column) - from.X, raster.MiddleY(row) - from.Y);
                    var t = Math.Clamp((px * dx + py * dy) / square2, 0, 1);
                    var (ex, ey) = (px - t * dx, py - t * dy);
                    var at = row * raster.Columns + column;
                    if (ex * ex + ey * ey > r * r || last[at] == run + 1) continue;
                    last[at] = run + 1;
                    counts[at]++;
                }
        }
        return counts;
    }
}

/// <summary>What lines cover of what they should, on a raster.</summary>
/// <param name="Cover">Share of what should be solid that is covered.</param>
/// <param name="Outside">How far they reach out of the section, mm.</param>
/// <param name="Hole">Diameter of the greatest hole in what should be solid, mm.</param>
internal readonly record struct Covered(double Cover, double Outside, double Hole)
{
    /// <param name="raster">Wider than the section by more than half a line.</param>
    /// <param name="laid">Lines on each cell.</param>
    /// <param name="section">Cells of the section.</param>
    /// <param name="solid">Those of them that should be solid.</param>
    public static Covered Of(Raster raster, byte[] laid, bool[] section, bool[] solid)
    {
        var cells = Enumerable.Range(0, raster.Count);
        var toSection = raster.Distances(section);
        var toPlastic = raster.Distances([.. cells.Select(i => laid[i] > 0 || !solid[i])]);
        return new((double)cells.Count(i => solid[i] && laid[i] > 0) / solid.Count(s => s),
            cells.Max(i => laid[i] > 0 ? toSection[i] : 0), 2 * cells.Max(i => Math.Max(0, toPlastic[i] - raster.Cell / 2)));
    }
}
