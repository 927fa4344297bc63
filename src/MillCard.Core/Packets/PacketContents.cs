using System.Security.Cryptography;
using System.Text.Json;
using MillCard.Core.Documents;
using MillCard.Core.Files;
using MillCard.Core.Records;

namespace MillCard.Core.Packets;

/// <summary>A document that was dropped.</summary>
/// <param name="Path">Its path.</param>
/// <param name="Packet">Folder of the packet whose list names it; null for a file by itself.</param>
/// <param name="Id">Its id where it was packed; null where nobody said.</param>
/// <param name="Read">The document.</param>
/// <param name="PutAway">Whether it was put away.</param>
public sealed record DroppedDocument(string Path, string? Packet, Guid? Id, ExchangedDocument Read, bool PutAway = false)
{
    /// <summary>Its revisions, the oldest first.</summary>
    public IReadOnlyList<DroppedRevision> Revisions { get; init; } = [];
    /// <summary>Of a card: its prints.</summary>
    public IReadOnlyList<DroppedPrint> Prints { get; init; } = [];
}

/// <summary>A revision that was dropped with its document: a fixed state, or a variant of a trial.</summary>
public sealed record DroppedRevision(int Number, string Note, string? Who, DateTimeOffset At, IDocument? Document, VariantState? Variant);

/// <summary>A print that was dropped with its card.</summary>
public sealed record DroppedPrint(DateTimeOffset At, PrintRecord Record, string? Picture);

/// <summary>A file that documents name by its checksum.</summary>
public sealed record DroppedBlob(ReadOnlyMemory<byte> Bytes, string MediaType);

/// <summary>A file that is no document.</summary>
/// <param name="Path">Its path.</param>
/// <param name="Kind">What it is.</param>
/// <param name="Says">What is to be said of it: why it is damaged or not ours; else a word on what is in it.</param>
public sealed record LooseFile(string Path, LooseKind Kind, string Says);

