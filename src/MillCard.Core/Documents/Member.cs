using System.Reflection;
using System.Text.Json.Serialization.Metadata;

namespace MillCard.Core.Documents;

/// <summary>A member of a list that people edit. Its id stays with it wherever it stands, so that edits of two people meet at the same
/// member.</summary>
public abstract record Member : OpenRecord
{
    /// <summary>Its id within its list; given as the document is read where it has none.</summary>
    [Field("id", Fewest = 1, Most = 40)] public string? Id { get; init; }
}

/// <summary>Gives members their ids as a document is read.</summary>
internal static class MemberIds
{
    private static readonly MethodInfo NamedOf = typeof(MemberIds).GetMethod(nameof(Named), BindingFlags.NonPublic | BindingFlags.Static)!;

    /// <summary>A modifier of type information: lists of members go through <see cref="Named"/> before they are set.</summary>
    public static void Give(JsonTypeInfo type)
    {
        foreach (var property in type.Properties)
        {
            if (MemberOf(property.PropertyType) is not { } member || property.Set is not { } set) continue;
            var named = NamedOf.MakeGenericMethod(member).CreateDelegate<Func<object, object>>();
            property.Set = (owner, list) => set(owner, list is null ? null : named(list));
        }
    }

    private static Type? MemberOf(Type list) =>
        list.IsGenericType && list.GetGenericTypeDefinition() == typeof(IReadOnlyList<>) && list.GenericTypeArguments[0]
            .IsAssignableTo(typeof(Member))
            ? list.GenericTypeArguments[0]
            : null;

    /// <summary>The list with an id for every member: the same document gets the same ids, whoever reads it; of two with one id the later
    /// gets another.</summary>
    private static object Named<T>(object list) where T : Member
    {
        var members = (IReadOnlyList<T>)list;
        var taken = members.Select(m => m?.Id).OfType<string>().ToHashSet(StringComparer.Ordinal);
        if (taken.Count == members.Count) return members;
        var seen = new HashSet<string>(StringComparer.Ordinal);
        var next = 0;
        string Free()
        {
            string id;
            do id = Invariant($"m{++next}");
            while (!taken.Add(id));
            return id;
        }
        return members.Select(m => m is null || m.Id is { } id && seen.Add(id) ? m : m with { Id = Free() }).ToArray();
    }
}
