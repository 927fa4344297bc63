using MillCard.Core.Documents;
using MillCard.Core.Findings;

namespace MillCard.Core.Rules;

/// <summary>What the rack shows of a card.</summary>
/// <param name="Bed">Shape and size.</param>
/// <param name="Origin">Machine zero in the bed frame.</param>
/// <param name="Height">mm.</param>
/// <param name="KeepOuts">Regions to stay out of.</param>
/// <param name="Nozzles">Bores, mm, and materials.</param>
/// <param name="Flavour">The dialect.</param>
/// <param name="Stops">Findings of that severity, accepted ones left out.</param>
/// <param name="Cautions">Findings of that severity, accepted ones left out.</param>
/// <param name="Notes">Findings of that severity, accepted ones left out.</param>
public sealed record CardSummary(
    Bed? Bed, Position? Origin, double? Height, IReadOnlyList<KeepOut> KeepOuts, IReadOnlyList<NozzleSummary> Nozzles, FlavourId? Flavour,
        int Stops, int Cautions, int Notes)
{
    /// <summary>How it moves; null where nobody has said.</summary>
    public MotionLayout? Layout { get; init; }
    /// <summary>Words by which its owner finds it again.</summary>
    public IReadOnlyList<string> Tags { get; init; } = [];
    /// <summary>What is around it; null where nobody has said.</summary>
    public Housing? Housing { get; init; }
    /// <summary>The pattern that it was made from; null where it was made from none.</summary>
    public PatternOrigin? Pattern { get; init; }

    /// <summary>Of a card, complete or not.</summary>
    public static CardSummary Of(Card card)
    {
        var open = RuleBook.Check(card).Where(f => f.AcceptedBecause is null).CountBy(f => f.Severity).ToDictionary();
        return new CardSummary(card.Envelope.Bed, card.Envelope.Origin, card.Envelope.Height, card.Envelope.KeepOuts,
            [.. (card.Head.Nozzles ?? []).Select(n => new NozzleSummary(n.Diameter, n.Material))], card.Firmware.Flavour,
            open.GetValueOrDefault(Severity.Stop), open.GetValueOrDefault(Severity.Caution), open.GetValueOrDefault(Severity.Note))
        { Layout = card.Motion.Layout, Housing = card.Heat.Housing, Tags = card.Tags, Pattern = card.Pattern };
    }
}

/// <summary>A nozzle in a list.</summary>
public sealed record NozzleSummary(double? Diameter, NozzleMaterial? Material);
