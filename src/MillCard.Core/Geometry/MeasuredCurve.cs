using System.Buffers;
using System.Numerics;

namespace MillCard.Core.Geometry;

/// <summary>A curve whose points are measured from straight ways between others of it, again and again: in rented memory, several points
/// at a time.</summary>
/// <param name="count">Of its points.</param>
/// <param name="hasSides">Whether its sides are measured too.</param>
internal sealed class MeasuredCurve(int count, bool hasSides) : IDisposable
{
    private static readonly ArrayPool<double> Pool = ArrayPool<double>.Shared;

    private readonly double[] _x = Pool.Rent(count), _y = Pool.Rent(count), _squares = Pool.Rent(count);
    private readonly double[]? _sides = hasSides ? Pool.Rent(count) : null;

    /// <summary>How many points it has.</summary>
    public int Count => count;

    /// <summary>What was measured last, by the points' numbers.</summary>
    public ReadOnlySpan<double> Squares => _squares;

    /// <summary>Tells where a point lies, and how far from there its side.</summary>
    public void Put(int point, double x, double y, double side = 0)
    {
        (_x[point], _y[point]) = (x, y);
        if (_sides is not null) _sides[point] = side;
    }

    /// <summary>Squares of how far the points between two lie off the straight way from the one to the other, or their sides off what they
    /// are evenly between both, whichever is more; the greatest of them.</summary>
    public double Measure(int from, int to)
    {
        var way = new Way(this, from, to);
        var (i, most) = (from + 1, 0.0);
        var all = Vector<double>.Zero;
        for (; i + Vector<double>.Count <= to; i += Vector<double>.Count)
        {
            var squares = way.Squares(new(_x, i), new(_y, i), _sides is null ? default : new(_sides, i));
            squares.CopyTo(_squares, i);
            all = Vector.Max(all, squares);
        }
        for (; i < to; i++)
        {
            _squares[i] = way.Squares(new(_x[i]), new(_y[i]), new(_sides?[i] ?? 0))[0];
            most = Math.Max(most, _squares[i]);
        }
        for (var k = 0; k < Vector<double>.Count; k++) most = Math.Max(most, all[k]);
        return most;
    }

    /// <summary>Gives the memory back.</summary>
    public void Dispose()
    {
        foreach (var rented in new[] { _x, _y, _squares, _sides }) if (rented is not null) Pool.Return(rented);
    }

    private readonly ref struct Way
    {
        private readonly double _fromX, _fromY, _x, _y, _perSquare, _side, _wider;
        private readonly bool _hasSides;

        public Way(MeasuredCurve curve, int from, int to)
        {
            (_fromX, _fromY) = (curve._x[from], curve._y[from]);
            (_x, _y) = (curve._x[to] - _fromX, curve._y[to] - _fromY);
            var square = _x * _x + _y * _y;
            _perSquare = square > 0 ? 1 / square : 0;
            if (curve._sides is not { } sides) return;
            (_hasSides, _side, _wider) = (true, sides[from], sides[to] - sides[from]);
        }

        public Vector<double> Squares(Vector<double> x, Vector<double> y, Vector<double> side)
        {
            (x, y) = (x - new Vector<double>(_fromX), y - new Vector<double>(_fromY));
            var share = Vector.Min(Vector.Max((x * _x + y * _y) * _perSquare, Vector<double>.Zero), Vector<double>.One);
            (x, y) = (x - share * _x, y - share * _y);
            var squares = x * x + y * y;
            if (!_hasSides) return squares;
            side -= new Vector<double>(_side) + share * _wider;
            return Vector.Max(squares, side * side);
        }
    }
}
