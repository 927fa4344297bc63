namespace MillCard.Store;

/// <summary>A fixed state of a card. Never updated.</summary>
public sealed class RevisionRow
{
    /// <summary>The card, filament or recipe.</summary>
    public Guid DocumentId { get; init; }
    /// <summary>Its place among the document's revisions, counted from 1: A, B, C …</summary>
    public int Number { get; init; }
    /// <summary>The document as it was, JSON.</summary>
    public required string Document { get; init; }
    /// <summary>What its owner says of it.</summary>
    public required string Note { get; init; }
    /// <summary>Who fixed it; null where nobody said.</summary>
    public string? Who { get; init; }
    /// <summary>When.</summary>
    public DateTimeOffset At { get; init; }
}

/// <summary>The record that a revision's trial and dry run came out without a stop.</summary>
public sealed class ProofRow
{
    /// <summary>The card.</summary>
    public Guid CardId { get; init; }
    /// <summary>The revision.</summary>
    public int Number { get; init; }
    /// <summary>The trial, by name: it may be gone.</summary>
    public required string Trial { get; init; }
    /// <summary>The trial's id.</summary>
    public Guid TrialId { get; init; }
    /// <summary>The facts it rests on, JSON.</summary>
    public required string RestsOn { get; init; }
    /// <summary>Hash of the program that ran.</summary>
    public required string Program { get; init; }
    /// <summary>When.</summary>
    public DateTimeOffset At { get; init; }
}

/// <summary>A real print.</summary>
public sealed class PrintRow
{
    /// <summary>Its id.</summary>
    public Guid Id { get; init; }
    /// <summary>The card.</summary>
    public Guid CardId { get; init; }
    /// <summary>What is said of it, JSON.</summary>
    public required string Record { get; init; }
    /// <summary>Hash of its picture; null where there is none.</summary>
    public string? Picture { get; set; }
    /// <summary>When it was noted.</summary>
    public DateTimeOffset At { get; init; }
}
