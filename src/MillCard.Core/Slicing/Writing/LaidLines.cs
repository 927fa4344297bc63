using MillCard.Core.Slicing.Paths;
using NetTopologySuite.Geometries;
using NetTopologySuite.Index.Quadtree;

namespace MillCard.Core.Slicing.Writing;

/// <summary>The lines that a layer has so far, to be asked for what a travel passes over.</summary>
internal sealed class LaidLines
{
    private readonly Quadtree<(LineSegment Middle, double Width)> _lines = new();
    private double _widest;

    /// <summary>Takes a line in.</summary>
    public void Add(ToolPath path)
    {
        _widest = Math.Max(_widest, path.Width);
        for (var i = 1; i < path.Points.Length + (path.Closed ? 1 : 0); i++)
        {
            var middle = Segment(path.Points[i - 1], path.Points[i % path.Points.Length]);
            _lines.Insert(new Envelope(middle.P0, middle.P1), (middle, path.Width));
        }
    }

    /// <summary>Whether a straight way passes over a line, its ends left out: there it leaves one line and comes to the next.</summary>
    public bool AreUnder(Point from, Point to)
    {
        var length = from.To(to);
        if (length <= 2 * _widest) return false;
        var way = Segment(from.Towards(to, _widest / length), to.Towards(from, _widest / length));
        var near = new Envelope(way.P0, way.P1);
        near.ExpandBy(_widest / 2);
        return _lines.Query(near).Any(line => line.Middle.Distance(way) < line.Width / 2);
    }

    private static LineSegment Segment(Point a, Point b) => new(a.X, a.Y, b.X, b.Y);
}
