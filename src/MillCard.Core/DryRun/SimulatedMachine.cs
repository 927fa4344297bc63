using System.Text;
using MillCard.Core.Documents;
using MillCard.Core.Flavours;
using MillCard.Core.Gcode;
using MillCard.Core.Heat;
using MillCard.Core.Motion;
using MillCard.Core.Reach;

namespace MillCard.Core.DryRun;

/// <summary>Executes G-code on the machine that a card describes.</summary>
public sealed class SimulatedMachine
{
    private const double HomingSeconds = 10;
    private const double LevelSeconds = 60;
    private const int UnknownKept = 200;
    private const double ArcError = 0.01;

    private readonly Machine _machine;
    private readonly Flavour _flavour;
    private readonly Limits _limits;
    private readonly Planner _planner;
    private readonly DryRunReport _run;
    private readonly Words _words = new();
    private readonly Effect[] _effects;
    private readonly double[] _seconds;
    private readonly bool[] _homed = new bool[3];
    private readonly double[] _at = new double[3];
    private readonly double[] _shift = new double[3];
    private readonly List<(int Line, Heater Heater, double Target, int Tool)> _pending = [];
    private double _unit = 1, _feed = 25, _e, _fan;
    private bool _relative, _relativeE, _motors;
    private int _summed;
    private double _clock;
    private readonly int[] _nozzleSteps, _lastExtrusions;
    private readonly Spot[] _tips;
    private int _tool;
    private double _minX = double.MaxValue, _minY = double.MaxValue, _minZ = double.MaxValue, _maxX = double.MinValue, _maxY = double.MinValue, _maxZ = double.MinValue;

    private SimulatedMachine(Machine machine, GcodeText text)
    {
        _machine = machine;
        _flavour = Flavour.Of(machine.Flavour);
        _limits = Limits.Of(machine.Card);
        _seconds = new double[text.Count];
        _effects = new Effect[text.Count];
        var nozzles = Math.Max(1, machine.Nozzles.Count);
        (_nozzleSteps, _lastExtrusions) = ([.. Enumerable.Repeat(-1, nozzles)], [.. Enumerable.Repeat(-1, nozzles)]);
        _tips = [.. Enumerable.Range(0, nozzles).Select(i => TipOf(machine, i))];
        _planner = new Planner(_limits, (line, seconds) => _seconds[line] += seconds);
        _run = new DryRunReport
        {
            Text = text,
            Flavour = _flavour,
            Starts = new double[text.Count],
            Seconds = _seconds,
            EffectList = _effects,
            Nozzles = [.. Enumerable.Range(0, nozzles).Select(i => new HeaterTrace(Heaters.Nozzle(machine.Card, i < machine.Nozzles.Count ? machine.Nozzles[i] : null)))],
            FirstExtrusions = [.. Enumerable.Repeat(-1, nozzles)],
            Bed = Heaters.Bed(machine.Card) is { } bed ? new HeaterTrace(bed) : null,
        };
    }

    /// <summary>Runs a whole program.</summary>
    /// <param name="machine">The machine.</param>
    /// <param name="gcode">The program.</param>
    /// <param name="stop">Ends the run.</param>
    public static DryRunReport Run(Machine machine, ReadOnlyMemory<byte> gcode, CancellationToken stop = default)
    {
        var text = new GcodeText(gcode);
        var simulated = new SimulatedMachine(machine, text);
        for (var line = 0; line < text.Count; line++)
        {
            if ((line & 0xFFF) == 0) stop.ThrowIfCancellationRequested();
            simulated.Execute(line, text.Line(line));
        }
        return simulated.Finish();
    }

    private DryRunReport Finish()
    {
        Settle(_seconds.Length);
        _run.TotalSeconds = _clock;
        if (_maxX >= _minX) _run.Extents = new Extents(_minX, _minY, _minZ, _maxX, _maxY, _maxZ);
        _run.End = new EndState(Spot(), _run.Nozzles.Max(n => n.Target), _run.Bed?.Target ?? 0, _fan, _motors, _relative);
        return _run;
    }

