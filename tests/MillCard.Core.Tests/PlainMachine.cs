using System.Globalization;
using System.Text.RegularExpressions;
using MillCard.Core.Documents;

namespace MillCard.Core.Tests;

/// <summary>A machine written a second time, small and slow, from the words of the dialects' documentation: where it stands, what it fed,
/// how long it took.</summary>
/// <remarks>
/// It shares no code with the core's own. Corners by junction deviation, moves by trapezoids (Kinematics of constant acceleration),
/// heaters of first order (Newton's law of cooling). Dialect facts are from memory of the firmwares' public documentation.
/// </remarks>
internal sealed partial class PlainMachine(FlavourId dialect, PlainMachine.Facts facts)
{
    /// <summary>What the card says: highest speeds and accelerations of x, y, z, e, corner deviation, heaters.</summary>
    internal sealed record Facts(double[] Speed, double[] Acceleration, double Deviation, double Room, double NozzleEnd, double NozzleTime,
        double BedEnd, double BedTime, double Retraction);

    private readonly record struct Leg(double[] D, double Feed, double Acceleration, double[] Speed);

    private readonly double[] _speed = [.. facts.Speed];
    private readonly double[] _acceleration = [.. facts.Acceleration];
    private readonly List<Leg> _legs = [];
    private readonly Dictionary<string, (double[] Origin, double E, bool Axes, bool Own, double Feed, double Share, double Flow,
        double[] At, double[] Offset)> _saved = [];
    private readonly List<(bool Axes, bool Own, double Unit, double Feed)> _stack = [];
    private readonly double[,] _workplaces = new double[9, 3];
    private double[] _at = [0, 0, 0], _origin = [0, 0, 0], _offset = [0, 0, 0];
    private double _e, _unit = 1, _feed = 25, _share = 1, _flow = 1, _printing = double.PositiveInfinity, _travel = double.PositiveInfinity;
    private double _vector = double.PositiveInfinity, _pull = facts.Retraction, _pullSpeed, _pushSpeed, _more, _lift, _lifted, _pulled,
        _deviation = facts.Deviation;
    private double _nozzle = facts.Room, _bed = facts.Room, _nozzleTarget, _bedTarget;
    private bool _axes, _own, _pushOwn;
    private int _workplace;
    private double _volume = 1;

    public double[] At => _at;
    public double Fed { get; private set; }
    public double Seconds { get; private set; }

    public PlainMachine Run(string program)
    {
        foreach (var line in program.Split('\n')) Do(line);
        Stop();
        return this;
    }

    private Dictionary<string, double> _w = [];

    private double? W(string key) => _w.TryGetValue(key, out var value) ? value : null;

