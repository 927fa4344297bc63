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
    /// <summary>Real heaters are slower than their model, and lines quicker than planned: as a share of the time, at most so many s, and
    /// s beside it. What comes much too early oozes.</summary>
    private const double Slower = 0.1, MostSlower = 6, Early = 2;

    /// <summary>All stay hot.</summary>
    public static WarmingPlan Hot { get; } = new(null, []);

    private readonly DryRunReport? _run;
    private readonly IReadOnlyList<int> _begins;
    private readonly HashSet<int> _cools = [];
    private readonly Dictionary<int, List<Warmed>> _warms = [];

    private WarmingPlan(DryRunReport? run, IReadOnlyList<int> begins) => (_run, _begins) = (run, begins);

    /// <summary>A nozzle whose heating begins.</summary>
    /// <param name="Nozzle">Which.</param>
    /// <param name="Degrees">What it comes to, °C.</param>
    /// <param name="After">After so many lines of G-code from where the line begins.</param>
    public readonly record struct Warmed(int Nozzle, double Degrees, int After);

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
        var (plan, times, firsts) = (new WarmingPlan(run, begins), Times(run, begins), FirstLayers(layers));
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
        model.Time(from, to - HeatModel.WaitTolerance) is var seconds && double.IsFinite(seconds)
            ? seconds + Math.Min(Slower * seconds, MostSlower) + Early : 0;

    private void Warm(int nozzle, double degrees, double at, int from, int to, double[] times)
    {
        var line = Array.FindLastIndex(times, to, to - from + 1, time => time <= at);
        line = Math.Max(line, from);
        if (line >= to) return;
        if (!_warms.TryGetValue(line, out var all)) _warms[line] = all = [];
        // a wait for its nozzle comes at the line's beginning: the time is reckoned back from its end
        var (starts, now) = (_run!.Starts, _run.Starts[_begins[line + 1]] - (times[line + 1] - at));
        var code = _run.LineAt(now);
        // between two lines of code, the nearer one
        if (now - starts[code] > starts[code + 1] - now) code++;
        all.Add(new(nozzle, degrees, Math.Max(0, code - _begins[line])));
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
