using System.Globalization;
using System.Text;
using System.Text.RegularExpressions;
using MillCard.Core.Gcode;
using MillCard.Core.Macros;

namespace MillCard.Core.DryRun;

// Extended commands, and stepping into macros.
public sealed partial class SimulatedMachine
{
    private const int DeepestMacro = 20;
    private const int MostMacroLines = 200_000;
    private const int CallsKept = 2000;
    private readonly Stack<string> _calls = new();
    private readonly HashSet<(char Letter, double Number)> _replaced;
    private readonly Dictionary<string, Dictionary<string, object?>> _variables = new(StringComparer.OrdinalIgnoreCase);
    private readonly bool _holdsMacros;
    private readonly OpenCondition _open;
    private int _depth, _macroLines, _line;

    /// <summary>A line that begins with a name: a macro, or a command of the dialect.</summary>
    private Effect Named(int line, ReadOnlySpan<byte> text)
    {
        var command = ExtendedCommand.Of(text);
        if (_macros.Find(command.Name) is { } macro)
        {
            if (!_calls.Contains(macro.Name)) return Call(line, macro, command.Parameters);
            if (macro.Renamed is null || _flavour.Find(macro.Name) is null) return Recursion(line, macro);
        }
        if (_macros.Original(command.Name) is { } original && ExtendedCommand.Begins(Encoding.UTF8.GetBytes(original)) is false)
            return Execute(line, Encoding.UTF8.GetBytes(original + Encoding.UTF8.GetString(text)[command.Name.Length..]));
        var known = _flavour.Find(_macros.Original(command.Name) ?? command.Name);
        if (known is null)
        {
            if (!_holdsMacros) CannotSee(line, command.Name);
            return Unknown(line, text);
        }
        _words.Read(default);
        _extended = command;
        if (command.Name.Equals("SET_GCODE_VARIABLE", StringComparison.OrdinalIgnoreCase)) SetVariable(command);
        var effect = Do(line, known, text);
        _extended = null;
        return effect;
    }

    /// <summary>A macro that stands for a command such as G28; null within that macro.</summary>
    private Effect? CallReplaced(int line, char letter, double number, ReadOnlySpan<byte> text)
    {
        var name = Invariant($"{letter}{number:0.###}");
        if (_macros.Original(name) is { } original)
        {
            var rest = Encoding.UTF8.GetString(text).TrimStart();
            return Execute(line, Encoding.UTF8.GetBytes(original + rest[Math.Min(rest.Length, name.Length)..]));
        }
        if (_macros.Find(name) is not { } macro) return null;
        // within the macro of its own name the command is the firmware's own, if it has renamed it; else it calls itself
        if (_calls.Contains(macro.Name)) return macro.Renamed is null ? Recursion(line, macro) : null;
        var parameters = new Dictionary<string, string>();
        for (var i = 1; i < _words.Count; i++)
            parameters[_words.Letter(i).ToString()] = double.IsNaN(_words.Value(i)) ? "" : MacroExpression.Written(_words.Value(i));
        return Call(line, macro, parameters);
    }

    private Effect Call(int line, Macro macro, IReadOnlyDictionary<string, string> parameters)
    {
        if (_depth >= DeepestMacro) return Recursion(line, macro);
        Settle(line);
        _line = line;
        var output = MacroText.Render(macro, parameters, Known, VariablesOf(macro), _open);
        foreach (var what in output.Unfollowed) Unfollow(line, what);
        _run.Hinges |= output.Hinges;
        var call = new MacroCall(line, macro, parameters, _depth, output.Unfollowed, []);
        var kept = _run.MacroCalls.Count < CallsKept ? _run.MacroCalls.Count : -1;
        if (kept >= 0) _run.MacroCalls.Add(call);
        Settle(line);
        _depth++;
        _calls.Push(macro.Name);
        foreach (var inner in output.Lines)
        {
            if (++_macroLines > MostMacroLines) break;
            var before = Now(line);
            var effect = Execute(line, Encoding.UTF8.GetBytes(inner));
            Settle(line);
            if (kept >= 0) call.Steps.Add(
                new MacroStep(inner, EffectWords.Of(_run, effect, line, inner, Now(line) - before), Now(line) - before));
        }
        _calls.Pop();
        _depth--;
        return new Effect(EffectKind.Macro, kept, 0);
    }

    private Effect Recursion(int line, Macro macro)
    {
        if (_run.Recursions.Count < CallsKept) _run.Recursions.Add((line, macro.Name));
        return new Effect(EffectKind.Macro, -1, 0);
    }

    /// <summary>Commands of a letter and a number that macros stand for, and the names that those gave to the commands
    /// themselves.</summary>
    private static HashSet<(char, double)> ReplacedBy(MacroFile macros) =>
        [.. macros.Macros.SelectMany(m => new[] { m.Name, m.Renamed }).OfType<string>().Where(name => CodeName().IsMatch(name))
            .Select(name => (name[0], double.Parse(name.AsSpan(1), CultureInfo.InvariantCulture)))];

