using System.Globalization;
using System.Text.Json;
using Microsoft.EntityFrameworkCore;
using MillCard.Core.Documents;
using MillCard.Core.Packets;
using MillCard.Core.Records;

namespace MillCard.Store;

/// <summary>Takes documents in that came from outside: all of what was chosen, or nothing.</summary>
public sealed class PacketStore(MillCardContext context, BlobStore blobs, TimeProvider clock)
{
    /// <summary>Holds what was dropped against what is here. Nothing is kept.</summary>
    /// <param name="contents">What was dropped.</param>
    /// <param name="unreadable">Why meshes of the packet cannot be read, by checksum.</param>
    /// <param name="stop">Ends the wait.</param>
    public async Task<IReadOnlyList<ReviewedDocument>> ReviewAsync(PacketContents contents, IReadOnlyDictionary<string, string> unreadable,
        CancellationToken stop)
    {
        var here = await HereAsync(contents, stop);
        var (there, first) = (contents.Documents.Where(d => d.Read.Document is not null).Select(d => d.Id).OfType<Guid>().ToHashSet(),
            new Dictionary<(string Kind, string Json), string>());
        return [.. contents.Documents.Select(d => Review(d, contents, here, there, first, unreadable))];
    }

    /// <summary>Takes what was chosen, with its revisions, prints and files.</summary>
    /// <param name="contents">What was dropped.</param>
    /// <param name="chosen">Paths of the documents to take.</param>
    /// <param name="stop">Ends the wait; nothing is kept then.</param>
    /// <exception cref="NotTakenException">One of them cannot be taken.</exception>
    public async Task<IReadOnlyList<TakenDocument>> TakeAsync(PacketContents contents, IReadOnlySet<string> chosen, CancellationToken stop)
    {
        await using var whole = await context.Database.BeginTransactionAsync(stop);
        var here = await HereAsync(contents, stop);
        DroppedDocument[] taken = [.. contents.Documents.Where(d => chosen.Contains(d.Path))];
        foreach (var document in taken)
            if (document.Read.Document is null) throw new NotTakenException($"{document.Path}: {document.Read.Why}");
        var ids = new Dictionary<DroppedDocument, Guid>(ReferenceEqualityComparer.Instance);
        foreach (var document in taken)
            ids[document] = document.Id is { } id && here.Ids.Add(id) ? id : Guid.CreateVersion7(clock.GetUtcNow());
        var referred = new References(contents, here, ids);
        var answers = new List<TakenDocument>();
        // what trials refer to goes first
        foreach (var document in taken.OrderBy(d => d.Read.Document is Trial))
        {
            var made = document.Read.Document is Trial trial ? referred.Of(trial, document) : document.Read.Document!;
            if (made is Trial { Card: { } card } && !referred.IsThere(card))
                throw new NotTakenException($"{document.Path}: the card of this trial is neither here nor among what is taken.");
            if (made.Name is { Length: > 0 } name)
                made = Exchange.Named(made, here.FreeName(name, document.Read.Kind, (made as Trial)?.Card));
            answers.Add(await KeepAsync(document, made, ids[document], contents, referred, stop));
        }
        await whole.CommitAsync(stop);
        return answers;
    }

