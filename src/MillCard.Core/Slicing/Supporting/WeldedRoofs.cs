using MillCard.Core.Findings;
using MillCard.Core.Geometry;
using MillCard.Core.Slicing.Sections;

namespace MillCard.Core.Slicing.Supporting;

/// <summary>Overhangs that are laid right upon supports of the same plastic.</summary>
internal static class WeldedRoofs
{
    /// <summary>One finding for all of them, with the lowest; null where a layer is left free everywhere.</summary>
    /// <param name="part">Name of the part.</param>
    /// <param name="task">What is held.</param>
    /// <param name="areas">What holds.</param>
    /// <param name="places">The part's layers.</param>
    /// <param name="lift">What lies under the part, mm.</param>
    public static Finding? Of(string part, SupportTask task, SupportAreas areas, LayerPlace[] places, double lift)
    {
        for (var i = 1; i < task.Overhangs.Length; i++)
        {
            if (task.TopFor(i) != i - 1) continue;
            var held = Plane.Intersection(task.Overhangs[i], Plane.Union(areas.Body[i - 1], areas.Interface[i - 1]));
            if (held.IsEmpty) continue;
            return new Finding("roof-welds", Severity.Caution, Invariant(
                $"{part}: no layer is left free between supports and what they hold, first on layer {i + 1} "
                    + $"({places[i].Top + lift:0.##} mm up)."),
                "Supports of the same plastic weld to the part there and do not come off.",
                task.Supports.RoofGap is null ? "/recipe/supports/gapZ" : "/recipe/supports/roofGap");
        }
        return null;
    }
}
