using System.Text;
using MillCard.Core.Flavours;
using MillCard.Core.Gcode;
using MillCard.Core.Heat;
using MillCard.Core.Macros;
using MillCard.Core.Motion;
using MillCard.Core.Reach;

namespace MillCard.Core.DryRun;

/// <summary>Executes G-code on the machine that a card describes.</summary>
public sealed partial class SimulatedMachine
{
    private const double LevelSeconds = 60;
    private const int UnknownKept = 200;
    private const int EventsKept = 50_000;

    private readonly Machine _machine;
    private readonly Flavour _flavour;
    private readonly MacroFile _macros;
    private readonly Limits _limits;
    private readonly Planner _planner;
    private readonly DryRunReport _run;
    private readonly Words _words = new();
    private readonly Effect[] _effects;
    private readonly double[] _seconds;
    private ExtendedCommand? _extended;
    private double _unit = 1;
    private bool _relative, _relativeE, _motors;
    private int _summed;
    private double _clock;

    private SimulatedMachine(Machine machine, GcodeText text)
    {
        _machine = machine;
        _flavour = Flavour.Of(machine.Card.Firmware);
        _macros = _flavour.Extended ? MacroFile.Of(machine.Card.Firmware.Macros) : MacroFile.Empty;
        _replaced = ReplacedBy(_macros);
        _limits = Limits.Of(machine.Card);
        _seconds = new double[text.Count];
        _effects = new Effect[text.Count];
        var nozzles = Math.Max(1, machine.Nozzles.Count);
        (_nozzleSteps, _lastExtrusions) = ([.. Enumerable.Repeat(-1, nozzles)], [.. Enumerable.Repeat(-1, nozzles)]);
        _tips = [.. Enumerable.Range(0, nozzles).Select(i => TipOf(machine, i))];
        _planner = new Planner(_limits, (line, seconds) => _seconds[line] += seconds);
        _firmwareRetraction = machine.Nozzles.Count > 0 ? machine.Nozzle.Retraction?.Length ?? FirmwareRetraction : FirmwareRetraction;
        _run = new DryRunReport
        {
            Text = text,
            Flavour = _flavour,
            Macros = _macros,
            Starts = new double[text.Count],
            Seconds = _seconds,
            EffectList = _effects,
            Nozzles = [.. Enumerable.Range(0, nozzles).Select(i => new HeaterTrace(Heaters.Nozzle(machine.Card, i < machine.Nozzles.Count ? machine.Nozzles[i] : null)))],
            FirstExtrusions = [.. Enumerable.Repeat(-1, nozzles)],
            Bed = Heaters.Bed(machine.Card) is { } bed ? new HeaterTrace(bed) : null,
            Chamber = Heaters.Chamber(machine.Card) is { } chamber ? new HeaterTrace(chamber) : null,
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
            simulated._effects[line] = simulated.Execute(line, text.Line(line));
        }
        return simulated.Finish();
    }

    private DryRunReport Finish()
    {
        Settle(_seconds.Length);
        _run.TotalSeconds = _clock;
        if (_maxX >= _minX) _run.Extents = new Extents(_minX, _minY, _minZ, _maxX, _maxY, _maxZ);
        _run.End = new EndState(Spot(), _run.Nozzles.Max(n => n.Target), _run.Bed?.Target ?? 0, _fan, _motors, _relative, _carriageMode, _run.Chamber?.Target ?? 0);
        return _run;
    }

    private Effect Execute(int line, ReadOnlySpan<byte> text)
    {
        if (_flavour.Extended && ExtendedCommand.Begins(text)) return Named(line, text);
        _words.Read(text);
        if (_words.Count == 0)
        {
            if (_words.HasRest) return Unknown(line, text);
            if (text.Length > 0) Boundary(line, text);
            return text.Length > 0 ? new Effect(EffectKind.Comment, -1, 0) : default;
        }
        var (letter, number) = (_words.Letter(0), _words.Value(0));
        if (_replaced.Count > 0 && _replaced.Contains((letter, number)) && CallReplaced(line, letter, number, text) is { } called) return called;
        _extended = null;
        return _flavour.Find(letter, double.IsNaN(number) ? -1 : number) is { } command ? Do(line, command, text) : Unknown(line, text);
    }

