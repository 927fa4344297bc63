namespace MillCard.Core.Flavours;

/// <summary>What decides whether an E word is a length or a position.</summary>
public enum ExtrusionCounts
{
    /// <summary>The last of G90, G91, M82 and M83.</summary>
    Last,
    /// <summary>A length after M83, and under G91 too; back to what M82 and M83 say at G90.</summary>
    Either,
    /// <summary>M82 and M83 alone.</summary>
    Own,
}

/// <summary>How E words count as a program goes on.</summary>
/// <param name="By">What decides it in the dialect.</param>
public readonly record struct ExtrusionCount(ExtrusionCounts By)
{
    private bool Positions { get; init; }
    private bool Own { get; init; }

    /// <summary>Whether an E word is a length.</summary>
    public bool Relative => Own || Positions && By == ExtrusionCounts.Either;

    /// <summary>After a command; those that do not bear on it change nothing.</summary>
    public ExtrusionCount After(Meaning meaning) => meaning switch
    {
        Meaning.Relative or Meaning.Absolute =>
            this with { Positions = meaning == Meaning.Relative, Own = By == ExtrusionCounts.Last ? meaning == Meaning.Relative : Own },
        Meaning.ExtrusionRelative => this with { Own = true },
        Meaning.ExtrusionAbsolute => this with { Own = false },
        _ => this,
    };
}
