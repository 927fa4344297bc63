using MillCard.Core.Findings;
using MillCard.Core.Flow;
using MillCard.Core.Geometry;
using MillCard.Core.Meshes;
using MillCard.Core.Reach;
using MillCard.Core.Slicing.Filling;
using MillCard.Core.Slicing.Jobs;
using MillCard.Core.Slicing.Paths;
using MillCard.Core.Slicing.Sections;
using MillCard.Core.Slicing.Walls;
using MillCard.Core.Wording;
using NetTopologySuite.Operation.Distance;

namespace MillCard.Core.Slicing.Supporting;

/// <summary>A tower on which nozzles prime after a change: one strip a change, sparse where nothing is changed.</summary>
/// <param name="Foot">Its square on the bed.</param>
/// <param name="Strips">Changes on the layer that has most of them.</param>
/// <param name="Top">Number of layers it is high.</param>
internal sealed record Tower(Shape Foot, int Strips, int Top)
{
    private const double Sparse = 0.2;
    private const double Room = 3;

    /// <summary>Places a tower, as near to the parts as there is room.</summary>
    /// <param name="job">The job.</param>
    /// <param name="changes">Changes of nozzle by layer.</param>
    /// <param name="lowest">Height of the lowest layer, mm.</param>
    /// <param name="taken">What stands on the bed, supports and brims included.</param>
    /// <returns>The tower, or why there is none; both null where none is wanted.</returns>
    [Formula("Side of the tower", "b = √(1.2·V·n/h)",
        "Elementary geometry.",
        Where = "V volume of a change, n changes in one layer, h the lowest layer")]
    public static (Tower? Tower, Finding? Refusal) Of(SliceJob job, int[] changes, double lowest, Lazy<Shape> taken)
    {
        var recipe = job.Recipe;
        var top = Array.FindLastIndex(changes, c => c > 0) + 1;
        if (top == 0 || recipe.NozzleChanges.Tower == 0) return (null, null);
        var strips = changes.Max();
        var side = Math.Max(recipe.NozzleChanges.TowerWidth, Math.Ceiling(Math.Sqrt(1.2 * recipe.NozzleChanges.Tower * strips / lowest)));
        var block = Block.Of(side, side, 1);
        var ids = job.Parts.SelectMany(p => job.Machine.NozzlesOf(p.Part.Nozzles).Take(1)).Distinct().Select(i => job.Machine.Nozzles[i].Id)
            .ToArray();
        var free = new Fit(job.Machine, recipe).FreePlaces(new StandingPart("tower", new Footprints(block), 0, 0, 0, ids));
        free = Plane.Difference(free, Plane.Offset(Plane.Offset(taken.Value, Room).Envelope, side / 2));
        if (free.IsEmpty)
            return (null, new Finding("no-room-for-tower", Severity.Stop,
                $"There is no room on the bed for a tower of {side:0.#} mm beside the parts.",
                "After a change the nozzle would begin on the part with what it oozed.", "/recipe/nozzleChanges/tower"));
        var at = DistanceOp.NearestPoints(free, taken.Value.Centroid)[0];
        return (new Tower(Shapes.Rectangle(at.X - side / 2, at.Y - side / 2, side, side), strips, top), null);
    }

    /// <summary>The lines of one strip on one layer.</summary>
    /// <param name="strip">Number of the change on this layer.</param>
    /// <param name="layer">Number of the layer.</param>
    /// <param name="place">Its place.</param>
    /// <param name="job">The job.</param>
    /// <param name="primes">Whether a nozzle primes on it; else it only has to carry what comes above.</param>
    public IEnumerable<ToolPath> Lines(int strip, int layer, LayerPlace place, SliceJob job, bool primes)
    {
        var box = Foot.EnvelopeInternal;
        var depth = box.Height / Strips;
        var width = job.Recipe.LineWidth!.Value;
        var spacing = ExtrudedLine.Spacing(width, place.Height);
        Shape middles = Shapes.Rectangle(box.MinX + width / 2, box.MinY + strip * depth + width / 2, box.Width - width, depth - width);
        foreach (var ring in WallLines.Rings(middles, PathKind.Tower, width)) yield return ring;
        var share = primes ? Math.Clamp(job.Recipe.NozzleChanges.Tower / (box.Width * depth * place.Height), Sparse, 1) : Sparse;
        foreach (var line in Hatch.Of(Plane.Offset(middles, -spacing), layer % 2 == 0 ? 0 : 90, spacing / share, PathKind.Tower, width))
            yield return line;
    }
}
