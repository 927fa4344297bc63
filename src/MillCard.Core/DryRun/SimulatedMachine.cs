using System.Diagnostics.CodeAnalysis;
using System.Text;
using MillCard.Core.Documents;
using MillCard.Core.Flavours;
using MillCard.Core.Gcode;
using MillCard.Core.Heat;
using MillCard.Core.Machines;
using MillCard.Core.Macros;
using MillCard.Core.Motion;

namespace MillCard.Core.DryRun;

/// <summary>Executes G-code on the machine that a card describes.</summary>
public sealed partial class SimulatedMachine
{
    private const double LevelSeconds = 60;
    private const double ProbeSeconds = 5;
    private const int UnknownKept = 200;
    private const int EventsKept = 50_000;

    private readonly Machine _machine;
    private readonly Flavour _flavour;
    private readonly MacroFile _macros;
    private readonly Limits _limits;
    private readonly Planner _planner;
    private DryRunReport _run;
    private readonly Words _words = new();
    private Effect[] _effects;
    private double[] _seconds;
    private ExtendedCommand? _extended;
    private double _unit = 1;
    private bool _relative, _relativeE, _motors, _writesFile;
    private int _summed;
    private double _clock;

    private SimulatedMachine(Machine machine, GcodeText text, IReadOnlyList<Filament?> filaments, OpenCondition open)
    {
        _machine = machine;
        _flavour = Flavour.Of(machine.Card.Firmware);
        _macros = _flavour.Extended ? MacroFile.Of(machine.Card.Firmware.Macros) : MacroFile.Empty;
        _files = _flavour.Conditions ? CommandFiles.Of(machine.Card.Firmware.Macros) : CommandFiles.Empty;
        _holdsMacros = !string.IsNullOrWhiteSpace(machine.Card.Firmware.Macros);
        _open = open;
        _replaced = ReplacedBy(_macros);
        _limits = Limits.Of(machine.Card);
        _planner = new Planner(_limits, Timed);
        var nozzles = Math.Max(1, machine.Nozzles.Count);
        _tips = [.. Enumerable.Range(0, nozzles).Select(i => TipOf(machine, i))];
        _volumes = [.. Enumerable.Repeat(1.0, nozzles)];
        _firmwareRetraction = machine.Nozzles.Count > 0 ? machine.Nozzle.Retraction?.Length ?? FirmwareRetraction : FirmwareRetraction;
        Begin(text, filaments);
    }

    private void Timed(int line, double seconds) => _seconds[line] += seconds;

    /// <summary>A report without any line yet; the machine stays as it is.</summary>
    [MemberNotNull(nameof(_run), nameof(_seconds), nameof(_effects), nameof(_nozzleSteps), nameof(_lastExtrusions))]
    private void Begin(GcodeText text, IReadOnlyList<Filament?> filaments)
    {
        var nozzles = _tips.Length;
        (_seconds, _effects, _summed) = (new double[text.Count], new Effect[text.Count], 0);
        (_nozzleSteps, _lastExtrusions) = ([.. Enumerable.Repeat(-1, nozzles)], [.. Enumerable.Repeat(Moment.Never, nozzles)]);
        _run = new DryRunReport(text)
        {
            Flavour = _flavour,
            Macros = _macros,
            Filaments = filaments,
            Starts = new double[text.Count],
            Seconds = _seconds,
            EffectList = _effects,
            Nozzles = [.. Enumerable.Range(0, nozzles)
                .Select(i => new HeaterTrace(Heaters.Nozzle(_machine.Card, i < _machine.Nozzles.Count ? _machine.Nozzles[i] : null)))],
            FilamentOf = new double[nozzles],
            FirstExtrusions = [.. Enumerable.Repeat(Moment.Never, nozzles)],
            Bed = Heaters.Bed(_machine.Card) is { } bed ? new HeaterTrace(bed) : null,
            Chamber = Heaters.Chamber(_machine.Card) is { } chamber ? new HeaterTrace(chamber) : null,
        };
    }

