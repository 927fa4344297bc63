using MillCard.Core.Wording;

namespace MillCard.Core.Documents;

/// <summary>What is wrong with a field; stays when the sentence is worded anew.</summary>
public enum FieldProblem
{
    /// <summary>It is needed and not there, or what it names is not there any more.</summary>
    Missing,
    /// <summary>It is of another kind, such as a text where a number is wanted.</summary>
    WrongKind,
    /// <summary>It is none of the choices.</summary>
    NoChoice,
    /// <summary>It is a number outside of its bounds.</summary>
    OutOfRange,
    /// <summary>It has too many entries.</summary>
    TooMany,
    /// <summary>It has too few entries.</summary>
    TooFew,
    /// <summary>It is too long a text.</summary>
    TooLong,
    /// <summary>It cannot be read.</summary>
    Unreadable,
    /// <summary>It is not taken here.</summary>
    NotTaken,
}

/// <summary>Why one field of a document is refused.</summary>
/// <param name="Pointer">RFC 6901 pointer of the field.</param>
/// <param name="Code">What is wrong with it.</param>
/// <param name="Message">A sentence that a printer owner understands.</param>
/// <param name="Limit">What is allowed, where it can be said shortly.</param>
public sealed record FieldError(string Pointer, FieldProblem Code, string Message, string? Limit = null)
{
    /// <summary>A refusal with the values of its sentence.</summary>
    internal FieldError(string pointer, FieldProblem code, Sentence message, string? limit = null)
        : this(pointer, code, message.Text, limit) => Values = message.Values;

    /// <summary>Numbers and texts of the sentence by their names, as a script reads them; null where it has none.</summary>
    public IReadOnlyDictionary<string, object>? Values { get; init; }

    /// <summary>Of a field that is needed.</summary>
    public static FieldError Missing(string pointer, string message) => new(pointer, FieldProblem.Missing, message, "required");
}
