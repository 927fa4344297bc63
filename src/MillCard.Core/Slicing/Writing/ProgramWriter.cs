using MillCard.Core.Documents;
using MillCard.Core.Flavours;
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

    /// <summary>Moves of at most this are taken together with the next, mm.</summary>
    private const double LeastMove = 0.01;

    private readonly SliceJob _job;
    private readonly Recipe _recipe;
    private readonly Flavour _flavour;
    private readonly IReadOnlyList<LayerPlan> _layers;
    private readonly GcodeWriter _out = new();
    private readonly List<(IPreparedGeometry Area, double Top)> _obstacles;
    private readonly Dictionary<string, object> _values;
    private readonly bool _relative, _writesOffsets;
    private readonly double _fastest;
    private Point _here = new(double.NaN, double.NaN);
    private double _z = double.NaN, _e;
    private double _feed = -1;
    private readonly Dictionary<int, (string Name, double Share)> _fans = [];
    private double _fan, _seconds, _slower = 1, _acceleration = double.NaN;
    private int _nozzle, _cooled, _number = 1;
    private double _standing;
    private double? _ownSpeed, _ownRetraction;
    private ToolPath? _last;
    private int? _labelled;
    private bool _begun;

    /// <summary>How far each nozzle's filament is pulled back while it is away, mm.</summary>
    private readonly double[] _pulledBack;

    /// <param name="job">What is sliced.</param>
    /// <param name="layers">Its layers in order.</param>
    /// <param name="seconds">How long the print takes, for routines that say so; 0 where it is not known yet.</param>
    public ProgramWriter(SliceJob job, IReadOnlyList<LayerPlan> layers, double seconds = 0)
    {
        (_job, _recipe, _layers) = (job, job.Recipe, layers);
        _flavour = Flavour.Of(job.Machine.Flavour);
        _relative = job.Machine.Card.Firmware.Extrusion == ExtrusionMode.Relative;
        _writesOffsets = job.Machine.Card.Head.Offsets?.Gcode == true;
        _fastest = job.Mode is { } mode ? job.Machine.Card.Modes.First(m => m.Kind == mode.Kind).MaxSpeed ?? double.PositiveInfinity
            : double.PositiveInfinity;
        _values = ProgramValues.Of(job, layers);
        _values["job.seconds"] = Math.Round(seconds);
        _pulledBack = new double[job.Machine.Nozzles.Count];
        if (job.TextOf(RoutineMoment.Start).Text?.Contains("tool.first", StringComparison.Ordinal) == true) _nozzle = job.FirstNozzle;
        var nozzles = layers.SelectMany(l => l.Paths).Select(p => p.Nozzle).Distinct().ToArray();
        _obstacles = [.. nozzles.SelectMany(n => Forbidden.All(job.Machine, layers[0].Place.Height, n))
            .Where(f => f.KeepOut.Kind == KeepOutKind.Obstacle)
            .Select(f => (PreparedGeometryFactory.Prepare(f.Grown),
                (f.KeepOut.Top ?? double.PositiveInfinity) + job.Machine.Clearance))];
    }

    /// <summary>Whether it keeps where routines were written.</summary>
    public bool KeepsSpans { get; init; }
    /// <summary>Where routines were written, in order.</summary>
    public List<RoutineSpan> Spans { get; } = [];

    private Filament Filament => _job.FilamentOf(_nozzle);
    private Nozzle Nozzle => _job.Machine.Nozzles[_nozzle];
    private Pullback Pullback => Pullback.Of(Nozzle, Filament, _recipe, _ownRetraction);

    public ReadOnlyMemory<byte> Write(CancellationToken stop)
    {
        StatedLimits.Write(_job.Machine.Card, _out);
        Routine(RoutineMoment.Start);
        Own(RoutineMoment.Start, "/filament/start", f => f.Start);
        Compensation();
        Parts();
        _out.Line(LayerMarks.Begin).Line("G21").Line("G90").Line(_relative ? "M83" : "M82").Line("G92 E0");
        for (var i = 0; i < _layers.Count; i++)
        {
            stop.ThrowIfCancellationRequested();
            Layer(i);
        }
        Label(null);
        Accelerate(null, false);
        NumberedFansOff();
        _out.Line(LayerMarks.End);
        if (_relative) _out.Line("M83");
        Own(RoutineMoment.End, "/filament/end", f => f.End);
        Routine(RoutineMoment.End);
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
        _out.Line(Invariant($"; layer {index + 1} of {_layers.Count}, z {layer.Place.Top:0.###}"));
        Routine(RoutineMoment.BeforeLayer);
        if (number == 2) Heat(first: false);
        (_ownSpeed, _ownRetraction, _number) = (layer.Speed, layer.Retraction, number);
        _seconds = Pace(layer);
        FanTo(LayerFan);
        foreach (var line in layer.Commands) _out.Line(line);
        foreach (var path in layer.Paths) Path(path, layer.Place, number == 1, layer.Part);
        Routine(RoutineMoment.AfterLayer);
    }

    /// <summary>A line as the dialect spells it; nothing where it cannot.</summary>
    private void Say(string what, params ReadOnlySpan<(string Place, object? Value)> values)
    {
        if (_flavour.Spell(what, values) is { } line && IsThere(line)) _out.Line(line);
    }

    /// <summary>Whether the machine has the command of a line; some have theirs only where they were switched on.</summary>
    private bool IsThere(string line)
    {
        var word = line.Split(' ')[0];
        return _flavour.Commands.FirstOrDefault(c => c.Word == word)?.Needs is null || _job.Machine.Card.Firmware.Present.Contains(word);
    }

    /// <summary>Finds how much slower the layer has to be laid for its least time.</summary>
    /// <returns>How long it takes then, s, accelerations left out.</returns>
    private double Pace(LayerPlan layer)
    {
        (_slower, var (laying, moving)) = (1, (0.0, 0.0));
        var at = new Point(double.NaN, double.NaN);
        foreach (var path in layer.Paths)
        {
            if (!double.IsNaN(at.X)) moving += at.To(path.Points[0]) / _recipe.Speeds.Travel;
            laying += path.Length / SpeedOf(path, layer.Place);
            at = path.End;
        }
        if (_ownSpeed is null && laying > 0 && laying + moving < _recipe.Speeds.LeastLayerTime)
            _slower = Math.Max(1, (_recipe.Speeds.LeastLayerTime - moving) / laying);
        return layer.Paths.Sum(path => path.Length / SpeedOf(path, layer.Place)) + moving;
    }

    /// <summary>What the filament in the nozzle asks of its fan on the layer that is written.</summary>
    private double LayerFan => _number >= Filament.Fan.FromLayer ? Filament.Fan.ShareFor(_seconds) : 0;

    private void FanTo(double share)
    {
        share = Math.Round(share, 2);
        // asked before every line: nothing changes while the same nozzle wants the same
        if (share == _fan && _nozzle == _cooled) return;
        (_fan, _cooled) = (share, _nozzle);
        var running = PartFans.Running(_job, _nozzle, _fan).ToArray();
        foreach (var (number, (name, _)) in _fans.ToArray())
            if (running.All(r => r.Fan.Number != number)) Fan(new(number, name), 0);
        foreach (var (fan, wanted) in running) Fan(fan, wanted);
    }

    private void Accelerate(ToolPath? path, bool first)
    {
        if (!_recipe.Accelerations.Any) return;
        var usual = Math.Min(_job.Machine.Card.Motion.Axes.X?.MaxAcceleration ?? 1000, _job.Machine.Card.Motion.Axes.Y?.MaxAcceleration
            ?? 1000);
        var (printing, travel) = ((path is null ? null : _recipe.AccelerationOf(path.Kind, first)) ?? usual, _recipe.Accelerations.Travel
            ?? usual);
        if (printing == _acceleration) return;
        Say("acceleration", ("printing", printing), ("travel", travel));
        _acceleration = printing;
    }

    private void Fan(PartFans.Told fan, double share)
    {
        if (share == (_fans.TryGetValue(fan.Number, out var before) ? before.Share : 0)) return;
        _fans[fan.Number] = (fan.Name, share);
        if (fan.Number != 0)
            Say("fan-of", ("fan", fan.Number), ("name", fan.Name), ("fan255", Math.Round(255 * share)), ("fan1", Math.Round(share, 3)));
        else if (share > 0) Say("fan", ("fan255", Math.Round(255 * share)), ("fan1", Math.Round(share, 3)));
        else Say("fan-off");
    }

    /// <summary>Fans that an owner's own line for the first one does not stop.</summary>
    private void NumberedFansOff()
    {
        foreach (var (number, (name, _)) in _fans.ToArray())
            if (number != 0) Fan(new(number, name), 0);
    }

    private void Compensation()
    {
        if (Filament.PressureCompensation is { } factor) Say("pressure-compensation", ("value", factor), ("tool", _nozzle));
    }

    /// <summary>Tells a dialect that can skip parts which there are.</summary>
    private void Parts()
    {
        Say("parts-count", ("count", _job.Parts.Count));
        for (var i = 0; i < _job.Parts.Count; i++) Say("part-define", ("key", KeyOf(i)));
    }

    /// <summary>What comes belongs to another part, or to none.</summary>
    private void Label(int? part)
    {
        if (part == _labelled) return;
        if (_labelled is { } before) Say("part-end", ("key", KeyOf(before)));
        if (part is { } index && index < _job.Parts.Count)
            Say("part-begin", ("index", index), ("key", KeyOf(index)),
            ("name", _job.Parts[index].Part.Name.Replace('"', '\'').Replace(';', ',')));
        _labelled = part;
    }

    private static string KeyOf(int part) => $"part_{part + 1}";

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
        Heat(first: true);
        if (Filament.Fan.FromLayer > 1) FanTo(0);
        Leave();
    }

    /// <summary>Pulls back and rises above all that stands.</summary>
    /// <param name="retraction">mm of filament; as before a travel where nothing is said.</param>
    private void Leave(double? retraction = null)
    {
        if (double.IsNaN(_here.X) || _pulledBack[_nozzle] > 0) return;
        var length = retraction ?? Pullback.Length;
        if (length > 0) Push(-length);
        if (!(_standing <= _z)) Rise(_standing);
        _pulledBack[_nozzle] = length;
    }

    private void Heat(bool first)
    {
        var (nozzle, firstBed, bed) = (Filament.Nozzle, _job.BedFor(b => b.First), _job.BedFor(b => b.Others));
        if (nozzle.Others != nozzle.First) Say("nozzle-set", ("value", first ? nozzle.First!.Value : nozzle.Others!.Value));
        if (_job.Machine.Card.Envelope.Heated == true && bed != firstBed) Say("bed-set", ("value", first ? firstBed : bed));
    }

    private void Path(ToolPath path, LayerPlace place, bool first, int? part)
    {
        if (path.Nozzle != _nozzle) ChangeTool(path.Nozzle, place.Top, first);
        Label(part ?? path.Part);
        var floor = path.Climbs ? place.Top - place.Height : place.Top;
        var perMm = path.SectionAt(place.Height) * (Filament.Flow ?? 1) / ExtrudedLine.FilamentArea(Filament.Diameter!.Value);
        var speed = SpeedOf(path, place);
        // a spiral goes on where the layer below ended
        var goesOn = path.Climbs && _last is { Climbs: true } && !double.IsNaN(_here.X) && _here.To(path.Points[0]) < 2 * path.Width;
        if (!goesOn) Travel(path, floor);
        Accelerate(path, first);
        if (path.Kind == PathKind.Bridge && Filament.Fan.Bridge is { } share) FanTo(share); else FanTo(LayerFan);
        _begun = true;
        if (path.Climbs) Climb(path, place, perMm, speed);
        else
        {
            for (var i = 1; i < path.Points.Length; i++)
                // what is shorter than positions are written to would be all rounding
                if (i == path.Points.Length - 1 || _here.To(path.Points[i]) > LeastMove) Extrude(path.Points[i], perMm, speed);
            if (path.Closed) Extrude(path.Points[0], perMm, speed);
        }
        _last = path;
    }

    /// <summary>Speed of a line on the layer that is written: its own, within the slow layers' and what mode and hot end allow,
    /// mm/s.</summary>
    private double SpeedOf(ToolPath path, LayerPlace place)
    {
        if (_ownSpeed is { } own) return own;
        var flow = _job.FilamentOf(path.Nozzle).Flow ?? 1;
        var limit = Math.Min((path.Nozzle < _job.Machine.Nozzles.Count ? _job.Machine.Nozzles[path.Nozzle].MaxFlow : null)
            ?? double.PositiveInfinity, _job.FilamentOf(path.Nozzle).MaxFlow ?? double.PositiveInfinity);
        var asked = _recipe.Speeds.OnLayer(path.Speed ?? _recipe.SpeedOf(path.Kind), _number);
        var speed = Math.Min(Math.Min(_fastest, asked), limit / (path.SectionAt(place.Height) * flow));
        return _slower == 1 ? speed : Math.Max(speed / _slower, Math.Min(speed, _recipe.Speeds.Least));
    }

    /// <summary>The one nozzle to its standby, the owner's routine, the other nozzle hot.</summary>
    private void ChangeTool(int next, double z, bool first)
    {
        Leave(_recipe.NozzleChanges.Retraction);
        (_values["tool.now"], _values["tool.next"]) = (_nozzle, next);
        if (Filament.Nozzle.Standby is { } standby && _nozzle < _job.Machine.Nozzles.Count)
            _out.Command("M104").Whole('T', _nozzle).Whole('S', standby).End();
        _nozzle = next;
        Routine(RoutineMoment.ToolChange);
        Say("tool", ("tool", next));
        Compensation();
        _out.Command("M109").Whole('T', next).Whole('S', first ? Filament.Nozzle.First!.Value : Filament.Nozzle.Others!.Value).End();
        (_here, _z, _feed, _last) = (new Point(double.NaN, double.NaN), double.NaN, -1, null);
        if (!_relative) { _out.Line("G92 E0"); _e = 0; }
        Rise(Math.Max(z, ClearOfAll(z)));
    }

    /// <summary>The routines that filaments bring along, one a filament in use.</summary>
    private void Own(RoutineMoment moment, string pointer, Func<Filament, string?> of)
    {
        foreach (var text in _layers.SelectMany(l => l.Paths).Select(p => p.Nozzle).Distinct().Order().Select(_job.FilamentOf).Distinct()
            .Select(of))
        {
            if (string.IsNullOrWhiteSpace(text)) continue;
            _out.Line($"; {moment.Title.ToLowerInvariant()} routine of the filament").Line(Written(moment, pointer, text));
            (_feed, _z, _here, _last) = (-1, double.NaN, new Point(double.NaN, double.NaN), null);
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
        (_feed, _z, _here, _last) = (-1, double.NaN, new Point(double.NaN, double.NaN), null);
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

/// <summary>A routine as it was written into a program.</summary>
/// <param name="Moment">Which one.</param>
/// <param name="Template">Its text.</param>
/// <param name="Values">What names stood for.</param>
/// <param name="First">First line of the program that it wrote, counted from 0.</param>
/// <param name="Count">Number of lines.</param>
internal sealed record RoutineSpan(RoutineMoment Moment, string Template, IReadOnlyDictionary<string, object> Values, int First, int Count);
