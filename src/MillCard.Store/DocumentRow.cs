namespace MillCard.Store;

/// <summary>A document with its draft, the working copy that is saved as its owner types.</summary>
public sealed class DocumentRow
{
    /// <summary>Its id, part of addresses.</summary>
    public Guid Id { get; set; }
    /// <summary>card, filament, recipe or trial.</summary>
    public required string Kind { get; set; }
    /// <summary>The draft's name, for lists.</summary>
    public required string Name { get; set; }
    /// <summary>Out of sight, not deleted.</summary>
    public bool Archived { get; set; }
    /// <summary>The draft as JSON.</summary>
    public required string Draft { get; set; }
    /// <summary>What lists show of it, as JSON, made when it is saved.</summary>
    public required string Summary { get; set; }
    /// <summary>When it was last saved.</summary>
    public DateTimeOffset Saved { get; set; }
    /// <summary>Changes with every save: PostgreSQL's xmin.</summary>
    public uint Version { get; set; }
    /// <summary>Its fixed states.</summary>
    public List<RevisionRow> Revisions { get; } = [];
}

/// <summary>A fixed, lettered state of a document; never updated.</summary>
public sealed class RevisionRow
{
    /// <summary>The document.</summary>
    public Guid DocumentId { get; set; }
    /// <summary>A, B, C …</summary>
    public required string Letter { get; set; }
    /// <summary>The document as JSON.</summary>
    public required string Body { get; set; }
    /// <summary>Why it was fixed.</summary>
    public string? Note { get; set; }
    /// <summary>When.</summary>
    public DateTimeOffset At { get; set; }
}

/// <summary>Bytes by their own hash: meshes, programs, layers.</summary>
public sealed class BlobRow
{
    /// <summary>SHA-256, lower-case hexadecimal.</summary>
    public required string Hash { get; set; }
    /// <summary>The bytes.</summary>
    public required byte[] Bytes { get; set; }
    /// <summary>What they are.</summary>
    public required string MediaType { get; set; }
    /// <summary>When they came.</summary>
    public DateTimeOffset At { get; set; }
}

/// <summary>A thing done once for this database.</summary>
public sealed class DoneRow
{
    /// <summary>What was done.</summary>
    public required string Name { get; set; }
    /// <summary>When.</summary>
    public DateTimeOffset At { get; set; }
}
