namespace MillCard.Store;

/// <summary>The last program of a trial and its dry run.</summary>
public sealed class RunRow
{
    /// <summary>The trial; one run each.</summary>
    public Guid TrialId { get; init; }
    /// <summary>Hash of the program's bytes.</summary>
    public required string Program { get; set; }
    /// <summary>Hash of the layers' bytes; null where the program was brought as a file.</summary>
    public string? Layers { get; set; }
    /// <summary>The card on which it ran, JSON.</summary>
    public required string Card { get; set; }
    /// <summary>What came of it, JSON.</summary>
    public required string Result { get; set; }
    /// <summary>When.</summary>
    public DateTimeOffset At { get; set; }
}