    /// <summary>Runs a whole program.</summary>
    /// <param name="machine">The machine.</param>
    /// <param name="gcode">The program.</param>
    /// <param name="stop">Ends the run.</param>
    public static DryRunReport Run(Machine machine, ReadOnlyMemory<byte> gcode, CancellationToken stop = default) =>
        Run(machine, gcode, [], OpenCondition.Fails, stop);

    /// <summary>Runs a whole program with what is known to be in the nozzles.</summary>
    /// <param name="machine">The machine.</param>
    /// <param name="gcode">The program.</param>
    /// <param name="filaments">By tool; null or missing where nothing is known.</param>
    /// <param name="stop">Ends the run.</param>
    public static DryRunReport Run(Machine machine, ReadOnlyMemory<byte> gcode, IReadOnlyList<Filament?> filaments,
        CancellationToken stop = default) =>
        Run(machine, gcode, filaments, OpenCondition.Fails, stop);

    /// <summary>The same program with the other answer to every condition that only the running printer can decide.</summary>
    internal static DryRunReport OtherWay(DryRunReport run, Machine machine) =>
        Run(machine, run.Text.Bytes, run.Filaments, OpenCondition.Holds, default);

    private static DryRunReport Run(Machine machine, ReadOnlyMemory<byte> gcode, IReadOnlyList<Filament?> filaments,
        OpenCondition open, CancellationToken stop)
    {
        var text = new GcodeText(gcode);
        var simulated = new SimulatedMachine(machine, text, filaments, open);
        if (simulated.HasConditions(text)) simulated.RunBlocks(text, stop);
        else for (var line = 0; line < text.Count; line++)
        {
            if ((line & 0xFFF) == 0) stop.ThrowIfCancellationRequested();
            simulated._effects[line] = simulated.Execute(line, text.Line(line));
        }
        return simulated.Finish();
    }

    /// <summary>Runs a program while it is being written.</summary>
    /// <param name="machine">The machine.</param>
    /// <param name="growing">What is written so far, each time more of it, up to the end of a line; all of it in the end.</param>
    /// <param name="filaments">By tool; null or missing where nothing is known.</param>
    /// <param name="stop">Ends the run.</param>
    internal static DryRunReport Run(Machine machine, IEnumerable<ReadOnlyMemory<byte>> growing, IReadOnlyList<Filament?> filaments,
        CancellationToken stop)
    {
        var simulated = new SimulatedMachine(machine, new GcodeText(default), filaments, OpenCondition.Fails);
        // blocks are known when all lines are
        if (simulated._flavour.Conditions) return Run(machine, growing.Last(), filaments, stop);
        var (line, at, all) = (0, 0, ReadOnlyMemory<byte>.Empty);
        foreach (var text in growing)
        {
            stop.ThrowIfCancellationRequested();
            all = text;
            for (int length; at < text.Length; at += length + 1, line++)
            {
                var rest = text.Span[at..];
                length = rest.IndexOf((byte)'\n');
                if (line == simulated._seconds.Length) simulated.HaveRoomFor(2 * line + 1024);
                simulated._effects[line] = simulated.Execute(line, GcodeText.WithoutReturn(rest[..length]));
            }
        }
        simulated.HaveRoomFor(line);
        simulated._run.Text = new GcodeText(all);
        return simulated.Finish();
    }

    private void HaveRoomFor(int lines)
    {
        Array.Resize(ref _seconds, lines);
        Array.Resize(ref _effects, lines);
        var starts = _run.Starts;
        Array.Resize(ref starts, lines);
        (_run.Starts, _run.Seconds, _run.EffectList) = (starts, _seconds, _effects);
    }

