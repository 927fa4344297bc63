using MillCard.Core.Documents;
using MillCard.Core.Findings;
using MillCard.Core.Motion;
using MillCard.Core.Wording;

namespace MillCard.Core.Rules.CardRules;

/// <summary>Steps per mm that are entered and those that the parts of the drive give do not agree.</summary>
public sealed class StepsDiffer : ICardRule
{
    private const double Within = 0.005, WithinForFilament = 0.1;

    /// <inheritdoc/>
    public RuleId Id { get; } = new("steps-differ", Severity.Caution);

    /// <inheritdoc/>
    public IEnumerable<Finding> Look(Card card)
    {
        foreach (var (name, axis) in Named(card.Motion.Axes))
        {
            if (axis is not { StepsPerMm: { } entered } || Drives.StepsPerMm(axis.Drive) is not { } computed) continue;
            // the effective diameter of a filament wheel is never known well
            if (Math.Abs(entered / computed - 1) <= (name == "e" ? WithinForFilament : Within)) continue;
            var candidate = Candidate.That(axis.Drive, entered);
            var how = Sentence.When(candidate is not null && candidate.Microsteps != axis.Drive!.Microsteps,
                $" With 1/{candidate?.Microsteps} microsteps they would agree.");
            yield return Id.At(JsonPointer.Axis(name) / "stepsPerMm",
                $"{name.ToUpperInvariant()} has {entered:0.##} steps per mm; its parts give {computed:0.##}.{how}",
                $"Every way along {name.ToUpperInvariant()} would come out {100 * entered / computed:0.#} % of what is asked for.");
        }
    }

    /// <summary>The axes by the names of their members.</summary>
    internal static IEnumerable<(string Name, Axis? Axis)> Named(Axes axes) => [("x", axes.X), ("y", axes.Y), ("z", axes.Z), ("e", axes.E)];
}
