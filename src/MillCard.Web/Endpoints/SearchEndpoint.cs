using MillCard.Store;

namespace MillCard.Web.Endpoints;

/// <summary>A search over everything that is written down.</summary>
internal static class SearchEndpoint
{
    private const int Longest = 200;

    public static void MapSearch(this IEndpointRouteBuilder api) =>
        api.MapGet("/search", async (SearchStore store, CancellationToken stop, string text = "") =>
            TypedResults.Ok(await store.FindAsync(Sought(text), stop)))
            .WithSummary("What holds all the words, names first; without a word, what was changed last").WithTags("Documents");

    /// <summary>The words as the database can look for them.</summary>
    private static string Sought(string text) => string.Concat(text.Take(Longest).Where(c => c != '\0' && !char.IsSurrogate(c)));
}
