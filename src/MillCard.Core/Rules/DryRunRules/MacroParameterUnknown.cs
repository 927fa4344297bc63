using MillCard.Core.DryRun;
using MillCard.Core.Findings;
using MillCard.Core.Machines;
using MillCard.Core.Wording;

namespace MillCard.Core.Rules.DryRunRules;

/// <summary>A macro is called with a parameter it does not read.</summary>
public sealed class MacroParameterUnknown : IDryRunRule
{
    /// <inheritdoc/>
    public RuleId Id { get; } = new("macro-parameter-unknown", Severity.Caution);

    /// <inheritdoc/>
    public IEnumerable<Finding> Look(DryRunReport run, Machine machine)
    {
        foreach (var call in run.MacroCalls.Where(c => !c.Macro.TakesAny).DistinctBy(c => (c.Line, c.Macro.Name)))
            foreach (var given in call.Given.Keys.Where(k => !call.Macro.Parameters.Contains(k)))
            {
                var near = NearName.Of(given, '_', call.Macro.Parameters);
                var known = call.Macro.Parameters.Count == 0 ? "It reads none." : $"It reads {string.Join(", ", call.Macro.Parameters)}.";
                yield return Id.OnLine(call.Line, $"{call.Macro.Name} does not read {given}. "
                    + $"{(near is null ? known : $"Did you mean {near}?")}",
                    "The value is ignored, and the macro goes on with its default.")
                    .Cure(near is null || call.Depth > 0 ? null
                        : $"Write {near}",
                        Edit.Replace(call.Line, run.Text.Text(call.Line)
                        .Replace($"{given}=", $"{near}=", StringComparison.OrdinalIgnoreCase)));
            }
    }
}
