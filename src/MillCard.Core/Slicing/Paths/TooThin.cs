namespace MillCard.Core.Slicing.Paths;

/// <summary>A place of the cross-section that is too thin for the least line.</summary>
/// <param name="At">Its middle, mm.</param>
/// <param name="Length">mm.</param>
/// <param name="Thickness">Where it is thickest, mm.</param>
internal sealed record TooThin(Point At, double Length, double Thickness);
