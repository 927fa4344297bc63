using MillCard.Core.Documents;
using MillCard.Core.Findings;
using MillCard.Core.Flavours;
using MillCard.Core.Gcode;
using MillCard.Core.Routines;

namespace MillCard.Core.Rules.CardRules;

/// <summary>A mode whose start routine does not set it. A firmware that keeps its mode between prints would print in the last
/// one.</summary>
public sealed class ModeNotSet : ICardRule
{
    /// <inheritdoc/>
    public RuleId Id { get; } = new("mode-not-set", Severity.Caution);

    /// <inheritdoc/>
    public IEnumerable<Finding> Look(Card card)
    {
        if (card.Firmware.Flavour is not { } id
            || Flavour.Of(id).Commands.FirstOrDefault(c => c.Meaning == Meaning.CarriageMode) is not { } command) yield break;
        for (var i = 0; i < card.Modes.Count; i++)
        {
            var mode = card.Modes[i];
            var name = ModeNames.Of(mode.Kind);
            var pointer = mode.Start is null ? JsonPointer.Mode(i) : JsonPointer.Mode(i) / "start";
            if (LastMode(mode.Start ?? card.Routines.Start, mode, command) is not { } set)
                yield return Id.At(pointer, $"The start routine of {name} does not set the mode ({command.Word}).", Why);
            else if (!Fits(mode.Kind, set))
                yield return Id.At(pointer, $"The start routine of {name} sets another mode: {command.Word} S{set:0}.", Why);
        }
    }

    private const string Why = "The firmware keeps its mode between prints: the last one's stays on.";

    private static bool Fits(ModeKind kind, double s) =>
        kind switch { ModeKind.Copy => s == 2, ModeKind.Mirror => s == 3, _ => s is 0 or 1 };

    /// <summary>S of the last mode command that the routine writes in a mode; null where it writes none, or cannot be written
    /// out.</summary>
    private static double? LastMode(string? routine, Mode mode, Command command)
    {
        if (string.IsNullOrWhiteSpace(routine)) return null;
        var values = RoutineNames.All.Keys.ToDictionary(name => name,
            name => (object)(name.EndsWith(".name", StringComparison.Ordinal) ? "x" : 1m));
        values["mode.name"] = ModeNames.Of(mode.Kind);
        string written;
        try { written = RoutineTemplate.Render(RoutineMoment.Start, routine, values); }
        catch (RoutineException) { return null; }
        double? last = null;
        var words = new Words();
        var text = new GcodeText(System.Text.Encoding.UTF8.GetBytes(written));
        for (var line = 0; line < text.Count; line++)
        {
            if (ExtendedCommand.Begins(text.Line(line)))
            {
                var extended = ExtendedCommand.Of(text.Line(line));
                if (extended.Name.Equals(command.Word, StringComparison.OrdinalIgnoreCase) && extended.Text("MODE") is { } name)
                    last = name.ToUpperInvariant() switch { "COPY" => 2, "MIRROR" => 3, _ => 0 };
                continue;
            }
            words.Read(text.Line(line));
            if (words.Count > 0 && $"{words.Letter(0)}{words.Value(0):0}" == command.Word && words['S'] is var s && !double.IsNaN(s))
                last = s;
        }
        return last;
    }
}
