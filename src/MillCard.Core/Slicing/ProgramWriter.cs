using MillCard.Core.Documents;
using MillCard.Core.Flow;
using MillCard.Core.Gcode;
using MillCard.Core.Reach;
using MillCard.Core.Routines;
using NetTopologySuite.Geometries;
using NetTopologySuite.Geometries.Prepared;

namespace MillCard.Core.Slicing;

/// <summary>Writes planned layers as G-code: routines at their moments, travels, retraction, speeds within the melting limit.</summary>
internal sealed class ProgramWriter
{
    private const double ClearAbove = 10;
    private readonly SliceJob _job;
    private readonly Recipe _recipe;
    private readonly Filament _filament;
    private readonly IReadOnlyList<LayerPlan> _layers;
    private readonly GcodeWriter _out = new();
    private readonly List<(IPreparedGeometry Area, double Top)> _obstacles;
    private readonly bool _relative;
    private readonly double _flowLimit;
    private Point _here = new(double.NaN, double.NaN);
    private double _z = double.NaN, _e;
    private double _feed = -1;

    public ProgramWriter(SliceJob job, IReadOnlyList<LayerPlan> layers)
    {
        (_job, _recipe, _filament, _layers) = (job, job.Recipe, job.Filament, layers);
        _relative = job.Machine.Card.Firmware.Extrusion == ExtrusionMode.Relative;
        _flowLimit = Math.Min(job.Machine.Nozzle.MaxFlow ?? double.PositiveInfinity, job.Filament.MaxFlow ?? double.PositiveInfinity);
        _obstacles = [.. job.Machine.KeepOuts.Where(k => k.KeepOut.Kind == KeepOutKind.Obstacle)
            .SelectMany(k => Forbidden.Of(job.Machine, k, layers[0].Place.Height).Select(f => (PreparedGeometryFactory.Prepare(f.Grown), (k.KeepOut.Top ?? double.PositiveInfinity) + job.Machine.Clearance)))];
    }

    public ReadOnlyMemory<byte> Write(CancellationToken stop)
    {
        var values = Values();
        Routine(RoutineMoment.Start, values);
        _out.Line("; layers begin").Line("G21").Line("G90").Line(_relative ? "M83" : "M82").Line("G92 E0");
        for (var i = 0; i < _layers.Count; i++)
        {
            stop.ThrowIfCancellationRequested();
            Layer(i, values);
        }
        _out.Line("; layers end");
        if (_relative) _out.Line("M83");
        Routine(RoutineMoment.End, values);
        return _out.Written;
    }

    private void Layer(int index, Dictionary<string, object> values)
    {
        var layer = _layers[index];
        values["layer.number"] = index + 1;
        values["layer.z"] = (decimal)Math.Round(layer.Place.Top, 5);
        values["layer.height"] = (decimal)layer.Place.Height;
        _out.Line(FormattableString.Invariant($"; layer {index + 1} of {_layers.Count}, z {layer.Place.Top:0.###}"));
        Routine(RoutineMoment.BeforeLayer, values);
        if (index == 1) SecondLayerHeat();
        if (_filament.Fan.Share > 0 && index + 1 == Math.Max(1, _filament.Fan.FromLayer)) _out.Command("M106").Whole('S', 255 * _filament.Fan.Share).End();
        foreach (var path in layer.Paths) Path(path, layer.Place, index);
        Routine(RoutineMoment.AfterLayer, values);
    }

    private void SecondLayerHeat()
    {
        if (_filament.Nozzle.Others != _filament.Nozzle.First) _out.Command("M104").Whole('S', _filament.Nozzle.Others!.Value).End();
        if (_job.Machine.Card.Envelope.Heated == true && _filament.Bed.Others != _filament.Bed.First) _out.Command("M140").Whole('S', _filament.Bed.Others).End();
    }

    private void Path(ToolPath path, LayerPlace place, int layer)
    {
        Travel(path.Points[0], place.Top);
        var flow = _filament.Flow ?? 1;
        var speed = Math.Min(SpeedOf(path.Kind, layer), ExtrudedLine.FastestSpeed(_flowLimit, path.Width, place.Height, flow));
        var perMm = ExtrudedLine.FeedPerMm(path.Width, place.Height, _filament.Diameter!.Value, flow);
        for (var i = 1; i < path.Points.Length; i++) Extrude(path.Points[i], perMm, speed);
        if (path.Closed) Extrude(path.Points[0], perMm, speed);
    }

    private double SpeedOf(PathKind kind, int layer)
    {
        var speeds = _recipe.Speeds;
        var speed = kind switch
        {
            PathKind.OuterWall => speeds.OuterWall,
            PathKind.InnerWall => speeds.InnerWall,
            PathKind.Infill => speeds.Infill,
            _ => speeds.Solid,
        };
        return layer == 0 ? Math.Min(speed, speeds.FirstLayer) : speed;
    }

    private void Extrude(Point to, double perMm, double speed)
    {
        var machine = _job.Machine.Frames.ToMachine(to);
        _out.Command("G1").Word('X', machine.X).Word('Y', machine.Y);
        Filament(_here.To(to) * perMm);
        Feed(speed);
        _out.End();
        _here = to;
    }

