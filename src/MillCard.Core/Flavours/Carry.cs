using System.Globalization;
using System.Text;
using System.Text.RegularExpressions;
using MillCard.Core.Documents;
using MillCard.Core.Gcode;

namespace MillCard.Core.Flavours;

/// <summary>What became of a line that was carried to another dialect.</summary>
public enum Carried
{
    /// <summary>It means the same there.</summary>
    Same,
    /// <summary>It is written another way there.</summary>
    Changed,
    /// <summary>That dialect has nothing like it; it stays as a comment.</summary>
    Lost,
    /// <summary>The dialect it comes from does not know it; it stays as it is.</summary>
    Unknown,
}

/// <summary>A line of a routine carried to another dialect.</summary>
/// <param name="Line">Counted from 1.</param>
/// <param name="Before">As it was.</param>
/// <param name="After">As it becomes, possibly several lines.</param>
/// <param name="Kind">What became of it.</param>
/// <param name="Note">Why, or what is different there; null where nothing is to be said.</param>
public sealed record CarriedLine(int Line, string Before, string After, Carried Kind, string? Note = null);

/// <summary>Carries routines from one dialect to another, line by line; nothing is dropped in silence.</summary>
public sealed partial class Carry
{
    private readonly Flavour _from, _to;
    private ExtrusionCount _counted, _counts;

    private Carry(Flavour from, Flavour to) => (_from, _to, _counted, _counts) = (from, to, new(from.Extrusion), new(to.Extrusion));

    /// <summary>Carries a routine.</summary>
    /// <param name="routine">Its text, a template.</param>
    /// <param name="from">The dialect it is written in.</param>
    /// <param name="to">The dialect it is to be in.</param>
    public static IReadOnlyList<CarriedLine> Of(string routine, FlavourId from, FlavourId to)
    {
        var carry = new Carry(Flavour.Of(from), Flavour.Of(to));
        return [.. routine.ReplaceLineEndings("\n").Split('\n').Select((line, i) => carry.Line(i + 1, line))];
    }

    private CarriedLine Line(int number, string line)
    {
        var comment = line.IndexOf(';');
        var code = (comment < 0 ? line : line[..comment]).Trim();
        if (code.Length == 0 || code.StartsWith("{%", StringComparison.Ordinal)) return new(number, line, line, Carried.Same);
        var bytes = Encoding.UTF8.GetBytes(code);
        var extended = ExtendedCommand.Begins(bytes) ? ExtendedCommand.Of(bytes) : null;
        var head = extended?.Name ?? Head().Match(code).Value.Replace(" ", "").ToUpperInvariant();
        if (Find(_from, extended, head) is not { } command) return new(number, line, line, Carried.Unknown, $"{_from.Name} has no {head}; a macro of the machine may. It stays as it is.");
        var words = extended?.Parameters.ToDictionary() ?? Words().Matches(code[Head().Match(code).Length..]).GroupBy(m => m.Groups["letter"].Value.ToUpperInvariant()).ToDictionary(g => g.Key, g => g.First().Groups["value"].Value);
        var rest = comment < 0 ? "" : " " + line[comment..];
        var there = Find(_to, extended, head);
        var (after, note) = there is not null && there.Meaning == command.Meaning ? Kept(command, there, code, words) : Respelled(command, words);
        if (after is null) return new(number, line, $"; no counterpart in {_to.Name}: {line.Trim()}", Carried.Lost, note ?? $"{_to.Name} has nothing like {head} ({char.ToLowerInvariant(command.About[0])}{command.About[1..]}).");
        return after == code ? new(number, line, line, Carried.Same, note) : new(number, line, after + rest, Carried.Changed, note);
    }

    private static Command? Find(Flavour flavour, ExtendedCommand? extended, string head) =>
        extended is not null ? flavour.Find(extended.Name) : head.Length > 0 && double.TryParse(head.AsSpan(1), CultureInfo.InvariantCulture, out var number) ? flavour.Find(head[0], number) : null;

