using System.Text;
using System.Text.RegularExpressions;
using MillCard.Core.Gcode;
using MillCard.Core.Macros;

namespace MillCard.Core.DryRun;

// Conditions, loops, variables and expressions among the commands, and files that hold commands (RepRapFirmware).
public sealed partial class SimulatedMachine
{
    private const int MostTurns = 2000;
    private const string Iterations = "iterations";
    private readonly CommandFiles _files;
    private readonly Dictionary<string, object?> _globals = new(StringComparer.Ordinal);
    private Dictionary<string, object?> _locals = new(StringComparer.Ordinal);
    private List<MacroStep>? _steps;
    private bool _aborted, _leaves, _breaks, _goesOn;

    /// <summary>Runs a program with conditions and loops. What a loop does belongs to the line that begins it.</summary>
    private void RunBlocks(GcodeText text, CancellationToken stop)
    {
        string[] lines = [.. Enumerable.Range(0, text.Count).Select(text.Text)];
        Run(CommandBlock.Of(lines), null, stop);
        for (var at = 0; at < lines.Length; at++)
            if (_effects[at].Kind == EffectKind.Nothing && lines[at].Trim().Length > 0)
                _effects[at] = new Effect(EffectKind.Skipped, -1, 0);
    }

    /// <summary>Runs lines one after the other.</summary>
    /// <param name="blocks">The lines.</param>
    /// <param name="home">The source line to which all of them belong; null where each stands for itself.</param>
    /// <param name="stop">Ends the run.</param>
    private void Run(IReadOnlyList<CommandBlock> blocks, int? home, CancellationToken stop)
    {
        var done = false;
        foreach (var block in blocks)
        {
            if (_aborted || _leaves || _breaks || _goesOn) return;
            stop.ThrowIfCancellationRequested();
            var line = home ?? block.At;
            if (home is null && block.Word.Length > 0) _effects[line] = new Effect(EffectKind.Condition, -1, 0);
            switch (block.Word)
            {
                case "if" or "elif" or "else":
                    done &= block.Word != "if";
                    if (done || block.Word != "else" && !Holds(line, block.Text)) break;
                    done = true;
                    Run(block.Body, home, stop);
                    break;
                case "while": Loop(block, line, home is null, stop); break;
                case "break": _breaks = true; break;
                case "continue": _goesOn = true; break;
                case "abort": _aborted = true; break;
                case "var" or "global" or "set": Assign(line, block.Word, block.Text); break;
                case "": Command(block, line, home is null); break;
            }
        }
    }

    private void Loop(CommandBlock block, int line, bool ownLine, CancellationToken stop)
    {
        if (ownLine)
        {
            Settle(line);
            _depth++;
            _calls.Push("while");
            foreach (var inner in block.Body) _effects[inner.At] = new Effect(EffectKind.InLoop, line, 0);
        }
        var around = _locals.GetValueOrDefault(Iterations);
        for (var turn = 0; !_aborted && !_leaves; turn++)
        {
            _locals[Iterations] = (double)turn;
            if (!Holds(line, block.Text)) break;
            if (IsTooMuch(line)) break;
            if (turn == MostTurns) { Unfollow(line, $"while {block.Text}"); break; }
            Run(block.Body, line, stop);
            _goesOn = false;
            if (_breaks) break;
        }
        (_breaks, _locals[Iterations]) = (false, around);
        if (!ownLine) return;
        _calls.Pop();
        _depth--;
    }

    /// <summary>Whether loops and files have run for so long that the rest is not followed.</summary>
    private bool IsTooMuch(int line)
    {
        if (++_macroLines <= MostMacroLines) return false;
        Unfollow(line, $"what comes behind {MostMacroLines} lines of loops and files");
        return _aborted = true;
    }

    private void Command(CommandBlock block, int line, bool ownLine)
    {
        if (ownLine) { _effects[line] = ExecuteFilled(line, block.Text); return; }
        if (IsTooMuch(line)) return;
        var before = Now(line);
        var effect = ExecuteFilled(line, block.Text);
        Settle(line);
        var text = block.Text.Trim();
        if (text.Length > 0) _steps?.Add(
            new MacroStep(text, EffectWords.Of(_run, effect, line, text, Now(line) - before), Now(line) - before));
    }

