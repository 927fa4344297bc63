using System.Text.Json;
using Microsoft.AspNetCore.Http.HttpResults;
using MillCard.Core.Documents;
using MillCard.Core.Patterns;
using MillCard.Core.Rules;
using MillCard.Store;
using MillCard.Web.Http;

namespace MillCard.Web.Endpoints;

/// <summary>Patterns: read, never written.</summary>
internal static class PatternEndpoints
{
    /// <summary>A pattern on its shelf.</summary>
    /// <param name="Id">Its id in cards and addresses.</param>
    /// <param name="Version">The version that is offered.</param>
    /// <param name="Name">What it is called.</param>
    /// <param name="About">One sentence.</param>
    /// <param name="Card">What the rack shows of it.</param>
    /// <param name="Source">Id of its source.</param>
    /// <param name="SourceName">What its source is called.</param>
    /// <param name="Versions">All versions that are here, the newest first.</param>
    /// <param name="Listed">Whether its maker still offers it.</param>
    internal sealed record PatternHead(string Id, int Version, string Name, string About, CardSummary Card, string Source,
        string SourceName, IReadOnlyList<KeptVersion> Versions, bool Listed);

    private static readonly Lazy<IReadOnlyList<PatternHead>> Own = new(() => [.. Pattern.All.Select(p => new PatternHead(p.Id, p.Version,
        p.Name, p.About, p.Summary, p.Source, p.SourceName, [.. Pattern.Own.Patterns.Where(v => v.Id == p.Id)
            .OrderByDescending(v => v.Version).Select(v => new KeptVersion(v.Version, v.Note, v.At))], true))]);

    public static void MapPatterns(this IEndpointRouteBuilder api)
    {
        api.MapGet("/patterns", async (PatternStore store, CancellationToken stop) =>
            TypedResults.Ok(Own.Value.Concat((await store.PatternsAsync(stop)).Select(HeadOf)).ToArray()))
            .WithSummary("Patterns to start a card from, of all sources").WithTags("Cards");

        api.MapGet("/patterns/{id}/card", async Task<Results<Ok<Card>, JsonHttpResult<Refusal>>> (string id, int? version,
            PatternStore store, CancellationToken stop) => await FoundAsync(id, version, store, stop) is { } pattern
                ? TypedResults.Ok(pattern.Start())
                : Refusal.Missing(version is { } asked ? Invariant($"Version {asked} of this pattern") : "This pattern"))
            .Produces<Refusal>(404, Refusal.MediaType)
            .WithSummary("A card to be made from a pattern, of its newest version or another: all assumed, the pattern remembered")
            .WithTags("Cards");
    }

    private static async Task<Pattern?> FoundAsync(string id, int? version, PatternStore store, CancellationToken stop)
    {
        if (id.Split(':') is [var source, var local]) return await store.PatternAsync(source, local, version, stop);
        return version is { } asked ? Pattern.Own.Patterns.FirstOrDefault(p => p.Id == id && p.Version == asked)
            : Pattern.All.FirstOrDefault(p => p.Id == id);
    }

    private static PatternHead HeadOf(KeptPattern kept) => new(Pattern.IdOf(kept.Source, kept.LocalId), kept.Versions[0].Version,
        kept.Name, kept.About, JsonSerializer.Deserialize<CardSummary>(kept.Summary, DocumentJson.Options)!, kept.Source, kept.SourceName,
        kept.Versions, kept.Listed);
}
