using Microsoft.AspNetCore.Http.HttpResults;
using MillCard.Core.Documents;
using MillCard.Core.Routines;
using MillCard.Web.Http;

namespace MillCard.Web.Endpoints;

/// <summary>Schemas and examples of the documents, and what else a page must know before anything is typed.</summary>
internal static class SchemaEndpoints
{
    /// <summary>How much is taken, bytes.</summary>
    internal sealed record UploadLimits(long Mesh, long Gcode);

    public static void MapSchemas(this IEndpointRouteBuilder api)
    {
        api.MapGet("/schemas/{file}", Results<ContentHttpResult, JsonHttpResult<Refusal>> (string file, bool draft = false) =>
            file.EndsWith("-1.json", StringComparison.Ordinal) && Examples.Kinds.TryGetValue(file[..^7], out var type)
                ? TypedResults.Text(DocumentSchema.Of(type, draft).ToJsonString(DocumentJson.Options), "application/schema+json")
                : Refusal.Missing("This schema"))
            .WithSummary("JSON Schema of a kind of document, such as card-1.json").WithTags("Documents");

        api.MapGet("/examples/{kind}", Results<FileContentHttpResult, JsonHttpResult<Refusal>> (string kind) =>
            Examples.Kinds.ContainsKey(kind) ? TypedResults.Bytes(Examples.Of(kind), "application/json") : Refusal.Missing("This example"))
            .WithSummary("A valid example of a kind of document").WithTags("Documents");

        api.MapGet("/limits", () => TypedResults.Ok(new UploadLimits(Bounds.Mesh, Bounds.Gcode)))
            .WithSummary("How much is taken").WithTags("Server");

        api.MapGet("/routine-names", () => TypedResults.Ok(RoutineNames.All))
            .WithSummary("The names that routines may use, and what they stand for").WithTags("Documents");
    }
}
