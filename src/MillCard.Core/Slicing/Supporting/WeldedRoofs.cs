using MillCard.Core.Findings;
using MillCard.Core.Geometry;

namespace MillCard.Core.Slicing.Supporting;

/// <summary>Overhangs that are laid right upon supports of the same plastic.</summary>
internal static class WeldedRoofs
{
    /// <summary>The lowest layer that is; null where a layer is left free everywhere.</summary>
    /// <param name="task">What is held.</param>
    /// <param name="areas">What holds.</param>
    public static int? Of(SupportTask task, SupportAreas areas)
    {
        for (var i = 1; i < task.Overhangs.Length; i++)
            if (task.TopFor(i) == i - 1 && !Plane.Intersection(task.Overhangs[i], areas.On(i - 1)).IsEmpty) return i;
        return null;
    }

    /// <summary>One finding for all of them.</summary>
    /// <param name="part">Name of the part.</param>
    /// <param name="layer">The lowest.</param>
    /// <param name="top">Its top, mm.</param>
    /// <param name="supports">The settings.</param>
    public static Finding Said(string part, int layer, double top, Documents.Supports supports) => new("roof-welds", Severity.Caution,
        $"{part}: no layer is left free between supports and what they hold, first on layer {layer + 1} ({top:0.##} mm up).",
        "Supports of the same plastic weld to the part there and do not come off.",
        supports.RoofGap is null ? "/recipe/supports/gapZ" : "/recipe/supports/roofGap");
}