    /// <summary>A line with its expressions filled in.</summary>
    private Effect ExecuteFilled(int home, string line)
    {
        if (!line.Contains('{', StringComparison.Ordinal)) return Execute(home, Encoding.UTF8.GetBytes(line));
        try { return Execute(home, Encoding.UTF8.GetBytes(Filled(line))); }
        catch (UnknowableException unknown)
        {
            Unfollow(home, unknown.What);
            return new Effect(EffectKind.Unfollowed, -1, 0);
        }
    }

    private string Filled(string line)
    {
        var filled = new StringBuilder();
        for (var i = 0; i < line.Length; i++)
        {
            if (line[i] == ';') return filled.Append(line.AsSpan(i)).ToString();
            if (line[i] != '{') { filled.Append(line[i]); continue; }
            var (depth, begin) = (1, i + 1);
            for (i++; i < line.Length && depth > 0; i++) depth += line[i] switch { '{' => 1, '}' => -1, _ => 0 };
            if (depth > 0) throw new UnknowableException(line.Trim());
            i--;
            filled.Append(MacroExpression.Written(ObjectExpression.Of(line[begin..i], KnownOfItself)));
        }
        return filled.ToString();
    }

    private bool Holds(int home, string condition)
    {
        try { return MacroExpression.True(ObjectExpression.Of(condition, KnownOfItself)); }
        catch (UnknowableException unknown)
        {
            Unfollow(home, unknown.What);
            _run.Hinges = true;
            return _open == OpenCondition.Holds;
        }
    }

    private void Assign(int home, string word, string rest)
    {
        var equals = rest.IndexOf('=', StringComparison.Ordinal);
        if (equals < 0) return;
        var name = rest[..equals].Trim();
        var shared = word == "global" || name.StartsWith("global.", StringComparison.Ordinal);
        name = name[(name.IndexOf('.', StringComparison.Ordinal) + 1)..];
        var values = shared ? _globals : _locals;
        try { values[shared ? name : "var." + name] = ObjectExpression.Of(rest[(equals + 1)..].Trim(), KnownOfItself); }
        catch (UnknowableException unknown)
        {
            values.Remove(shared ? name : "var." + name);
            Unfollow(home, unknown.What);
        }
    }

    private void CannotSee(int line, string name)
    {
        if (!_run.Unseen.Comes) (_run.Unseen, _run.UnseenName) = (Present(line), name);
    }

    private void Unfollow(int line, string what)
    {
        if (_run.Unfollowed.Count < UnknownKept && !_run.Unfollowed.Contains((line, what))) _run.Unfollowed.Add((line, what));
    }

    /// <summary>What a name in an expression stands for at this moment.</summary>
    private object? KnownOfItself(string name)
    {
        if (_locals.TryGetValue(name, out var local)) return local;
        if (name.StartsWith("global.", StringComparison.Ordinal) && _globals.TryGetValue(name["global.".Length..], out var shared))
            return shared;
        var index = Index().Match(name) is { Success: true } found
            ? int.Parse(found.Groups[1].ValueSpan, System.Globalization.CultureInfo.InvariantCulture) : 0;
        return Index().Replace(name, "[]", 1) switch
        {
            "move.axes" => new object?[3],
            "tools" => new object?[_tips.Length],
            "move.axes[].homed" when index < 3 => _homed[index],
            "move.axes[].min" when index < 3 && AxisFacts(index)?.Min is { } least => least,
            "move.axes[].max" when index < 3 && AxisFacts(index)?.Max is { } most => most,
            "move.axes[].machinePosition" when index < 3 => _at[index],
            "move.axes[].userPosition" when index < 3 => _at[index] - _shift[index],
            "move.axes[].letter" when index < 3 => "XYZ"[index].ToString(),
            "move.speedFactor" => _speedShare,
            "move.extruders[].factor" => _flowShare,
            "state.currentTool" => _noTool ? -1.0 : _tool,
            "heat.heaters[].current" when index == 0 && _run.Bed is { } bed => bed.At(Now(_line)),
            "heat.heaters[].active" when index == 0 && _run.Bed is { } bed => bed.Target,
            "heat.heaters[].current" when index > 0 && index <= _tips.Length => _run.Nozzles[index - 1].At(Now(_line)),
            "heat.heaters[].active" when index > 0 && index <= _tips.Length => _run.Nozzles[index - 1].Target,
            "tools[].active[0]" when index < _tips.Length => _run.Nozzles[index].Target,
            "fans[].actualValue" or "fans[].requestedValue" when index == 0 => _fan,
            _ => throw new UnknowableException(name),
        };
    }

