namespace MillCard.Core.Macros;

/// <summary>What is taken to be so of a condition that only the running printer can decide.</summary>
public enum OpenCondition
{
    /// <summary>It does not hold.</summary>
    Fails,
    /// <summary>It holds.</summary>
    Holds,
}
