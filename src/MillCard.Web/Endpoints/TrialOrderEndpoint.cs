using System.Text.Json.Serialization;
using Microsoft.AspNetCore.Http.HttpResults;
using MillCard.Core.Clearance;
using MillCard.Core.Documents;
using MillCard.Core.Machines;
using MillCard.Core.Reach;
using MillCard.Store;
using MillCard.Web.Http;
using MillCard.Web.Trials;
using MillCard.Web.Work;

namespace MillCard.Web.Endpoints;

/// <summary>Printing one at a time, for parts whose files are here already: the order, the worst moments, rows of equal parts.</summary>
internal static class TrialOrderEndpoint
{
    private const int MostMoments = 200;

    /// <summary>Which card and recipe, and where the parts stand now.</summary>
    internal sealed record TrialOrderQuestion : OpenRecord
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
    }

    /// <summary>One part of many alike.</summary>
    internal sealed record PackingQuestion : OpenRecord
    {
        /// <summary>The machine.</summary>
        [Field("card", Needed = true)] public Card? Card { get; init; }
        /// <summary>Its skirt is grown on; null for none.</summary>
        public Recipe? Recipe { get; init; }
        /// <summary>The part; file is a hash.</summary>
        [Field("part", Needed = true)] public TrialPart? Part { get; init; }
        /// <summary>Tighter limits than the card's; null for none.</summary>
        public TrialLimits? Limits { get; init; }
    }

    /// <summary>A pair that does not go in one sense.</summary>
    /// <param name="First">Index of the part that stands.</param>
    /// <param name="Then">Index of the part that is printed then.</param>
    /// <param name="With">What of the head hits.</param>
    /// <param name="Cure">The smallest move of the second part that frees the pair.</param>
    /// <param name="Message">All of it in a sentence.</param>
    internal sealed record PairAnswer(int First, int Then, string With, Move? Cure, string Message);

    /// <summary>What printing one at a time comes to.</summary>
    /// <param name="Order">Indices in the order of printing; null where there is none.</param>
    /// <param name="Conflicts">Every pair that does not go in one sense.</param>
    /// <param name="Cycles">Indices of parts that wait for each other.</param>
    /// <param name="TravelHeight">How high the nozzle passes over finished parts, mm.</param>
    /// <param name="Moments">The head where it comes nearest: in the order of printing, or for each conflict where there is none.</param>
    internal sealed record TrialOrderAnswer(
        [property: JsonIgnore(Condition = JsonIgnoreCondition.Never)] IReadOnlyList<int>? Order, IReadOnlyList<PairAnswer> Conflicts,
            IReadOnlyList<IReadOnlyList<int>> Cycles, double TravelHeight, IReadOnlyList<Moment> Moments);

    /// <summary>Rows of equal parts.</summary>
    /// <param name="PitchX">From part to part along X, mm; null where one stands alone in its row.</param>
    /// <param name="PitchY">From part to part along Y, mm; null where one stands alone in its column.</param>
    /// <param name="Places">Middles [x, y] in the order of printing, bed frame.</param>
    internal sealed record PackingAnswer(double? PitchX, double? PitchY, double[][] Places);

    public static void MapTrialOrder(this IEndpointRouteBuilder api)
    {
        api.MapPost("/trials/order", async Task<Results<Ok<TrialOrderAnswer>,
            JsonHttpResult<Refusal>>> (HttpRequest request, BlobStore blobs, MeshShelf shelf, WorkQueue queue, CancellationToken stop) =>
        {
            var reading = await request.ReadDocumentAsync<TrialOrderQuestion>(Bounds.Document, draft: false, stop);
            if (reading.Document is not { } question) return Refusal.Fields(reading.Errors);
            var parts = await shelf.StandingAsync(question.Parts, blobs, stop);
            return TypedResults.Ok(await queue.BySizeAsync(0, left => AnswerOf(question, parts, left), stop));
        })
            .Accepts<TrialOrderQuestion>("application/json").Produces<Refusal>(422, Refusal.MediaType)
            .WithSummary("The order in which parts can be printed one at a time, and the head's worst moments").WithTags("Trials");

        api.MapPost("/trials/packing", async Task<Results<Ok<PackingAnswer>,
            JsonHttpResult<Refusal>>> (HttpRequest request, BlobStore blobs, MeshShelf shelf, WorkQueue queue, CancellationToken stop) =>
        {
            var reading = await request.ReadDocumentAsync<PackingQuestion>(Bounds.Document, draft: false, stop);
            if (reading.Document is not { } question) return Refusal.Fields(reading.Errors);
            var part = (await shelf.StandingAsync([question.Part!], blobs, stop))[0];
            var packing = await queue.BySizeAsync(0,
                left => Packing.Of(Machine.Of(question.Card!, question.Limits), question.Recipe, part, left), stop);
            return TypedResults.Ok(new PackingAnswer(packing.PitchX, packing.PitchY,
                [.. packing.Places.Select(p => new[] { Math.Round(p.X, 3), Math.Round(p.Y, 3) })]));
        })
            .Accepts<PackingQuestion>("application/json").Produces<Refusal>(422, Refusal.MediaType)
            .WithSummary("How many of a part fit the bed one at a time, and at which pitch").WithTags("Trials");
    }

    private static TrialOrderAnswer AnswerOf(TrialOrderQuestion question, IReadOnlyList<StandingPart> parts, CancellationToken stop)
    {
        var clearance = new PrintOrder(Machine.Of(question.Card!, question.Limits), question.Recipe);
        var result = clearance.Of(parts, question.Mode, Cures.Sought, stop);
        var moments = result.Order is { } order
            ? clearance.Moments(parts, [.. order.Take(MostMoments)], question.Mode)
            : [.. result.Conflicts.Take(MostMoments).Select(c => clearance.MomentOf(parts, c.First, c.Then, question.Mode))
                .OfType<Moment>()];
        PairAnswer[] pairs = [.. result.Conflicts.Select(c => new PairAnswer(c.First, c.Then, c.With, c.Cure, Say(c, parts)))];
        return new TrialOrderAnswer(result.Order, pairs, result.Cycles, result.TravelHeight, moments);
    }

    private static string Say(MillCard.Core.Clearance.Conflict conflict, IReadOnlyList<StandingPart> parts)
    {
        var (first, then) = (parts[conflict.First], parts[conflict.Then]);
        return Invariant(
            $"Once {first.Name} stands, {first.Footprints.Height:0.##} mm high, printing {then.Name} drives the {conflict.With} into it.");
    }
}