    private void Execute(int line, ReadOnlySpan<byte> text)
    {
        _words.Read(text);
        if (_words.Count == 0)
        {
            if (_words.HasRest) Unknown(line, text);
            else if (text.Length > 0) _effects[line] = new Effect(EffectKind.Comment, -1, 0);
            return;
        }
        var (letter, number) = (_words.Letter(0), _words.Value(0));
        if (_flavour.Find(letter, double.IsNaN(number) ? -1 : number) is not { } command) { Unknown(line, text); return; }
        _effects[line] = Do(line, command);
    }

    private void Unknown(int line, ReadOnlySpan<byte> text)
    {
        _effects[line] = new Effect(EffectKind.Unknown, -1, 0);
        if (_run.Unknown.Count < UnknownKept) _run.Unknown.Add(new UnknownCommand(line, Encoding.UTF8.GetString(text[..Math.Min(80, text.Length)])));
    }

    private Effect Do(int line, Command command)
    {
        switch (command.Meaning)
        {
            case Meaning.Move: return Line(line);
            case Meaning.ArcClockwise: return Arc(line, clockwise: true);
            case Meaning.ArcCounterClockwise: return Arc(line, clockwise: false);
            case Meaning.Dwell: return Dwell(line);
            case Meaning.Home: return Home(line);
            case Meaning.Level: return Pause(line, EffectKind.Level, LevelSeconds);
            case Meaning.Inches: _unit = 25.4; return new Effect(EffectKind.Units, -1, 2);
            case Meaning.Millimetres: _unit = 1; return new Effect(EffectKind.Units, -1, 1);
            case Meaning.Absolute: _relative = false; if (_flavour.AbsoluteTurnsExtrusion) _relativeE = false; return new Effect(EffectKind.Absolute, -1, 0);
            case Meaning.Relative: _relative = true; if (_flavour.AbsoluteTurnsExtrusion) _relativeE = true; return new Effect(EffectKind.Relative, -1, 0);
            case Meaning.ExtrusionAbsolute: _relativeE = false; return new Effect(EffectKind.ExtrusionAbsolute, -1, 0);
            case Meaning.ExtrusionRelative: _relativeE = true; return new Effect(EffectKind.ExtrusionRelative, -1, 0);
            case Meaning.SetPosition: return SetPosition();
            case Meaning.SetNozzle: return Heat(line, Heater.Nozzle, EffectKind.SetNozzle);
            case Meaning.SetBed: return Heat(line, Heater.Bed, EffectKind.SetBed);
            case Meaning.WaitNozzle: return HeatAndWait(line, Heater.Nozzle, EffectKind.WaitNozzle);
            case Meaning.WaitBed: return HeatAndWait(line, Heater.Bed, EffectKind.WaitBed);
            case Meaning.WaitAll: return WaitAll(line);
            case Meaning.FanOn: _fan = Fan(); return new Effect(EffectKind.Fan, -1, (float)_fan);
            case Meaning.FanOff: _fan = 0; return new Effect(EffectKind.Fan, -1, 0);
            case Meaning.MotorsOff: Settle(line); _motors = false; return new Effect(EffectKind.MotorsOff, -1, 0);
            case Meaning.Tool: return Tool();
            case Meaning.Finish: Settle(line); return new Effect(EffectKind.Finish, -1, 0);
            case Meaning.LimitSpeed: return Limit(_limits.Speed, _flavour.SpeedLimitUnit == "mm/min" ? 1 / 60.0 : 1);
            case Meaning.LimitAcceleration: return Limit(_limits.Acceleration, 1);
            case Meaning.SetAcceleration: return SetAcceleration();
            case Meaning.SetCorner: return SetCorner();
            default: return new Effect(EffectKind.Message, -1, 0);
        }
    }

    private Effect Line(int line)
    {
        var (x, y, z) = (Target('X', 0), Target('Y', 1), Target('Z', 2));
        var e = Filament();
        if (_words['F'] is var f && f > 0) _feed = f * _unit / 60;
        if (x == _at[0] && y == _at[1] && z == _at[2] && e == 0) return new Effect(EffectKind.NoMove, -1, 0);
        var first = _run.MoveList.Count;
        Go(line, x, y, z, e);
        return new Effect(EffectKind.Move, first, 0);
    }

    private double Target(char letter, int axis)
    {
        var word = _words[letter];
        if (double.IsNaN(word)) return _at[axis];
        return _relative ? _at[axis] + word * _unit : word * _unit + _shift[axis];
    }

