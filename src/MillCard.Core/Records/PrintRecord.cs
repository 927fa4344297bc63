using MillCard.Core.Documents;

namespace MillCard.Core.Records;

/// <summary>How a real print came out.</summary>
public enum PrintOutcome
{
    /// <summary>Well.</summary>
    Good,
    /// <summary>Usable, with a flaw.</summary>
    Flawed,
    /// <summary>It failed.</summary>
    Failed,
}

/// <summary>A value that was tried on a print in place of the card's.</summary>
public sealed record TriedValue : OpenRecord
{
    /// <summary>Its place on the card.</summary>
    [Field("fact", Fewest = 1, Most = 500)] public required string Pointer { get; init; }
    /// <summary>The value.</summary>
    public required double Value { get; init; }
}

/// <summary>A real print: how it came out, in a line.</summary>
public sealed record PrintRecord : OpenRecord
{
    /// <summary>Letter of the card's revision; null for its draft.</summary>
    [Field("revision", Most = 4)] public string? Revision { get; init; }
    /// <summary>The trial it was sliced from; null for another file.</summary>
    public Guid? Trial { get; init; }
    /// <summary>How it came out.</summary>
    [Field("outcome", Needed = true)] public PrintOutcome? Outcome { get; init; }
    /// <summary>What was seen, what was changed.</summary>
    [Field("line", Most = 500)] public string? Line { get; init; }
    /// <summary>Values tried in place of the card's.</summary>
    [Field("tried values", Most = 20)] public IReadOnlyList<TriedValue> Tried { get; init; } = [];
}
