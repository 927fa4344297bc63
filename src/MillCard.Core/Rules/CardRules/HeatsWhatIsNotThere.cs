using MillCard.Core.Documents;
using MillCard.Core.Findings;
using MillCard.Core.Flavours;
using MillCard.Core.Gcode;
using MillCard.Core.Routines;

namespace MillCard.Core.Rules.CardRules;

/// <summary>A routine that heats a bed or waits for a housing that the card says is not heated.</summary>
public sealed class HeatsWhatIsNotThere : ICardRule
{
    /// <inheritdoc/>
    public RuleId Id { get; } = new("heats-what-is-not-there", Severity.Stop);

    /// <inheritdoc/>
    public IEnumerable<Finding> Look(Card card)
    {
        if (card.Firmware.Flavour is null || card.Envelope.Heated != false && card.Heat.Housing is not (Housing.Open or Housing.Closed))
            yield break;
        var flavour = Flavour.Of(card.Firmware);
        foreach (var (pointer, title, text) in OwnRoutine.Of(card))
        {
            var called = $"the {char.ToLowerInvariant(title[0])}{title[1..]}";
            var lines = text.ReplaceLineEndings("\n").Split('\n');
            for (var i = 0; i < lines.Length; i++)
                if (Missing(card, flavour, lines[i]) is { } missing)
                    yield return (Id.At(pointer, $"Line {i + 1} of {called} heats {missing}.",
                            "The firmware halts, skips the line, or waits for ever.") with
                    { Line = i + 1 })
                        .Cure("Remove the line", Edit.Remove(i) with { Pointer = pointer });
        }
    }

    /// <summary>What a line heats that is not there; null for nothing. A name may stand for 0, which is no heat.</summary>
    private static string? Missing(Card card, Flavour flavour, string line)
    {
        if (line.Contains('{', StringComparison.Ordinal)) return null;
        var words = new Words();
        words.Read(System.Text.Encoding.UTF8.GetBytes(line));
        if (words.Count == 0 || !(words['S'] > 0 || words['R'] > 0)) return null;
        return flavour.Find(words.Letter(0), words.Value(0))?.Meaning switch
        {
            Meaning.SetBed or Meaning.WaitBed when card.Envelope.Heated == false => "a bed that the card says has no heater",
            Meaning.WaitChamber when card.Heat.Housing == Housing.Open => "a housing, and this machine is open",
            Meaning.WaitChamber when card.Heat.Housing == Housing.Closed => "a housing that the card says has no heater",
            _ => null,
        };
    }
}
