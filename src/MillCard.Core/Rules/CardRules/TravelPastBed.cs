using MillCard.Core.Documents;
using MillCard.Core.Findings;

namespace MillCard.Core.Rules.CardRules;

/// <summary>Travel far past the bed's edge, and nothing on the card that stands there.</summary>
public sealed class TravelPastBed : ICardRule
{
    /// <summary>So much is for homing, priming and wiping, mm; common practice, no source.</summary>
    private const double Usual = 30;

    /// <inheritdoc/>
    public RuleId Id { get; } = new("travel-past-bed", Severity.Note);

    /// <inheritdoc/>
    public IEnumerable<Finding> Look(Card card)
    {
        // carriages park there, tools stand there, a delta's disc goes round the bed
        if (card.Head.Carriages.Count > 0 || card.Head.Changer == true || card.Motion.Layout == MotionLayout.Delta
            || card.Envelope.KeepOuts.Any(k => k.Kind == KeepOutKind.Reserved)
            || Sizes.Of(card.Envelope.Bed) is not var (width, depth) || card.Envelope.Origin is not { } origin)
            yield break;
        var reach = (card.Head.Nozzles ?? []).Select(n => n.Offset ?? new()).ToArray();
        var (spareX, spareY) = (reach.Select(o => Math.Abs(o.X)).DefaultIfEmpty(0).Max(), reach.Select(o => Math.Abs(o.Y)).DefaultIfEmpty(0)
            .Max());
        foreach (var (name, member, axis, from, to, spare) in new[] { ("X", "x", card.Motion.Axes.X, -origin.X, width - origin.X, spareX),
            ("Y", "y", card.Motion.Axes.Y, -origin.Y, depth - origin.Y, spareY) })
        {
            if (axis?.Min is { } min && from - min > Usual + spare)
                yield return Past(name, JsonPointer.Axis(member) / "min", from - min, from);
            if (axis?.Max is { } max && max - to > Usual + spare) yield return Past(name, JsonPointer.Axis(member) / "max", max - to, to);
        }
    }

    private Finding Past(string name, string pointer, double by, double edge) => Id.At(pointer,
        $"{name} runs {by:0.##} mm past the bed's edge; nothing on the card stands there.",
        "Either the bed is larger than the card says, or something is kept there that the card should know.")
        .Cure(Invariant($"{name} ends at the bed's edge, {edge:0.##}"), Edit.Fact(pointer, Math.Round(edge, 3)));
}
