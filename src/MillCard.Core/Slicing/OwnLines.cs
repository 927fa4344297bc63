using MillCard.Core.Documents;
using MillCard.Core.Geometry;
using MillCard.Core.Slicing.Filling;
using MillCard.Core.Slicing.Paths;
using MillCard.Core.Slicing.Sections;
using MillCard.Core.Slicing.Walls;

namespace MillCard.Core.Slicing;

/// <summary>A part's own lines on every layer, without supports and without paces, in the part's own frame.</summary>
/// <param name="Regions">What is plastic; equal neighbours are one shape.</param>
/// <param name="Layers">One a region.</param>
internal sealed record OwnLines(Shape[] Regions, PartLayer[] Layers)
{
    /// <summary>Lays them, layers in parallel.</summary>
    /// <param name="sections">The part's cross-sections.</param>
    /// <param name="carriers">What carries the layers above, of what is plastic.</param>
    /// <param name="places">Its layers.</param>
    /// <param name="zones">In the frame of the sections.</param>
    /// <param name="marks">Where seams are painted.</param>
    /// <param name="settings">What holds in the zones.</param>
    /// <param name="nozzle">Diameter of the nozzle, mm.</param>
    /// <param name="options">How parallel, and when to stop.</param>
    /// <param name="told">Told how many layers are done.</param>
    public static OwnLines Of(Shape[] sections, Func<Shape[], Shape[]> carriers, LayerPlace[] places, Zones zones,
        MarkedSeams marks, ZoneSettings settings, double nozzle, ParallelOptions options, Action<int> told)
    {
        var (n, done, recipe) = (places.Length, 0, settings.Own.Recipe);
        var regions = zones.Cut(sections);
        var filler = new LayerFill(regions, carriers(regions), places, new CommonToNeighbours(regions), nozzle);
        var layers = new PartLayer[n];
        Parallel.For(0, n, options, i =>
        {
            layers[i] = recipe.Spiral && i >= recipe.BottomLayers ? Spiral(regions[i], recipe, i)
                : LayerLines.Of(regions[i], places[i], i,
                    OneWallTops.Apart(zones.PiecesOf(i, regions[i]), i + 1 < n ? regions[i + 1] : Plane.Empty), filler);
            told(Interlocked.Increment(ref done));
        });
        Seam(layers, recipe.Wall, zones, marks, options);
        return new(regions, layers);
    }

    private static PartLayer Spiral(Shape region, Recipe recipe, int layer)
    {
        var width = recipe.WidthOf(PathKind.OuterWall);
        var middle = Plane.Polygons(Plane.Offset(region, -width / 2)).MaxBy(p => p.Area);
        return new PartLayer(region, middle is null ? [] : [[WallLines.Ring(middle.ExteriorRing, PathKind.OuterWall, width) with
        {
            Climbs = layer >= Math.Max(1, recipe.BottomLayers),
        }]], [], [], []);
    }

    /// <summary>Turns rings to their seams. Aligned ones follow the longest outer ring of the layer below, so those are gone through from
    /// the bottom up first.</summary>
    private static void Seam(PartLayer[] layers, WallUse use, Zones zones, MarkedSeams marks, ParallelOptions options)
    {
        var (wall, inner) = (use.Seam, use.InnerSeam ?? use.Seam);
        var guides = new Point?[layers.Length];
        Point? guide = null;
        for (var i = 0; i < layers.Length; i++)
        {
            if (layers[i].Walls.Count == 0 || layers[i].Walls[0].Where(p => p.Closed).MaxBy(p => p.Length) is not { } outer) continue;
            var at = guide ?? Seams.First(outer);
            guides[i] = at;
            guide = Seams.At(outer, wall, at, i, marks.Unwanted(i)).Points[0];
        }
        // spirals climb from where the layer below ended; they are turned where layers are put in order
        Parallel.For(0, layers.Length, options, i =>
        {
            if (guides[i] is not { } at) return;
            var (wanted, unwanted) = (Plane.Union([zones.Of(ZoneUse.Seam, i), marks.Wanted(i)]), marks.Unwanted(i));
            layers[i] = layers[i] with
            {
                Walls = [.. layers[i].Walls.Select((rings, k) => (IReadOnlyList<ToolPath>)[.. rings.Select(ring => !ring.Closed ? ring
                    : Seams.In(wanted, ring) ?? Seams.At(ring, k == 0 ? wall : inner, at, i, unwanted))])],
            };
        });
    }

    /// <summary>What it takes in memory, about.</summary>
    public long Bytes => PartSections.BytesOf(Regions) + ToolPath.BytesOf(Layers.SelectMany(l => l.Paths));
}
