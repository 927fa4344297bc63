using MillCard.Core.Routines;
using MillCard.Core.Slicing.Jobs;
using MillCard.Core.Slicing.Paths;

namespace MillCard.Core.Slicing.Writing;

/// <summary>Name of a G-code file.</summary>
public static class ProgramName
{
    /// <summary>The name where a recipe says nothing.</summary>
    public const string Usual = "{{ job.name }}-{{ filament.name }}";

    private const int Longest = 120;
    private static readonly RoutineMoment FileName = new("fileName", "File-name", _ => null);

    internal static string Of(SliceJob job, IReadOnlyList<LayerPlan> layers, double seconds)
    {
        var values = ProgramValues.Of(job, layers);
        values["job.seconds"] = Math.Round(seconds);
        try { return Safe(RoutineTemplate.Render(FileName, job.Recipe.FileName ?? Usual, values)); }
        catch (RoutineException broken) { throw broken.In("/recipe/fileName"); }
    }

    /// <summary>A name without what file systems refuse, with its ending.</summary>
    internal static string Safe(string name)
    {
        var plain = new string([.. name.Select(c => char.IsControl(c) || "\\/:*?\"<>|".Contains(c) ? '-' : c)]).Trim(' ', '.');
        if (plain.EndsWith(".gcode", StringComparison.OrdinalIgnoreCase)) plain = plain[..^6];
        if (plain.Length > Longest) plain = plain[..Longest].TrimEnd();
        return $"{(plain.Length == 0 ? "print" : plain)}.gcode";
    }
}
