using System.Text.Json;
using MillCard.Core.Documents;
using MillCard.Core.Flow;
using MillCard.Core.Slicing.Paths;

namespace MillCard.Core.Matching;

/// <summary>Whether axes, drive, hot end and filament reach the speeds of a recipe.</summary>
internal static class SpeedsMatch
{
    public static IEnumerable<Reason> Of(Card card, int index, Recipe here, Filament? filament)
    {
        if (here.LineWidth is null || here.Layers.Others is not { } height) yield break;
        var capped = new List<(PathKind Kind, double Asks, SpeedCeiling Ceiling)>();
        foreach (var kind in new[] { PathKind.OuterWall, PathKind.InnerWall, PathKind.Solid, PathKind.Infill })
        {
            var ceiling = SpeedCeiling.Of(card, card.Head.Nozzles![index], filament, here.WidthOf(kind), height);
            if (here.SpeedOf(kind) > ceiling.Speed + 0.05) capped.Add((kind, here.SpeedOf(kind), ceiling));
        }
        if (capped.Count == 0) yield break;
        var (slowest, asks, limit) = capped.MaxBy(c => c.Asks / c.Ceiling.Speed);
        var width = here.WidthOf(slowest);
        yield return new("slowed-down", Verdict.FitsWithCautions,
            $"It asks for {asks:0.###} mm/s; {Allows(limit.By)} {limit.Speed:0.#} in its "
                + $"lines of {width:0.###} × {height:0.###} mm. The rest is slowed down.",
            JsonPointer.Parse("/speeds") / JsonNamingPolicy.CamelCase.ConvertName(slowest.ToString()),
            limit.By == CeilingBy.HotEnd ? (string)(JsonPointer.Nozzle(index) / "maxFlow") : null);
    }

    private static string Allows(CeilingBy by) => by switch
    {
        CeilingBy.Axis => "the axes allow",
        CeilingBy.FilamentDrive => "the filament drive allows",
        CeilingBy.HotEnd => "the hot end allows",
        CeilingBy.Filament => "the filament allows",
        _ => "the board's step rate allows",
    };
}
