namespace MillCard.Core.Slicing;

/// <summary>How far a long computation has come.</summary>
/// <param name="Step">What is being done, in words.</param>
/// <param name="Done">How many are done.</param>
/// <param name="Of">Of how many.</param>
public sealed record Progress(string Step, int Done, int Of);
