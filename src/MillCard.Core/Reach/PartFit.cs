namespace MillCard.Core.Reach;

/// <summary>Whether one part fits.</summary>
/// <param name="Name">The part's.</param>
/// <param name="Fits">Whether nothing is violated.</param>
/// <param name="Violations">What is.</param>
/// <param name="Searched">Whether a curing move was looked for; where it was and there is none, no move cures it.</param>
public sealed record PartFit(string Name, bool Fits, IReadOnlyList<Violation> Violations, bool Searched)
{
    /// <summary>How far beyond what it truly covers its outline may be told, mm; 0 where it is the true one, as of all but heaps of very
    /// many crossing faces. What fits fits all the same.</summary>
    public double OutlineBeyond { get; init; }
}
