using MillCard.Core.Documents;
using MillCard.Core.Packets;

namespace MillCard.Core.Patterns;

/// <summary>The list of what a pattern source holds, kept in it as <c>patterns.json</c> and signed.</summary>
public sealed record PatternIndex : OpenRecord
{
    /// <summary>Name and version of its schema.</summary>
    public const string SchemaName = "mill-card/patterns/1";
    /// <summary>Its name in the source.</summary>
    public const string FileName = PacketContents.PatternList;
    /// <summary>Longest id of a source or of a pattern: both together are an id in a card.</summary>
    public const int LongestId = 48;

    /// <summary>Always <see cref="SchemaName"/> once read.</summary>
    public string Schema { get; init; } = SchemaName;
    /// <summary>Id of the source: small letters, digits and hyphens. A source keeps it for ever.</summary>
    [Field("id of the source", Needed = true, Fewest = 1, Most = LongestId)] public string Id { get; init; } = "";
    /// <summary>What the source is called.</summary>
    [Field("name of the source", Needed = true, Fewest = 1, Most = 120)] public string Name { get; init; } = "";
    /// <summary>What it holds, in a sentence.</summary>
    [Field("about the source", Most = 1000)] public string About { get; init; } = "";
    /// <summary>How often it was signed; a list never gives way to one that was signed before it.</summary>
    [Field("number of the list", AtLeast = 0, AtMost = 1_000_000)] public int Number { get; init; }
    /// <summary>When it was signed.</summary>
    public DateTimeOffset? At { get; init; }
    /// <summary>Its patterns.</summary>
    [Field("patterns", Most = 500)] public IReadOnlyList<PatternEntry> Patterns { get; init; } = [];
}

/// <summary>A pattern of a source, with all its versions.</summary>
public sealed record PatternEntry : OpenRecord
{
    /// <summary>Its id within the source: small letters, digits and hyphens.</summary>
    [Field("id of the pattern", Needed = true, Fewest = 1, Most = PatternIndex.LongestId)] public string Id { get; init; } = "";
    /// <summary>What it is called.</summary>
    [Field("name of the pattern", Needed = true, Fewest = 1, Most = 120)] public string Name { get; init; } = "";
    /// <summary>One sentence.</summary>
    [Field("about the pattern", Most = 1000)] public string About { get; init; } = "";
    /// <summary>Its versions.</summary>
    [Field("versions", Needed = true, Fewest = 1, Most = 200)] public IReadOnlyList<PatternVersion> Versions { get; init; } = [];
}

/// <summary>A version of a pattern; once published it is never changed.</summary>
public sealed record PatternVersion : OpenRecord
{
    /// <summary>Counts up from 1.</summary>
    [Field("version", AtLeast = 1, AtMost = 100_000)] public required int Version { get; init; }
    /// <summary>The card's path, from where the list lies.</summary>
    [Field("path", Needed = true, Fewest = 1, Most = 200)] public string Path { get; init; } = "";
    /// <summary>SHA-256 of the card's bytes, hexadecimal.</summary>
    [Field("checksum", Needed = true, Fewest = 64, Most = 64)] public string Sha256 { get; init; } = "";
    /// <summary>What is new in it.</summary>
    [Field("note", Most = 1000)] public string Note { get; init; } = "";
    /// <summary>When it was made.</summary>
    public DateTimeOffset? At { get; init; }
}
