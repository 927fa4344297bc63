using MillCard.Core.DryRun;

namespace MillCard.Core.Rules.DryRunRules;

/// <summary>Names of heaters in sentences.</summary>
internal static class HeaterWords
{
    public static string NameOf(Heater heater) => heater switch { Heater.Nozzle => "nozzle", Heater.Bed => "bed", _ => "housing" };
}
