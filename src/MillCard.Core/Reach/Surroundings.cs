using System.Collections.Concurrent;
using MillCard.Core.Machines;
using MillCard.Core.Meshes;

namespace MillCard.Core.Reach;

/// <summary>What parts stand on and among.</summary>
/// <param name="machine">The machine.</param>
/// <param name="apron">What is grown on a part's first layer.</param>
internal sealed class Surroundings(Machine machine, Apron apron)
{
    private readonly ConcurrentDictionary<int, IReadOnlyList<Forbidden>> _forbidden = new();

    /// <summary>The machine.</summary>
    public Machine Machine => machine;

    /// <summary>What is grown on a part's first layer.</summary>
    public Apron Apron => apron;

    /// <summary>The regions that a part of one nozzle must stay out of.</summary>
    public IReadOnlyList<Forbidden> ForbiddenTo(int nozzle) =>
        _forbidden.GetOrAdd(nozzle, n => Forbidden.All(machine, apron.FirstLayer, n));
}
