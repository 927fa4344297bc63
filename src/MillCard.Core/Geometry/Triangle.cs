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

    /// <summary>Least and greatest X of what of it lies between two heights; the least greater where nothing does.</summary>
    public (double Left, double Right) Between(double bottom, double top)
    {
        var (left, right) = (double.MaxValue, double.MinValue);
        Widen(X0, Y0, X1, Y1, bottom, top, ref left, ref right);
        Widen(X1, Y1, X2, Y2, bottom, top, ref left, ref right);
        Widen(X2, Y2, X0, Y0, bottom, top, ref left, ref right);
        return (left, right);
    }

    private static void Widen(double ax, double ay, double bx, double by, double bottom, double top, ref double left, ref double right)
    {
        if (ay > by) (ax, ay, bx, by) = (bx, by, ax, ay);
        if (by < bottom || ay > top) return;
        var slope = by > ay ? (bx - ax) / (by - ay) : 0;
        var (p, q) = (ay >= bottom ? ax : ax + slope * (bottom - ay), by <= top ? bx : ax + slope * (top - ay));
        (left, right) = (Math.Min(left, Math.Min(p, q)), Math.Max(right, Math.Max(p, q)));
    }
}
