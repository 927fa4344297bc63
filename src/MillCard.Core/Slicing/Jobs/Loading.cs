using MillCard.Core.Documents;
using MillCard.Core.Machines;

namespace MillCard.Core.Slicing.Jobs;

/// <summary>What the nozzles of a job or a trial hold.</summary>
/// <param name="First">What a nozzle holds for which nothing else is said; null where it is not chosen yet.</param>
/// <param name="Second">What the second nozzle holds; null where it is the same.</param>
/// <param name="ByNozzle">What single nozzles hold, by their ids; goes before the two.</param>
public sealed record Loading(Filament? First, Filament? Second, IReadOnlyDictionary<string, Filament> ByNozzle)
{
    /// <summary>The filament in a nozzle.</summary>
    /// <param name="machine">The machine.</param>
    /// <param name="nozzle">Index of the nozzle.</param>
    public Filament? In(Machine machine, int nozzle)
    {
        if (nozzle < machine.Nozzles.Count && ByNozzle.TryGetValue(machine.Nozzles[nozzle].Id, out var own)) return own;
        return nozzle == 1 ? Second ?? First : First;
    }

    /// <summary>What is in all nozzles, by tool.</summary>
    public IReadOnlyList<Filament?> All(Machine machine) =>
        [.. Enumerable.Range(0, Math.Max(1, machine.Nozzles.Count)).Select(n => In(machine, n))];
}
