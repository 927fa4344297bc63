namespace MillCard.Core.Reach;

/// <summary>Whether one part fits.</summary>
/// <param name="Name">The part's.</param>
/// <param name="Fits">Whether nothing is violated.</param>
/// <param name="Violations">What is.</param>
/// <param name="Searched">Whether a curing move was looked for; where it was and there is none, no move cures it.</param>
public sealed record PartFit(string Name, bool Fits, IReadOnlyList<Violation> Violations, bool Searched);
