namespace MillCard.Store;

/// <summary>Bytes under their own hash.</summary>
public sealed class BlobRow
{
    /// <summary>SHA-256, lower-case hexadecimal.</summary>
    public required string Hash { get; init; }
    /// <summary>The bytes.</summary>
    public required byte[] Bytes { get; init; }
    /// <summary>What they are, such as "model/stl".</summary>
    public required string MediaType { get; init; }
    /// <summary>When they were last sent.</summary>
    public DateTimeOffset At { get; init; }
}
