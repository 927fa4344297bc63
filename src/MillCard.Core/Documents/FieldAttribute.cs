namespace MillCard.Core.Documents;

/// <summary>All that is said about a fact or setting: its names, its unit, what is allowed, how it is typed, where it stands.</summary>
/// <remarks>The one source: the JSON schema, the refusal, the search and the field on every page are made from it.</remarks>
[AttributeUsage(AttributeTargets.Property)]
public sealed class FieldAttribute(string label, string unit = "") : Attribute
{
    /// <summary>Its name as it stands in a sentence, such as "bed width".</summary>
    public string Label { get; } = label;

    /// <summary>Unit, as printed; empty for a plain number or a word.</summary>
    public string Unit { get; } = unit;

    /// <summary>Its name below the heading of its group, such as "width"; <see cref="Label"/> where it has no shorter one.</summary>
    public string? Short { get; init; }

    /// <summary>Other words of the trade by which it is looked for, with commas between them.</summary>
    public string? Also { get; init; }

    /// <summary>Where to look for it on the machine, or what it means, in a few words.</summary>
    public string? Hint { get; init; }

    /// <summary>What holds where nothing is said, in a word or two.</summary>
    public string? Otherwise { get; init; }

    /// <summary>How it is typed.</summary>
    public FieldLook Look { get; init; }

    /// <summary>What of a trial may depart from it.</summary>
    public Departs Departs { get; init; }

    /// <summary>Pages on which it stands beside those of its own document.</summary>
    public FieldPages Pages { get; init; }

    /// <summary>The fact on which it makes sense: a member beside it, or a JSON pointer, that must be said; with =word, that must
    /// say so.</summary>
    public string? When { get; init; }

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

/// <summary>How a value is typed, where its type alone does not say.</summary>
public enum FieldLook
{
    /// <summary>As its type says.</summary>
    Plain,
    /// <summary>A share, typed in percent.</summary>
    Percent,
    /// <summary>A ratio, typed as such or in percent.</summary>
    Ratio,
    /// <summary>Several lines of G-code.</summary>
    Code,
    /// <summary>Pairs of numbers.</summary>
    Pairs,
}

/// <summary>What of a trial may have a setting of its own.</summary>
public enum Departs
{
    /// <summary>Nothing: it belongs to the whole print.</summary>
    Nothing,
    /// <summary>A part.</summary>
    Part,
    /// <summary>A part, and a zone within one.</summary>
    Zone,
}

/// <summary>Pages beside a document's own.</summary>
[Flags]
public enum FieldPages
{
    /// <summary>None.</summary>
    None = 0,
    /// <summary>The trial's page.</summary>
    Trial = 1,
    /// <summary>The card's sheet.</summary>
    Sheet = 2,
}

/// <summary>The heading under which a setting, or all settings below a member, stand; the nearest one counts.</summary>
[AttributeUsage(AttributeTargets.Property)]
public sealed class GroupAttribute(string title) : Attribute
{
    /// <summary>The heading.</summary>
    public string Title { get; } = title;

    /// <summary>What holds where nothing is said, for settings that do not say so themselves.</summary>
    public string? Otherwise { get; init; }
}

/// <summary>A fact of a record that is used in several places, as it is called in this one; it stands on the card's sheet.</summary>
[AttributeUsage(AttributeTargets.Property, AllowMultiple = true)]
public sealed class BelowAttribute(string member, string name) : Attribute
{
    /// <summary>Name of the fact in JSON, below this property.</summary>
    public string Member { get; } = member;

    /// <summary>What it is called here.</summary>
    public string Name { get; } = name;

    /// <inheritdoc cref="FieldAttribute.Hint"/>
    public string? Hint { get; init; }

    /// <inheritdoc cref="FieldAttribute.When"/>
    public string? When { get; init; }
}

/// <summary>What a choice is called where its own name is not enough.</summary>
[AttributeUsage(AttributeTargets.Field)]
public sealed class WordAttribute(string word) : Attribute
{
    /// <summary>In words.</summary>
    public string Word { get; } = word;
}
