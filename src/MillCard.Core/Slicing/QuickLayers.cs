using MillCard.Core.DryRun;
using MillCard.Core.Findings;
using MillCard.Core.Slicing.Jobs;
using MillCard.Core.Slicing.Paths;
using MillCard.Core.Wording;

namespace MillCard.Core.Slicing;

/// <summary>Layers that take less than the least time of a layer, because lines are laid no slower than the least speed.</summary>
internal static class QuickLayers
{
    /// <summary>A layer counts from this share of the least time down.</summary>
    private const double Short = 0.97;

    /// <summary>What is to be said of them; null where every layer has its time.</summary>
    /// <param name="job">What was sliced.</param>
    /// <param name="plans">Its layers.</param>
    /// <param name="run">Its dry run.</param>
    /// <param name="lines">Lines at which the layers begin, counted from 0.</param>
    public static Finding? Of(SliceJob job, IReadOnlyList<LayerPlan> plans, DryRunReport run, IReadOnlyList<int> lines)
    {
        var least = job.Recipe.Speeds.LeastLayerTime;
        if (least <= 0) return null;
        // nothing comes to lie on a last layer
        var quick = Enumerable.Range(0, plans.Count - 1).Where(i => plans[i].Part == plans[i + 1].Part && plans[i].Paths.Count > 0)
            .Select(i => (Layer: i, Seconds: run.Starts[lines[i + 1]] - run.Starts[lines[i]])).Where(l => l.Seconds < Short * least)
            .ToArray();
        if (quick.Length == 0) return null;
        var (worst, seconds) = quick.MinBy(l => l.Seconds);
        var count = quick.Length;
        var many = count == 1 ? Sentence.Of($"One layer takes") : Sentence.Of($"{count} layers take");
        var slowest = job.Recipe.Speeds.Least;
        return new Finding("layer-too-quick", Severity.Caution,
            $"{many} less than the least time of {least:0.#} s, layer {worst + 1} ({plans[worst].Place.Top:0.##} mm up) "
                + $"{seconds:0.0} s: nothing is laid slower than {slowest:0.#} mm/s.",
            "The next layer comes onto plastic that is still soft. Let the nozzle wait aside, print a second part beside it, or lower the "
                + "least speed.", "/recipe/speeds/tooQuick", lines[worst] + 1);
    }
}
