
namespace MillCard.Core.Macros;

/// <summary>Evaluates the expressions in braces of RepRapFirmware's command files: numbers, texts, variables, what the machine knows of
/// itself.</summary>
/// <remarks>The grammar is from memory of the firmware's public documentation.</remarks>
internal sealed class ObjectExpression : ExpressionText
{
    private readonly Func<string, object?> _read;

    private ObjectExpression(string text, Func<string, object?> read) : base(text) => _read = read;

    /// <summary>The value: a double, a string, a bool, a list or null.</summary>
    /// <param name="text">The expression without its braces.</param>
    /// <param name="read">What a name such as <c>move.axes[0].homed</c> stands for; throws for what is not known.</param>
    /// <exception cref="UnknowableException">It asks for what only the running printer knows, or is written in a way that is not
    /// followed.</exception>
    public static object? Of(string text, Func<string, object?> read)
    {
        var expression = new ObjectExpression(text, read);
        var value = expression.Choice();
        return expression.AtEnd() ? value : throw expression.Unfollowed();
    }

    private object? Choice() => Deeper(() =>
    {
        var value = Either();
        if (!Sign("?")) return value;
        var (yes, no) = (Choice(), Sign(":") ? Choice() : throw Unfollowed());
        return MacroExpression.True(value) ? yes : no;
    });

    private object? Either()
    {
        var value = Both();
        while (Sign("||") || Sign("|")) value = MacroExpression.True(Both()) | MacroExpression.True(value);
        return value;
    }

    private object? Both()
    {
        var value = Compared();
        while (Sign("&&") || Sign("&")) value = MacroExpression.True(Compared()) & MacroExpression.True(value);
        return value;
    }

    private object? Compared()
    {
        var left = Joined();
        foreach (var sign in new[] { "==", "!=", "<=", ">=", "=", "<", ">" })
        {
            if (!Sign(sign)) continue;
            var right = Joined();
            if (sign is "==" or "=") return Equals(left, right);
            if (sign is "!=") return !Equals(left, right);
            var order = Number(left).CompareTo(Number(right));
            return sign switch { "<" => order < 0, ">" => order > 0, "<=" => order <= 0, _ => order >= 0 };
        }
        return left;
    }

    private object? Joined()
    {
        var value = Sum();
        while (Sign("^")) value = MacroExpression.Written(value) + MacroExpression.Written(Sum());
        return value;
    }

    private object? Sum()
    {
        var value = Product();
        while (true)
        {
            if (Sign("+")) value = Number(value) + Number(Product());
            else if (Sign("-")) value = Number(value) - Number(Product());
            else return value;
        }
    }

    private object? Product()
    {
        var value = Single();
        while (true)
        {
            if (Sign("*")) value = Number(value) * Number(Single());
            else if (Sign("/")) value = Number(Single()) is var by && by != 0 ? Number(value) / by : throw Unfollowed();
            else return value;
        }
    }

    private object? Single() => Deeper(() =>
    {
        if (Sign("-")) return -Number(Single());
        if (Sign("+")) return Number(Single());
        if (Text.AsSpan(At).TrimStart() is not ['!', '=', ..] && Sign("!")) return !MacroExpression.True(Single());
        if (Sign("#")) return Length(Single());
        if (Sign("(")) return Closed(")");
        if (Sign("{")) return Closed("}");
        return Sign("[") ? Items("]") : Primary();
    });

    private double Length(object? value) => value switch
    {
        string text => text.Length,
        IReadOnlyList<object?> list => list.Count,
        _ => throw Unfollowed(),
    };

    private object? Closed(string closing) => Choice() is var inner && Sign(closing) ? inner : throw Unfollowed();

    private List<object?> Items(string closing)
    {
        var items = new List<object?>();
        while (!Sign(closing))
        {
            items.Add(Choice());
            Sign(",");
            if (AtEnd()) throw Unfollowed();
        }
        return items;
    }

    private object? Primary()
    {
        if (Literal() is { } literal) return literal;
        var name = Name() ?? throw Unfollowed();
        switch (name)
        {
            case "true": return true;
            case "false": return false;
            case "null": return null;
            case "pi": return Math.PI;
        }
        if (!Sign("(")) return Path(name);
        return name == "exists" ? Exists() : Function(name, Items(")"));
    }

    /// <summary>Members and elements behind a name, as one name for what is asked.</summary>
    private object? Path(string name)
    {
        while (At < Text.Length)
        {
            if (Text[At] == '.') { At++; name += "." + Name(); }
            else if (Sign("[")) name += Invariant($"[{Number(Closed("]")):0}]");
            else break;
        }
        return _read(name);
    }

    private bool Exists()
    {
        try
        {
            var there = Path(Name() ?? "") is not null;
            return Sign(")") ? there : throw Unfollowed();
        }
        catch (UnknowableException unknown) when (unknown.What.StartsWith("global.", StringComparison.Ordinal)
            || unknown.What.StartsWith("var.", StringComparison.Ordinal)
            || unknown.What.StartsWith("param.", StringComparison.Ordinal))
        {
            if (!Sign(")")) throw;
            return false;
        }
    }

    private object Function(string name, List<object?> given) => (name, given) switch
    {
        ("abs", [var a]) => Math.Abs(Number(a)),
        ("floor", [var a]) => Math.Floor(Number(a)),
        ("ceil", [var a]) => Math.Ceiling(Number(a)),
        ("round", [var a]) => Math.Round(Number(a), MidpointRounding.AwayFromZero),
        ("sqrt", [var a]) when Number(a) >= 0 => Math.Sqrt(Number(a)),
        ("mod", [var a, var b]) when Number(b) != 0 => Number(a) % Number(b),
        ("pow", [var a, var b]) => Math.Pow(Number(a), Number(b)),
        ("sin", [var a]) => Math.Sin(Number(a)),
        ("cos", [var a]) => Math.Cos(Number(a)),
        ("tan", [var a]) => Math.Tan(Number(a)),
        ("atan2", [var a, var b]) => Math.Atan2(Number(a), Number(b)),
        ("degrees", [var a]) => Number(a) * 180 / Math.PI,
        ("radians", [var a]) => Number(a) * Math.PI / 180,
        ("min", { Count: > 0 }) => given.Min(Number),
        ("max", { Count: > 0 }) => given.Max(Number),
        ("vector", [var count, var value]) when Number(count) is >= 0 and <= 1000 => Enumerable.Repeat(value, (int)Number(count)).ToArray(),
        _ => throw new UnknowableException(name),
    };

    private double Number(object? value) => value switch { double d => d, bool b => b ? 1 : 0, int i => i, _ => throw Unfollowed() };

    private static new bool Equals(object? a, object? b) => object.Equals(a is int i ? (double)i : a, b is int j ? (double)j : b);
}
