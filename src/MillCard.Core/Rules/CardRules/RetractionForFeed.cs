using MillCard.Core.Documents;
using MillCard.Core.Findings;

namespace MillCard.Core.Rules.CardRules;

/// <summary>A head's retraction that does not suit its feed. Common practice, no source.</summary>
public sealed class RetractionForFeed : ICardRule
{
    private const double DirectMost = 2, TubeLeast = 4, TubeMost = 7, SpeedLeast = 25, SpeedMost = 60, LiftMost = 0.5;

    /// <inheritdoc/>
    public RuleId Id { get; } = new("retraction-for-feed", Severity.Caution);

    /// <inheritdoc/>
    public IEnumerable<Finding> Look(Card card)
    {
        var nozzles = card.Head.Nozzles ?? [];
        for (var i = 0; i < nozzles.Count; i++)
        {
            if (nozzles[i] is not { Retraction: { } own, Feed: { } feed } nozzle) continue;
            var at = JsonPointer.Nozzle(i) / "retraction";
            if (feed.Kind == FeedKind.Direct && own.Length > DirectMost)
                yield return Id.At(at / "length",
                    $"Nozzle {nozzle.Id} pulls back {own.Length:0.##} mm; a direct feed wants {DirectMost:0} at most.",
                    "Molten filament is drawn into the cold part and sticks there.");
            if (feed.Kind == FeedKind.LongTube && own.Length is { } length && (length < TubeLeast || length > TubeMost))
                yield return Id.At(at / "length",
                    $"Nozzle {nozzle.Id} pulls back {length:0.##} mm; a long tube wants {TubeLeast:0} to {TubeMost:0}.",
                    length < TubeLeast ? "The play in the tube takes it up, and the nozzle strings."
                        : "The filament is ground or drawn out of the melt.");
            if (feed.Kind == FeedKind.LongTube && own.Speed is { } speed && (speed < SpeedLeast || speed > SpeedMost))
                yield return Id.At(at / "speed",
                    $"Nozzle {nozzle.Id} pulls back at {speed:0.#} mm/s; a long tube wants {SpeedLeast:0} to {SpeedMost:0}.",
                    "Slower strings, faster grinds.");
            if (own.Lift > LiftMost)
                yield return Id.At(at / "lift", $"Nozzle {nozzle.Id} hops {own.Lift:0.##} mm; {LiftMost:0.#} is enough.",
                    "Every hop costs time and leaves strings.");
        }
    }
}
