using MillCard.Core.Documents;

namespace MillCard.Web.Trials;

/// <summary>What of a card bears on computations.</summary>
internal static class BareCard
{
    /// <summary>A card without what its owner writes beside the facts.</summary>
    public static Card Bare(this Card card) => card with
    {
        Notes = null,
        MeasureUp = null,
        Sources = new Dictionary<string, FactSource>(),
        Accepted = [],
        Line = null,
    };
}
