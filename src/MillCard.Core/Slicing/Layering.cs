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

    private Layering(SliceJob job, PartToSlice part, IProgress<Progress>? progress, CancellationToken stop)
    {
        (_job, _part, _progress) = (job, part, progress);
        _recipe = job.RecipeOf(part.Part);
        _nozzle = job.Machine.NozzlesOf(part.Part.Nozzles)[0];
        _mesh = Placement.Place(part.Mesh, part.Part);
        _places = LayerHeights.Of(_mesh.Box.MaxZ, _recipe.Layers.FirstHeight, _recipe.Layers.Others!.Value);
        _options = job.Parallel(stop);
    }

    /// <summary>Cuts a part and lays its lines, layers in parallel.</summary>
    /// <param name="job">The job.</param>
    /// <param name="part">One of its parts.</param>
    /// <param name="ground">Where supports may stand.</param>
    /// <param name="lift">What lies under the part, mm.</param>
    /// <param name="progress">Told after every layer of every stage.</param>
    /// <param name="stop">Ends the computation.</param>
    public static LaidPart Of(SliceJob job, PartToSlice part, AllowedGround ground, double lift, IProgress<Progress>? progress,
        CancellationToken stop) => new Layering(job, part, progress, stop).Lay(ground, lift);

    private LaidPart Lay(AllowedGround ground, double lift)
    {
        var n = _places.Length;
        var (regions, unclosed, crossing, open) = Cut();
        var zones = new Zones(_job.Zones, _recipe, [.. _places.Select(p => p.Middle)]);
        var longest = zones.Recipes.Max(r => Math.Max(r.TopLayers, r.BottomLayers));
        var common = new CommonToNeighbours(regions, Math.Max(longest, 1), _options);
        var nozzleWidth = _job.Machine.Nozzles[_nozzle].Diameter ?? _recipe.LineWidth!.Value;
        var filler = new LayerFill(regions, _places, common, nozzleWidth);

        var (supports, gap) = Supports(regions, zones, ground, lift);
        var layers = new PartLayer[n];
        var done = 0;
        Parallel.For(0, n, _options, i =>
        {
            layers[i] = _job.Recipe.Spiral && i >= _recipe.BottomLayers ? Spiral(regions[i], i)
                : Layer(regions[i], i, zones.PiecesOf(i, regions[i]), filler);
            if (supports is not null)
                layers[i] = layers[i] with
                {
                    Supports = [.. SupportLines.Of(supports.Body[i], supports.Interface[i], _recipe, _places[i], i)
                        .Select(p => p with { Speed = _recipe.SpeedOf(p.Kind) })],
                    Held = Plane.Union(supports.Body[i], supports.Interface[i]),
                };
            Tell("lines", Interlocked.Increment(ref done), n);
        });
        Seam(layers);

        var findings = new List<Finding>();
        if (unclosed > 0)
            findings.Add(new Finding("open-mesh", Severity.Caution,
                $"{_part.Part.Name}: {unclosed} outlines of its layers have gaps over {CrossSections.Gap} mm and were left out.",
                "The mesh has holes; what is missing there is not printed."));
        else if (open > 0)
            findings.Add(new Finding("open-edges", Severity.Note,
                $"{_part.Part.Name}: {open} edges of its mesh have no partner; every outline was closed all the same.",
                "The mesh is not quite closed. Look through the layers whether something is missing."));
        if (_part.Mesh.RepeatedFaces is > 0 and var repeated)
            findings.Add(new Finding("repeated-faces", Severity.Note,
                $"{_part.Part.Name}: {repeated} faces stand in its file more than once; each was taken once.",
                "A body that was exported twice, or a broken export: look whether the part is whole."));
        if (crossing > 0)
            findings.Add(new Finding("overlapping-mesh", Severity.Note,
                $"{_part.Part.Name}: on {crossing} of {n} layers its outlines cross each other; what lies in several counts once.",
                "The mesh is made of bodies that overlap, or folds into itself."));
        findings.AddRange(Islands.Of(_part.Part.Name, regions, _places, supports is null ? null : i => layers[i].Held, gap, lift));
        if (_job.Recipe.Spiral && regions.Skip(_recipe.BottomLayers)
            .FirstOrDefault(r => r.NumGeometries > 1 || Plane.Polygons(r).Any(p => p.NumInteriorRings > 0)) is not null)
            findings.Add(new Finding("spiral-of-several", Severity.Caution,
                $"{_part.Part.Name} has more than one outline on some layers; a spiral follows the largest alone.",
                "One continuous wall has one outline. The others are left out.", "/recipe/spiral"));
        return new LaidPart(layers, _recipe, findings);
    }

    private (Shape[] Regions, int Unclosed, int Crossing, int OpenEdges) Cut()
    {
        var (n, unclosed, crossing, done) = (_places.Length, 0, 0, 0);
        var neighbours = _part.Footprints.Neighbours;
        var regions = new Shape[n];
        var sections = new CrossSections(_mesh, neighbours, [.. _places.Select(p => p.Middle)]);
        var correction = _recipe.Compensation;
        Parallel.For(0, n, _options, sections.NewTracer, (i, _, tracer) =>
        {
            var contours = tracer.Trace(i);
            if (contours.Unclosed > 0) Interlocked.Add(ref unclosed, contours.Unclosed);
            regions[i] = Plane.Offset(Regions.Of(contours, out var crosses), correction.Xy + (i == 0 ? correction.FirstLayer : 0));
            if (crosses) Interlocked.Increment(ref crossing);
            Tell("sections", Interlocked.Increment(ref done), n);
            return tracer;
        }, tracer => tracer.Dispose());
        // equal neighbours share one shape: comparing them costs nothing then
        for (var i = 1; i < n; i++) if (regions[i].EqualsExact(regions[i - 1])) regions[i] = regions[i - 1];
        return (regions, unclosed, crossing, neighbours.OpenEdges);
    }

    private (SupportAreas? Areas, int Gap) Supports(Shape[] regions, Zones zones, AllowedGround ground, double lift)
    {
        var supports = _recipe.Supports;
        if (supports.Pattern == SupportPattern.None && !zones.Any(ZoneUse.Support) && !_part.Part.Marks.Any(m => m.Wanted))
            return (null, 0);
        _progress?.Report(new Progress("supports", 0, 1));
        var (width, height) = (_recipe.WidthOf(PathKind.Support, false), _recipe.Layers.Others!.Value);
        var overhangs = Overhangs.Of(regions, _places, supports, zones, _mesh, _part.Part.Marks, width, _options);
        var task = new SupportTask(regions, overhangs, i => ground.Of(_nozzle, _places[i].Top - _places[i].Height + lift), supports, width,
            height);
        return (supports.Pattern == SupportPattern.Branching ? Branches.Of(task, _options) : Columns.Of(task, _options), task.Gap);
    }

    private PartLayer Layer(Shape region, int layer, IReadOnlyList<(Recipe Recipe, Shape Area)> pieces, LayerFill filler)
    {
        var height = _places[layer].Height;
        var sameWalls = pieces.All(p => p.Recipe.Walls == pieces[0].Recipe.Walls && p.Recipe.Widths == pieces[0].Recipe.Widths
            && p.Recipe.Speeds == pieces[0].Recipe.Speeds);
        var walls = new List<IReadOnlyList<ToolPath>>();
        var thin = new List<ToolPath>();
        var fill = new List<IReadOnlyList<ToolPath>>();
        for (var k = 0; k < pieces.Count; k++)
        {
            var (recipe, area) = pieces[k];
            var (outer, inner) = (recipe.WidthOf(PathKind.OuterWall, layer == 0), recipe.WidthOf(PathKind.InnerWall, layer == 0));
            var own = WallLines.Of(region, recipe.Walls, outer, inner, height, recipe.Wall.FillThin);
            var alone = pieces.Count == 1;
            if (k == 0 || !sameWalls)
            {
                var within = alone || sameWalls ? null : area;
                for (var wall = 0; wall < own.Middles.Count; wall++)
                {
                    var kind = wall == 0 ? PathKind.OuterWall : PathKind.InnerWall;
                    var rings = WallLines.Rings(own.Middles[wall], kind, wall == 0 ? outer : inner);
                    if (walls.Count <= wall) walls.Add([]);
                    walls[wall] = [.. walls[wall], .. Speeded(within is null ? rings : Cut(rings, within), recipe)];
                }
                IEnumerable<ToolPath> single = [.. ThinLines.Of(own.Thin, 0.4 * outer, 2 * outer, 0),
                    .. ThinLines.Of(own.Gaps, 0.3 * inner, 2 * inner, height * (1 - Math.PI / 4))];
                thin.AddRange(Speeded(within is null ? single : Cut(single, within), recipe));
            }
            var groups = filler.Of(layer, recipe, alone ? own.Inside : Plane.Intersection(own.Inside, area));
            fill.AddRange(groups.Select(g => (IReadOnlyList<ToolPath>)[.. Speeded(g, recipe)]));
        }
        return new PartLayer(region, walls, thin, fill, []);
    }

    private static IEnumerable<ToolPath> Speeded(IEnumerable<ToolPath> paths, Recipe recipe) =>
        paths.Select(p => p with { Speed = recipe.SpeedOf(p.Kind) });

    /// <summary>Lines cut to a zone; a ring that lies in it whole stays a ring.</summary>
    private static IEnumerable<ToolPath> Cut(IEnumerable<ToolPath> paths, Shape area)
    {
        using var clip = new Clip(area);
        foreach (var path in paths)
        {
            Point[] way = path.Closed ? [.. path.Points, path.Points[0]] : path.Points;
            var pieces = clip.Of(way).ToArray();
            if (pieces.Length == 1 && pieces[0].Length == way.Length && pieces[0].SequenceEqual(way)) yield return path;
            else foreach (var piece in pieces) yield return path with { Points = piece, Closed = false };
        }
    }

    private PartLayer Spiral(Shape region, int layer)
    {
        var width = _recipe.WidthOf(PathKind.OuterWall, false);
        var middle = Plane.Polygons(Plane.Offset(region, -width / 2)).MaxBy(p => p.Area);
        if (middle is null) return new PartLayer(region, [], [], [], []);
        return new PartLayer(region, [[WallLines.Ring(middle.ExteriorRing, PathKind.OuterWall,
            width) with { Speed = _recipe.SpeedOf(PathKind.OuterWall), Climbs = layer >= Math.Max(1, _recipe.BottomLayers) }]], [], [], []);
    }

    /// <summary>Turns rings to their seams. Aligned ones follow the longest outer ring of the layer below, so those are gone through from
    /// the bottom up first.</summary>
    private void Seam(PartLayer[] layers)
    {
        var guides = new Point?[layers.Length];
        Point? guide = null;
        for (var i = 0; i < layers.Length; i++)
        {
            if (layers[i].Walls.Count == 0 || layers[i].Walls[0].Where(p => p.Closed).MaxBy(p => p.Length) is not { } outer) continue;
            var at = guide ?? Seams.First(outer);
            guides[i] = at;
            guide = Seams.At(outer, _recipe.Wall.Seam, at, i).Points[0];
        }
        // spirals climb from where the layer below ended; they are turned where layers are put in order
        Parallel.For(0, layers.Length, _options, i =>
        {
            if (guides[i] is { } at) layers[i] = layers[i] with
            {
                Walls = [
                .. layers[i].Walls.Select(rings =>
                (IReadOnlyList<ToolPath>)[.. rings.Select(r => r.Closed ? Seams.At(r, _recipe.Wall.Seam, at, i) : r)])]
            };
        });
    }

    private void Tell(string step, int done, int of) => _progress?.Report(new Progress(step, done, of));
}
