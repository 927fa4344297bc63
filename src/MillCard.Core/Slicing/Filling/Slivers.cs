using MillCard.Core.Geometry;
using MillCard.Core.Slicing.Paths;
using NetTopologySuite.Geometries;

namespace MillCard.Core.Slicing.Filling;

/// <summary>Lines in what the rows of a hatch leave free along borders that are all but parallel to them: wedges between a border and the
/// row beside it, at most one line wide. The line lies in the middle of the wedge and is as wide as it.</summary>
internal sealed class Slivers
{
    /// <summary>Shorter wedges are filled by the turns and the round ends of the rows, in distances of the rows.</summary>
    private const double Shortest = 2;

    private readonly SortedDictionary<int, List<(double From, double To)>> _rows;
    private readonly double _spacing, _least;
    private readonly List<List<(double U, double V, double Room)>> _lines = [];

    private Slivers(SortedDictionary<int, List<(double From, double To)>> rows, double spacing, double least) =>
        (_rows, _spacing, _least) = (rows, spacing, least);

    /// <summary>The lines.</summary>
    /// <param name="polygon">Where the middles of lines may lie.</param>
    /// <param name="rows">Pieces of rows, which lie at whole multiples of the spacing.</param>
    /// <param name="frame">Of the rows.</param>
    /// <param name="spacing">Distance of the rows, mm.</param>
    /// <param name="round">By how much a line is wider than its room, mm.</param>
    /// <param name="least">Least width of a line, mm.</param>
    /// <param name="kind">What the lines are for.</param>
    public static IEnumerable<ToolPath> Of(Polygon polygon, SortedDictionary<int, List<(double From, double To)>> rows, HatchFrame frame,
        double spacing, double round, double least, PathKind kind)
    {
        var slivers = new Slivers(rows, spacing, least - round);
        foreach (var ring in Plane.Rings(polygon)) slivers.Ring(ring, frame);
        return slivers._lines.Select(line => new ToolPath(kind, [.. line.Select(p => frame.Back(new(p.U, p.V)))], Closed: false,
            (line.Min(p => p.Room) + line.Max(p => p.Room)) / 2 + round)
        { Widths = [.. line.Select(p => p.Room + round)] });
    }

    /// <summary>Stretches of a border between two rows, one after the other.</summary>
    private void Ring(LineString ring, HatchFrame frame)
    {
        var c = ring.CoordinateSequence;
        var corners = new Along[c.Count - 1];
        for (var i = 0; i < corners.Length; i++) corners[i] = frame.Turn(c.GetX(i), c.GetY(i));
        int Strip(Along at) => (int)Math.Floor(at.V / _spacing);
        Along Corner(int i) => corners[i % corners.Length];
        var start = Enumerable.Range(0, corners.Length).FirstOrDefault(i => EndsOn(Corner(i), Corner(i + 1)).Any(), -1);
        if (start < 0) return;
        var (stretch, begunIn) = (new List<Along>(), int.MinValue);
        // once round, from a way on which a row ends to itself
        for (var i = start; i <= start + corners.Length; i++)
        {
            foreach (var (at, strip, next) in EndsOn(Corner(i), Corner(i + 1)))
            {
                stretch.Add(at);
                if (begunIn == strip) Stretch(stretch, strip);
                (stretch, begunIn) = ([at], next);
            }
            stretch.Add(Corner(i + 1));
        }

        // a border that only just reaches over a row goes on beside the next
        IEnumerable<(Along At, int Strip, int Next)> EndsOn(Along from, Along to)
        {
            var way = Math.Sign(Strip(to) - Strip(from));
            for (var strip = Strip(from); strip != Strip(to); strip += way)
            {
                var row = way > 0 ? strip + 1 : strip;
                var v = row * _spacing;
                var at = new Along(from.U + (v - from.V) / (to.V - from.V) * (to.U - from.U), v);
                if (Ends(row, at.U)) yield return (at, strip, strip + way);
            }
        }
    }

    /// <summary>A stretch of a border between a row and the next.</summary>
    private void Stretch(List<Along> border, int row)
    {
        if (Math.Abs(border[^1].U - border[0].U) < Shortest * _spacing) return;
        var middle = (border[0].U + border[^1].U) / 2;
        // the row that runs on beside the border
        var (here, next) = (IsLaid(row, middle), IsLaid(row + 1, middle));
        if (here == next) return;
        var (beside, way) = here ? (row * _spacing, 1) : ((row + 1) * _spacing, -1);
        List<(double U, double V, double Room)>? line = null;
        for (var i = 0; i < border.Count; i++)
        {
            var room = way * (border[i].V - beside);
            if (i > 0 && way * (border[i - 1].V - beside) is var before && before >= _least != room >= _least)
            {
                var share = (_least - before) / (room - before);
                Add(border[i - 1].U + share * (border[i].U - border[i - 1].U), _least);
            }
            if (room >= _least) Add(border[i].U, Math.Min(room, _spacing));
            else End();
        }
        End();

        void Add(double u, double room) => (line ??= []).Add((u, beside + way * (_spacing + room) / 2, room));
        void End()
        {
            if (line is { Count: > 1 } && Math.Abs(line[^1].U - line[0].U) >= _spacing) _lines.Add(line);
            line = null;
        }
    }

    private bool Ends(int row, double u) => _rows.TryGetValue(row, out var pieces)
        && pieces.Exists(p => Math.Min(Math.Abs(p.From - u), Math.Abs(p.To - u)) < Plane.Touch);

    private bool IsLaid(int row, double u) => _rows.TryGetValue(row, out var pieces) && pieces.Exists(p => p.From < u && u < p.To);
}
