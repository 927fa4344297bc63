namespace MillCard.Core.Slicing.Filling;

/// <summary>A place in the frame of a hatch.</summary>
/// <param name="U">Along the rows, mm.</param>
/// <param name="V">Across them, mm.</param>
internal readonly record struct Along(double U, double V)
{
    /// <summary>How far a place on a border is moved so that it is sure to lie inside, mm.</summary>
    public const double Slack = 0.03;

    /// <summary>A little further inside.</summary>
    /// <param name="side">1 where rows end there, -1 where they begin.</param>
    public Along Inside(int side) => this with { U = U - side * Slack };

    /// <summary>Distance, mm.</summary>
    public double To(Along other) => Math.Sqrt((other.U - U) * (other.U - U) + (other.V - V) * (other.V - V));

    /// <summary>A share of the way to another place.</summary>
    public Along Towards(Along other, double share) => new(U + share * (other.U - U), V + share * (other.V - V));
}
