using System.Collections.Concurrent;
using System.Reflection;
using System.Text.Json;

namespace MillCard.Core.Documents;

/// <summary>A single setting of a document.</summary>
/// <param name="Pointer">JSON pointer.</param>
/// <param name="Type">Type of its value, without null.</param>
/// <param name="Field">What is said about it; null where nothing is.</param>
/// <param name="Tends">What raising it tends to do; null where nobody says.</param>
internal sealed record Leaf(string Pointer, Type Type, FieldAttribute? Field, TendsAttribute? Tends)
{
    /// <summary>What it is called.</summary>
    public string Label => Field?.Label ?? JsonPointer.Parse(Pointer).Last;

    /// <summary>Unit; empty for none.</summary>
    public string Unit => Field?.Unit ?? "";

    /// <summary>What of a trial may depart from it.</summary>
    public Departs Departs => Field?.Departs ?? Departs.Nothing;
}

/// <summary>Walks the settings of a document type.</summary>
internal static class Leaves
{
    /// <summary>What a document says about itself rather than about a print.</summary>
    private static readonly string[] About = ["schema", "name", "tags", "notes", "sources", "unknown", "needs"];

    private static readonly ConcurrentDictionary<Type, Leaf[]> Known = new();

    /// <summary>All settings, in the order of the records.</summary>
    public static IReadOnlyList<Leaf> Of<T>() where T : OpenRecord => Known.GetOrAdd(typeof(T), type => [.. Walk(type, "")]);

    private static IEnumerable<Leaf> Walk(Type type, JsonPointer at)
    {
        foreach (var property in type.GetProperties().Where(p => p.GetMethod is { IsStatic: false } && p.SetMethod is not null))
        {
            var name = JsonNamingPolicy.CamelCase.ConvertName(property.Name);
            if (About.Contains(name)) continue;
            var (pointer, inner) = (at / name, Nullable.GetUnderlyingType(property.PropertyType) ?? property.PropertyType);
            if (inner.IsSubclassOf(typeof(OpenRecord)))
            {
                foreach (var leaf in Walk(inner, pointer)) yield return leaf;
                continue;
            }
            yield return new Leaf(pointer, inner, property.GetCustomAttribute<FieldAttribute>(),
                property.GetCustomAttribute<TendsAttribute>());
        }
    }
}
