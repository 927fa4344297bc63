using MillCard.Core.Documents;
using MillCard.Core.Flavours;

namespace MillCard.Web.Lines;

/// <summary>What switches a printer off, in its dialect.</summary>
/// <param name="BreakOff">Breaks a wait off; null where the dialect cannot.</param>
/// <param name="Commands">Heaters first, then the fan.</param>
internal sealed record SwitchOff(string? BreakOff, IReadOnlyList<string> Commands)
{
    /// <summary>Before anything is known.</summary>
    public static SwitchOff Nothing { get; } = new(null, []);

    /// <summary>For the printer of a card: every nozzle, the bed, the chamber, the fan.</summary>
    public static SwitchOff Of(Card card)
    {
        var flavour = Flavour.Of(card.Firmware.Flavour ?? FlavourId.RepRap);
        var nozzles = card.Head.Nozzles?.Count ?? 1;
        IEnumerable<string?> heaters = nozzles > 1
            ? Enumerable.Range(0, nozzles).Select(tool => flavour.Spell("nozzle-of-tool-set", ("tool", tool), ("value", 0)))
            : [flavour.Spell("nozzle-set", ("value", 0))];
        return new SwitchOff(
            flavour.Spell("break-off-wait"),
            [.. heaters.Append(flavour.Spell("bed-set", ("value", 0)))
                .Append(card.Heat.Chamber is null ? null : flavour.Spell("chamber-set", ("value", 0))).Append(flavour.Spell("fan-off"))
                .OfType<string>()]);
    }
}
