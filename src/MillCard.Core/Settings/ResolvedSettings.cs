using System.Text.Json;
using MillCard.Core.Documents;
using MillCard.Core.Motion;
using MillCard.Core.Slicing.Jobs;

namespace MillCard.Core.Settings;

/// <summary>What gives a value.</summary>
public enum GivenBy
{
    /// <summary>The program itself, where no document says anything.</summary>
    Usual,
    /// <summary>The card.</summary>
    Card,
    /// <summary>The recipe.</summary>
    Recipe,
    /// <summary>The filament.</summary>
    Filament,
    /// <summary>The card's nozzle with its feed.</summary>
    Nozzle,
    /// <summary>A part of the trial.</summary>
    Part,
    /// <summary>A zone of the trial.</summary>
    Zone,
}

/// <summary>A setting as a trial uses it.</summary>
/// <param name="Label">What it is called.</param>
/// <param name="Unit">Unit; empty for none.</param>
/// <param name="Value">Its value, as text; an empty one where there is none.</param>
/// <param name="From">What gives it.</param>
/// <param name="Who">Name of the document, nozzle, part or zone that gives it.</param>
/// <param name="Pointer">Where it stands there.</param>
/// <param name="Over">What it is laid over, the nearest first: values that would hold without it.</param>
public sealed record ResolvedSetting(string Label, string Unit, string Value, GivenBy From, string Who, string Pointer,
    IReadOnlyList<string> Over);

/// <summary>Every setting of a trial with where it comes from: card, recipe, filament, nozzle, part, zone. There is no other.</summary>
public static class ResolvedSettings
{
    /// <summary>All settings, those of the whole print first, then what parts and zones have of their own.</summary>
    /// <param name="job">The trial; its documents as they are, not yet resolved.</param>
    public static IReadOnlyList<ResolvedSetting> Of(SliceJob job)
    {
        var settings = new List<ResolvedSetting>();
        var nozzle = job.Machine.NozzlesOf(job.Parts.Count > 0 ? job.Parts[0].Part.Nozzles : [])[0];
        settings.AddRange(OfRecipe(job, nozzle));
        settings.AddRange(FittedSettings.Limits(job, nozzle));
        foreach (var filament in job.NozzlesInUse.DefaultIfEmpty(0).Select(job.FilamentOf).Distinct())
            settings.AddRange(OfDocument(filament, GivenBy.Filament, filament.Name, "/retraction"));
        settings.AddRange(OfCard(job.Machine.Card));
        foreach (var part in job.Parts) settings.AddRange(Own(part.Part.Settings, GivenBy.Part, part.Part.Name, job.Recipe));
        foreach (var zone in job.Zones) settings.AddRange(Own(zone.Zone.Settings, GivenBy.Zone, zone.Zone.Name, job.Recipe));
        return settings;
    }

    private static IEnumerable<ResolvedSetting> OfRecipe(SliceJob job, int nozzle)
    {
        var (said, used) = (Json(job.Recipe), Ladder.Resolved(job.Recipe, job.Machine.Card, nozzle));
        var usual = Json(new Recipe());
        var name = job.Recipe.Name ?? "recipe";
        foreach (var leaf in Leaves.Of<Recipe>())
        {
            if (leaf.Pointer is "/retraction/length" or "/retraction/speed" or "/retraction/lift")
            { yield return FittedSettings.Retraction(job, nozzle, leaf); continue; }
            if (FittedSettings.Fitted(job, nozzle, used, leaf) is { } fitted) { yield return fitted; continue; }
            var value = JsonPointer.Parse(leaf.Pointer).In(said);
            // what equals the value that holds where nothing is said cannot be told from it
            var from = value is null || JsonPointer.Parse(leaf.Pointer).In(usual) is { } same
                && same.GetRawText() == value.Value.GetRawText()
                ? GivenBy.Usual : GivenBy.Recipe;
            yield return new(leaf.Label, leaf.Unit, Text(value), from, name, leaf.Pointer, []);
        }
    }

    private static IEnumerable<ResolvedSetting> OfDocument<T>(T document, GivenBy from, string? name, string but) where T : OpenRecord
    {
        var json = Json(document);
        foreach (var leaf in Leaves.Of<T>())
            if (!leaf.Pointer.StartsWith(but, StringComparison.Ordinal))
                yield return new(leaf.Label, leaf.Unit, Text(JsonPointer.Parse(leaf.Pointer).In(json)), from, name ?? "", leaf.Pointer, []);
    }

    /// <summary>What of the card the program depends on; the rest of it decides where and whether, not how.</summary>
    private static IEnumerable<ResolvedSetting> OfCard(Card card)
    {
        var json = Json(card);
        string[] used = ["/firmware/", "/motion/axes/", "/motion/corner", "/motion/limits", "/routines/", "/head/clearance",
            "/costPerHour"];
        foreach (var leaf in Leaves.Of<Card>())
            if (used.Any(u => leaf.Pointer.StartsWith(u, StringComparison.Ordinal)) && JsonPointer.Parse(leaf.Pointer).In(json) is { } value
                && leaf.Type.IsAssignableTo(typeof(System.Collections.IEnumerable)) == (leaf.Type == typeof(string)))
                yield return new(leaf.Label, leaf.Unit, Text(value), GivenBy.Card, card.Name ?? "card", leaf.Pointer, []);
    }

    private static IEnumerable<ResolvedSetting> Own(IReadOnlyDictionary<string, JsonElement> settings, GivenBy from, string who,
        Recipe recipe)
    {
        var (leaves, json) = (Leaves.Of<Recipe>(), Json(recipe));
        foreach (var (pointer, value) in settings)
        {
            var leaf = leaves.FirstOrDefault(l => l.Pointer == pointer);
            yield return new(leaf?.Label ?? pointer, leaf?.Unit
                ?? "", Text(value), from, who, pointer, [$"{Text(JsonPointer.Parse(pointer).In(json))}, {recipe.Name}"]);
        }
    }

    private static JsonElement Json<T>(T document) => JsonSerializer.SerializeToElement(document, DocumentJson.Options);

    private static string Text(JsonElement? value) => value switch
    {
        null => "",
        { ValueKind: JsonValueKind.String } text => text.GetString()!,
        { ValueKind: JsonValueKind.True } => "yes",
        { ValueKind: JsonValueKind.False } => "no",
        { } other => other.GetRawText(),
    };
}
