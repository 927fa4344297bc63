using MillCard.Core.Documents;
using MillCard.Core.DryRun;
using MillCard.Core.Heat;
using MillCard.Core.Slicing.Jobs;
using MillCard.Core.Slicing.Paths;

namespace MillCard.Core.Slicing.Writing;

/// <summary>When nozzles that do not print cool to standby, and when they are warmed again so that nothing waits for them.</summary>
/// <remarks>Lines are told by their number in the order of printing, counted from 0 over all layers.</remarks>
internal sealed class WarmingPlan
{
    /// <summary>Real heaters are slower than their model, and lines quicker than planned: as a ratio, and s.</summary>
    private const double Margin = 1.1, Early = 2;

    /// <summary>All stay hot.</summary>
    public static WarmingPlan Hot { get; } = new();

    private readonly HashSet<int> _cools = [];
    private readonly Dictionary<int, List<Warmed>> _warms = [];

    /// <summary>A nozzle whose heating begins.</summary>
    /// <param name="Nozzle">Which.</param>
    /// <param name="Degrees">What it comes to, °C.</param>
    /// <param name="Share">From which share of the line on, 0 to 1.</param>
    public readonly record struct Warmed(int Nozzle, double Degrees, double Share);

    /// <summary>Whether the nozzle that printed up to a line cools to standby until its next turn.</summary>
    public bool CoolsAt(int line) => _cools.Contains(line);

    /// <summary>Nozzles whose heating begins on a line or on the way to it.</summary>
    public IReadOnlyList<Warmed> WarmsOn(int line) => _warms.GetValueOrDefault(line) ?? [];

    /// <summary>A run of lines laid by one nozzle: its first line, and the first of the next run.</summary>
    private readonly record struct Turn(int Nozzle, int First, int End);

    /// <summary>Plans a print; null where one nozzle lays it all.</summary>
    /// <param name="job">What is sliced.</param>
    /// <param name="layers">Its layers in order.</param>
    /// <param name="run">The dry run of a program that keeps all nozzles hot.</param>
    /// <param name="begins">At which line of that program each line of plastic begins, counted from 0.</param>
    public static WarmingPlan? Of(SliceJob job, IReadOnlyList<LayerPlan> layers, DryRunReport run, IReadOnlyList<int> begins)
    {
        var turns = Turns(layers);
        if (turns.Count < 2) return null;
        var (plan, times, firsts) = (new WarmingPlan(), Times(run, begins), FirstLayers(layers));
        for (var k = 0; k < turns.Count; k++)
        {
            var (turn, nozzle) = (turns[k], turns[k].Nozzle);
            if (nozzle >= job.Machine.Nozzles.Count) continue;
            var heat = job.FilamentOf(nozzle).Nozzle;
            var model = Heaters.Nozzle(job.Machine.Card, job.Machine.Nozzles[nozzle]);
            var before = turns[..k].FindLastIndex(t => t.Nozzle == nozzle);
            var degrees = (firsts[turn.First] ? heat.First : heat.Others)!.Value;
            if (before >= 0) plan.Between(turns[before].End, turn.First, nozzle, degrees, heat, model, times);
            else if (k > 0) plan.Warm(nozzle, degrees, times[turn.First] - Lead(model, model.Room, degrees), 0, turn.First, times);
            if (!turns.Skip(k + 1).Any(t => t.Nozzle == nozzle)) plan._cools.Add(turn.End);
        }
        return plan;
    }

    /// <summary>Between two turns of a nozzle it cools where it comes below where it oozes, and back, in that time.</summary>
    private void Between(int from, int to, int nozzle, double degrees, NozzleHeat heat, HeatModel model, double[] times)
    {
        if (heat.Standby is not { } standby || standby >= degrees) return;
        var quiet = Math.Max(standby, Math.Min(heat.OozesFrom ?? standby, degrees));
        var cooling = model.Time(degrees, quiet);
        if (times[to] - times[from] < cooling + Lead(model, quiet, degrees)) return;
        _cools.Add(from);
        Warm(nozzle, degrees, times[to] - Lead(model, standby, degrees), from, to, times);
    }

    private static double Lead(HeatModel model, double from, double to) =>
        model.Time(from, to - HeatModel.WaitTolerance) is var seconds && double.IsFinite(seconds) ? Margin * seconds + Early : 0;

    private void Warm(int nozzle, double degrees, double at, int from, int to, double[] times)
    {
        var line = Array.FindLastIndex(times, to, to - from + 1, time => time <= at);
        line = Math.Max(line, from);
        if (line >= to) return;
        if (!_warms.TryGetValue(line, out var all)) _warms[line] = all = [];
        all.Add(new(nozzle, degrees, Math.Clamp((at - times[line]) / (times[line + 1] - times[line]), 0, 1)));
    }

    private static List<Turn> Turns(IReadOnlyList<LayerPlan> layers)
    {
        var (turns, line) = (new List<Turn>(), 0);
        foreach (var path in layers.SelectMany(l => l.Paths))
        {
            if (turns.Count == 0 || turns[^1].Nozzle != path.Nozzle) turns.Add(new(path.Nozzle, line, line + 1));
            else turns[^1] = turns[^1] with { End = line + 1 };
            line++;
        }
        return turns;
    }

    /// <summary>Whether each line lies on the first layer of its part.</summary>
    private static bool[] FirstLayers(IReadOnlyList<LayerPlan> layers) =>
        [.. layers.SelectMany((layer, i) => layer.Paths.Select(_ => i == 0 || layer.Part != layers[i - 1].Part))];

    /// <summary>When each line begins, s, without the waits for nozzles before it.</summary>
    private static double[] Times(DryRunReport run, IReadOnlyList<int> begins)
    {
        var waits = run.Waits.Where(w => w.Heater == Heater.Nozzle && double.IsFinite(w.Seconds)).OrderBy(w => w.At).ToArray();
        var (times, waited, next) = (new double[begins.Count], 0.0, 0);
        for (var i = 0; i < times.Length; i++)
        {
            var at = run.Starts[begins[i]];
            while (next < waits.Length && waits[next].At < at) waited += waits[next++].Seconds;
            times[i] = at - waited;
        }
        return times;
    }
}
