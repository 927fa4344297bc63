using MillCard.Core.Geometry;
using MillCard.Core.Slicing.Paths;
using MillCard.Core.Slicing.Walls;

namespace MillCard.Core.Slicing.Closing;

/// <summary>How deep places lie in an area.</summary>
/// <param name="area">Any.</param>
/// <param name="more">By how much it is greater, with corners as sharp, mm.</param>
internal sealed class AreaDepth(Shape area, double more) : IDisposable
{
    private readonly Edges _edges = new(area);
    private readonly Strokes _border = new([.. WallLines.Rings(area, PathKind.Solid, 0)], more + Holes.Widest);

    /// <summary>How deep a place lies, mm, less than 0 outside, without bound where no border is near; and where it goes to when it is to
    /// lie deeper.</summary>
    public (double Depth, Point From, Point To) At(Point place)
    {
        var (distance, on) = _border.Nearest(place);
        return _edges.Hold(place) ? (more + Unbound(distance), on, place) : (more - Unbound(_border.Beside(place)), place, on);
    }

    private double Unbound(double distance) => distance < more + Holes.Widest ? distance : double.PositiveInfinity;

    /// <summary>Gives the memory back.</summary>
    public void Dispose() => _edges.Dispose();
}