    /// <summary>Filament to be fed by this line's E word.</summary>
    private double Filament()
    {
        var word = _words['E'] * _unit;
        if (double.IsNaN(word)) return 0;
        if (_relativeE) { _e += word; return word; }
        var fed = word - _e;
        _e = word;
        return fed;
    }

    private void Go(int line, double x, double y, double z, double e)
    {
        _planner.Add(line, x - _at[0], y - _at[1], z - _at[2], e, _feed);
        var from = Spot();
        (_at[0], _at[1], _at[2]) = (x, y, z);
        _motors = true;
        var move = new SimulatedMove(line, _homed[0] && _homed[1] && _homed[2], from, Spot(), (float)e, (float)_feed, (byte)_tool);
        _run.MoveList.Add(move);
        _run.Filament += e;
        if (e <= 0) return;
        if (_run.FirstExtrusion < 0) _run.FirstExtrusion = line;
        if (_run.FirstExtrusions[_tool] < 0) _run.FirstExtrusions[_tool] = line;
        if (_nozzleSteps[_tool] is var open and >= 0)
        {
            var step = _run.HeatSteps[open];
            if (step.FirstExtrusion < 0) _run.HeatSteps[open] = step with { FirstExtrusion = line, LastExtrusion = line };
            _lastExtrusions[_tool] = line;
        }
        if (!move.Extrudes) return;
        Spread(from);
        Spread(move.To);
    }

    private void Spread(Spot p)
    {
        _minX = Math.Min(_minX, p.X); _maxX = Math.Max(_maxX, p.X);
        _minY = Math.Min(_minY, p.Y); _maxY = Math.Max(_maxY, p.Y);
        _minZ = Math.Min(_minZ, p.Z); _maxZ = Math.Max(_maxZ, p.Z);
    }

    private Effect Arc(int line, bool clockwise)
    {
        var (x, y, z) = (Target('X', 0), Target('Y', 1), Target('Z', 2));
        var e = Filament();
        if (_words['F'] is var f && f > 0) _feed = f * _unit / 60;
        var (i, j) = (_words['I'] * _unit, _words['J'] * _unit);
        if (double.IsNaN(i) && double.IsNaN(j)) (i, j) = Centre(x - _at[0], y - _at[1], _words['R'] * _unit, clockwise);
        if (double.IsNaN(i)) i = 0;
        if (double.IsNaN(j)) j = 0;
        var (cx, cy) = (_at[0] + i, _at[1] + j);
        var radius = Math.Sqrt(i * i + j * j);
        var start = Math.Atan2(-j, -i);
        var sweep = Math.Atan2(y - cy, x - cx) - start;
        if (clockwise) { if (sweep >= -1e-9) sweep -= 2 * Math.PI; }
        else if (sweep <= 1e-9) sweep += 2 * Math.PI;
        var first = _run.MoveList.Count;
        var pieces = radius < ArcError ? 1 : Math.Clamp((int)Math.Ceiling(Math.Abs(sweep) / (2 * Math.Acos(1 - ArcError / radius))), 1, 10_000);
        var (z0, per) = (_at[2], e / pieces);
        for (var k = 1; k < pieces; k++)
        {
            var (sin, cos) = Math.SinCos(start + sweep * k / pieces);
            Go(line, cx + radius * cos, cy + radius * sin, z0 + (z - z0) * k / pieces, per);
        }
        Go(line, x, y, z, per);
        return new Effect(EffectKind.Move, first, 0);
    }

    private static (double I, double J) Centre(double dx, double dy, double radius, bool clockwise)
    {
        var half = Math.Sqrt(dx * dx + dy * dy) / 2;
        if (!(half > 0)) return (0, 0);
        var height = Math.Sqrt(Math.Max(0, radius * radius - half * half));
        var side = clockwise == radius > 0 ? 1 : -1;
        return (dx / 2 + side * height * dy / (2 * half), dy / 2 - side * height * dx / (2 * half));
    }

    private Effect Dwell(int line)
    {
        var (ms, s) = (_words['P'], _words['S']);
        return Pause(line, EffectKind.Dwell, double.IsNaN(s) ? double.IsNaN(ms) ? 0 : Math.Clamp(ms / 1000, 0, 1e6) : Math.Clamp(s, 0, 1e6));
    }

