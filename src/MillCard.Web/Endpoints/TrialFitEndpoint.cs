using MillCard.Core.Documents;
using MillCard.Core.Geometry;
using MillCard.Core.Reach;
using MillCard.Store;
using MillCard.Web.Hosting;
using MillCard.Web.Trials;
using Microsoft.AspNetCore.Http.HttpResults;

namespace MillCard.Web.Endpoints;

/// <summary>The verdict that follows the pointer: parts whose files are here already.</summary>
internal static class TrialFitEndpoint
{
    /// <summary>Which card and recipe, and where the parts stand now.</summary>
    internal sealed record TrialFitQuestion : OpenRecord
    {
        /// <summary>The machine.</summary>
        [Field("card", Needed = true)] public Card? Card { get; init; }
        /// <summary>Its skirt is grown on; null for none.</summary>
        public Recipe? Recipe { get; init; }
        /// <summary>The parts; file is a hash.</summary>
        [Field("parts", Most = 500)] public IReadOnlyList<TrialPart> Parts { get; init; } = [];
        /// <summary>Whether curing moves are computed too.</summary>
        public bool Cure { get; init; }
    }

    public static void MapTrialFit(this IEndpointRouteBuilder api)
    {
        api.MapPost("/trials/fit", async Task<Results<Ok<FitEndpoint.FitAnswer>, JsonHttpResult<Refusal>>> (HttpRequest request, BlobStore blobs, MeshShelf shelf, CancellationToken stop) =>
        {
            var reading = await request.ReadDocumentAsync<TrialFitQuestion>(Bounds.Document, draft: false, stop);
            if (reading.Document is not { } question) return Refusal.Fields(reading.Errors);
            var standing = new List<StandingPart>();
            foreach (var part in question.Parts)
                standing.Add(new StandingPart(part.Name, (await shelf.TakeAsync(part.File, blobs, stop)).Footprints, part.X, part.Y, part.Turn));
            var verdict = new Fit(Machine.Of(question.Card!), question.Recipe).Of(standing, question.Cure, stop);
            return TypedResults.Ok(new FitEndpoint.FitAnswer(verdict));
        })
            .Accepts<TrialFitQuestion>("application/json").Produces<Refusal>(422, Refusal.MediaType)
            .WithSummary("Whether parts fit where they stand now; their files are here already").WithTags("Trials");

        api.MapPost("/regions", async Task<Results<Ok<RegionsAnswer>, JsonHttpResult<Refusal>>> (HttpRequest request, CancellationToken stop) =>
        {
            var reading = await request.ReadDocumentAsync<Card>(Bounds.Document, draft: false, stop);
            if (reading.Document is not { } card) return Refusal.Fields(reading.Errors);
            var regions = new Fit(Machine.Of(card)).Regions;
            return TypedResults.Ok(new RegionsAnswer([.. regions.Select(r => new RegionAnswer(r.KeepOut.Name, r.With, double.IsFinite(r.Below) ? r.Below : null, Rings(r.Grown)))]));
        })
            .Accepts<Card>("application/json").Produces<Refusal>(422, Refusal.MediaType)
            .WithSummary("What keep-outs cost of the bed: their outlines grown by the head").WithTags("Computation");
    }

    /// <summary>A region that parts must stay out of.</summary>
    /// <param name="KeepOut">Name of the keep-out it comes from.</param>
    /// <param name="With">The body of the head that makes it; null for the nozzle itself.</param>
    /// <param name="Below">It counts for what lies below this height, mm; null for any height.</param>
    /// <param name="Rings">Outlines [x, y], mm, bed frame.</param>
    internal sealed record RegionAnswer(string KeepOut, string? With, double? Below, double[][][] Rings);

    internal sealed record RegionsAnswer(IReadOnlyList<RegionAnswer> Regions);

    private static double[][][] Rings(NetTopologySuite.Geometries.Geometry shape) =>
        [.. Plane.Polygons(shape).SelectMany(p => p.InteriorRings.Prepend(p.ExteriorRing)).Select(r => r.Coordinates.SkipLast(1).Select(c => new[] { Math.Round(c.X, 3), Math.Round(c.Y, 3) }).ToArray())];
}
