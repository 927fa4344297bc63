using System.Text.RegularExpressions;
using MillCard.Core.DryRun;

namespace MillCard.Core.Findings.DryRunRules;

/// <summary>Waits written another way.</summary>
internal static partial class Waits
{
    /// <summary>The line of a wait with R in place of S.</summary>
    public static string Cooling(DryRunReport run, Wait wait) => Target().Replace(run.Text.Text(wait.Line), "R", 1);

    [GeneratedRegex(@"(?<=\s)S(?=[\s\d{])")]
    private static partial Regex Target();
}