    /// <summary>Writes a packet of documents that are here, with what they need.</summary>
    /// <param name="wanted">Ids of the documents; null for all that are on the shelf or put away.</param>
    /// <param name="history">Whether revisions, variants and prints come along.</param>
    /// <param name="packet">The packet; it is not ended.</param>
    /// <param name="stop">Ends it.</param>
    /// <returns>How many documents went in.</returns>
    public async Task<int> PackAsync(IReadOnlySet<Guid>? wanted, bool history, PacketWriter packet, CancellationToken stop)
    {
        var here = context.Documents.AsNoTracking().Where(d => d.Place != DocumentPlace.Bin);
        Guid[] asked = [.. wanted ?? new HashSet<Guid>()];
        var packed = await (wanted is null ? here : here.Where(d => asked.Contains(d.Id))).ToListAsync(stop);
        Trial[] trials = [.. packed.Where(r => r.Kind == Trial.Kind)
            .Select(r => JsonSerializer.Deserialize<Trial>(r.Draft, DocumentJson.Options)!)];
        Guid[] needed = [.. trials.SelectMany(Exchange.References).Select(r => r.Id).Except(packed.Select(r => r.Id))];
        packed.AddRange(await here.Where(d => needed.Contains(d.Id)).ToListAsync(stop));
        packed = [.. packed.OrderBy(d => d.Kind).ThenBy(d => d.Name, StringComparer.Ordinal).ThenBy(d => d.Id)];
        var files = trials.SelectMany(Exchange.FilesOf).Select(f => f.Hash).ToHashSet(StringComparer.Ordinal);
        foreach (var row in packed)
        {
            packet.Document(row.Id, row.Kind, row.Name, row.Draft, row.Place == DocumentPlace.Archive);
            if (history) files.UnionWith(await PackPastAsync(row, packet, stop));
        }
        foreach (var hash in files.Order(StringComparer.Ordinal))
            if (await blobs.FindAsync(hash, stop) is { } blob) packet.File(hash, blob.Bytes, blob.MediaType);
        return packed.Count;
    }

    /// <summary>The past of a document; answers with the files that it names.</summary>
    private async Task<IEnumerable<string>> PackPastAsync(DocumentRow row, PacketWriter packet, CancellationToken stop)
    {
        var files = new List<string>();
        var states = context.Revisions.AsNoTracking().Where(r => r.DocumentId == row.Id).OrderBy(r => r.Number);
        foreach (var past in await states.ToListAsync(stop))
        {
            packet.Revision(row.Id, row.Name, past.Number, past.Note, past.Who, past.At, past.Document);
            if (row.Kind == Trial.Kind)
                files.AddRange(Exchange.FilesOf(JsonSerializer.Deserialize<VariantState>(past.Document, DocumentJson.Options)!.Trial)
                    .Select(f => f.Hash));
        }
        foreach (var print in await context.Prints.AsNoTracking().Where(p => p.CardId == row.Id).OrderBy(p => p.At).ToListAsync(stop))
        {
            packet.Print(row.Id, row.Name, print.At, print.Record, print.Picture);
            if (print.Picture is { } picture) files.Add(picture);
        }
        return files;
    }

    private async Task<TakenDocument> KeepAsync(DroppedDocument document, IDocument made, Guid id, PacketContents contents,
        References referred, CancellationToken stop)
    {
        var now = clock.GetUtcNow();
        var row = new DocumentRow
        {
            Id = id,
            Kind = document.Read.Kind,
            Name = "",
            Draft = "",
            CreatedAt = now,
            Place = document.PutAway ? DocumentPlace.Archive : DocumentPlace.Shelf,
        };
        row.Hold(made, now);
        context.Documents.Add(row);
        foreach (var revision in document.Revisions)
            context.Revisions.Add(new RevisionRow
            {
                DocumentId = id,
                Number = revision.Number,
                Document = revision.Variant is { } variant
                    ? JsonSerializer.Serialize(variant with { Trial = referred.Of(variant.Trial, document) }, DocumentJson.Options)
                    : Exchange.JsonOf(revision.Document!),
                Note = revision.Note,
                Who = revision.Who,
                At = revision.At.ToUniversalTime(),
            });
        string[] files = [.. new[] { made as Trial }.Concat(document.Revisions.Select(r => r.Variant?.Trial)).OfType<Trial>()
            .SelectMany(Exchange.FilesOf).Select(f => f.Hash).Concat(document.Prints.Select(p => p.Picture).OfType<string>()).Distinct()];
        foreach (var hash in files)
            if (contents.Blobs.TryGetValue(hash, out var file)) await blobs.KeepAsync(file.Bytes.ToArray(), file.MediaType, stop);
        foreach (var print in document.Prints)
            context.Prints.Add(new PrintRow
            {
                Id = Guid.CreateVersion7(clock.GetUtcNow()),
                CardId = id,
                Record = JsonSerializer.Serialize(print.Record with
                {
                    Trial = print.Record.Trial is { } of ? referred.To(of, document) : null,
                }, DocumentJson.Options),
                Picture = print.Picture,
                At = print.At.ToUniversalTime(),
            });
        await context.SaveChangesAsync(stop);
        return new TakenDocument(document.Path, document.Read.Kind, id, row.Name);
    }