    private DryRunReport Finish()
    {
        Settle(_seconds.Length);
        _run.TotalSeconds = _clock;
        if (_run.LayersBegin < 0 && _run.LayersEnd < 0 && LayerBounds.Of(_run) is { } layers)
        {
            (_run.LayersBegin, _run.LayersEnd) = layers;
            _run.RelativeAtLayers = _run.IsRelativeBefore(layers.Begin);
        }
        if (_maxX >= _minX) _run.Extents = new Extents(_minX, _minY, _minZ, _maxX, _maxY, _maxZ);
        var (nozzle, bed, chamber) = (_run.Nozzles.Max(n => n.Target), _run.Bed?.Target ?? 0, _run.Chamber?.Target ?? 0);
        var end = new EndState(Spot(), nozzle, bed, _fan, _motors, _relative, _carriageMode, chamber);
        _run.End = end with { Exact = (_at[0], _at[1], _at[2]) };
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
        if (_replaced.Count > 0 && _replaced.Contains((letter, number)) && CallReplaced(line, letter, number, text) is { } called)
            return called;
        _extended = null;
        if (letter == 'G' && NextCommand(text) is var next and > 0) return Several(line, text, next);
        return _flavour.Find(letter, double.IsNaN(number) ? -1 : number) is { } command ? Do(line, command, text) : Unknown(line, text);
    }

    /// <summary>Where a second command begins on a line; 0 for none. A dialect that takes one reads the rest as words, but for a move
    /// behind G53.</summary>
    private int NextCommand(ReadOnlySpan<byte> text)
    {
        for (var i = 1; i < _words.Count; i++)
            if (_words.Letter(i) is 'G' or 'M' && (_flavour.SeveralOnLine || _words.Value(0) == 53)) return Words.At(text, i);
        return 0;
    }

    private Effect Several(int line, ReadOnlySpan<byte> text, int next)
    {
        if (_words.Value(0) == 53 && _flavour.Find('G', 53) is not null)
        {
            // for this line words count from the machine's own zero
            var (shift, relative) = ((double[])[.. _shift], _relative);
            Array.Clear(_shift);
            var moved = Execute(line, text[next..]);
            if (_relative == relative) shift.CopyTo(_shift, 0);
            return moved;
        }
        var first = Execute(line, text[..next]);
        var then = Execute(line, text[next..]);
        return then.Kind == EffectKind.Move || first.Kind != EffectKind.Move ? then : first;
    }

    /// <summary>Where the layers of a program of our own begin and end.</summary>
    private void Boundary(int line, ReadOnlySpan<byte> text)
    {
        if (LayerMarks.Is(text, LayerMarks.Begin)) (_run.LayersBegin, _run.RelativeAtLayers) = (line, _relative);
        else if (LayerMarks.Is(text, LayerMarks.End)) _run.LayersEnd = line;
    }

    private double? WordOrNull(char letter) => _words.Has(letter) ? _words[letter] : null;

    private bool HasConditions(GcodeText text)
    {
        if (!_flavour.Conditions) return false;
        for (var line = 0; line < text.Count; line++) if (CommandBlock.Speaks(text.Line(line))) return true;
        return false;
    }

    private Effect Unknown(int line, ReadOnlySpan<byte> text)
    {
        if (_run.Unknown.Count < UnknownKept)
            _run.Unknown.Add(new UnknownCommand(line, Encoding.UTF8.GetString(text[..Math.Min(80, text.Length)]), _depth > 0
            ? _calls.Peek() : null));
        return new Effect(EffectKind.Unknown, -1, 0);
    }

    private Effect Do(int line, Command command, ReadOnlySpan<byte> text)
    {
        if (_writesFile && command.Meaning != Meaning.FileEnd) return new Effect(EffectKind.Skipped, -1, 0);
        if (command.Variants.Count > 0) command = command with { Meaning = command.MeaningWith(WordOrNull) };
        switch (command.Meaning)
        {
            case Meaning.Move: return Line(line);
            case Meaning.ArcClockwise: Note(line, command, text); return Arc(line, clockwise: true);
            case Meaning.ArcCounterClockwise: Note(line, command, text); return Arc(line, clockwise: false);
            case Meaning.FanOn: return Fan(line, Share());
            case Meaning.FanOff: return Fan(line, 0);
            case Meaning.FanByName: return FanByName(line);
            case Meaning.None: if (command.Needs is not null) Note(line, command, text); return new Effect(EffectKind.Message, -1, 0);
        }
        var before = _run.Events.Count;
        Note(line, command, text);
        var effect = Rare(line, command, text);
        if (_run.Events.Count > before) _run.Events[before] = _run.Events[before] with { Value = effect.Value };
        return effect;
    }