    [GeneratedRegex(@"^[A-Z]\d{1,4}(\.\d)?$")]
    private static partial Regex CodeName();

    private Dictionary<string, object?> VariablesOf(Macro macro) => _variables.TryGetValue(macro.Name, out var own) ? own
        : _variables[macro.Name] = macro.Variables.ToDictionary();

    private void SetVariable(ExtendedCommand command)
    {
        if (command.Text("MACRO") is not { } name || _macros.Find(name) is not { } macro || command.Text("VARIABLE") is not { } variable
            || command.Text("VALUE") is not { } value) return;
        object? known;
        try { known = MacroExpression.Of(value, new Dictionary<string, object?>()); }
        catch (UnknowableException) { known = value; }
        VariablesOf(macro)[variable.ToLowerInvariant()] = known;
    }

    /// <summary>What the run itself knows of the printer at this moment, as macros ask for it.</summary>
    /// <param name="name">What stands behind <c>printer.</c>, such as <c>toolhead.homed_axes</c>.</param>
    /// <exception cref="UnknowableException">Only the running printer knows it.</exception>
    private object? Known(string name)
    {
        if (!name.Contains('.', StringComparison.Ordinal))
            return _macros.Sections.Contains(name) || Always.Contains(name) ? name
                : throw new UnknowableException(_macros.Sections.Count > 0 ? name : $"printer.{name}");
        var (thing, fact) = (name[..name.LastIndexOf('.')], name[(name.LastIndexOf('.') + 1)..]);
        if (thing.StartsWith("gcode_macro ", StringComparison.OrdinalIgnoreCase)
            && _macros.Find(thing["gcode_macro ".Length..].Trim()) is { } macro)
            return VariablesOf(macro).TryGetValue(fact.ToLowerInvariant(), out var value) ? value : throw new UnknowableException(fact);
        return (thing, fact) switch
        {
            ("toolhead", "homed_axes") => string.Concat("xyz".Where((_, axis) => _homed[axis])),
            ("toolhead", "extruder") => _tool == 0 ? "extruder" : Invariant($"extruder{_tool}"),
            ("toolhead", "max_velocity") => _limits.Speed[0],
            ("toolhead", "max_accel") => _limits.Printing,
            ("toolhead.position" or "gcode_move.position" or "gcode_move.gcode_position", _) when AxisOf(fact) is { } axis =>
                thing == "gcode_move.gcode_position" ? _at[axis] - _shift[axis] : _at[axis],
            ("toolhead.axis_maximum", _) when AxisOf(fact) is { } axis && AxisFacts(axis)?.Max is { } most => most,
            ("toolhead.axis_minimum", _) when AxisOf(fact) is { } axis && AxisFacts(axis)?.Min is { } least => least,
            ("gcode_move", "absolute_coordinates") => !_relative,
            ("gcode_move", "absolute_extrude") => !_relativeE,
            ("gcode_move", "speed") => _feed * 60,
            ("gcode_move", "speed_factor") => _speedShare,
            ("gcode_move", "extrude_factor") => _flowShare,
            ("fan", "speed") => _fan,
            ("heater_bed", "temperature") when _run.Bed is { } bed => bed.At(Now(_line)),
            ("heater_bed", "target") when _run.Bed is { } bed => bed.Target,
            (_, "temperature") when NozzleNamed(thing) is { } nozzle => _run.Nozzles[nozzle].At(Now(_line)),
            (_, "target") when NozzleNamed(thing) is { } nozzle => _run.Nozzles[nozzle].Target,
            (_, "can_extrude") when NozzleNamed(thing) is { } nozzle => _run.Nozzles[nozzle].At(Now(_line)) >= ExtrudesFrom,
            _ => throw new UnknowableException($"printer.{name}"),
        };
    }

    private const double ExtrudesFrom = 170;
    private static readonly string[] Always = ["toolhead", "gcode_move", "idle_timeout", "print_stats", "configfile", "webhooks",
        "motion_report"];

    private static int? AxisOf(string name) => name switch { "x" or "0" => 0, "y" or "1" => 1, "z" or "2" => 2, _ => null };

    private Documents.Axis? AxisFacts(int axis) =>
        axis switch { 0 => _machine.Card.Motion.Axes.X, 1 => _machine.Card.Motion.Axes.Y, _ => _machine.Card.Motion.Axes.Z };

    private int? NozzleNamed(string thing)
    {
        if (thing == "extruder") return 0;
        return thing.StartsWith("extruder", StringComparison.Ordinal)
            && int.TryParse(thing.AsSpan(8), CultureInfo.InvariantCulture, out var tool) && tool > 0 && tool < _run.Nozzles.Count
                ? tool
                : null;
    }
}
