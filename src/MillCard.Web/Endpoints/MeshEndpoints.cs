using Microsoft.AspNetCore.Http.HttpResults;
using MillCard.Core.Documents;
using MillCard.Core.Files;
using MillCard.Core.Meshes;
using MillCard.Store;
using MillCard.Web.Http;
using MillCard.Web.Trials;
using MillCard.Web.Work;

namespace MillCard.Web.Endpoints;

/// <summary>Mesh files of parts, by hash.</summary>
internal static class MeshEndpoints
{
    private const double DrawnError = 0.05;

    /// <summary>What a page needs to draw a part.</summary>
    /// <param name="Hash">SHA-256 of the file.</param>
    /// <param name="Faces">Number of faces.</param>
    /// <param name="OpenEdges">Edges with no partner; 0 for a closed mesh.</param>
    /// <param name="Size">Width, depth, height, mm.</param>
    /// <param name="Outline">Rings [x, y] of its projection, its bounding box's middle at (0, 0); true to 0.05 mm.</param>
    internal sealed record MeshFacts(string Hash, int Faces, int OpenEdges, double[] Size, double[][][] Outline)
    {
        /// <summary>Faces that stood in the file more than once and were taken once.</summary>
        public int RepeatedFaces { get; init; }
        /// <summary>How far beyond what it truly covers its outline may be told, mm: more than 0 for heaps of very many crossing
        /// faces.</summary>
        public double OutlineBeyond { get; init; }
        /// <summary>Its name in the file; null where it has none.</summary>
        public string? Name { get; init; }
        /// <summary>Middle of its bounding box in X and Y, and its lowest Z, as the file has it, mm; null where no file was sent.</summary>
        public double[]? At { get; init; }
    }

