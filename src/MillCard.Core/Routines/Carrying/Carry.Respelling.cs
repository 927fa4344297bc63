using MillCard.Core.Flavours;
using static MillCard.Core.Routines.Carrying.CarriedFigures;

namespace MillCard.Core.Routines.Carrying;

// What another command does in the other dialect.
public sealed partial class Carry
{
    private readonly SortedDictionary<int, string> _nozzles = [];
    private readonly Stack<ExtrusionCount> _savedCounts = new();
    private readonly Stack<bool> _savedRelative = new();
    private readonly Dictionary<string, int> _parts = new(StringComparer.OrdinalIgnoreCase);
    private string? _bed, _primingExtra, _primingSpeed, _part;
    private bool _relative;
    private int _tool;

    /// <summary>Keeps what later lines refer to: targets, the tool, how positions count.</summary>
    private void Remember(Command command, CarriedWords words)
    {
        int Asked(string? tool) => tool is not null && Number(tool) is { } number ? (int)number : _tool;
        switch (command.Meaning)
        {
            case Meaning.Relative: _relative = true; break;
            case Meaning.Absolute: _relative = false; break;
            case Meaning.Tool when Number(command.Word[1..]) is { } tool: _tool = (int)tool; break;
            case Meaning.SetNozzle or Meaning.WaitNozzle when (words["S"] ?? words["R"]) is { } target:
                _nozzles[Asked(words["T"])] = target;
                break;
            case Meaning.ToolSettings when words["S"] is { } target: _nozzles[Asked(words["P"])] = target; break;
            case Meaning.SetBed or Meaning.WaitBed when (words["S"] ?? words["R"]) is { } target: _bed = target; break;
        }
    }

    private (string? After, string? Note) Respelled(Command command, CarriedWords words)
    {
        switch (command.Meaning)
        {
            case Meaning.SetNozzle: return (NozzleSet(words["S"], words["T"]), null);
            case Meaning.WaitNozzle: return (_to.Spell("nozzle-wait", ("value", words["S"] ?? words["R"])), null);
            case Meaning.ToolSettings: return ToolSettings(words);
            case Meaning.SetBed: return (_to.Spell("bed-set", ("value", words["S"])), null);
            case Meaning.WaitBed: return (_to.Spell("bed-wait", ("value", words["S"] ?? words["R"])), null);
            case Meaning.SetChamber: return (_to.Spell("chamber-set", ("value", words["S"])), null);
            case Meaning.WaitChamber: return (_to.Spell("chamber-wait", ("value", words["S"] ?? words["R"])), null);
            case Meaning.WaitAll: return WaitAll();
            case Meaning.HeaterByName when words["HEATER"] == "heater_bed":
                return (_to.Spell("bed-set", ("value", words["TARGET"] ?? "0")), null);
            case Meaning.HeaterByName:
                return (NozzleNumber(words["HEATER"]) is { } tool ? NozzleSet(words["TARGET"] ?? "0", tool) : null, null);
            case Meaning.WaitByName when words["MINIMUM"] is { } least:
                return (_to.Spell(words["SENSOR"] == "heater_bed" ? "bed-wait" : "nozzle-wait", ("value", least)), TargetToo);
            case Meaning.WaitByName when words["MAXIMUM"] is { } most && _to.ReadsWaitR:
                return ($"{(words["SENSOR"] == "heater_bed" ? "M190" : "M109")} R{most}", TargetToo);
            case Meaning.HeatersOff:
                return ($"{_to.Spell("nozzle-set", ("value", 0))}\n{_to.Spell("bed-set", ("value", 0))}",
                "Further nozzles and the housing need lines of their own.");
            case Meaning.Stop:
                return ($"{_to.Spell("nozzle-set", ("value", 0))}\n{_to.Spell("bed-set", ("value", 0))}\n{_to.Spell("motors-off")}",
                "There it does not switch anything off: that is written out.");
            case Meaning.Level when IsAlignment(command.Word): return (_to.Spell("align"), null);
            case Meaning.Level: return (_to.Spell("level"), null);
            case Meaning.Mesh: return (_to.Spell("mesh-restore"), "The mesh must have been stored under the name it is loaded by.");
            case Meaning.MeshDrop: return (_to.Spell("mesh-off"), null);
            case Meaning.FanOff: return (_to.Spell("fan-off"), null);
            case Meaning.MotorsOff: return (_to.Spell("motors-off"), null);
            case Meaning.Pause: return (_to.Spell("pause") ?? _to.Spell("filament-change"), null);
            case Meaning.FilamentChange: return (_to.Spell("filament-change"), null);
            case Meaning.ToolByName:
                return (NozzleNumber(words["EXTRUDER"]) is { } number ? _to.Spell("tool", ("tool", number)) : null, null);
            case Meaning.ToolOffset:
                return (_to.Spell("tool-offset", ("tool", words["T"] ?? "1"), ("x", words["X"]), ("y", words["Y"]), ("z", words["Z"])),
                null);
            case Meaning.BabyStep or Meaning.WorkOffset when Shift(command.Meaning, words) is { } shift: return shift;
            case Meaning.SaveState: return Save(words["NAME"]);
            case Meaning.RestoreState: return Restore(words["NAME"], words["MOVE"]);
            case Meaning.FirmwareRetract:
                return (_to.Spell("retract"), _to.Spell("retract") is null ? "Write the retraction as an E word."
                : NeedsOf("G10"));
            case Meaning.FirmwarePrime:
                return (_to.Spell("prime"), _to.Spell("prime") is null ? "Write the priming as an E word."
                : NeedsOf("G11"));
            case Meaning.FirmwareRetractSet or Meaning.FirmwarePrimeSet:
                return Retraction(command.Meaning == Meaning.FirmwarePrimeSet,
                words);
            case Meaning.PressureCompensation:
                return (
                _to.Spell("pressure-compensation", ("value", words["K"] ?? words["S"] ?? words["ADVANCE"] ?? words["Y"]), ("tool", 0)),
                "The factor counts seconds on most firmwares; test it again.");
            case Meaning.PartLabel: return Label(command, words);
            case Meaning.CarriageMode: return Carriages(words);
            case Meaning.LimitSpeed or Meaning.LimitAcceleration or Meaning.VelocityLimit or Meaning.SetAcceleration:
                return Limits(command, words);
            case Meaning.SetCorner or Meaning.SetCornerSeconds or Meaning.SetJunction: return Limits(command, words);
            default: return (null, null);
        }
    }