    /// <param name="dropped">The document.</param>
    /// <param name="contents">What was dropped.</param>
    /// <param name="here">What is here.</param>
    /// <param name="there">Ids of all documents that were dropped.</param>
    /// <param name="first">Paths of those that were reviewed before, by what they say.</param>
    /// <param name="unreadable">Why meshes cannot be read, by checksum.</param>
    private static ReviewedDocument Review(DroppedDocument dropped, PacketContents contents, Here here, HashSet<Guid> there,
        Dictionary<(string Kind, string Json), string> first, IReadOnlyDictionary<string, string> unreadable)
    {
        var (read, name) = (dropped.Read, dropped.Read.Document?.Name ?? "");
        ReviewedDocument Told(Standing standing, string says, HereDocument? against = null, IReadOnlyList<string>? notes = null) => new(
            dropped.Path, read.Kind, name, standing, says, notes ?? [], against?.Id, against?.Name,
            // only what is held against another is wanted whole
            standing == Standing.Different ? JsonDocument.Parse(Exchange.JsonOf(read.Document!)).RootElement : null,
                dropped.Revisions.Count,
            dropped.Prints.Count);
        if (read.Document is not { } document) return Told(Standing.Damaged, read.Why);
        var text = Exchange.JsonOf(document);
        if (!first.TryAdd((read.Kind, text), dropped.Path))
            return Told(Standing.Repeated, $"It is the same as {first[(read.Kind, text)]}.");
        var json = JsonDocument.Parse(text).RootElement;
        var notes = new List<string>();
        if (Exchange.IsNewer(read)) notes.Add($"It was written by a newer Mill Card (version {read.Version} of its schema).");
        if (read.Unknown.Count > 0)
            notes.Add($"Not understood here, kept as they are: {string.Join(", ", read.Unknown)}.");
        if (document is Trial trial)
        {
            bool IsThere(Guid id) => here.Documents.ContainsKey(id) || there.Contains(id);
            if (trial.Card is { } card && !IsThere(card))
                return Told(Standing.Damaged, "Its card is neither here nor among what was dropped; drop both together.");
            notes.AddRange(Exchange.References(trial).Where(r => !IsThere(r.Id))
                .Select(r => $"Its {r.What} is neither here nor among what was dropped."));
            foreach (var (of, hash) in Exchange.FilesOf(trial).Where(f => !here.Files.Contains(f.Hash)))
            {
                if (!contents.Blobs.ContainsKey(hash)) notes.Add($"The mesh of {of} is neither here nor among what was dropped.");
                else if (unreadable.TryGetValue(hash, out var why)) notes.Add($"The mesh of {of} cannot be read: {why}");
            }
        }
        var against = here.Like(read.Kind, dropped.Id, name, json);
        if (against is null) return Told(Standing.New, "", against, notes);
        return Told(IsSame(against.Json, json) ? Standing.Same : Standing.Different, "", against, notes);
    }

    private static bool IsSame(JsonElement a, JsonElement b) => Differences.Of(a, b).Count == 0;

