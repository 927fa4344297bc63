using MillCard.Core.Documents;
using MillCard.Core.Geometry;
using MillCard.Core.Machines;
using MillCard.Core.Reach;
using NetTopologySuite.Algorithm.Locate;
using NetTopologySuite.Geometries;

namespace MillCard.Core.Clearance;

/// <summary>How equal parts stand in rows so that they can be printed one at a time.</summary>
/// <param name="PitchX">From one part to the next in a row, mm; null where a row holds one part only.</param>
/// <param name="PitchY">From one row to the next, mm; null where there is one row only.</param>
/// <param name="Places">Middles of the parts in the order of printing, bed frame.</param>
public sealed record Packing(double? PitchX, double? PitchY, IReadOnlyList<Point> Places)
{
    private const double Far = 5_000;
    private const int Offsets = 8;
    private const int Most = 500;

    /// <summary>As many of a part as fit this bed one at a time, in rows.</summary>
    /// <param name="machine">The machine.</param>
    /// <param name="recipe">What is grown on the first layer; null for nothing.</param>
    /// <param name="part">The part; its own place plays no role.</param>
    /// <param name="stop">Ends the computation.</param>
    public static Packing Of(Machine machine, Recipe? recipe, StandingPart part, CancellationToken stop = default)
    {
        var free = new Fit(machine, recipe).FreePlaces(part, stop);
        if (free.IsEmpty) return new Packing(null, null, []);
        var whole = part.Footprints.Below(double.PositiveInfinity, 0, 0, part.Turn, Fit.ApronOf(recipe, machine.Card));
        var blocked = Plane.Union(new PrintOrder(machine, recipe)
            .BlockedFor(part), MinkowskiSum.Of(MinkowskiSum.Negated(whole), Shapes.Hull(whole)));
        Packing? best = null;
        foreach (var (sx, sy) in new[] { (1, 1), (1, -1), (-1, 1), (-1, -1) })
            foreach (var rowsAlongX in new[] { true, false })
                foreach (var wide in new[] { false, true })
                {
                    stop.ThrowIfCancellationRequested();
                    var packing = Rows(free, blocked, sx, sy, rowsAlongX, wide);
                    if (best is null || packing.Places.Count > best.Places.Count) best = packing;
                }
        return best!;
    }

    /// <summary>Parts in rows, one row after the other; within a row and from row to row always in the same sense.</summary>
    private static Packing Rows(Shape free, Shape blocked, int sx, int sy, bool rowsAlongX, bool wide)
    {
        var (box, area) = (free.EnvelopeInternal, blocked.EnvelopeInternal);
        var (length, depth) = rowsAlongX ? (box.Width, box.Height) : (box.Height, box.Width);
        var (inRow, toNext) = rowsAlongX ? (sx, sy) : (sy, sx);
        var within = wide ? Math.Max(rowsAlongX ? area.MaxX : area.MaxY, rowsAlongX ? -area.MinX : -area.MinY)
            : Reaches(blocked, 0, inRow, rowsAlongX);
        var most = within > length || within <= 0 ? 1 : (int)Math.Floor(length / within + 1e-9) + 1;
        var between = 0.0;
        for (var k = -(most - 1); k < most; k++) between = Math.Max(between, Reaches(blocked, k * within, toNext, !rowsAlongX));
        var rows = between > depth || between <= 0 ? 1 : (int)Math.Floor(depth / between + 1e-9) + 1;
        var (px, py) = rowsAlongX ? (most > 1 ? within : 0, rows > 1 ? between : 0) : (rows > 1 ? between : 0, most > 1 ? within : 0);
        var (nx, ny) = rowsAlongX ? (most, rows) : (rows, most);
        var places = Best(free, px, py, nx, ny);
        var ordered = rowsAlongX
            ? places.OrderBy(p => Math.Round(sy * p.Y, 6)).ThenBy(p => sx * p.X)
            : places.OrderBy(p => Math.Round(sx * p.X, 6)).ThenBy(p => sy * p.Y);
        return new Packing(nx > 1 ? px : null, ny > 1 ? py : null, [.. ordered.Take(Most)]);
    }

    /// <summary>How far a blocked area reaches along a line parallel to an axis, in one sense, from the other axis, mm.</summary>
    private static double Reaches(Shape blocked, double aside, int sense, bool alongX)
    {
        var (from, to) = alongX ? (new Coordinate(0, aside), new Coordinate(sense * Far, aside))
            : (new Coordinate(aside, 0), new Coordinate(aside, sense * Far));
        var hit = NetTopologySuite.Operation.OverlayNG.OverlayNGRobust.Overlay(Plane.Factory.CreateLineString([from, to]), blocked,
            NetTopologySuite.Operation.Overlay.SpatialFunction.Intersection);
        if (hit.IsEmpty) return 0;
        var box = hit.EnvelopeInternal;
        return alongX ? sense > 0 ? box.MaxX : -box.MinX : sense > 0 ? box.MaxY : -box.MinY;
    }

    /// <summary>The grid's places in the free area, shifted so that most of them count.</summary>
    private static List<Point> Best(Shape free, double px, double py, int nx, int ny)
    {
        var inside = new IndexedPointInAreaLocator(Plane.Offset(free, Plane.Touch / 2));
        var box = free.EnvelopeInternal;
        var (slackX, slackY) = (box.Width - (nx - 1) * px, box.Height - (ny - 1) * py);
        List<Point> best = [];
        for (var a = 0; a <= Offsets; a++)
            for (var b = 0; b <= Offsets; b++)
            {
                var places = new List<Point>();
                for (var i = 0; i < nx; i++)
                    for (var j = 0; j < ny; j++)
                    {
                        var place = new Coordinate(box.MinX + a * slackX / Offsets + i * px, box.MinY + b * slackY / Offsets + j * py);
                        if (inside.Locate(place) != Location.Exterior) places.Add(new Point(place.X, place.Y));
                    }
                if (places.Count > best.Count) best = places;
            }
        return best;
    }
}
