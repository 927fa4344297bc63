using BenchmarkDotNet.Attributes;
using MillCard.Core.Documents;
using MillCard.Core.Machines;
using MillCard.Core.Meshes;
using MillCard.Core.Slicing;
using MillCard.Core.Slicing.Jobs;
using MillCard.Core.Slicing.Order;
using MillCard.Core.Slicing.Paths;
using MillCard.Core.Slicing.Supporting;

namespace MillCard.Bench;

/// <summary>Cutting, laying and ordering 300 layers, reading and writing left out: one thread against two.</summary>
/// <remarks>Warmed up for long: compiling goes on in the background, which is free beside one thread and not beside two.</remarks>
[WarmupCount(15), IterationCount(15)]
public class Layers300
{
    private SliceJob? _job;

    [Params(1, 2)] public int Threads { get; set; }

    [GlobalSetup]
    public void Setup()
    {
        var mesh = BenchFiles.Torus(100_000);
        var card = DocumentReader.Read<Card>(Examples.Of("card")).Document!;
        card = card with { Envelope = card.Envelope with { KeepOuts = [] } };
        var recipe = DocumentReader.Read<Recipe>(Examples.Of("recipe")).Document! with { Layers = new() { First = 0.1, Others = 0.1 } };
        _job = new SliceJob("torus", Machine.Of(card), DocumentReader.Read<Filament>(Examples.Of("filament")).Document!, recipe,
            [new PartToSlice(new TrialPart { Name = "torus", File = "torus", X = 90, Y = 80 }, mesh, new Footprints(mesh))])
        { Threads = Threads };
        if (Laid().Count != 300) throw new InvalidOperationException("the benchmark's part has not 300 layers");
    }

    [Benchmark]
    public IReadOnlyList<LayerPlan> Laid()
    {
        var ground = new AllowedGround(_job!);
        return LayerOrder.Of(_job!, [Layering.Of(_job!, _job!.Parts[0], null, null, ground, 0, null, default)], ground, default).Layers;
    }
}