    private void Do(string line)
    {
        var named = Named().Match(line);
        var head = named.Success ? named.Value : Code().Match(line).Value;
        _w = named.Success
            ? Pair().Matches(line).Where(m => double.TryParse(m.Groups[2].ValueSpan, CultureInfo.InvariantCulture, out _))
                .ToDictionary(m => m.Groups[1].Value, m => double.Parse(m.Groups[2].ValueSpan, CultureInfo.InvariantCulture))
            : Word().Matches(line[head.Length..])
                .ToDictionary(m => m.Groups[1].Value, m => double.Parse(m.Groups[2].ValueSpan, CultureInfo.InvariantCulture));
        switch (head)
        {
            case "G0" or "G1": Straight(); break;
            case "G2" or "G3": Round(head == "G2"); break;
            case "G4": Stop(); Pass(W("S") is { } s && dialect != FlavourId.Klipper ? s : (W("P") ?? 0) / 1000); break;
            case "G10" when W("L") is { } l && dialect is FlavourId.RepRapFirmware or FlavourId.Smoothieware: Workplace((int)l); break;
            case "G10": Pull(); break;
            case "G11": Push(); break;
            case "G20": _unit = 25.4; break;
            case "G21": _unit = 1; break;
            case "G28": Home(line); break;
            case "G54" or "G55" or "G56": Choose(head[2] - '4'); break;
            case "G90" or "G91":
                _axes = head == "G91";
                if (dialect is FlavourId.Marlin or FlavourId.Smoothieware) _own = _axes;
                break;
            case "G92": Rename(line); break;
            case "M82": _own = false; break;
            case "M83": _own = true; break;
            case "M120" when dialect is FlavourId.RepRapFirmware or FlavourId.Smoothieware: _stack.Add((_axes, _own, _unit, _feed)); break;
            case "M121" when dialect is FlavourId.RepRapFirmware or FlavourId.Smoothieware
                && _stack.Count > 0:
                (_axes, _own, _unit, _feed) = _stack[^1]; _stack.RemoveAt(_stack.Count - 1); break;
            case "M104": _nozzleTarget = W("S") ?? _nozzleTarget; Settle(); break;
            case "M140": _bedTarget = W("S") ?? _bedTarget; Settle(); break;
            case "M109": _nozzleTarget = W("S")!.Value; Settle(); Wait(nozzle: true); break;
            case "M190": _bedTarget = W("S")!.Value; Settle(); Wait(nozzle: false); break;
            case "M200": _volume = W("D") is > 0 and var d ? Math.PI * d * d / 4 : 1; break;
            case "M201": for (var i = 0; i < 4; i++) _acceleration[i] = W("XYZE"[i].ToString()) ?? _acceleration[i]; break;
            case "M203" when dialect is FlavourId.Marlin or FlavourId.RepRapFirmware or FlavourId.Smoothieware:
                for (var i = 0; i < 4; i++)
                    _speed[i] = W("XYZE"[i].ToString()) / (dialect == FlavourId.RepRapFirmware ? 60 : 1) ?? _speed[i];
                break;
            case "M204" when dialect != FlavourId.Repetier: Accelerate(); break;
            case "M206" when dialect is FlavourId.Marlin:
                for (var i = 0; i < 3; i++) if (
                W("XYZ"[i].ToString()) * _unit is { } v) { _origin[i] += -v - _offset[i]; _offset[i] = -v; }
                break;
            case "M207" when dialect != FlavourId.Repetier:
                (_pull, _pullSpeed, _lift) = (W("S") ?? _pull, W("F") / 60 ?? _pullSpeed, W("Z") ?? _lift);
                if (dialect == FlavourId.RepRapFirmware) (_more, _pushSpeed) = (W("R") ?? _more, W("T") / 60 ?? W("F") / 60 ?? _pushSpeed);
                else if (!_pushOwn) _pushSpeed = W("F") / 60 ?? _pushSpeed;
                break;
            case "M208":
                (_more, _pushSpeed, _pushOwn) = (W("S") ?? _more, W("F") / 60 ?? _pushSpeed, W("F") is not null
                || _pushOwn); break;
            case "M220": _share = W("S")!.Value / 100; break;
            case "M221": _flow = W("S")!.Value / 100; break;
            case "M290": Shift(W("Z") ?? 0, move: true); break;
            case "M400": Stop(); break;
            case "SET_GCODE_OFFSET":
                if (W("Z") is { } z) { Shift(z - _offset[2], W("MOVE") == 1); _offset[2] = z; }
                if (W("Z_ADJUST") is { } more) { Shift(more, W("MOVE") == 1); _offset[2] += more; }
                break;
            case "SAVE_GCODE_STATE": _saved["s"] = ([.. _origin], _e, _axes, _own, _feed, _share, _flow, [.. _at], [.. _offset]); break;
            case "RESTORE_GCODE_STATE" when _saved.TryGetValue("s", out var was):
                (_origin, _e, _axes, _own, _feed, _share, _flow, _offset) = ([.. was.Origin], was.E, was.Axes, was.Own, was.Feed,
                    was.Share, was.Flow, [.. was.Offset]);
                if (W("MOVE") == 1) Go([.. was.At], 0, W("MOVE_SPEED") ?? _feed);
                break;
            case "SET_RETRACTION":
                (_pull, _pullSpeed, _more, _pushSpeed) = (W("RETRACT_LENGTH") ?? _pull, W("RETRACT_SPEED")
                    ?? _pullSpeed, W("UNRETRACT_EXTRA_LENGTH") ?? _more, W("UNRETRACT_SPEED") ?? _pushSpeed);
                break;
            case "SET_VELOCITY_LIMIT":
                if (W("VELOCITY") is { } vector) (_vector, _speed[0], _speed[1]) = (vector, vector, vector);
                if (W("ACCEL") is { } accel) (_printing, _travel) = (accel, accel);
                break;
        }
    }

    private bool LengthsOfE => dialect switch
    {
        FlavourId.Marlin or FlavourId.Smoothieware or FlavourId.RepRapFirmware => _own,
        _ => _own || _axes,
    };

    private double[] Target() => [.. Enumerable.Range(0, 3)
        .Select(i => W("XYZ"[i].ToString()) * _unit is not { } v ? _at[i] : _axes ? _at[i] + v : v + _origin[i])];

    private double Feed()
    {
        if (W("E") * _unit is not { } e) return 0;
        var fed = LengthsOfE ? e : e - _e;
        _e = LengthsOfE ? _e + e : e;
        return fed / _volume * _flow;
    }

    private void Straight()
    {
        var (to, e) = (Target(), Feed());
        if (W("F") is > 0 and var f) _feed = f * _unit / 60;
        Go(to, e, _feed);
    }

