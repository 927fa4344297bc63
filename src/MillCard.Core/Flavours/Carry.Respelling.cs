namespace MillCard.Core.Flavours;

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
    private void Remember(Command command, Dictionary<string, string> words)
    {
        string? W(string name) => words.TryGetValue(name, out var value) && value.Length > 0 ? value : null;
        int Asked(string? tool) => tool is not null && Number(tool) is { } number ? (int)number : _tool;
        switch (command.Meaning)
        {
            case Meaning.Relative: _relative = true; break;
            case Meaning.Absolute: _relative = false; break;
            case Meaning.Tool when Number(command.Word[1..]) is { } tool: _tool = (int)tool; break;
            case Meaning.SetNozzle or Meaning.WaitNozzle when (W("S") ?? W("R")) is { } target: _nozzles[Asked(W("T"))] = target; break;
            case Meaning.ToolSettings when W("S") is { } target: _nozzles[Asked(W("P"))] = target; break;
            case Meaning.SetBed or Meaning.WaitBed when (W("S") ?? W("R")) is { } target: _bed = target; break;
        }
    }

    private (string? After, string? Note) Respelled(Command command, Dictionary<string, string> words)
    {
        string? W(string name) => words.TryGetValue(name, out var value) && value.Length > 0 ? value : null;
        string? Spell(string what, params ReadOnlySpan<(string, object?)> values) => _to.Spell(what, values);
        switch (command.Meaning)
        {
            case Meaning.SetNozzle: return (NozzleSet(W("S"), W("T")), null);
            case Meaning.WaitNozzle: return (Spell("nozzle-wait", ("value", W("S") ?? W("R"))), null);
            case Meaning.ToolSettings: return ToolSettings(words);
            case Meaning.SetBed: return (Spell("bed-set", ("value", W("S"))), null);
            case Meaning.WaitBed: return (Spell("bed-wait", ("value", W("S") ?? W("R"))), null);
            case Meaning.SetChamber: return (Spell("chamber-set", ("value", W("S"))), null);
            case Meaning.WaitChamber: return (Spell("chamber-wait", ("value", W("S") ?? W("R"))), null);
            case Meaning.WaitAll: return WaitAll();
            case Meaning.HeaterByName:
                return (W("HEATER") == "heater_bed" ? Spell("bed-set", ("value", W("TARGET") ?? "0"))
                : NozzleNumber(W("HEATER")) is { } tool ? NozzleSet(W("TARGET") ?? "0", tool) : null, null);
            case Meaning.WaitByName when W("MINIMUM") is { } least:
                return (
                Spell(W("SENSOR") == "heater_bed" ? "bed-wait" : "nozzle-wait", ("value", least)), "The wait sets the target there, too.");
            case Meaning.WaitByName when W("MAXIMUM") is { } most
                && _to.ReadsWaitR:
                return ($"{(W("SENSOR") == "heater_bed" ? "M190" : "M109")} R{most}",
                "The wait sets the target there, too.");
            case Meaning.HeatersOff:
                return ($"{Spell("nozzle-set", ("value", 0))}\n{Spell("bed-set", ("value", 0))}",
                "Further nozzles and the housing need lines of their own.");
            case Meaning.Stop:
                return ($"{Spell("nozzle-set", ("value", 0))}\n{Spell("bed-set", ("value", 0))}\n{Spell("motors-off")}",
                "There it does not switch anything off: that is written out.");
            case Meaning.Level when IsAlignment(command.Word): return (Spell("align"), null);
            case Meaning.Level: return (Spell("level"), null);
            case Meaning.Mesh: return (Spell("mesh-restore"), "The mesh must have been stored under the name it is loaded by.");
            case Meaning.MeshDrop: return (Spell("mesh-off"), null);
            case Meaning.FanOff: return (Spell("fan-off"), null);
            case Meaning.MotorsOff: return (Spell("motors-off"), null);
            case Meaning.Pause: return (Spell("pause") ?? Spell("filament-change"), null);
            case Meaning.FilamentChange: return (Spell("filament-change"), null);
            case Meaning.ToolByName: return (NozzleNumber(W("EXTRUDER")) is { } number ? Spell("tool", ("tool", number)) : null, null);
            case Meaning.ToolOffset:
                return (Spell("tool-offset", ("tool", W("T") ?? "1"), ("x", W("X")), ("y", W("Y")), ("z", W("Z"))),
                null);
            case Meaning.BabyStep or Meaning.WorkOffset when Shift(command.Meaning, words) is { } shift: return shift;
            case Meaning.SaveState: return Save(W("NAME"));
            case Meaning.RestoreState: return Restore(W("NAME"), W("MOVE"));
            case Meaning.FirmwareRetract:
                return (Spell("retract"), Spell("retract") is null ? "Write the retraction as an E word."
                : NeedsOf("G10"));
            case Meaning.FirmwarePrime:
                return (Spell("prime"), Spell("prime") is null ? "Write the priming as an E word."
                : NeedsOf("G11"));
            case Meaning.FirmwareRetractSet or Meaning.FirmwarePrimeSet:
                return Retraction(command.Meaning == Meaning.FirmwarePrimeSet,
                words);
            case Meaning.PressureCompensation:
                return (
                Spell("pressure-compensation", ("value", W("K") ?? W("S") ?? W("ADVANCE") ?? W("Y")), ("tool", 0)),
                "The factor counts seconds on most firmwares; test it again.");
            case Meaning.PartLabel: return Label(command, words);
            case Meaning.CarriageMode: return Carriages(words);
            case Meaning.LimitSpeed or Meaning.LimitAcceleration or Meaning.VelocityLimit or Meaning.SetAcceleration or Meaning.SetCorner or Meaning.SetCornerSeconds or Meaning.SetJunction: return Limits(command, words);
            default: return (null, null);
        }
    }

    private static bool IsAlignment(string word) => word is "G34" or "G32" or "Z_TILT_ADJUST" or "QUAD_GANTRY_LEVEL";

    private string? NeedsOf(string word) => _to.Find(word[0],
        double.Parse(word.AsSpan(1), System.Globalization.CultureInfo.InvariantCulture))?.Needs is { } need ? $"Not always there: {need}."
        : null;

    private string? NozzleSet(string? target, string? tool) => tool is null or "0" ? _to.Spell("nozzle-set", ("value", target))
        : _to.Spell("nozzle-of-tool-set", ("tool", tool), ("value", target));

    /// <summary>The number of a nozzle by its name; null for what is no nozzle.</summary>
    private static string? NozzleNumber(string? name) =>
        name is null or "extruder" ? "0" : name.StartsWith("extruder", StringComparison.Ordinal)
            && int.TryParse(name.AsSpan("extruder".Length), out _) ? name["extruder".Length..] : null;

    private (string? After, string? Note) ToolSettings(Dictionary<string, string> words)
    {
        string? W(string name) => words.TryGetValue(name, out var value) && value.Length > 0 ? value : null;
        var target = W("A") == "0" ? "0" : W("S");
        var heat = target is null ? null : NozzleSet(target, W("P"));
        var offset = (W("X") ?? W("Y") ?? W("Z")) is null ? null
            : _to.Spell("tool-offset", ("tool", W("P") ?? "0"), ("x", W("X")), ("y", W("Y")), ("z", W("Z")));
        string?[] lost = [W("R") is null ? null : "The standby temperature has no counterpart.", (W("X") ?? W("Y") ?? W("Z")) is null
            || offset is not null ? null : "The tool's offset has no counterpart."];
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
    private (string? After, string? Note)? Shift(Meaning meaning, Dictionary<string, string> words)
    {
        string? W(string name) => words.TryGetValue(name, out var value) && value.Length > 0 ? value : null;
        var (x, y, z) = (W("X"), W("Y"), W("Z") ?? (meaning == Meaning.BabyStep ? W("S") : null));
        var (dx, dy, dz) = (W("X_ADJUST"), W("Y_ADJUST"), W("Z_ADJUST"));
        if (meaning == Meaning.WorkOffset && !_from.Extended) return null;
        if (meaning == Meaning.BabyStep && W("R") != "0") (x, y, z, dx, dy, dz) = (null, null, null, x, y, z);
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
    private (string? After, string? Note) Retraction(bool priming, Dictionary<string, string> words)
    {
        string? W(string name) => words.TryGetValue(name, out var value) && value.Length > 0 ? value : null;
        string? PerMinute(string? value) => value is null || !_from.Extended ? value : Times(value, 60);
        var (length, pulling) = (W("RETRACT_LENGTH") ?? (priming ? null : W("S")), PerMinute(W("RETRACT_SPEED"))
            ?? (priming ? null : W("F")));
        var more = W("UNRETRACT_EXTRA_LENGTH") ?? (priming ? W("S") : W("R"));
        var pushing = PerMinute(W("UNRETRACT_SPEED")) ?? (priming ? W("F") : W("T"));
        if (more is not null) _primingExtra = more;
        if (pushing is not null) _primingSpeed = pushing;
        // where one command sets both speeds, the one that pushes follows the one that pulls
        else if (!priming && !_from.Extended && _primingSpeed is null) pushing = pulling;
        string? PerSecond(string? value) => value is null ? null : Times(value, 1 / 60.0);
        var whole = _to.Spellings.GetValueOrDefault("retraction")?.Contains("{more}", StringComparison.Ordinal) == true;
        var note = W("Z") is not null and not "0" && !_to.Spellings.GetValueOrDefault("retraction", "")
            .Contains("{lift}", StringComparison.Ordinal) ? "The lift has no counterpart." : null;
        var set = _to.Spell("retraction", ("length", length), ("minute", pulling), ("second", PerSecond(pulling)),
            ("lift", priming ? null : W("Z")),
            ("more", more), ("priming", pushing), ("primingSecond", PerSecond(pushing)));
        if (whole) return (set, note);
        var prime = more is null && (pushing is null || pushing == pulling) ? null
            : _to.Spell("priming", ("more", more), ("minute", pushing));
        string[] lines = [.. new[] { length is null && pulling is null ? null : set, prime }.OfType<string>()];
        return (lines.Length == 0 ? null : string.Join('\n', lines), note);
    }

    private (string? After, string? Note) Label(Command command, Dictionary<string, string> words)
    {
        string? W(string name) => words.TryGetValue(name, out var value) && value.Length > 0 ? value : null;
        if (!_from.Extended)
        {
            if (W("S") is not { } index) return (null, null);
            if (index == "-1") return (_part is null ? null : _to.Spell("part-end", ("key", _part)), null);
            _part = $"part_{index}";
            return (_to.Spell("part-begin", ("key", _part), ("index", index), ("name", _part)),
                "Parts are known by names there, which must be defined first.");
        }
        if (W("NAME") is not { } name || command.Word.EndsWith("_DEFINE", StringComparison.Ordinal))
            return (null, "Parts are numbered there; their outlines are not told.");
        if (command.Word.EndsWith("_END", StringComparison.Ordinal)) return (_to.Spell("part-end", ("key", name)), null);
        if (!command.Word.EndsWith("_START", StringComparison.Ordinal)) return (null, null);
        if (!_parts.TryGetValue(name, out var number)) _parts[name] = number = _parts.Count;
        return (_to.Spell("part-begin", ("key", name), ("index", number), ("name", name)), null);
    }

    private (string? After, string? Note) Carriages(Dictionary<string, string> words)
    {
        string? W(string name) => words.TryGetValue(name, out var value) && value.Length > 0 ? value : null;
        var mode = W("MODE")?.ToUpperInvariant() is { } name ? name switch { "COPY" => "copy", "MIRROR" => "mirror", _ => "single" }
            : W("S") switch { "2" => "copy", "3" => "mirror", _ => "single" };
        return (_to.Spell($"carriage-{mode}", ("distance", W("X")), ("warmer", W("R"))), null);
    }

    private (string? After, string? Note) Limits(Command command, Dictionary<string, string> words)
    {
        string? W(string name) => words.TryGetValue(name, out var value) && value.Length > 0 ? value : null;
        string? Speed(string? value) => value is null ? null : Times(value, Factor(_from.SpeedLimitUnit, _to.SpeedLimitUnit));
        string? Spell(string what, params ReadOnlySpan<(string, object?)> values) => _to.Spell(what, values);
        const string oneFigure = "One figure for the way; Z and E are set in its configuration.";
        switch (command.Meaning)
        {
            case Meaning.LimitSpeed:
                return (Spell("speed-limits", ("x", Speed(W("X"))), ("y", Speed(W("Y"))), ("z", Speed(W("Z"))), ("e", Speed(W("E"))),
                    ("slowest", Least(Speed(W("X")), Speed(W("Y"))))), _to.Extended ? oneFigure : null);
            case Meaning.LimitAcceleration:
                return (Spell("acceleration-limits", ("x", W("X")), ("y", W("Y")), ("z", W("Z")), ("e", W("E")),
                    ("slowest", Least(W("X"), W("Y")))), _to.Extended ? oneFigure : null);
            case Meaning.VelocityLimit:
                string? PerUnit(string? value) => value is null ? null : Times(value, _to.SpeedLimitUnit == "mm/min" ? 60 : 1);
                string? Corner(string? value) => value is null ? null : Times(value, _to.CornerUnit == "mm/min" ? 60 : 1);
                var corner = W("SQUARE_CORNER_VELOCITY");
                string[] lines = [.. new[]
                {
                    Spell("speed-limits", ("x", PerUnit(W("VELOCITY"))), ("y", PerUnit(W("VELOCITY")))),
                    Spell("acceleration", ("printing", W("ACCEL")), ("travel", W("ACCEL"))),
                    corner is null ? null : Spell("instant-speed-change", ("x", Corner(corner)), ("y", Corner(corner))),
                }.OfType<string>()];
                return (lines.Length == 0 ? null : string.Join('\n', lines), corner is null ? null
                    : "Corner rules differ between firmwares: about the same, not the same.");
            case Meaning.SetAcceleration:
                return (
                Spell("acceleration", ("printing", W("P") ?? W("S")), ("travel", W("T") ?? W("S")), ("retraction", W("R"))), null);
            case Meaning.SetJunction or Meaning.SetCorner or Meaning.SetCornerSeconds when (command.Meaning == Meaning.SetJunction ? W("X")
                : W("J")) is { } deviation:
                return (Spell("junction-deviation", ("value", deviation)), null);
            default:
                var factor = (command.Meaning == Meaning.SetCorner && _from.CornerUnit == "mm/min" ? 1 / 60.0
                    : 1) * (_to.CornerUnit == "mm/min" ? 60 : 1);
                string? Jump(string axis) => W(axis) is { } value ? Times(value, factor) : null;
                var jumps = Spell("instant-speed-change", ("x", Jump("X")), ("y", Jump("Y")), ("z", Jump("Z")), ("e", Jump("E")))
                    ?? Spell("square-corner-speed", ("value", W("X") is { } x ? Times(x, factor) : null));
                return (jumps, "Corner rules differ between firmwares: about the same, not the same.");
        }
    }
}
