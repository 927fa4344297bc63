using MillCard.Core.Findings;
using MillCard.Core.Wording;

namespace MillCard.Core.Matching;

/// <summary>How a filament or a recipe goes with a card, the best first.</summary>
public enum Verdict
{
    /// <summary>It fits.</summary>
    Fits,
    /// <summary>It fits, but something is not known or not good.</summary>
    FitsWithCautions,
    /// <summary>It does not fit.</summary>
    DoesNotFit,
}

/// <summary>One reason of a verdict.</summary>
/// <param name="Code">What it is, kebab-case; stays when the sentence is worded anew.</param>
/// <param name="Verdict">How much it weighs.</param>
/// <param name="Message">A sentence with the numbers.</param>
/// <param name="Asks">Pointer of what asks, in the filament or recipe.</param>
/// <param name="Fact">Pointer of the card's fact that answers; null where no single one does.</param>
/// <param name="Strong">Whether a caution weighs more than others.</param>
public sealed record Reason(string Code, Verdict Verdict, string Message, string Asks, string? Fact = null, bool Strong = false)
{
    /// <summary>A reason with the values of its sentence.</summary>
    internal Reason(string code, Verdict verdict, Sentence message, string asks, string? fact = null, bool strong = false)
        : this(code, verdict, message.Text, asks, fact, strong) => Values = message.Values;

    /// <summary>Numbers and texts of the sentence by their names, as a script reads them; null where it has none.</summary>
    public IReadOnlyDictionary<string, object>? Values { get; init; }

    /// <summary>The same, told of one nozzle of several.</summary>
    internal Reason OfNozzle(string nozzle) => this with
    {
        Message = $"{nozzle}: {Message}",
        Values = new Dictionary<string, object>(Values ?? new Dictionary<string, object>()) { ["of"] = nozzle },
    };

    /// <summary>What it is, whatever its sentence: two of which this is equal are one.</summary>
    internal (string, string, string?, string) Identity => (Code, Asks, Fact, Sentence.KeyOf(Values));

    /// <summary>What would mend it, as edits of the document that asks; null where nothing can be computed.</summary>
    public Remedy? Remedy { get; init; }
}

/// <summary>A verdict with its reasons, the weightiest first.</summary>
/// <param name="Verdict">The worst of its reasons.</param>
/// <param name="Reasons">Empty where it simply fits.</param>
public sealed record Match(Verdict Verdict, IReadOnlyList<Reason> Reasons)
{
    internal static Match Of(IEnumerable<Reason> reasons)
    {
        Reason[] all = [.. reasons.OrderByDescending(r => (r.Verdict, r.Strong))];
        return new Match(all.Length == 0 ? Verdict.Fits : all[0].Verdict, all);
    }

    /// <summary>The best of several, such as those of a machine's nozzles.</summary>
    internal static Match Best(IEnumerable<Match> all) => all.MinBy(m => ((int)m.Verdict, m.Reasons.Count)) ?? new Match(Verdict.Fits, []);

    /// <summary>Both must fit.</summary>
    public Match And(Match other) => Of(Reasons.Concat(other.Reasons).DistinctBy(r => r.Identity));
}
