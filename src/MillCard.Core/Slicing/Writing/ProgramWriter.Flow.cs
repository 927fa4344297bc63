using MillCard.Core.Slicing.Paths;

namespace MillCard.Core.Slicing.Writing;

/// <summary>Flow that changes slowly, where the recipe wants that: each nozzle's by itself, over layers and travels.</summary>
internal sealed partial class ProgramWriter
{
    /// <summary>By number of path, counted through the program; empty where flow changes at once.</summary>
    private readonly Dictionary<int, (SmoothFlow Flow, int First)> _smooth = [];

    /// <summary>Settles the flows of all lines, each with what comes after it in view.</summary>
    private void SettleFlows()
    {
        if (_recipe.Speeds.FlowChange is not { } slope) return;
        var paces = _layers.Select((layer, i) => new LayerPace(_job, _fastest, layer, i - FirstOf(i) + 1));
        var paths = paces.SelectMany(pace => pace.Layer.Paths.Select(path => (Path: path, Pace: pace))).Index();
        foreach (var ofNozzle in paths.Where(p => !p.Item.Path.Climbs).GroupBy(p => p.Item.Path.Nozzle))
        {
            var (moves, firsts) = (new List<FlowOfMove>(), new List<(int Number, int First)>());
            foreach (var (number, (path, pace)) in ofNozzle)
            {
                firsts.Add((number, moves.Count));
                for (var i = 1; i < path.Points.Length + (path.Closed ? 1 : 0); i++)
                {
                    var section = path.SectionTo(i, pace.Layer.Place.Height) * FlowShareOf(path);
                    var length = path.Points[i - 1].To(path.Points[i % path.Points.Length]);
                    // what goes back over its own line is as quick as the rest of it
                    var usual = path.GoesBack(i) ? path.SectionAt(pace.Layer.Place.Height) * FlowShareOf(path) : section;
                    moves.Add(new(length * section, pace.SpeedOf(path, i - 1) * usual));
                }
            }
            if (moves.Count == 0) continue;
            var flow = new SmoothFlow(moves, slope);
            foreach (var (number, first) in firsts) _smooth[number] = (flow, first);
        }
    }

    /// <summary>Lays a straight move of a path, in pieces where its flow rises or falls.</summary>
    /// <param name="path">The path.</param>
    /// <param name="number">Its number in the program.</param>
    /// <param name="point">The point to which it goes; the number of points stands for the way back to the first.</param>
    /// <param name="perMm">mm of filament a mm.</param>
    private void LayStraight(ToolPath path, int number, int point, double perMm)
    {
        var (from, end) = (_head.Here, path.Points[point % path.Points.Length]);
        if (perMm == 0 || !_smooth.TryGetValue(number, out var smooth))
        {
            _head.Lay(end, perMm, _pace.SpeedOf(path, point - 1));
            return;
        }
        var section = path.SectionTo(point, _pace.Layer.Place.Height) * FlowShareOf(path);
        var (done, length) = (0.0, from.To(end));
        var pieces = smooth.Flow.PiecesOf(smooth.First + point - 1).ToArray();
        foreach (var (i, (share, flow)) in pieces.Index())
        {
            (done, var isLast) = (done + share, i == pieces.Length - 1);
            // what is shorter than positions are written to goes with the next
            if (!isLast && Math.Min(share, 1 - done) * length < LeastMove) continue;
            _head.Lay(isLast ? end : from.Towards(end, done), perMm, flow / section);
        }
    }

    /// <summary>Speed of an arc that goes over some points: the least of what its straight moves would have.</summary>
    private double SpeedOfArc(ToolPath path, int number, int from, int to)
    {
        var speed = _pace.SpeedOf(path, to - 1);
        if (!_smooth.TryGetValue(number, out var smooth)) return speed;
        var section = path.SectionAt(_pace.Layer.Place.Height) * FlowShareOf(path);
        var least = Enumerable.Range(smooth.First + from, to - from).SelectMany(smooth.Flow.PiecesOf).Min(piece => piece.Flow);
        return Math.Min(speed, least / section);
    }

    private double FlowShareOf(ToolPath path) => _job.FilamentOf(path.Nozzle).Flow ?? 1;
}
