using MillCard.Core.Documents;
using MillCard.Core.Flow;
using MillCard.Core.Geometry;
using MillCard.Core.Meshes;

namespace MillCard.Core.Slicing;

/// <summary>How far a long computation has come.</summary>
/// <param name="Step">What is being done, in words.</param>
/// <param name="Done">How many are done.</param>
/// <param name="Of">Of how many.</param>
public sealed record Progress(string Step, int Done, int Of);

/// <summary>The lines of every layer of one placed part.</summary>
public sealed class Layering
{
    private readonly Recipe _recipe;
    private readonly LayerPlace[] _places;
    private readonly double _width;

    private Layering(Recipe recipe, LayerPlace[] places) => (_recipe, _places, _width) = (recipe, places, recipe.LineWidth!.Value);

    /// <summary>One layer's areas and lines of one part.</summary>
    /// <param name="Region">The cross-section.</param>
    /// <param name="Walls">Walls, outermost first; each entry is one wall's rings.</param>
    /// <param name="Fill">Solid and sparse lines.</param>
    public sealed record Layer(Shape Region, IReadOnlyList<IReadOnlyList<ToolPath>> Walls, IReadOnlyList<ToolPath> Fill);

    /// <summary>Cuts a part and lays its lines, layers in parallel.</summary>
    /// <param name="mesh">The part where it stands, bed frame.</param>
    /// <param name="recipe">Complete.</param>
    /// <param name="progress">Told after every stage's layers.</param>
    /// <param name="stop">Ends the computation.</param>
    /// <returns>The layers, and how many chains of the cross-sections could not be closed.</returns>
    public static (Layer[] Layers, int Unclosed) Of(Mesh mesh, Recipe recipe, IProgress<Progress>? progress, CancellationToken stop)
    {
        var places = LayerHeights.Of(mesh.Box.MaxZ, recipe.Layers.FirstHeight, recipe.Layers.Others!.Value);
        return new Layering(recipe, places).Lay(mesh, progress, stop);
    }

    private (Layer[], int) Lay(Mesh mesh, IProgress<Progress>? progress, CancellationToken stop)
    {
        var n = _places.Length;
        var options = new ParallelOptions { CancellationToken = stop, MaxDegreeOfParallelism = Environment.ProcessorCount };
        var regions = new Shape[n];
        var walls = new Walls[n];
        var unclosed = 0;
        var done = 0;
        var sections = new CrossSections(mesh, Neighbours.Of(mesh), [.. _places.Select(p => p.Middle)]);
        Parallel.For(0, n, options, sections.NewTracer, (i, _, tracer) =>
        {
            var contours = tracer.Trace(i);
            if (contours.Unclosed > 0) Interlocked.Add(ref unclosed, contours.Unclosed);
            regions[i] = Regions.Of(contours);
            walls[i] = Walls.Of(regions[i], _recipe.Walls, _width, ExtrudedLine.Spacing(_width, _places[i].Height));
            Tell(progress, "walls", Interlocked.Increment(ref done), n);
            return tracer;
        }, tracer => tracer.Dispose());

        var longest = Math.Max(_recipe.TopLayers, _recipe.BottomLayers);
        var common = new CommonToNeighbours(regions, longest, stop);
        var layers = new Layer[n];
        done = 0;
        Parallel.For(0, n, options, i =>
        {
            layers[i] = new Layer(regions[i], [.. walls[i].Middles.Select((m, k) => Walls.Rings(m, k == 0 ? PathKind.OuterWall : PathKind.InnerWall, _width).ToArray())], Fill(i, walls[i].Inside, common));
            Tell(progress, "fill", Interlocked.Increment(ref done), n);
        });
        return (layers, unclosed);
    }

    private List<ToolPath> Fill(int layer, Shape inside, CommonToNeighbours common)
    {
        if (inside.IsEmpty) return [];
        var spacing = ExtrudedLine.Spacing(_width, _places[layer].Height);
        var angle = layer % 2 == 0 ? 45.0 : -45.0;
        var density = _recipe.Infill.Density;
        if (density >= 1) return [.. Hatch.Of(inside, angle, spacing, PathKind.Solid, _width)];
        var sparse = Sparse(layer, inside, common);
        var solid = sparse.IsEmpty ? inside : Plane.Intersection(Plane.Offset(Plane.Offset(Plane.Difference(inside, sparse), -_width / 4), _width), inside);
        var lines = new List<ToolPath>(Hatch.Of(solid, angle, spacing, PathKind.Solid, _width));
        if (density > 0 && !sparse.IsEmpty)
            lines.AddRange(Hatch.Of(Plane.Difference(sparse, solid), angle, spacing / density, PathKind.Infill, _width));
        return lines;
    }

    /// <summary>What of the inside is covered from above and below by as many layers as must be solid.</summary>
    private Shape Sparse(int layer, Shape inside, CommonToNeighbours common)
    {
        var sparse = inside;
        if (_recipe.TopLayers > 0) sparse = Plane.Intersection(sparse, common.Of(layer + 1, _recipe.TopLayers));
        if (_recipe.BottomLayers > 0) sparse = Plane.Intersection(sparse, common.Of(layer - _recipe.BottomLayers, _recipe.BottomLayers));
        return sparse;
    }

    private static void Tell(IProgress<Progress>? progress, string step, int done, int of) => progress?.Report(new Progress(step, done, of));
}