    private Effect Pause(int line, EffectKind kind, double seconds)
    {
        Settle(line);
        _seconds[line] += seconds;
        return new Effect(kind, -1, (float)seconds);
    }

    private Effect Home(int line)
    {
        Settle(line);
        var all = !_words.Has('X') && !_words.Has('Y') && !_words.Has('Z');
        var motion = _machine.Card.Motion;
        var delta = motion.Layout == MotionLayout.Delta;
        Home(0, all || _words.Has('X') || delta, motion.Axes.X, delta ? 0 : motion.Axes.X?.Min ?? 0, line);
        Home(1, all || _words.Has('Y') || delta, motion.Axes.Y, delta ? 0 : motion.Axes.Y?.Min ?? 0, line);
        Home(2, all || _words.Has('Z') || delta, motion.Axes.Z, delta ? motion.Axes.Z?.Max ?? _machine.Card.Envelope.Height!.Value : motion.Axes.Z?.Min ?? 0, line);
        _motors = true;
        return new Effect(EffectKind.Home, -1, 0);
    }

    private void Home(int axis, bool asked, Axis? facts, double end, int line)
    {
        if (!asked) return;
        var way = facts is { Min: { } min, Max: { } max } ? max - min : double.NaN;
        _seconds[line] += facts?.HomingSpeed is { } speed && way > 0 ? (_homed[axis] ? Math.Abs(_at[axis] - end) : way / 2) / speed : HomingSeconds;
        (_at[axis], _shift[axis], _homed[axis]) = (end, 0, true);
    }

    private Effect SetPosition()
    {
        var any = false;
        for (var axis = 0; axis < 3; axis++)
        {
            var word = _words["XYZ"[axis]];
            if (double.IsNaN(word)) continue;
            _shift[axis] = _at[axis] - word * _unit;
            any = true;
        }
        if (_words['E'] is var e && !double.IsNaN(e)) { _e = e * _unit; any = true; }
        if (!any) { _e = 0; for (var axis = 0; axis < 3; axis++) _shift[axis] = _at[axis]; }
        return new Effect(EffectKind.Position, -1, 0);
    }

    private Effect Heat(int line, Heater heater, EffectKind kind)
    {
        var target = _words['S'];
        if (double.IsNaN(target)) return new Effect(EffectKind.Message, -1, 0);
        SetTarget(line, heater, target);
        return new Effect(kind, -1, (float)target);
    }

    private void SetTarget(int line, Heater heater, double target)
    {
        var tool = heater == Heater.Nozzle ? ToolAsked() : 0;
        _pending.Add((line, heater, target, tool));
        if (heater == Heater.Nozzle)
        {
            EndStep(tool);
            _nozzleSteps[tool] = _run.HeatSteps.Count;
        }
        _run.HeatSteps.Add(new HeatStep(line, heater, target, -1, -1, tool));
    }

    /// <summary>The nozzle that a T word names, or the one in use.</summary>
    private int ToolAsked() => _words['T'] is var tool && tool >= 0 && tool < _tips.Length ? (int)tool : _tool;

    private Effect Tool()
    {
        var tool = _words.Value(0);
        if (tool >= 0 && tool < _tips.Length) _tool = (int)tool;
        return new Effect(EffectKind.Tool, -1, (float)tool);
    }

    /// <summary>Where a nozzle's tip is from what the G-code counts, mm: a firmware with tool offsets of its own counts the tip itself.</summary>
    private static Spot TipOf(Machine machine, int nozzle) =>
        machine.Card.Head.Offsets?.Firmware != true && !machine.HasTwoCarriages && nozzle < machine.Nozzles.Count && machine.Nozzles[nozzle].Offset is { } o
            ? new Spot((float)o.X, (float)o.Y, (float)o.Z)
            : default;

    private void EndStep(int tool)
    {
        if (_nozzleSteps[tool] is var open and >= 0 && _lastExtrusions[tool] >= 0) _run.HeatSteps[open] = _run.HeatSteps[open] with { LastExtrusion = _lastExtrusions[tool] };
        _lastExtrusions[tool] = -1;
    }

