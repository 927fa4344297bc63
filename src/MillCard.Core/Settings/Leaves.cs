using System.Reflection;
using System.Text.Json;
using MillCard.Core.Documents;

namespace MillCard.Core.Settings;

/// <summary>A single setting of a document.</summary>
/// <param name="Pointer">JSON pointer.</param>
/// <param name="Label">What it is called.</param>
/// <param name="Unit">Unit; empty for none.</param>
/// <param name="Type">Type of its value, without null.</param>
/// <param name="Field">Its limits; null where it has none.</param>
internal sealed record Leaf(string Pointer, string Label, string Unit, Type Type, FieldAttribute? Field);

/// <summary>Walks the settings of a document type.</summary>
internal static class Leaves
{
    /// <summary>What a document says about itself rather than about a print.</summary>
    private static readonly string[] About = ["schema", "name", "notes", "sources", "unknown", "needs"];

    /// <summary>All settings, in the order of the records.</summary>
    public static IReadOnlyList<Leaf> Of<T>() where T : IDocument => [.. Walk(typeof(T), "")];

    private static IEnumerable<Leaf> Walk(Type type, string at)
    {
        foreach (var property in type.GetProperties().Where(p => p.GetMethod is { IsStatic: false } && p.SetMethod is not null))
        {
            var name = JsonNamingPolicy.CamelCase.ConvertName(property.Name);
            if (About.Contains(name)) continue;
            var (pointer, inner) = ($"{at}/{name}", Nullable.GetUnderlyingType(property.PropertyType) ?? property.PropertyType);
            if (inner.IsSubclassOf(typeof(OpenRecord)))
            {
                foreach (var leaf in Walk(inner, pointer)) yield return leaf;
                continue;
            }
            var field = property.GetCustomAttribute<FieldAttribute>();
            yield return new Leaf(pointer, field?.Label ?? name, field?.Unit ?? "", inner, field);
        }
    }

    /// <summary>The value at a pointer of a document's JSON; null where it is not said.</summary>
    public static JsonElement? At(JsonElement document, string pointer)
    {
        foreach (var step in pointer.Split('/').Skip(1))
            if (document.ValueKind != JsonValueKind.Object || !document.TryGetProperty(step, out document)) return null;
        return document.ValueKind == JsonValueKind.Null ? null : document;
    }
}
