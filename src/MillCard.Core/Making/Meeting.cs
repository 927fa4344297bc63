using MillCard.Core.Geometry;
using MillCard.Core.Meshes;
using MillCard.Core.Slicing;
using MillCard.Core.Slicing.Sections;

namespace MillCard.Core.Making;

/// <summary>How two bodies stand to each other.</summary>
public enum Meeting
{
    /// <summary>There is air between them.</summary>
    Apart,
    /// <summary>They touch, or share a little.</summary>
    Touch,
    /// <summary>One lies wholly in the other.</summary>
    Within,
    /// <summary>They share much, as parts do that were drawn at the same place.</summary>
    Through,
}

/// <summary>Tells how bodies meet that were drawn together, by looking at them in layers.</summary>
public static class Meetings
{
    private const int Layers = 48;

    /// <summary>Bodies touch up to this, mm.</summary>
    private const double Touching = 0.05;

    /// <summary>From this share of the smaller one on they go through each other.</summary>
    private const double Much = 0.3;

    /// <summary>From this share of the smaller one on it lies within the other.</summary>
    private const double All = 0.98;

    /// <summary>How two meshes meet where they stand.</summary>
    /// <param name="a">One of them.</param>
    /// <param name="b">The other.</param>
    /// <param name="stop">Ends it.</param>
    public static Meeting Of(Mesh a, Mesh b, CancellationToken stop = default)
    {
        var (low, high) = (Math.Max(a.Box.MinZ, b.Box.MinZ), Math.Min(a.Box.MaxZ, b.Box.MaxZ));
        if (high - low < -Touching || !Beside(a, b)) return Meeting.Apart;
        if (high - low <= Touching)
        {
            // one lies on the other
            var (upper, lower) = a.Box.MinZ > b.Box.MinZ ? (a, b) : (b, a);
            return Fellows.Shared(At(upper, [upper.Box.MinZ + Touching], stop)[0], At(lower, [lower.Box.MaxZ - Touching], stop)[0]).IsEmpty
                ? Meeting.Apart : Meeting.Touch;
        }
        double[] heights = [.. Enumerable.Range(0, Layers).Select(i => low + (high - low) * (i + 0.5) / Layers)];
        var (own, theirs) = (At(a, heights, stop), At(b, heights, stop));
        var shared = own.Zip(theirs, Fellows.Shared).Sum(s => s.Area);
        var step = (high - low) / Layers;
        var smaller = Math.Min(Math.Abs(a.Volume()), Math.Abs(b.Volume()));
        if (shared * step > Much * smaller) return shared * step > All * smaller ? Meeting.Within : Meeting.Through;
        var grown = own.Select(s => Plane.Offset(s, Touching, 2)).ToArray();
        var meets = grown.Zip(theirs, Plane.Intersection).Any(s => !s.IsEmpty)
            || Enumerable.Range(1, Layers - 1).Any(i => !Fellows.Shared(own[i], theirs[i - 1]).IsEmpty
                || !Fellows.Shared(own[i - 1], theirs[i]).IsEmpty);
        return meets ? Meeting.Touch : Meeting.Apart;
    }

    private static bool Beside(Mesh a, Mesh b) => a.Box.MinX <= b.Box.MaxX + Touching && b.Box.MinX <= a.Box.MaxX + Touching
        && a.Box.MinY <= b.Box.MaxY + Touching && b.Box.MinY <= a.Box.MaxY + Touching;

    private static Shape[] At(Mesh mesh, double[] heights, CancellationToken stop)
    {
        var sections = new CrossSections(mesh, Neighbours.Of(mesh, stop), heights);
        using var tracer = sections.NewTracer();
        return [.. Enumerable.Range(0, heights.Length).Select(i => Regions.Of(tracer.Trace(i)))];
    }
}
