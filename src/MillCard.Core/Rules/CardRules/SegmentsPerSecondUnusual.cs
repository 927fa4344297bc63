using MillCard.Core.Documents;
using MillCard.Core.Findings;

namespace MillCard.Core.Rules.CardRules;

/// <summary>A delta that cuts its moves into unusually few or many pieces. Common practice, no source.</summary>
public sealed class SegmentsPerSecondUnusual : ICardRule
{
    private const double Least = 60, Most = 200;

    /// <inheritdoc/>
    public RuleId Id { get; } = new("segments-per-second", Severity.Caution);

    /// <inheritdoc/>
    public IEnumerable<Finding> Look(Card card)
    {
        if (card.Motion is not { Layout: MotionLayout.Delta, Delta.SegmentsPerSecond: { } segments } || segments is >= Least and <= Most)
            yield break;
        yield return Id.At("/motion/delta/segmentsPerSecond", $"{segments:0} segments a second; {Least:0} to {Most:0} are usual.",
            segments < Least ? "Curves come out with flats." : "An 8-bit board cannot keep up and stutters.");
    }
}
