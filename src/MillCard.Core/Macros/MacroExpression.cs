using System.Globalization;

namespace MillCard.Core.Macros;

/// <summary>Evaluates the expressions of macro templates: numbers, texts, parameters, variables, arithmetic, comparisons,
/// filters.</summary>
internal sealed class MacroExpression : ExpressionText
{
    private const int LongestRange = 2000;
    private const string Printer = "printer.";
    private readonly IReadOnlyDictionary<string, object?> _values;
    private readonly Func<string, object?>? _printer;

    private MacroExpression(string text, IReadOnlyDictionary<string, object?> values, Func<string, object?>? printer) : base(text) =>
        (_values, _printer) = (values, printer);

    /// <summary>The value: a double, a string, a bool or null.</summary>
    /// <param name="text">The expression.</param>
    /// <param name="values">Parameters as <c>params.NAME</c>, variables by their name.</param>
    /// <param name="printer">What is known of the printer, by what stands behind <c>printer.</c>; throws for what is not.</param>
    /// <exception cref="UnknowableException">It asks for a name that is not among the values, or is written in a way that is not
    /// followed.</exception>
    public static object? Of(string text, IReadOnlyDictionary<string, object?> values, Func<string, object?>? printer = null)
    {
        var expression = new MacroExpression(text, values, printer);
        var value = expression.Either();
        return expression.AtEnd() ? value : throw expression.Unfollowed();
    }

    /// <summary>The members of a value that a loop goes through.</summary>
    /// <exception cref="UnknowableException">It has none.</exception>
    public static IEnumerable<object?> ListOf(object? value) => value switch
    {
        IReadOnlyList<object?> list => list,
        string text => text.Select(c => (object?)c.ToString()),
        _ => throw new UnknowableException(Written(value)),
    };

    /// <summary>Whether a value counts as true.</summary>
    public static bool True(object? value) => value switch
    {
        null => false,
        bool b => b,
        double d => d != 0,
        string s => s.Length > 0,
        IReadOnlyList<object?> list => list.Count > 0,
        _ => true
    };

    /// <summary>A value as it is written into G-code.</summary>
    public static string Written(object? value) => value switch
    {
        double d => d == Math.Floor(d) && Math.Abs(d) < 1e15 ? Invariant($"{d:0}")
            : Invariant($"{d:0.######}"),
        bool b => b ? "True" : "False",
        null => "",
        IReadOnlyList<object?> list => string.Join(", ", list.Select(Written)),
        _ => (string)value,
    };

    private object? Either()
    {
        var value = Both();
        while (Word("or")) { var right = Both(); value = True(value) ? value : right; }
        if (!Word("if")) return value;
        var condition = Both();
        object? other = Word("else") ? Deeper(Either) : null;
        return True(condition) ? value : other;
    }

    private object? Both()
    {
        var value = Not();
        while (Word("and")) { var right = Not(); value = True(value) ? right : value; }
        return value;
    }

    private object? Not() => Word("not") ? !True(Deeper(Not)) : Compared();

