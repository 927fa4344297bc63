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

/// <summary>Places for parts whose files are here already.</summary>
internal static class ArrangeEndpoint
{
    private const int MostParts = 500;

    /// <summary>Which card and recipe, and what is to be arranged.</summary>
    internal sealed record ArrangeQuestion : OpenRecord
    {
        /// <summary>The machine.</summary>
        [Field("card", Needed = true)] public Card? Card { get; init; }
        /// <summary>Its skirt is grown on; null for none.</summary>
        public Recipe? Recipe { get; init; }
        /// <summary>The parts; file is a hash.</summary>
        [Field("parts", Fewest = 1, Most = MostParts)] public IReadOnlyList<TrialPart> Parts { get; init; } = [];
        /// <summary>Indices of those that keep their places.</summary>
        [Field("held parts", Most = MostParts)] public IReadOnlyList<int> Held { get; init; } = [];
        /// <summary>Whether parts may be turned by a quarter.</summary>
        public bool MayTurn { get; init; }
        /// <summary>Whether they grow together.</summary>
        public Sequence Sequence { get; init; }
        /// <summary>Tighter limits than the card's; null for none.</summary>
        public TrialLimits? Limits { get; init; }
        /// <summary>The mode of two carriages; null on a machine with one.</summary>
        public ModeUse? Mode { get; init; }
        /// <summary>Index of a part of which as many more are laid as find room; all keep their places then.</summary>
        [Field("part to fill with", AtLeast = 0, AtMost = MostParts - 1)] public int? FillWith { get; init; }
    }

    /// <summary>Where the parts are to stand.</summary>
    /// <param name="Places">One a part; null where there is no room for it.</param>
    /// <param name="More">Further ones, where a bed is filled.</param>
    internal sealed record ArrangeAnswer(IReadOnlyList<Place?> Places, IReadOnlyList<Place> More);

    public static void MapArrange(this IEndpointRouteBuilder api) =>
        api.MapPost("/trials/arrange", async Task<Results<Ok<ArrangeAnswer>,
            JsonHttpResult<Refusal>>> (HttpRequest request, BlobStore blobs, MeshShelf shelf, WorkQueue queue, CancellationToken stop) =>
        {
            var reading = await request.ReadDocumentAsync<ArrangeQuestion>(Bounds.Document, draft: false, stop);
            if (reading.Document is not { } question) return Refusal.Fields(reading.Errors);
            var parts = await shelf.StandingAsync(question.Parts, blobs, stop);
            return TypedResults.Ok(await queue.BySizeAsync(0, left => AnswerOf(question, parts, left), stop));
        })
            .Accepts<ArrangeQuestion>("application/json").Produces<Refusal>(422, Refusal.MediaType)
            .WithSummary("Places for parts, so that all fit and can be printed in the order that is asked for").WithTags("Trials");

    private static ArrangeAnswer AnswerOf(ArrangeQuestion question, IReadOnlyList<StandingPart> parts, CancellationToken stop)
    {
        var machine = Machine.Of(question.Card!, question.Limits);
        if (question.FillWith is { } of && of < parts.Count)
            return new([.. parts.Select(p => new Place(p.X, p.Y, p.Turn))], [.. Arrangement.More(machine, question.Recipe, parts, of,
                MostParts - parts.Count, question.Sequence, question.Mode, stop)]);
        return new([.. Arrangement.Of(machine, question.Recipe, parts, question.Held.ToHashSet(), question.MayTurn, question.Sequence,
            question.Mode, stop)], []);
    }
}