    private const string TargetToo = "The wait sets the target there, too.";

    private static bool IsAlignment(string word) => word is "G34" or "G32" or "Z_TILT_ADJUST" or "QUAD_GANTRY_LEVEL";

    private string? NeedsOf(string word) => _to.Find(word[0],
        double.Parse(word.AsSpan(1), System.Globalization.CultureInfo.InvariantCulture))?.Needs is { } need ? $"Not always there: {need}."
        : null;

    private string? NozzleSet(string? target, string? tool) => tool is null or "0" ? _to.Spell("nozzle-set", ("value", target))
        : _to.Spell("nozzle-of-tool-set", ("tool", tool), ("value", target));

    /// <summary>The number of a nozzle by its name; null for what is no nozzle.</summary>
    private static string? NozzleNumber(string? name)
    {
        if (name is null or "extruder") return "0";
        return name.StartsWith("extruder", StringComparison.Ordinal) && int.TryParse(name.AsSpan("extruder".Length), out _)
            ? name["extruder".Length..]
            : null;
    }

    private (string? After, string? Note) ToolSettings(CarriedWords words)
    {
        var target = words["A"] == "0" ? "0" : words["S"];
        var heat = target is null ? null : NozzleSet(target, words["P"]);
        var offset = (words["X"] ?? words["Y"] ?? words["Z"]) is null ? null
            : _to.Spell("tool-offset", ("tool", words["P"] ?? "0"), ("x", words["X"]), ("y", words["Y"]), ("z", words["Z"]));
        var losesOffset = (words["X"] ?? words["Y"] ?? words["Z"]) is not null && offset is null;
        string?[] lost =
        [
            words["R"] is null ? null : "The standby temperature has no counterpart.",
            losesOffset ? "The tool's offset has no counterpart." : null,
        ];
        string[] lines = [.. new[] { heat, offset }.OfType<string>()];
        return (lines.Length == 0 ? null : string.Join('\n', lines), lost.OfType<string>().ToArray() is { Length: > 0 } notes
            ? string.Join(' ', notes) : null);
    }

    /// <summary>A wait for every target of the lines before it.</summary>
    private (string? After, string? Note) WaitAll()
    {
        if (_to.Spell("wait-all") is { } same) return (same, null);
        var both = _to.ReadsWaitR ? "R" : "S";
        var lines = _nozzles.Where(n => n.Value != "0").Select(n => n.Key == 0 ? $"M109 {both}{n.Value}" : $"M109 T{n.Key} {both}{n.Value}")
            .ToList();
        if (_bed is not (null or "0")) lines.Insert(0, $"M190 {both}{_bed}");
        return lines.Count == 0 ? (null, "It waits for targets that other lines set: write those waits.")
            : (string.Join('\n', lines), "It waits for the targets of the lines before it.");
    }

