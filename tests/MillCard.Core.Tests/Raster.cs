using MillCard.Core.Geometry;
using MillCard.Core.Meshes;

namespace MillCard.Core.Tests;

/// <summary>A grid of square cells, named by number, row after row.</summary>
/// <param name="X">Left edge, mm.</param>
/// <param name="Y">Lower edge, mm.</param>
/// <param name="Columns">Cells across.</param>
/// <param name="Rows">Cells up.</param>
/// <param name="Cell">Side of a cell, mm.</param>
internal sealed record Raster(double X, double Y, int Columns, int Rows, double Cell)
{
    public static Raster Over(double x0, double y0, double x1, double y1, double cell) =>
        new(x0, y0, (int)((x1 - x0) / cell) + 1, (int)((y1 - y0) / cell) + 1, cell);

    public int Count => Columns * Rows;
    public double MiddleX(int column) => X + (column + 0.5) * Cell;
    public double MiddleY(int row) => Y + (row + 0.5) * Cell;
    public int Column(double x) => (int)Math.Clamp((x - X) / Cell, 0, Columns - 1);
    public int Row(double y) => (int)Math.Clamp((y - Y) / Cell, 0, Rows - 1);

    /// <summary>Cells whose middle is in a shape.</summary>
    public bool[] Of(Shape shape)
    {
        using var edges = new Edges(shape);
        var cells = new bool[Count];
        for (var at = 0; at < Count; at++) cells[at] = edges.Hold(MiddleX(at % Columns), MiddleY(at / Columns));
        return cells;
    }

    /// <summary>Cells whose middle is in a mesh's cross-section: where its faces wind round the middle at least once. It knows nothing of
    /// the core's sections: every row of the raster is crossed with the faces' cuts.</summary>
    /// <param name="mesh">Faces turn outwards.</param>
    /// <param name="z">Of the plane, mm; no corner may lie on it.</param>
    /// <param name="dx">How far the mesh is moved, mm.</param>
    /// <param name="dy">How far the mesh is moved, mm.</param>
    public bool[] Of(Mesh mesh, double z, double dx = 0, double dy = 0)
    {
        var crossings = new List<(double X, int Turn)>[Rows];
        for (var row = 0; row < Rows; row++) crossings[row] = [];
        for (var face = 0; face < mesh.FaceCount; face++)
            if (Cut(mesh, face, z) is var (fromX, fromY, toX, toY))
            {
                var (low, high) = (Math.Min(fromY, toY) + dy, Math.Max(fromY, toY) + dy);
                for (var row = Row(low); row < Rows && MiddleY(row) <= high; row++)
                {
                    var y = MiddleY(row) - dy;
                    if (fromY <= y != toY <= y) crossings[row].Add((dx + fromX + (y - fromY) / (toY - fromY) * (toX - fromX),
                        toY < fromY ? 1 : -1));
                }
            }
        var cells = new bool[Count];
        for (var row = 0; row < Rows; row++)
        {
            crossings[row].Sort();
            for (var (turns, i, column) = (0, 0, 0); column < Columns; column++)
            {
                while (i < crossings[row].Count && crossings[row][i].X <= MiddleX(column)) turns += crossings[row][i++].Turn;
                cells[row * Columns + column] = turns > 0;
            }
        }
        return cells;
    }

    /// <summary>A face's cut with a plane, the solid to its left; null where it does not cross.</summary>
    private static (double FromX, double FromY, double ToX, double ToY)? Cut(Mesh mesh, int face, double z)
    {
        (double X, double Y, double Z) Corner(int i)
        {
            var c = 3 * mesh.Faces[3 * face + i % 3];
            return (mesh.Corners[c], mesh.Corners[c + 1], mesh.Corners[c + 2]);
        }
        (double X, double Y) from = default, to = default;
        var crosses = false;
        for (var i = 0; i < 3; i++)
        {
            var (a, b) = (Corner(i), Corner(i + 1));
            if (a.Z > z == b.Z > z) continue;
            var t = (z - a.Z) / (b.Z - a.Z);
            var at = (a.X + t * (b.X - a.X), a.Y + t * (b.Y - a.Y));
            if (b.Z > a.Z) from = at;
            else to = at;
            crosses = true;
        }
        return crosses ? (to.X, to.Y, from.X, from.Y) : null;
    }

    /// <summary>From every cell to the nearest that is set, mm between middles; the transform in two passes of Felzenszwalb and
    /// Huttenlocher, <i>Distance Transforms of Sampled Functions</i>, 2012. Beyond the raster nothing is set.</summary>
    public double[] Distances(bool[] cells)
    {
        const double far = 1e12;
        var squares = new double[Count];
        for (var at = 0; at < Count; at++) squares[at] = cells[at] ? 0 : far;
        for (var column = 0; column < Columns; column++) Lower(squares, column, Columns, Rows);
        for (var row = 0; row < Rows; row++) Lower(squares, row * Columns, 1, Columns);
        for (var at = 0; at < Count; at++) squares[at] = Math.Sqrt(squares[at]) * Cell;
        return squares;
    }

    /// <summary>The lower envelope of parabolas along a row or column.</summary>
    private static void Lower(double[] all, int first, int step, int count)
    {
        var values = new double[count];
        for (var i = 0; i < count; i++) values[i] = all[first + i * step];
        var (roots, from) = (new int[count], new double[count + 1]);
        var k = 0;
        (from[0], from[1]) = (double.NegativeInfinity, double.PositiveInfinity);
        for (var i = 1; i < count; i++)
        {
            double Meeting() => (values[i] + (double)i * i - values[roots[k]] - (double)roots[k] * roots[k]) / (2.0 * (i - roots[k]));
            while (Meeting() <= from[k]) k--;
            var at = Meeting();
            k++;
            (roots[k], from[k], from[k + 1]) = (i, at, double.PositiveInfinity);
        }
        k = 0;
        for (var i = 0; i < count; i++)
        {
            while (from[k + 1] < i) k++;
            all[first + i * step] = (double)(i - roots[k]) * (i - roots[k]) + values[roots[k]];
        }
    }
}
