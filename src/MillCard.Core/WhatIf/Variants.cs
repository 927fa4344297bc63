using System.Text.Json;
using MillCard.Core.Documents;
using MillCard.Core.DryRun;
using MillCard.Core.Findings;
using MillCard.Core.Meshes;
using MillCard.Core.Motion;
using MillCard.Core.Settings;
using MillCard.Core.Slicing;
using MillCard.Core.Slicing.Jobs;
using MillCard.Core.Slicing.Paths;

namespace MillCard.Core.WhatIf;

/// <summary>What a slice comes to.</summary>
/// <param name="Seconds">Time, s.</param>
/// <param name="Grams">Mass of all plastic, g; null where the filament's density is not known.</param>
/// <param name="Cost">Filament by weight and machine by the hour; null where neither has a price.</param>
/// <param name="PeakFlow">Most plastic melted, mm³/s.</param>
/// <param name="SupportVolume">Plastic in supports, mm³.</param>
public sealed record Figures(double Seconds, double? Grams, double? Cost, double PeakFlow, double SupportVolume)
{
    /// <summary>Time, filament, mass and cost of each nozzle.</summary>
    public IReadOnlyList<NozzleSpent> ByNozzle { get; init; } = [];
    /// <summary>How many findings of each severity there are: stops, cautions, notes.</summary>
    public IReadOnlyList<int> Findings { get; init; } = [0, 0, 0];
}

/// <summary>A trial with one thing changed.</summary>
/// <param name="Label">What is changed to what.</param>
/// <param name="Pointer">The setting; null where it is not one of the recipe's.</param>
/// <param name="Value">Its value; null where it is taken away.</param>
/// <param name="Job">The changed trial.</param>
public sealed record Variant(string Label, string? Pointer, JsonElement? Value, SliceJob Job)
{
    /// <summary>Area that hangs over steeper than the recipe's overhang angle, mm²; null where it is the same for all.</summary>
    public double? Overhang { get; init; }
    /// <summary>The tilt; null where the part's own holds.</summary>
    public Tilt? Tilt { get; init; }
}

/// <summary>Computes real differences: the trial sliced with one thing changed.</summary>
public static class Variants
{
    private const double UsualStep = 0.1;

    /// <summary>Variants of one setting: a step down and up, or all choices.</summary>
    /// <param name="job">The trial.</param>
    /// <param name="pointer">A setting of the recipe.</param>
    /// <returns>Empty where the setting is none that can be varied.</returns>
    public static IReadOnlyList<Variant> Of(SliceJob job, string pointer)
    {
        if (Leaves.Of<Recipe>().FirstOrDefault(l => l.Pointer == pointer) is not { } leaf) return [];
        var now = JsonPointer.Parse(pointer)
            .In(JsonSerializer.SerializeToElement(Ladder.Resolved(job.Recipe, job.Machine.Card), DocumentJson.Options));
        if (leaf.Type == typeof(bool)) return [Changed(job, leaf, now is not { ValueKind: JsonValueKind.True })];
        if (leaf.Type.IsEnum)
            return [.. Enum.GetNames(leaf.Type).Select(n => JsonNamingPolicy.KebabCaseLower.ConvertName(n))
                .Where(n => n != now?.GetString()).Select(n => Changed(job, leaf, n))];
        if (leaf.Type != typeof(double) && leaf.Type != typeof(int) || now is not { ValueKind: JsonValueKind.Number } number) return [];
        return [.. Steps(job, leaf, number.GetDouble())
            .Select(v => leaf.Type == typeof(int) ? Changed(job, leaf, (int)v) : Changed(job, leaf, v))];
    }

    /// <summary>For every setting that tends to move an outcome the step that makes it better, those that move it most first.</summary>
    public static IEnumerable<Variant> Better(SliceJob job, Outcome outcome) => Effects.On(outcome).SelectMany(effect =>
    {
        var by = effect.Tends.First(t => t.Outcome == outcome).By;
        var all = Of(job, effect.Pointer);
        // a choice has no direction: all of it; a switch only where turning it helps
        if (by == 0 || all.Count == 0) return all;
        if (all is [{ Value.ValueKind: JsonValueKind.True or JsonValueKind.False } turned])
            return (turned.Value.Value.ValueKind == JsonValueKind.True) == by > 0 ? all : [];
        return by > 0 ? all.TakeLast(1) : all.Take(1);
    });

    /// <summary>A part on each of its flat sides, largest first, and as it stands.</summary>
    public static IEnumerable<Variant> Orientations(SliceJob job, int part, int most = 6)
    {
        var now = job.Parts[part];
        var sides = FlatSides.Of(Placement.Oriented(now.Mesh, now.Part.Scale, null), most)
            .Select(s => (Label: Invariant($"on the side of {s.Area:0} mm²"), (Tilt?)s.Tilt));
        foreach (var (label, tilt) in sides.Prepend(("as it stands", now.Part.Tilt)))
        {
            var turned = now.Part with { Tilt = tilt };
            var oriented = Placement.Oriented(now.Mesh, turned.Scale, tilt);
            yield return new Variant(label, null, null,
                job with
                {
                    Parts = [
                .. job.Parts.Select((p, i) => i == part ? new PartToSlice(turned, p.Mesh, Stance.Of(turned).Stood(p.Mesh)) : p)]
                })
            {
                Overhang = OverhangOf(oriented, job.Recipe.Supports.Angle),
                Tilt = tilt,
            };
        }
    }

