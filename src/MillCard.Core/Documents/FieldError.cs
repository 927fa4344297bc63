namespace MillCard.Core.Documents;

/// <summary>Why one field of a document is refused.</summary>
/// <param name="Pointer">RFC 6901 pointer of the field.</param>
/// <param name="Message">A sentence that a printer owner understands.</param>
/// <param name="Limit">What is allowed, where it can be said shortly.</param>
public sealed record FieldError(string Pointer, string Message, string? Limit = null);
