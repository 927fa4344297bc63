using System.Reflection;
using System.Text.Json;
using System.Text.Json.Serialization;

namespace MillCard.Core.Documents;

/// <summary>What choices are called: by <see cref="WordAttribute"/>, else by their own name with spaces.</summary>
internal static class ChoiceWords
{
    /// <summary>Of one choice.</summary>
    public static string Of(Enum choice) => Of(choice.GetType().GetField(choice.ToString())!);

    /// <summary>Of all choices of an enumeration, by their names in JSON.</summary>
    public static IEnumerable<KeyValuePair<string, string>> All(Type type) =>
        type.GetFields(BindingFlags.Public | BindingFlags.Static).Select(choice => KeyValuePair.Create(
            choice.GetCustomAttribute<JsonStringEnumMemberNameAttribute>()?.Name ?? Kebab(choice.Name), Of(choice)));

    /// <summary>The name in JSON of a choice that has none of its own.</summary>
    public static string Kebab(string name) => JsonNamingPolicy.KebabCaseLower.ConvertName(name);

    private static string Of(FieldInfo choice) => choice.GetCustomAttribute<WordAttribute>()?.Word ?? Kebab(choice.Name).Replace('-', ' ');
}
