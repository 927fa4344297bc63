using MillCard.Core.Findings;
using MillCard.Core.Geometry;

namespace MillCard.Core.Slicing.Sections;

/// <summary>Pieces of a layer that begin in the air.</summary>
internal static class Islands
{
    private const double LeastArea = 0.05;
    private const int Most = 5;

    /// <summary>A finding for each, the lowest first.</summary>
    /// <param name="part">Name of the part.</param>
    /// <param name="regions">Its cross-sections.</param>
    /// <param name="carriers">The same with what else carries what is laid over them.</param>
    /// <param name="places">Its layers.</param>
    /// <param name="held">What supports cover under the gap below a layer; null for none.</param>
    /// <param name="lift">What lies under the part, mm.</param>
    public static IEnumerable<Finding> Of(string part, Shape[] regions, Shape[] carriers, LayerPlace[] places,
        Func<int, Shape>? held, double lift)
    {
        var found = 0;
        for (var i = 1; i < regions.Length; i++)
        {
            if (ReferenceEquals(regions[i], regions[i - 1])) continue;
            foreach (var piece in Plane.Polygons(regions[i]))
            {
                if (piece.Area < LeastArea || Nesting.Meet(piece, carriers[i - 1])) continue;
                if (held is not null && held(i) is { IsEmpty: false } below && Nesting.Meet(piece, below)) continue;
                if (++found > Most) yield break;
                var (at, layer, top) = (piece.InteriorPoint, i + 1, places[i].Top + lift);
                yield return new Finding("island-in-air", Severity.Caution,
                    $"{part}: layer {layer} ({top:0.##} mm up) begins a piece of {piece.Area:0.##} mm² in "
                            + $"the air at X {at.X:0.#}, Y {at.Y:0.#}.",
                    "Nothing is below it: its lines drop. Turn the part, or let supports hold it.", "/recipe/supports/pattern");
            }
        }
    }
}
