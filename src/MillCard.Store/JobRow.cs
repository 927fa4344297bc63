namespace MillCard.Store;

/// <summary>A job that went to a printer.</summary>
public sealed class JobRow
{
    /// <summary>Its id.</summary>
    public Guid Id { get; init; }
    /// <summary>The card whose printer it went to.</summary>
    public Guid CardId { get; init; }
    /// <summary>Its name.</summary>
    public required string Name { get; init; }
    /// <summary>How it went.</summary>
    public JobHow How { get; init; }
    /// <summary>How it stands, as last noted.</summary>
    public JobState State { get; set; }
    /// <summary>The program's line it was at, counted from 1.</summary>
    public int Line { get; set; }
    /// <summary>Commands that the printer has taken.</summary>
    public int Taken { get; set; }
    /// <summary>All commands.</summary>
    public int Count { get; init; }
    /// <summary>Why it ended before its end; null where it did not.</summary>
    public string? Message { get; set; }
    /// <summary>What was known of the heaters when it ended; null while it runs.</summary>
    public string? Heaters { get; set; }
    /// <summary>When it began.</summary>
    public DateTimeOffset BeganAt { get; init; }
    /// <summary>When it was last noted.</summary>
    public DateTimeOffset SeenAt { get; set; }
}

/// <summary>How a job goes to a printer.</summary>
public enum JobHow
{
    /// <summary>Line by line.</summary>
    Lines,
    /// <summary>As a file.</summary>
    File,
}

/// <summary>How a job stands.</summary>
public enum JobState
{
    /// <summary>It goes out.</summary>
    Sending,
    /// <summary>It went to its end.</summary>
    Done,
    /// <summary>It ended before its end.</summary>
    Stopped,
    /// <summary>The server ended without a word while it was out.</summary>
    Interrupted,
}
