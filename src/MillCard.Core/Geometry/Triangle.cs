using System.Runtime.CompilerServices;

namespace MillCard.Core.Geometry;

/// <summary>A triangle of the plane, mm.</summary>
internal readonly record struct Triangle(double X0, double Y0, double X1, double Y1, double X2, double Y2)
{
    /// <summary>Its left end.</summary>
    public double MinX => Math.Min(X0, Math.Min(X1, X2));

    /// <summary>Its right end.</summary>
    public double MaxX => Math.Max(X0, Math.Max(X1, X2));

    /// <summary>Its front end.</summary>
    public double MinY => Math.Min(Y0, Math.Min(Y1, Y2));

    /// <summary>Its back end.</summary>
    public double MaxY => Math.Max(Y0, Math.Max(Y1, Y2));

    /// <summary>Twice its area, however it winds.</summary>
    public double TwiceArea => Math.Abs((X1 - X0) * (Y2 - Y0) - (Y1 - Y0) * (X2 - X0));
}

/// <summary>A triangle that is looked at in one band of heights after the other.</summary>
internal readonly struct Banded
{
    private readonly Side _one, _two, _three;

    /// <param name="t">Any triangle.</param>
    public Banded(in Triangle t) =>
        (_one, _two, _three) = (new(t.X0, t.Y0, t.X1, t.Y1), new(t.X1, t.Y1, t.X2, t.Y2), new(t.X2, t.Y2, t.X0, t.Y0));

    /// <summary>Least and greatest X of what of it lies between two heights; the least greater where nothing does.</summary>
    public (double Left, double Right) Between(double bottom, double top)
    {
        var (left, right) = (double.MaxValue, double.MinValue);
        _one.Widen(bottom, top, ref left, ref right);
        _two.Widen(bottom, top, ref left, ref right);
        _three.Widen(bottom, top, ref left, ref right);
        return (left, right);
    }

    /// <summary>A side from its lower end to its upper.</summary>
    private readonly struct Side
    {
        private readonly double _lowX, _lowY, _highX, _highY, _slope;

        public Side(double ax, double ay, double bx, double by)
        {
            (_lowX, _lowY, _highX, _highY) = ay > by ? (bx, by, ax, ay) : (ax, ay, bx, by);
            _slope = _highY > _lowY ? (_highX - _lowX) / (_highY - _lowY) : 0;
        }

        [MethodImpl(MethodImplOptions.AggressiveInlining)]
        public void Widen(double bottom, double top, ref double left, ref double right)
        {
            if (_highY < bottom || _lowY > top) return;
            var p = _lowY >= bottom ? _lowX : _lowX + _slope * (bottom - _lowY);
            var q = _highY <= top ? _highX : _lowX + _slope * (top - _lowY);
            if (p > q) (p, q) = (q, p);
            if (p < left) left = p;
            if (q > right) right = q;
        }
    }
}
