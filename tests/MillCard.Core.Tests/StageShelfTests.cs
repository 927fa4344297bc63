using System.Collections.Concurrent;
using System.Text.Json;
using MillCard.Core.Documents;
using MillCard.Core.Meshes;
using MillCard.Core.Slicing;
using MillCard.Core.Slicing.Jobs;
using MillCard.Core.WhatIf;
using Xunit;

namespace MillCard.Core.Tests;

/// <summary>What is kept between slices: it never shows in the program, and it is used.</summary>
public class StageShelfTests
{
    /// <summary>It hangs all round: every stage has something to do.</summary>
    private static readonly Footprints OfMushroom = new(Solids.Mushroom);

    private static readonly Recipe Usual = Engine.Plain with
    {
        Layers = new() { First = 0.3, Others = 0.3 },
        Supports = Engine.Plain.Supports with { Pattern = SupportPattern.Crossed },
    };

    /// <summary>Faces of its left side.</summary>
    private static readonly int[] Left = [.. Enumerable.Range(0, Solids.Mushroom.FaceCount).Where(face => Enumerable.Range(0, 3)
        .All(k => Solids.Mushroom.Corners[3 * Solids.Mushroom.Faces[3 * face + k]] < 1))];

    private static readonly TrialPart Part = new() { Name = "mushroom", File = "mushroom", X = 150, Y = 100 };

    private static SliceJob Job(Recipe? recipe = null, params TrialPart[] parts) =>
        new("kept", Cards.Bare().Machine(), Cards.Petg, recipe ?? Usual,
            [.. (parts.Length > 0 ? parts : [Part]).Select(p => new PartToSlice(p, Solids.Mushroom, OfMushroom))]);

    /// <summary>The same leaves of a recipe, each with another value.</summary>
    private static IEnumerable<(string Pointer, Recipe Recipe)> Changed()
    {
        var node = JsonSerializer.SerializeToElement(Usual, DocumentJson.Options);
        foreach (var leaf in Leaves.Of<Recipe>())
        {
            var variants = Variants.Of(Job(), leaf.Pointer);
            foreach (var variant in variants) yield return (leaf.Pointer, variant.Job.Recipe);
            if (variants.Count > 0 || JsonPointer.Parse(leaf.Pointer).In(node) is { ValueKind: not JsonValueKind.Null }) continue;
            var least = leaf.Field is not { } field ? 0 : double.IsNaN(field.AtLeast) ? double.IsNaN(field.Above) ? 0 : field.Above
                : field.AtLeast;
            object value = leaf.Type == typeof(int) ? (int)least + 1 : leaf.Type == typeof(double) ? least + 0.5 : "x";
            if (Departures.Apply(Usual, Engine.Departing((leaf.Pointer, value)), Departs.Nothing).Document is { } recipe)
                yield return (leaf.Pointer, recipe);
        }
    }

    [Fact]
    public void No_setting_is_forgotten_by_what_is_kept()
    {
        var shelf = new StageShelf(1 << 28);
        Engine.Slice(Job() with { Shelf = shelf });
        var tried = new ConcurrentBag<string>();
        Parallel.ForEach(Changed().ToArray(), change =>
        {
            var (kept, anew) = (Engine.Slice(Job(change.Recipe) with { Shelf = shelf }), Engine.Slice(Job(change.Recipe)));
            Assert.True(kept.Gcode.Span.SequenceEqual(anew.Gcode.Span), change.Pointer);
            Assert.Equal(anew.Findings.Select(f => (f.Rule, f.Message)), kept.Findings.Select(f => (f.Rule, f.Message)));
            tried.Add(change.Pointer);
        });
        Assert.True(tried.Distinct().Count() > 0.9 * Leaves.Of<Recipe>().Count, $"{tried.Distinct().Count()} settings were tried");
    }

