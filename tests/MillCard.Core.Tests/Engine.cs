using System.Text.Json;
using MillCard.Core.Documents;
using MillCard.Core.Geometry;
using MillCard.Core.Meshes;
using MillCard.Core.Slicing;
using MillCard.Core.Slicing.Jobs;
using MillCard.Core.Slicing.Paths;
using NetTopologySuite.Geometries;
using Xunit;

namespace MillCard.Core.Tests;

/// <summary>What tests of the engine have in common.</summary>
internal static class Engine
{
    public static readonly Recipe Plain = Cards.Standard with
    {
        Skirt = new() { Rounds = 0 },
        Layers = new() { First = 0.2, Others = 0.2 }
    };

    public static SliceJob Job(Mesh mesh, Recipe recipe, Card? card = null, double x = 150, double y = 100) =>
        new("test", (card ?? Cards.Bare()).Machine(), Cards.Petg, recipe,
            [new PartToSlice(new TrialPart { Name = "part", File = "part", X = x, Y = y }, mesh, new Footprints(mesh))]);

    /// <summary>Slices, and holds every finding's values against its sentence.</summary>
    public static SliceResult Slice(SliceJob job, IProgress<Progress>? progress = null, CancellationToken stop = default)
    {
        var result = Slicer.Slice(job, progress, stop);
        Spoken.AllKept(result.Findings);
        return result;
    }

    public static SliceResult Slice(Mesh mesh, Recipe recipe, Card? card = null)
    {
        var result = Slice(Job(mesh, recipe, card));
        Assert.True(result.Sliced, string.Join('\n', result.Findings.Select(f => f.Message)));
        return result;
    }

    /// <summary>Where a part or a zone departs from the recipe.</summary>
    public static IReadOnlyDictionary<string, JsonElement> Departing(params (string Pointer, object Value)[] settings) =>
        settings.ToDictionary(s => s.Pointer, s => JsonSerializer.SerializeToElement(s.Value));

    public static double Plastic(IEnumerable<LayerPlan> layers, Func<ToolPath, bool>? which = null) =>
        layers.Sum(l => l.Paths.Where(which ?? (_ => true)).Sum(p => p.VolumeAt(l.Place.Height)));

    /// <summary>How far a line is laid, mm: nothing is on the way back from where it led aside.</summary>
    public static double Laid(ToolPath path)
    {
        var way = path.Points.Concat(path.Closed ? path.Points[..1] : []).ToArray();
        return Enumerable.Range(1, way.Length - 1).Where(i => i < 2 || way[i] != way[i - 2]).Sum(i => way[i - 1].To(way[i]));
    }

    public static Shape Inked(ToolPath path, double less = 0) =>
        Plane.Factory.CreateLineString([.. path.Points.Append(path.Closed ? path.Points[0] : path.Points[^1])
            .Select(p => new Coordinate(p.X, p.Y))]).Buffer(path.Width / 2 - less);
}
