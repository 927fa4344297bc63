using MillCard.Core.Documents;

namespace MillCard.Core.Matching;

/// <summary>Something that was left out of a copy because it belongs to one machine.</summary>
/// <param name="Pointer">Where it stands in the original.</param>
/// <param name="Message">What it is, and why it stays behind.</param>
public sealed record LeftOut(string Pointer, string Message);

/// <summary>Copies of filaments and recipes for another card, without what is tied to the machine they come from.</summary>
public static class Copying
{
    /// <summary>A filament for another card.</summary>
    public static (Filament Copy, IReadOnlyList<LeftOut> Left) ForAnother(Filament filament, Card card)
    {
        var left = new List<LeftOut>();
        if (!string.IsNullOrWhiteSpace(filament.Start)) left.Add(new("/start", "Its start routine: G-code of one machine."));
        if (!string.IsNullOrWhiteSpace(filament.End)) left.Add(new("/end", "Its end routine: G-code of one machine."));
        if (filament.Retraction is not null) left.Add(new("/retraction", "Its retraction: it suits the length of one machine's feed."));
        if (filament.PressureCompensation is not null)
            left.Add(new("/pressureCompensation", "Its pressure compensation: it was found for one machine's feed and hot end."));
        if (filament.Flow is { } flow && flow != 1)
            left.Add(new("/flow", $"Its flow of {flow:0.###}: it was measured with one machine's drive."));
        var copy = filament with
        {
            Name = NameFor(filament.Name, card),
            Start = null,
            End = null,
            Retraction = null,
            PressureCompensation = null,
            Flow = null
        };
        return (copy with { Sources = Without(copy.Sources, left) }, left);
    }

    /// <summary>A recipe for another card.</summary>
    public static (Recipe Copy, IReadOnlyList<LeftOut> Left) ForAnother(Recipe recipe, Card card)
    {
        var left = new List<LeftOut>();
        var pull = recipe.Retraction;
        if ((pull.Length ?? pull.Speed ?? pull.Lift) is not null)
            left.Add(new("/retraction", "Its retraction and Z hop: they suit one machine's feed. The other head's own hold."));
        if (recipe.Accelerations.Any) left.Add(new("/accelerations", "Its accelerations: they suit the masses of one machine."));
        if (recipe.Compensation is not { Xy: 0, FirstLayer: 0 })
            left.Add(new("/compensation", "Its compensation of contours: it was measured on one machine."));
        if (recipe.NozzleChanges.Retraction is not null)
            left.Add(new("/nozzleChanges/retraction", "Its retraction at a change of nozzle: it suits one machine's feed."));
        var copy = recipe with
        {
            Name = NameFor(recipe.Name, card),
            Retraction = pull with { Length = null, Speed = null, Lift = null },
            Accelerations = new(),
            Compensation = new(),
            NozzleChanges = recipe.NozzleChanges with { Retraction = null },
        };
        return (copy with { Sources = Without(copy.Sources, left) }, left);
    }

    private static string NameFor(string? name, Card card) => $"{name ?? "without a name"}, for {card.Name ?? "another card"}" is var whole
        && whole.Length > 120 ? whole[..120] : whole;

    private static Dictionary<string, FactSource> Without(IReadOnlyDictionary<string, FactSource> sources, List<LeftOut> left) =>
        sources.Where(s => !left.Any(l => s.Key == l.Pointer || s.Key.StartsWith($"{l.Pointer}/", StringComparison.Ordinal)))
            .ToDictionary(s => s.Key, s => s.Value);
}
