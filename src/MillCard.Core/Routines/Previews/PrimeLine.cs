using MillCard.Core.Documents;
using MillCard.Core.Flow;
using MillCard.Core.Geometry;
using MillCard.Core.Machines;
using NetTopologySuite.Geometries;

namespace MillCard.Core.Routines.Previews;

/// <summary>A line along an edge of the bed on which a nozzle primes, clear of every keep-out as the head with its bodies needs
/// it.</summary>
internal static class PrimeLine
{
    private const double Inset = 4, Step = 2, Shortest = 30, Longest = 140, Height = 0.3;
    private const int Insets = 14;

    /// <summary>The passage that lays it; null where there is no room.</summary>
    public static Passage? Of(Machine machine)
    {
        var free = machine.Usable;
        foreach (var forbidden in Forbidden.All(machine, 0.2)) free = Plane.Difference(free, forbidden.Grown);
        foreach (var edge in Edges(machine.Bed.EnvelopeInternal))
            if (LongestIn(free, edge.Line) is { } clear && clear.Length >= Shortest) return Written(machine, edge, clear);
        return null;
    }

    /// <summary>A line along one edge of the bed.</summary>
    private sealed record Edge(string Name, LineString Line);

    /// <summary>Along every edge in turn; a round bed has room for a line only further in.</summary>
    private static IEnumerable<Edge> Edges(NetTopologySuite.Geometries.Envelope box)
    {
        var (left, right, front, back) = (box.MinX + Inset, box.MaxX - Inset, box.MinY + Inset, box.MaxY - Inset);
        for (var i = 0; i < Insets; i++)
        {
            var inset = Inset + Step * i;
            yield return new("front", Line(left, box.MinY + inset, right, box.MinY + inset));
            yield return new("left", Line(box.MinX + inset, front, box.MinX + inset, back));
            yield return new("back", Line(left, box.MaxY - inset, right, box.MaxY - inset));
            yield return new("right", Line(box.MaxX - inset, front, box.MaxX - inset, back));
        }
    }

    private static LineString? LongestIn(Shape free, LineString line)
    {
        var clear = free.Intersection(line);
        return Enumerable.Range(0, clear.NumGeometries).Select(clear.GetGeometryN).OfType<LineString>().MaxBy(l => l.Length);
    }

    private static Passage Written(Machine machine, Edge edge, LineString clear)
    {
        var box = machine.Bed.EnvelopeInternal;
        var (middle, half) = (clear.Centroid.Coordinate, Math.Min(clear.Length, Longest) / 2);
        var alongX = clear.EnvelopeInternal.Width > clear.EnvelopeInternal.Height;
        var (from, to) = alongX ? (new Point(middle.X - half, middle.Y), new Point(middle.X + half, middle.Y))
            : (new Point(middle.X, middle.Y - half), new Point(middle.X, middle.Y + half));
        var nearest = machine.KeepOuts.Select(k => (k.KeepOut.Name, Distance: k.Outline.Distance(Line(from.X, from.Y, to.X, to.Y))))
            .OrderBy(k => k.Distance).FirstOrDefault();
        var clearance = nearest.Name is null ? "" : Invariant($", {nearest.Distance:0} mm clear of {nearest.Name}");
        var feed = 2 * half * machine.Nozzle.Diameter!.Value * 1.5 * Height
            / ExtrudedLine.FilamentArea(machine.Nozzle.FilamentDiameter ?? 1.75);
        var lift = Invariant($"G1 Z{Over(machine):0.##} F600");
        var end = alongX ? $"X{X(to)}" : $"Y{Y(to)}";
        return new Passage("prime-line", "Prime along an edge", Invariant($"{2 * half:0} mm along the {edge.Name} edge{clearance}."),
            "start", Passages.Lines($"; prime along the {edge.Name}, clear of every keep-out", "G92 E0", lift,
                $"G1 X{X(from)} Y{Y(from)} F6000", "G1 Z{{ first.height }} F600", Invariant($"G1 {end} E{feed:0.#} F1200"), lift,
                "G92 E0"));

        string X(Point at) => FromEdge("bed.min_x", at.X - box.MinX);
        string Y(Point at) => FromEdge("bed.min_y", at.Y - box.MinY);
    }

    /// <summary>Above whatever stands, so that the head with its bodies passes, mm.</summary>
    private static double Over(Machine machine) =>
        Math.Max(5, machine.KeepOuts.Where(k => k.KeepOut.Kind == KeepOutKind.Obstacle).Select(k => k.KeepOut.Top ?? 0)
            .DefaultIfEmpty().Max() + machine.Clearance + 1);

    private static LineString Line(double x0, double y0, double x1, double y1) =>
        Plane.Factory.CreateLineString([new Coordinate(x0, y0), new Coordinate(x1, y1)]);

    private static string FromEdge(string name, double distance) => Invariant($"{{{{ {name} | plus: {distance:0.##} | mm }}}}");
}
