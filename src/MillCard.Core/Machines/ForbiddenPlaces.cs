using MillCard.Core.Geometry;
using NetTopologySuite.Algorithm.Locate;
using NetTopologySuite.Geometries;
using NetTopologySuite.Operation.Distance;

namespace MillCard.Core.Machines;

/// <summary>The places of a part at which it overlaps a region, with indexes for asking about many places.</summary>
/// <param name="area">region ⊕ (−part), the part's own place at (0, 0).</param>
/// <param name="margin">Clearance margin round the region, mm.</param>
internal sealed class ForbiddenPlaces(Shape area, double margin)
{
    private readonly IndexedPointInAreaLocator _inside = new(area);
    private readonly IndexedFacetDistance _border = new(area);
    private readonly Lazy<Shape> _grown = new(() => Plane.GrowOutside(area, margin));

    /// <summary>The places with the margin grown on.</summary>
    public Shape Grown => _grown.Value;

    /// <summary>How deep a place lies inside, mm; negative by its distance where it lies outside.</summary>
    public double DepthAt(double x, double y)
    {
        var place = new Coordinate(x, y);
        var distance = _border.Distance(Plane.Factory.CreatePoint(place));
        return _inside.Locate(place) == Location.Exterior ? -distance : distance;
    }
}
