using MillCard.Core.Heat;
using MillCard.Core.Machines;

namespace MillCard.Core.DryRun;

// Heaters, waits and tools.
public sealed partial class SimulatedMachine
{
    private readonly List<(int Line, Heater Heater, double Target, int Tool)> _pending = [];
    private int[] _nozzleSteps;
    private Moment[] _lastExtrusions;
    private int _tool;

    private Effect Heat(int line, Heater heater, EffectKind kind)
    {
        var target = Celsius(_words['S']);
        if (double.IsNaN(target)) return new Effect(EffectKind.Message, -1, 0);
        SetTarget(line, heater, target, ToolAsked());
        return new Effect(kind, -1, (float)target);
    }

    private void SetTarget(int line, Heater heater, double target, int tool)
    {
        if (heater != Heater.Nozzle) tool = 0;
        // at and below absolute zero stands for off
        target = Math.Max(0, target);
        // within a macro many things happen on one line: each at its own time
        if (_depth > 0) { Settle(line); _run.TraceOf(heater, tool)?.Set(Now(line), target); }
        else _pending.Add((line, heater, target, tool));
        if (heater == Heater.Nozzle)
        {
            EndStep(tool);
            _nozzleSteps[tool] = _run.HeatSteps.Count;
        }
        if (heater == Heater.Nozzle && _second is { } both && tool == _tool && both.Nozzle != tool)
            SetTarget(line, heater, target > 0 ? target + _warmer : 0, both.Nozzle);
        _run.HeatSteps.Add(new HeatStep(Present(line), heater, target, Moment.Never, Moment.Never, tool, _depth > 0));
    }

    private (double Scale, double Zero) _degrees = (1, 0);

    private double Celsius(double degrees) => (degrees - _degrees.Zero) * _degrees.Scale;

    /// <summary>M149 C, F or K.</summary>
    private Effect TemperatureUnit()
    {
        _degrees = (_words.Has('F'), _words.Has('K')) switch { (true, _) => (5 / 9.0, 32), (_, true) => (1, 273.15), _ => (1, 0) };
        return new Effect(EffectKind.Setting, -1, 0);
    }

    /// <summary>The nozzle that a T word names, or the one in use.</summary>
    private int ToolAsked() => _words['T'] is var tool && tool >= 0 && tool < _tips.Length ? (int)tool : _tool;

    private void EndStep(int tool)
    {
        if (_nozzleSteps[tool] is var open and >= 0 && _lastExtrusions[tool].Comes)
            _run.HeatSteps[open] = _run.HeatSteps[open] with { LastExtrusion = _lastExtrusions[tool] };
        _lastExtrusions[tool] = Moment.Never;
    }

    private Effect HeatAndWait(int line, Heater heater, EffectKind kind)
    {
        var (s, r) = (Celsius(_words['S']), Celsius(_words['R']));
        // a dialect without R reads such a line as a target of 0
        if (!_flavour.ReadsWaitR && !double.IsNaN(r)) r = 0;
        var target = double.IsNaN(s) ? r : s;
        if (double.IsNaN(target)) return new Effect(EffectKind.Message, -1, 0);
        var tool = heater == Heater.Nozzle ? ToolAsked() : 0;
        SetTarget(line, heater, target, tool);
        Settle(line);
        ApplyPending(line);
        if (_run.TraceOf(heater, tool) is not { } trace) return new Effect(EffectKind.Returns, -1, (float)target);
        var seconds = target <= 0 ? 0 : trace.Wait(Now(line), coolsToo: double.IsNaN(s) || _flavour.WaitsWhileHotter);
        return Waited(line, heater, tool, target, seconds, kind, hotter: seconds == 0
            && trace.At(Now(line)) > target + HeatModel.WaitTolerance);
    }

    private Effect Waited(int line, Heater heater, int tool, double target, double seconds, EffectKind kind, bool hotter)
    {
        _run.Waits.Add(new Wait(Present(line), heater, target, seconds, tool, _depth > 0, Now(line), hotter));
        if (double.IsInfinity(seconds)) return new Effect(EffectKind.Never, -1, (float)target);
        _seconds[line] += seconds;
        return new Effect(hotter ? EffectKind.Returns : kind, -1, (float)target);
    }

