using MillCard.Core.Documents;
using MillCard.Core.Flow;
using MillCard.Core.Gcode;
using MillCard.Core.Machines;
using MillCard.Core.Routines;
using MillCard.Core.Slicing.Jobs;
using MillCard.Core.Slicing.Paths;
using MillCard.Core.Slicing.Sections;
using NetTopologySuite.Geometries.Prepared;

namespace MillCard.Core.Slicing.Writing;

/// <summary>Writes planned layers as G-code: routines at their moments, travels, retraction, tool changes, speeds within the melting
/// limit.</summary>
internal sealed partial class ProgramWriter
{
    /// <summary>Higher than any prime line, mm.</summary>
    private const double OverPrimeLine = 1;

    /// <summary>How far the nozzle rises off a layer that is to cool, mm.</summary>
    private const double WaitsAbove = 5;

    /// <summary>Moves of at most this are taken together with the next, mm.</summary>
    private const double LeastMove = 0.01;

    private readonly SliceJob _job;
    private readonly Recipe _recipe;
    private readonly IReadOnlyList<LayerPlan> _layers;
    private readonly GcodeWriter _out = new();
    private readonly List<(IPreparedGeometry Area, double Top)> _obstacles;
    private readonly Dictionary<string, object> _values;
    private readonly double _fastest;
    private readonly WrittenHead _head;
    private readonly Spelling _spelling;
    private readonly WrittenFans _fans;
    private readonly PartLabels _labels;
    private readonly ILookup<int, TrialStop> _stops;
    private readonly bool _arcs;
    private LayerPace _pace;
    private double _acceleration = double.NaN;
    /// <summary>Height that is clear of the parts that stand finished, mm.</summary>
    private double _standing;
    private ToolPath? _last;
    /// <summary>What the layer has so far, where that tells whether the nozzle lifts.</summary>
    private LaidLines? _laid;
    private bool _begun;
    /// <summary>Share of the fan that an event asked for; null for what the filament asks.</summary>
    private double? _ownFan;
    /// <summary>Whether an event has set the nozzle's temperature, and the share of speed that one asked for.</summary>
    private bool _ownHeat;
    private double _ownSpeed = 1;

    /// <param name="job">What is sliced.</param>
    /// <param name="layers">Its layers in order.</param>
    /// <param name="seconds">How long the print takes, for routines that say so; 0 where it is not known yet.</param>
    public ProgramWriter(SliceJob job, IReadOnlyList<LayerPlan> layers, double seconds = 0)
    {
        (_job, _recipe, _layers) = (job, job.Recipe, layers);
        (_head, _spelling) = (new(job.Machine, _out), new(job.Machine, _out));
        (_fans, _labels) = (new(job, _spelling), new(job, _spelling));
        _fastest = job.Mode is { } mode ? job.Machine.Card.Modes.First(m => m.Kind == mode.Kind).MaxSpeed ?? double.PositiveInfinity
            : double.PositiveInfinity;
        _values = ProgramValues.Of(job, layers);
        _values["job.seconds"] = Math.Round(seconds);
        _pace = new LayerPace(job, _fastest, layers[0], 1);
        _stops = WrittenStops.Before(job, layers);
        _arcs = _spelling.KnowsArcs;
        if (job.TextOf(RoutineMoment.Start).Text?.Contains("tool.first", StringComparison.Ordinal) == true) _head.Nozzle = job.FirstNozzle;
        var nozzles = layers.SelectMany(l => l.Paths).Select(p => p.Nozzle).Distinct().ToArray();
        _obstacles = [.. nozzles.SelectMany(n => Forbidden.All(job.Machine, layers[0].Place.Height, n))
            .Where(f => f.KeepOut.Kind == KeepOutKind.Obstacle)
            .Select(f => (PreparedGeometryFactory.Prepare(f.Grown),
                (f.KeepOut.Top ?? double.PositiveInfinity) + job.Machine.Clearance))];
    }