    /// <summary>The same command is there: what its words mean may differ.</summary>
    private (string? After, string? Note) Kept(Command command, Command there, string code, Dictionary<string, string> words)
    {
        switch (command.Meaning)
        {
            case Meaning.LimitSpeed when _from.SpeedLimitUnit != _to.SpeedLimitUnit: return (Scaled(command.Word, words, Factor(_from.SpeedLimitUnit, _to.SpeedLimitUnit)), $"Speeds count {_to.SpeedLimitUnit} there.");
            case Meaning.SetCorner when _from.CornerUnit != _to.CornerUnit: return (Scaled(command.Word, words, Factor(_from.CornerUnit, _to.CornerUnit)), $"Speeds count {_to.CornerUnit} there.");
            case Meaning.WaitNozzle or Meaning.WaitBed or Meaning.WaitChamber when words.ContainsKey("R") && !words.ContainsKey("S") && !_to.ReadsWaitR:
                return (R().Replace(code, "S", 1), _to.WaitsWhileHotter ? "R is not read there; S waits both ways." : "R is not read there; S returns at once when it is hotter.");
            case Meaning.WaitNozzle or Meaning.WaitBed when words.ContainsKey("S") && _from.WaitsWhileHotter && !_to.WaitsWhileHotter:
                return _to.ReadsWaitR ? (S().Replace(code, "R", 1), "S returns at once there when it is hotter; R waits both ways, as S does here.") : (code, "There it returns at once when it is hotter.");
            case Meaning.WaitNozzle or Meaning.WaitBed when words.ContainsKey("S") && !_from.WaitsWhileHotter && _to.WaitsWhileHotter: return (code, "There it waits while hotter, too.");
            case Meaning.FanOn when _from.FanOfOne && !_to.FanOfOne && words.TryGetValue("S", out var share) && Number(share) is <= 1 and > 0:
                return (S().Replace(code, "S", 1).Replace("S" + share, "S" + Math.Round(Number(share)!.Value * 255).ToString(CultureInfo.InvariantCulture), StringComparison.Ordinal), "Fans count 0 to 255 there.");
            case Meaning.Dwell when words.TryGetValue("S", out var seconds) && !there.Takes("S"): return ($"{command.Word} P{Times(seconds, 1000)}", "Times count ms there.");
            case Meaning.Relative or Meaning.Absolute or Meaning.ExtrusionRelative or Meaning.ExtrusionAbsolute: return Counting(command, code);
            case Meaning.Home when !_from.HomeDropsMesh && _to.HomeDropsMesh: return (code, $"On {_to.Name} homing forgets the mesh of the bed.");
        }
        var missing = words.Keys.Where(k => command.Takes(k) && !there.Takes(k)).ToArray();
        var needs = there.Needs is { } need && command.Needs is null ? $"Not always there: {need}." : null;
        return (code, missing.Length > 0 ? $"{string.Join(", ", missing)} {(missing.Length == 1 ? "is" : "are")} not read there." : needs);
    }

    /// <summary>A line that changes how words count; where E words would count another way there, that is said behind it.</summary>
    private (string After, string? Note) Counting(Command command, string code)
    {
        (_counted, _counts) = (_counted.After(command.Meaning), _counts.After(command.Meaning));
        if (_counted.Relative == _counts.Relative) return (code, null);
        var mend = _counted.Relative ? Meaning.ExtrusionRelative : Meaning.ExtrusionAbsolute;
        _counts = _counts.After(mend);
        if (_counted.Relative != _counts.Relative) return (code, $"Under G91 E words are lengths on {_to.Name}, whatever M82 says: write them as lengths there.");
        return ($"{code}\n{_to.With(mend)!.Word}", $"{command.Word} makes E words count another way on {_to.Name} than on {_from.Name}.");
    }

