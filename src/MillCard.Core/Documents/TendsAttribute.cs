namespace MillCard.Core.Documents;

/// <summary>What a print can be better or worse in.</summary>
public enum Outcome
{
    /// <summary>How long it takes.</summary>
    Time,
    /// <summary>How much it bears.</summary>
    Strength,
    /// <summary>How it looks and feels.</summary>
    Surface,
    /// <summary>How true its measures are.</summary>
    Accuracy,
    /// <summary>How well it holds on the bed.</summary>
    Adhesion,
}

/// <summary>How a setting tends to move an outcome when it is raised.</summary>
/// <param name="Outcome">Which.</param>
/// <param name="By">From −3, much worse, to 3, much better; shorter time is better.</param>
public sealed record Tendency(Outcome Outcome, int By);

/// <summary>What raising a setting tends to do, from −3, much worse, to 3, much better; shorter time is better. 0 for a choice that
/// bears on an outcome without a direction. Common practice, no source.</summary>
[AttributeUsage(AttributeTargets.Property)]
public sealed class TendsAttribute(string says) : Attribute
{
    private readonly SortedDictionary<Outcome, int> _by = [];

    /// <summary>In a line.</summary>
    public string Says { get; } = says;

    /// <summary>On time.</summary>
    public int Time { get => By(Outcome.Time); init => _by[Outcome.Time] = value; }
    /// <summary>On strength.</summary>
    public int Strength { get => By(Outcome.Strength); init => _by[Outcome.Strength] = value; }
    /// <summary>On the surface.</summary>
    public int Surface { get => By(Outcome.Surface); init => _by[Outcome.Surface] = value; }
    /// <summary>On accuracy.</summary>
    public int Accuracy { get => By(Outcome.Accuracy); init => _by[Outcome.Accuracy] = value; }
    /// <summary>On how it holds.</summary>
    public int Adhesion { get => By(Outcome.Adhesion); init => _by[Outcome.Adhesion] = value; }

    /// <summary>The outcomes that were named.</summary>
    public IReadOnlyList<Tendency> Tendencies => [.. _by.Select(b => new Tendency(b.Key, b.Value))];

    private int By(Outcome outcome) => _by.GetValueOrDefault(outcome);
}
