using MillCard.Core.DryRun;
using MillCard.Core.Flavours;
using MillCard.Core.Reach;

namespace MillCard.Core.Findings.DryRunRules;

/// <summary>The firmware is told another filament diameter than the card's.</summary>
public sealed class FilamentDiameterMismatch : IDryRunRule
{
    /// <inheritdoc/>
    public RuleId Id { get; } = new("filament-diameter-mismatch", Severity.Stop);

    /// <inheritdoc/>
    public IEnumerable<Finding> Look(DryRunReport run, Machine machine)
    {
        foreach (var told in run.Events.Where(e => e.Meaning == Meaning.FilamentDiameter && e.Word('D') > 0))
        {
            var tool = told.Word('T') is var t && t >= 0 && t < machine.Nozzles.Count ? (int)t : 0;
            if (machine.Nozzles[tool].FilamentDiameter is not { } card || Math.Abs(card - told.Word('D')) < Same) continue;
            var share = card / told.Word('D') * (card / told.Word('D'));
            yield return Id.OnLine(told.Line, $"{told.Command.Word} says the filament is {told.Word('D'):0.##} mm thick; the card says {card:0.##}.", string.Create(System.Globalization.CultureInfo.InvariantCulture, $"{100 * share:0} % of the plastic would come out."));
            yield break;
        }
    }

    private const double Same = 0.05;
}