    /// <summary>Whether it keeps where routines were written.</summary>
    public bool KeepsSpans { get; init; }
    /// <summary>When idle nozzles cool and warm; without it each cools when another comes on.</summary>
    public WarmingPlan? Warming { get; init; }
    /// <summary>Remarks before all else, whole lines.</summary>
    public ReadOnlyMemory<byte> Head { get; init; }
    /// <summary>Told what is written so far after every layer, and all of it in the end.</summary>
    public Action<ReadOnlyMemory<byte>>? Told { get; init; }
    /// <summary>Lines at which lines of plastic begin, with the way to them, counted from 0.</summary>
    public List<int> PathLines { get; } = [];
    /// <summary>Where each line of plastic is laid, without the way to it.</summary>
    public List<LaidStretch> Laid { get; } = [];
    /// <summary>Lines at which the layers begin, counted from 0.</summary>
    public List<int> LayerLines { get; } = [];
    /// <summary>Where routines were written, in order.</summary>
    public List<RoutineSpan> Spans { get; } = [];

    private Filament Filament => _job.FilamentOf(_head.Nozzle);
    private Pullback Pullback => Pullback.Of(_job.Machine.Nozzles[_head.Nozzle], Filament, _recipe, _pace.Layer.Retraction);

    public ReadOnlyMemory<byte> Write(CancellationToken stop)
    {
        _out.WholeLines(Head.Span);
        SettleFlows();
        StatedLimits.Write(_job.Machine.Card, _out);
        Routine(RoutineMoment.Start);
        Own(RoutineMoment.Start, "/filament/start", f => f.Start);
        Compensation();
        _labels.Define();
        _out.Line(LayerMarks.Begin).Line("G21").Line("G90").Line(_head.IsRelative ? "M83" : "M82").Line("G92 E0");
        for (var i = 0; i < _layers.Count; i++)
        {
            stop.ThrowIfCancellationRequested();
            Layer(i);
            Told?.Invoke(_out.Written);
        }
        _labels.Begin(null);
        Accelerate(null);
        _fans.NumberedOff();
        AtFullSpeed();
        _out.Line(LayerMarks.End);
        if (_head.IsRelative) _out.Line("M83");
        Own(RoutineMoment.End, "/filament/end", f => f.End);
        Routine(RoutineMoment.End);
        Told?.Invoke(_out.Written);
        return _out.Written;
    }

    private void Layer(int index)
    {
        var layer = _layers[index];
        if (layer.Part is { } part && (index == 0 || _layers[index - 1].Part != part)) BeginPart(part, index);
        // counted within the part where parts are printed one at a time
        var number = index - FirstOf(index) + 1;
        _values["layer.number"] = number;
        _values["layer.z"] = (decimal)Math.Round(layer.Place.Top, 5);
        _values["layer.height"] = (decimal)layer.Place.Height;
        LayerLines.Add(_out.Lines);
        _out.Line(Invariant($"; layer {index + 1} of {_layers.Count}, z {layer.Place.Top:0.###}"));
        foreach (var stop in _stops[index].Where(s => WrittenStops.Halts(s.For))) Stop(stop.For, layer.Place.Top);
        Routine(RoutineMoment.BeforeLayer);
        if (number == 2) HeatOthers();
        foreach (var stop in _stops[index].Where(s => !WrittenStops.Halts(s.For))) FromHereOn(stop);
        _pace = new LayerPace(_job, _fastest, layer, number);
        _laid = _recipe.Retraction.LiftOverPrint ? new() : null;
        _fans.To(_head.Nozzle, LayerFan);
        foreach (var line in layer.Commands) _out.Line(line);
        foreach (var path in layer.Paths) Path(path, layer.Place, layer.Part);
        if (index + 1 < _layers.Count && _layers[index + 1].Part == layer.Part) Wait(layer);
        Routine(RoutineMoment.AfterLayer);
    }