    public static void MapMeshes(this IEndpointRouteBuilder api)
    {
        var meshes = api.MapGroup("/meshes").WithTags("Parts");

        meshes.MapPost("", async (HttpRequest request, BlobStore blobs, MeshShelf shelf, WorkQueue queue, CancellationToken stop) =>
        {
            var file = await request.ReadAsync(Bounds.Mesh, stop);
            var parts = await queue.BySizeAsync(file.Length, left => MeshFile.Read(file, left), stop);
            var answers = new List<MeshFacts>();
            foreach (var part in parts)
            {
                // every part of a file is kept as a file of its own, so that it can be named, moved and deleted alone
                var hash = await blobs.KeepAsync(parts.Count == 1 && Stl.Is(file) ? file : Stl.Write(part.Mesh), "model/stl", stop);
                shelf.Put(hash, part.Mesh);
                var box = part.Mesh.Box;
                answers.Add(Facts(hash, await shelf.TakeAsync(hash, Stance.Upright, blobs, stop)) with
                {
                    Name = part.Name,
                    At = [(box.MinX + box.MaxX) / 2, (box.MinY + box.MaxY) / 2, box.MinZ],
                });
            }
            return TypedResults.Ok(answers);
        })
            .Produces<Refusal>(422, Refusal.MediaType).Produces<Refusal>(413, Refusal.MediaType)
            .WithSummary("Keeps the parts of a mesh file (STL, 3MF, OBJ, AMF); the body is the file");

        meshes.MapGet("/{hash}", async Task<Results<Ok<MeshFacts>, JsonHttpResult<Refusal>>> (
            string hash, BlobStore blobs, MeshShelf shelf, CancellationToken stop, double scaleX = 1, double scaleY = 1, double scaleZ = 1,
                bool mirrored = false, double tiltX = 0, double tiltY = 0, double lift = 0) =>
        {
            var (scale, tilt) = (ScaleOf(scaleX, scaleY, scaleZ, mirrored), new Tilt { X = tiltX, Y = tiltY });
            if (Unfit(scale, tilt) is { } refusal) return refusal;
            return TypedResults.Ok(Facts(hash, await shelf.TakeAsync(hash, new Stance(scale, tilt, lift), blobs, stop)));
        })
            .Produces<Refusal>(422, Refusal.MediaType).WithSummary("What a page needs to draw a part, in a scale and a tilt");

        meshes.MapGet("/{hash}/solid", async Task<FileContentHttpResult> (
            string hash, BlobStore blobs, MeshShelf shelf, WorkQueue queue, HttpResponse response, CancellationToken stop) =>
        {
            var mesh = await shelf.AsReadAsync(hash, blobs, stop);
            // a view waits for it, and it is quick: it does not stand in line behind slices
            var file = await queue.BySizeAsync(0, left => SolidFile.Write(mesh, left), stop);
            response.Headers.CacheControl = "private, max-age=604800, immutable";
            return TypedResults.Bytes(file, "application/octet-stream");
        })
            .Produces<Refusal>(422, Refusal.MediaType)
            .WithSummary("The corners, faces and edges of a part as its file has them, cut down where they are very many; binary");

        meshes.MapGet("/{hash}/sides", async Task<Results<Ok<IReadOnlyList<FlatSide>>,
            JsonHttpResult<Refusal>>> (string hash, BlobStore blobs, MeshShelf shelf, WorkQueue queue, CancellationToken stop,
            double scaleX = 1, double scaleY = 1, double scaleZ = 1, bool mirrored = false) =>
        {
            var scale = ScaleOf(scaleX, scaleY, scaleZ, mirrored);
            if (Unfit(scale, new Tilt()) is { } refusal) return refusal;
            var mesh = await shelf.AsReadAsync(hash, blobs, stop);
            return TypedResults.Ok(await queue.BySizeAsync(MeshShelf.SizeOf(mesh),
                _ => FlatSides.Of(Placement.Oriented(mesh, scale, null)), stop));
        })
            .Produces<Refusal>(422, Refusal.MediaType).WithSummary("The flat sides on which a part can stand, largest first");

        meshes.MapGet("/{hash}/standing", async Task<Results<Ok<Tilt>, JsonHttpResult<Refusal>>> (string hash, int face, BlobStore blobs,
            MeshShelf shelf, CancellationToken stop, double scaleX = 1, double scaleY = 1, double scaleZ = 1, bool mirrored = false) =>
        {
            var scale = ScaleOf(scaleX, scaleY, scaleZ, mirrored);
            if (Unfit(scale, new Tilt()) is { } refusal) return refusal;
            var mesh = await shelf.AsReadAsync(hash, blobs, stop);
            return FlatSides.OnFace(mesh, scale, face) is { } tilt ? TypedResults.Ok(tilt)
                : Refusal.Fields([new FieldError(JsonPointer.Root / "face", FieldProblem.OutOfRange,
                    $"There is no face {face} to stand on; the part has {mesh.FaceCount}.", $"0 to {mesh.FaceCount - 1}")]);
        })
            .Produces<Refusal>(422, Refusal.MediaType).WithSummary("The tilt that sets a part on one of its faces");

        meshes.MapGet("/{hash}/undersides", async Task<Results<Ok<IReadOnlyList<Underside>>, JsonHttpResult<Refusal>>> (
            string hash, BlobStore blobs, MeshShelf shelf, WorkQueue queue, CancellationToken stop, double scaleX = 1, double scaleY = 1,
                double scaleZ = 1, bool mirrored = false, double tiltX = 0, double tiltY = 0) =>
        {
            var (scale, tilt) = (ScaleOf(scaleX, scaleY, scaleZ, mirrored), new Tilt { X = tiltX, Y = tiltY });
            if (Unfit(scale, tilt) is { } refusal) return refusal;
            var mesh = await shelf.AsReadAsync(hash, blobs, stop);
            return TypedResults.Ok(await queue.BySizeAsync(MeshShelf.SizeOf(mesh),
                _ => Undersides.Of(Placement.Oriented(mesh, scale, tilt)), stop));
        })
            .Produces<Refusal>(422, Refusal.MediaType)
                .WithSummary("The undersides of a part as it is tilted, largest first, with their faces");
    }

    private static PartScale ScaleOf(double x, double y, double z, bool mirrored) => new() { X = x, Y = y, Z = z, Mirrored = mirrored };

    /// <summary>A scale or a tilt from a query, held to what a part of a trial may have.</summary>
    private static JsonHttpResult<Refusal>? Unfit(PartScale scale, Tilt tilt) => Numbers.Unfit(scale) ?? Numbers.Unfit(tilt);

    private static MeshFacts Facts(string hash, ShelvedMesh mesh)
    {
        var box = mesh.Footprints.Box;
        return new MeshFacts(hash, mesh.Mesh.FaceCount, mesh.Footprints.OpenEdges,
            [box.MaxX - box.MinX, box.MaxY - box.MinY, box.MaxZ - box.MinZ],
            Rings.Of(mesh.Footprints.Whole, DrawnError))
        { RepeatedFaces = mesh.Mesh.RepeatedFaces, OutlineBeyond = mesh.Footprints.Beyond };
    }
}
