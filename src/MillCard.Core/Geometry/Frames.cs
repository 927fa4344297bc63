using MillCard.Core.Documents;

namespace MillCard.Core.Geometry;

/// <summary>A point in the plane, mm.</summary>
public readonly record struct Point(double X, double Y)
{
    /// <summary>The distance to another point, mm.</summary>
    public double To(Point other) => Math.Sqrt((X - other.X) * (X - other.X) + (Y - other.Y) * (Y - other.Y));

    /// <summary>A point on the straight way to another.</summary>
    /// <param name="other">The other.</param>
    /// <param name="share">Of the way, 0 to 1.</param>
    public Point Towards(Point other, double share) => new(X + share * (other.X - X), Y + share * (other.Y - Y));

    /// <summary>The share of the straight way to another point, 0 to 1, at which it comes nearest to a third.</summary>
    public double NearestShare(Point other, Point third)
    {
        var (dx, dy) = (other.X - X, other.Y - Y);
        var square = dx * dx + dy * dy;
        return square > 0 ? Math.Clamp(((third.X - X) * dx + (third.Y - Y) * dy) / square, 0, 1) : 0;
    }
}

/// <summary>Bed frame and machine frame: machine = bed − origin.</summary>
/// <param name="ZeroX">Machine zero in the bed frame, mm.</param>
/// <param name="ZeroY">Machine zero in the bed frame, mm.</param>
public readonly record struct Frames(double ZeroX, double ZeroY)
{
    /// <summary>The frames of an origin.</summary>
    public static Frames Of(Position origin) => new(origin.X, origin.Y);

    /// <summary>From the bed frame to what the firmware counts.</summary>
    public Point ToMachine(Point bed) => new(bed.X - ZeroX, bed.Y - ZeroY);

    /// <summary>From what the firmware counts to the bed frame.</summary>
    public Point ToBed(Point machine) => new(machine.X + ZeroX, machine.Y + ZeroY);
}
