using System.Text;

namespace MillCard.Core.Macros;

/// <summary>What a macro writes when it is called.</summary>
/// <param name="Lines">Its G-code.</param>
/// <param name="Unfollowed">What only the running printer knows; lines and branches that hang on it are left out.</param>
/// <param name="Hinges">Whether a condition hangs on what is not known.</param>
public sealed record MacroOutput(IReadOnlyList<string> Lines, IReadOnlyList<string> Unfollowed, bool Hinges = false);

/// <summary>Writes macros out: parameters, variables, conditions, loops with known bounds and plain expressions are followed; what the
/// printer alone knows is not.</summary>
public sealed class MacroText
{
    private const int MostLines = 5000;
    private const int MostCharacters = 500_000;
    private const int MostTurns = 2000;
    private const int LongestLine = 2000;
    private const int Deepest = 60;
    private const char Unknown = '\u0001';

    private readonly IReadOnlyList<MacroPiece> _pieces;
    private readonly Dictionary<string, object?> _values;
    private readonly Func<string, object?>? _printer;
    private readonly List<string> _unfollowed = [];
    private readonly StringBuilder _text = new();
    private int _turns;
    private bool _hinges;

    private readonly OpenCondition _open;

    private MacroText(IReadOnlyList<MacroPiece> pieces, Dictionary<string, object?> values, Func<string, object?>? printer,
        OpenCondition open) =>
        (_pieces, _values, _printer, _open) = (pieces, values, printer, open);

    /// <summary>Writes a macro out.</summary>
    /// <param name="macro">The macro.</param>
    /// <param name="parameters">As given in the call, by name in capitals.</param>
    /// <param name="printer">What is known of the printer at this moment, by names such as <c>toolhead.homed_axes</c>; throws for what is
    /// not.</param>
    /// <param name="open">What conditions come to that hang on what is not known.</param>
    /// <param name="variables">The macro's own variables as they stand; those of its section where nothing is given.</param>
    public static MacroOutput Render(
        Macro macro, IReadOnlyDictionary<string, string> parameters, Func<string, object?>? printer = null, IReadOnlyDictionary<string,
            object?>? variables = null,
        OpenCondition open = OpenCondition.Fails)
    {
        var values = (variables ?? macro.Variables).ToDictionary();
        foreach (var (name, value) in parameters) values[$"params.{name}"] = value;
        values["rawparams"] = string.Join(' ', parameters.Select(p => $"{p.Key}={p.Value}"));
        var writing = new MacroText(MacroPiece.Of(macro.Text), values, printer, open);
        writing.Write(0, writing._pieces.Count, 0);
        var lines = writing._text.ToString().Split('\n').Select(WithoutComment).Where(l => l.Length > 0 && !l.Contains(Unknown))
            .Take(MostLines);
        return new MacroOutput([.. lines.Select(l => l.Length > LongestLine ? l[..LongestLine] : l)], [.. writing._unfollowed.Distinct()],
            writing._hinges);
    }

    // a hash begins a comment where it stands at the begin of a line or behind a blank
    private static string WithoutComment(string line)
    {
        var bare = line.Trim();
        if (bare.StartsWith('#')) return "";
        var hash = bare.IndexOf(" #", StringComparison.Ordinal);
        return hash < 0 ? bare : bare[..hash].TrimEnd();
    }

    /// <summary>Writes pieces from one to another.</summary>
    private void Write(int from, int to, int depth)
    {
        for (var at = from; at < to && _text.Length < MostCharacters; at++)
        {
            var piece = _pieces[at];
            switch (piece.Kind)
            {
                case MacroPieceKind.Text: _text.Append(piece.Text); break;
                case MacroPieceKind.Output: Output(piece.Text); break;
                case MacroPieceKind.Tag when depth < Deepest: at = Tag(piece.Text, at, to, depth); break;
            }
        }
    }

    private void Output(string expression)
    {
        // what only speaks, or ends the macro with a message, writes nothing
        if (expression.StartsWith("action_", StringComparison.Ordinal)) return;
        try { _text.Append(MacroExpression.Written(Value(expression))); }
        catch (UnknowableException unknown) { _unfollowed.Add(unknown.What); _text.Append(Unknown); }
    }

    /// <summary>Follows a tag; the place of the piece that it ends with.</summary>
    private int Tag(string tag, int at, int to, int depth)
    {
        var word = tag.Split(' ', 2)[0];
        var rest = tag[word.Length..];
        switch (word)
        {
            case "if": return If(rest, at, to, depth);
            case "for": return For(rest, at, to, depth);
            case "set" when rest.Split('=', 2) is [var name, var value]:
                try { _values[name.Trim()] = Value(value); }
                catch (UnknowableException unknown)
                {
                    _unfollowed.Add(unknown.What);
                    _values.Remove(name.Trim());
                }
                return at;
            case "macro" or "filter" or "call" or "block":
                _unfollowed.Add(tag);
                return End(at, to, word, $"end{word}") ?? to;
            default: return at;
        }
    }

    private int If(string condition, int at, int to, int depth)
    {
        var end = End(at, to, "if", "endif") ?? to;
        var done = false;
        for (var branch = at; branch < end;)
        {
            var next = Branch(branch, end);
            var tag = branch == at ? condition : _pieces[branch].Text;
            var asked = tag.StartsWith("elif", StringComparison.Ordinal) ? tag[4..] : null;
            if (branch == at) asked = condition;
            var runs = !done && (asked is null || Holds(asked));
            if (runs) Write(branch + 1, next, depth + 1);
            done |= runs;
            branch = next;
        }
        return end;
    }

    private int For(string loop, int at, int to, int depth)
    {
        var end = End(at, to, "for", "endfor") ?? to;
        if (loop.Split(" in ", 2) is not [var name, var over]) { _unfollowed.Add($"for{loop}"); return end; }
        try
        {
            foreach (var item in MacroExpression.ListOf(Value(over)))
            {
                if (++_turns > MostTurns) { _unfollowed.Add($"for{loop}"); break; }
                _values[name.Trim()] = item;
                Write(at + 1, end, depth + 1);
            }
        }
        catch (UnknowableException unknown) { _unfollowed.Add(unknown.What); }
        return end;
    }

    /// <summary>The next branch of a condition on the same level, or its end.</summary>
    private int Branch(int from, int end)
    {
        var level = 0;
        for (var i = from + 1; i < end; i++)
        {
            if (_pieces[i].Kind != MacroPieceKind.Tag) continue;
            var word = _pieces[i].Text.Split(' ', 2)[0];
            if (word == "if") level++;
            else if (word == "endif") level--;
            else if (level == 0 && word is "elif" or "else") return i;
        }
        return end;
    }

    private int? End(int from, int to, string begin, string end)
    {
        var level = 0;
        for (var i = from; i < to; i++)
        {
            if (_pieces[i].Kind != MacroPieceKind.Tag) continue;
            var word = _pieces[i].Text.Split(' ', 2)[0];
            if (word == begin) level++;
            else if (word == end && --level == 0) return i;
        }
        return null;
    }

    private bool Holds(string condition)
    {
        try { return MacroExpression.True(Value(condition)); }
        catch (UnknowableException unknown)
        {
            _unfollowed.Add(unknown.What);
            _hinges = true;
            return _open == OpenCondition.Holds;
        }
    }

    private object? Value(string expression) => MacroExpression.Of(expression, _values, _printer);
}