    /// <summary>Runs a file that the card holds; what it does not hold could not be looked at.</summary>
    private Effect CallFile(int line, string path, IReadOnlyDictionary<string, object?> parameters)
    {
        if (_files.Find(path) is not { } lines)
        {
            CannotSee(line, path);
            return new Effect(EffectKind.Setting, -1, 0);
        }
        if (_depth >= DeepestMacro || _calls.Contains(path)) return Recursion(line, new Macro(path, ""));
        Settle(line);
        var call = new MacroCall(line, new Macro(path, string.Join('\n', lines)), new Dictionary<string, string>(), _depth, [], []);
        var kept = _run.MacroCalls.Count < CallsKept ? _run.MacroCalls.Count : -1;
        if (kept >= 0) _run.MacroCalls.Add(call);
        var (locals, steps) = (_locals, _steps);
        (_locals, _steps, _line) = (parameters.ToDictionary(StringComparer.Ordinal), kept >= 0 ? call.Steps : null, line);
        _depth++;
        _calls.Push(path);
        Run(CommandBlock.Of(lines), line, CancellationToken.None);
        _calls.Pop();
        _depth--;
        (_locals, _steps, _leaves) = (locals, steps, false);
        return new Effect(EffectKind.Macro, kept, 0);
    }

    /// <summary>M98: the file that P names, with the other words as its parameters.</summary>
    private Effect CallNamedFile(int line, ReadOnlySpan<byte> text)
    {
        var code = CommandBlock.WithoutComment(Encoding.UTF8.GetString(text));
        if (FileName().Match(code) is not { Success: true } file) return new Effect(EffectKind.Setting, -1, 0);
        var parameters = new Dictionary<string, object?>(StringComparer.Ordinal);
        foreach (Match word in Parameter().Matches(code.Remove(file.Index, file.Length)))
            parameters["param." + word.Groups["name"].Value.ToUpperInvariant()] =
                word.Groups["text"].Success ? word.Groups["text"].Value
                    : double.Parse(word.Groups["number"].ValueSpan, System.Globalization.CultureInfo.InvariantCulture);
        return CallFile(line, file.Groups[1].Value, parameters);
    }

    /// <summary>A change of tool with the files that go with it, as far as the card holds them.</summary>
    private Effect ToolWithFiles(int line, double tool)
    {
        var before = _noTool ? -1 : _tool;
        if (_files.Names.Count == 0 || tool == before) return Tool(tool);
        var none = new Dictionary<string, object?>();
        if (before >= 0) CallIfHeld(line, $"tfree{before}.g", none);
        if (tool >= 0) CallIfHeld(line, $"tpre{tool:0}.g", none);
        var effect = Tool(tool);
        if (tool >= 0) CallIfHeld(line, $"tpost{tool:0}.g", none);
        return effect;
    }

    private void CallIfHeld(int line, string file, Dictionary<string, object?> parameters)
    {
        if (_files.Find(file) is not null) CallFile(line, file, parameters);
    }

    [GeneratedRegex(@"\[(\d+)\]")]
    private static partial Regex Index();

    [GeneratedRegex(@"\bP\s*""([^""]+)""", RegexOptions.IgnoreCase)]
    private static partial Regex FileName();

    [GeneratedRegex(@"(?<=\s)(?<name>[A-Za-z])\s*(?:""(?<text>[^""]*)""|(?<number>[-+]?(?:\d+\.?\d*|\.\d+)))")]
    private static partial Regex Parameter();
}
