using MillCard.Core.Documents;
using MillCard.Core.Findings;
using MillCard.Core.Geometry;
using MillCard.Core.Slicing.Sections;

namespace MillCard.Core.Slicing.Supporting;

/// <summary>Overhangs that were to be held and that no support reaches.</summary>
internal static class BareOverhangs
{
    /// <summary>Smaller pieces hold by what is round them, mm².</summary>
    private const double LeastArea = 3;

    /// <summary>One finding for all of them, with the largest; null where all are held.</summary>
    /// <param name="part">Name of the part.</param>
    /// <param name="task">What was to be held.</param>
    /// <param name="areas">What holds.</param>
    /// <param name="places">The part's layers.</param>
    /// <param name="lift">What lies under the part, mm.</param>
    public static Finding? Of(string part, SupportTask task, SupportAreas areas, LayerPlace[] places, double lift)
    {
        var holds = task.Supports.Pattern == SupportPattern.Branching ? Branches.TipSpacing : 2 * task.Width;
        var (all, largest, on) = (0.0, Plane.Empty, 0);
        for (var i = 0; i < task.Overhangs.Length; i++)
        {
            var below = task.TopFor(i);
            if (below < 0 || task.Overhangs[i].IsEmpty) continue;
            var held = Plane.Union(areas.Body[below], areas.Interface[below]);
            var bare = Plane.Opened(Plane.Difference(task.Overhangs[i], Plane.Offset(held, holds, 2)), task.Width / 2, 2);
            foreach (var piece in Plane.Polygons(bare).Where(p => p.Area >= LeastArea))
            {
                all += piece.Area;
                if (piece.Area > largest.Area) (largest, on) = (piece, i);
            }
        }
        if (largest.IsEmpty) return null;
        var (at, fromBed) = (largest.InteriorPoint, task.Supports.From == SupportFrom.Bed);
        return new Finding("bare-overhang", Severity.Caution,
            Invariant($"{part}: supports do not reach {all:0} mm² of what they were to hold; the largest piece, {largest.Area:0} mm², "
                + $"begins on layer {on + 1} ({places[on].Top + lift:0.##} mm up) at X {at.X:0.#}, Y {at.Y:0.#}."),
            fromBed ? "Below it is the part itself, or a keep-out, and supports stand on the bed alone: its lines drop."
                : "There is no room for supports below it: its lines drop.",
            fromBed ? "/recipe/supports/from" : "/recipe/supports/pattern");
    }
}
