using System.Collections.Concurrent;
using MillCard.Core.Geometry;
using NetTopologySuite.Geometries.Utilities;

namespace MillCard.Core.Meshes;

/// <summary>A part's projections by height, computed once and turned as the part is turned.</summary>
/// <remarks>The frame is the unturned mesh with its bounding box's middle at (0, 0) and its lowest point at its lift.</remarks>
public sealed class Footprints
{
    private readonly ConcurrentDictionary<(double Height, Apron Apron), Shape> _below = new();
    private readonly ConcurrentDictionary<double, Shape> _above = new();
    private readonly Shape _hull;
    private double _beyond;

    /// <param name="mesh">Any mesh.</param>
    /// <param name="stop">Ends the computation.</param>
    public Footprints(Mesh mesh, CancellationToken stop = default) : this(mesh, 0, stop)
    {
    }

    /// <param name="mesh">Any mesh.</param>
    /// <param name="lift">Of its lowest point above the bed, mm; below 0 it is sunk, and what lies below the bed goes.</param>
    /// <param name="stop">Ends the computation.</param>
    /// <exception cref="MeshRefusedException">Nothing of it is left above the bed.</exception>
    public Footprints(Mesh mesh, double lift, CancellationToken stop)
    {
        Mesh = Placement.Place(mesh, 0, 0, 0, lift);
        var seen = lift < 0 ? Seen(Mesh) : null;
        if (lift < 0) Mesh = AboveBed(Mesh);
        Neighbours = Neighbours.Of(Mesh, stop);
        Height = Mesh.Box.MaxZ;
        Whole = Below(double.PositiveInfinity, stop: stop);
        // its place is the middle of all of it, of what is sunk too
        _hull = seen ?? Whole.ConvexHull();
    }

    /// <summary>The unturned mesh in the part's own frame.</summary>
    public Mesh Mesh { get; }

    private static Shape Seen(Mesh mesh) => Plane.Factory.CreateMultiPointFromCoords([.. Enumerable.Range(0, mesh.CornerCount)
        .Select(i => new NetTopologySuite.Geometries.Coordinate(mesh.Corners[3 * i], mesh.Corners[3 * i + 1]))]).ConvexHull();

    private static Mesh AboveBed(Mesh mesh)
    {
        if (mesh.Box.MaxZ <= 0)
            throw new MeshRefusedException(Invariant($"The part is sunk by {-mesh.Box.MinZ:0.##} mm and is ")
                + Invariant($"{mesh.Box.MaxZ - mesh.Box.MinZ:0.##} mm high: nothing of it is left."));
        return LevelCut.Of(mesh, 0).Above;
    }

    /// <summary>Height of its top above the bed, mm.</summary>
    public double Height { get; }

    /// <summary>Least and greatest x, y, z in the part's own frame.</summary>
    public (float MinX, float MinY, float MinZ, float MaxX, float MaxY, float MaxZ) Box => Mesh.Box;

    /// <summary>Which face lies across each edge of each face; the same wherever the mesh is placed.</summary>
    public Neighbours Neighbours { get; }

    /// <summary>Edges of the mesh with no partner.</summary>
    public int OpenEdges => Neighbours.OpenEdges;

    /// <summary>The projection of the whole part.</summary>
    public Shape Whole { get; }

    /// <summary>How far beyond what it truly covers its projections of the heights asked for so far may reach, mm; 0 where they are the
    /// true ones. Only of heaps of very many crossing faces they are not.</summary>
    public double Beyond => Volatile.Read(ref _beyond);

    /// <summary>What it takes in memory, about: the mesh, its faces' neighbours, and the projections of a few heights.</summary>
    internal long Bytes => 2L * sizeof(float) * (Mesh.Corners.Length + Mesh.Faces.Length) + 1024;

    /// <summary>The projection of what lies below a height, in the part's own frame.</summary>
    /// <param name="height">mm above the bed.</param>
    /// <param name="apron">What is grown round the first layer; the default for nothing.</param>
    /// <param name="stop">Ends the computation.</param>
    public Shape Below(double height, Apron apron = default, CancellationToken stop = default) =>
        _below.GetOrAdd((height > Height ? double.PositiveInfinity : height, apron.Width == 0 ? default : apron),
            key => Make(key.Height, key.Apron, stop));

    /// <summary>The projection of what rises above a height, in the part's own frame.</summary>
    /// <param name="height">mm above the bed.</param>
    /// <param name="stop">Ends the computation.</param>
    public Shape Above(double height, CancellationToken stop = default)
    {
        if (height >= Height) return Plane.Empty;
        return height <= 0 ? Whole : _above.GetOrAdd(height, key => Kept(Projection.Above(Mesh, Neighbours, key, stop)));
    }

    /// <summary>A projection where a placement puts it.</summary>
    /// <param name="height">mm above the bed.</param>
    /// <param name="x">Middle of the turned part's bounding box, mm, bed frame.</param>
    /// <param name="y">Middle of the turned part's bounding box, mm, bed frame.</param>
    /// <param name="turn">Degrees, counter-clockwise.</param>
    /// <param name="apron">What is grown round the first layer; the default for nothing.</param>
    /// <param name="stop">Ends the computation.</param>
    public Shape Below(double height, double x, double y, double turn, Apron apron = default, CancellationToken stop = default) =>
        Placed(Below(height, apron, stop), x, y, turn);

    /// <summary>A shape of the part's own frame where a placement puts it.</summary>
    /// <param name="shape">In the part's own frame.</param>
    /// <param name="x">Middle of the turned part's bounding box, mm, bed frame.</param>
    /// <param name="y">Middle of the turned part's bounding box, mm, bed frame.</param>
    /// <param name="turn">Degrees, counter-clockwise.</param>
    public Shape Placed(Shape shape, double x, double y, double turn)
    {
        var (sin, cos) = Placement.SinCos(turn);
        var rotation = new AffineTransformation(cos, -sin, 0, sin, cos, 0);
        var box = rotation.Transform(_hull).EnvelopeInternal;
        return new AffineTransformation(cos, -sin, x - (box.MinX + box.MaxX) / 2, sin, cos, y - (box.MinY + box.MaxY) / 2).Transform(shape);
    }

    private Shape Kept(Projection projection)
    {
        // asked for side by side: the greatest of all stays
        for (var known = Beyond; projection.Beyond > known; known = Beyond)
            Interlocked.CompareExchange(ref _beyond, projection.Beyond, known);
        return projection.Area;
    }

    private Shape Make(double height, Apron apron, CancellationToken stop)
    {
        if (apron.Width == 0) return Kept(Projection.Below(Mesh, Neighbours, height, stop));
        var foot = Plane.GrowOutside(Below(apron.Top, stop: stop), apron.Width);
        return height <= apron.Top ? foot : Plane.Union(Below(height, stop: stop), foot);
    }
}

/// <summary>What is grown round a part's lowest layers.</summary>
/// <param name="FirstLayer">Height of the first layer, mm.</param>
/// <param name="Width">mm; 0 for nothing.</param>
/// <param name="Top">How high it stands, mm: it goes round all of the part below that.</param>
public readonly record struct Apron(double FirstLayer, double Width, double Top)
{
    /// <summary>On the first layer alone.</summary>
    public Apron(double firstLayer, double width) : this(firstLayer, width, firstLayer) { }
}
