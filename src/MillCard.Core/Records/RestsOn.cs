using System.Text.Json;
using System.Text.Json.Nodes;
using MillCard.Core.Documents;

namespace MillCard.Core.Records;

/// <summary>What a proof rests on: the facts of card, filament, recipe and trial that bear on what is printed.</summary>
public static class RestsOn
{
    // names, remarks, prices, where a fact comes from and where the printer answers change nothing that is printed
    private static readonly string[] Card = ["envelope", "head", "motion", "heat", "firmware", "routines", "modes"];
    private static readonly string[] Others = ["schema", "name", "tags", "notes", "sources", "pattern", "colour", "pricePerKg", "needs",
        "fileName"];

    /// <summary>Gathers them.</summary>
    /// <param name="card">The revision.</param>
    /// <param name="filament">The trial's filament.</param>
    /// <param name="recipe">The trial's recipe.</param>
    /// <param name="trial">The trial.</param>
    /// <param name="loaded">What further nozzles hold, by their ids.</param>
    public static JsonElement Of(Card card, Filament? filament, Recipe? recipe, Trial trial,
        IReadOnlyDictionary<string, Filament>? loaded = null)
    {
        var facts = new JsonObject
        {
            ["card"] = Only(card, name => Card.Contains(name)),
            ["trial"] = Only(trial, name => !Others.Contains(name))
        };
        if (filament is not null) facts["filament"] = Only(filament, name => !Others.Contains(name));
        if (loaded is { Count: > 0 })
            facts["loaded"] = new JsonObject(loaded.Select(l =>
                KeyValuePair.Create<string, JsonNode?>(l.Key, Only(l.Value, name => !Others.Contains(name)))));
        if (recipe is not null) facts["recipe"] = Only(recipe, name => !Others.Contains(name));
        return JsonSerializer.SerializeToElement(facts);
    }

    /// <summary>The facts of a card alone.</summary>
    public static JsonElement Of(Card card) =>
        JsonSerializer.SerializeToElement(new JsonObject { ["card"] = Only(card, name => Card.Contains(name)) });

    private static JsonObject Only<T>(T document, Func<string, bool> keep) =>
        new(((JsonObject)JsonSerializer.SerializeToNode(document, DocumentJson.Options)!).Where(m => keep(m.Key))
            .Select(m => KeyValuePair.Create(m.Key, m.Value?.DeepClone())));
}