    /// <summary>Rises off a layer that was laid too quickly until its least time is over, where the recipe asks for that.</summary>
    private void Wait(LayerPlan layer)
    {
        var missing = _recipe.Speeds.LeastLayerTime - _pace.Seconds;
        if (_recipe.Speeds.TooQuick != TooQuick.Wait || missing <= 0 || layer.Paths.Count == 0 || layer.Paths[^1].Climbs) return;
        RiseAbove(layer.Place.Top);
        _out.Command("G4").Whole('P', Math.Ceiling(1000 * missing)).End();
    }

    /// <summary>What the filament in the nozzle asks of its fan on the layer that is written.</summary>
    private double LayerFan => _ownFan ?? (_pace.Number >= Filament.Fan.FromLayer ? Filament.Fan.ShareFor(_pace.Seconds) : 0);

    private void Accelerate(ToolPath? path)
    {
        if (!_recipe.Accelerations.Any) return;
        var printing = AccelerationOf(path);
        if (printing == _acceleration) return;
        _spelling.Say("acceleration", ("printing", printing), ("travel", _recipe.Accelerations.Travel ?? UsualAcceleration));
        _acceleration = printing;
    }

    private double UsualAcceleration => Math.Min(_job.Machine.Card.Motion.Axes.X?.MaxAcceleration ?? 1000,
        _job.Machine.Card.Motion.Axes.Y?.MaxAcceleration ?? 1000);

    private double AccelerationOf(ToolPath? path) =>
        (path is null ? null : _recipe.AccelerationOn(_pace.Number - 1, path.Kind)) ?? UsualAcceleration;

    private void Compensation()
    {
        if (Filament.PressureCompensation is { } factor) _spelling.Say("pressure-compensation", ("value", factor), ("tool", _head.Nozzle));
    }

    private int FirstOf(int index)
    {
        var first = index;
        while (first > 0 && _layers[first].Part is { } part && _layers[first - 1].Part == part) first--;
        return _layers[index].Part is null ? 0 : first;
    }

    /// <summary>From here on what was printed before stands, and the nozzle passes over it.</summary>
    private void BeginPart(int part, int index)
    {
        _out.Line($"; part {_layers.Take(index + 1).Select(l => l.Part).Distinct().Count()} of "
            + $"{_layers.Select(l => l.Part).Distinct().Count()}");
        if (index == 0) return;
        _standing = _layers.Take(index).Max(l => l.Place.Top) + _job.Machine.Clearance;
        (_ownFan, _ownHeat) = (null, false);
        AtFullSpeed();
        HeatFirst();
        if (Filament.Fan.FromLayer > 1) _fans.To(_head.Nozzle, 0);
        Leave();
    }

    /// <summary>Pulls back and rises above all that stands.</summary>
    /// <param name="retraction">mm of filament; as before a travel where nothing is said.</param>
    private void Leave(double? retraction = null)
    {
        if (!_head.IsPlaced || _head.PulledBack > 0) return;
        var length = retraction ?? Pullback.Length;
        if (length > 0) _head.Push(-length, Pullback.Speed);
        if (!(_standing <= _head.Z)) _head.Rise(_standing);
        _head.PulledBack = length;
    }

