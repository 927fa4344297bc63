using MillCard.Core.Documents;
using MillCard.Core.Geometry;
using MillCard.Core.Meshes;
using MillCard.Core.Slicing.Sections;
using NetTopologySuite.Geometries;

namespace MillCard.Core.Making;

/// <summary>Along which axis of the part as it stands a cut is measured; the plane stands across it.</summary>
public enum CutAlong
{
    /// <summary>From left to right.</summary>
    X,
    /// <summary>From front to back.</summary>
    Y,
    /// <summary>Upwards.</summary>
    Z,
}

/// <summary>Pegs that join what was cut: parts of their own, with a hole for each in both sides.</summary>
public sealed record PegSizes : OpenRecord
{
    /// <summary>Diameter of a peg.</summary>
    [Field("peg's diameter", "mm", AtLeast = 0.5, AtMost = 100)] public double Diameter { get; init; } = 4;
    /// <summary>How deep a hole goes into each side.</summary>
    [Field("hole's depth", "mm", AtLeast = 0.5, AtMost = 200)] public double Depth { get; init; } = 6;
    /// <summary>By how much a hole is wider than its peg.</summary>
    [Field("play", "mm", AtLeast = 0, AtMost = 2)] public double Play { get; init; } = 0.2;
    /// <summary>How many.</summary>
    [Field("pegs", AtLeast = 1, AtMost = 8)] public int Count { get; init; } = 2;
}

/// <summary>A part in two.</summary>
/// <param name="Lower">What lies nearer to the axis' beginning.</param>
/// <param name="Upper">The rest.</param>
/// <param name="Peg">One of the pegs, standing; null for none.</param>
/// <param name="Pegs">How many of them.</param>
public sealed record PartCut(Mesh Lower, Mesh Upper, Mesh? Peg, int Pegs)
{
    /// <summary>Least plastic round a hole, mm.</summary>
    private const double Wall = 1;

    /// <summary>How far apart a hole is looked at in depth, mm.</summary>
    private const double Step = 0.25;

    /// <summary>Cuts a part as it stands.</summary>
    /// <param name="mesh">The part, scaled and tilted.</param>
    /// <param name="along">The axis across which the plane stands.</param>
    /// <param name="at">From the part's lowest place along it, mm.</param>
    /// <param name="onCutFaces">Whether both sides are laid on their cut faces.</param>
    /// <param name="pegs">What joins them; null for nothing.</param>
    /// <param name="stop">Ends it.</param>
    /// <exception cref="MeshRefusedException">The plane misses the part, the cut cannot be closed, or there is no room for the
    /// pegs.</exception>
    public static PartCut Of(Mesh mesh, CutAlong along, double at, bool onCutFaces, PegSizes? pegs, CancellationToken stop = default)
    {
        var upright = Moved(mesh, p => Upright(along, p));
        var (low, high) = (upright.Box.MinZ, upright.Box.MaxZ);
        if (!(at > 0 && at < high - low))
            throw new MeshRefusedException(Invariant(
                $"The part reaches from 0 to {high - low:0.##} mm there; a cut at {at:0.##} misses it."));
        var level = (double)(float)(low + at);
        var bores = pegs is null ? [] : Bores(upright, level, pegs, stop);
        var cut = LevelCut.Of(upright, level, bores);
        if (!cut.IsClosed)
            throw new MeshRefusedException("The cut cannot be closed: the mesh has holes there, or runs through itself.");
        var (lower, upper) = onCutFaces ? (Moved(cut.Below, p => (p.X, -p.Y, -p.Z)), cut.Above)
            : (Moved(cut.Below, p => Back(along, p)), Moved(cut.Above, p => Back(along, p)));
        return new(lower, upper, pegs is null ? null : PegOf(pegs), bores.Length);
    }

    private static Mesh PegOf(PegSizes pegs) => Prism.Of((Polygon)Plane.Factory.CreatePoint(new Coordinate(0, 0))
        .Buffer(pegs.Diameter / 2, 12), Math.Max(0.5, 2 * pegs.Depth - 2 * pegs.Play));

    private static (float X, float Y, float Z) Upright(CutAlong along, (float X, float Y, float Z) p) => along switch
    {
        CutAlong.X => (p.Y, p.Z, p.X),
        CutAlong.Y => (p.Z, p.X, p.Y),
        _ => p,
    };

    private static (float X, float Y, float Z) Back(CutAlong along, (float X, float Y, float Z) p) => along switch
    {
        CutAlong.X => (p.Z, p.X, p.Y),
        CutAlong.Y => (p.Y, p.Z, p.X),
        _ => p,
    };

    private static Mesh Moved(Mesh mesh, Func<(float X, float Y, float Z), (float X, float Y, float Z)> to)
    {
        var corners = new float[mesh.Corners.Length];
        for (var i = 0; i < corners.Length; i += 3)
            (corners[i], corners[i + 1], corners[i + 2]) = to((mesh.Corners[i], mesh.Corners[i + 1], mesh.Corners[i + 2]));
        return new Mesh(corners, mesh.Faces);
    }

    /// <summary>Holes as far apart as there is room for, plastic all round each and below it.</summary>
    private static Bore[] Bores(Mesh upright, double level, PegSizes pegs, CancellationToken stop)
    {
        var (radius, deepest) = ((pegs.Diameter + pegs.Play) / 2, pegs.Depth + Wall);
        var steps = (int)Math.Ceiling(deepest / Step);
        double[] heights = [.. Enumerable.Range(-steps, 2 * steps + 1).Where(i => i != 0).Select(i => level + i * deepest / steps)];
        var sections = new CrossSections(upright, Neighbours.Of(upright, stop), heights);
        using var tracer = sections.NewTracer();
        var free = default(Shape);
        for (var i = 0; i < heights.Length && free is not { IsEmpty: true }; i++)
        {
            stop.ThrowIfCancellationRequested();
            var room = Plane.Offset(Regions.Of(tracer.Trace(i)), -(radius + Wall));
            free = free is null ? room : Plane.Intersection(free, room);
        }
        var chosen = Apart(free!, pegs.Count, 2 * radius + Wall);
        if (chosen.Count < pegs.Count)
            throw new MeshRefusedException(
                Invariant($"There is room for {chosen.Count} of {pegs.Count} pegs of {pegs.Diameter:0.##} mm, {pegs.Depth:0.##} mm deep, ")
                + Invariant($"with {Wall:0.##} mm of plastic round them."));
        return [.. chosen.Select(c => new Bore(c.X, c.Y, radius, pegs.Depth))];
    }

    /// <summary>Points of a shape, each as far from those before it as can be; fewer where they would come too near.</summary>
    private static List<Coordinate> Apart(Shape shape, int count, double least)
    {
        var chosen = new List<Coordinate>();
        if (shape.IsEmpty) return chosen;
        if (count == 1) return [(shape.Centroid is { } middle && shape.Covers(middle) ? middle : shape.InteriorPoint).Coordinate];
        var corners = shape.Coordinates;
        chosen.Add(corners.MaxBy(c => c.Distance(shape.Centroid.Coordinate))!);
        while (chosen.Count < count)
        {
            var next = corners.MaxBy(c => chosen.Min(other => other.Distance(c)))!;
            if (chosen.Min(other => other.Distance(next)) < least) break;
            chosen.Add(next);
        }
        return chosen;
    }
}