    private async Task<Here> HereAsync(PacketContents contents, CancellationToken stop)
    {
        var rows = await context.Documents.AsNoTracking().Where(d => d.Place != DocumentPlace.Bin)
            .Select(d => new { d.Id, d.Kind, d.Name, d.CardId }).ToListAsync(stop);
        var ids = (await context.Documents.Select(d => d.Id).ToListAsync(stop)).ToHashSet();
        Guid[] wantedIds = [.. contents.Documents.Select(d => d.Id).OfType<Guid>()];
        string[] wantedNames = [.. contents.Documents.Select(d => d.Read.Document?.Name ?? "").Distinct()];
        var drafts = await context.Documents.AsNoTracking().Where(d => d.Place != DocumentPlace.Bin
            && (wantedIds.Contains(d.Id) || wantedNames.Contains(d.Name))).Select(d => new { d.Id, d.Draft }).ToListAsync(stop);
        string[] hashes = [.. contents.Documents.SelectMany(d => d.Read.Document is Trial trial ? Exchange.FilesOf(trial) : [])
            .Select(f => f.Hash).Distinct()];
        var files = await context.Blobs.Where(b => hashes.Contains(b.Hash)).Select(b => b.Hash).ToListAsync(stop);
        return new Here(rows.ToDictionary(r => r.Id, r => new Known(r.Kind, r.Name, r.CardId)), ids,
            files.ToHashSet(StringComparer.Ordinal),
            drafts.ToDictionary(d => d.Id, d => JsonDocument.Parse(d.Draft).RootElement));
    }

    private sealed record HereDocument(Guid Id, string Name, JsonElement Json);

    private sealed record Known(string Kind, string Name, Guid? Card);

    /// <summary>What is here already.</summary>
    private sealed record Here(IReadOnlyDictionary<Guid, Known> Documents, HashSet<Guid> Ids,
        IReadOnlySet<string> Files, IReadOnlyDictionary<Guid, JsonElement> Drafts)
    {
        private readonly HashSet<Known> _names = [.. Documents.Values];

        /// <summary>The document that one from outside is: by its id, else by its name; of several of the name the one that is equal.
        /// </summary>
        public HereDocument? Like(string kind, Guid? id, string name, JsonElement json)
        {
            if (id is { } known && Documents.TryGetValue(known, out var own) && own.Kind == kind)
                return new HereDocument(known, own.Name, Drafts[known]);
            var named = Documents.Where(d => name.Length > 0 && d.Value.Kind == kind && d.Value.Name == name).Select(d =>
                new HereDocument(d.Key, name,
                Drafts[d.Key])).ToArray();
            return named.FirstOrDefault(d => IsSame(d.Json, json)) ?? named.FirstOrDefault();
        }

        /// <summary>The name, with a number where one that is here has it; trials of different cards do not meet.</summary>
        public string FreeName(string name, string kind, Guid? card)
        {
            const int Longest = 120;
            for (var (i, free) = (2, name); ; i++)
            {
                if (!_names.Contains(new Known(kind, free, card))) return free;
                var number = string.Create(CultureInfo.InvariantCulture, $" {i}");
                free = name[..Math.Min(name.Length, Longest - number.Length)] + number;
            }
        }
    }

    /// <summary>What references of documents that are taken lead to.</summary>
    private sealed class References(PacketContents contents, Here here, IReadOnlyDictionary<DroppedDocument, Guid> ids)
    {
        /// <summary>The trial with its references led on.</summary>
        public Trial Of(Trial trial, DroppedDocument from) => Exchange.Referring(trial, id => To(id, from));

        /// <summary>Where a reference leads: to what is taken, of its own packet first; else to what is here under its id or is the same;
        /// else nowhere, and it stays.</summary>
        public Guid To(Guid id, DroppedDocument from)
        {
            DroppedDocument[] meant = [.. contents.Documents.Where(d => d.Id == id && d.Read.Document is not null)
                .OrderBy(d => d.Packet != from.Packet)];
            if (meant.FirstOrDefault(ids.ContainsKey) is { } taken) return ids[taken];
            if (here.Documents.ContainsKey(id)) return id;
            foreach (var one in meant)
            {
                var json = JsonDocument.Parse(Exchange.JsonOf(one.Read.Document!)).RootElement;
                if (here.Like(one.Read.Kind, null, one.Read.Document!.Name ?? "", json) is { } like
                    && IsSame(like.Json, json)) return like.Id;
            }
            return id;
        }

        /// <summary>Whether a document is here or is taken.</summary>
        public bool IsThere(Guid id) => here.Documents.ContainsKey(id) || ids.Values.Contains(id);
    }
}
