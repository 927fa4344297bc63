using MillCard.Core.Documents;
using MillCard.Core.Findings;
using MillCard.Core.Geometry;
using MillCard.Core.Meshes;
using MillCard.Core.Slicing.Filling;
using MillCard.Core.Slicing.Jobs;
using MillCard.Core.Slicing.Paths;
using MillCard.Core.Slicing.Sections;
using MillCard.Core.Slicing.Supporting;
using MillCard.Core.Slicing.Walls;

namespace MillCard.Core.Slicing;

/// <summary>The lines of every layer of one placed part.</summary>
internal sealed class Layering
{
    private readonly SliceJob _job;
    private readonly PartToSlice _part;
    private readonly Mesh _mesh;
    private readonly Recipe _recipe;
    private readonly int _nozzle;
    private readonly LayerPlace[] _places;
    private readonly ParallelOptions _options;
    private readonly IProgress<Progress>? _progress;

    private Layering(SliceJob job, PartToSlice part, LayerPlace[]? places, IProgress<Progress>? progress, CancellationToken stop)
    {
        (_job, _part, _progress) = (job, part, progress);
        _recipe = job.RecipeOf(part.Part);
        _nozzle = job.Machine.NozzlesOf(part.Part.Nozzles)[0];
        _mesh = Placement.Place(part.Mesh, part.Part);
        _places = places is null ? job.PlacesOf(part) : LayerHeights.Below(places, _mesh.Box.MaxZ);
        _options = job.Parallel(stop);
    }

    /// <summary>Cuts a part and lays its lines, layers in parallel.</summary>
    /// <param name="job">The job.</param>
    /// <param name="part">One of its parts.</param>
    /// <param name="places">Layers of all parts that grow together; null where the part stands alone.</param>
    /// <param name="ground">Where supports may stand.</param>
    /// <param name="lift">What lies under the part, mm.</param>
    /// <param name="progress">Told after every layer of every stage.</param>
    /// <param name="stop">Ends the computation.</param>
    public static LaidPart Of(SliceJob job, PartToSlice part, LayerPlace[]? places, AllowedGround ground, double lift,
        IProgress<Progress>? progress, CancellationToken stop) => new Layering(job, part, places, progress, stop).Lay(ground, lift);

    private LaidPart Lay(AllowedGround ground, double lift)
    {
        var n = _places.Length;
        var sections = PartSections.Of(_mesh, _part.Footprints.Neighbours, _places, _recipe.Compensation, _options,
            done => Tell("sections", done, n));
        var zones = new Zones(_job.Zones, _recipe, [.. _places.Select(p => p.Middle)]);
        var regions = zones.Cut(sections.Regions);
        var lowest = _places.Select(p => p.Height).DefaultIfEmpty(1).Min();
        var longest = (int)Math.Ceiling(zones.Recipes.Max(r => Math.Max(r.TopLayers, r.BottomLayers) * r.Layers.Others!.Value) / lowest);
        var common = new CommonToNeighbours(regions, Math.Max(longest, 1), _options);
        var nozzleWidth = _job.Machine.Nozzles[_nozzle].Diameter ?? _recipe.LineWidth!.Value;
        var filler = new LayerFill(regions, _places, common, nozzleWidth);

        var (task, supports) = Supports(regions, zones, ground, lift);
        var layers = new PartLayer[n];
        var done = 0;
        Parallel.For(0, n, _options, i =>
        {
            layers[i] = _job.Recipe.Spiral && i >= _recipe.BottomLayers ? Spiral(regions[i], i)
                : LayerLines.Of(regions[i], _places[i], i,
                    OneWallTops.Apart(zones.PiecesOf(i, regions[i]), i + 1 < n ? regions[i + 1] : Plane.Empty), filler,
                    CarriedAt(i, regions, supports, task));
            if (supports is not null)
                layers[i] = layers[i] with
                {
                    Supports = [.. SupportLines.Of(supports.Body[i], supports.Interface[i], _recipe, _places[i], i)
                        .Select(p => p with { Speed = _recipe.SpeedOf(p.Kind) })],
                    Held = Plane.Union(supports.Body[i], supports.Interface[i]),
                };
            Tell("lines", Interlocked.Increment(ref done), n);
        });
        Seam(layers, zones);

        List<Finding> findings = [.. MeshNotes.Of(_part, sections)];
        findings.AddRange(Islands.Of(_part.Part.Name, regions, _places,
            supports is null ? null : i => task!.TopFor(i) is >= 0 and var top ? layers[top].Held : Plane.Empty, lift));
        if (task is not null && supports is not null && BareOverhangs.Of(_part.Part.Name, task, supports, _places, lift) is { } bare)
            findings.Add(bare);
        if (task is not null && supports is not null && _job.InterfaceNozzleOf(_part.Part) == _nozzle
            && WeldedRoofs.Of(_part.Part.Name, task, supports, _places, lift) is { } welded) findings.Add(welded);
        if (ThinNotes.Of(_part.Part.Name, layers, _places, _recipe.Wall.LeastLine * nozzleWidth) is { } thin) findings.Add(thin);
        if (_job.Recipe.Spiral && MeshNotes.Spiral(_part, regions.Skip(_recipe.BottomLayers)) is { } several) findings.Add(several);
        return new LaidPart(layers, _places, _recipe, findings);
    }

