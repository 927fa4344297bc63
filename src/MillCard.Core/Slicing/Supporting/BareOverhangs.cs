using MillCard.Core.Documents;
using MillCard.Core.Findings;
using MillCard.Core.Geometry;

namespace MillCard.Core.Slicing.Supporting;

/// <summary>Overhangs that were to be held and that no support reaches.</summary>
/// <param name="Area">Of all of them, mm².</param>
/// <param name="Largest">The largest piece, mm².</param>
/// <param name="Layer">Where that begins.</param>
/// <param name="At">A place in it.</param>
internal sealed record BareOverhangs(double Area, double Largest, int Layer, Point At)
{
    /// <summary>Smaller pieces hold by what is round them, mm².</summary>
    private const double LeastArea = 3;

    /// <summary>Looks for them; null where all are held.</summary>
    /// <param name="task">What was to be held.</param>
    /// <param name="areas">What holds.</param>
    public static BareOverhangs? Of(SupportTask task, SupportAreas areas)
    {
        var holds = task.Supports.Pattern == SupportPattern.Branching ? Branches.TipSpacing : 2 * task.Width;
        var (all, largest, on) = (0.0, Plane.Empty, 0);
        for (var i = 0; i < task.Overhangs.Length; i++)
        {
            var below = task.TopFor(i);
            if (below < 0 || task.Overhangs[i].IsEmpty) continue;
            var held = areas.On(below);
            var bare = Plane.Opened(Plane.Difference(task.Overhangs[i], Plane.Offset(held, holds, 2)), task.Width / 2, 2);
            foreach (var piece in Plane.Polygons(bare).Where(p => p.Area >= LeastArea))
            {
                all += piece.Area;
                if (piece.Area > largest.Area) (largest, on) = (piece, i);
            }
        }
        if (largest.IsEmpty) return null;
        var at = largest.InteriorPoint;
        return new(all, largest.Area, on, new Point(at.X, at.Y));
    }

    /// <summary>One finding for all of them, with the largest.</summary>
    /// <param name="part">Name of the part.</param>
    /// <param name="x">Where the frame's zero lies, mm, bed frame.</param>
    /// <param name="y">Where the frame's zero lies, mm, bed frame.</param>
    /// <param name="top">Top of the layer where the largest begins, mm.</param>
    /// <param name="from">What supports stand on.</param>
    public Finding Said(string part, double x, double y, double top, SupportFrom from)
    {
        var at = new Point(At.X + x, At.Y + y);
        return new("bare-overhang", Severity.Caution,
            $"{part}: supports do not reach {Area:0} mm² of what they were to hold; the largest piece, {Largest:0} mm², "
                + $"begins on layer {Layer + 1} ({top:0.##} mm up) at X {at.X:0.#}, Y {at.Y:0.#}.",
            from == SupportFrom.Bed ? "Below it is the part itself, or a keep-out, and supports stand on the bed alone: its lines drop."
                : "There is no room for supports below it: its lines drop.",
            from == SupportFrom.Bed ? "/recipe/supports/from" : "/recipe/supports/pattern");
    }
}
