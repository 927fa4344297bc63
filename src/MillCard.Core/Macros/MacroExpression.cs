using System.Globalization;

namespace MillCard.Core.Macros;

/// <summary>A macro asks for something that only the running printer knows.</summary>
internal sealed class UnknowableException(string what) : Exception
{
    public string What { get; } = what;
}

/// <summary>Evaluates the expressions of macro templates: numbers, texts, parameters, variables, arithmetic, comparisons, filters.</summary>
internal sealed class MacroExpression
{
    private const int Deepest = 60;
    private readonly string _text;
    private readonly IReadOnlyDictionary<string, object?> _values;
    private int _at, _depth;

    private MacroExpression(string text, IReadOnlyDictionary<string, object?> values) => (_text, _values) = (text, values);

    /// <summary>The value: a double, a string, a bool or null.</summary>
    /// <param name="text">The expression.</param>
    /// <param name="values">Parameters as <c>params.NAME</c>, variables by their name.</param>
    /// <exception cref="UnknowableException">It asks for a name that is not among the values, or is written in a way that is not followed.</exception>
    public static object? Of(string text, IReadOnlyDictionary<string, object?> values)
    {
        var expression = new MacroExpression(text, values);
        var value = expression.Either();
        expression.Blanks();
        return expression._at == text.Length ? value : throw new UnknowableException(text.Trim());
    }

    /// <summary>Whether a value counts as true.</summary>
    public static bool True(object? value) => value switch { null => false, bool b => b, double d => d != 0, string s => s.Length > 0, _ => true };

    /// <summary>A value as it is written into G-code.</summary>
    public static string Written(object? value) => value switch
    {
        double d => d == Math.Floor(d) && Math.Abs(d) < 1e15 ? d.ToString("0", CultureInfo.InvariantCulture) : d.ToString("0.######", CultureInfo.InvariantCulture),
        bool b => b ? "True" : "False",
        null => "",
        _ => (string)value,
    };

    private object? Either()
    {
        var value = Both();
        while (Word("or")) { var right = Both(); value = True(value) ? value : right; }
        if (!Word("if")) return value;
        var condition = Both();
        object? other = Word("else") ? Either() : null;
        return True(condition) ? value : other;
    }

    private object? Both()
    {
        var value = Not();
        while (Word("and")) { var right = Not(); value = True(value) ? right : value; }
        return value;
    }

    private object? Not() => Word("not") ? !True(Not()) : Compared();

    private object? Compared()
    {
        var left = Sum();
        foreach (var sign in new[] { "==", "!=", "<=", ">=", "<", ">" })
        {
            if (!Sign(sign)) continue;
            var right = Sum();
            if (sign is "==" or "!=") return Equals(left, right) == (sign == "==");
            var order = left is string a && right is string b ? string.CompareOrdinal(a, b) : Number(left).CompareTo(Number(right));
            return sign switch { "<" => order < 0, ">" => order > 0, "<=" => order <= 0, _ => order >= 0 };
        }
        if (Word("is"))
        {
            var not = Word("not");
            return Word("defined") ? left is not null != not : Word("none") ? left is null != not : throw Unfollowed();
        }
        return left;
    }

    private object? Sum()
    {
        var value = Product();
        while (true)
        {
            if (Sign("+")) value = Product() is var right && (value is string || right is string) ? Written(value) + Written(right) : Number(value) + Number(right);
            else if (Sign("-")) value = Number(value) - Number(Product());
            else if (Sign("~")) value = Written(value) + Written(Product());
            else return value;
        }
    }

    private object? Product()
    {
        var value = Filtered();
        while (true)
        {
            if (Sign("*")) value = Number(value) * Number(Filtered());
            else if (Sign("//")) value = Math.Floor(Number(value) / NotZero(Number(Filtered())));
            else if (Sign("/")) value = Number(value) / NotZero(Number(Filtered()));
            else if (Sign("%")) value = Number(value) % NotZero(Number(Filtered()));
            else return value;
        }
    }

