using MillCard.Core.DryRun;
using MillCard.Core.Findings;
using MillCard.Core.Gcode;
using MillCard.Core.Machines;

namespace MillCard.Core.Rules.DryRunRules;

/// <summary>A name that is neither a macro of this machine nor a command of its dialect.</summary>
public sealed class UnknownMacro : IDryRunRule
{
    /// <inheritdoc/>
    public RuleId Id { get; } = new("unknown-macro", Severity.Caution);

    /// <inheritdoc/>
    public IEnumerable<Finding> Look(DryRunReport run, Machine machine)
    {
        var held = !string.IsNullOrWhiteSpace(machine.Card.Firmware.Macros);
        foreach (var same in run.Unknown.Where(u => IsName(run, u)).GroupBy(u => (Name: NameOf(u), u.Macro)))
        {
            var (name, inside) = same.Key;
            var near = run.Macros.Nearest(name, run.Flavour.Commands.Where(c => c.Word.Contains('_') || c.Word.Length > 4)
                .Select(c => c.Word));
            var where = inside is null ? "" : $" It stands in {inside}.";
            var unheld = held ? "" : " The card holds no macro file to look in.";
            var hint = near is null ? unheld : $" Did you mean {near}?";
            var finding = Id.OnLine(same.First().Line, $"There is no macro or command {name}.{hint}{where}", held
                ? "The firmware says so and goes on without it." : "What it does could not be looked at: it may heat, home or move.");
            yield return near is null || inside is not null ? finding
                : finding.Cure($"Write {near}",
                Edit.Replace(same.First().Line, near + run.Text.Text(same.First().Line).TrimStart()[name.Length..]));
        }
    }

    internal static bool IsName(DryRunReport run, UnknownCommand unknown) => run.Flavour.Extended
        && ExtendedCommand.OfText(unknown.Text) is not null;

    private static string NameOf(UnknownCommand unknown) => ExtendedCommand.OfText(unknown.Text)!.Name.ToUpperInvariant();
}