    private void Travel(Point to, double z)
    {
        var distance = double.IsNaN(_here.X) ? double.PositiveInfinity : _here.To(to);
        var lift = Math.Max(Lift(to, z), distance > _recipe.Retraction.LeastTravel ? z + _recipe.Retraction.Lift : z);
        if (double.IsPositiveInfinity(distance)) lift = Math.Max(lift, ClearOfAll(z));
        if (distance < 1e-4 && z == _z) return;
        var back = _recipe.Retraction.Length > 0 && (distance > _recipe.Retraction.LeastTravel || lift > z) && !double.IsPositiveInfinity(distance) ? _recipe.Retraction.Length : 0;
        if (back > 0) Push(-back);
        if (!(lift <= _z)) Rise(lift);
        var machine = _job.Machine.Frames.ToMachine(to);
        _out.Command("G0").Word('X', machine.X).Word('Y', machine.Y);
        Feed(_recipe.Speeds.Travel);
        _out.End();
        if (z != _z) Rise(z);
        if (back > 0) Push(back);
        _here = to;
    }

    /// <summary>Height at which the way to a point is clear of every obstacle and of what the head's bodies need round it.</summary>
    private double Lift(Point to, double z)
    {
        var lift = z;
        if (double.IsNaN(_here.X)) return lift;
        foreach (var (area, top) in _obstacles)
        {
            if (top <= lift || double.IsPositiveInfinity(top)) continue;
            if (area.Intersects(Geometry.Plane.Factory.CreateLineString([new Coordinate(_here.X, _here.Y), new Coordinate(to.X, to.Y)]))) lift = top;
        }
        return lift;
    }

    private double ClearOfAll(double z) => _obstacles.Where(o => double.IsFinite(o.Top)).Select(o => o.Top).Append(z).Max();

    private void Rise(double z)
    {
        _out.Command("G0").Word('Z', z);
        Feed(_job.Machine.Card.Motion.Axes.Z?.MaxSpeed ?? 10);
        _out.End();
        _z = z;
    }

    private void Push(double length)
    {
        _out.Command("G1");
        Filament(length);
        Feed(_recipe.Retraction.Speed);
        _out.End();
    }

    private void Filament(double length)
    {
        if (_relative) { _out.Fine('E', length); return; }
        _e += length;
        _out.Fine('E', _e);
    }

    private void Feed(double speed)
    {
        var perMinute = Math.Round(speed * 60);
        if (perMinute == _feed) return;
        _out.Whole('F', perMinute);
        _feed = perMinute;
    }

    private void Routine(RoutineMoment moment, Dictionary<string, object> values)
    {
        var text = moment.Of(_job.Machine.Card.Routines);
        if (string.IsNullOrWhiteSpace(text)) return;
        var written = RoutineTemplate.Render(moment, text, values).ReplaceLineEndings("\n").TrimEnd('\n');
        _out.Line($"; {moment.Title.ToLowerInvariant()} routine").Line(written);
        // the owner's code may have changed speed and position
        (_feed, _z, _here) = (-1, double.NaN, new Point(double.NaN, double.NaN));
    }

    private Dictionary<string, object> Values()
    {
        var machine = _job.Machine;
        var box = machine.Bed.EnvelopeInternal;
        var (low, high) = (machine.Frames.ToMachine(new Point(box.MinX, box.MinY)), machine.Frames.ToMachine(new Point(box.MaxX, box.MaxY)));
        var top = _layers[^1].Place.Top;
        var all = _layers.SelectMany(l => l.Paths).SelectMany(p => p.Points).Aggregate(
            (MinX: double.MaxValue, MinY: double.MaxValue, MaxX: double.MinValue, MaxY: double.MinValue),
            (b, p) => (Math.Min(b.MinX, p.X), Math.Min(b.MinY, p.Y), Math.Max(b.MaxX, p.X), Math.Max(b.MaxY, p.Y)));
        var (from, to) = (machine.Frames.ToMachine(new Point(all.MinX, all.MinY)), machine.Frames.ToMachine(new Point(all.MaxX, all.MaxY)));
        var travel = machine.Card.Motion.Axes.Z?.Max ?? machine.Card.Envelope.Height!.Value;
        return new Dictionary<string, object>
        {
            ["bed.min_x"] = low.X,
            ["bed.max_x"] = high.X,
            ["bed.min_y"] = low.Y,
            ["bed.max_y"] = high.Y,
            ["bed.width"] = box.Width,
            ["bed.depth"] = box.Height,
            ["machine.height"] = machine.Card.Envelope.Height!.Value,
            ["machine.name"] = machine.Card.Name!,
            ["heat.bed"] = _filament.Bed.First,
            ["heat.nozzle"] = _filament.Nozzle.First!.Value,
            ["heat.standby"] = _filament.Nozzle.Standby ?? Math.Max(0, _filament.Nozzle.First.Value - 60),
            ["first.height"] = _layers[0].Place.Height,
            ["layer.number"] = 1,
            ["layer.z"] = _layers[0].Place.Top,
            ["layer.height"] = _layers[0].Place.Height,
            ["layer.count"] = _layers.Count,
            ["part.min_x"] = from.X,
            ["part.max_x"] = to.X,
            ["part.min_y"] = from.Y,
            ["part.max_y"] = to.Y,
            ["part.height"] = top,
            ["tool.now"] = 0,
            ["tool.next"] = 0,
            ["filament.name"] = _filament.Name!,
            ["filament.diameter"] = _filament.Diameter!.Value,
            ["nozzle.diameter"] = machine.Nozzle.Diameter!.Value,
            ["job.name"] = _job.Name,
            ["clear.z"] = Math.Max(top, Math.Min(top + ClearAbove, travel)),
        };
    }
}
