using MillCard.Core.DryRun;
using MillCard.Core.Findings;
using MillCard.Core.Flavours;
using MillCard.Core.Gcode;
using MillCard.Core.Machines;
using MillCard.Core.Wording;

namespace MillCard.Core.Rules.DryRunRules;

/// <summary>A parameter outside what the command takes.</summary>
public sealed class ParameterRange : IDryRunRule
{
    /// <inheritdoc/>
    public RuleId Id { get; } = new("parameter-range", Severity.Caution);

    /// <inheritdoc/>
    public IEnumerable<Finding> Look(DryRunReport run, Machine machine)
    {
        var words = new Words();
        foreach (var line in run.Events.Select(e => (e.Line, e.Command, e.Text))
            .Concat(run.FanSteps.Where(f => f.Line < run.Text.Count)
            .Select(f => (f.Line, Command: run.Flavour.With(Flavours.Meaning.FanOn)!, Text: run.Text.Text(f.Line))))
            .DistinctBy(l => (l.Line, l.Text)))
        {
            var extended = run.Flavour.Extended ? ExtendedCommand.OfText(line.Text) : null;
            words.Read(System.Text.Encoding.UTF8.GetBytes(line.Text));
            foreach (var parameter in line.Command.Parameters.Where(p => p.Min is not null || p.Max is not null))
            {
                var value = extended?.Number(parameter.Name) ?? (parameter.Name.Length == 1 ? words[parameter.Name[0]] : double.NaN);
                if (!(value < parameter.Min || value > parameter.Max)) continue;
                // a target below zero is a usual way to say off
                if (value < 0 && parameter.Unit == "°C") continue;
                yield return Id.OnLine(line.Line, $"{line.Command.Word} takes {parameter.Name} ({parameter.About}) "
                    + $"{Range(parameter)}; here it is {value:0.###}.", "The firmware clips it, ignores the line, or does something else.");
            }
        }
    }

    private static Sentence Range(CommandParameter p) => (p.Min, p.Max) switch
    {
        ({ } least, { } most) => Sentence.Of($"from {least:0.##} to {most:0.##}{Unit(p)}"),
        ({ } least, _) => Sentence.Of($"from {least:0.##} on{Unit(p)}"),
        _ => Sentence.Of($"up to {p.Max:0.##}{Unit(p)}"),
    };

    private static string Unit(CommandParameter p) => p.Unit.Length > 0 ? $" {p.Unit}" : "";
}
