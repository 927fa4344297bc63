using MillCard.Core.Documents;
using MillCard.Core.Findings;
using MillCard.Core.Slicing.Jobs;
using MillCard.Core.Slicing.Paths;
using MillCard.Core.Wording;

namespace MillCard.Core.Slicing.Writing;

/// <summary>Where a print stops, and how its machine is told to.</summary>
internal static class WrittenStops
{
    /// <summary>Rounding of heights, mm.</summary>
    private const double Same = 1e-6;

    /// <summary>What happens before each layer.</summary>
    public static ILookup<int, TrialStop> Before(SliceJob job, IReadOnlyList<LayerPlan> layers) =>
        Found(job, layers).Where(s => s.Layer > 0 || s.Layer == 0 && !Halts(s.Stop.For)).ToLookup(s => s.Layer, s => s.Stop);

    /// <summary>Whether the print halts for it.</summary>
    public static bool Halts(StopKind kind) => kind is StopKind.Filament or StopKind.Pause;

    /// <summary>Events that say nothing, or that cannot hold.</summary>
    public static IEnumerable<Finding> Refusals(SliceJob job)
    {
        foreach (var (index, stop) in job.Stops.Index())
        {
            var pointer = JsonPointer.Root / "stops" / index;
            var what = Sentence.Of($"The event at {stop.Z:0.##} mm");
            if (stop.For == StopKind.Lines && string.IsNullOrWhiteSpace(stop.Lines))
                yield return new Finding("event-says-nothing", Severity.Stop, $"{what} has no lines of G-code.",
                    "Nothing would happen there.", pointer / "lines");
            if (stop.For is not (StopKind.Temperature or StopKind.Speed or StopKind.Fan)) continue;
            var (least, most, unit) = stop.For switch
            {
                StopKind.Temperature => (1.0, job.Machine.Nozzles[job.FirstNozzle].MaxTemperature ?? 500, "°C"),
                StopKind.Speed => (0.05, 5, "of the speed"),
                _ => (0.0, 1, "of the fan"),
            };
            if (stop.Value is not { } value || value < least || value > most)
                yield return new Finding("event-value", Severity.Stop,
                    $"{what} asks for {stop.Value:0.##}{Sentence.When(stop.Value is null, $"no value")}; "
                        + $"{least:0.##} to {most:0.##} {unit} can be.",
                    "It would not hold.", pointer / "value");
            var nozzles = job.NozzlesInUse.Count;
            if (stop.For == StopKind.Temperature && nozzles > 1)
                yield return new Finding("event-of-which-nozzle", Severity.Stop,
                    $"{what} sets the nozzle's temperature, and {nozzles} nozzles print.",
                    "Idle nozzles cool and warm by plan: give the filaments other temperatures instead.", pointer / "for");
        }
    }

    /// <summary>Every stop with the layers before which it comes, one a part where they are printed one at a time; −1 where it lies above
    /// all, 0 where nothing lies below it.</summary>
    private static IEnumerable<(TrialStop Stop, int Index, int Layer)> Found(SliceJob job, IReadOnlyList<LayerPlan> layers)
    {
        var floor = Supporting.Foot.Lift(job.Recipe);
        foreach (var (index, stop) in job.Stops.Index())
        {
            var any = false;
            for (var i = 0; i < layers.Count; i++)
            {
                if (layers[i].Place.Top <= stop.Z + floor + Same) continue;
                var below = i > 0 && layers[i - 1].Part == layers[i].Part;
                if (below && layers[i - 1].Place.Top > stop.Z + floor + Same) continue;
                any = true;
                yield return (stop, index, below ? i : 0);
            }
            if (!any) yield return (stop, index, -1);
        }
    }

    /// <summary>The command's name in the tables of dialects.</summary>
    private static string Name(StopKind kind) => kind == StopKind.Filament ? "filament-change" : "pause";

    /// <summary>Says it: as a plain pause where the firmware cannot change filament, and not at all where it cannot pause either.</summary>
    public static void Say(StopKind kind, Spelling spelling)
    {
        if (spelling.Has(Name(kind))) spelling.Say(Name(kind));
        else spelling.Say(Name(StopKind.Pause));
    }

    /// <summary>What is to be said of stops that do not come, or come otherwise than asked.</summary>
    public static IEnumerable<Finding> Notes(SliceJob job, IReadOnlyList<LayerPlan> layers, Spelling spelling)
    {
        foreach (var (stop, index, layer) in Found(job, layers).DistinctBy(s => s.Index))
        {
            var pointer = JsonPointer.Root / "stops" / index;
            if (layer < 0 && !Halts(stop.For))
                yield return new Finding("stop-not-reached", Severity.Caution,
                    $"The event at {stop.Z:0.##} mm does not come: no layer reaches above it.",
                    "The print would go on as before.", pointer / "z");
            if (!Halts(stop.For)) continue;
            if (layer <= 0)
                yield return new Finding("stop-not-reached", Severity.Caution,
                    $"The stop at {stop.Z:0.##} mm does not come: no layer {(layer < 0 ? "reaches above" : "lies below")} it.",
                    "The print would go on without it.", pointer / "z");
            else if (!spelling.Has(Name(stop.For)) && !spelling.Has(Name(StopKind.Pause)))
                yield return new Finding("stop-not-said", Severity.Stop,
                    $"The stop at {stop.Z:0.##} mm cannot be said: the card's firmware has no command that stops a print.",
                    "The print would go on without it.", pointer);
            else if (!spelling.Has(Name(stop.For)))
                yield return new Finding("stop-as-pause", Severity.Note,
                    $"The stop at {stop.Z:0.##} mm is a plain pause: the card does not say that its firmware can change filament.",
                    "Pull the filament and feed the next one by hand before it goes on.", pointer / "for");
        }
    }
}
