using MillCard.Core.Findings;
using MillCard.Core.Slicing.Paths;
using MillCard.Core.Slicing.Sections;
using MillCard.Core.Wording;

namespace MillCard.Core.Slicing;

/// <summary>What of a part is too thin for the least line.</summary>
internal static class ThinNotes
{
    /// <summary>Shorter places are the ends of tips, mm.</summary>
    private const double LeastLength = 1;

    /// <summary>From this area on what is missing is seen, mm².</summary>
    private const double Seen = 0.5;

    /// <summary>One finding for all places of a part, with the largest of them; null where everything is laid.</summary>
    /// <param name="part">Name of the part.</param>
    /// <param name="layers">Its layers.</param>
    /// <param name="places">Their tops.</param>
    /// <param name="least">Width of the least line, mm.</param>
    public static Finding? Of(string part, PartLayer[] layers, LayerPlace[] places, double least)
    {
        var missing = layers.Index().SelectMany(l => l.Item.Missing.Where(m => m.Length >= LeastLength)
            .Select(m => (Layer: l.Index, Place: m, Area: m.Length * m.Thickness))).ToArray();
        if (missing.Length == 0) return null;
        var (layer, place, area) = missing.MaxBy(m => m.Area);
        var (count, on, of) = (missing.Length, missing.Select(m => m.Layer).Distinct().Count(), layers.Length);
        var all = count == 1 ? Sentence.Of($"one place is") : Sentence.Of($"{count} places on {on} of {of} layers are");
        var there = Sentence.Of($"layer {layer + 1} ({places[layer].Top:0.##} mm up) at X {place.At.X:0.#}, Y {place.At.Y:0.#}");
        return new Finding("too-thin", area >= Seen ? Severity.Caution : Severity.Note,
            $"{part}: {all} too thin for a line of {least:0.##} mm; the largest is {place.Thickness:0.###} mm thick and "
                + $"{place.Length:0.#} mm long, on {there}.",
            "Nothing is laid there. A narrower least line, a finer nozzle, or the part a little thicker would print it.",
            "/recipe/wall/leastLine");
    }
}
