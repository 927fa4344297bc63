using Microsoft.AspNetCore.OpenApi;
using Microsoft.OpenApi;
using MillCard.Core.Documents;

namespace MillCard.Web.Http;

/// <summary>What the OpenAPI document says beyond what the endpoints say themselves.</summary>
internal static class Description
{
    public static void Shape(OpenApiOptions options)
    {
        options.AddDocumentTransformer((document, _, _) =>
        {
            document.Info = new OpenApiInfo
            {
                Title = "Mill Card",
                Version = "1",
                Description = "Cards of 3D printers, and what follows from them."
            };
            document.Servers = [];
            return Task.CompletedTask;
        });
        options.AddSchemaTransformer((schema, context, _) =>
        {
            // members that this version does not know are kept, but no client writes them by name
            if (typeof(OpenRecord).IsAssignableFrom(context.JsonTypeInfo.Type) && context.JsonPropertyInfo is null)
                schema.AdditionalPropertiesAllowed = true;
            // the generator loses the inner list where the same type stands in two documents
            if (context.JsonTypeInfo.Type == typeof(IReadOnlyList<IReadOnlyList<double>>)) schema.Items = Points();
            // what a sentence speaks: numbers and texts by their names
            if (context.JsonTypeInfo.Type == typeof(IReadOnlyDictionary<string, object>))
                schema.AdditionalProperties = new OpenApiSchema { Type = JsonSchemaType.Number | JsonSchemaType.String };
            return Task.CompletedTask;
        });
    }

    private static OpenApiSchema Points() =>
        new() { Type = JsonSchemaType.Array, Items = new OpenApiSchema { Type = JsonSchemaType.Number, Format = "double" } };
}
