using MillCard.Core.DryRun;
using MillCard.Core.Heat;

namespace MillCard.Core.Findings.DryRunRules;

/// <summary>Heaters of a run, and their names in sentences.</summary>
internal static class Traces
{
    public static HeaterTrace? Of(DryRunReport run, Heater heater, int tool) => heater switch { Heater.Nozzle => run.Nozzles[tool], Heater.Bed => run.Bed, _ => run.Chamber };

    public static string NameOf(Heater heater) => heater switch { Heater.Nozzle => "nozzle", Heater.Bed => "bed", _ => "housing" };
}