    /// <summary>A shift of what words count from, by a little or from zero; null for what is no such shift.</summary>
    private (string? After, string? Note)? Shift(Meaning meaning, CarriedWords words)
    {
        var (x, y, z) = (words["X"], words["Y"], words["Z"] ?? (meaning == Meaning.BabyStep ? words["S"] : null));
        var (dx, dy, dz) = (words["X_ADJUST"], words["Y_ADJUST"], words["Z_ADJUST"]);
        if (meaning == Meaning.WorkOffset && !_from.Extended) return null;
        if (meaning == Meaning.BabyStep && words["R"] != "0") (x, y, z, dx, dy, dz) = (null, null, null, x, y, z);
        if (x is null && y is null && z is null) return (_to.Spell("baby-step", ("x", dx), ("y", dy), ("z", dz)), null);
        if (dx is not null || dy is not null || dz is not null)
            return (null, "One line sets some offsets and shifts others: write them apart.");
        var from = _to.Spell("baby-step-from-zero", ("x", x), ("y", y), ("z", z));
        return (from ?? _to.Spell("baby-step", ("x", x), ("y", y), ("z", z)), from is null ? "There it adds to what was shifted before."
            : null);
    }

    private (string? After, string? Note) Save(string? name)
    {
        _savedCounts.Push(_counted);
        _savedRelative.Push(_relative);
        return _to.Spell("save", ("name", name ?? $"carried_{_savedCounts.Count}")) is { } there
            ? (there, _to.Extended ? "Offsets and the E position are remembered there, too."
                : "Offsets and the E position are not remembered there.")
            : ("; what counts how is written out where it goes back", $"{_to.Name} does not remember how words count.");
    }

    private (string? After, string? Note) Restore(string? name, string? move)
    {
        if (!_savedCounts.TryPop(out var counted)) return (null, "Nothing was remembered before.");
        var depth = _savedCounts.Count + 1;
        _counted = counted;
        _relative = _savedRelative.Pop();
        var moves = move is not (null or "0") ? " It does not go back to the place there." : "";
        if (_to.Spell("restore", ("name", name ?? $"carried_{depth}")) is { } there)
        {
            _counts = new ExtrusionCount(_to.Extrusion).After(_relative ? Meaning.Relative : Meaning.Absolute)
                .After(counted.Relative ? Meaning.ExtrusionRelative : Meaning.ExtrusionAbsolute);
            return (there, moves.Length > 0 ? moves.Trim() : null);
        }
        var modes = (Meaning[])[_relative ? Meaning.Relative : Meaning.Absolute, counted.Relative ? Meaning.ExtrusionRelative
            : Meaning.ExtrusionAbsolute];
        foreach (var mode in modes) _counts = _counts.After(mode);
        return (string.Join('\n', modes.Select(m => _to.With(m)!.Word)), $"The speed is not remembered: write F on the next move.{moves}");
    }

    /// <summary>Length and speeds of pulling back and pushing in.</summary>
    private (string? After, string? Note) Retraction(bool priming, CarriedWords words)
    {
        string? PerMinute(string? value) => value is null || !_from.Extended ? value : Times(value, 60);
        var (length, pulling) = (words["RETRACT_LENGTH"] ?? (priming ? null : words["S"]), PerMinute(words["RETRACT_SPEED"])
            ?? (priming ? null : words["F"]));
        var more = words["UNRETRACT_EXTRA_LENGTH"] ?? (priming ? words["S"] : words["R"]);
        var pushing = PerMinute(words["UNRETRACT_SPEED"]) ?? (priming ? words["F"] : words["T"]);
        if (more is not null) _primingExtra = more;
        if (pushing is not null) _primingSpeed = pushing;
        // where one command sets both speeds, the one that pushes follows the one that pulls
        else if (!priming && !_from.Extended && _primingSpeed is null) pushing = pulling;
        string? PerSecond(string? value) => value is null ? null : Times(value, 1 / 60.0);
        var whole = _to.Spellings.GetValueOrDefault("retraction")?.Contains("{more}", StringComparison.Ordinal) == true;
        var note = words["Z"] is not null and not "0" && !_to.Spellings.GetValueOrDefault("retraction", "")
            .Contains("{lift}", StringComparison.Ordinal) ? "The lift has no counterpart." : null;
        var set = _to.Spell("retraction", ("length", length), ("minute", pulling), ("second", PerSecond(pulling)),
            ("lift", priming ? null : words["Z"]),
            ("more", more), ("priming", pushing), ("primingSecond", PerSecond(pushing)));
        if (whole) return (set, note);
        var prime = more is null && (pushing is null || pushing == pulling) ? null
            : _to.Spell("priming", ("more", more), ("minute", pushing));
        string[] lines = [.. new[] { length is null && pulling is null ? null : set, prime }.OfType<string>()];
        return (lines.Length == 0 ? null : string.Join('\n', lines), note);
    }

