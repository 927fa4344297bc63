using System.IO.Compression;
using System.Security.Cryptography;
using System.Text;
using System.Text.Json;
using MillCard.Core.Documents;

namespace MillCard.Core.Packets;

/// <summary>Writes a packet, a file at a time, so that no more than one of them is in memory.</summary>
/// <remarks>A packet is a zip with documents as JSON, files under their checksums, and a manifest written last.</remarks>
public sealed class PacketWriter : IDisposable
{
    private readonly ZipArchive _zip;
    private readonly List<PacketEntry> _entries = [];
    private readonly HashSet<string> _paths = new(StringComparer.OrdinalIgnoreCase);
    private readonly DateTimeOffset _at;

    /// <summary>Begins a packet.</summary>
    /// <param name="to">Where it is written; stays open.</param>
    /// <param name="at">When it is packed.</param>
    public PacketWriter(Stream to, DateTimeOffset at)
    {
        _zip = new ZipArchive(to, ZipArchiveMode.Create, leaveOpen: true);
        _at = at;
    }

    /// <summary>Adds a document.</summary>
    /// <param name="id">Its id.</param>
    /// <param name="kind">Its kind, such as "card".</param>
    /// <param name="name">Its name; may be empty.</param>
    /// <param name="json">The document, JSON.</param>
    /// <param name="putAway">Whether it is put away.</param>
    public void Document(Guid id, string kind, string name, string json, bool putAway) =>
        Add($"{kind}s/{FileNameOf(name, kind)}", ".json", Text(json), new PacketEntry
        {
            Use = PacketUse.Document,
            Id = id,
            PutAway = putAway,
        });

    /// <summary>Adds a revision of a document.</summary>
    public void Revision(Guid id, string name, int number, string note, string? who, DateTimeOffset at, string json) =>
        Add(Invariant($"revisions/{FileNameOf(name, "document")}/{number}"), ".json", Text(json), new PacketEntry
        {
            Use = PacketUse.Revision,
            Id = id,
            Number = number,
            Note = note,
            Who = who,
            At = at,
        });

    /// <summary>Adds the record of a print of a card; its picture is added as a file.</summary>
    public void Print(Guid card, string name, DateTimeOffset at, string json, string? picture) =>
        Add($"prints/{FileNameOf(name, "card")}/{at.UtcDateTime:yyyy-MM-dd}", ".json", Text(json), new PacketEntry
        {
            Use = PacketUse.Print,
            Id = card,
            At = at,
            Picture = picture,
        });

    /// <summary>Adds a file that documents or prints name by its checksum.</summary>
    public void File(string hash, byte[] bytes, string mediaType) =>
        Add($"files/{hash}", ExtensionOf(mediaType), bytes, new PacketEntry
        {
            Use = PacketUse.File,
            MediaType = mediaType,
        });

    /// <summary>Ends the packet with its manifest.</summary>
    /// <param name="who">Who packed it.</param>
    /// <param name="why">What it is for.</param>
    public void End(string? who, string? why) => Write(PacketManifest.FileName, JsonSerializer.SerializeToUtf8Bytes(
        new PacketManifest { Who = who, Why = why, At = _at, Entries = _entries }, DocumentJson.Options));

    /// <inheritdoc/>
    public void Dispose() => _zip.Dispose();

    private void Add(string stem, string extension, byte[] bytes, PacketEntry entry)
    {
        var path = stem + extension;
        for (var i = 2; !_paths.Add(path); i++) path = Invariant($"{stem} {i}{extension}");
        Write(path, bytes);
        _entries.Add(entry with { Path = path, Sha256 = Convert.ToHexStringLower(SHA256.HashData(bytes)) });
    }

    private void Write(string path, byte[] bytes)
    {
        var entry = _zip.CreateEntry(path);
        entry.LastWriteTime = _at;
        using var stream = entry.Open();
        stream.Write(bytes);
    }

    private static byte[] Text(string json) => Encoding.UTF8.GetBytes(json);

    /// <summary>A name that every file system takes; the kind where nothing of it is left.</summary>
    public static string FileNameOf(string name, string otherwise)
    {
        var fit = string.Concat(name.Select(c => char.IsLetterOrDigit(c) || c is ' ' or '-' or '_' ? c : ' ')).Trim();
        fit = string.Join(' ', fit.Split(' ', StringSplitOptions.RemoveEmptyEntries));
        if (fit.Length == 0) return otherwise;
        return fit.Length > 80 ? fit[..80].TrimEnd() : fit;
    }

    private static string ExtensionOf(string mediaType) => mediaType switch
    {
        "model/stl" => ".stl",
        "image/png" => ".png",
        "image/jpeg" => ".jpg",
        "image/webp" => ".webp",
        _ => ".bin",
    };
}