    private Effect WaitAll(int line)
    {
        Settle(line);
        var longest = 0.0;
        foreach (var (heater, tool) in Enumerable.Range(0, _run.Nozzles.Count).Select(i => (Heater.Nozzle, i)).Append((Heater.Bed, 0))
            .Append((Heater.Chamber, 0)))
        {
            if (_run.TraceOf(heater, tool) is not { Target: > 0 } trace) continue;
            var seconds = trace.Wait(Now(line), coolsToo: true);
            _run.Waits.Add(new Wait(Present(line), heater, trace.Target, seconds, tool, _depth > 0, Now(line)));
            if (!double.IsInfinity(seconds)) longest = Math.Max(longest, seconds);
        }
        _seconds[line] += longest;
        return new Effect(EffectKind.WaitAll, -1, (float)longest);
    }

    private void ApplyPending(int upTo)
    {
        foreach (var (line, heater, target, tool) in _pending)
        {
            if (line > upTo) continue;
            SumTo(line);
            _run.TraceOf(heater, tool)?.Set(_clock, target);
        }
        _pending.RemoveAll(p => p.Line <= upTo);
    }

    /// <summary>Temperatures of a tool.</summary>
    private Effect ToolSettings(int line)
    {
        var (tool, active) = (_words['P'], _words['S']);
        if (_words['A'] == 0 && _words.Letter(0) == 'M') active = 0;
        if (double.IsNaN(active)) return new Effect(EffectKind.Setting, -1, 0);
        var named = tool >= 0 && tool < _tips.Length ? (int)tool : _tool;
        SetTarget(line, Heater.Nozzle, active, named);
        return new Effect(EffectKind.SetNozzle, -1, (float)active);
    }

    private Effect HeaterByName(int line)
    {
        var (heater, tool) = HeaterNamed(_extended?.Text("HEATER"));
        var target = _extended?.Number("TARGET") ?? double.NaN;
        if (double.IsNaN(target)) target = 0;
        SetTarget(line, heater, target, tool);
        return new Effect(heater switch
        {
            Heater.Nozzle => EffectKind.SetNozzle,
            Heater.Bed => EffectKind.SetBed,
            _ => EffectKind.SetChamber
        }, -1, (float)target);
    }

    private Effect WaitByName(int line)
    {
        var (heater, tool) = HeaterNamed(_extended?.Text("SENSOR"));
        var (least, most) = (_extended?.Number("MINIMUM") ?? double.NaN, _extended?.Number("MAXIMUM") ?? double.NaN);
        Settle(line);
        ApplyPending(line);
        var kind = heater switch { Heater.Nozzle => EffectKind.WaitNozzle, Heater.Bed => EffectKind.WaitBed, _ => EffectKind.WaitChamber };
        if (_run.TraceOf(heater, tool) is not { } trace) return new Effect(EffectKind.Message, -1, 0);
        var now = trace.At(Now(line));
        var level = now;
        if (now < least) level = least;
        else if (now > most) level = most;
        var seconds = level == now ? 0 : trace.TimeTo(Now(line), level);
        return Waited(line, heater, tool, double.IsNaN(least) ? most : least, seconds, kind, hotter: false);
    }

    private Effect HeatersOff(int line)
    {
        for (var tool = 0; tool < _tips.Length; tool++) SetTarget(line, Heater.Nozzle, 0, tool);
        SetTarget(line, Heater.Bed, 0, 0);
        SetTarget(line, Heater.Chamber, 0, 0);
        return new Effect(EffectKind.HeatersOff, -1, 0);
    }

    private (Heater Heater, int Tool) HeaterNamed(string? name) => name switch
    {
        null => (Heater.Nozzle, _tool),
        "heater_bed" => (Heater.Bed, 0),
        _ when name.StartsWith("extruder", StringComparison.Ordinal) => (Heater.Nozzle, NozzleNamed(name) ?? 0),
        _ => (Heater.Chamber, 0),
    };

    private Effect Tool(double tool)
    {
        if (tool >= 0 && tool < _tips.Length) (_tool, _noTool) = ((int)tool, false);
        else if (tool == -1 && _flavour.CanDropTool) _noTool = true;
        return new Effect(EffectKind.Tool, -1, (float)tool);
    }

    private bool _noTool;

    /// <summary>Where a nozzle's tip is from what the G-code counts, mm: a firmware with tool offsets of its own counts the tip
    /// itself.</summary>
    private static Spot TipOf(Machine machine, int nozzle) =>
        machine.Card.Head.Offsets?.Firmware != true && !machine.HasTwoCarriages && nozzle < machine.Nozzles.Count
            && machine.Nozzles[nozzle].Offset is { } o
            ? new Spot((float)o.X, (float)o.Y, (float)o.Z)
            : default;
}
