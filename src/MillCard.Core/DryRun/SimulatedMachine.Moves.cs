using MillCard.Core.Documents;
using MillCard.Core.Flavours;

namespace MillCard.Core.DryRun;

// Moves: straight, arcs, homing, pulling back by the firmware's own figure.
public sealed partial class SimulatedMachine
{
    private const double HomingSeconds = 10;
    private const double FirmwareRetraction = 1;

    private readonly bool[] _homed = new bool[3];
    private readonly double[] _at = new double[3];
    private readonly double[] _shift = new double[3];
    private readonly Spot[] _tips;
    private double _feed = 25, _e, _speedShare = 1, _flowShare = 1, _firmwareRetraction, _pulledBack, _pullingSpeed, _primingSpeed,
        _primedMore;
    private double _firmwareLift, _lifted, _probeShift;
    private bool _primesApart;
    private readonly double[] _volumes;
    private double _fastest = double.PositiveInfinity;
    private double _minX = double.MaxValue, _minY = double.MaxValue, _minZ = double.MaxValue, _maxX = double.MinValue,
        _maxY = double.MinValue, _maxZ = double.MinValue;

    private Effect Line(int line)
    {
        var (x, y, z) = (Target('X', 0), Target('Y', 1), Target('Z', 2));
        var e = Filament();
        if (_words['F'] is var f && f > 0) _feed = f * _unit / 60;
        if (x == _at[0] && y == _at[1] && z == _at[2] && e == 0) return new Effect(EffectKind.NoMove, -1, 0);
        var first = _run.MoveList.Count;
        Go(line, x, y, z, e * _flowShare);
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
        var fed = word;
        if (_relativeE || _relative && _flavour.Extrusion == ExtrusionCounts.Either) _e += word;
        else (fed, _e) = (word - _e, word);
        return fed / _volumes[_tool];
    }

    private void Go(int line, double x, double y, double z, double e)
    {
        var moves = (X: x != _at[0], Y: y != _at[1], Z: z != _at[2]);
        var feed = moves is { X: false, Y: false, Z: false } ? _feed : Math.Min(_feed * _speedShare, _fastest);
        _planner.Add(line, x - _at[0], y - _at[1], z - _at[2], e, feed);
        var from = Spot();
        (_at[0], _at[1], _at[2]) = (x, y, z);
        _motors = true;
        var move = new SimulatedMove(line, Known(moves.X, moves.Y, moves.Z), from, Spot(), (float)e, (float)feed, (byte)_tool);
        _run.MoveList.Add(move);
        if (_second is not null) GoAlong(move);
        _run.Filament += e;
        _run.FilamentOf[_tool] += e;
        if (e <= 0) return;
        var now = Present(line);
        if (_noTool && !_run.FedWithoutTool.Comes) _run.FedWithoutTool = now;
        if (!_run.FirstExtrusion.Comes) _run.FirstExtrusion = now;
        if (!_run.FirstExtrusions[_tool].Comes) _run.FirstExtrusions[_tool] = now;
        if (_nozzleSteps[_tool] is var open and >= 0)
        {
            var step = _run.HeatSteps[open];
            if (!step.FirstExtrusion.Comes) _run.HeatSteps[open] = step with { FirstExtrusion = now, LastExtrusion = now };
            _lastExtrusions[_tool] = now;
        }
        if (!move.Extrudes) return;
        Spread(from);
        Spread(move.To);
    }

    /// <summary>Whether the axes of a move are homed; on a delta every move needs all three.</summary>
    private bool Known(bool x, bool y, bool z)
    {
        var (a, b, c) = (_homed[0], _homed[1], _homed[2]);
        return _machine.Card.Motion.Layout == MotionLayout.Delta ? a && b && c : (a || !x) && (b || !y) && (c || !z);
    }

    private void Spread(Spot p)
    {
        _minX = Math.Min(_minX, p.X); _maxX = Math.Max(_maxX, p.X);
        _minY = Math.Min(_minY, p.Y); _maxY = Math.Max(_maxY, p.Y);
        _minZ = Math.Min(_minZ, p.Z); _maxZ = Math.Max(_maxZ, p.Z);
    }

    private Effect Home(int line)
    {
        Settle(line);
        var all = !_words.Has('X') && !_words.Has('Y') && !_words.Has('Z');
        var motion = _machine.Card.Motion;
        var delta = motion.Layout == MotionLayout.Delta;
        Home(0, all || _words.Has('X') || delta, motion.Axes.X, delta ? 0 : motion.Axes.X?.Min ?? 0, line);
        Home(1, all || _words.Has('Y') || delta, motion.Axes.Y, delta ? 0 : motion.Axes.Y?.Min ?? 0, line);
        Home(2, all || _words.Has('Z') || delta, motion.Axes.Z, delta ? motion.Axes.Z?.Max ?? _machine.Card.Envelope.Height!.Value
            : motion.Axes.Z?.Min ?? 0, line);
        _motors = true;
        return new Effect(EffectKind.Home, -1, 0);
    }

    private void Home(int axis, bool asked, Axis? facts, double end, int line)
    {
        if (!asked) return;
        var way = facts is { Min: { } min, Max: { } max } ? max - min : double.NaN;
        _seconds[line] += facts?.HomingSpeed is { } speed && way > 0 ? (_homed[axis] ? Math.Abs(_at[axis] - end) : way / 2) / speed
            : HomingSeconds;
        (_at[axis], _shift[axis], _homed[axis]) = (end, _offset[axis] + _systems[_system, axis], true);
        if (axis == 2) (_shift[2], _lifted) = (_shift[2] + _probeShift, 0);
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

    private Effect FirmwareRetract(int line)
    {
        if (_pulledBack > 0) return new Effect(EffectKind.NoMove, -1, 0);
        _pulledBack = _firmwareRetraction;
        var effect = Bring(line, _at, _pullingSpeed, -_pulledBack);
        Lift(line, _firmwareLift);
        return effect;
    }

    private Effect FirmwarePrime(int line)
    {
        if (_pulledBack == 0) return new Effect(EffectKind.NoMove, -1, 0);
        var length = _pulledBack + _primedMore;
        _pulledBack = 0;
        var first = _run.MoveList.Count;
        Lift(line, -_lifted);
        Bring(line, _at, _primingSpeed, length);
        return new Effect(EffectKind.Move, first, 0);
    }

    /// <summary>The firmware's own lift: what the words count from goes up with the head.</summary>
    private void Lift(int line, double by)
    {
        if (by == 0) return;
        _shift[2] += by;
        _lifted += by;
        Bring(line, [_at[0], _at[1], _at[2] + by], _limits.Speed[2]);
    }

    /// <summary>Where the tip of the nozzle in use is.</summary>
    private Spot Spot() => new((float)_at[0] + _tips[_tool].X, (float)_at[1] + _tips[_tool].Y, (float)_at[2] + _tips[_tool].Z);
}
