namespace MillCard.Store;

/// <summary>A thing that is done once in the life of a database.</summary>
public sealed class DoneRow
{
    /// <summary>What was done.</summary>
    public required string Name { get; init; }
    /// <summary>When.</summary>
    public DateTimeOffset At { get; init; }
}
