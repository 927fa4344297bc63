namespace MillCard.Core.Routines;

/// <summary>The names that routines may use. Values are in mm, mm/s, °C, s.</summary>
public static class RoutineNames
{
    /// <summary>Every name with what it stands for.</summary>
    public static IReadOnlyDictionary<string, string> All { get; } = new Dictionary<string, string>
    {
        ["bed.min_x"] = "left edge of the bed, machine frame",
        ["bed.max_x"] = "right edge of the bed, machine frame",
        ["bed.min_y"] = "front edge of the bed, machine frame",
        ["bed.max_y"] = "back edge of the bed, machine frame",
        ["bed.width"] = "size of the bed along X",
        ["bed.depth"] = "size of the bed along Y",
        ["machine.height"] = "what the machine reaches above the bed",
        ["machine.name"] = "the card's name",
        ["heat.bed"] = "bed temperature of the first layer",
        ["heat.nozzle"] = "nozzle temperature of the first layer",
        ["heat.standby"] = "nozzle temperature while waiting",
        ["first.height"] = "height of the first layer",
        ["layer.number"] = "this layer, counted from 1",
        ["layer.z"] = "top of this layer",
        ["layer.height"] = "height of this layer",
        ["layer.count"] = "number of layers",
        ["part.min_x"] = "left edge of all that is printed, machine frame",
        ["part.max_x"] = "right edge of all that is printed, machine frame",
        ["part.min_y"] = "front edge of all that is printed, machine frame",
        ["part.max_y"] = "back edge of all that is printed, machine frame",
        ["part.height"] = "height of the tallest part",
        ["tool.now"] = "the tool in use",
        ["tool.next"] = "the tool that comes next",
        ["mode.name"] = "the mode of two carriages: single, copy, mirror or two-material; single on a machine with one",
        ["mode.offset"] = "distance of the copy, or the mirror axis, along X, machine frame",
        ["mode.warmer"] = "how much hotter the second nozzle is than the first",
        ["mode.fan"] = "share of full speed of the second nozzle's fan, 0 to 1",
        ["filament.name"] = "name of the filament",
        ["filament.diameter"] = "diameter of the filament",
        ["nozzle.diameter"] = "bore of the nozzle",
        ["job.name"] = "name of the job",
        ["clear.z"] = "a height above all that is printed, within the machine's reach",
    };

    /// <summary>The name most like a wrong one: words swapped, or few letters changed; null where none is near.</summary>
    public static string? Nearest(string wrong)
    {
        var swapped = string.Join('.', wrong.Split('.').Reverse());
        if (All.ContainsKey(swapped)) return swapped;
        var best = All.Keys.Select(name => (name, Distance: Distance(name, wrong))).OrderBy(n => n.Distance).ThenBy(n => n.name, StringComparer.Ordinal).First();
        return best.Distance <= Math.Max(2, wrong.Length / 3) ? best.name : null;
    }

    /// <summary>Edit distance (Levenshtein).</summary>
    private static int Distance(string a, string b)
    {
        var row = Enumerable.Range(0, b.Length + 1).ToArray();
        for (var i = 1; i <= a.Length; i++)
        {
            var diagonal = row[0];
            row[0] = i;
            for (var j = 1; j <= b.Length; j++)
            {
                var change = diagonal + (a[i - 1] == b[j - 1] ? 0 : 1);
                diagonal = row[j];
                row[j] = Math.Min(change, Math.Min(row[j], row[j - 1]) + 1);
            }
        }
        return row[b.Length];
    }
}
