using MillCard.Core.Documents;

namespace MillCard.Core.Geometry;

/// <summary>A point in the plane, mm.</summary>
public readonly record struct Point(double X, double Y)
{
    /// <summary>The distance to another point, mm.</summary>
    public double To(Point other) => Math.Sqrt((X - other.X) * (X - other.X) + (Y - other.Y) * (Y - other.Y));
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
