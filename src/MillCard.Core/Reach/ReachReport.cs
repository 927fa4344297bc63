using MillCard.Core.Documents;
using MillCard.Core.Machines;

namespace MillCard.Core.Reach;

/// <summary>Where one set of nozzles reaches on the bed.</summary>
/// <param name="Nozzles">Indices.</param>
/// <param name="Region">Bed frame, mm.</param>
public sealed record SetReach(IReadOnlyList<int> Nozzles, Shape Region);

/// <summary>Where a nozzle may print in one mode.</summary>
/// <param name="Plan">The mode as a trial without parts runs it: at the least distance.</param>
/// <param name="Nozzle">Index of the nozzle.</param>
/// <param name="Region">Bed frame, mm.</param>
public sealed record ModeReach(ModePlan Plan, int Nozzle, Shape Region);

/// <summary>Everything a machine reaches: by nozzle, by set of nozzles, by mode.</summary>
/// <param name="Nozzles">One entry a nozzle.</param>
/// <param name="Sets">Sets of two and more: all of them for up to four nozzles, else every pair and all together.</param>
/// <param name="Modes">One entry a mode and nozzle that prints in it.</param>
/// <param name="Probe">Where the levelling probe reaches.</param>
public sealed record ReachReport(IReadOnlyList<SetReach> Nozzles, IReadOnlyList<SetReach> Sets, IReadOnlyList<ModeReach> Modes, Shape Probe)
{
    private const int AllSetsUpTo = 4;

    /// <summary>Of a machine.</summary>
    public static ReachReport Of(Machine machine)
    {
        var count = Math.Max(1, machine.Nozzles.Count);
        SetReach Reach(IReadOnlyList<int> set) => new(set, NozzleReach.Of(machine, set));
        return new ReachReport([.. Enumerable.Range(0, count).Select(i => Reach([i]))], [.. SetsOf(count).Select(Reach)],
            [.. ModesOf(machine)], NozzleReach.OfProbe(machine));
    }

    private static IEnumerable<IReadOnlyList<int>> SetsOf(int count)
    {
        if (count <= AllSetsUpTo)
            return Enumerable.Range(1, (1 << count) - 1)
                .Select(bits => (IReadOnlyList<int>)[.. Enumerable.Range(0, count).Where(i => (bits >> i & 1) == 1)])
                .Where(s => s.Count > 1).OrderBy(s => s.Count);
        var pairs = Enumerable.Range(0, count)
            .SelectMany(i => Enumerable.Range(i + 1, count - i - 1).Select(j => (IReadOnlyList<int>)[i, j]));
        return pairs.Append([.. Enumerable.Range(0, count)]);
    }

    private static IEnumerable<ModeReach> ModesOf(Machine machine)
    {
        foreach (var mode in machine.Card.Modes)
        {
            if (ModePlan.Of(machine, new ModeUse { Kind = mode.Kind }, 0) is not { } plan) yield break;
            foreach (var nozzle in plan.Printing) yield return new ModeReach(plan, nozzle, plan.RegionOnBed(nozzle));
        }
    }
}