/// <summary>All that was dropped, told apart.</summary>
public sealed record PacketContents(IReadOnlyList<DroppedDocument> Documents, IReadOnlyDictionary<string, DroppedBlob> Blobs,
    IReadOnlyList<LooseFile> Loose)
{
    /// <summary>Name of the list of a pattern source.</summary>
    public const string PatternList = "patterns.json";
    /// <summary>Name of its signature.</summary>
    public const string PatternSignature = "patterns.sig";

    /// <summary>Tells apart what was dropped. Meshes are not read yet.</summary>
    /// <param name="dropped">The files, in any order.</param>
    /// <param name="stop">Ends it.</param>
    public static PacketContents Of(IEnumerable<DroppedFile> dropped, CancellationToken stop)
    {
        var (files, unopened) = Unpacking.Of(dropped, stop);
        var sorting = new Sorting(files);
        foreach (var (path, why) in unopened) sorting.Loose.Add(new LooseFile(path, LooseKind.Damaged, why));
        foreach (var file in files.Where(Sorting.MayBeManifest)) sorting.TakeManifest(file);
        foreach (var file in files.Where(Sorting.MayBePatterns)) sorting.TakePatterns(file);
        foreach (var file in files)
        {
            stop.ThrowIfCancellationRequested();
            sorting.Take(file);
        }
        return new PacketContents([.. sorting.Documents.Select(sorting.WithPast)], sorting.Blobs,
            [.. sorting.Loose.OrderBy(l => l.Path, StringComparer.Ordinal)]);
    }

    private sealed class Sorting(IReadOnlyList<DroppedFile> files)
    {
        private readonly Dictionary<string, (PacketEntry Entry, string Packet)> _listed = new(StringComparer.Ordinal);
        private readonly Dictionary<(string, Guid), List<DroppedRevision>> _revisions = [];
        private readonly Dictionary<(string, Guid), List<DroppedPrint>> _prints = [];
        private readonly HashSet<string> _apart = new(StringComparer.Ordinal);
        private readonly HashSet<string> _there = new(files.Select(f => f.Path), StringComparer.Ordinal);

        public List<DroppedDocument> Documents { get; } = [];
        public Dictionary<string, DroppedBlob> Blobs { get; } = new(StringComparer.Ordinal);
        public List<LooseFile> Loose { get; } = [];

        public static bool MayBeManifest(DroppedFile file) => file.Path.Split('/')[^1] == PacketManifest.FileName;

        public static bool MayBePatterns(DroppedFile file) => file.Path.Split('/')[^1] == PatternList;

        public void TakeManifest(DroppedFile file)
        {
            if (Named(file, "mill-card/packet/") is not { } json) return;
            _apart.Add(file.Path);
            var reading = DocumentReader.Read<PacketManifest>(json);
            if (reading.Document is not { } manifest)
            {
                Loose.Add(new LooseFile(file.Path, LooseKind.Damaged, $"The packet's list cannot be read: {reading.Errors[0].Message}"));
                return;
            }
            var home = file.Path[..^PacketManifest.FileName.Length];
            Loose.Add(new LooseFile(file.Path, LooseKind.Manifest, SaidOf(manifest)));
            foreach (var entry in manifest.Entries)
            {
                var path = home + entry.Path;
                if (!_there.Contains(path))
                    Loose.Add(new LooseFile(path, LooseKind.Damaged, "The packet's list names it, and it is not in the packet."));
                else _listed.TryAdd(path, (entry, home));
            }
        }

        /// <summary>A pattern source is taken as a whole, held to its signature: its cards are no documents by themselves.</summary>
        public void TakePatterns(DroppedFile file)
        {
            if (Named(file, "mill-card/patterns/") is not { } json) return;
            var home = file.Path[..^PatternList.Length];
            _apart.UnionWith(Members(json, "patterns").SelectMany(p => Members(p, "versions")).Select(v => TextOf(v, "path"))
                .Prepend(PatternList).Append(PatternSignature).Select(path => home + path));
            Loose.Add(new LooseFile(file.Path, LooseKind.Patterns, TextOf(json, "name")));
        }

        public void Take(DroppedFile file)
        {
            if (_apart.Contains(file.Path)) return;
            if (IsJson(file.Bytes.Span) && file.Bytes.Length > Exchange.MostBytes)
            {
                Loose.Add(new LooseFile(file.Path, LooseKind.Damaged,
                    $"It is larger than the {Exchange.MostBytes >> 20} MB of a document."));
                return;
            }
            if (!_listed.TryGetValue(file.Path, out var listed))
            {
                TakeLoose(file);
                return;
            }
            var hash = Convert.ToHexStringLower(SHA256.HashData(file.Bytes.Span));
            if (!hash.Equals(listed.Entry.Sha256, StringComparison.OrdinalIgnoreCase))
                Loose.Add(new LooseFile(file.Path, LooseKind.Damaged,
                    "Its checksum is another than in the packet's list: it was changed or " +
                    "damaged since it was packed."));
            else TakeListed(file, listed.Entry, listed.Packet, hash);
        }

        public DroppedDocument WithPast(DroppedDocument document) => document is { Packet: { } packet, Id: { } id } ? document with
        {
            // a trial has variants, other documents have states of their own kind
            Revisions = [.. _revisions.GetValueOrDefault((packet, id), []).Where(r => document.Read.Kind == Trial.Kind
                ? r.Variant is not null : r.Document?.GetType() == document.Read.Document?.GetType())
                .OrderBy(r => r.Number).DistinctBy(r => r.Number)],
            // what is no picture is not shown as one
            Prints = [.. _prints.GetValueOrDefault((packet, id), []).OrderBy(p => p.At)
                .Select(p => IsPicture(p.Picture) ? p : p with { Picture = null })],
        } : document;

        private bool IsPicture(string? hash) => hash is not null && Blobs.TryGetValue(hash, out var file)
            && PictureFile.TypeOf(file.Bytes.Span) is not null;

        private void TakeListed(DroppedFile file, PacketEntry entry, string packet, string hash)
        {
            switch (entry.Use)
            {
                case PacketUse.File:
                    Blobs.TryAdd(hash, new DroppedBlob(file.Bytes, PictureFile.TypeOf(file.Bytes.Span) ?? "model/stl"));
                    return;
                case PacketUse.Print when entry is { Id: { } of, At: { } at }
                    && DocumentReader.Read<PrintRecord>(file.Bytes).Document is { } record:
                    Listed(_prints, (packet, of)).Add(new DroppedPrint(at, record, entry.Picture?.ToLowerInvariant()));
                    return;
                case PacketUse.Revision when entry is { Id: { } of, Number: { } number, At: { } at }
                    && Exchange.Parsed(file.Bytes) is { } state && PastOf(entry, number, at, state) is { } past:
                    Listed(_revisions, (packet, of)).Add(past);
                    return;
                case PacketUse.Document when Exchange.Parsed(file.Bytes) is { } json && Exchange.Of(json) is { } read:
                    Documents.Add(new DroppedDocument(file.Path, packet, entry.Id, read, entry.PutAway));
                    return;
                default:
                    Loose.Add(new LooseFile(file.Path, LooseKind.Damaged, "It is not what the packet's list says it is."));
                    return;
            }
        }

        private static DroppedRevision? PastOf(PacketEntry entry, int number, DateTimeOffset at, JsonElement state)
        {
            if (Exchange.Of(state) is { Document: { } document })
                return new DroppedRevision(number, entry.Note ?? "", entry.Who, at, document, null);
            return DocumentReader.Read<VariantState>(state, draft: true).Document is { } variant
                ? new DroppedRevision(number, entry.Note ?? "", entry.Who, at, null, variant)
                : null;
        }

        private void TakeLoose(DroppedFile file)
        {
            if (!IsJson(file.Bytes.Span))
            {
                var kind = Recognition.Of(file.Path, file.Bytes.Span);
                Loose.Add(new LooseFile(file.Path, kind, kind == LooseKind.NotOurs ? "It is nothing that Mill Card reads." : ""));
            }
            else if (Exchange.Parsed(file.Bytes) is not { } json)
                Loose.Add(new LooseFile(file.Path, LooseKind.Damaged, "It begins like JSON and is broken or cut short."));
            else if (Exchange.Of(json) is { } read) Documents.Add(new DroppedDocument(file.Path, null, null, read));
            else if (Answered(json) is { } answer) Documents.Add(new DroppedDocument(file.Path, null, answer.Id, answer.Read));
            else Loose.Add(new LooseFile(file.Path, LooseKind.NotOurs, "It is JSON, but names no schema that is known here."));
        }

        /// <summary>What the server answers when it is asked for a document: the document with its id.</summary>
        private static (Guid? Id, ExchangedDocument Read)? Answered(JsonElement json) =>
            json.ValueKind == JsonValueKind.Object && json.TryGetProperty("document", out var document) && Exchange.Of(document) is { } read
                ? (json.TryGetProperty("id", out var id) && id.ValueKind == JsonValueKind.String && id.TryGetGuid(out var known) ? known
                    : null,
                    read) : null;

        private static List<T> Listed<TKey, T>(Dictionary<TKey, List<T>> of, TKey key) where TKey : notnull =>
            of.TryGetValue(key, out var list) ? list : of[key] = [];

        private static string SaidOf(PacketManifest manifest) => string.Join(", ", new[]
        {
            manifest.Who is { Length: > 0 } who ? $"packed by {who}" : "",
            manifest.At is { } at ? Invariant($"on {at.UtcDateTime:d MMMM yyyy}") : "",
        }.Where(s => s.Length > 0)) + (manifest.Why is { Length: > 0 } why ? $": {why}" : "");

        private static bool IsJson(ReadOnlySpan<byte> file) =>
            MeshFile.StartsWith(file, "{"u8) || MeshFile.StartsWith(file, "[{"u8) || MeshFile.StartsWith(file, "[]"u8);

        /// <summary>The file as JSON, where its schema begins so.</summary>
        private static JsonElement? Named(DroppedFile file, string schema) => file.Bytes.Length <= Exchange.MostBytes
            && Exchange.Parsed(file.Bytes) is { } json && TextOf(json, "schema").StartsWith(schema, StringComparison.Ordinal) ? json : null;

        private static IEnumerable<JsonElement> Members(JsonElement json, string name) => json.ValueKind == JsonValueKind.Object
            && json.TryGetProperty(name, out var list) && list.ValueKind == JsonValueKind.Array ? list.EnumerateArray() : [];

        private static string TextOf(JsonElement json, string name) => json.ValueKind == JsonValueKind.Object
            && json.TryGetProperty(name, out var text) && text.ValueKind == JsonValueKind.String ? text.GetString()! : "";
    }
}
