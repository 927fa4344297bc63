using MillCard.Core.Geometry;

namespace MillCard.Core.Slicing.Sections;

/// <summary>Cuts curves to an area.</summary>
/// <param name="area">Any areas.</param>
internal sealed class Clip(Shape area) : IDisposable
{
    private readonly Edges _edges = new(area);
    private readonly List<double> _shares = [];

    /// <summary>Gives the memory back.</summary>
    public void Dispose() => _edges.Dispose();

    /// <summary>The pieces of a curve within the area.</summary>
    /// <param name="curve">Its corners.</param>
    /// <param name="least">Shorter pieces are dropped, mm.</param>
    public IEnumerable<Point[]> Of(IReadOnlyList<Point> curve, double least = 0.2)
    {
        var open = new List<Point>();
        for (var i = 1; i < curve.Count; i++)
        {
            var (a, b) = (curve[i - 1], curve[i]);
            if (a == b) continue;
            foreach (var (from, to) in Pieces(a, b))
            {
                var start = from <= 0 ? a : a.Towards(b, from);
                if (open.Count > 0 && (from > 0 || open[^1] != a))
                {
                    if (Long(open, least)) yield return [.. open];
                    open.Clear();
                }
                if (open.Count == 0) open.Add(start);
                open.Add(to >= 1 ? b : a.Towards(b, to));
            }
        }
        if (Long(open, least)) yield return [.. open];
    }

    private static bool Long(List<Point> open, double least)
    {
        var sum = 0.0;
        for (var i = 1; i < open.Count && sum < least; i++) sum += open[i - 1].To(open[i]);
        return open.Count > 1 && sum >= least;
    }

    /// <summary>Shares of a straight piece that lie within, in order: between one crossing and the next it is asked in the
    /// middle.</summary>
    private List<(double From, double To)> Pieces(Point a, Point b)
    {
        _shares.Clear();
        _shares.Add(0);
        _shares.Add(1);
        _edges.Crossings(a, b, _shares);
        _shares.Sort();
        var pieces = new List<(double From, double To)>();
        for (var i = 0; i + 1 < _shares.Count; i++)
        {
            var (from, to) = (_shares[i], _shares[i + 1]);
            if (from == to) continue;
            var middle = a.Towards(b, (from + to) / 2);
            if (!_edges.Hold(middle)) continue;
            if (pieces.Count > 0 && pieces[^1].To == from) pieces[^1] = (pieces[^1].From, to);
            else pieces.Add((from, to));
        }
        return pieces;
    }
}
