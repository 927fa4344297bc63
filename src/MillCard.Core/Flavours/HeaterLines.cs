namespace MillCard.Core.Flavours;

/// <summary>Lines that switch all heaters, as a flavour spells them: what routines that are proposed begin and end with, and what
/// stops a printer.</summary>
public static class HeaterLines
{
    /// <summary>The bed begins, the nozzle stands by meanwhile, and both are waited for as late as can be.</summary>
    /// <param name="flavour">The dialect.</param>
    /// <param name="heatedBed">Whether there is a bed to warm.</param>
    /// <param name="meanwhile">What is done while they warm; null for a line that this machine does not need.</param>
    public static IEnumerable<string> Warm(Flavour flavour, bool heatedBed, params IEnumerable<string?> meanwhile)
    {
        yield return "; warm together, wait late";
        if (heatedBed) yield return Said(flavour, "bed-set", "{{ heat.bed }}");
        yield return Said(flavour, "nozzle-set", "{{ heat.standby }}");
        foreach (var line in meanwhile) if (line is not null) yield return line;
        if (heatedBed) yield return Said(flavour, "bed-wait", "{{ heat.bed }}");
        yield return Said(flavour, "nozzle-wait", "{{ heat.nozzle }}");
    }

    /// <summary>Every heater, the fan and the motors off.</summary>
    /// <param name="flavour">The dialect.</param>
    /// <param name="nozzles">How many nozzles there are.</param>
    /// <param name="heatedBed">Whether there is a bed that warms.</param>
    public static IEnumerable<string> Off(Flavour flavour, int nozzles, bool heatedBed)
    {
        foreach (var line in NozzlesOff(flavour, nozzles)) yield return line;
        if (heatedBed) yield return Said(flavour, "bed-set", "0");
        foreach (var what in new[] { "fan-off", "motors-off" }) if (flavour.Spell(what) is { } line) yield return line;
    }

    /// <summary>Every nozzle off, by its tool where there are several.</summary>
    /// <param name="flavour">The dialect.</param>
    /// <param name="nozzles">How many nozzles there are.</param>
    public static IEnumerable<string> NozzlesOff(Flavour flavour, int nozzles) => nozzles > 1
        ? Enumerable.Range(0, nozzles).Select(tool => flavour.Spell("nozzle-of-tool-set", ("tool", tool), ("value", 0))!)
        : [Said(flavour, "nozzle-set", "0")];

    private static string Said(Flavour flavour, string what, string value) => flavour.Spell(what, ("value", value))!;
}