    private Effect Rare(int line, Command command, ReadOnlySpan<byte> text)
    {
        switch (command.Meaning)
        {
            case Meaning.Spline: return Spline(line);
            case Meaning.PlaneXy: _plane = PlaneXy; return new Effect(EffectKind.Setting, -1, 0);
            case Meaning.PlaneZx: _plane = PlaneZx; return new Effect(EffectKind.Setting, -1, 0);
            case Meaning.PlaneYz: _plane = PlaneYz; return new Effect(EffectKind.Setting, -1, 0);
            case Meaning.ProbeHere: return ProbeHere(line, command);
            case Meaning.KinematicPosition: return KinematicPosition(line);
            case Meaning.TemperatureUnit: return TemperatureUnit();
            case Meaning.FileBegin: _writesFile = true; return new Effect(EffectKind.Setting, -1, 0);
            case Meaning.FileEnd: _writesFile = false; return new Effect(EffectKind.Setting, -1, 0);
            case Meaning.Unfollowed: return NotFollowed(line, command);
            case Meaning.Dwell: return Dwell(line, command);
            case Meaning.Home: return Home(line);
            case Meaning.Level: return Pause(line, EffectKind.Level, LevelSeconds);
            case Meaning.Inches: _unit = 25.4; return new Effect(EffectKind.Units, -1, 2);
            case Meaning.Millimetres: _unit = 1; return new Effect(EffectKind.Units, -1, 1);
            case Meaning.Absolute: return CountAbsolutely();
            case Meaning.Relative: return CountRelatively();
            case Meaning.ExtrusionAbsolute: return CountFilamentAbsolutely();
            case Meaning.ExtrusionRelative: return CountFilamentRelatively();
            case Meaning.SetPosition: return SetPosition();
            case Meaning.SaveState: return SaveState();
            case Meaning.RestoreState: return RestoreState(line);
            case Meaning.WorkOffsetSet: return SetWorkOffset();
            case Meaning.RememberPlace: _places[PlaceAsked()] = [.. _at]; return new Effect(EffectKind.Setting, -1, 0);
            case Meaning.ReturnPlace: return ReturnPlace(line);
            case Meaning.WorkOffset: return WorkOffset(line);
            case Meaning.BabyStep: return BabyStep(line);
            case Meaning.HomeOffset: return HomeOffset(atOnce: true);
            case Meaning.HomeOffsetLater: return HomeOffset(atOnce: false);
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
            case Meaning.Tool: return ToolWithFiles(line, _words.Value(0));
            case Meaning.ToolByName: return Tool(ToolOf(_extended?.Text("EXTRUDER")));
            case Meaning.Stop: HeatersOff(line); return MotorsOff(line);
            case Meaning.Finish: Settle(line); return new Effect(EffectKind.Finish, -1, 0);
            case Meaning.Pause or Meaning.FilamentChange: Settle(line); return new Effect(EffectKind.Person, -1, 0);
            case Meaning.FirmwareRetract: return FirmwareRetract(line);
            case Meaning.FirmwarePrime: return FirmwarePrime(line);
            case Meaning.CarriageMode: return CarriageMode(line);
            case Meaning.MacroCall: return CallNamedFile(line, text);
            case Meaning.MacroEnd: _leaves = _depth > 0; return new Effect(EffectKind.Setting, -1, 0);
            default: return Setting(command);
        }
    }

