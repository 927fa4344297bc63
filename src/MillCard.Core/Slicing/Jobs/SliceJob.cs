using MillCard.Core.Documents;
using MillCard.Core.Machines;
using MillCard.Core.Meshes;
using MillCard.Core.Motion;
using MillCard.Core.Reach;
using MillCard.Core.Routines;
using MillCard.Core.Slicing.Sections;

namespace MillCard.Core.Slicing.Jobs;

/// <summary>A part to be sliced: a mesh and its place.</summary>
public sealed record PartToSlice(TrialPart Part, Mesh Mesh, Footprints Footprints);

/// <summary>What is to be sliced. All documents complete.</summary>
public sealed record SliceJob(string Name, Machine Machine, Filament Filament, Recipe Recipe, IReadOnlyList<PartToSlice> Parts,
    string? Revision = null)
{
    /// <summary>Whether parts grow together or one after the other.</summary>
    public Sequence Sequence { get; init; } = Sequence.AllAtOnce;
    /// <summary>The mode of two carriages; null on a machine with one.</summary>
    public ModeUse? Mode { get; init; }
    /// <summary>The second nozzle's filament; null where it is the same.</summary>
    public Filament? SecondFilament { get; init; }

    /// <summary>What is in the nozzles, by their ids; goes before the two filaments.</summary>
    public IReadOnlyDictionary<string, Filament> Loaded { get; init; } = new Dictionary<string, Filament>();

    /// <summary>Places where settings differ or support is wanted or unwanted; a later one wins.</summary>
    public IReadOnlyList<ZoneToSlice> Zones { get; init; } = [];

    /// <summary>Heights at which the print stops.</summary>
    public IReadOnlyList<TrialStop> Stops { get; init; } = [];

    /// <summary>Heights of layers set by hand.</summary>
    public IReadOnlyList<HeightBand> Heights { get; init; } = [];

    /// <summary>Threads that work on it; the result does not depend on them.</summary>
    public int Threads { get; init; } = Environment.ProcessorCount;

    /// <summary>What stages came to before; the result does not depend on it.</summary>
    public StageShelf Shelf { get; init; } = new(EnoughForOne);

    private const long EnoughForOne = 256L << 20;

    /// <summary>How loops over layers run: on the threads on which the job itself runs.</summary>
    internal ParallelOptions Parallel(CancellationToken stop) =>
        new() { CancellationToken = stop, MaxDegreeOfParallelism = Threads, TaskScheduler = TaskScheduler.Current };

    /// <summary>The recipe with a part's departures, its widths and heights in mm for the part's nozzle.</summary>
    internal Recipe RecipeOf(TrialPart part)
    {
        var own = Departures.Apply(Recipe, part.Settings, Departs.Part).Document ?? Recipe;
        return Ladder.Resolved(own, Machine.Card, NozzleOf(part));
    }

    /// <summary>The layers of parts that grow together.</summary>
    internal LayerPlace[] CommonPlaces() => Places(Parts, Recipe.Layers);

    /// <summary>The layers of a part that is printed alone.</summary>
    internal LayerPlace[] PlacesOf(PartToSlice part) => Places([part], RecipeOf(part.Part).Layers);

    private LayerPlace[] Places(IReadOnlyList<PartToSlice> parts, LayerSizes layers) =>
        LayerHeights.Of(parts.Max(p => p.Footprints.Height), layers, layers.Error is null ? null
            : new SlopedHeights([.. parts.Select(p => Placement.Place(p.Mesh, p.Part))], layers, Ladder.Of(Machine.Card)?.FullStep),
            HeightWishes.Of(this, parts, layers));

    /// <summary>The parts as they stand.</summary>
    internal IReadOnlyList<StandingPart> Standing => [.. Parts.Select(p => StandingPart.Of(p.Part, p.Footprints))];

    /// <summary>A routine's text and where it stands in the card: a mode may have a start of its own.</summary>
    internal (string Pointer, string? Text) TextOf(RoutineMoment moment)
    {
        var own = moment == RoutineMoment.Start && Mode is { } use ? Machine.Card.Modes.ToList()
            .FindIndex(m => m.Kind == use.Kind && m.Start is not null) : -1;
        return own >= 0 ? (JsonPointer.Mode(own) / "start", Machine.Card.Modes[own].Start)
            : (JsonPointer.Routine(moment.Name), moment.Of(Machine.Card.Routines));
    }

    /// <summary>Index of the nozzle that prints a part; the first where the card has none of those that it names.</summary>
    private int NozzleOf(TrialPart part) => Machine.NozzlesOf(part.Nozzles) is [var first, ..] ? first : 0;

    /// <summary>Index of the nozzle that lays the interface of a part's supports; its own where both carriages print the same.</summary>
    internal int InterfaceNozzleOf(TrialPart part)
    {
        var own = NozzleOf(part);
        if (Mode?.Kind is ModeKind.Copy or ModeKind.Mirror) return own;
        var supports = (Departures.Apply(Recipe, part.Settings, Departs.Part).Document ?? Recipe).Supports;
        return supports is { InterfaceNozzle: { } number, InterfaceLayers: > 0 }
            && (supports.Pattern != SupportPattern.None || part.Marks.Any(m => m.Use == MarkUse.Support)
                || Zones.Any(z => z.Zone.Use == ZoneUse.Support))
            ? number - 1 : own;
    }

    /// <summary>Indices of the nozzles that print something: those the parts and their supports ask for, and the second one
    /// in copy and mirror.</summary>
    internal IReadOnlyList<int> NozzlesInUse =>
        [.. Parts.SelectMany(p => Machine.NozzlesOf(p.Part.Nozzles).Append(InterfaceNozzleOf(p.Part)))
            .Concat(Mode?.Kind is ModeKind.Copy or ModeKind.Mirror ? Both : [])
            .Where(i => i < Machine.Nozzles.Count).Distinct().Order()];

    private static readonly int[] Both = [0, 1];

    /// <summary>How many parts come of each that lies on the bed.</summary>
    public int Copies => Mode?.Kind is ModeKind.Copy or ModeKind.Mirror ? 2 : 1;

    private Loading Held => new(Filament, SecondFilament, Loaded);

    /// <summary>What is in the nozzles, by tool.</summary>
    internal IReadOnlyList<Filament?> Filaments => Held.All(Machine);

    /// <summary>The filament in a nozzle.</summary>
    internal Filament FilamentOf(int nozzle) => Held.In(Machine, nozzle)!;

    /// <summary>Where a nozzle's filament is named.</summary>
    internal string FilamentPointer(int nozzle)
    {
        if (Loaded.ContainsKey(Machine.Nozzles[nozzle].Id)) return JsonPointer.Root / "loaded" / Machine.Nozzles[nozzle].Id;
        return nozzle == 1 && SecondFilament is not null ? "/secondFilament" : "/filament";
    }

    /// <summary>The nozzle that prints first: the one that the parts name first where several begin together.</summary>
    internal int FirstNozzle => Parts.SelectMany(p => Machine.NozzlesOf(p.Part.Nozzles)).Where(i => i < Machine.Nozzles.Count)
        .DefaultIfEmpty(0).Min();

    /// <summary>The bed's temperature for all filaments in use, °C: what the one asks for that wants most.</summary>
    /// <param name="of">Of the first layer, or of the others.</param>
    internal double BedFor(Func<BedHeat, double> of) => NozzlesInUse.Select(n => of(FilamentOf(n).Bed)).DefaultIfEmpty(of(Filament.Bed))
        .Max();
}