    private void Round(bool clockwise)
    {
        var (to, e) = (Target(), Feed());
        if (W("F") is > 0 and var f) _feed = f * _unit / 60;
        var (cx, cy) = (_at[0] + (W("I") ?? 0) * _unit, _at[1] + (W("J") ?? 0) * _unit);
        var radius = Math.Sqrt(Math.Pow(_at[0] - cx, 2) + Math.Pow(_at[1] - cy, 2));
        var (begin, end) = (Math.Atan2(_at[1] - cy, _at[0] - cx), Math.Atan2(to[1] - cy, to[0] - cx));
        while (clockwise ? end > begin - 1e-9 : end < begin + 1e-9) end += clockwise ? -2 * Math.PI : 2 * Math.PI;
        var (z, n) = (_at[2], 400);
        for (var k = 1; k < n; k++)
        {
            var angle = begin + (end - begin) * k / n;
            Go([cx + radius * Math.Cos(angle), cy + radius * Math.Sin(angle), z + (to[2] - z) * k / n], e / n, _feed);
        }
        Go(to, e / n, _feed);
    }

    private void Go(double[] to, double e, double feed)
    {
        double[] d = [to[0] - _at[0], to[1] - _at[1], to[2] - _at[2], e];
        _at = to;
        Fed += e;
        if (d.All(v => Math.Abs(v) < 1e-9)) return;
        var still = d[0] == 0 && d[1] == 0 && d[2] == 0;
        _legs.Add(new(d, still ? feed : Math.Min(feed * _share, _vector), still ? double.PositiveInfinity : e > 0 ? _printing
            : _travel, [.. _speed, .. _acceleration]));
    }

    private void Pull()
    {
        if (_pulled > 0) return;
        _pulled = _pull;
        Go([.. _at], -_pull, _pullSpeed > 0 ? _pullSpeed : _feed);
        if (_lift > 0) { _origin[2] += _lift; _lifted += _lift; Go([_at[0], _at[1], _at[2] + _lift], 0, _speed[2]); }
    }

    private void Push()
    {
        if (_pulled == 0) return;
        if (_lifted > 0) { _origin[2] -= _lifted; Go([_at[0], _at[1], _at[2] - _lifted], 0, _speed[2]); _lifted = 0; }
        Go([.. _at], _pulled + _more, _pushSpeed > 0 ? _pushSpeed : _feed);
        _pulled = 0;
    }

    private void Shift(double by, bool move)
    {
        _origin[2] += by;
        if (move) Go([_at[0], _at[1], _at[2] + by], 0, _feed);
    }

    private void Home(string line)
    {
        Stop();
        for (var i = 0; i < 3; i++)
        {
            if (line.Contains(' ') && !line.Contains("XYZ"[i])) continue;
            (_at[i], _origin[i]) = (0, _offset[i] + _workplaces[_workplace, i]);
            if (i == 2) _lifted = 0;
            Seconds += 10;
        }
        Settle();
    }

    private void Rename(string line)
    {
        if (!line.Contains(' ')) { _e = 0; for (var i = 0; i < 3; i++) _origin[i] = _at[i]; return; }
        for (var i = 0; i < 3; i++) if (W("XYZ"[i].ToString()) * _unit is { } v) _origin[i] = _at[i] - v;
        _e = W("E") * _unit ?? _e;
    }

    private void Workplace(int l)
    {
        var p = (int)(W("P") ?? _workplace + 1) - 1;
        for (var i = 0; i < 3; i++)
        {
            if (W("XYZ"[i].ToString()) * _unit is not { } v) continue;
            var others = p == _workplace ? _origin[i] - _workplaces[p, i] : 0;
            var set = l == 20 ? _at[i] - v - others : v;
            if (p == _workplace) _origin[i] += set - _workplaces[p, i];
            _workplaces[p, i] = set;
        }
    }

    private void Choose(int p)
    {
        if (dialect is FlavourId.Klipper or FlavourId.Repetier or FlavourId.RepRap) return;
        for (var i = 0; i < 3; i++) _origin[i] += _workplaces[p, i] - _workplaces[_workplace, i];
        _workplace = p;
    }

    private void Accelerate()
    {
        var (s, p, t) = (W("S"), W("P"), W("T"));
        if (dialect == FlavourId.Klipper)
        { if ((s ?? (p is { } a && t is { } b ? Math.Min(a, b) : null)) is { } one) (_printing, _travel) = (one, one); return; }
        if (s is { } both) (_printing, _travel) = (both, both);
        (_printing, _travel) = (p ?? _printing, t ?? _travel);
    }

    private double _settled;

