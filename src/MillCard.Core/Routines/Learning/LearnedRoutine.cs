using System.Text.RegularExpressions;
using MillCard.Core.DryRun;
using MillCard.Core.Flavours;

namespace MillCard.Core.Routines.Learning;

/// <summary>Lines of a program as a routine for other prints.</summary>
/// <param name="Text">The routine; null where there is none.</param>
/// <param name="Notes">What was changed or left out.</param>
internal sealed partial record LearnedRoutine(string? Text, IReadOnlyList<string> Notes)
{
    private const int Longest = 2000;
    private const double NearTop = 20;

    /// <summary>Lines from one to another, both counted from 0, the second left out.</summary>
    /// <remarks>
    /// Temperatures of the first layer become names. E words that are positions of that print, or volumes, become lengths;
    /// a height a little above that print counts from the part's own.
    /// </remarks>
    public static LearnedRoutine Of(DryRunReport run, int from, int to, IReadOnlyList<LearnedValue> values)
    {
        if (to <= from || to - from > Longest) return new(null, []);
        var ends = from > run.LayersEnd;
        var notes = new List<string>();
        var counting = Before(run, from);
        var volumes = run.Events.Any(e => e.Meaning == Meaning.FilamentDiameter && e.Word('D') > 0);
        // positions that begin at the program's own zero are true in every print
        var rewrites = volumes || ends && !counting.Relative && HasE(run, from, to);
        var lines = new List<string>();
        if (rewrites)
        {
            lines.Add("M83");
            notes.Add(volumes ? "E words were volumes; they are written as lengths."
                : "E words of the end were positions of that print; they are written as lengths.");
        }
        var asked = run.Events.Where(e => e.Macro is null && e.Line >= from && e.Line < to).GroupBy(e => e.Line)
            .ToDictionary(g => g.Key, g => g.First());
        for (var i = from; i < to; i++)
        {
            var line = run.Text.Text(i).TrimEnd();
            var heat = asked.GetValueOrDefault(i);
            if (heat is { Meaning: Meaning.FilamentDiameter } && heat.Word('D') > 0)
            {
                notes.Add($"\"{line.Trim()}\" is left out: programs made here write lengths.");
                continue;
            }
            if (heat is { Value: > 0 }) line = Named(line, heat, values);
            if (rewrites && run.EffectList[i] is { Kind: EffectKind.Move }) line = WithLength(run, i, line);
            if (ends && FromTop(run, i, line) is { } above)
            {
                notes.Add($"\"{line.Trim()}\" was {above.Height:0.##} mm above that print; it counts from the part's height now.");
                line = above.Line;
            }
            lines.Add(line);
            if (heat is null) continue;
            counting = counting.After(heat.Meaning);
            if (rewrites && !counting.Relative && heat.Meaning is Meaning.Absolute or Meaning.ExtrusionAbsolute)
            { lines.Add("M83"); counting = counting.After(Meaning.ExtrusionRelative); }
        }
        var text = string.Join('\n', lines).Trim('\n');
        return string.IsNullOrWhiteSpace(text) ? new(null, notes) : new(text + "\n", notes);
    }

    /// <summary>How E words count when a line begins.</summary>
    private static ExtrusionCount Before(DryRunReport run, int line) =>
        run.Events.TakeWhile(e => e.Line < line).Aggregate(new ExtrusionCount(run.Flavour.Extrusion), (count, e) => count.After(e.Meaning));

    private static bool HasE(DryRunReport run, int from, int to)
    {
        for (var i = from; i < to; i++) if (run.EffectList[i].Kind == EffectKind.Move && E().IsMatch(run.Text.Text(i))) return true;
        return false;
    }

    private static string Named(string line, MachineEvent heat, IReadOnlyList<LearnedValue> values)
    {
        double? Of(string pointer) => values.FirstOrDefault(v => v.Pointer == pointer)?.Value.GetValue<double>();
        return heat.Meaning switch
        {
            Meaning.SetNozzle or Meaning.WaitNozzle when heat.Value == Of("/nozzle/first") => Target()
                .Replace(line, m => m.Value[0] + "{{ heat.nozzle }}", 1),
            Meaning.SetBed or Meaning.WaitBed when heat.Value == Of("/bed/first") => Target()
                .Replace(line, m => m.Value[0] + "{{ heat.bed }}", 1),
            _ => line,
        };
    }

    /// <summary>A move with the filament that it fed in place of its E word.</summary>
    private static string WithLength(DryRunReport run, int line, string text)
    {
        var fed = 0.0;
        for (var i = run.EffectList[line].First; i >= 0 && i < run.Moves.Length && run.Moves[i].Line == line; i++)
            fed += run.Moves[i].Filament;
        return E().Replace(text, Invariant($"E{Math.Round(fed, 5)}"), 1);
    }

    /// <summary>A move of Z to a height that belongs to that print alone.</summary>
    private static (double Height, string Line)? FromTop(DryRunReport run, int line, string text)
    {
        if (run.EffectList[line] is not { Kind: EffectKind.Move, First: var first and >= 0 } || run.Extents is not { } extents || !Z()
            .IsMatch(text)) return null;
        var above = run.Moves[first].To.Z - extents.MaxZ;
        if (run.IsRelativeBefore(line) || above is <= 0 or > NearTop) return null;
        var height = Invariant($"{Math.Round(above, 3)}");
        return (above, Z().Replace(text, $"Z{{{{ part.height | plus: {height} | mm }}}}", 1));
    }

    [GeneratedRegex(@"(?<=\s)[SR]\s*\d+(\.\d+)?")]
    private static partial Regex Target();

    [GeneratedRegex(@"(?<=^[^;]*\s)E\s*[-+]?\d*\.?\d+")]
    private static partial Regex E();

    [GeneratedRegex(@"(?<=^[^;]*\s)Z\s*[-+]?\d*\.?\d+")]
    private static partial Regex Z();
}
