using MillCard.Core.Documents;
using MillCard.Core.Machines;
using MillCard.Core.Meshes;
using MillCard.Core.Motion;
using MillCard.Core.Reach;
using MillCard.Core.Slicing.Jobs;
using MillCard.Core.Slicing.Paths;
using MillCard.Core.Slicing.Sections;
using NetTopologySuite.Operation.Distance;

namespace MillCard.Core.Routines.Previews;

/// <summary>A block for which routines run when there is no part: its walls alone, as near to the middle of the bed as it fits.</summary>
/// <param name="Width">Along X, mm.</param>
/// <param name="Depth">Along Y, mm.</param>
/// <param name="Height">mm.</param>
public sealed record ImaginedPart(double Width, double Depth, double Height)
{
    private const int MostLayers = 400;

    /// <summary>Moderate: 40 × 40 × 30 mm, and no more than a third of the bed and half of the height.</summary>
    public static ImaginedPart Moderate(Machine machine)
    {
        var box = machine.Bed.EnvelopeInternal;
        return new ImaginedPart(Math.Min(40, box.Width / 3), Math.Min(40, box.Height / 3), Math.Min(30, machine.Height / 2));
    }

    /// <summary>A low, a tall and a wide one. The tall one leaves a little room above it, without which no end could go aside.</summary>
    internal static IReadOnlyList<ImaginedPart> Others(Machine machine)
    {
        var (moderate, box) = (Moderate(machine), machine.Bed.EnvelopeInternal);
        var tall = Math.Max(machine.Height - RoomAbove, machine.Height * 0.8);
        return
        [
            moderate with { Height = Math.Min(1, machine.Height), Called = "a part 1 mm high", Layers = Few },
            moderate with { Height = tall, Called = Invariant($"a part {tall:0.#} mm high"), Layers = Few },
            new(box.Width * Wide, box.Height * Wide, Math.Min(5, machine.Height))
            {
                Called = "a part that covers most of the bed",
                Layers = Few,
            },
        ];
    }

    private const double Wide = 0.6;
    private const double RoomAbove = 5;

    /// <summary>Layers at most: where only the end is looked at, a few thick ones do.</summary>
    private int Layers { get; init; } = MostLayers;
    private const int Few = 12;

    /// <summary>How it is called in a sentence.</summary>
    public string Called { get; init; } = "a moderate part";

    /// <summary>The block as layers of a job, and the job itself.</summary>
    internal (SliceJob Job, IReadOnlyList<LayerPlan> Layers) Planned(Machine machine, Filament filament, Recipe recipe, ModeUse? mode)
    {
        recipe = Ladder.Resolved(recipe, machine.Card) with { Skirt = new() { Rounds = 0 } };
        var block = Block.Of(Width, Depth, Height);
        var foot = new Footprints(block);
        var middle = machine.Bed.Centroid;
        var free = new Fit(machine, recipe).FreePlaces(new StandingPart("imagined part", foot, 0, 0, 0, []), default);
        var place = free.IsEmpty || free.Covers(middle) ? middle.Coordinate : DistanceOp.NearestPoints(free, middle)[0];
        var first = recipe.Layers.FirstHeight;
        // a tall one has thicker layers, so that it is tall all the same
        var others = Math.Max(recipe.Layers.Others!.Value, (Height - first) / (Layers - 1));
        var count = Math.Max(1, 1 + (int)((Height - first + 1e-9) / others));
        var half = recipe.LineWidth!.Value / 2;
        var layers = new LayerPlan[count];
        for (var i = 0; i < count; i++)
        {
            var paths = new List<ToolPath>();
            // the second nozzle has one layer, so that its change of tool is seen
            for (var ring = 1; ring >= 0; ring--)
            {
                var (w, d) = (Width / 2 - half * (1 + 2 * ring), Depth / 2 - half * (1 + 2 * ring));
                paths.Add(new ToolPath(ring == 0 ? PathKind.OuterWall : PathKind.InnerWall,
                    [new(place.X - w, place.Y - d), new(place.X + w, place.Y - d), new(place.X + w, place.Y + d),
                        new(place.X - w, place.Y + d)], Closed: true, 2 * half)
                {
                    Nozzle = ring == 0 && i == 1 && machine.Nozzles.Count > 1 && mode?.Kind is not (ModeKind.Copy or ModeKind.Mirror) ? 1
                        : 0,
                    Part = 0,
                });
            }
            layers[i] = new LayerPlan(i == 0 ? new LayerPlace(first, first) : new LayerPlace(first + i * others, others), paths);
        }
        var part = new PartToSlice(new TrialPart { Name = "imagined part", File = "imagined", X = place.X, Y = place.Y }, block, foot);
        return (new SliceJob("imagined part", machine, filament, recipe, [part]) { Mode = ModePlan.InUse(machine, mode) }, layers);
    }
}
