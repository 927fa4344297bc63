using System.Text.Json.Nodes;
using MillCard.Core.Documents;
using MillCard.Core.DryRun;
using MillCard.Core.Flow;
using MillCard.Core.Machines;

namespace MillCard.Core.Routines.Learning;

/// <summary>Which document a learned value belongs to.</summary>
public enum LearnedFor
{
    /// <summary>The card.</summary>
    Card,
    /// <summary>The filament.</summary>
    Filament,
    /// <summary>The recipe.</summary>
    Recipe,
}

/// <summary>A value read out of a program.</summary>
/// <param name="For">The document it belongs to.</param>
/// <param name="Pointer">Its place there.</param>
/// <param name="Name">In words.</param>
/// <param name="Unit">Empty for a plain number.</param>
/// <param name="Value">The value.</param>
/// <param name="Share">How much of what was looked at has it, 0 to 1; 1 for what stands in one place.</param>
public sealed record LearnedValue(LearnedFor For, string Pointer, string Name, string Unit, JsonNode Value, double Share = 1)
{
    /// <summary>Of a fact that the document's records describe.</summary>
    internal static LearnedValue Of(LearnedFor document, JsonPointer pointer, JsonNode value, double share = 1)
    {
        var field = Fields.At(document switch
        {
            LearnedFor.Card => typeof(Card),
            LearnedFor.Filament => typeof(Filament),
            _ => typeof(Recipe),
        }, pointer);
        return new LearnedValue(document, pointer, field?.Label ?? pointer, field?.Unit ?? "", value, share);
    }
}

/// <summary>What a program that prints well tells of machine, filament and recipe.</summary>
/// <param name="Start">Its lines before the first layer, temperatures as names; null where none were found.</param>
/// <param name="End">Its lines after the last layer; null where none were found.</param>
/// <param name="Values">Temperatures, heights, widths, speeds, fan, retraction.</param>
public sealed record Learned(string? Start, string? End, IReadOnlyList<LearnedValue> Values)
{
    /// <summary>What was changed, left out, or could not be told.</summary>
    public IReadOnlyList<string> Notes { get; init; } = [];

    /// <summary>Reads a program out.</summary>
    /// <param name="machine">The machine that printed it.</param>
    /// <param name="gcode">The program.</param>
    /// <param name="stop">Ends the computation.</param>
    public static Learned Of(Machine machine, ReadOnlyMemory<byte> gcode, CancellationToken stop = default)
    {
        var run = SimulatedMachine.Run(machine, gcode, stop);
        var (begins, ends) = (run.LayersBegin, run.LayersEnd);
        if (begins < 0 || ends < begins) return new Learned(null, null, []);
        var values = new List<LearnedValue>();
        // a program of several filaments tells of the nozzle that lays most
        var tool = Array.IndexOf(run.FilamentOf, run.FilamentOf.Max());
        Temperatures(run, tool, begins, ends, values);
        Layers(run, machine, tool, begins, ends, values, out var firstTop);
        Speeds(run, tool, begins, ends, firstTop, values);
        Retraction(run, tool, begins, ends, values);
        Fan(run, begins, values);
        var (start, end) = (LearnedRoutine.Of(run, 0, begins, values), LearnedRoutine.Of(run, ends + 1, run.Text.Count, values));
        string[] notes = [.. NozzleNotes(run, machine, tool), .. start.Notes, .. end.Notes];
        return new Learned(start.Text, end.Text, values) { Notes = notes };
    }

    private static void Temperatures(DryRunReport run, int tool, int begins, int ends, List<LearnedValue> values)
    {
        foreach (var (heater, pointer) in new[] { (Heater.Nozzle, "/nozzle"), (Heater.Bed, "/bed") })
        {
            var steps = run.HeatSteps.Where(s => s.Heater == heater && (heater == Heater.Bed || s.Tool == tool)).ToArray();
            if (steps.LastOrDefault(s => s.Line < begins && s.Target > 0) is not { } first) continue;
            var other = steps.FirstOrDefault(s => s.Line >= begins && s.Line < ends && s.Target > 0) ?? first;
            values.Add(LearnedValue.Of(LearnedFor.Filament, JsonPointer.Parse(pointer) / "first", Math.Round(first.Target, 1)));
            values.Add(LearnedValue.Of(LearnedFor.Filament, JsonPointer.Parse(pointer) / "others", Math.Round(other.Target, 1)));
        }
    }

    private static void Layers(DryRunReport run, Machine machine, int tool, int begins, int ends, List<LearnedValue> values,
        out float firstTop)
    {
        firstTop = 0;
        var lengths = new SortedDictionary<float, double>();
        foreach (ref readonly var move in run.Moves)
            if (move.Line >= begins && move.Line <= ends && move.Extrudes && move.From.Z == move.To.Z)
                lengths[move.To.Z] = lengths.GetValueOrDefault(move.To.Z) + move.Way;
        var tops = lengths.Keys.ToArray();
        if (tops.Length == 0) return;
        firstTop = tops[0];
        values.Add(LearnedValue.Of(LearnedFor.Recipe, "/layers/first", Math.Round(tops[0], 3)));
        var steps = tops.Zip(tops.Skip(1), (a, b) => Math.Round(b - a, 3)).Where(h => h > 0.02).ToArray();
        if (Commonest(steps) is var (height, share))
            values.Add(LearnedValue.Of(LearnedFor.Recipe, "/layers/others", height, share));
        var usual = steps.Length > 0 ? Commonest(steps)!.Value.Value : tops[0];
        if (tool >= machine.Nozzles.Count || machine.Nozzles[tool].FilamentDiameter is not { } diameter) return;
        var widths = new List<double>();
        foreach (ref readonly var move in run.Moves)
        {
            if (move.Line < begins || move.Line > ends || move.Tool != tool || !move.Extrudes || move.To.Z <= firstTop
                || move.Way < ShortestLine) continue;
            // a line is a rectangle with round ends: width from its area
            var area = move.Filament * ExtrudedLine.FilamentArea(diameter) / move.Way;
            widths.Add(Math.Round(area / usual + usual * (1 - Math.PI / 4), 2));
        }
        if (Commonest(widths) is var (width, often)) values.Add(LearnedValue.Of(LearnedFor.Recipe, "/lineWidth", width, often));
    }