    /// <summary>Where the layers of a program of our own begin and end.</summary>
    private void Boundary(int line, ReadOnlySpan<byte> text)
    {
        if (text.SequenceEqual("; layers begin"u8)) (_run.LayersBegin, _run.RelativeAtLayers) = (line, _relative);
        else if (text.SequenceEqual("; layers end"u8)) _run.LayersEnd = line;
    }

    private Effect Unknown(int line, ReadOnlySpan<byte> text)
    {
        if (_run.Unknown.Count < UnknownKept) _run.Unknown.Add(new UnknownCommand(line, Encoding.UTF8.GetString(text[..Math.Min(80, text.Length)]), _depth > 0 ? _calls.Peek() : null));
        return new Effect(EffectKind.Unknown, -1, 0);
    }

    private Effect Do(int line, Command command, ReadOnlySpan<byte> text)
    {
        switch (command.Meaning)
        {
            case Meaning.Move: return Line(line);
            case Meaning.ArcClockwise: Note(line, command, text); return Arc(line, clockwise: true);
            case Meaning.ArcCounterClockwise: Note(line, command, text); return Arc(line, clockwise: false);
            case Meaning.FanOn: return Fan(line, Share());
            case Meaning.FanOff: return Fan(line, 0);
            case Meaning.None: if (command.Needs is not null) Note(line, command, text); return new Effect(EffectKind.Message, -1, 0);
        }
        var before = _run.Events.Count;
        Note(line, command, text);
        var effect = Rare(line, command);
        if (_run.Events.Count > before) _run.Events[before] = _run.Events[before] with { Value = effect.Value };
        return effect;
    }

    private Effect Rare(int line, Command command)
    {
        switch (command.Meaning)
        {
            case Meaning.Dwell: return Dwell(line, command);
            case Meaning.Home: return Home(line);
            case Meaning.Level: return Pause(line, EffectKind.Level, LevelSeconds);
            case Meaning.Inches: _unit = 25.4; return new Effect(EffectKind.Units, -1, 2);
            case Meaning.Millimetres: _unit = 1; return new Effect(EffectKind.Units, -1, 1);
            case Meaning.Absolute: return Counting(false);
            case Meaning.Relative: return Counting(true);
            case Meaning.ExtrusionAbsolute: return CountingE(false);
            case Meaning.ExtrusionRelative: return CountingE(true);
            case Meaning.SetPosition: return SetPosition();
            case Meaning.SaveState: return SaveState();
            case Meaning.RestoreState: return RestoreState(line);
            case Meaning.WorkOffset: return WorkOffset(line);
            case Meaning.BabyStep: return BabyStep(line);
            case Meaning.Geometry when command.Word == "M206": return HomeOffset();
            case Meaning.SetNozzle: return Heat(line, Heater.Nozzle, EffectKind.SetNozzle);
            case Meaning.SetBed: return Heat(line, Heater.Bed, EffectKind.SetBed);
            case Meaning.SetChamber: return Heat(line, Heater.Chamber, EffectKind.SetChamber);
            case Meaning.WaitNozzle: return HeatAndWait(line, Heater.Nozzle, EffectKind.WaitNozzle);
            case Meaning.WaitBed: return HeatAndWait(line, Heater.Bed, EffectKind.WaitBed);
            case Meaning.WaitChamber: return HeatAndWait(line, Heater.Chamber, EffectKind.WaitChamber);
            case Meaning.WaitAll: return WaitAll(line);
            case Meaning.ToolSettings: return ToolSettings(line);
            case Meaning.HeaterByName: return HeaterByName(line);
            case Meaning.WaitByName: return WaitByName(line);
            case Meaning.HeatersOff: return HeatersOff(line);
            case Meaning.MotorsOff: return MotorsOff(line);
            case Meaning.Tool: return Tool(_words.Value(0));
            case Meaning.ToolByName: return Tool(_extended?.Text("EXTRUDER")?.Replace("extruder", "") is { Length: > 0 } number && int.TryParse(number, out var index) ? index : 0);
            case Meaning.Finish: Settle(line); return new Effect(EffectKind.Finish, -1, 0);
            case Meaning.Pause or Meaning.FilamentChange: Settle(line); return new Effect(EffectKind.Person, -1, 0);
            case Meaning.FirmwareRetract: return FirmwareRetract(line);
            case Meaning.FirmwarePrime: return FirmwarePrime(line);
            case Meaning.CarriageMode: return CarriageMode();
            case Meaning.MacroCall: return new Effect(EffectKind.Setting, -1, 0);
            default: return Setting(command.Meaning);
        }
    }