    /// <summary>Heaters as they have become since the last look.</summary>
    private void Settle()
    {
        Stop();
        static double Next(double now, double target, double room, double end, double time, double seconds)
        {
            var heated = end - (end - now) * Math.Exp(-seconds / time);
            var cooled = room + (now - room) * Math.Exp(-seconds / time);
            return target > now ? Math.Min(target, heated) : Math.Max(Math.Max(target, room), cooled);
        }
        var passed = Seconds - _settled;
        (_nozzle, _bed, _settled) = (Next(_nozzle, _nozzleBefore, facts.Room, facts.NozzleEnd, facts.NozzleTime, passed),
            Next(_bed, _bedBefore, facts.Room, facts.BedEnd, facts.BedTime, passed), Seconds);
        (_nozzleBefore, _bedBefore) = (_nozzleTarget, _bedTarget);
    }

    private double _nozzleBefore, _bedBefore;

    private void Wait(bool nozzle)
    {
        var (now, target, end, time) = nozzle ? (_nozzle, _nozzleTarget, facts.NozzleEnd, facts.NozzleTime)
            : (_bed, _bedTarget, facts.BedEnd, facts.BedTime);
        var both = dialect is FlavourId.Klipper or FlavourId.Repetier;
        if (target <= 0) return;
        if (now < target - 1) Pass(time * Math.Log((end - now) / (end - target + 1)));
        else if (now > target + 1 && both) Pass(time * Math.Log((now - facts.Room) / (target + 1 - facts.Room)));
        Settle();
    }

    private void Pass(double seconds) => Seconds += seconds;

    /// <summary>Times all legs since the last stop: corners, then back from the end, then forward from the begin.</summary>
    private void Stop()
    {
        var n = _legs.Count;
        var (length, cruise, a, entry) = (new double[n], new double[n], new double[n], new double[n + 1]);
        for (var i = 0; i < n; i++)
        {
            var leg = _legs[i];
            var way = Math.Sqrt(leg.D[0] * leg.D[0] + leg.D[1] * leg.D[1] + leg.D[2] * leg.D[2]);
            length[i] = way < 1e-9 ? Math.Abs(leg.D[3]) : way;
            (cruise[i], a[i]) = (leg.Feed, leg.Acceleration);
            for (var axis = 0; axis < 4; axis++)
            {
                var share = Math.Abs(leg.D[axis]) / length[i];
                if (share == 0) continue;
                cruise[i] = Math.Min(cruise[i], leg.Speed[axis] / share);
                a[i] = Math.Min(a[i], leg.Speed[4 + axis] / share);
            }
            if (i > 0) entry[i] = Math.Min(Math.Min(cruise[i - 1], cruise[i]), CornerOf(_legs[i - 1].D, leg.D, Math.Min(a[i - 1], a[i])));
        }
        for (var i = n - 1; i >= 0; i--) entry[i] = Math.Min(entry[i], Math.Sqrt(entry[i + 1] * entry[i + 1] + 2 * a[i] * length[i]));
        for (var i = 0; i < n; i++)
        {
            entry[i + 1] = Math.Min(entry[i + 1], Math.Sqrt(entry[i] * entry[i] + 2 * a[i] * length[i]));
            var top = Math.Min(cruise[i], Math.Sqrt((2 * a[i] * length[i] + entry[i] * entry[i] + entry[i + 1] * entry[i + 1]) / 2));
            var (up, down) = ((top - entry[i]) / a[i], (top - entry[i + 1]) / a[i]);
            var flat = length[i] - (entry[i] + top) / 2 * up - (entry[i + 1] + top) / 2 * down;
            Seconds += up + down + Math.Max(0, flat) / top;
        }
        _legs.Clear();
    }

    private double CornerOf(double[] one, double[] two, double acceleration)
    {
        double Size(double[] d) => Math.Sqrt(d[0] * d[0] + d[1] * d[1] + d[2] * d[2]);
        if (Size(one) < 1e-9 || Size(two) < 1e-9) return 0;
        var cos = (one[0] * two[0] + one[1] * two[1] + one[2] * two[2]) / Size(one) / Size(two);
        var sine = Math.Sqrt(Math.Max(0, (1 + cos) / 2));
        return sine > 0.999999 ? double.PositiveInfinity : Math.Sqrt(acceleration * _deviation * sine / (1 - sine));
    }

    [GeneratedRegex(@"^[A-Z]+_[A-Z_]+")]
    private static partial Regex Named();

    [GeneratedRegex(@"^[GMT]\d+")]
    private static partial Regex Code();

    [GeneratedRegex(@"(\w+)=(\S+)")]
    private static partial Regex Pair();

    [GeneratedRegex(@"([A-Z])(-?\d*\.?\d+)")]
    private static partial Regex Word();
}