    private static void Speeds(DryRunReport run, int tool, int begins, int ends, float firstTop, List<LearnedValue> values)
    {
        var (first, travel, prints) = (new Dictionary<double, double>(), new Dictionary<double, double>(), new Dictionary<double,
            double>());
        foreach (ref readonly var move in run.Moves)
        {
            if (move.Line < begins || move.Line > ends || move.Tool != tool || move.Way < ShortestLine) continue;
            var laid = move.To.Z <= firstTop ? first : prints;
            var moved = move.Filament == 0 ? travel : null;
            var into = move.Extrudes ? laid : moved;
            if (into is null) continue;
            var speed = Math.Round(move.Speed, 1);
            into[speed] = into.GetValueOrDefault(speed) + move.Way;
        }
        void Take(Dictionary<double, double> seen, JsonPointer pointer)
        {
            if (seen.Count > 0 && seen.MaxBy(s => s.Value) is var most)
                values.Add(LearnedValue.Of(LearnedFor.Recipe, pointer, most.Key, most.Value / seen.Values.Sum()));
        }
        Take(first, "/speeds/firstLayer");
        Take(travel, "/speeds/travel");
        // the slowest of the common speeds is that of the outside, the fastest that of the infill
        var common = prints.Where(p => p.Value > 0.04 * prints.Values.Sum()).OrderBy(p => p.Key).ToArray();
        if (common.Length == 0) return;
        var all = prints.Values.Sum();
        values.Add(LearnedValue.Of(LearnedFor.Recipe, "/speeds/outerWall", common[0].Key, common[0].Value / all));
        values.Add(LearnedValue.Of(LearnedFor.Recipe, "/speeds/infill", common[^1].Key, common[^1].Value / all));
    }

    private static void Retraction(DryRunReport run, int tool, int begins, int ends, List<LearnedValue> values)
    {
        var (lengths, speeds, lifts) = (new List<double>(), new List<double>(), new List<double>());
        var pulled = false;
        foreach (ref readonly var move in run.Moves)
        {
            if (move.Line < begins || move.Line > ends || move.Tool != tool) continue;
            if (move.Filament < 0 && move.Way < 0.01)
            { lengths.Add(Math.Round(-move.Filament, 2)); speeds.Add(Math.Round(move.Speed, 1)); pulled = true; }
            else if (pulled && move.To.Z > move.From.Z && move.Way < 0.01)
            { lifts.Add(Math.Round(move.To.Z - move.From.Z, 2)); pulled = false; }
            else if (move.Filament > 0) pulled = false;
        }
        if (Commonest(lengths) is var (length, share))
            values.Add(LearnedValue.Of(LearnedFor.Card, JsonPointer.Nozzle(tool) / "retraction" / "length", length, share));
        if (Commonest(speeds) is var (speed, often))
            values.Add(LearnedValue.Of(LearnedFor.Card, JsonPointer.Nozzle(tool) / "retraction" / "speed", speed, often));
        if (lifts.Count > lengths.Count / 2 && Commonest(lifts) is var (lift, usual))
            values.Add(LearnedValue.Of(LearnedFor.Card, JsonPointer.Nozzle(tool) / "retraction" / "lift", lift, usual));
    }

    private static void Fan(DryRunReport run, int begins, List<LearnedValue> values)
    {
        var steps = run.FanSteps.Where(f => f.CoolsPart && f.Line >= begins && f.Share > 0).ToArray();
        if (Commonest([.. steps.Select(s => Math.Round(s.Share, 2))]) is not var (share, often)) return;
        values.Add(LearnedValue.Of(LearnedFor.Filament, "/fan/share", share, often));
        var tops = new SortedSet<float>();
        foreach (ref readonly var move in run.Moves)
        {
            if (move.Line >= steps[0].Line) break;
            if (move.Line >= begins && move.Extrudes) tops.Add(move.To.Z);
        }
        values.Add(LearnedValue.Of(LearnedFor.Filament, "/fan/fromLayer", tops.Count + 1));
    }

    private static IEnumerable<string> NozzleNotes(DryRunReport run, Machine machine, int tool)
    {
        if (run.FilamentOf.Count(mm => mm > 0) < 2) yield break;
        var name = tool < machine.Nozzles.Count ? machine.Nozzles[tool].Id : $"T{tool}";
        yield return "The program feeds several nozzles; temperatures, widths, speeds and retraction are those of "
            + $"{name}, which lays most.";
    }

    // an arc is a chain of short pieces
    private const double ShortestLine = 0.3;

    private static (double Value, double Share)? Commonest(IReadOnlyCollection<double> values)
    {
        if (values.Count == 0) return null;
        var most = values.CountBy(v => v).MaxBy(v => v.Value);
        return (most.Key, (double)most.Value / values.Count);
    }
}
