using MillCard.Core.Documents;
using MillCard.Core.Findings;
using MillCard.Core.Flavours;
using MillCard.Core.Gcode;

namespace MillCard.Core.Rules.CardRules;

/// <summary>A start routine that sets speed or acceleration limits on a card that trusts the firmware's own, or that states them
/// already.</summary>
public sealed class LimitsStatedAndTrusted : ICardRule
{
    /// <inheritdoc/>
    public RuleId Id { get; } = new("limits-stated-and-trusted", Severity.Caution);

    /// <inheritdoc/>
    public IEnumerable<Finding> Look(Card card)
    {
        if (card.Firmware.Flavour is not { } id || string.IsNullOrWhiteSpace(card.Routines.Start)) yield break;
        var flavour = Flavour.Of(id);
        var words = new Words();
        var text = new GcodeText(System.Text.Encoding.UTF8.GetBytes(card.Routines.Start));
        for (var line = 1; line <= text.Count; line++)
        {
            words.Read(text.Line(line - 1));
            if (words.Count < 2 || flavour.Find(words.Letter(0),
                words.Value(0)) is not { Meaning: Meaning.LimitSpeed or Meaning.LimitAcceleration or Meaning.SetCorner } command) continue;
            var (says, sets) = card.Motion.Limits == LimitsUse.Trusted
                ? ("trusts the firmware's limits", "others")
                : ("states its limits at the start", "them too");
            yield return Id.At("/motion/limits", $"The card {says}, and line {line} of the start routine sets {sets} with {command.Word}.",
                    "Two places say how fast the machine may go; the estimate follows one of them, the machine the other.");
            yield break;
        }
    }
}
