using MillCard.Core.Documents;
using MillCard.Core.Flavours;
using MillCard.Core.Machines;
using MillCard.Core.Reach;
using MillCard.Core.Slicing.Jobs;
using MillCard.Core.Slicing.Paths;

namespace MillCard.Core.Slicing.Writing;

/// <summary>What the names of routines stand for in a job; see <see cref="Routines.RoutineNames"/>.</summary>
internal static class ProgramValues
{
    private const double ClearAbove = 10;

    /// <summary>Values at the start of the program; the layer's and the tool's change as it goes on.</summary>
    public static Dictionary<string, object> Of(SliceJob job, IReadOnlyList<LayerPlan> layers)
    {
        var (machine, filament) = (job.Machine, job.FilamentOf(job.FirstNozzle));
        var box = machine.Bed.EnvelopeInternal;
        var (low, high) = (machine.Frames.ToMachine(new Point(box.MinX, box.MinY)),
            machine.Frames.ToMachine(new Point(box.MaxX, box.MaxY)));
        var top = layers.Max(l => l.Place.Top);
        var all = layers.SelectMany(l => l.Paths).SelectMany(p => p.Points).Aggregate(
            (MinX: double.MaxValue, MinY: double.MaxValue, MaxX: double.MinValue, MaxY: double.MinValue),
            (b, p) => (Math.Min(b.MinX, p.X), Math.Min(b.MinY, p.Y), Math.Max(b.MaxX, p.X), Math.Max(b.MaxY, p.Y)));
        var (from, to) = (machine.Frames.ToMachine(new Point(all.MinX, all.MinY)), machine.Frames.ToMachine(new Point(all.MaxX, all.MaxY)));
        var travel = machine.Card.Motion.Axes.Z?.Max ?? machine.Card.Envelope.Height!.Value;
        var plan = new Fit(machine, job.Recipe).PlanOf(job.Standing, job.Mode);
        return new Dictionary<string, object>
        {
            ["bed.min_x"] = low.X,
            ["bed.max_x"] = high.X,
            ["bed.min_y"] = low.Y,
            ["bed.max_y"] = high.Y,
            ["bed.width"] = box.Width,
            ["bed.depth"] = box.Height,
            ["machine.height"] = machine.Card.Envelope.Height!.Value,
            ["machine.name"] = machine.Card.Name!,
            ["heat.bed"] = job.BedFor(b => b.First),
            ["heat.nozzle"] = filament.Nozzle.First!.Value,
            ["heat.standby"] = filament.Nozzle.Standby ?? Math.Max(0, filament.Nozzle.First.Value - 60),
            ["first.height"] = layers[0].Place.Height,
            ["layer.number"] = 1,
            ["layer.z"] = layers[0].Place.Top,
            ["layer.height"] = layers[0].Place.Height,
            ["layer.count"] = layers.Count,
            ["part.min_x"] = from.X,
            ["part.max_x"] = to.X,
            ["part.min_y"] = from.Y,
            ["part.max_y"] = to.Y,
            ["part.height"] = top,
            ["tool.first"] = job.FirstNozzle,
            ["tool.now"] = 0,
            ["tool.next"] = job.FirstNozzle,
            ["mode.name"] = ModeNames.Of(job.Mode?.Kind ?? ModeKind.Single),
            ["mode.command"] = ModeCommand(job, plan),
            ["mode.offset"] = plan?.Second is { Mirrored: true } ? plan.MirrorAt - machine.Frames.ZeroX : plan?.Distance ?? 0,
            ["mode.warmer"] = Warmer(job),
            ["mode.fan"] = PartFans.OfSecond(job, job.FilamentOf(1).Fan.Share),
            ["filament.name"] = filament.Name!,
            ["filament.diameter"] = filament.Diameter!.Value,
            ["nozzle.diameter"] = machine.Nozzles[job.FirstNozzle].Diameter!.Value,
            ["job.name"] = job.Name,
            ["job.seconds"] = 0,
            ["clear.z"] = Math.Max(top, Math.Min(top + ClearAbove, travel)),
        };
    }

    /// <summary>What sets the mode in the machine's dialect; empty where it has no such command.</summary>
    private static string ModeCommand(SliceJob job, ModePlan? plan)
    {
        var what = (job.Mode?.Kind ?? ModeKind.Single) switch
        {
            ModeKind.Copy => "carriage-copy",
            ModeKind.Mirror => "carriage-mirror",
            _ => "carriage-single"
        };
        return Flavour.Of(job.Machine.Flavour).Spell(what, ("distance", plan?.Distance), ("warmer", Warmer(job))) ?? "";
    }

    /// <summary>The trial's figure, or what the two filaments' first layers ask for.</summary>
    internal static double Warmer(SliceJob job) => job.Mode?.Warmer
        ?? job.FilamentOf(1).Nozzle.First!.Value - job.FilamentOf(0).Nozzle.First!.Value;
}
