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

    /// <summary>How deep a place lies, mm, less than 0 outside; without bound where no border is near.</summary>
    public double At(Point place)
    {
        if (_edges.Hold(place)) return more + Unbound(_border.Free(place));
        return more - Unbound(_border.Beside(place));
    }

    private double Unbound(double distance) => distance < more + Holes.Widest ? distance : double.PositiveInfinity;

    /// <summary>Gives the memory back.</summary>
    public void Dispose() => _edges.Dispose();
}