    private (string? After, string? Note) Label(Command command, CarriedWords words)
    {
        if (!_from.Extended)
        {
            if (words["S"] is not { } index) return (null, null);
            if (index == "-1") return (_part is null ? null : _to.Spell("part-end", ("key", _part)), null);
            _part = $"part_{index}";
            return (_to.Spell("part-begin", ("key", _part), ("index", index), ("name", _part)),
                "Parts are known by names there, which must be defined first.");
        }
        if (words["NAME"] is not { } name || command.Word.EndsWith("_DEFINE", StringComparison.Ordinal))
            return (null, "Parts are numbered there; their outlines are not told.");
        if (command.Word.EndsWith("_END", StringComparison.Ordinal)) return (_to.Spell("part-end", ("key", name)), null);
        if (!command.Word.EndsWith("_START", StringComparison.Ordinal)) return (null, null);
        if (!_parts.TryGetValue(name, out var number)) _parts[name] = number = _parts.Count;
        return (_to.Spell("part-begin", ("key", name), ("index", number), ("name", name)), null);
    }

    private (string? After, string? Note) Carriages(CarriedWords words)
    {
        var mode = words["MODE"]?.ToUpperInvariant() is { } name ? name switch { "COPY" => "copy", "MIRROR" => "mirror", _ => "single" }
            : words["S"] switch { "2" => "copy", "3" => "mirror", _ => "single" };
        return (_to.Spell($"carriage-{mode}", ("distance", words["X"]), ("warmer", words["R"])), null);
    }

    private (string? After, string? Note) Limits(Command command, CarriedWords words)
    {
        string? Speed(string? value) => value is null ? null : Times(value, Factor(_from.SpeedLimitUnit, _to.SpeedLimitUnit));
        const string oneFigure = "One figure for the way; Z and E are set in its configuration.";
        switch (command.Meaning)
        {
            case Meaning.LimitSpeed:
                var (alongX, alongY) = (Speed(words["X"]), Speed(words["Y"]));
                return (_to.Spell("speed-limits", ("x", alongX), ("y", alongY), ("z", Speed(words["Z"])), ("e", Speed(words["E"])),
                    ("slowest", Least(alongX, alongY))), _to.Extended ? oneFigure : null);
            case Meaning.LimitAcceleration:
                return (_to.Spell("acceleration-limits", ("x", words["X"]), ("y", words["Y"]), ("z", words["Z"]), ("e", words["E"]),
                    ("slowest", Least(words["X"], words["Y"]))), _to.Extended ? oneFigure : null);
            case Meaning.VelocityLimit:
                string? PerUnit(string? value) => value is null ? null : Times(value, Factor("mm/s", _to.SpeedLimitUnit));
                string? Corner(string? value) => value is null ? null : Times(value, Factor("mm/s", _to.CornerUnit));
                var corner = words["SQUARE_CORNER_VELOCITY"];
                string[] lines = [.. new[]
                {
                    _to.Spell("speed-limits", ("x", PerUnit(words["VELOCITY"])), ("y", PerUnit(words["VELOCITY"]))),
                    _to.Spell("acceleration", ("printing", words["ACCEL"]), ("travel", words["ACCEL"])),
                    corner is null ? null : _to.Spell("instant-speed-change", ("x", Corner(corner)), ("y", Corner(corner))),
                }.OfType<string>()];
                return (lines.Length == 0 ? null : string.Join('\n', lines), corner is null ? null
                    : "Corner rules differ between firmwares: about the same, not the same.");
            case Meaning.SetAcceleration:
                var (printing, travel) = (words["P"] ?? words["S"], words["T"] ?? words["S"]);
                return (_to.Spell("acceleration", ("printing", printing), ("travel", travel), ("retraction", words["R"])), null);
            case Meaning.SetJunction when words["X"] is { } deviation:
                return (_to.Spell("junction-deviation", ("value", deviation)), null);
            case Meaning.SetCorner or Meaning.SetCornerSeconds when words["J"] is { } deviation:
                return (_to.Spell("junction-deviation", ("value", deviation)), null);
            default:
                var factor = Factor(command.Meaning == Meaning.SetCorner ? _from.CornerUnit : "mm/s", _to.CornerUnit);
                string? Jump(string axis) => words[axis] is { } value ? Times(value, factor) : null;
                var jumps = _to.Spell("instant-speed-change", ("x", Jump("X")), ("y", Jump("Y")), ("z", Jump("Z")), ("e", Jump("E")))
                    ?? _to.Spell("square-corner-speed", ("value", words["X"] is { } x ? Times(x, factor) : null));
                return (jumps, "Corner rules differ between firmwares: about the same, not the same.");
        }
    }
}
