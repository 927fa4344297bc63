namespace MillCard.Core.Routines.Carrying;

/// <summary>What became of a line that was carried to another dialect.</summary>
public enum Carried
{
    /// <summary>It means the same there.</summary>
    Same,
    /// <summary>It is written another way there.</summary>
    Changed,
    /// <summary>That dialect has nothing like it; it stays as a comment.</summary>
    Lost,
    /// <summary>The dialect it comes from does not know it; it stays as it is.</summary>
    Unknown,
}

/// <summary>A line of a routine carried to another dialect.</summary>
/// <param name="Line">Counted from 1.</param>
/// <param name="Before">As it was.</param>
/// <param name="After">As it becomes, possibly several lines.</param>
/// <param name="Kind">What became of it.</param>
/// <param name="Note">Why, or what is different there; null where nothing is to be said.</param>
public sealed record CarriedLine(int Line, string Before, string After, Carried Kind, string? Note = null);
