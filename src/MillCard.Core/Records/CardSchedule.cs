using System.Collections;
using System.Globalization;
using System.Reflection;
using System.Text.Json;
using System.Text.Json.Serialization;
using MillCard.Core.Documents;

namespace MillCard.Core.Records;

/// <summary>A fact as a list on paper has it.</summary>
/// <param name="Group">Heading.</param>
/// <param name="Name">What it is called, with the list's member in front.</param>
/// <param name="Value">Its value in words.</param>
/// <param name="Unit">Empty for none.</param>
/// <param name="Source">Where it comes from; empty where nobody has said.</param>
/// <param name="IsMeasured">Whether it was measured.</param>
public sealed record ScheduledFact(string Group, string Name, string Value, string Unit, string Source, bool IsMeasured);

/// <summary>The facts of a card as a list.</summary>
public static class CardSchedule
{
    private const int Longest = 120;

    // points of outlines, logs and macros are drawn or too long for a list
    private static readonly string[] NotListed = ["id", "name", "points", "log", "macros", "file", "unknown"];

    /// <summary>All facts that the card has, in the order of the sheet.</summary>
    public static IReadOnlyList<ScheduledFact> Of(Card card)
    {
        (string Group, object Of)[] groups =
        [
            ("Envelope", card.Envelope), ("Head", card.Head), ("Motion", card.Motion), ("Heat", card.Heat), ("Firmware", card.Firmware),
            ("Modes", card.Modes),
        ];
        return [.. groups.SelectMany(g => Below(g.Of, JsonPointer.Root / g.Group.ToLowerInvariant(), "", null, g.Group, card))];
    }

    private static IEnumerable<ScheduledFact> Below(object? value, JsonPointer at, string of, FieldAttribute? field, string group,
        Card card)
    {
        switch (value)
        {
            case null: return [];
            // a place is known by what it is of: its own facts are X and Y
            case Position place: return OfRecord(place, at, Joined(of, field?.Label ?? SpelledOut(at.Last)), group, card);
            case OpenRecord record: return OfRecord(record, at, of, group, card);
            case not string and IEnumerable list:
                return list.Cast<object?>().SelectMany((one, i) => Below(one, at / i, Joined(of, MemberName(one, at, i)), field, group,
                    card));
            default: return [FactAt(value, at, of, field, group, card)];
        }
    }

    private static IEnumerable<ScheduledFact> OfRecord(OpenRecord record, JsonPointer at, string of, string group, Card card)
    {
        var type = record.GetType();
        // what kind of a thing it is stands in the JSON alone
        if (KindOf(type) is var (name, word) && word is not null)
            yield return FactAt(word, at / name, Joined(of, SpelledOut(at.Last)), null, group, card);
        foreach (var property in type.GetProperties().Where(p => p.SetMethod is not null && p.GetIndexParameters().Length == 0))
        {
            var step = JsonNamingPolicy.CamelCase.ConvertName(property.Name);
            if (NotListed.Contains(step)) continue;
            foreach (var fact in Below(property.GetValue(record), at / step, Prefix(of, at, step),
                property.GetCustomAttribute<FieldAttribute>(), group, card)) yield return fact;
        }
    }

    private static (string Name, string? Word) KindOf(Type type)
    {
        for (var up = type.BaseType; up is not null; up = up.BaseType)
            if (up.GetCustomAttributes<JsonDerivedTypeAttribute>().FirstOrDefault(d => d.DerivedType == type) is { } derived)
                return (up.GetCustomAttribute<JsonPolymorphicAttribute>()?.TypeDiscriminatorPropertyName ?? "kind",
                    derived.TypeDiscriminator?.ToString());
        return ("", null);
    }

    /// <summary>The four axes have facts of the same names.</summary>
    private static string Prefix(string of, JsonPointer at, string name) =>
        at.Last == "axes" ? Joined(of, $"{name.ToUpperInvariant()} axis") : of;

    private static readonly string[] NamedBy = ["Name", "Id"];

    private static string MemberName(object? one, JsonPointer list, int index) =>
        NamedBy.Select(n => one?.GetType().GetProperty(n)?.GetValue(one) as string).FirstOrDefault(n => n is { Length: > 0 })
            ?? Invariant($"{SpelledOut(list.Last)} {index + 1}");

    private static ScheduledFact FactAt(object value, JsonPointer at, string of, FieldAttribute? field, string group, Card card)
    {
        var said = value switch
        {
            bool yes => yes ? "yes" : "no",
            Enum word => ChoiceWords.Of(word),
            double number => Invariant($"{number:0.####}"),
            DateOnly day => Invariant($"{day:yyyy-MM-dd}"),
            IFormattable other => other.ToString(null, CultureInfo.InvariantCulture),
            _ => value.ToString()!.ReplaceLineEndings(" "),
        };
        var from = card.Sources.GetValueOrDefault(at);
        var source = from is null ? "" : string.Join(", ",
            new[] { ChoiceWords.Of(from.Source), from.Note, from.On is { } on ? Invariant($"{on:yyyy-MM-dd}") : null }
                .Where(s => !string.IsNullOrEmpty(s)));
        return new ScheduledFact(group, Joined(of, field?.Label ?? SpelledOut(at.Last)), said.Length > Longest ? said[..Longest] + "…"
            : said,
            field?.Unit ?? "", source, from?.Source == SourceKind.Measured);
    }

    private static string Joined(string of, string name) => of.Length == 0 || of == name ? name : $"{of}, {name}";

    private static string SpelledOut(string name) => string.Concat(name.Select(c => char.IsUpper(c) ? $" {char.ToLowerInvariant(c)}"
        : $"{c}"));
}