    private Effect ProbeHere(int line, Command command)
    {
        Unfollow(line, $"where the probe answers ({command.Word})");
        return Pause(line, EffectKind.Level, ProbeSeconds);
    }

    private Effect NotFollowed(int line, Command command)
    {
        Settle(line);
        Unfollow(line, $"{command.Word} ({char.ToLowerInvariant(command.About[0])}{command.About[1..]})");
        return new Effect(EffectKind.Setting, -1, 0);
    }

    /// <summary>The number behind a nozzle's name, whether it is there or not; 0 for the first.</summary>
    private static int ToolOf(string? name) => int.TryParse(name?.Replace("extruder", "", StringComparison.Ordinal), out var tool) ? tool
        : 0;

    /// <summary>Keeps what a line asked for, so that rules can look at it later.</summary>
    private void Note(int line, Command command, ReadOnlySpan<byte> text)
    {
        if (_run.Events.Count >= EventsKept) return;
        var caller = _depth > 0 ? _calls.Peek() : null;
        var shown = Encoding.UTF8.GetString(text[..Math.Min(200, text.Length)]);
        _run.Events.Add(new MachineEvent(Present(line), command, shown, Spot(), Known(x: true, y: true, z: true), caller, 0,
            _run.MoveList.Count));
    }

    private Effect CountAbsolutely()
    {
        _relative = false;
        if (_flavour.Extrusion == ExtrusionCounts.Last) _relativeE = false;
        return new Effect(EffectKind.Absolute, -1, 0);
    }

    private Effect CountRelatively()
    {
        _relative = true;
        if (_flavour.Extrusion == ExtrusionCounts.Last) _relativeE = true;
        return new Effect(EffectKind.Relative, -1, 0);
    }

    private Effect CountFilamentAbsolutely()
    {
        _relativeE = false;
        return new Effect(EffectKind.ExtrusionAbsolute, -1, 0);
    }

    private Effect CountFilamentRelatively()
    {
        _relativeE = true;
        return new Effect(EffectKind.ExtrusionRelative, -1, 0);
    }

    private Effect Dwell(int line, Command command)
    {
        var (ms, s) = (_words['P'], command.Takes("S") ? _words['S'] : double.NaN);
        var seconds = double.IsNaN(s) ? ms / 1000 : s;
        return Pause(line, EffectKind.Dwell, double.IsNaN(seconds) ? 0 : Math.Clamp(seconds, 0, 1e6));
    }

    /// <summary>Motors without current hold nothing: where the axes are is not known any more. With a time alone they are off
    /// later.</summary>
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

    /// <summary>A fan of the card by its id; one that the card does not name cannot be followed.</summary>
    private Effect FanByName(int line)
    {
        var fan = _machine.Card.Head.Fans.FirstOrDefault(f => f.Id == _extended?.Text("FAN"));
        var share = _extended?.Number("SPEED") ?? 0;
        return fan is null || double.IsNaN(share) ? default : Fan(line, Math.Clamp(share, 0, 1), fan.Number ?? 0);
    }

    private Effect Fan(int line, double share) => Fan(line, share, double.IsNaN(_words['P']) ? 0 : (int)_words['P']);

    private Effect Fan(int line, double share, int fan)
    {
        var coolsPart = _machine.FanOf(fan) is { } known ? known.Kind == FanKind.Part : fan == 0;
        if (coolsPart) _fan = share;
        _run.FanSteps.Add(new FanStep(line, fan, (float)share, coolsPart));
        return new Effect(EffectKind.Fan, coolsPart ? -1 : fan, (float)share);
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

    /// <summary>The present moment; within a macro everything before has come to a stop.</summary>
    private Moment Present(int line) => new(line, _depth > 0 ? _seconds[line] : 0);

    private void SumTo(int line)
    {
        for (; _summed < line; _summed++)
        {
            _run.Starts[_summed] = _clock;
            _clock += _seconds[_summed];
        }
    }
}
