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
    private readonly ZoneToSlice[] _ownZones;
    private readonly int _nozzle, _interface;
    private readonly LayerPlace[] _places;
    private readonly ParallelOptions _options;
    private readonly Fellows? _fellows;
    private readonly IProgress<Progress>? _progress;

    private Layering(SliceJob job, PartToSlice part, LayerPlace[]? places, Fellows? fellows, IProgress<Progress>? progress,
        CancellationToken stop)
    {
        (_job, _part, _fellows, _progress) = (job, part, fellows, progress);
        _recipe = job.RecipeOf(part.Part);
        _settings = new ZoneSettings(job.Zones, _recipe);
        _ownZones = [.. job.Zones
            .Select(z => z with
            {
                Zone = z.Zone is HeightsZone ? z.Zone with { X = 0, Y = 0 }
                    : z.Zone with { X = z.Zone.X - part.Part.X, Y = z.Zone.Y - part.Part.Y },
            })];
        _nozzle = job.Machine.NozzlesOf(part.Part.Nozzles)[0];
        _interface = job.InterfaceNozzleOf(part.Part);
        _places = places is null ? job.PlacesOf(part) : LayerHeights.Below(places, part.Footprints.Height);
        _options = job.Parallel(stop);
    }

    /// <summary>Cuts a part and lays its lines, layers in parallel.</summary>
    /// <param name="job">The job.</param>
    /// <param name="part">One of its parts.</param>
    /// <param name="places">Layers of all parts that grow together; null where the part stands alone.</param>
    /// <param name="fellows">What else of its assembly stands round it; null where it is alone.</param>
    /// <param name="ground">Where supports may stand.</param>
    /// <param name="lift">What lies under the part, mm.</param>
    /// <param name="progress">Told after every layer of every stage.</param>
    /// <param name="stop">Ends the computation.</param>
    public static LaidPart Of(SliceJob job, PartToSlice part, LayerPlace[]? places, Fellows? fellows, AllowedGround ground, double lift,
        IProgress<Progress>? progress, CancellationToken stop) =>
        new Layering(job, part, places, fellows, progress, stop).Lay(ground, lift);

    /// <summary>A part's cross-sections, turned as it stands, its middle at (0, 0).</summary>
    public static Shape[] Cut(SliceJob job, PartToSlice part, LayerPlace[] places, IProgress<Progress>? progress, CancellationToken stop)
    {
        var layering = new Layering(job, part, places, null, progress, stop);
        return layering.Turned(layering.Sections());
    }

    private LaidPart Lay(AllowedGround ground, double lift)
    {
        var (name, x, y, sections) = (_part.Part.Name, _part.Part.X, _part.Part.Y, Sections());
        var held = Held(Own(sections), ground, lift);
        var pacing = new Pacing(_settings.Paces);
        PartLayer[] layers = [.. held.Moved(x, y, _options).Select(pacing.Of)];
        Shape[] regions = [.. layers.Select(l => l.Region)];

        List<Finding> findings = [.. MeshNotes.Of(_part, sections)];
        findings.AddRange(Islands.Of(name, regions, CarriersOnBed(regions), _places,
            held.Tops is not { } tops ? null : i => tops[i] >= 0 ? layers[tops[i]].Held : Plane.Empty, lift));
        if (held.Bare is { } bare) findings.Add(bare.Said(name, x, y, _places[bare.Layer].Top + lift, _recipe.Supports.From));
        if (held.Welded is { } layer && _interface == _nozzle)
            findings.Add(WeldedRoofs.Said(name, layer, _places[layer].Top + lift, _recipe.Supports));
        if (ThinNotes.Of(name, layers, _places, _recipe.Wall.LeastLine * NozzleWidth) is { } thin) findings.Add(thin);
        if (_job.Recipe.Spiral && MeshNotes.Spiral(_part, regions.Skip(_recipe.BottomLayers)) is { } several) findings.Add(several);
        return new LaidPart(layers, _places, _recipe, findings);
    }

    private double NozzleWidth => _job.Machine.Nozzles[_nozzle].Diameter ?? _recipe.LineWidth!.Value;

    /// <summary>The part cut, in its own frame.</summary>
    private PartSections Sections() => _job.Shelf.Take("sections",
        new { Part = StageShelf.NumberOf(_part.Footprints), Places = _places, _recipe.Compensation },
        () => PartSections.Of(_part.Footprints, _places, _recipe.Compensation, _options, done => Tell("sections", done, _places.Length)),
        sections => PartSections.BytesOf(sections.Regions));

    /// <summary>What the part's own lines rest on.</summary>
    private object OwnRestsOn() => new
    {
        Part = StageShelf.NumberOf(_part.Footprints),
        _part.Part.Turn,
        Fellows = _fellows?.RestsOn,
        Places = _places,
        _recipe.Compensation,
        Nozzle = NozzleWidth,
        _settings.Laid,
        _settings.PacedBy,
        Zones = _ownZones.Select(z => new
        {
            Zone = z.Zone with { Name = "", Settings = NoSettings },
            Mesh = z.Mesh is null ? 0 : StageShelf.NumberOf(z.Mesh),
        }),
        Seams = MarksFor(MarkUse.Seam),
    };

    private FaceMark[] MarksFor(MarkUse use) => [.. _part.Part.Marks.Where(m => m.Use == use)];

    private Mesh Standing => Placement.Place(_part.Mesh, _part.Part with { X = 0, Y = 0 });

    private static readonly Dictionary<string, JsonElement> NoSettings = [];

    /// <summary>Its own lines, turned as it stands, its middle at (0, 0).</summary>
    private OwnLines Own(PartSections sections) => _job.Shelf.Take("lines", OwnRestsOn(), () =>
    {
        var turned = Turned(sections);
        return OwnLines.Of(_fellows?.LeftOf(turned) ?? turned, Carriers, _places, Zones(), Seams(), _settings, NozzleWidth, _options,
            done => Tell("lines", done, _places.Length));
    }, lines => lines.Bytes);

    private Shape[] Turned(PartSections sections) => _part.Part.Turn % 360 == 0 ? sections.Regions
        : PartSections.Mapped(sections.Regions, region => _part.Footprints.Placed(region, 0, 0, _part.Part.Turn));

    /// <summary>What carries the layers above: the part's own cross-sections with what stands beside them.</summary>
    private Shape[] Carriers(Shape[] regions) => _fellows?.With(regions) ?? regions;

    private Shape[] CarriersOnBed(Shape[] regions) => _fellows is null ? regions
        : (_fellows with { Beside = PartSections.Mapped(_fellows.Beside, region => Plane.Moved(region, _part.Part.X, _part.Part.Y)) })
            .With(regions);

    /// <summary>The same with supports.</summary>
    private HeldLines Held(OwnLines own, AllowedGround ground, double lift)
    {
        var (supports, marks) = (_recipe.Supports, MarksFor(MarkUse.Support));
        var recipe = _settings.Own.Recipe with { Supports = supports };
        var under = supports.Pattern == SupportPattern.None && !_job.Zones.Any(z => z.Zone.Use == ZoneUse.Support)
            && !marks.Any(m => m.Wanted) ? null : GroundUnderPart.Of(own.Regions, _part.Part.X, _part.Part.Y, Ground);
        var carriers = new Lazy<Shape[]>(() => Carriers(own.Regions));
        return _job.Shelf.Take("held", new
        {
            Own = OwnRestsOn(),
            Supports = under is null ? null : supports,
            Marks = under is null ? null : marks,
            Ground = under?.Areas.Select(area => area.AsBinary()),
            under?.OnLayer,
        }, () => HeldLines.Of(own, carriers.Value, recipe, _places, under is null ? null : Task(under), _options),
            held => held.Bytes);

        SupportTask Task(GroundUnderPart under)
        {
            _progress?.Report(new Progress("supports", 0, 1));
            var width = recipe.WidthOf(PathKind.Support);
            var overhangs = Overhangs.Of(own.Regions, carriers.Value, _places, supports, Zones(), Standing, marks, width, _options);
            return new SupportTask(carriers.Value, overhangs, under.Of, supports, width, _places);
        }

        (Shape, Shape) Ground(int layer)
        {
            var bottom = _places[layer].Top - _places[layer].Height + lift;
            return (ground.Of(_nozzle, bottom), ground.Of(_interface, bottom));
        }
    }

    private MarkedSeams Seams() => MarksFor(MarkUse.Seam) is { Length: > 0 } marks
        ? MarkedSeams.Of(Standing, marks, _places, _recipe.WidthOf(PathKind.OuterWall), Math.Max(1, _recipe.Walls)) : MarkedSeams.None;

    private Zones Zones() => new(_ownZones, _settings, _places);

    private void Tell(string step, int done, int of) => _progress?.Report(new Progress(step, done, of));
}
