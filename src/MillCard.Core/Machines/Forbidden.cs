using MillCard.Core.Documents;
using MillCard.Core.Geometry;
using MillCard.Core.Wording;

namespace MillCard.Core.Machines;

/// <summary>A region that the part may not enter below a height.</summary>
/// <param name="KeepOut">The keep-out it comes from.</param>
/// <param name="With">Name of the body that makes it, or null for the nozzle itself.</param>
/// <param name="Core">The convex or other outline before the clearance margin is grown on, bed frame.</param>
/// <param name="Margin">Clearance margin to be grown on, mm.</param>
/// <param name="Below">It counts for what of the part lies below this, mm.</param>
public sealed record Forbidden(KeepOut KeepOut, string? With, Shape Core, double Margin, double Below)
{
    /// <summary>All that a machine's keep-outs forbid.</summary>
    /// <param name="machine">The machine.</param>
    /// <param name="firstLayer">Height of the first layer, mm.</param>
    /// <param name="nozzle">Index of the nozzle that prints.</param>
    public static IReadOnlyList<Forbidden> All(Machine machine, double firstLayer, int nozzle = 0) =>
        [.. machine.KeepOuts.SelectMany(region => Of(machine, region, firstLayer, nozzle))];

    /// <summary>What a keep-out forbids: itself, and for an obstacle the border that the head's bodies and beams add.</summary>
    /// <remarks>F(z) = (K if z &lt; t) ∪ ⋃ { K ⊕ (−O_b) : u_b + z &lt; t }, grown by the clearance margin.</remarks>
    /// <param name="machine">The machine.</param>
    /// <param name="region">One of its keep-outs.</param>
    /// <param name="firstLayer">Height of the first layer, mm.</param>
    /// <param name="nozzle">Index of the nozzle that prints.</param>
    /// <param name="margin">Clearance margin, mm; the machine's where nothing is said.</param>
    [Formula("What a keep-out forbids", "F(z) = (K if z < t) ∪ ⋃ { K ⊕ (−O) : u + z < t }",
        "Minkowski sum; de Berg et al., Computational Geometry, chapter 13; from memory.",
            Where = "K the keep-out, t its top, O an outline of the head, u its underside, grown by the clearance")]
    public static IEnumerable<Forbidden> Of(Machine machine, Region region, double firstLayer, int nozzle = 0, double? margin = null)
    {
        var c = margin ?? machine.Clearance;
        var keepOut = region.KeepOut;
        switch (keepOut.Kind)
        {
            case KeepOutKind.Reserved:
                yield return new Forbidden(keepOut, null, region.Outline, 0, double.PositiveInfinity);
                yield break;
            case KeepOutKind.BadSurface:
                yield return new Forbidden(keepOut, null, region.Outline, 0, firstLayer);
                yield break;
        }
        var top = keepOut.Top ?? double.PositiveInfinity;
        yield return new Forbidden(keepOut, null, region.Outline, c, top);
        foreach (var solid in machine.HeadOf(nozzle))
        {
            if (solid.Underside >= top) continue;
            yield return solid.Along is { } along
                ? new Forbidden(keepOut, solid.Name, Strip(region, solid, along, c), 0, top - solid.Underside)
                : new Forbidden(keepOut, solid.Name, MinkowskiSum.Of(region.Outline, MinkowskiSum.Negated(solid.Outline)), c,
                    top - solid.Underside);
        }
    }

    /// <summary>The whole region, clearance margin grown on to the safe side.</summary>
    public Shape Grown => Plane.GrowOutside(Core, Margin);

    private static Shape Strip(Region region, HeadSolid beam, BeamAxis along, double c)
    {
        const double far = 10_000;
        var box = region.Outline.EnvelopeInternal;
        var own = beam.Outline.EnvelopeInternal;
        return along == BeamAxis.X
            ? Shapes.Rectangle(-far, box.MinY - own.MaxY - c, 2 * far, box.Height + own.Height + 2 * c)
            : Shapes.Rectangle(box.MinX - own.MaxX - c, -far, box.Width + own.Width + 2 * c, 2 * far);
    }
}
