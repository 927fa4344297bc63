using MillCard.Core.Documents;
using MillCard.Core.DryRun;
using MillCard.Core.Findings;
using MillCard.Core.Machines;
using MillCard.Core.Meshes;
using MillCard.Core.Motion;
using MillCard.Core.Reach;
using MillCard.Core.Routines;
using MillCard.Core.Rules;
using MillCard.Core.Rules.CardRules;
using MillCard.Core.Slicing.Jobs;
using MillCard.Core.Slicing.Paths;
using MillCard.Core.Slicing.Writing;
using NetTopologySuite.Operation.Distance;

namespace MillCard.Core.Gauges;

/// <summary>A gauge piece as a program, with its dry run.</summary>
/// <param name="Gcode">The program; empty where it cannot be made.</param>
/// <param name="Layers">Its layers.</param>
/// <param name="Run">Its dry run; null where there is no program.</param>
/// <param name="Findings">Of the dry run, or why it cannot be made.</param>
public sealed record MadeGauge(ReadOnlyMemory<byte> Gcode, IReadOnlyList<LayerPlan> Layers, DryRunReport? Run,
    IReadOnlyList<Finding> Findings);

/// <summary>The list of gauge pieces, and how they become programs. A piece is one class and one line here.</summary>
public static class GaugePieces
{
    /// <summary>All of them, in the order in which a machine is measured.</summary>
    public static IReadOnlyList<GaugePiece> All { get; } = [new FirstLayerPatches(), new StepsCube(), new FlowWall(),
        new TemperatureSteps(), new RetractionPair(), new FlowRamp(),
        new CompensationSteps(), new OffsetVernier()];

    /// <summary>Makes a piece directly as G-code for a card, as near to the middle of its bed as it fits, and runs it.</summary>
    /// <param name="piece">The piece.</param>
    /// <param name="job">What it is made for.</param>
    /// <param name="stop">Ends the computation.</param>
    public static MadeGauge Make(GaugePiece piece, GaugeJob job, CancellationToken stop = default)
    {
        job = job with { Recipe = Ladder.Resolved(job.Recipe, job.Machine.Card) with { Skirt = new() { Rounds = 0 } } };
        if (piece.NotFor(job.Machine) is { } why)
            return Refused("gauge-not-for", why, "It measures something that this machine does not have.");
        var (width, depth) = piece.Foot(job);
        var foot = new Footprints(Block.Of(width, depth, job.First));
        string[] nozzles = piece is OffsetVernier ? [job.Machine.Nozzles[0].Id, job.Machine.Nozzles[job.Second].Id] : [];
        var free = new Fit(job.Machine, job.Recipe).FreePlaces(new StandingPart(piece.Name, foot, 0, 0, 0, nozzles), stop);
        if (free.IsEmpty) return Refused("gauge-does-not-fit", $"The piece of {width:0.#} × {depth:0.#} mm fits nowhere on this bed.",
            "Keep-outs and margins leave no room for it.");
        var middle = job.Machine.Bed.Centroid;
        var place = free.Covers(middle) ? middle.Coordinate : DistanceOp.NearestPoints(free, middle)[0];
        var layers = piece.Plan(job, place.X, place.Y);
        var part = new PartToSlice(new TrialPart { Name = piece.Name, File = piece.Id, X = place.X, Y = place.Y },
            Block.Of(width, depth, layers.Max(l => l.Place.Top)), foot);
        var slice = new SliceJob(piece.Name, job.Machine, job.Filament, job.Recipe,
            [part])
        { Mode = ModePlan.InUse(job.Machine, nozzles.Length > 1 ? Both(job.Machine) : null) };
        try
        {
            var program = new ProgramWriter(slice, layers).Write(stop);
            var run = SimulatedMachine.Run(job.Machine, program, [job.Filament], stop);
            return new MadeGauge(program, layers, run, RuleBook.Check(run, job.Machine));
        }
        catch (RoutineException broken)
        {
            return new MadeGauge(default, [], null, [BrokenRoutine.Of(broken)]);
        }
    }

    private static ModeUse? Both(Machine machine) => machine.Card.Modes.Any(m => m.Kind == ModeKind.TwoMaterial)
        ? new ModeUse { Kind = ModeKind.TwoMaterial } : null;

    private static MadeGauge Refused(string rule, string message, string why) =>
        new(default, [], null, [new Finding(rule, Severity.Stop, message, why)]);
}
