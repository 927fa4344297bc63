using Microsoft.AspNetCore.Http.HttpResults;
using MillCard.Core.Documents;
using MillCard.Core.Files;
using MillCard.Core.Meshes;
using MillCard.Core.Packets;
using MillCard.Store;
using MillCard.Web.Http;
using MillCard.Web.Work;

namespace MillCard.Web.Endpoints;

/// <summary>Packets: documents saved as a zip; anything that is dropped, reviewed, and taken in only when somebody says so.</summary>
/// <remarks>Nothing that was dropped is kept between the calls: what is reviewed is sent again to be taken.</remarks>
internal static class PacketEndpoints
{
    /// <summary>What to pack.</summary>
    internal sealed record PacketWish : OpenRecord
    {
        /// <summary>Ids of the documents; what they need comes along. All there are, where nothing is said.</summary>
        [Field("documents", Most = 2000)] public IReadOnlyList<Guid>? Documents { get; init; }
        /// <summary>Whether revisions, variants and prints with their pictures come along.</summary>
        public bool History { get; init; }
        /// <summary>Who packs it.</summary>
        [Field("who", Most = 120)] public string? Who { get; init; }
        /// <summary>What it is for.</summary>
        [Field("why", Most = 1000)] public string? Why { get; init; }
    }

    /// <summary>The files that were dropped, their paths as their names; a field <c>take</c> for each document to take.</summary>
    internal sealed class PacketForm
    {
        /// <summary>The files.</summary>
        public required IFormFileCollection Files { get; init; }
        /// <summary>Paths of the documents to take; of the one file that is asked for.</summary>
        public IReadOnlyList<string> Take { get; init; } = [];
    }

    /// <summary>What was dropped, told apart and held against what is here.</summary>
    /// <param name="Documents">Cards, filaments, recipes and trials.</param>
    /// <param name="Loose">What else there is: what leads elsewhere, what is damaged, what is not ours.</param>
    internal sealed record PacketReview(IReadOnlyList<ReviewedDocument> Documents, IReadOnlyList<LooseFile> Loose);

    private const int Piece = 81920;

    public static void MapPackets(this IEndpointRouteBuilder api)
    {
        var packets = api.MapGroup("/packets").WithTags("Packets");

        packets.MapPost("", async Task<Results<FileStreamHttpResult, JsonHttpResult<Refusal>>> (HttpRequest request, PacketStore store,
            TimeProvider clock, CancellationToken stop) =>
        {
            var reading = await request.ReadDocumentAsync<PacketWish>(Bounds.Document, draft: false, stop);
            if (reading.Document is not { } wish) return Refusal.Fields(reading.Errors);
            return await PackedAsync(wish, store, clock, stop) is { } packet ? TypedResults.Stream(packet, "application/zip", "packet.zip")
                : Refusal.Missing("What was to be packed");
        })
            .Accepts<PacketWish>("application/json").Produces<Refusal>(422, Refusal.MediaType).Produces<Refusal>(404, Refusal.MediaType)
            .WithSummary("Saves documents as a packet, a zip, with what they need");

        packets.MapPost("/review", async Task<Results<Ok<PacketReview>, JsonHttpResult<Refusal>>> (HttpRequest request, PacketStore store,
            WorkQueue queue, CancellationToken stop) =>
        {
            if (await request.ReadDroppedAsync(stop) is not { } dropped) return Refusal.NoForm();
            var (contents, unreadable, loose) = await queue.BySizeAsync(Size(dropped.Files), left => Read(dropped.Files, left), stop);
            return TypedResults.Ok(new PacketReview(await store.ReviewAsync(contents, unreadable, stop), loose));
        })
            .Accepts<PacketForm>("multipart/form-data").Produces<Refusal>(422, Refusal.MediaType).Produces<Refusal>(413, Refusal.MediaType)
            .WithSummary("Tells apart what was dropped and holds it against what is here; nothing is kept");

        packets.MapPost("/take", async Task<Results<Ok<IReadOnlyList<TakenDocument>>, JsonHttpResult<Refusal>>> (HttpRequest request,
            PacketStore store, WorkQueue queue, CancellationToken stop) =>
        {
            if (await request.ReadDroppedAsync(stop) is not { } dropped) return Refusal.NoForm();
            var contents = await queue.BySizeAsync(Size(dropped.Files), left => PacketContents.Of(dropped.Files, left), stop);
            var chosen = TakenOf(dropped);
            var missing = chosen.Except(contents.Documents.Select(d => d.Path)).FirstOrDefault();
            if (missing is not null) return Refusal.Sentence(422, "It cannot be taken.",
                $"There is no document {missing} in what was dropped.");
            try
            {
                return TypedResults.Ok(await store.TakeAsync(contents, chosen.ToHashSet(StringComparer.Ordinal), stop));
            }
            catch (NotTakenException why)
            {
                return Refusal.Sentence(422, "Nothing was taken.", why.Message);
            }
        })
            .Accepts<PacketForm>("multipart/form-data").Produces<Refusal>(422, Refusal.MediaType).Produces<Refusal>(413, Refusal.MediaType)
            .WithSummary("Takes what was chosen of what was dropped: all of it, or nothing");

        packets.MapPost("/file", async Task<Results<FileContentHttpResult, JsonHttpResult<Refusal>>> (HttpRequest request, WorkQueue queue,
            CancellationToken stop) =>
        {
            if (await request.ReadDroppedAsync(stop) is not { } dropped) return Refusal.NoForm();
            var (files, _) = await queue.BySizeAsync(Size(dropped.Files), left => Unpacking.Of(dropped.Files, left), stop);
            return files.FirstOrDefault(f => TakenOf(dropped).Contains(f.Path)) is { } file
                ? TypedResults.Bytes(file.Bytes.ToArray(), "application/octet-stream") : Refusal.Missing("This file");
        })
            .Accepts<PacketForm>("multipart/form-data").Produces<Refusal>(404, Refusal.MediaType).Produces<Refusal>(413, Refusal.MediaType)
            .WithSummary("One file out of the zips that were dropped");
    }

