using MillCard.Core.Slicing.Jobs;
using MillCard.Core.Slicing.Paths;
using MillCard.Core.Wording;

namespace MillCard.Core.Slicing.Writing;

/// <summary>How fast a layer is laid: what its lines ask for, within the slow layers', mode's and hot end's limits, and slow enough for the
/// least time of a layer.</summary>
internal sealed class LayerPace
{
    private readonly SliceJob _job;
    private readonly double _fastest, _slower = 1;

    /// <param name="job">What is sliced.</param>
    /// <param name="fastest">What the mode allows, mm/s.</param>
    /// <param name="layer">The layer.</param>
    /// <param name="number">Its number within its part, from 1.</param>
    [Formula("How much slower a short layer is laid", "(t − m) / l",
        "Rule of three.",
        Where = "t least time of a layer, m time of its travels, l time of its lines")]
    public LayerPace(SliceJob job, double fastest, LayerPlan layer, int number)
    {
        (_job, _fastest, Layer, Number) = (job, fastest, layer, number);
        var (laying, moving, at) = (0.0, 0.0, new Point(double.NaN, double.NaN));
        foreach (var path in layer.Paths)
        {
            if (!double.IsNaN(at.X)) moving += at.To(path.Points[0]) / job.Recipe.Speeds.Travel;
            laying += SecondsOf(path);
            at = path.End;
        }
        var least = job.Recipe.Speeds.LeastLayerTime;
        if (layer.Speed is null && laying > 0 && laying + moving < least) _slower = Math.Max(1, (least - moving) / laying);
        Seconds = layer.Paths.Sum(SecondsOf) + moving;
    }

    /// <summary>The layer.</summary>
    public LayerPlan Layer { get; }

    /// <summary>Its number within its part, from 1.</summary>
    public int Number { get; }

    /// <summary>How long it takes, s, accelerations left out.</summary>
    public double Seconds { get; }

    /// <summary>Time that one of its lines takes, s.</summary>
    private double SecondsOf(ToolPath path)
    {
        if (path.Paces is not { } paces) return path.Length / SpeedOf(path);
        var sum = 0.0;
        for (var i = 0; i < paces.Length; i++) sum += path.Points[i].To(path.Points[(i + 1) % path.Points.Length]) / SpeedOf(path, i);
        return sum;
    }

    /// <summary>Speed of one of its lines, mm/s.</summary>
    /// <param name="path">The line.</param>
    /// <param name="from">The point from which on; it counts only where the line's pace changes.</param>
    public double SpeedOf(ToolPath path, int from = 0)
    {
        if (Layer.Speed is { } own) return own;
        var (recipe, filament) = (_job.Recipe, _job.FilamentOf(path.Nozzle));
        var limit = Math.Min((path.Nozzle < _job.Machine.Nozzles.Count ? _job.Machine.Nozzles[path.Nozzle].MaxFlow : null)
            ?? double.PositiveInfinity, filament.MaxFlow ?? double.PositiveInfinity);
        var asked = recipe.Speeds.OnLayer(path.Paces?[from].Speed ?? path.Speed ?? recipe.SpeedOf(path.Kind), Number);
        var speed = Math.Min(Math.Min(_fastest, asked), limit / (path.GreatestSectionAt(Layer.Place.Height) * (filament.Flow ?? 1)));
        return _slower == 1 ? speed : Math.Max(speed / _slower, Math.Min(speed, recipe.Speeds.Least));
    }
}
