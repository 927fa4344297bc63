using System.Globalization;
using System.Text.Json;
using System.Text.Json.Nodes;
using MillCard.Core.Documents;
using MillCard.Core.Records;
using MillCard.Store;

namespace MillCard.Web.Hosting;

/// <summary>Fills a new database with the workshop of the field station.</summary>
/// <remarks>A folder with <c>demo.json</c>: an id for each document's file, with a card's revisions and prints. Trials name their mesh
/// files; the database names their hashes. A revision is the document with values that were otherwise then; a pointer to null takes a
/// member away.</remarks>
internal sealed class DemoData(MillCardContext context, BlobStore blobs, TimeProvider clock)
{
    private const string Done = "demo data";

    /// <summary>A document of the demo.</summary>
    internal sealed record Entry(Guid Id, string File)
    {
        /// <summary>Of a card, the oldest first.</summary>
        public IReadOnlyList<FixedState> Revisions { get; init; } = [];
        /// <summary>Of a card.</summary>
        public IReadOnlyList<Printed> Prints { get; init; } = [];
    }

    /// <summary>A revision of a card.</summary>
    internal sealed record FixedState(string Note, double DaysAgo)
    {
        /// <summary>Who fixed it.</summary>
        public string? Who { get; init; }
        /// <summary>What was otherwise then, by pointers; null for a member that was not there.</summary>
        public IReadOnlyDictionary<string, JsonNode?> Otherwise { get; init; } = new Dictionary<string, JsonNode?>();
        /// <summary>The trial that proves it; null for none.</summary>
        public Guid? Proved { get; init; }
        /// <summary>What has changed of that trial since, by pointers.</summary>
        public IReadOnlyDictionary<string, JsonNode?> Since { get; init; } = new Dictionary<string, JsonNode?>();
    }

    /// <summary>A real print with its picture, a file of the folder.</summary>
    internal sealed record Printed(PrintRecord Record, double DaysAgo, string? Picture);

    /// <summary>What the folder holds.</summary>
    internal static async Task<Entry[]> EntriesAsync(string folder, CancellationToken stop) =>
        JsonSerializer.Deserialize<Entry[]>(await File.ReadAllBytesAsync(Path.Combine(folder, "demo.json"), stop), DocumentJson.Options)!;

    /// <summary>Does nothing where it was done before, even if the documents were deleted since.</summary>
    public async Task SeedOnceAsync(string folder, CancellationToken stop)
    {
        if (await context.Done.FindAsync([Done], stop) is not null) return;
        await using var whole = await context.Database.BeginTransactionAsync(stop);
        foreach (var entry in await EntriesAsync(folder, stop)) await AddAsync(folder, entry, stop);
        context.Done.Add(new DoneRow { Name = Done, At = clock.GetUtcNow() });
        await context.SaveChangesAsync(stop);
        await whole.CommitAsync(stop);
    }

    private async Task AddAsync(string folder, Entry entry, CancellationToken stop)
    {
        var json = JsonNode.Parse(await File.ReadAllBytesAsync(Path.Combine(folder, entry.File), stop))!.AsObject();
        switch ((string?)json["schema"])
        {
            case Card.SchemaName:
                await KeepAsync<Card>(entry.Id, json, stop);
                await LivedInAsync(folder, entry, json, stop);
                break;
            case Filament.SchemaName: await KeepAsync<Filament>(entry.Id, json, stop); break;
            case Recipe.SchemaName: await KeepAsync<Recipe>(entry.Id, json, stop); break;
            case Trial.SchemaName:
                foreach (var part in json["parts"]?.AsArray().OfType<JsonObject>() ?? [])
                    part["file"] = await blobs.KeepAsync(
                        await File.ReadAllBytesAsync(Path.Combine(folder, "parts", (string)part["file"]!), stop), "model/stl", stop);
                await KeepAsync<Trial>(entry.Id, json, stop);
                break;
            default: throw new BrokenDemoException($"{entry.File} names no schema that is known.");
        }
    }

    private async Task KeepAsync<T>(Guid id, JsonObject json, CancellationToken stop) where T : class, IDocument
    {
        await new DocumentStore<T>(context, clock).AddAsync(id, Read<T>(json), stop);
    }

    /// <summary>Reads a document, some of whose values are others.</summary>
    internal static T Read<T>(JsonObject json, IReadOnlyDictionary<string, JsonNode?>? otherwise = null) where T : class, IDocument
    {
        var changed = json.DeepClone();
        foreach (var (pointer, value) in otherwise ?? new Dictionary<string, JsonNode?>())
        {
            var at = JsonPointer.Parse(pointer);
            var holder = at.Parent!.Value.Steps.Aggregate(changed, (node, step) => node is JsonArray list ? list[int.Parse(step,
                CultureInfo.InvariantCulture)]! : node[step]!).AsObject();
            if (value is null) holder.Remove(at.Last);
            else holder[at.Last] = value.DeepClone();
        }
        var reading = DocumentReader.Read<T>(JsonSerializer.SerializeToElement(changed), draft: true);
        return reading.Document ?? throw new BrokenDemoException($"A demo document breaks its schema: {reading.Errors[0].Message}");
    }

    /// <summary>The revisions of a card and its prints.</summary>
    private async Task LivedInAsync(string folder, Entry entry, JsonObject json, CancellationToken stop)
    {
        foreach (var (i, state) in entry.Revisions.Index())
            context.Revisions.Add(new RevisionRow
            {
                DocumentId = entry.Id,
                Number = i + 1,
                Document = JsonSerializer.Serialize(Read<Card>(json, state.Otherwise), DocumentJson.Options),
                Note = state.Note,
                Who = state.Who,
                At = clock.GetUtcNow().AddDays(-state.DaysAgo),
            });
        foreach (var print in entry.Prints)
            context.Prints.Add(new PrintRow
            {
                Id = Guid.CreateVersion7(),
                CardId = entry.Id,
                Record = JsonSerializer.Serialize(print.Record, DocumentJson.Options),
                Picture = print.Picture is { } picture
                    ? await blobs.KeepAsync(await File.ReadAllBytesAsync(Path.Combine(folder, picture), stop), "image/png", stop) : null,
                At = clock.GetUtcNow().AddDays(-print.DaysAgo),
            });
        await context.SaveChangesAsync(stop);
    }

    /// <summary>A file of the demo data is not what the application takes.</summary>
    internal sealed class BrokenDemoException(string message) : Exception(message);
}
