using MillCard.Core.Documents;
using MillCard.Core.Findings;
using MillCard.Core.Motion;
using MillCard.Core.Wording;

namespace MillCard.Core.Rules.CardRules;

/// <summary>A screw whose number of starts nobody has said: its lead, and with it ladder and steps, is not known.</summary>
public sealed class StartsNotSaid : ICardRule
{
    /// <inheritdoc/>
    public RuleId Id { get; } = new("starts-not-said", Severity.Caution);

    /// <inheritdoc/>
    public IEnumerable<Finding> Look(Card card)
    {
        var axes = card.Motion.Axes;
        foreach (var (name, axis) in new[] { ("x", axes.X), ("y", axes.Y), ("z", axes.Z), ("e", axes.E) })
        {
            if (axis?.Drive is not ScrewDrive { Starts: null } screw) continue;
            var at = JsonPointer.Axis(name) / "drive" / "starts";
            var usual = ScrewStarts.Usual(screw);
            var letter = name.ToUpperInvariant();
            var leads = string.Join(" or ", usual.Select(u => Invariant($"{u.Lead:0.###} mm ({u.Words})")));
            Sentence message = usual.Count == 0
                ? Sentence.Of($"The screw of {letter} does not say how many starts its thread has.")
                : Sentence.Of($"The screw of {letter} with a pitch of {screw.Pitch:0.###} mm moves {leads} a turn: nobody has said.");
            var told = ScrewStarts.That(screw, axis.StepsPerMm);
            yield return Id.At(at, message,
                "Layer heights on whole steps and steps per mm follow from the lead; with the wrong one they are wrong several times over.")
                .Cure(told is null ? null : Invariant($"{told.Words}, as {axis.StepsPerMm:0.##} steps per mm say"),
                    told is null ? [] : [Edit.Fact(JsonPointer.Axis(name) / "drive" / "pitch", told.Pitch), Edit.Fact(at, told.Starts)]);
        }
    }
}
