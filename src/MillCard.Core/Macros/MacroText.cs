using System.Text;

namespace MillCard.Core.Macros;

/// <summary>What a macro writes when it is called.</summary>
/// <param name="Lines">Its G-code.</param>
/// <param name="Unfollowed">What only the running printer knows; lines and branches that hang on it are left out.</param>
public sealed record MacroOutput(IReadOnlyList<string> Lines, IReadOnlyList<string> Unfollowed);

/// <summary>Writes macros out: parameters, variables, conditions and plain expressions are followed; loops and what the printer alone knows are not.</summary>
public static class MacroText
{
    private const int MostLines = 5000;
    private const int LongestLine = 2000;

    /// <summary>Writes a macro out.</summary>
    /// <param name="macro">The macro.</param>
    /// <param name="parameters">As given in the call, by name in capitals.</param>
    public static MacroOutput Render(Macro macro, IReadOnlyDictionary<string, string> parameters)
    {
        var values = parameters.ToDictionary(p => $"params.{p.Key}", p => (object?)p.Value);
        var unfollowed = new List<string>();
        var open = new Stack<(bool Runs, bool Done)>();
        var loops = 0;
        var text = new StringBuilder();
        var at = 0;
        var source = macro.Text;
        while (at < source.Length && text.Length < MostLines * 100)
        {
            var brace = source.IndexOf('{', at);
            var runs = loops == 0 && open.All(o => o.Runs);
            if (brace < 0) { if (runs) text.Append(source, at, source.Length - at); break; }
            if (runs) text.Append(source, at, brace - at);
            var tag = brace + 1 < source.Length && source[brace + 1] == '%';
            var close = source.IndexOf(tag ? "%}" : "}", brace, StringComparison.Ordinal);
            if (close < 0) break;
            var inner = source[(brace + (tag ? 2 : 1))..close].Trim(' ', '-');
            at = close + (tag ? 2 : 1);
            if (tag) Tag(inner, runs);
            else if (runs)
                try { text.Append(MacroExpression.Written(MacroExpression.Of(inner, values))); }
                catch (UnknowableException unknown) { unfollowed.Add(unknown.What); text.Append(Unknown); }
        }
        var lines = text.ToString().Split('\n').Select(l => l.Trim()).Where(l => l.Length > 0 && !l.Contains(Unknown)).Take(MostLines).Select(l => l.Length > LongestLine ? l[..LongestLine] : l);
        return new MacroOutput([.. lines], [.. unfollowed.Distinct()]);

        void Tag(string inner, bool runs)
        {
            var word = inner.Split(' ', 2)[0];
            var rest = inner[word.Length..];
            switch (word)
            {
                case "for": loops++; if (runs) unfollowed.Add(inner); break;
                case "endfor": loops = Math.Max(0, loops - 1); break;
                case "if" when loops == 0: open.Push(runs && Holds(rest) ? (true, true) : (false, !runs)); break;
                case "elif" when loops == 0 && open.TryPop(out var before): open.Push(before.Done ? (false, true) : Holds(rest) ? (true, true) : (false, false)); break;
                case "else" when loops == 0 && open.TryPop(out var last): open.Push((!last.Done, true)); break;
                case "endif" when loops == 0: open.TryPop(out _); break;
                case "set" when runs && rest.Split('=', 2) is [var name, var value]:
                    try { values[name.Trim()] = MacroExpression.Of(value, values); }
                    catch (UnknowableException unknown) { unfollowed.Add(unknown.What); }
                    break;
            }
        }

        bool Holds(string condition)
        {
            try { return MacroExpression.True(MacroExpression.Of(condition, values)); }
            catch (UnknowableException unknown) { unfollowed.Add(unknown.What); return false; }
        }
    }

    private const char Unknown = '\u0001';
}
