using MillCard.Core.Wording;

namespace MillCard.Core.Routines;

/// <summary>Why a routine cannot be written out.</summary>
/// <param name="Line">Counted from 1.</param>
/// <param name="Column">Counted from 1.</param>
/// <param name="Message">A sentence.</param>
public sealed record RoutineProblem(int Line, int Column, string Message)
{
    /// <summary>The word that stands there and the one that is likely meant; null where none is near.</summary>
    public (string Wrong, string Meant)? Instead { get; init; }

    /// <summary>The problem with the place where it is.</summary>
    /// <param name="title">What is read, such as "Start routine".</param>
    internal Sentence In(string title) => Sentence.Of($"{title}, line {Line}, column {Column}: {Message}");

    /// <summary>The line with the word that is meant; null where none is known or the line has no such word.</summary>
    internal string? Mended(string text)
    {
        var lines = text.Split('\n');
        if (Instead is not var (wrong, meant) || Line < 1 || Line > lines.Length) return null;
        var (line, at) = (lines[Line - 1].TrimEnd('\r'), Column - 1);
        return at >= 0 && at <= line.Length && line.AsSpan(at).StartsWith(wrong) ? line[..at] + meant + line[(at + wrong.Length)..] : null;
    }
}

/// <summary>A routine cannot be written out.</summary>
public sealed class RoutineException : Exception
{
    /// <summary>With what is wrong.</summary>
    public RoutineException(string moment, IReadOnlyList<RoutineProblem> problems)
        : base(problems[0].In($"{moment} routine").Text) =>
            (Moment, Problems) = (moment, problems);

    /// <summary>The same, with the place of the text.</summary>
    internal RoutineException In(string pointer) => new(Moment, Problems) { Pointer = pointer };

    /// <summary>With a sentence.</summary>
    public RoutineException(string message) : base(message) { }
    /// <summary>With a sentence and a cause.</summary>
    public RoutineException(string message, Exception inner) : base(message, inner) { }
    /// <summary>Without a sentence.</summary>
    public RoutineException() { }

    /// <summary>Which routine.</summary>
    public string Moment { get; } = "";
    /// <summary>Where its text stands in the card, or in the filament below <c>/filament</c>; null where that is not known.</summary>
    public string? Pointer { get; private init; }
    /// <summary>What is wrong.</summary>
    public IReadOnlyList<RoutineProblem> Problems { get; } = [];
}
