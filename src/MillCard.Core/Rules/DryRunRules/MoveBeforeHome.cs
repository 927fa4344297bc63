using MillCard.Core.DryRun;
using MillCard.Core.Findings;
using MillCard.Core.Flavours;
using MillCard.Core.Machines;
using MillCard.Core.Wording;

namespace MillCard.Core.Rules.DryRunRules;

/// <summary>A move while the machine does not know where it is. A short lift of Z is usual and only noted.</summary>
public sealed class MoveBeforeHome : IDryRunRule
{
    private const double ShortLift = 15;

    /// <inheritdoc/>
    public RuleId Id { get; } = new("move-before-home", Severity.Stop);

    /// <inheritdoc/>
    public IEnumerable<Finding> Look(DryRunReport run, Machine machine)
    {
        var (first, count, lift) = (-1, 0, -1);
        foreach (ref readonly var move in run.Moves)
        {
            if (move.Known || move.From == move.To) continue;
            var (dx, dy, dz) = (move.To.X - move.From.X, move.To.Y - move.From.Y, move.To.Z - move.From.Z);
            if (dx == 0 && dy == 0 && dz is > 0 and <= (float)ShortLift) { if (lift < 0) lift = move.Line; continue; }
            if (first < 0) first = move.Line;
            count++;
        }
        if (first >= 0)
        {
            var when = OffBefore(run, first) ? "after its motors were switched off" : "before it is homed";
            var more = Sentence.When(count > 1, $"; {count} moves");
            yield return Id.OnLine(first, $"The machine moves {when}{more}.",
                    "It does not know where the head is: the move can end against the frame.")
                .Cure("Home first", Edit.Before(first, run.Flavour.Spell("home") ?? "G28"));
        }
        if (lift >= 0)
            yield return new Finding(Id.Name, Severity.Note, "Z is lifted a little before homing.",
                "Usual, to get the nozzle off the plate; the position is not known yet.", Line: lift + 1);
    }

    private static bool OffBefore(DryRunReport run, int line) =>
        run.Events.LastOrDefault(e => e.Line < line && e.Meaning is Meaning.MotorsOff or Meaning.Home)?.Meaning == Meaning.MotorsOff;
}
