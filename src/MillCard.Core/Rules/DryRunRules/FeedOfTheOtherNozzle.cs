using MillCard.Core.DryRun;
using MillCard.Core.Findings;
using MillCard.Core.Machines;

namespace MillCard.Core.Rules.DryRunRules;

/// <summary>Filament is fed to a nozzle that is cold while another is hot.</summary>
public sealed class FeedOfTheOtherNozzle : IDryRunRule
{
    /// <inheritdoc/>
    public RuleId Id { get; } = new("feed-of-the-other-nozzle", Severity.Stop);

    /// <inheritdoc/>
    public IEnumerable<Finding> Look(DryRunReport run, Machine machine)
    {
        if (run.Nozzles.Count < 2) yield break;
        for (var tool = 0; tool < run.Nozzles.Count; tool++)
        {
            if (run.FirstExtrusions[tool] is not { Comes: true } at) continue;
            var (first, time) = (at.Line, run.TimeOf(at));
            if (run.Nozzles[tool].TargetAt(time) > 0) continue;
            var hot = Enumerable.Range(0, run.Nozzles.Count)
                .FirstOrDefault(other => other != tool && run.Nozzles[other].TargetAt(time) > 0, -1);
            if (hot >= 0)
                yield return Id.OnLine(first, $"Filament is fed to nozzle {machine.Nozzles[tool].Id}, which is off; nozzle "
                    + $"{machine.Nozzles[hot].Id} is the one that is heated.", "The drive grinds the filament of the wrong nozzle.")
                    .Cure($"Use tool {hot}", Edit.Before(first, $"T{hot}"));
        }
    }
}
