using System.Text.Json;
using Microsoft.AspNetCore.Http.HttpResults;
using MillCard.Core.Documents;
using MillCard.Web.Http;

namespace MillCard.Web.Endpoints;

/// <summary>Numbers that come in a query: held to the same limits as in a document, and never beyond numbers.</summary>
internal static class Numbers
{
    /// <summary>Why a piece of a document made from a query does not hold; null where it does.</summary>
    public static JsonHttpResult<Refusal>? Unfit<T>(T piece) where T : OpenRecord
    {
        var beyond = typeof(T).GetProperties().Where(p => p.GetValue(piece) is double value && !double.IsFinite(value))
            .Select(p => JsonNamingPolicy.CamelCase.ConvertName(p.Name)).ToArray();
        if (beyond.Length > 0) return Refusal.Fields(
            [.. beyond.Select(name => new FieldError(JsonPointer.Root / name, FieldProblem.WrongKind,
                $"{name} is no number that can be computed with.", "a number"))]);
        var errors = SchemaCheck.Of(DocumentSchema.Of(typeof(T)), JsonSerializer.SerializeToElement(piece, DocumentJson.Options));
        return errors.Count > 0 ? Refusal.Fields(errors) : null;
    }

    /// <summary>A number of a query within its bounds; the nearest of them where it lies outside, the lower for none.</summary>
    public static double Within(double value, double least, double most) => double.IsNaN(value) ? least : Math.Clamp(value, least, most);
}