    /// <summary>Slices a trial and reads what comes of it.</summary>
    /// <returns>The figures, or why there are none.</returns>
    public static (Figures? Figures, string? Refusal) Measure(SliceJob job, CancellationToken stop)
    {
        var sliced = Slicer.Slice(job, null, stop);
        return sliced.Run is { } run ? (Read(job, sliced, run), null) : (null, sliced.Findings[0].Message);
    }

    private static Figures Read(SliceJob job, SliceResult sliced, DryRunReport run)
    {
        var spent = Spent.Of(run, job.Machine.Card, job.Filaments, job.Copies);
        var peak = PeakFlow.Of(run, job.Machine, job.Filaments)?.Flow ?? 0;
        var supports = sliced.Layers.Sum(l => l.Paths.Where(p => p.Kind is PathKind.Support or PathKind.Interface)
            .Sum(p => p.VolumeAt(l.Place.Height)));
        return new Figures(run.TotalSeconds, spent.Grams, spent.Cost, peak, supports)
        {
            ByNozzle = spent.ByNozzle,
            Findings = [.. Enum.GetValues<Severity>().OrderDescending().Select(s => sliced.Findings.Count(f => f.Severity == s))],
        };
    }

    private static Variant Changed<T>(SliceJob job, Leaf leaf, T value)
    {
        var json = JsonSerializer.SerializeToElement(value, DocumentJson.Options);
        var recipe = Departures.Apply(job.Recipe, new Dictionary<string, JsonElement> { [leaf.Pointer] = json }, Departs.Nothing).Document
            ?? job.Recipe;
        // what is counted in rungs or shares would go before the mm that are tried
        if (leaf.Pointer == "/layers/others") recipe = recipe with { Layers = recipe.Layers with { Rungs = null, OnRung = false } };
        if (leaf.Pointer == "/layers/first") recipe = recipe with { Layers = recipe.Layers with { FirstRungs = null, OnRung = false } };
        if (leaf.Pointer == "/lineWidth") recipe = recipe with { LineWidthOfNozzle = null };
        var words = leaf is { Field.AtMost: <= 3, Unit: "" } && leaf.Type == typeof(double)
            ? Invariant($"{100 * json.GetDouble():0.##} %") : Words(json);
        return new Variant($"{leaf.Label} {words}{(leaf.Unit.Length > 0 ? $" {leaf.Unit}" : "")}", leaf.Pointer, json,
            job with { Recipe = recipe });
    }

    private static string Words(JsonElement value) =>
        value.ValueKind switch
        {
            JsonValueKind.True => "on",
            JsonValueKind.False => "off",
            JsonValueKind.String => value.GetString()!,
            _ => value.GetRawText()
        };

    private static IEnumerable<double> Steps(SliceJob job, Leaf leaf, double now)
    {
        IEnumerable<double> both = leaf.Pointer is "/layers/others" or "/layers/first" && Ladder.Of(job.Machine.Card) is { } ladder
            ? [OnLadder(ladder, now, -1), OnLadder(ladder, now, 1)] : [now - StepOf(leaf, now), now + StepOf(leaf, now)];
        foreach (var value in both)
        {
            if (leaf.Field is { } field && (value < field.AtLeast || value > field.AtMost || value <= field.Above)) continue;
            yield return Math.Round(value, 4);
        }
    }

    /// <summary>The next whole step of Z that is at least a tenth away.</summary>
    private static double OnLadder(Ladder ladder, double now, int way)
    {
        var steps = Math.Round(now / ladder.FullStep);
        do steps += way; while (steps > 0 && Math.Abs(steps * ladder.FullStep - now) < UsualStep * now);
        return steps * ladder.FullStep;
    }

    private static double StepOf(Leaf leaf, double now) => leaf switch
    {
        { Type: var type } when type == typeof(int) => 1,
        { Pointer: "/infill/density" } => 0.05,
        { Unit: "°" } => 5,
        { Field.AtMost: 1 } => 0.05,
        _ => now == 0 ? 1 : UsualStep * Math.Abs(now),
    };

    /// <summary>Area of faces that lean out farther than an angle from the upright, those on the bed left out, mm².</summary>
    private static double OverhangOf(Mesh mesh, double angle)
    {
        var (steepest, sum, floor) = (-Math.Sin(angle * Math.PI / 180), 0.0, mesh.Box.MinZ);
        for (var f = 0; f < mesh.FaceCount; f++)
        {
            var (nx, ny, nz) = FlatSides.Normal(mesh, f);
            var twice = Math.Sqrt(nx * nx + ny * ny + nz * nz);
            if (twice == 0 || nz / twice > steepest || Highest(mesh, f) - floor < 0.01) continue;
            sum += twice / 2;
        }
        return sum;
    }

    private static double Highest(Mesh mesh, int face) =>
        Math.Max(FlatSides.Z(mesh, face, 0), Math.Max(FlatSides.Z(mesh, face, 1), FlatSides.Z(mesh, face, 2)));
}