    private object? Filtered()
    {
        if (Sign("-")) return -Number(Filtered());
        // a missing name may have a default behind it
        string? missing = null;
        object? value = null;
        try { value = Primary(); }
        catch (UnknowableException unknown) when (_at < _text.Length && _text.AsSpan(_at).TrimStart().StartsWith("|") && unknown.What.StartsWith("params.", StringComparison.Ordinal)) { missing = unknown.What; }
        while (Sign("|"))
        {
            var name = Name() ?? throw Unfollowed();
            var arguments = new List<object?>();
            if (Sign("("))
                while (!Sign(")"))
                {
                    arguments.Add(Either());
                    Sign(",");
                    if (_at >= _text.Length) throw Unfollowed();
                }
            if (name == "default") { if (missing is not null || value is null) (value, missing) = (arguments.FirstOrDefault(), null); continue; }
            if (missing is not null) throw new UnknowableException(missing);
            value = name switch
            {
                "float" => Number(value),
                "int" => Math.Truncate(Number(value)),
                "abs" => Math.Abs(Number(value)),
                "round" => Math.Round(Number(value), arguments.Count > 0 ? Math.Clamp((int)Number(arguments[0]), 0, 10) : 0),
                "upper" => Written(value).ToUpperInvariant(),
                "lower" => Written(value).ToLowerInvariant(),
                "string" => Written(value),
                _ => throw new UnknowableException($"| {name}"),
            };
        }
        return missing is null ? value : throw new UnknowableException(missing);
    }

    private object? Primary()
    {
        if (++_depth > Deepest) throw Unfollowed();
        try
        {
            Blanks();
            if (_at >= _text.Length) throw Unfollowed();
            if (Sign("("))
            {
                var inner = Either();
                return Sign(")") ? inner : throw Unfollowed();
            }
            var c = _text[_at];
            if (c is '"' or '\'')
            {
                var end = _text.IndexOf(c, _at + 1);
                if (end < 0) throw Unfollowed();
                var text = _text[(_at + 1)..end];
                _at = end + 1;
                return text;
            }
            if (char.IsAsciiDigit(c) || c == '.')
            {
                var start = _at;
                while (_at < _text.Length && (char.IsAsciiDigit(_text[_at]) || _text[_at] == '.')) _at++;
                return double.TryParse(_text.AsSpan(start, _at - start), CultureInfo.InvariantCulture, out var number) ? number : throw Unfollowed();
            }
            return Named();
        }
        finally { _depth--; }
    }

    private object? Named()
    {
        var name = Name() ?? throw Unfollowed();
        switch (name)
        {
            case "true" or "True": return true;
            case "false" or "False": return false;
            case "none" or "None": return null;
        }
        while (_at < _text.Length)
        {
            if (Sign(".")) name += "." + (Name() ?? throw Unfollowed());
            else if (Sign("["))
            {
                name += "." + Written(Either());
                if (!Sign("]")) throw Unfollowed();
            }
            else break;
        }
        var key = name.StartsWith("params.", StringComparison.Ordinal) ? "params." + name[7..].ToUpperInvariant() : name;
        return _values.TryGetValue(key, out var value) ? value : throw new UnknowableException(key);
    }

    private static double Number(object? value) => value switch
    {
        double d => d,
        bool b => b ? 1 : 0,
        string s when double.TryParse(s, CultureInfo.InvariantCulture, out var d) => d,
        _ => throw new UnknowableException(Written(value)),
    };

    private double NotZero(double value) => value != 0 ? value : throw Unfollowed();

    private static new bool Equals(object? a, object? b) =>
        a is string s && b is double ? double.TryParse(s, CultureInfo.InvariantCulture, out var d) && d == (double)b : b is string && a is double ? Equals(b, a) : object.Equals(a, b);

    private UnknowableException Unfollowed() => new(_text.Trim());

    private void Blanks()
    {
        while (_at < _text.Length && char.IsWhiteSpace(_text[_at])) _at++;
    }

    private bool Sign(string sign)
    {
        Blanks();
        if (!_text.AsSpan(_at).StartsWith(sign)) return false;
        if (sign == "/" && _text.AsSpan(_at).StartsWith("//")) return false;
        _at += sign.Length;
        return true;
    }

    private bool Word(string word)
    {
        Blanks();
        var end = _at + word.Length;
        if (!_text.AsSpan(_at).StartsWith(word) || end < _text.Length && (char.IsLetterOrDigit(_text[end]) || _text[end] == '_')) return false;
        _at = end;
        return true;
    }

    private string? Name()
    {
        Blanks();
        var start = _at;
        while (_at < _text.Length && (char.IsLetterOrDigit(_text[_at]) || _text[_at] == '_')) _at++;
        return _at > start ? _text[start.._at] : null;
    }
}
