using MillCard.Core.DryRun;
using MillCard.Core.Findings;
using MillCard.Core.Flavours;
using MillCard.Core.Flow;
using MillCard.Core.Machines;

namespace MillCard.Core.Rules.DryRunRules;

/// <summary>The firmware is told another filament diameter than the card's.</summary>
public sealed class FilamentDiameterMismatch : IDryRunRule
{
    /// <inheritdoc/>
    public RuleId Id => Rule;

    private static readonly RuleId Rule = new("filament-diameter-mismatch", Severity.Stop);

    /// <summary>What is to be said of a filament that is not what a nozzle is fed.</summary>
    internal static Finding Of(string nozzle, double fed, double filament, string pointer) =>
        Rule.At(pointer, $"The filament is {filament:0.##} mm thick; nozzle {nozzle} is fed {fed:0.##} mm.",
            Why(fed, filament));

    private static string Why(double fed, double filament) =>
        Invariant($"{100 * FedDiameter.Share(fed, filament):0} % of the plastic would come out.");

    /// <inheritdoc/>
    public IEnumerable<Finding> Look(DryRunReport run, Machine machine)
    {
        for (var tool = 0; tool < machine.Nozzles.Count; tool++)
        {
            if (tool >= run.Filaments.Count || run.Filaments[tool]?.Diameter is not { } thick || !run.FirstExtrusions[tool].Comes) continue;
            if (machine.Nozzles[tool].FilamentDiameter is { } fed && FedDiameter.Differs(fed, thick))
                yield return Of(machine.Nozzles[tool].Id, fed, thick, "/filament") with { Line = run.FirstExtrusions[tool].Line + 1 };
        }
        foreach (var told in run.Events.Where(e => e.Meaning == Meaning.FilamentDiameter && e.Word('D') > 0))
        {
            var tool = told.Word('T') is var t && t >= 0 && t < machine.Nozzles.Count ? (int)t : 0;
            if (machine.Nozzles[tool].FilamentDiameter is not { } card || Math.Abs(card - told.Word('D')) < Told) continue;
            var thick = told.Word('D');
            yield return Id.OnLine(told.Line,
                $"{told.Command.Word} says the filament is {thick:0.##} mm thick; the card says {card:0.##}.", Why(card, thick));
            yield break;
        }
    }

    /// <summary>A figure that is told is taken by the firmware as it is, mm.</summary>
    private const double Told = 0.05;
}
