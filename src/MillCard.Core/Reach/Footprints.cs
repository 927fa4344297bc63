using System.Collections.Concurrent;
using MillCard.Core.Meshes;
using NetTopologySuite.Geometries.Utilities;

namespace MillCard.Core.Reach;

/// <summary>A part's projections by height, computed once and turned as the part is turned.</summary>
/// <remarks>The frame is the unturned mesh with its bounding box's middle at (0, 0) and its lowest point at 0.</remarks>
public sealed class Footprints
{
    private readonly Mesh _mesh;
    private readonly Neighbours _neighbours;
    private readonly ConcurrentDictionary<double, Shape> _below = new();

    /// <summary>Of any mesh.</summary>
    public Footprints(Mesh mesh)
    {
        _mesh = Placement.Place(mesh, 0, 0, 0);
        _neighbours = Neighbours.Of(_mesh);
        Height = _mesh.Box.MaxZ;
        Whole = Below(double.PositiveInfinity);
    }

    /// <summary>Height of the part, mm.</summary>
    public double Height { get; }

    /// <summary>Least and greatest x, y, z in the part's own frame.</summary>
    public (float MinX, float MinY, float MinZ, float MaxX, float MaxY, float MaxZ) Box => _mesh.Box;

    /// <summary>Edges of the mesh with no partner.</summary>
    public int OpenEdges => _neighbours.OpenEdges;

    /// <summary>The projection of the whole part.</summary>
    public Shape Whole { get; }

    /// <summary>The projection of what lies below a height, in the part's own frame.</summary>
    /// <param name="height">mm above the bed.</param>
    public Shape Below(double height) =>
        height > Height ? _below.GetOrAdd(double.PositiveInfinity, h => Projection.Below(_mesh, _neighbours, h)) : _below.GetOrAdd(height, h => Projection.Below(_mesh, _neighbours, h));

    /// <summary>A projection where a placement puts it.</summary>
    /// <param name="height">mm above the bed.</param>
    /// <param name="x">Middle of the turned part's bounding box, mm, bed frame.</param>
    /// <param name="y">Middle of the turned part's bounding box, mm, bed frame.</param>
    /// <param name="turn">Degrees, counter-clockwise.</param>
    public Shape Below(double height, double x, double y, double turn)
    {
        var (sin, cos) = Placement.SinCos(turn);
        var rotation = new AffineTransformation(cos, -sin, 0, sin, cos, 0);
        var box = rotation.Transform(Whole).EnvelopeInternal;
        return new AffineTransformation(cos, -sin, x - (box.MinX + box.MaxX) / 2, sin, cos, y - (box.MinY + box.MaxY) / 2).Transform(Below(height));
    }
}