    /// <summary>Keeps what a line asked for, so that rules can look at it later.</summary>
    private void Note(int line, Command command, ReadOnlySpan<byte> text)
    {
        if (_run.Events.Count >= EventsKept) return;
        _run.Events.Add(new MachineEvent(line, command, Encoding.UTF8.GetString(text[..Math.Min(200, text.Length)]), Spot(), Known(true, true, true), _depth > 0 ? _calls.Peek() : null, 0, _run.MoveList.Count));
    }

    private Effect Counting(bool relative)
    {
        _relative = relative;
        if (_flavour.Extrusion == ExtrusionCounts.Last) _relativeE = relative;
        return new Effect(relative ? EffectKind.Relative : EffectKind.Absolute, -1, 0);
    }

    private Effect CountingE(bool relative)
    {
        _relativeE = relative;
        return new Effect(relative ? EffectKind.ExtrusionRelative : EffectKind.ExtrusionAbsolute, -1, 0);
    }

    private Effect Dwell(int line, Command command)
    {
        var (ms, s) = (_words['P'], command.Takes("S") ? _words['S'] : double.NaN);
        return Pause(line, EffectKind.Dwell, double.IsNaN(s) ? double.IsNaN(ms) ? 0 : Math.Clamp(ms / 1000, 0, 1e6) : Math.Clamp(s, 0, 1e6));
    }

    /// <summary>Motors without current hold nothing: where the axes are is not known any more. With a time alone they are off later.</summary>
    private Effect MotorsOff(int line)
    {
        Settle(line);
        var named = _words.Has('X') || _words.Has('Y') || _words.Has('Z') || _words.Has('E');
        if (!named && !_words.Has('S')) Array.Clear(_homed);
        else for (var axis = 0; axis < 3; axis++) _homed[axis] &= !_words.Has("XYZ"[axis]);
        _motors = false;
        return new Effect(EffectKind.MotorsOff, -1, 0);
    }

    private Effect Pause(int line, EffectKind kind, double seconds)
    {
        Settle(line);
        _seconds[line] += seconds;
        return new Effect(kind, -1, (float)seconds);
    }

    private Effect Fan(int line, double share)
    {
        var fan = double.IsNaN(_words['P']) ? 0 : (int)_words['P'];
        if (fan == 0) _fan = share;
        _run.FanSteps.Add(new FanStep(line, fan, (float)share));
        return new Effect(EffectKind.Fan, -1, (float)share);
    }

    private double Share()
    {
        var s = _words['S'];
        return double.IsNaN(s) ? 1 : Math.Clamp(_flavour.FanOfOne && s <= 1 ? s : s / 255, 0, 1);
    }

    private double _fan;

    /// <summary>Brings the machine to a stop, times all moves so far and sums the clock up to a line.</summary>
    private void Settle(int line)
    {
        _planner.Drain();
        ApplyPending(line);
        SumTo(line);
        if (line == _seconds.Length) for (var tool = 0; tool < _tips.Length; tool++) EndStep(tool);
    }

    /// <summary>The time within a line that has come to a stop, s.</summary>
    private double Now(int line) => _clock + (_summed == line ? _seconds[line] : 0);

    private void SumTo(int line)
    {
        for (; _summed < line; _summed++)
        {
            _run.Starts[_summed] = _clock;
            _clock += _seconds[_summed];
        }
    }
}
