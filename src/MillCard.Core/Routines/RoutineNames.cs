using MillCard.Core.Wording;

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
        ["tool.first"] = "the tool that prints first; a start routine that names it has to pick it up",
        ["tool.now"] = "the tool in use",
        ["tool.next"] = "the tool that comes next",
        ["mode.name"] = "the mode of two carriages: single, copy, mirror or two-material; single on a machine with one",
        ["mode.command"] = "the command that sets this mode, as the flavour writes it",
        ["mode.offset"] = "distance of the copy, or the mirror axis, along X, machine frame",
        ["mode.warmer"] = "how much hotter the second nozzle is than the first",
        ["mode.fan"] = "share of full speed of the second nozzle's fan, 0 to 1",
        ["filament.name"] = "name of the filament",
        ["filament.diameter"] = "diameter of the filament",
        ["nozzle.diameter"] = "bore of the nozzle",
        ["job.name"] = "name of the job",
        ["job.seconds"] = "how long the print takes",
        ["clear.z"] = "a height above all that is printed, within the machine's reach",
    };

    /// <summary>The name most like a wrong one: words swapped, or few letters changed; null where none is near.</summary>
    public static string? Nearest(string wrong) => NearName.Of(wrong, '.', All.Keys);
}
