namespace MillCard.Core.Patterns;

/// <summary>A pattern source is not taken; the message says why in a sentence.</summary>
public sealed class SourceRefusedException(string message) : Exception(message);