    /// <summary>The packet as a file that goes when it is closed; null where it would be empty. It may hold many large meshes: it is not
    /// built in memory.</summary>
    private static async Task<FileStream?> PackedAsync(PacketWish wish, PacketStore store, TimeProvider clock, CancellationToken stop)
    {
        var file = new FileStream(Path.Combine(Path.GetTempPath(), Path.GetRandomFileName()), FileMode.CreateNew, FileAccess.ReadWrite,
            FileShare.None, Piece, FileOptions.DeleteOnClose);
        var isFull = false;
        try
        {
            using (var packet = new PacketWriter(file, clock.GetUtcNow()))
            {
                isFull = await store.PackAsync(wish.Documents?.ToHashSet(), wish.History, packet, stop) > 0;
                packet.End(wish.Who, wish.Why);
            }
            file.Position = 0;
            return isFull ? file : null;
        }
        finally
        {
            if (!isFull) await file.DisposeAsync();
        }
    }

    private static string[] TakenOf(DroppedForm dropped) => [.. dropped.Form["take"].OfType<string>()];

    private static long Size(IReadOnlyList<DroppedFile> files) => files.Sum(f => (long)f.Bytes.Length);

    /// <summary>What was dropped; why meshes of packets cannot be read; and the loose files, of whose meshes is said what they
    /// are.</summary>
    private static (PacketContents Contents, IReadOnlyDictionary<string, string> Unreadable, IReadOnlyList<LooseFile> Loose) Read(
        IReadOnlyList<DroppedFile> dropped, CancellationToken stop)
    {
        var contents = PacketContents.Of(dropped, stop);
        var unreadable = new Dictionary<string, string>();
        foreach (var (hash, blob) in contents.Blobs.Where(b => PictureFile.TypeOf(b.Value.Bytes.Span) is null))
            if (MeshOf(blob.Bytes, stop) is (_, { } why)) unreadable[hash] = why;
        var meshes = contents.Loose.Where(l => l.Kind == LooseKind.Mesh).Select(l => l.Path).ToHashSet(StringComparer.Ordinal);
        if (meshes.Count == 0) return (contents, unreadable, contents.Loose);
        var files = Unpacking.Of(dropped, stop).Files.Where(f => meshes.Contains(f.Path)).ToLookup(f => f.Path, f => f.Bytes);
        return (contents, unreadable, [.. contents.Loose.Select(l => l.Kind == LooseKind.Mesh ? Looked(l, files[l.Path].First(), stop)
            : l)]);
    }

    private static LooseFile Looked(LooseFile loose, ReadOnlyMemory<byte> bytes, CancellationToken stop) => MeshOf(bytes, stop) switch
    {
        (_, { } why) => loose with { Kind = LooseKind.Damaged, Says = why },
        (var faces, _) => loose with { Says = Invariant($"{faces} faces") },
    };

    private static (int Faces, string? Why) MeshOf(ReadOnlyMemory<byte> bytes, CancellationToken stop)
    {
        try
        {
            return (MeshFile.Read(bytes, stop).Sum(p => p.Mesh.FaceCount), null);
        }
        catch (MeshRefusedException refused)
        {
            return (0, refused.Message);
        }
    }
}