    [Fact]
    public void Nothing_else_of_a_trial_is_forgotten()
    {
        var seam = new BoxZone { Name = "seam", Use = ZoneUse.Seam, X = 162, Y = 100, Width = 3, Depth = 3, Height = 9 };
        var free = Usual with { Supports = Usual.Supports with { Pattern = SupportPattern.None } };
        SliceJob[] jobs =
        [
            Job(), Job(null, Part with { X = 151, Turn = 30 }), Job(null, Part with { X = 14, Y = 14 }),
            Job(free, Part with { Marks = [new() { Faces = [.. Enumerable.Range(12, 12)], Wanted = true }] }),
            Job(null, Part with { Marks = [new() { Use = MarkUse.Seam, Faces = Left, Wanted = true }] }),
            Job(null, Part with { Marks = [new() { Use = MarkUse.Seam, Faces = Left, Wanted = false }] }),
            Job(free) with { Zones = [new(seam with { Use = ZoneUse.Support })] },
            Job() with { Zones = [new(new HeightsZone { Name = "up", Z = 1, Height = 2, Settings = Engine.Departing(("/walls", 4)) })] },
            .. new[] { ZoneUse.Seam, ZoneUse.Cut, ZoneUse.NoSupport }.Select(use => Job() with { Zones = [new(seam with { Use = use })] }),
            Job() with { Zones = [new(seam with { X = 161, Y = 103 })] },
            Job() with { Zones = [new(seam with { Use = ZoneUse.Settings, Settings = Engine.Departing(("/speeds/outerWall", 20)) })] },
            Job() with { Zones = [new(seam with { Use = ZoneUse.Settings, Settings = Engine.Departing(("/walls", 4)) })] },
            Job() with { Heights = [new() { From = 1, To = 2, Height = 0.2 }] },
            Job(Usual, Part, Part with { X = 200 }) with { Sequence = Sequence.OneAtATime },
        ];
        var shelf = new StageShelf(1 << 28);
        foreach (var job in jobs.Concat(jobs.Reverse()))
            Assert.True(Engine.Slice(job with { Shelf = shelf }).Gcode.Span.SequenceEqual(Engine.Slice(job).Gcode.Span));
        var programs = jobs.Select(j => Convert.ToHexString(Engine.Slice(j).Gcode.Span)).ToArray();
        Assert.All(programs.Index(), p => Assert.Equal(p.Index, Array.IndexOf(programs, p.Item)));
    }

    [Fact]
    public void Only_what_a_change_touches_is_computed_anew()
    {
        var shelf = new StageShelf(1 << 28);
        Assert.Equal(["sections", "lines", "supports"], StagesOf(Job()));
        Assert.Empty(StagesOf(Job()));
        Assert.Empty(StagesOf(Job(null, Part with { X = 190.5, Y = 120 })));
        Assert.Empty(StagesOf(Job(Usual with { Speeds = Usual.Speeds with { OuterWall = 33, Bridge = 12 } })));
        Assert.Empty(StagesOf(Job(Usual with { Retraction = new() { Length = 3 } })));
        Assert.Equal(["lines", "supports"], StagesOf(Job(Usual with { Walls = 4 })));
        Assert.Equal(["lines", "supports"], StagesOf(Job(null, Part with { Turn = 45 })));
        Assert.Equal(["supports"], StagesOf(Job(Usual with { Supports = Usual.Supports with { Density = 0.3 } })));
        // at the edge of the bed supports have less room
        Assert.Equal(["supports"], StagesOf(Job(null, Part with { X = 14 })));
        // copies are cut once, and one that departs leaves the others as they are
        Assert.Empty(StagesOf(Job(Usual, Part, Part with { X = 200 })));
        Assert.Equal(["lines", "supports"],
            StagesOf(Job(Usual, Part, Part with { X = 200, Settings = Engine.Departing(("/walls", 5)) })));

        string[] StagesOf(SliceJob job)
        {
            var told = new Told();
            Assert.True(Engine.Slice(job with { Shelf = shelf }, told).Sliced);
            return [.. told.Steps.Where(s => s is "sections" or "lines" or "supports").Distinct()];
        }
    }

    private sealed class Told : IProgress<Progress>
    {
        public ConcurrentQueue<string> Steps { get; } = [];

        public void Report(Progress value) => Steps.Enqueue(value.Step);
    }

    [Fact]
    public void What_was_used_longest_ago_goes_first()
    {
        var (shelf, made) = (new StageShelf(10), new List<int>());
        foreach (var of in new[] { 1, 2, 1, 3, 1, 2, 4 }) Take(of, 5);
        Assert.Equal([1, 2, 3, 2, 4], made);
        // what is larger than the whole shelf drives nothing out
        Take(5, 11);
        made.Clear();
        Take(4, 5);
        Assert.Empty(made);

        void Take(int of, long bytes) => shelf.Take("number", new { Of = of }, () =>
        {
            made.Add(of);
            return new object();
        }, _ => bytes);
    }
}