    private object? Compared()
    {
        // whether a name is there at all can be asked of a name that is not
        object? left;
        try { left = Sum(); }
        catch (UnknowableException unknown) when (Word("is") && IsMissing(unknown))
        {
            var not = Word("not");
            if (Word("defined")) return not;
            return Word("undefined") || Word("none") ? !not : throw Unfollowed();
        }
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
            if (Word("defined")) return !not;
            if (Word("undefined")) return not;
            return Word("none") ? left is null != not : throw Unfollowed();
        }
        var outside = Word("not");
        if (outside || Word("in"))
        {
            if (outside && !Word("in")) throw Unfollowed();
            var whole = Sum();
            var inside = whole is string all ? all.Contains(Written(left), StringComparison.Ordinal) : ListOf(whole)
                .Any(one => Equals(one, left));
            return inside != outside;
        }
        return left;
    }

    private object? Sum()
    {
        var value = Product();
        while (true)
        {
            if (Sign("+")) value = Product() is var right && (value is string || right is string) ? Written(value) + Written(right)
                : Number(value) + Number(right);
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
        if (Sign("-")) return -Number(Deeper(Filtered));
        // a missing name may have a default behind it
        string? missing = null;
        object? value = null;
        try { value = Primary(); }
        catch (UnknowableException unknown) when (At < Text.Length && Text.AsSpan(At).TrimStart().StartsWith("|")
            && IsMissing(unknown))
        { missing = unknown.What; }
        while (Sign("|"))
        {
            var name = Name() ?? throw Unfollowed();
            var arguments = new List<object?>();
            if (Sign("("))
                while (!Sign(")"))
                {
                    arguments.Add(Either());
                    Sign(",");
                    if (At >= Text.Length) throw Unfollowed();
                }
            if (name == "default")
            {
                if (missing is not null
                || value is null) (value, missing) = (arguments.FirstOrDefault(), null); continue;
            }
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
                "length" or "count" => value is string text ? (double)text.Length : ListOf(value).Count(),
                "trim" => Written(value).Trim(),
                "min" => ListOf(value).Min(Number),
                "max" => ListOf(value).Max(Number),
                "first" => ListOf(value).FirstOrDefault(),
                "last" => ListOf(value).LastOrDefault(),
                "list" => ListOf(value).ToArray(),
                "replace" when arguments is [var old, var by] => Written(value)
                    .Replace(Written(old), Written(by), StringComparison.Ordinal),
                _ => throw new UnknowableException($"| {name}"),
            };
        }
        return missing is null ? value : throw new UnknowableException(missing);
    }

    private object? Primary() => Deeper(() =>
    {
        if (AtEnd()) throw Unfollowed();
        if (Sign("(")) return Bracketed();
        if (Sign("[")) return Items("]");
        return Literal() ?? Named();
    });

    /// <summary>One in brackets is itself, several are a list.</summary>
    private object? Bracketed()
    {
        var inner = Either();
        if (Sign(")")) return inner;
        var several = new List<object?> { inner };
        while (Sign(","))
        {
            if (Sign(")")) return several;
            several.Add(Either());
        }
        return Sign(")") ? several : throw Unfollowed();
    }

    private object? Named()
    {
        var name = Name() ?? throw Unfollowed();
        switch (name)
        {
            case "true" or "True": return true;
            case "false" or "False": return false;
            case "none" or "None": return null;
            case "range" when Sign("("): return Range(Items(")"));
        }
        while (At < Text.Length)
        {
            if (Sign("."))
            {
                var member = Name() ?? throw Unfollowed();
                if (Sign("(")) return Method(name, member, Items(")"));
                name += "." + member;
            }
            else if (Sign("["))
            {
                name += "." + Written(Either());
                if (!Sign("]")) throw Unfollowed();
            }
            else break;
        }
        return Read(name);
    }

    private object? Read(string name)
    {
        var key = name.StartsWith(Params, StringComparison.Ordinal) ? Params + name[Params.Length..].ToUpperInvariant() : name;
        if (_values.TryGetValue(key, out var value)) return value;
        return key.StartsWith(Printer, StringComparison.Ordinal) && _printer is not null ? _printer(key[Printer.Length..])
            : throw new UnknowableException(key);
    }

    private const string Params = "params.";

    /// <summary>Whether a name that is not there is known not to be: parameters and variables are, what the printer knows is not.</summary>
    private static bool IsMissing(UnknowableException unknown) => !unknown.What.StartsWith(Printer, StringComparison.Ordinal)
        && unknown.What.All(c => char.IsLetterOrDigit(c) || c is '_' or '.' or ' ');

    private object? Method(string name, string method, IReadOnlyList<object?> arguments) => method switch
    {
        "split" => Written(Read(name)).Split(arguments.Count > 0 ? Written(arguments[0]) : " ", StringSplitOptions.RemoveEmptyEntries)
            .Cast<object?>().ToArray(),
        "lower" => Written(Read(name)).ToLowerInvariant(),
        "upper" => Written(Read(name)).ToUpperInvariant(),
        "strip" => Written(Read(name)).Trim(),
        "startswith" when arguments is [var begin] => Written(Read(name)).StartsWith(Written(begin), StringComparison.Ordinal),
        "endswith" when arguments is [var end] => Written(Read(name)).EndsWith(Written(end), StringComparison.Ordinal),
        "get" when arguments.Count > 0 => _values.TryGetValue(
            $"{name}.{(name == "params" ? Written(arguments[0]).ToUpperInvariant() : Written(arguments[0]))}", out var value) ? value
            : arguments.ElementAtOrDefault(1),
        _ => throw new UnknowableException($"{name}.{method}"),
    };

    private List<object?> Items(string closing)
    {
        var items = new List<object?>();
        while (!Sign(closing))
        {
            items.Add(Either());
            Sign(",");
            if (At >= Text.Length && !Text.EndsWith(closing, StringComparison.Ordinal) || items.Count > LongestRange) throw Unfollowed();
        }
        return items;
    }

    private IReadOnlyList<object?> Range(IReadOnlyList<object?> bounds)
    {
        var numbers = bounds.Select(Number).ToArray();
        var (from, to, step) = numbers switch
        {
            [var end] => (0.0, end, 1.0),
            [var begin, var end] => (begin, end, 1.0),
            [var begin, var end, var by] => (begin, end, by),
            _ => throw Unfollowed()
        };
        if (step == 0 || Math.Abs((to - from) / step) > LongestRange) throw Unfollowed();
        var list = new List<object?>();
        for (var i = from; step > 0 ? i < to : i > to; i += step) list.Add(i);
        return list;
    }

    private static double Number(object? value) => value switch
    {
        double d => d,
        bool b => b ? 1 : 0,
        string s when double.TryParse(s, CultureInfo.InvariantCulture, out var d) => d,
        _ => throw new UnknowableException(Written(value)),
    };

    private double NotZero(double value) => value != 0 ? value : throw Unfollowed();

    private static new bool Equals(object? a, object? b) => (a, b) switch
    {
        (string text, double number) => double.TryParse(text, CultureInfo.InvariantCulture, out var told) && told == number,
        (double, string) => Equals(b, a),
        _ => object.Equals(a, b),
    };

    private bool Word(string word)
    {
        AtEnd();
        var end = At + word.Length;
        if (!Text.AsSpan(At).StartsWith(word) || end < Text.Length && (char.IsLetterOrDigit(Text[end]) || Text[end] == '_'))
            return false;
        At = end;
        return true;
    }
}
