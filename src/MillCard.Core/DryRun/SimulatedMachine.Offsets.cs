using MillCard.Core.Gcode;

namespace MillCard.Core.DryRun;

// Offsets between what the words count from and where the machine stands; remembered states.
public sealed partial class SimulatedMachine
{
    private const int Systems = 9;

    private readonly double[] _offset = new double[3];
    private readonly double[,] _systems = new double[Systems, 3];
    private readonly Stack<SavedState> _saved = new();
    private readonly Dictionary<string, SavedState> _named = new(StringComparer.OrdinalIgnoreCase);
    private readonly double[] _babySteps = new double[3];
    private int _system;

    private sealed record SavedState(bool Relative, bool RelativeE, double Unit, double Feed, double SpeedShare, double FlowShare,
        double E, double[] Shift, double[] Offset, double[] At);

    private Effect SaveState()
    {
        var state = new SavedState(_relative, _relativeE, _unit, _feed, _speedShare, _flowShare, _e, [.. _shift], [.. _offset], [.. _at]);
        if (_extended is { } command) _named[command.Text("NAME") ?? "default"] = state;
        else _saved.Push(state);
        return new Effect(EffectKind.Setting, -1, 0);
    }

    /// <summary>Back to a remembered state: by name with all that it counted from, by order with modes and speed alone.</summary>
    private Effect RestoreState(int line)
    {
        var unsaid = new Effect(EffectKind.Setting, -1, 0);
        if (_extended is not { } command)
        {
            if (_saved.TryPop(out var last)) (_relative, _relativeE, _unit, _feed) = (last.Relative, last.RelativeE, last.Unit, last.Feed);
            return unsaid;
        }
        if (!_named.TryGetValue(command.Text("NAME") ?? "default", out var saved)) return unsaid;
        (_relative, _relativeE, _unit, _feed) = (saved.Relative, saved.RelativeE, saved.Unit, saved.Feed);
        (_speedShare, _flowShare, _e) = (saved.SpeedShare, saved.FlowShare, saved.E);
        saved.Shift.CopyTo(_shift, 0);
        saved.Offset.CopyTo(_offset, 0);
        return command.Number("MOVE") > 0 ? Bring(line, saved.At, command.Number("MOVE_SPEED")) : unsaid;
    }

    /// <summary>Another set of offsets, or other offsets in one of the sets.</summary>
    private Effect WorkOffset(int line)
    {
        if (_extended is { } command) return NamedOffset(line, command);
        var number = _words.Value(0);
        var chosen = number < 59.05 ? (int)number - 54 : 5 + (int)Math.Round((number - 59) * 10);
        if (_words.Letter(0) != 'G' || chosen is < 0 or >= Systems) return new Effect(EffectKind.Setting, -1, 0);
        for (var axis = 0; axis < 3; axis++) _shift[axis] += _systems[chosen, axis] - _systems[_system, axis];
        _system = chosen;
        return new Effect(EffectKind.Position, -1, 0);
    }

    /// <summary>G10 L2: offsets of a set as given; G10 L20: such that the head stands at the given position.</summary>
    private Effect SetWorkOffset()
    {
        var asked = _words['P'] is var p && p >= 1 && p <= Systems ? (int)p - 1 : _system;
        for (var axis = 0; axis < 3; axis++)
        {
            var word = _words["XYZ"[axis]] * _unit;
            if (double.IsNaN(word)) continue;
            var more = _words['L'] == 20
                ? _at[axis] - word - (asked == _system ? _shift[axis] : _systems[asked, axis])
                : word - _systems[asked, axis];
            _systems[asked, axis] += more;
            if (asked == _system) _shift[axis] += more;
        }
        return new Effect(EffectKind.Position, -1, 0);
    }

    private Effect NamedOffset(int line, ExtendedCommand command)
    {
        var to = (double[])[.. _at];
        for (var axis = 0; axis < 3; axis++)
        {
            var name = "XYZ"[axis].ToString();
            var (set, more) = (command.Number(name), command.Number(name + "_ADJUST"));
            var by = double.IsNaN(set) ? more : set - _offset[axis];
            if (double.IsNaN(by)) by = 0;
            _offset[axis] += by;
            _shift[axis] += by;
            to[axis] += by;
        }
        return command.Number("MOVE") > 0 ? Bring(line, to, command.Number("MOVE_SPEED")) : new Effect(EffectKind.Position, -1, 0);
    }

    /// <summary>M206: what the machine counts at its end stops; the words then count from the other way.</summary>
    private Effect HomeOffset(bool atOnce)
    {
        for (var axis = 0; axis < 3; axis++)
        {
            var word = _words["XYZ"[axis]] * _unit;
            if (double.IsNaN(word)) continue;
            if (atOnce) _shift[axis] += -word - _offset[axis];
            _offset[axis] = -word;
        }
        return new Effect(EffectKind.Setting, -1, 0);
    }

    /// <summary>The head moves a little, and what the words count from moves with it.</summary>
    private Effect BabyStep(int line)
    {
        var to = (double[])[.. _at];
        for (var axis = 0; axis < 3; axis++)
        {
            var word = _words["XYZ"[axis]];
            if (axis == 2 && double.IsNaN(word)) word = _words['S'];
            if (double.IsNaN(word)) continue;
            // R0 counts from no shift at all
            var by = word * _unit - (_words['R'] == 0 ? _babySteps[axis] : 0);
            to[axis] += by;
            _shift[axis] += by;
            _babySteps[axis] += by;
        }
        return Bring(line, to, double.NaN);
    }

    /// <summary>The head is where the line says, and the machine takes it as homed.</summary>
    private Effect KinematicPosition(int line)
    {
        Settle(line);
        for (var axis = 0; axis < 3; axis++)
        {
            if (_extended?.Number("XYZ"[axis].ToString()) is { } place && !double.IsNaN(place)) _at[axis] = place;
            _homed[axis] = true;
        }
        return new Effect(EffectKind.Position, -1, 0);
    }

    private readonly Dictionary<int, double[]> _places = [];

    private int PlaceAsked() => _words['S'] is var place && place >= 0 ? (int)place : 0;

    /// <summary>Back to a remembered place: along the axes that are named, along all where none is.</summary>
    private Effect ReturnPlace(int line)
    {
        if (!_places.TryGetValue(PlaceAsked(), out var place)) return new Effect(EffectKind.NoMove, -1, 0);
        var all = !_words.Has('X') && !_words.Has('Y') && !_words.Has('Z');
        double[] to = [.. Enumerable.Range(0, 3).Select(axis => all || _words.Has("XYZ"[axis]) ? place[axis] : _at[axis])];
        return Bring(line, to, _words['F'] is var f && f > 0 ? f * _unit / 60 : double.NaN);
    }

    /// <summary>A move that no words ask for, at a speed of its own where there is one.</summary>
    private Effect Bring(int line, double[] to, double speed, double? filament = null)
    {
        if (filament is null && to.AsSpan().SequenceEqual(_at)) return new Effect(EffectKind.NoMove, -1, 0);
        var (first, feed) = (_run.MoveList.Count, _feed);
        if (speed > 0) _feed = speed;
        Go(line, to[0], to[1], to[2], filament ?? 0);
        _feed = feed;
        return new Effect(EffectKind.Move, first, 0);
    }
}