    private void Path(ToolPath path, LayerPlace place, int? part)
    {
        var number = PathLines.Count;
        PathLines.Add(_out.Lines);
        var warmed = new Queue<WarmingPlan.Warmed>((Warming?.WarmsOn(number) ?? []).OrderBy(w => w.After));
        Warm();
        if (path.Nozzle != _head.Nozzle) ChangeTool(path.Nozzle, place.Top, Warming?.CoolsAt(number) ?? true);
        _labels.Begin(part ?? path.Part);
        var floor = path.Climbs ? place.Top - place.Height : place.Top;
        var perArea = (Filament.Flow ?? 1) / ExtrudedLine.FilamentArea(Filament.Diameter!.Value);
        // a spiral goes on where the layer below ended
        var goesOn = path.Climbs && _last is { Climbs: true } && _head.IsPlaced && _head.Here.To(path.Points[0]) < 2 * path.Width;
        if (!goesOn) Travel(path, floor);
        Accelerate(path);
        Cool(path.Kind == PathKind.Bridge);
        _begun = true;
        var laidFrom = _out.Lines;
        if (path.Climbs) Climb(path, place, perArea * path.SectionAt(place.Height), _pace.SpeedOf(path));
        else
        {
            for (var i = 1; i < path.Points.Length; i++)
            {
                Warm();
                if (ArcFrom(path, i - 1) is { } arc)
                {
                    LayTo(arc.End, (i - 1, arc));
                    i = arc.End;
                    continue;
                }
                // what is shorter than positions are written to would be all rounding
                if (i == path.Points.Length - 1 || _head.Here.To(path.Points[i]) > LeastMove) LayTo(i);
            }
            if (path.Closed && _head.Here != path.Points[0]) LayTo(path.Points.Length);
        }
        Laid.Add(new LaidStretch(laidFrom, _out.Lines, AccelerationOf(path)));
        Warm(all: true);
        _last = path;
        _laid?.Add(path);

        void Warm(bool all = false)
        {
            while (warmed.TryPeek(out var next) && (all || _out.Lines - PathLines[number] >= next.After))
                _out.Command("M104").Whole('T', warmed.Dequeue().Nozzle).Whole('S', next.Degrees).End();
        }

        void LayTo(int point, (int From, Arcs.Arc Way)? arc = null)
        {
            if (path.Paces is { } paces) Cool(paces[point - 1].Hangs);
            var perMm = perArea * path.SectionTo(point, place.Height);
            if (arc is var (from, round))
                _head.Lay(path.Points[point % path.Points.Length], round, perMm, SpeedOfArc(path, number, from, point));
            else LayStraight(path, number, point, perMm);
        }
    }

    /// <summary>The arc that a line's way runs along from a point on, where arcs are wanted and the machine knows them.</summary>
    private Arcs.Arc? ArcFrom(ToolPath path, int point) =>
        path is { ArcsWithin: { } error, Widths: null } && _arcs && _head.Here == path.Points[point] ? Arcs.From(path, point, error) : null;

    /// <summary>The fan for what hangs in the air, or for the layer.</summary>
    private void Cool(bool hangs) => _fans.To(_head.Nozzle, hangs && Filament.Fan.Bridge is { } share ? share : LayerFan);

    /// <summary>The routines that filaments bring along, one a filament in use.</summary>
    private void Own(RoutineMoment moment, string pointer, Func<Filament, string?> of)
    {
        foreach (var text in _layers.SelectMany(l => l.Paths).Select(p => p.Nozzle).Distinct().Order().Select(_job.FilamentOf).Distinct()
            .Select(of))
        {
            if (string.IsNullOrWhiteSpace(text)) continue;
            _out.Line($"; {moment.Title.ToLowerInvariant()} routine of the filament").Line(Written(moment, pointer, text));
            Forget();
        }
    }

    private void Routine(RoutineMoment moment)
    {
        var (pointer, text) = _job.TextOf(moment);
        if (string.IsNullOrWhiteSpace(text)) return;
        var written = Written(moment, pointer, text);
        _out.Line($"; {moment.Title.ToLowerInvariant()} routine");
        var first = _out.Lines;
        _out.Line(written);
        if (KeepsSpans) Spans.Add(new RoutineSpan(moment, text, new Dictionary<string, object>(_values), first, _out.Lines - first));
        // the owner's code may have changed speed and position
        Forget();
    }

    private void Forget()
    {
        _head.Forget();
        _last = null;
    }

    private string Written(RoutineMoment moment, string pointer, string text)
    {
        try
        {
            return RoutineTemplate.Render(moment, text, _values).ReplaceLineEndings("\n").TrimEnd('\n');
        }
        catch (RoutineException broken)
        {
            throw broken.In(pointer);
        }
    }
}
