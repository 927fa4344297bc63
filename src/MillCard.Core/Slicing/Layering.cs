using System.Text.Json;
using MillCard.Core.Documents;
using MillCard.Core.Findings;
using MillCard.Core.Geometry;
using MillCard.Core.Meshes;
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
    private readonly Recipe _recipe;
    private readonly ZoneSettings _settings;
    private readonly int _nozzle;
    private readonly LayerPlace[] _places;
    private readonly ParallelOptions _options;
    private readonly IProgress<Progress>? _progress;

    private Layering(SliceJob job, PartToSlice part, LayerPlace[]? places, IProgress<Progress>? progress, CancellationToken stop)
    {
        (_job, _part, _progress) = (job, part, progress);
        _recipe = job.RecipeOf(part.Part);
        _settings = new ZoneSettings(job.Zones, _recipe);
        _nozzle = job.Machine.NozzlesOf(part.Part.Nozzles)[0];
        _places = places is null ? job.PlacesOf(part) : LayerHeights.Below(places, part.Footprints.Height);
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
        var (n, sections) = (_places.Length, Sections());
        var own = Own(sections).Moved(_part.Part.X, _part.Part.Y, _options);
        var (task, supports) = Supports(own.Regions, ground, lift);
        var (layers, regions) = (new PartLayer[n], own.Regions);
        Parallel.For(0, n, _options, i =>
        {
            layers[i] = Pacing.Of(own.Layers[i], _settings.Paces, CarriedAt(i, regions, supports, task), i);
            if (supports is null) return;
            layers[i] = layers[i] with
            {
                Supports = [.. SupportLines.Of(supports.Body[i], supports.Interface[i], _recipe, _places[i], i)
                    .Select(p => p with { Speed = _recipe.SpeedOf(p.Kind) })],
                Held = Plane.Union(supports.Body[i], supports.Interface[i]),
            };
        });

        List<Finding> findings = [.. MeshNotes.Of(_part, sections)];
        findings.AddRange(Islands.Of(_part.Part.Name, regions, _places,
            supports is null ? null : i => task!.TopFor(i) is >= 0 and var top ? layers[top].Held : Plane.Empty, lift));
        if (task is not null && supports is not null && BareOverhangs.Of(_part.Part.Name, task, supports, _places, lift) is { } bare)
            findings.Add(bare);
        if (task is not null && supports is not null && _job.InterfaceNozzleOf(_part.Part) == _nozzle
            && WeldedRoofs.Of(_part.Part.Name, task, supports, _places, lift) is { } welded) findings.Add(welded);
        if (ThinNotes.Of(_part.Part.Name, layers, _places, _recipe.Wall.LeastLine * NozzleWidth) is { } thin) findings.Add(thin);
        if (_job.Recipe.Spiral && MeshNotes.Spiral(_part, regions.Skip(_recipe.BottomLayers)) is { } several) findings.Add(several);
        return new LaidPart(layers, _places, _recipe, findings);
    }

    private double NozzleWidth => _job.Machine.Nozzles[_nozzle].Diameter ?? _recipe.LineWidth!.Value;

    /// <summary>The part cut, in its own frame.</summary>
    private PartSections Sections() => _job.Shelf.Take("sections",
        new { Part = StageShelf.NumberOf(_part.Footprints), Places = _places, _recipe.Compensation },
        () => PartSections.Of(_part.Footprints, _places, _recipe.Compensation, _options, done => Tell("sections", done, _places.Length)),
        sections => PartSections.BytesOf(sections.Regions));

    /// <summary>Its lines, turned as it stands, its middle at (0, 0).</summary>
    private OwnLines Own(PartSections sections)
    {
        var (x, y, turn) = (_part.Part.X, _part.Part.Y, _part.Part.Turn);
        ZoneToSlice[] zones = [.. _job.Zones.Select(z => z with { Zone = z.Zone with { X = z.Zone.X - x, Y = z.Zone.Y - y } })];
        var restsOn = new
        {
            Part = StageShelf.NumberOf(_part.Footprints),
            Turn = turn,
            Places = _places,
            _recipe.Compensation,
            Nozzle = NozzleWidth,
            _settings.Laid,
            _settings.PacedBy,
            Zones = zones.Select(z => new
            {
                Zone = z.Zone with { Name = "", Settings = NoSettings },
                Mesh = z.Mesh is null ? 0 : StageShelf.NumberOf(z.Mesh),
            }),
        };
        return _job.Shelf.Take("lines", restsOn, () => OwnLines.Of(
            turn % 360 == 0 ? sections.Regions
                : PartSections.Mapped(sections.Regions, region => _part.Footprints.Placed(region, 0, 0, turn)), _places,
            new Zones(zones, _settings, _places), _settings, NozzleWidth, _options, done => Tell("lines", done, _places.Length)),
            lines => lines.Bytes);
    }

    private static readonly Dictionary<string, JsonElement> NoSettings = [];

    private (SupportTask? Task, SupportAreas? Areas) Supports(Shape[] regions, AllowedGround ground, double lift)
    {
        var supports = _recipe.Supports;
        if (supports.Pattern == SupportPattern.None && !_job.Zones.Any(z => z.Zone.Use == ZoneUse.Support)
            && !_part.Part.Marks.Any(m => m.Wanted)) return (null, null);
        _progress?.Report(new Progress("supports", 0, 1));
        var (width, zones) = (_recipe.WidthOf(PathKind.Support), new Zones(_job.Zones, _settings, _places));
        var overhangs = Overhangs.Of(regions, _places, supports, zones, Placement.Place(_part.Mesh, _part.Part), _part.Part.Marks, width,
            _options);
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

    private void Tell(string step, int done, int of) => _progress?.Report(new Progress(step, done, of));
}