    /// <summary>Another command does it there.</summary>
    private (string? After, string? Note) Respelled(Command command, Dictionary<string, string> words)
    {
        string? W(string name) => words.TryGetValue(name, out var value) && value.Length > 0 ? value : null;
        string? Speed(string? value) => value is null ? null : Times(value, (_from.SpeedLimitUnit == "mm/min" ? 1 / 60.0 : 1) * (_to.SpeedLimitUnit == "mm/min" ? 60 : 1));
        string? Spell(string what, params (string, object?)[] values) => _to.Spell(what, values);
        switch (command.Meaning)
        {
            case Meaning.SetNozzle: return (Spell("nozzle-set", ("value", W("S"))), null);
            case Meaning.ToolSettings when W("S") is { } active: return (Spell("nozzle-set", ("value", active)) + (W("P") is { } tool and not "0" ? $" T{tool}" : ""), W("R") is null ? null : "The standby temperature has no counterpart.");
            case Meaning.WaitNozzle: return (Spell("nozzle-wait", ("value", W("S") ?? W("R"))), null);
            case Meaning.SetBed: return (Spell("bed-set", ("value", W("S"))), null);
            case Meaning.WaitBed: return (Spell("bed-wait", ("value", W("S") ?? W("R"))), null);
            case Meaning.HeaterByName: return (Spell(W("HEATER") == "heater_bed" ? "bed-set" : "nozzle-set", ("value", W("TARGET") ?? "0")), null);
            case Meaning.WaitByName when W("MINIMUM") is { } least: return (Spell(W("SENSOR") == "heater_bed" ? "bed-wait" : "nozzle-wait", ("value", least)), "The wait sets the target there, too.");
            case Meaning.HeatersOff: return ($"{Spell("nozzle-set", ("value", 0))}\n{Spell("bed-set", ("value", 0))}", null);
            case Meaning.Level: return (Spell("level"), null);
            case Meaning.Mesh: return (Spell("mesh-restore"), "The mesh must have been stored under the name it is loaded by.");
            case Meaning.FanOff: return (Spell("fan-off"), null);
            case Meaning.MotorsOff: return (Spell("motors-off"), null);
            case Meaning.FilamentChange or Meaning.Pause: return (Spell("filament-change"), null);
            case Meaning.PressureCompensation: return (Spell("pressure-compensation", ("value", W("K") ?? W("S") ?? W("ADVANCE") ?? W("Y")), ("tool", 0)), "The factor counts seconds on most firmwares; test it again.");
            case Meaning.LimitSpeed:
                return (Spell("speed-limits", ("x", Speed(W("X"))), ("y", Speed(W("Y"))), ("z", Speed(W("Z"))), ("e", Speed(W("E"))), ("slowest", Least(Speed(W("X")), Speed(W("Y"))))), "One figure for the way; Z and E are set in its configuration.");
            case Meaning.LimitAcceleration:
                return (Spell("acceleration-limits", ("x", W("X")), ("y", W("Y")), ("z", W("Z")), ("e", W("E")), ("slowest", Least(W("X"), W("Y")))), "One figure for the way; Z and E are set in its configuration.");
            case Meaning.VelocityLimit:
                var lines = new[] { Spell("speed-limits", ("x", Speed(W("VELOCITY"))), ("y", Speed(W("VELOCITY")))), Spell("acceleration", ("printing", W("ACCEL")), ("travel", W("ACCEL"))) }.Where(l => l is not null).ToArray();
                return (lines.Length == 0 ? null : string.Join('\n', lines), W("SQUARE_CORNER_VELOCITY") is null ? null : "The corner speed has no counterpart that means the same.");
            case Meaning.SetAcceleration: return (Spell("acceleration", ("printing", W("P") ?? W("S")), ("travel", W("T") ?? W("S"))), null);
            case Meaning.SetCorner or Meaning.SetCornerSeconds when W("X") is { } jump:
                var perSecond = Times(jump, command.Meaning == Meaning.SetCorner && _from.CornerUnit == "mm/min" ? 1 / 60.0 : 1);
                return (Spell("instant-speed-change", ("value", Times(perSecond, _to.CornerUnit == "mm/min" ? 60 : 1))) ?? Spell("square-corner-speed", ("value", perSecond)), "Corner rules differ between firmwares: about the same, not the same.");
            case Meaning.SetCorner or Meaning.SetJunction when (W("J") ?? W("X")) is { } deviation: return (Spell("junction-deviation", ("value", deviation)), null);
            case Meaning.CarriageMode:
                var mode = W("MODE")?.ToUpperInvariant() is { } name ? name switch { "COPY" => "copy", "MIRROR" => "mirror", _ => "single" } : W("S") switch { "2" => "copy", "3" => "mirror", _ => "single" };
                return (Spell($"carriage-{mode}", ("distance", W("X")), ("warmer", W("R"))), null);
            case Meaning.FirmwareRetract or Meaning.FirmwarePrime: return (null, "Write the retraction as an E word.");
            default: return (null, null);
        }
    }

    private static double Factor(string from, string to) => (from == "mm/min" ? 1 / 60.0 : 1) * (to == "mm/min" ? 60 : 1);

    private static string Scaled(string word, Dictionary<string, string> words, double factor) => $"{word} {string.Join(' ', words.Select(w => w.Key + (w.Value.Length == 0 ? "" : Times(w.Value, factor))))}";

    /// <summary>A number times a factor; an expression gets a filter.</summary>
    private static string Times(string value, double factor) =>
        factor == 1 ? value
        : Number(value) is { } number ? Math.Round(number * factor, 5).ToString(CultureInfo.InvariantCulture)
        : value.Replace("}}", factor > 1 ? $"| times: {factor.ToString(CultureInfo.InvariantCulture)} }}}}" : $"| divided_by: {Math.Round(1 / factor, 5).ToString(CultureInfo.InvariantCulture)} }}}}", StringComparison.Ordinal);

    private static double? Number(string value) => double.TryParse(value, CultureInfo.InvariantCulture, out var number) ? number : null;

    private static string? Least(string? a, string? b) => a is null ? b : b is null ? a : Number(a) is { } x && Number(b) is { } y ? (x <= y ? a : b) : a;

    [GeneratedRegex(@"^[A-Za-z]\s*\d*(\.\d+)?")]
    private static partial Regex Head();

    [GeneratedRegex(@"(?<letter>[A-Za-z])\s*(?<value>\{\{.*?\}\}|[-+]?\d*\.?\d+)?")]
    private static partial Regex Words();

    [GeneratedRegex(@"(?<=\s)R(?=[\s\d{.])")]
    private static partial Regex R();

    [GeneratedRegex(@"(?<=\s)S(?=[\s\d{.])")]
    private static partial Regex S();
}
