using MillCard.Core.DryRun;
using MillCard.Core.Findings;
using MillCard.Core.Machines;

namespace MillCard.Core.Rules.DryRunRules;

/// <summary>The program ends with the hot nozzle where it printed last.</summary>
public sealed class HeadLeftOnPart : IDryRunRule
{
    /// <inheritdoc/>
    public RuleId Id { get; } = new("head-left-on-part", Severity.Stop);

    /// <inheritdoc/>
    public IEnumerable<Finding> Look(DryRunReport run, Machine machine)
    {
        if (run.Extents is null) yield break;
        var moves = run.Moves;
        var last = moves.Length - 1;
        while (last >= 0 && !moves[last].Extrudes) last--;
        if (last < 0 || run.LayersBegin >= 0 && moves[last].Line < run.LayersBegin) yield break;
        var (there, end) = (moves[last].To, run.End.Position);
        var away = Math.Sqrt((there.X - end.X) * (there.X - end.X) + (there.Y - end.Y) * (there.Y - end.Y));
        var hot = run.Nozzles.Max(n => n.At(run.TotalSeconds));
        if (away < Near && end.Z - there.Z < Near && hot > Soft)
            yield return Id.OnLine(run.LastLine, $"The program ends with the nozzle at {hot:0} °C on the spot it printed last.",
                "It melts into the part and sticks to it as it cools.")
                .Cure("Lift and go aside", Edit.After(run.LastLine,
                    "G1 Z{{ clear.z | mm }} F600\nG0 X{{ bed.min_x | plus: 5 | mm }} Y{{ bed.max_y | minus: 5 | mm }} F6000"));
    }

    private const double Near = 1;
    private const double Soft = 100;
}
