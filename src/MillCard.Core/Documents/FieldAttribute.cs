namespace MillCard.Core.Documents;

/// <summary>What the schema says about a fact: its name in a sentence, its unit, what is allowed.</summary>
/// <remarks>The one source of a fact's limits: the JSON schema, the refusal and the screen's field all come from here.</remarks>
[AttributeUsage(AttributeTargets.Property)]
public sealed class FieldAttribute(string label, string unit = "") : Attribute
{
    /// <summary>The fact's name as it stands in a sentence, such as "bed width".</summary>
    public string Label { get; } = label;

    /// <summary>Unit, as printed; empty for a plain number or a word.</summary>
    public string Unit { get; } = unit;

    /// <summary>The value must be above this; NaN where there is no such limit.</summary>
    public double Above { get; init; } = double.NaN;

    /// <summary>The value must be at least this; NaN where there is no such limit.</summary>
    public double AtLeast { get; init; } = double.NaN;

    /// <summary>The value may be at most this; NaN where there is no such limit.</summary>
    public double AtMost { get; init; } = double.NaN;

    /// <summary>A complete document has it; a draft may still lack it. Never defaulted in silence.</summary>
    public bool Needed { get; init; }

    /// <summary>Longest text, or most entries of a list; 0 where there is no such limit.</summary>
    public int Most { get; init; }

    /// <summary>Fewest entries of a list.</summary>
    public int Fewest { get; init; }
}
