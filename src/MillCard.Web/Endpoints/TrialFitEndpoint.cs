using Microsoft.AspNetCore.Http.HttpResults;
using MillCard.Core.Documents;
using MillCard.Core.Reach;
using MillCard.Store;
using MillCard.Web.Http;
using MillCard.Web.Trials;

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
        /// <summary>Tighter limits than the card's; null for none.</summary>
        public TrialLimits? Limits { get; init; }
        /// <summary>The mode of two carriages; null on a machine with one.</summary>
        public ModeUse? Mode { get; init; }
        /// <summary>Whether curing moves are computed too.</summary>
        public bool Cure { get; init; }
    }

    public static void MapTrialFit(this IEndpointRouteBuilder api)
    {
        api.MapPost("/trials/fit", async Task<Results<Ok<FitEndpoint.FitAnswer>,
            JsonHttpResult<Refusal>>> (HttpRequest request, BlobStore blobs, MeshShelf shelf, FitShelf fits, CancellationToken stop) =>
        {
            var reading = await request.ReadDocumentAsync<TrialFitQuestion>(Bounds.Document, draft: false, stop);
            if (reading.Document is not { } question) return Refusal.Fields(reading.Errors);
            var standing = await shelf.StandingAsync(question.Parts, blobs, stop);
            var fit = fits.Take(question.Card!, question.Recipe, question.Limits);
            var cures = question.Cure ? Cures.Sought : Cures.LeftOut;
            return TypedResults.Ok(new FitEndpoint.FitAnswer(fit.Of(standing, question.Mode, cures, stop),
                FitEndpoint.ModeAnswer.Of(fit.PlanOf(standing, question.Mode, stop))));
        })
            .Accepts<TrialFitQuestion>("application/json").Produces<Refusal>(422, Refusal.MediaType)
            .WithSummary("Whether parts fit where they stand now; their files are here already").WithTags("Trials");
    }
}
