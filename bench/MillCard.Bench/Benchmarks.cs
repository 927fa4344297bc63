using BenchmarkDotNet.Attributes;
using MillCard.Core.Documents;
using MillCard.Core.DryRun;
using MillCard.Core.Files;
using MillCard.Core.Machines;
using MillCard.Core.Meshes;
using MillCard.Core.Slicing;
using MillCard.Core.Slicing.Jobs;
using MillCard.Core.Slicing.Sections;

namespace MillCard.Bench;

/// <summary>Reading binary STL, welded.</summary>
[MemoryDiagnoser]
public class StlRead
{
    private byte[] _file = [];

    [Params(10_000, 100_000, 1_000_000)] public int Faces { get; set; }

    [GlobalSetup]
    public void Setup()
    {
        BenchFiles.Make();
        _file = File.ReadAllBytes(BenchFiles.TorusFile(Faces));
    }

    [Benchmark] public Mesh Welded() => Stl.Read(_file);
}

/// <summary>Closed contours of 150 planes, one thread, reading left out.</summary>
[MemoryDiagnoser]
public class Sections
{
    private Mesh _mesh = new([], []);
    private Neighbours? _neighbours;
    private readonly double[] _heights = [.. Enumerable.Range(0, 150).Select(i => 0.1 + 0.2 * i)];

    [Params(10_000, 100_000, 1_000_000)] public int Faces { get; set; }

    [GlobalSetup]
    public void Setup()
    {
        BenchFiles.Make();
        _mesh = Stl.Read(File.ReadAllBytes(BenchFiles.TorusFile(Faces)));
        _neighbours = Neighbours.Of(_mesh);
    }

    [Benchmark] public Contours[] OneThread() => new CrossSections(_mesh, _neighbours!, _heights).All();
}

/// <summary>From mesh to program and its dry run, all threads.</summary>
[MemoryDiagnoser]
public class WholeSlice
{
    private SliceJob? _job;

    [GlobalSetup]
    public void Setup()
    {
        var mesh = BenchFiles.Torus(100_000);
        var part = new TrialPart { Name = "torus", File = "torus", X = 90, Y = 80 };
        var card = DocumentReader.Read<Card>(Examples.Of("card")).Document!;
        // a torus on its round side hangs over the clips: they are left off
        card = card with { Envelope = card.Envelope with { KeepOuts = [] } };
        _job = new SliceJob("torus", Machine.Of(card), DocumentReader.Read<Filament>(Examples.Of("filament")).Document!,
            DocumentReader.Read<Recipe>(Examples.Of("recipe")).Document!,
            [new PartToSlice(part, mesh, new Footprints(mesh))]);
        if (!Slicer.Slice(_job).Sliced) throw new InvalidOperationException("the benchmark's part is refused");
    }

    [Benchmark] public SliceResult Torus100k() => Slicer.Slice(_job!);
}

/// <summary>A dry run of plain moves, one thread.</summary>
[MemoryDiagnoser]
public class DryRun
{
    private byte[] _program = [];
    private Machine? _machine;

    [GlobalSetup]
    public void Setup()
    {
        _program = BenchFiles.PlainMoves(1_000_000);
        _machine = Machine.Of(DocumentReader.Read<Card>(Examples.Of("card")).Document!);
    }

    [Benchmark(OperationsPerInvoke = 1_000_000)] public DryRunReport PlainMove() => SimulatedMachine.Run(_machine!, _program);
}
