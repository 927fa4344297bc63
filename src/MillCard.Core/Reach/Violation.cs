using System.Text.Json.Serialization;
using MillCard.Core.Findings;

namespace MillCard.Core.Reach;

/// <summary>Why a part does not fit.</summary>
public enum ViolationKind
{
    /// <summary>Over the edge of the usable bed.</summary>
    Bed,
    /// <summary>Beyond where the nozzle can go.</summary>
    Reach,
    /// <summary>Higher than the usable height.</summary>
    Height,
    /// <summary>In a keep-out, or in the border that the head adds round it.</summary>
    KeepOut,
    /// <summary>In another part.</summary>
    Part,
    /// <summary>Too wide for the distance of its copy, or the carriages come no nearer.</summary>
    Copy,
    /// <summary>Lower than half a first layer: nothing of it would be printed.</summary>
    Size,
}

/// <summary>A displacement on the bed, mm.</summary>
public sealed record Move(double X, double Y)
{
    /// <summary>Its length, mm.</summary>
    public double Length => Math.Sqrt(X * X + Y * Y);
}

/// <summary>One way in which a part does not fit.</summary>
/// <param name="Kind">What is violated.</param>
/// <param name="With">Name of the keep-out or the other part; null for bed, reach and height.</param>
/// <param name="By">The body of the head that is in the way, where it is not the nozzle itself.</param>
/// <param name="Distance">The least distance by which it would have to be further away to end this violation alone, mm; for the height,
/// what is too much.</param>
/// <param name="Move">The smallest move of the part that cures all its violations; null where no move does.</param>
/// <param name="Message">All of it in a sentence.</param>
public sealed record Violation(
    ViolationKind Kind, [property: JsonIgnore(Condition = JsonIgnoreCondition.Never)] string? With, string? By, double Distance,
    [property: JsonIgnore(Condition = JsonIgnoreCondition.Never)] Move? Move, string Message)
{
    /// <summary>What of the recipe would mend it, where it is the skirt alone that does not fit; null otherwise.</summary>
    public Remedy? Remedy { get; init; }
}
