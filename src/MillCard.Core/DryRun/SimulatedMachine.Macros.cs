using System.Text;
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
    private readonly HashSet<(char Letter, double Number)> _replaced = [];
    private int _depth, _macroLines;

    /// <summary>A line that begins with a name: a macro, or a command of the dialect.</summary>
    private Effect Named(int line, ReadOnlySpan<byte> text)
    {
        var command = ExtendedCommand.Of(text);
        if (_macros.Find(command.Name) is { } macro && !_calls.Contains(macro.Name)) return Call(line, macro, command.Parameters);
        if (_macros.Original(command.Name) is { } original && ExtendedCommand.Begins(Encoding.UTF8.GetBytes(original)) is false)
            return Execute(line, Encoding.UTF8.GetBytes(original + Encoding.UTF8.GetString(text)[command.Name.Length..]));
        var known = _flavour.Find(_macros.Original(command.Name) ?? command.Name);
        if (known is null) return Unknown(line, text);
        _words.Read(default);
        _extended = command;
        var effect = Do(line, known, text);
        _extended = null;
        return effect;
    }

    /// <summary>A macro that stands for a command such as G28; null within that macro.</summary>
    private Effect? CallReplaced(int line, char letter, double number, ReadOnlySpan<byte> text)
    {
        var name = FormattableString.Invariant($"{letter}{number:0.###}");
        if (_macros.Find(name) is not { } macro || _calls.Contains(macro.Name)) return null;
        var parameters = new Dictionary<string, string>();
        for (var i = 1; i < _words.Count; i++) parameters[_words.Letter(i).ToString()] = double.IsNaN(_words.Value(i)) ? "" : MacroExpression.Written(_words.Value(i));
        return Call(line, macro, parameters);
    }

    private Effect Call(int line, Macro macro, IReadOnlyDictionary<string, string> parameters)
    {
        if (_depth >= DeepestMacro) return new Effect(EffectKind.Macro, -1, 0);
        var output = MacroText.Render(macro, parameters);
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
            if (kept >= 0) call.Steps.Add(new MacroStep(inner, EffectWords.Of(_run, effect, line, inner, Now(line) - before), Now(line) - before));
        }
        _calls.Pop();
        _depth--;
        return new Effect(EffectKind.Macro, kept, 0);
    }
}
