using System.Text.Json;
using System.Text.Json.Nodes;
using MillCard.Core.Documents;
using MillCard.Store;

namespace MillCard.Web.Hosting;

/// <summary>Fills a new database with the workshop of the field station.</summary>
/// <remarks>A folder with <c>demo.json</c>: an id for each document's file. Trials name their mesh files; the database names their
/// hashes.</remarks>
internal sealed class DemoData(MillCardContext context, BlobStore blobs, TimeProvider clock)
{
    private const string Done = "demo data";

    private sealed record Entry(Guid Id, string File);

    /// <summary>Does nothing where it was done before, even if the documents were deleted since.</summary>
    public async Task SeedOnceAsync(string folder, CancellationToken stop)
    {
        if (await context.Done.FindAsync([Done], stop) is not null) return;
        await using var whole = await context.Database.BeginTransactionAsync(stop);
        foreach (var entry in JsonSerializer.Deserialize<Entry[]>(await File.ReadAllBytesAsync(Path.Combine(folder, "demo.json"), stop),
            DocumentJson.Options)!)
            await AddAsync(folder, entry, stop);
        context.Done.Add(new DoneRow { Name = Done, At = clock.GetUtcNow() });
        await context.SaveChangesAsync(stop);
        await whole.CommitAsync(stop);
    }

    private async Task AddAsync(string folder, Entry entry, CancellationToken stop)
    {
        var json = JsonNode.Parse(await File.ReadAllBytesAsync(Path.Combine(folder, entry.File), stop))!.AsObject();
        switch ((string?)json["schema"])
        {
            case Card.SchemaName: await KeepAsync<Card>(entry.Id, json, stop); break;
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
        var reading = DocumentReader.Read<T>(JsonSerializer.SerializeToElement(json), draft: true);
        if (reading.Document is null) throw new BrokenDemoException($"A demo document breaks its schema: {reading.Errors[0].Message}");
        await new DocumentStore<T>(context, clock).AddAsync(id, reading.Document, stop);
    }

    /// <summary>A file of the demo data is not what the application takes.</summary>
    private sealed class BrokenDemoException(string message) : Exception(message);
}
