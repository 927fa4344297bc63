using MillCard.Core.Documents;

namespace MillCard.Core.Packets;

/// <summary>What a file of a packet is.</summary>
public enum PacketUse
{
    /// <summary>A card, filament, recipe or trial.</summary>
    Document,
    /// <summary>A fixed state of a document.</summary>
    Revision,
    /// <summary>The record of a real print.</summary>
    Print,
    /// <summary>A file that documents or prints name by its checksum: a mesh, a picture.</summary>
    File,
}

/// <summary>The list of what a packet holds, kept in it as <c>packet.json</c>.</summary>
public sealed record PacketManifest : OpenRecord
{
    /// <summary>Name and version of its schema.</summary>
    public const string SchemaName = "mill-card/packet/1";
    /// <summary>Its name in the packet.</summary>
    public const string FileName = "packet.json";

    /// <summary>Always <see cref="SchemaName"/> once read.</summary>
    public string Schema { get; init; } = SchemaName;
    /// <summary>Who packed it; null where nobody said.</summary>
    [Field("who", Most = 120)] public string? Who { get; init; }
    /// <summary>What it is for; null where nobody said.</summary>
    [Field("why", Most = 1000)] public string? Why { get; init; }
    /// <summary>When it was packed.</summary>
    public DateTimeOffset? At { get; init; }
    /// <summary>All files of the packet but this one.</summary>
    [Field("entries", Most = 5000)] public IReadOnlyList<PacketEntry> Entries { get; init; } = [];
}

/// <summary>A file of a packet.</summary>
public sealed record PacketEntry : OpenRecord
{
    /// <summary>Its path, from where the manifest lies.</summary>
    [Field("path", Needed = true, Fewest = 1, Most = 300)] public string Path { get; init; } = "";
    /// <summary>SHA-256 of its bytes, hexadecimal.</summary>
    [Field("checksum", Needed = true, Fewest = 64, Most = 64)] public string Sha256 { get; init; } = "";
    /// <summary>What it is.</summary>
    public required PacketUse Use { get; init; }
    /// <summary>Of a document: its id where it was packed. Of a revision or a print: the document's.</summary>
    public Guid? Id { get; init; }
    /// <summary>Of a file: what it is, such as "model/stl".</summary>
    [Field("kind of file", Most = 100)] public string? MediaType { get; init; }
    /// <summary>Of a document: whether it was put away.</summary>
    public bool PutAway { get; init; }
    /// <summary>Of a revision: its place, counted from 1.</summary>
    [Field("number of the revision", AtLeast = 1, AtMost = 100_000)] public int? Number { get; init; }
    /// <summary>Of a revision: what its owner says of it.</summary>
    [Field("note", Most = 1000)] public string? Note { get; init; }
    /// <summary>Of a revision: who fixed it.</summary>
    [Field("who", Most = 120)] public string? Who { get; init; }
    /// <summary>Of a revision or a print: when.</summary>
    public DateTimeOffset? At { get; init; }
    /// <summary>Of a print: checksum of its picture.</summary>
    [Field("picture", Fewest = 64, Most = 64)] public string? Picture { get; init; }
}
