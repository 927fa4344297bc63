using System.Reflection;
using Microsoft.AspNetCore.Http.HttpResults;
using MillCard.Store;
using MillCard.Web.Http;

namespace MillCard.Web.Endpoints;

/// <summary>Whether the server and its database answer.</summary>
internal static class HealthEndpoint
{
    /// <summary>That it answers, and which version it is.</summary>
    internal sealed record Health(string Status, string Version);

    // the build adds the commit behind a plus sign
    private static readonly string Version = typeof(HealthEndpoint).Assembly
        .GetCustomAttribute<AssemblyInformationalVersionAttribute>()!.InformationalVersion.Split('+')[0];

    public static void MapHealth(this IEndpointRouteBuilder api) =>
        api.MapGet("/health", async Task<Results<Ok<Health>, JsonHttpResult<Refusal>>> (MillCardContext context, CancellationToken stop) =>
            await context.Database.CanConnectAsync(stop)
                ? TypedResults.Ok(new Health("ok", Version))
                : Refusal.Sentence(503, "The database does not answer.", "The database does not answer."))
            .WithSummary("Whether server and database answer").WithTags("Server");
}
