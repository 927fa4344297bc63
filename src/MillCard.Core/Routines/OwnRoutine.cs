using MillCard.Core.Documents;

namespace MillCard.Core.Routines;

/// <summary>A routine that a card has, or a mode's own start.</summary>
/// <param name="Pointer">Where it stands in the card.</param>
/// <param name="Title">Its name, such as "Start routine of copy".</param>
/// <param name="Text">What stands there, not empty.</param>
public sealed record OwnRoutine(string Pointer, string Title, string Text)
{
    /// <summary>All of a card that say anything, those of the card in the order of a print, then those of its modes.</summary>
    public static IReadOnlyList<OwnRoutine> Of(Card card) =>
        [.. RoutineMoment.All.Select(m => (At: JsonPointer.Routine(m.Name), Title: $"{m.Title} routine", Text: m.Of(card.Routines)))
            .Concat(card.Modes.Select((m, i) =>
                (At: JsonPointer.Mode(i) / "start", Title: $"Start routine of {ModeNames.Of(m.Kind)}", Text: m.Start)))
            .Where(r => !string.IsNullOrWhiteSpace(r.Text)).Select(r => new OwnRoutine(r.At, r.Title, r.Text!))];
}
