using System.Globalization;
using System.Text;
using System.Text.RegularExpressions;
using MillCard.Core.Documents;
using MillCard.Core.Flavours;
using MillCard.Core.Gcode;
using static MillCard.Core.Routines.Carrying.CarriedFigures;

namespace MillCard.Core.Routines.Carrying;

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
    public static IReadOnlyList<CarriedLine> Of(string routine, FlavourId from, FlavourId to) =>
        Of(routine, Flavour.Of(from), Flavour.Of(to));

    /// <summary>Carries a routine of a card.</summary>
    /// <param name="routine">Its text, a template.</param>
    /// <param name="from">The firmware it is written for: its version may count.</param>
    /// <param name="to">The dialect it is to be in.</param>
    public static IReadOnlyList<CarriedLine> Of(string routine, Firmware from, FlavourId to) =>
        Of(routine, Flavour.Of(from), Flavour.Of(to));

    private static CarriedLine[] Of(string routine, Flavour from, Flavour to)
    {
        var carry = new Carry(from, to);
        return [.. routine.ReplaceLineEndings("\n").Split('\n')
            .Select((line, i) => from == to ? new CarriedLine(i + 1, line, line, Carried.Same) : carry.Line(i + 1, line))];
    }

    private CarriedLine Line(int number, string line)
    {
        var comment = line.IndexOf(';');
        var code = (comment < 0 ? line : line[..comment]).Trim();
        if (code.Length == 0 || code.StartsWith("{%", StringComparison.Ordinal)) return new(number, line, line, Carried.Same);
        var bytes = Encoding.UTF8.GetBytes(code);
        var extended = ExtendedCommand.Begins(bytes) ? ExtendedCommand.Of(bytes) : null;
        var head = extended?.Name ?? Head().Match(code).Value.Replace(" ", "").ToUpperInvariant();
        if (Find(_from, extended, head) is not { } command)
            return new(number, line, line, Carried.Unknown, $"{_from.Name} has no {head}; a macro of the machine may. It stays as it is.");
        var words = new CarriedWords(extended?.Parameters ?? Words().Matches(code[Head().Match(code).Length..])
            .GroupBy(m => m.Groups["letter"].Value.ToUpperInvariant()).ToDictionary(g => g.Key, g => g.First().Groups["value"].Value));
        command = Meant(command, words, extended is not null);
        Remember(command, words);
        var there = Find(_to, extended, head) is { } found ? Meant(found, words, extended is not null) : null;
        var (after, note) = there is not null && there.Meaning == command.Meaning ? Kept(command, there, code, words)
            : Respelled(command, words);
        if (after is null)
            return new(number, line, $"; no counterpart in {_to.Name}: {line.Trim()}", Carried.Lost,
                note ?? $"{_to.Name} has nothing like {head} ({char.ToLowerInvariant(command.About[0])}{command.About[1..]}).");
        return after == code ? new(number, line, line, Carried.Same, note)
            : new(number, line, after + (comment < 0 ? "" : " " + line[comment..]), Carried.Changed, note);
    }

    /// <summary>A command with the meaning that it has with these words.</summary>
    private static Command Meant(Command command, CarriedWords words, bool extended)
    {
        if (extended || command.Variants.Count == 0) return command;
        double? Of(char letter) => words.All.TryGetValue(letter.ToString(), out var word) ? Number(word) ?? double.NaN : null;
        return command with { Meaning = command.MeaningWith(Of) };
    }

    private static Command? Find(Flavour flavour, ExtendedCommand? extended, string head)
    {
        if (extended is not null) return flavour.Find(extended.Name);
        return head.Length > 0 && double.TryParse(head.AsSpan(1), CultureInfo.InvariantCulture, out var number)
            ? flavour.Find(head[0], number)
            : null;
    }

    /// <summary>The same command is there: what its words mean may differ.</summary>
    private (string? After, string? Note) Kept(Command command, Command there, string code, CarriedWords words)
    {
        switch (command.Meaning)
        {
            case Meaning.LimitSpeed when _from.SpeedLimitUnit != _to.SpeedLimitUnit:
                return (Scaled(command.Word, words, Factor(_from.SpeedLimitUnit, _to.SpeedLimitUnit)),
                    $"Speeds count {_to.SpeedLimitUnit} there.");
            case Meaning.SetCorner when _from.CornerUnit != _to.CornerUnit:
                return (Scaled(command.Word, words, Factor(_from.CornerUnit, _to.CornerUnit)), $"Speeds count {_to.CornerUnit} there.");
            case Meaning.SetCorner when words.Has("J") && !there.Takes("J"): return Respelled(command, words);
            case Meaning.SetAcceleration: return Acceleration(code, words);
            case Meaning.WaitNozzle or Meaning.WaitBed or Meaning.WaitChamber when words.Has("R") && !words.Has("S")
                && !_to.ReadsWaitR:
                return (R().Replace(code, "S", 1), _to.WaitsWhileHotter ? "R is not read there; S waits both ways."
                    : "R is not read there; S returns at once when it is hotter.");
            case Meaning.WaitNozzle or Meaning.WaitBed when words.Has("S") && _from.WaitsWhileHotter && !_to.WaitsWhileHotter:
                return _to.ReadsWaitR ? (S().Replace(code, "R", 1),
                    "S returns at once there when it is hotter; R waits both ways, as S does here.")
                    : (code, "There it returns at once when it is hotter.");
            case Meaning.WaitNozzle or Meaning.WaitBed when words.Has("S") && !_from.WaitsWhileHotter
                && _to.WaitsWhileHotter:
                return (code, "There it waits while hotter, too.");
            case Meaning.FanOn: return Fan(code, there, words);
            case Meaning.Dwell when words.All.TryGetValue("S", out var seconds)
                && !there.Takes("S"):
                return ($"{command.Word} P{Times(seconds, 1000)}", "Times count ms there.");
            case Meaning.Relative or Meaning.Absolute or Meaning.ExtrusionRelative or Meaning.ExtrusionAbsolute:
                return Counting(command,
                code);
            case Meaning.Home when !_from.HomeDropsMesh
                && _to.HomeDropsMesh:
                return (code, $"On {_to.Name} homing forgets the mesh of the bed.");
            case Meaning.FirmwareRetractSet or Meaning.FirmwarePrimeSet or Meaning.BabyStep when words.All.Keys.Any(k => command.Takes(k)
                && !there.Takes(k)):
                return Respelled(command, words);
            case Meaning.FirmwareRetractSet when command.Takes("T") != there.Takes("T"): return Respelled(command, words);
        }
        var missing = words.All.Keys.Where(k => command.Takes(k) && !there.Takes(k)).ToArray();
        var needs = there.Needs is { } need && command.Needs is null ? $"Not always there: {need}." : null;
        return (code, missing.Length > 0 ? $"{string.Join(", ", missing)} {(missing.Length == 1 ? "is" : "are")} not read there." : needs);
    }

    /// <summary>One figure for all moves stands for two that differ by the smaller one; of printing alone such a dialect makes
    /// nothing.</summary>
    private (string? After, string? Note) Acceleration(string code, CarriedWords words)
    {
        var one = _to.Spellings.TryGetValue("acceleration", out var spelling) && !spelling.Contains("{travel}", StringComparison.Ordinal);
        var (all, printing, travel) = (words["S"], words["P"], words["T"]);
        if (one && (printing ?? travel) is not null)
        {
            var figure = all ?? (printing is null || travel is null ? printing ?? travel : Least(printing, travel));
            return ($"M204 S{figure}", printing == travel ? null : "One figure for printing and travel there: the smaller one.");
        }
        return all is not null && !one && _to.With(Meaning.SetAcceleration)?.Takes("S") != true ? ($"M204 P{all} T{all}", null)
            : (code, words["R"] is not null && one ? "R is not read there." : null);
    }

    /// <summary>Fans by their number, and shares from 0 to 1 or to 255.</summary>
    private (string? After, string? Note) Fan(string code, Command there, CarriedWords words)
    {
        if (words.All.TryGetValue("P", out var fan) && !there.Takes("P"))
        {
            if (Number(fan) != 0) return (null, $"{_to.Name} knows its fans by name: write the one that is meant.");
            code = P().Replace(code, "", 1).Replace("  ", " ", StringComparison.Ordinal).Trim();
        }
        if (!words.All.TryGetValue("S", out var share) || Number(share) is not { } number || _from.FanOfOne == _to.FanOfOne)
            return (code, null);
        if (_from.FanOfOne && number is <= 1 and > 0) return (Value("S", code, Math.Round(number * 255)), "Fans count 0 to 255 there.");
        return !_from.FanOfOne && number is > 0 and <= 1
            ? (Value("S", code, Math.Round(number / 255, 4)), "Up to 1 is a share of full speed there.") : (code, null);
    }

    /// <summary>A line that changes how words count; where E words would count another way there, that is said behind it.</summary>
    private (string After, string? Note) Counting(Command command, string code)
    {
        (_counted, _counts) = (_counted.After(command.Meaning), _counts.After(command.Meaning));
        if (_counted.Relative == _counts.Relative) return (code, null);
        var mend = _counted.Relative ? Meaning.ExtrusionRelative : Meaning.ExtrusionAbsolute;
        _counts = _counts.After(mend);
        if (_counted.Relative != _counts.Relative)
            return (code, $"Under G91 E words are lengths on {_to.Name}, whatever M82 says: write them as lengths there.");
        return ($"{code}\n{_to.With(mend)!.Word}", $"{command.Word} makes E words count another way on {_to.Name} than on {_from.Name}.");
    }

    [GeneratedRegex(@"^[A-Za-z]\s*\d*(\.\d+)?")]
    private static partial Regex Head();

    [GeneratedRegex(@"(?<letter>[A-Za-z])\s*(?<value>\{\{.*?\}\}|[-+]?\d*\.?\d+)?")]
    private static partial Regex Words();

    [GeneratedRegex(@"(?<=\s)P\s*\d+")]
    private static partial Regex P();

    [GeneratedRegex(@"(?<=\s)R(?=[\s\d{.])")]
    private static partial Regex R();

    [GeneratedRegex(@"(?<=\s)S(?=[\s\d{.])")]
    private static partial Regex S();
}
