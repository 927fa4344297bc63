using System.Reflection;
using System.Text.Json;
using System.Text.Json.Serialization;

namespace MillCard.Core.Documents;

/// <summary>What the records say of the member at a pointer.</summary>
internal static class Fields
{
    /// <summary>The description of a member; null where the document has none there, or says nothing of it.</summary>
    /// <param name="document">Type of the document.</param>
    /// <param name="pointer">JSON pointer (RFC 6901); entries of lists by place or id.</param>
    public static FieldAttribute? At(Type document, string pointer)
    {
        IEnumerable<Type> types = [document];
        FieldAttribute? field = null;
        foreach (var step in JsonPointer.Parse(pointer).Steps)
        {
            if (types.Select(EntryOf).OfType<Type>().ToArray() is { Length: > 0 } entries)
            {
                types = entries.SelectMany(Kinds).ToArray();
                continue;
            }
            if (types.Select(t => MemberOf(t, step)).FirstOrDefault(p => p is not null) is not { } property) return null;
            field = property.GetCustomAttribute<FieldAttribute>();
            types = Kinds(Nullable.GetUnderlyingType(property.PropertyType) ?? property.PropertyType).ToArray();
        }
        return field;
    }

    private static PropertyInfo? MemberOf(Type type, string step) =>
        type.GetProperties().FirstOrDefault(p => JsonNamingPolicy.CamelCase.ConvertName(p.Name) == step);

    private static Type? EntryOf(Type type) => type.IsGenericType && type.GetGenericTypeDefinition() is var open
        && (open == typeof(IReadOnlyList<>) || open == typeof(IReadOnlyDictionary<,>)) ? type.GetGenericArguments()[^1] : null;

    private static IEnumerable<Type> Kinds(Type type) => [type, .. type.GetCustomAttributes<JsonDerivedTypeAttribute>()
        .Select(kind => kind.DerivedType)];
}