    private (SupportTask? Task, SupportAreas? Areas) Supports(Shape[] regions, Zones zones, AllowedGround ground, double lift)
    {
        var supports = _recipe.Supports;
        if (supports.Pattern == SupportPattern.None && !zones.Any(ZoneUse.Support) && !_part.Part.Marks.Any(m => m.Wanted))
            return (null, null);
        _progress?.Report(new Progress("supports", 0, 1));
        var width = _recipe.WidthOf(PathKind.Support);
        var overhangs = Overhangs.Of(regions, _places, supports, zones, _mesh, _part.Part.Marks, width, _options);
        var other = _job.InterfaceNozzleOf(_part.Part);
        var task = new SupportTask(regions, overhangs, Ground, supports, width, _places);
        return (task, supports.Pattern == SupportPattern.Branching ? Branches.Of(task, _options) : Columns.Of(task, _options));

        Shape Ground(int layer)
        {
            var bottom = _places[layer].Top - _places[layer].Height + lift;
            return other == _nozzle ? ground.Of(_nozzle, bottom) : Plane.Intersection(ground.Of(_nozzle, bottom), ground.Of(other, bottom));
        }
    }

    /// <summary>What lies below a layer and carries it; null where that is all of it.</summary>
    private static Shape? CarriedAt(int layer, Shape[] regions, SupportAreas? supports, SupportTask? task)
    {
        if (layer == 0 || ReferenceEquals(regions[layer], regions[layer - 1])) return null;
        var held = task?.TopFor(layer) ?? -1;
        return supports is null || held < 0 ? regions[layer - 1]
            : Plane.Union([regions[layer - 1], supports.Body[held], supports.Interface[held]]);
    }

    private PartLayer Spiral(Shape region, int layer)
    {
        var width = _recipe.WidthOf(PathKind.OuterWall);
        var middle = Plane.Polygons(Plane.Offset(region, -width / 2)).MaxBy(p => p.Area);
        if (middle is null) return new PartLayer(region, [], [], [], []);
        return new PartLayer(region, [[WallLines.Ring(middle.ExteriorRing, PathKind.OuterWall,
            width) with { Speed = _recipe.SpeedOf(PathKind.OuterWall), Climbs = layer >= Math.Max(1, _recipe.BottomLayers) }]], [], [], []);
    }

    /// <summary>Turns rings to their seams. Aligned ones follow the longest outer ring of the layer below, so those are gone through from
    /// the bottom up first.</summary>
    private void Seam(PartLayer[] layers, Zones zones)
    {
        var (wall, inner) = (_recipe.Wall.Seam, _recipe.Wall.InnerSeam ?? _recipe.Wall.Seam);
        var guides = new Point?[layers.Length];
        Point? guide = null;
        for (var i = 0; i < layers.Length; i++)
        {
            if (layers[i].Walls.Count == 0 || layers[i].Walls[0].Where(p => p.Closed).MaxBy(p => p.Length) is not { } outer) continue;
            var at = guide ?? Seams.First(outer);
            guides[i] = at;
            guide = Seams.At(outer, wall, at, i).Points[0];
        }
        // spirals climb from where the layer below ended; they are turned where layers are put in order
        Parallel.For(0, layers.Length, _options, i =>
        {
            if (guides[i] is not { } at) return;
            var wanted = zones.Of(ZoneUse.Seam, i);
            layers[i] = layers[i] with
            {
                Walls = [.. layers[i].Walls.Select((rings, k) => (IReadOnlyList<ToolPath>)[.. rings.Select(ring => !ring.Closed ? ring
                    : Seams.In(wanted, ring) ?? Seams.At(ring, k == 0 ? wall : inner, at, i))])],
            };
        });
    }

    private void Tell(string step, int done, int of) => _progress?.Report(new Progress(step, done, of));
}
