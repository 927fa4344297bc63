using System.Globalization;

namespace MillCard.Core.Macros;

/// <summary>A macro asks for something that only the running printer knows.</summary>
internal sealed class UnknowableException(string what) : Exception
{
    public string What { get; } = what;
}

/// <summary>The text of an expression, read from left to right: signs, names, literals, and how deep it is nested.</summary>
internal abstract class ExpressionText(string text)
{
    private const int Deepest = 60;
    private int _depth;

    /// <summary>The whole expression.</summary>
    protected string Text { get; } = text;
    /// <summary>Where the next thing stands.</summary>
    protected int At { get; set; }

    /// <summary>Goes one level deeper; what is nested without end is not followed.</summary>
    protected T Deeper<T>(Func<T> part)
    {
        if (++_depth > Deepest) throw Unfollowed();
        try { return part(); }
        finally { _depth--; }
    }

    /// <summary>What is said where the text is written in a way that is not followed.</summary>
    protected UnknowableException Unfollowed() => new(Text.Trim());

    /// <summary>Passes over blanks; whether nothing stands behind them.</summary>
    protected bool AtEnd()
    {
        while (At < Text.Length && char.IsWhiteSpace(Text[At])) At++;
        return At == Text.Length;
    }

    /// <summary>Passes over a sign where it stands next; one slash is not the begin of two.</summary>
    protected bool Sign(string sign)
    {
        AtEnd();
        if (!Text.AsSpan(At).StartsWith(sign) || sign == "/" && Text.AsSpan(At).StartsWith("//")) return false;
        At += sign.Length;
        return true;
    }

    /// <summary>The name that stands next; null where none does.</summary>
    protected string? Name()
    {
        AtEnd();
        var start = At;
        while (At < Text.Length && (char.IsLetterOrDigit(Text[At]) || Text[At] == '_')) At++;
        return At > start ? Text[start..At] : null;
    }

    /// <summary>The text in quotes or the number that stands next; null where neither does.</summary>
    protected object? Literal()
    {
        if (AtEnd()) throw Unfollowed();
        var (start, first) = (At, Text[At]);
        if (first is '"' or '\'')
        {
            var end = Text.IndexOf(first, start + 1);
            if (end < 0) throw Unfollowed();
            At = end + 1;
            return Text[(start + 1)..end];
        }
        if (!char.IsAsciiDigit(first) && first != '.') return null;
        while (At < Text.Length && (char.IsAsciiDigit(Text[At]) || Text[At] == '.')) At++;
        return double.TryParse(Text.AsSpan(start, At - start), CultureInfo.InvariantCulture, out var number) ? number : throw Unfollowed();
    }
}
