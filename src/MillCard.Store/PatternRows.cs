namespace MillCard.Store;

/// <summary>A pattern source that was taken.</summary>
public sealed class PatternSourceRow
{
    /// <summary>Its id, given by its maker.</summary>
    public required string Id { get; init; }
    /// <summary>What it is called.</summary>
    public required string Name { get; set; }
    /// <summary>What it holds.</summary>
    public required string About { get; set; }
    /// <summary>Where it is read from: a folder, a zip, an address; empty where it was dropped.</summary>
    public required string Place { get; set; }
    /// <summary>The key that was pinned when it was first taken, base64.</summary>
    public required string Key { get; init; }
    /// <summary>Number of its list.</summary>
    public int Number { get; set; }
    /// <summary>Checksum of its list.</summary>
    public required string Sha256 { get; set; }
    /// <summary>When its list was signed; null where nobody said.</summary>
    public DateTimeOffset? SignedAt { get; set; }
    /// <summary>When it was taken as it is now.</summary>
    public DateTimeOffset TakenAt { get; set; }
    /// <summary>When it was last looked at.</summary>
    public DateTimeOffset LookedAt { get; set; }
    /// <summary>Why the last look gave nothing; null where it went well.</summary>
    public string? Trouble { get; set; }
}

/// <summary>A version of a pattern of a source. Never updated but for whether its maker still lists it.</summary>
public sealed class PatternVersionRow
{
    /// <summary>The source.</summary>
    public required string SourceId { get; init; }
    /// <summary>Id of the pattern within the source.</summary>
    public required string PatternId { get; init; }
    /// <summary>The version.</summary>
    public int Version { get; init; }
    /// <summary>What the pattern is called.</summary>
    public required string Name { get; set; }
    /// <summary>One sentence.</summary>
    public required string About { get; set; }
    /// <summary>What is new in this version.</summary>
    public required string Note { get; set; }
    /// <summary>When it was made; null where nobody said.</summary>
    public DateTimeOffset? At { get; set; }
    /// <summary>Checksum of the card's file.</summary>
    public required string Sha256 { get; init; }
    /// <summary>The card, JSON.</summary>
    public required string Card { get; init; }
    /// <summary>What the rack shows of it, JSON.</summary>
    public required string Summary { get; init; }
    /// <summary>Whether its maker still lists it. One that is not listed is kept for the cards that were made from it.</summary>
    public bool Listed { get; set; }
}
