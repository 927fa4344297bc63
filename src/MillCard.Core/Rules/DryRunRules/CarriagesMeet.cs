using MillCard.Core.DryRun;
using MillCard.Core.Findings;
using MillCard.Core.Machines;

namespace MillCard.Core.Rules.DryRunRules;

/// <summary>Two carriages that move together come nearer than their heads allow.</summary>
public sealed class CarriagesMeet : IDryRunRule
{
    private const double Tolerance = 0.01;

    /// <inheritdoc/>
    public RuleId Id { get; } = new("carriages-meet", Severity.Stop);

    /// <inheritdoc/>
    public IEnumerable<Finding> Look(DryRunReport run, Machine machine)
    {
        if (machine.Card.Head.LeastDistance is not { } least || run.LeastApart >= least - Tolerance) yield break;
        var apart = Math.Max(0, run.LeastApart);
        yield return Id.OnLine(run.LeastApartAt,
            $"The nozzles of the two carriages come within {apart:0.##} mm along X; their heads need {least:0.##}.",
            "The heads run into each other.");
    }
}