    private Effect HeatAndWait(int line, Heater heater, EffectKind kind)
    {
        var (s, r) = (_words['S'], _words['R']);
        var target = double.IsNaN(s) ? r : s;
        if (double.IsNaN(target)) return new Effect(EffectKind.Message, -1, 0);
        SetTarget(line, heater, target);
        Settle(line);
        ApplyPending(line);
        var tool = heater == Heater.Nozzle ? ToolAsked() : 0;
        if (TraceOf(heater, tool) is not { } trace) return new Effect(EffectKind.Returns, -1, (float)target);
        var seconds = trace.Wait(_clock, coolsToo: double.IsNaN(s));
        _run.Waits.Add(new Wait(line, heater, target, seconds, tool));
        if (double.IsInfinity(seconds)) return new Effect(EffectKind.Never, -1, (float)target);
        _seconds[line] += seconds;
        return seconds == 0 && trace.At(_clock) > target + HeatModel.WaitTolerance ? new Effect(EffectKind.Returns, -1, (float)target) : new Effect(kind, -1, (float)target);
    }

    private Effect WaitAll(int line)
    {
        Settle(line);
        var longest = 0.0;
        foreach (var (heater, tool) in Enumerable.Range(0, _run.Nozzles.Count).Select(i => (Heater.Nozzle, i)).Append((Heater.Bed, 0)))
        {
            if (TraceOf(heater, tool) is not { Target: > 0 } trace) continue;
            var seconds = trace.Wait(_clock, coolsToo: true);
            _run.Waits.Add(new Wait(line, heater, trace.Target, seconds, tool));
            if (!double.IsInfinity(seconds)) longest = Math.Max(longest, seconds);
        }
        _seconds[line] += longest;
        return new Effect(EffectKind.WaitAll, -1, (float)longest);
    }

    private HeaterTrace? TraceOf(Heater heater, int tool) => heater == Heater.Nozzle ? _run.Nozzles[tool] : _run.Bed;

    private double Fan()
    {
        var s = _words['S'];
        if (double.IsNaN(s)) return 1;
        return Math.Clamp(_machine.Flavour == FlavourId.RepRapFirmware && s <= 1 ? s : s / 255, 0, 1);
    }

    private Effect Limit(double[] axes, double unit)
    {
        for (var axis = 0; axis < 4; axis++)
            if (_words["XYZE"[axis]] is var value && value > 0) axes[axis] = value * unit;
        return new Effect(EffectKind.Setting, -1, 0);
    }

    private Effect SetAcceleration()
    {
        var (p, t, r, s) = (_words['P'], _words['T'], _words['R'], _words['S']);
        if (s > 0) (_limits.Printing, _limits.Travel) = (s, s);
        if (p > 0) _limits.Printing = p;
        if (t > 0) _limits.Travel = t;
        if (r > 0) _limits.Retraction = r;
        return new Effect(EffectKind.Setting, -1, 0);
    }

    private Effect SetCorner()
    {
        if (_words['J'] is var deviation && deviation > 0) (_limits.Corner, _limits.CornerValue) = (CornerKind.JunctionDeviation, deviation);
        var unit = _machine.Flavour == FlavourId.RepRapFirmware ? 1 / 60.0 : 1;
        for (var axis = 0; axis < 4; axis++)
            if (_words["XYZE"[axis]] is var value && value > 0) (_limits.Jump[axis], _limits.Corner) = (value * unit, CornerKind.InstantSpeedChange);
        return new Effect(EffectKind.Setting, -1, 0);
    }

    /// <summary>Where the tip of the nozzle in use is.</summary>
    private Spot Spot() => new((float)_at[0] + _tips[_tool].X, (float)_at[1] + _tips[_tool].Y, (float)_at[2] + _tips[_tool].Z);

    /// <summary>Brings the machine to a stop, times all moves so far and sums the clock up to a line.</summary>
    private void Settle(int line)
    {
        _planner.Drain();
        ApplyPending(line);
        SumTo(line);
        if (line == _seconds.Length) for (var tool = 0; tool < _tips.Length; tool++) EndStep(tool);
    }

    private void ApplyPending(int upTo)
    {
        foreach (var (line, heater, target, tool) in _pending)
        {
            if (line > upTo) continue;
            SumTo(line);
            TraceOf(heater, tool)?.Set(_clock, target);
        }
        _pending.RemoveAll(p => p.Line <= upTo);
    }

    private void SumTo(int line)
    {
        for (; _summed < line; _summed++)
        {
            _run.Starts[_summed] = _clock;
            _clock += _seconds[_summed];
        }
    }
}
