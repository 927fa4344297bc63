using NetTopologySuite.Geometries;

namespace MillCard.Core.Slicing.Filling;

/// <summary>Coordinates along rows and across them.</summary>
/// <param name="angle">Direction of the rows, degrees from X.</param>
/// <param name="phase">By how much all rows are moved sideways, mm.</param>
internal readonly struct HatchFrame(double angle, double phase)
{
    private readonly double _sin = Math.Sin(angle * Math.PI / 180), _cos = Math.Cos(angle * Math.PI / 180);

    /// <summary>A point as way along the rows and across them.</summary>
    public Along Turn(double x, double y) => new(_cos * x + _sin * y, -_sin * x + _cos * y - phase);

    /// <summary>A way along the rows and across them as a point.</summary>
    public Point Back(Along at) => new(_cos * at.U - _sin * (at.V + phase), _sin * at.U + _cos * (at.V + phase));

    /// <summary>From where to where a polygon reaches across the rows, mm.</summary>
    public (double Low, double High) Across(Polygon polygon)
    {
        var (low, high) = (double.PositiveInfinity, double.NegativeInfinity);
        var c = polygon.ExteriorRing.CoordinateSequence;
        for (var i = 0; i < c.Count; i++)
        {
            var (_, v) = Turn(c.GetX(i), c.GetY(i));
            (low, high) = (Math.Min(low, v), Math.Max(high, v));
        }
        return (low, high);
    }
}
