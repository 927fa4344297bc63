using System.Globalization;
using System.Text;
using MillCard.Core.Geometry;
using NetTopologySuite.Geometries;

namespace MillCard.Core.Tests;

/// <summary>What a program lays on one layer, read from its text alone: every move that feeds is a stadium as wide as its plastic asks for
/// at the layer's height. Held on a raster against a cross-section.</summary>
internal sealed class Deposited
{
    private const double Raster = 0.02;
    private readonly List<(double X0, double Y0, double X1, double Y1, double Width)> _lines = [];

    /// <param name="program">Plain moves, absolute positions, relative feed.</param>
    /// <param name="top">Top of the layer, mm.</param>
    /// <param name="height">Of the layer, mm.</param>
    /// <param name="filament">Diameter, mm.</param>
    public Deposited(ReadOnlyMemory<byte> program, double top, double height, double filament)
    {
        var (x, y, z) = (0.0, 0.0, 0.0);
        foreach (var line in Encoding.ASCII.GetString(program.Span).Split('\n'))
        {
            var words = line.Split(';')[0].Split(' ', StringSplitOptions.RemoveEmptyEntries);
            if (words.Length == 0 || words[0] is not ("G0" or "G1")) continue;
            double? Word(char letter) => words.FirstOrDefault(w => w[0] == letter) is { } word
                ? double.Parse(word.AsSpan(1), CultureInfo.InvariantCulture) : null;
            var (toX, toY) = (Word('X') ?? x, Word('Y') ?? y);
            z = Word('Z') ?? z;
            var length = Math.Sqrt((toX - x) * (toX - x) + (toY - y) * (toY - y));
            if (Word('E') is > 0 and var fed && length > 0 && Math.Abs(z - top) < 1e-6)
            {
                var area = fed * Math.PI * filament * filament / 4 / length;
                Plastic += area * length;
                _lines.Add((x, y, toX, toY, (area - Math.PI * height * height / 4) / height + height));
            }
            (x, y) = (toX, toY);
        }
    }

    /// <summary>Plastic on the layer, mm³.</summary>
    public double Plastic { get; }

    /// <summary>How many moves lay it.</summary>
    public int Moves => _lines.Count;

    /// <summary>Share of a section that lines cover, how far they reach out of it, and the diameter of the greatest hole, mm.</summary>
    public (double Cover, double Outside, double Hole) Against(Shape section)
    {
        var box = section.EnvelopeInternal;
        box.ExpandBy(1);
        var (columns, rows) = ((int)(box.Width / Raster) + 1, (int)(box.Height / Raster) + 1);
        var laid = new bool[columns, rows];
        foreach (var (x0, y0, x1, y1, width) in _lines)
        {
            var (r, dx, dy) = (width / 2, x1 - x0, y1 - y0);
            for (var i = Column(Math.Min(x0, x1) - r); i <= Column(Math.Max(x0, x1) + r); i++)
                for (var k = Row(Math.Min(y0, y1) - r); k <= Row(Math.Max(y0, y1) + r); k++)
                {
                    var (px, py) = (X(i) - x0, Y(k) - y0);
                    var t = Math.Clamp((px * dx + py * dy) / (dx * dx + dy * dy), 0, 1);
                    var (ex, ey) = (px - t * dx, py - t * dy);
                    if (ex * ex + ey * ey <= r * r) laid[i, k] = true;
                }
        }
        using var edges = new Edges(section);
        var (inside, covered, outside) = (0, 0, 0.0);
        var hole = new bool[columns, rows];
        for (var i = 0; i < columns; i++)
            for (var k = 0; k < rows; k++)
                if (edges.Hold(X(i), Y(k)))
                {
                    inside++;
                    if (laid[i, k]) covered++;
                    else hole[i, k] = true;
                }
                else if (laid[i, k]) outside = Math.Max(outside, section.Distance(Plane.Factory.CreatePoint(new Coordinate(X(i), Y(k)))));
        return ((double)covered / inside, outside, Widest(hole));

        int Column(double at) => (int)Math.Clamp((at - box.MinX) / Raster, 0, columns - 1);
        int Row(double at) => (int)Math.Clamp((at - box.MinY) / Raster, 0, rows - 1);
        double X(int i) => box.MinX + (i + 0.5) * Raster;
        double Y(int k) => box.MinY + (k + 0.5) * Raster;
    }

    /// <summary>Diameter of the greatest disc of cells that are all set.</summary>
    private static double Widest(bool[,] cells)
    {
        var radius = 0;
        while (HoldsDisc(cells, radius + 1)) radius++;
        return 2 * radius * Raster;
    }

    private static bool HoldsDisc(bool[,] cells, int radius)
    {
        for (var i = radius; i < cells.GetLength(0) - radius; i++)
            for (var k = radius; k < cells.GetLength(1) - radius; k++)
                if (cells[i, k] && IsDisc(cells, i, k, radius)) return true;
        return false;
    }

    private static bool IsDisc(bool[,] cells, int i, int k, int radius)
    {
        for (var a = -radius; a <= radius; a++)
            for (var b = -radius; b <= radius; b++)
                if (a * a + b * b <= radius * radius && !cells[i + a, k + b]) return false;
        return true;
    }
}
