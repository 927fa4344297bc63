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
        string?[] others = [flavour.Spell("bed-set", ("value", 0)),
            card.Heat.Chamber is null ? null : flavour.Spell("chamber-set", ("value", 0)), flavour.Spell("fan-off")];
        return new SwitchOff(flavour.Spell("break-off-wait"),
            [.. HeaterLines.NozzlesOff(flavour, card.Head.Nozzles?.Count ?? 1), .. others.OfType<string>()]);
    }
}
