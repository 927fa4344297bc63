using Microsoft.AspNetCore.Http.HttpResults;
using MillCard.Core.Files;
using MillCard.Store;
using MillCard.Web.Http;
using MillCard.Web.Work;

namespace MillCard.Web.Endpoints;

/// <summary>Outlines taken from files, and pictures of plates.</summary>
internal static class PlateEndpoints
{
    /// <summary>An outline in the file's own unit.</summary>
    /// <param name="Points">Corners [x, y], the front-left corner of the bounding box at (0, 0).</param>
    /// <param name="Size">Along X and Y.</param>
    /// <param name="MillimetresPerUnit">What the file says of its unit; null where it says nothing.</param>
    internal sealed record OutlineAnswer(double[][] Points, double[] Size, double? MillimetresPerUnit);

    internal sealed record PictureAnswer(string Hash);

    public static void MapPlates(this IEndpointRouteBuilder api)
    {
        api.MapPost("/outlines", async (HttpRequest request, WorkQueue queue, CancellationToken stop) =>
        {
            var file = await request.ReadAsync(Bounds.Mesh, stop);
            var outline = await queue.BySizeAsync(file.Length, left => OutlineFile.Read(file, left), stop);
            return TypedResults.Ok(new OutlineAnswer(outline.Points, outline.Size, outline.MillimetresPerUnit));
        })
            .Produces<Refusal>(422, Refusal.MediaType)
                .WithSummary("The outline in SVG path data, an SVG drawing or an STL mesh; the body is the file").WithTags("Computation");

        api.MapPost("/pictures", async Task<Results<Ok<PictureAnswer>,
            JsonHttpResult<Refusal>>> (HttpRequest request, BlobStore blobs, CancellationToken stop) =>
        {
            var file = await request.ReadAsync(Bounds.Picture, stop);
            return TypeOf(file) is { } type
                ? TypedResults.Ok(new PictureAnswer(await blobs.KeepAsync(file, type, stop)))
                : Refusal.Sentence(422, "The file is refused.", "This is neither a PNG nor a JPEG picture.");
        })
            .Produces<Refusal>(422, Refusal.MediaType).WithSummary("Keeps a picture; the body is the file").WithTags("Cards");

        api.MapGet("/pictures/{hash}", async Task<Results<FileContentHttpResult,
            JsonHttpResult<Refusal>>> (string hash, BlobStore blobs, HttpResponse response, CancellationToken stop) =>
        {
            if (await blobs.FindAsync(hash, stop) is not { } row || !row.MediaType.StartsWith("image/", StringComparison.Ordinal))
                return Refusal.Missing("This picture");
            response.Headers.CacheControl = "private, max-age=31536000, immutable";
            return TypedResults.Bytes(row.Bytes, row.MediaType);
        })
            .WithSummary("A picture").WithTags("Cards");
    }

    private static string? TypeOf(ReadOnlySpan<byte> file)
    {
        if (file.StartsWith<byte>([0x89, 0x50, 0x4E, 0x47, 0x0D, 0x0A, 0x1A, 0x0A])) return "image/png";
        return file.StartsWith<byte>([0xFF, 0xD8, 0xFF]) ? "image/jpeg" : null;
    }
}
