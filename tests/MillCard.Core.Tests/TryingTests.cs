using System.Text.Json;
using MillCard.Core.Documents;
using MillCard.Core.Files;
using MillCard.Core.Meshes;
using MillCard.Core.Settings;
using MillCard.Core.Slicing.Jobs;
using MillCard.Core.WhatIf;
using Xunit;

namespace MillCard.Core.Tests;

public class TryingTests
{
    private static SliceJob Job(Mesh? mesh = null) => new("test", Cards.Dunlin.Machine(), Cards.Petg, Cards.Standard,
        [new(new TrialPart { Name = "block", File = "block", X = 90, Y = 80 }, mesh
            ?? Block.Of(20, 20, 6), new Footprints(mesh ?? Block.Of(20, 20, 6)))]);

    [Fact]
    public void Every_setting_of_a_recipe_says_what_it_moves()
    {
        var leaves = Leaves.Of<Recipe>().Select(l => l.Pointer).Order(StringComparer.Ordinal).ToArray();
        Assert.True(leaves.Length > 60);
        Assert.Equal(leaves, Effects.All.Select(e => e.Pointer).Order(StringComparer.Ordinal));
        Assert.All(Effects.All, e => Assert.EndsWith(".", e.Says, StringComparison.Ordinal));
        Assert.Equal(3, Math.Abs(Effects.On(Outcome.Strength)[0].Tends.First(t => t.Outcome == Outcome.Strength).By));
    }

    [Fact]
    public void Every_setting_of_a_trial_stands_with_where_it_comes_from()
    {
        var zone = new BoxZone
        {
            Name = "screws",
            X = 90,
            Y = 80,
            Width = 5,
            Depth = 5,
            Height = 5,
            Settings = new Dictionary<string,
            JsonElement>
            { ["/infill/density"] = JsonSerializer.SerializeToElement(0.8) }
        };
        var job = Job();
        job = job with
        {
            Zones = [new(zone)],
            Filament = Cards.Petg with { Retraction = new() { Length = 1.2 }, MaxFlow = 4 },
            Recipe = Cards.Standard with
            {
                LineWidthOfNozzle = 1.2,
                Retraction = new() { Lift = 0.3 },
                Layers = Cards.Standard.Layers with { Rungs = 5 }
            },
            Parts = [job.Parts[0] with { Part = job.Parts[0].Part with { Settings = new Dictionary<string,
                JsonElement> { ["/walls"] = JsonSerializer.SerializeToElement(5) } } }],
        };
        var all = ResolvedSettings.Of(job);
        ResolvedSetting One(string label, GivenBy from) => Assert.Single(all, s => s.Label == label && s.From == from);
        Assert.Equal(("0.48", "n1"), (One("line width", GivenBy.Nozzle).Value, One("line width", GivenBy.Nozzle).Who));
        Assert.Equal("0.2", One("layer height", GivenBy.Card).Value);
        Assert.Equal("0.3", One("Z hop", GivenBy.Recipe).Value);
        Assert.Equal("1.2", One("retraction", GivenBy.Filament).Value);
        Assert.Contains(One("retraction", GivenBy.Filament).Over, o => o == "0.8 mm, usual for a direct feed");
        Assert.Equal("4", One("most plastic melted", GivenBy.Filament).Value);
        Assert.Equal(("5", "block"), (One("walls", GivenBy.Part).Value, One("walls", GivenBy.Part).Who));
        Assert.Equal(("0.8", "screws"), (One("infill", GivenBy.Zone).Value, One("infill", GivenBy.Zone).Who));
        // nothing is hidden: every setting of the recipe stands there once for the whole print
        Assert.All(Leaves.Of<Recipe>(),
            leaf => Assert.Contains(all, s => s.From is not (GivenBy.Part or GivenBy.Zone) && s.Label == leaf.Label));
        Assert.All(Leaves.Of<Filament>().Where(l => !l.Pointer.StartsWith("/retraction", StringComparison.Ordinal)),
            leaf => Assert.Contains(all, s => s.From == GivenBy.Filament && s.Pointer == leaf.Pointer));
    }

    [Fact]
    public void A_step_stays_on_the_ladder_and_within_its_limits()
    {
        var job = Job();
        Assert.Equal(["0.16", "0.24"], Variants.Of(job, "/layers/others").Select(v => v.Value!.Value.GetRawText()));
        Assert.Equal(["2", "4"], Variants.Of(job, "/walls").Select(v => v.Value!.Value.GetRawText()));
        Assert.Equal(["0.05"], Variants.Of(job with { Recipe = Cards.Standard with { Infill = new() { Density = 0 } } }, "/infill/density")
            .Select(v => v.Value!.Value.GetRawText()));
        Assert.Equal(7, Variants.Of(job, "/infill/pattern").Count);
        Assert.Equal(JsonValueKind.True, Assert.Single(Variants.Of(job, "/spiral")).Value!.Value.ValueKind);
        Assert.Empty(Variants.Of(job, "/fileName"));
        Assert.Empty(Variants.Of(job, "/nonsense"));
    }

    [Fact]
    public void Real_differences_are_sliced()
    {
        var job = Job() with
        {
            Machine = (Cards.Dunlin with { CostPerHour = 1.5 })
            .Machine(),
            Filament = Cards.Petg with { PricePerKg = 20, Density = 1.27 }
        };
        var (now, _) = Variants.Measure(job, default);
        var cost = now!.Seconds / 3600 * 1.5 + now.Grams!.Value / 1000 * 20;
        Assert.Equal(cost, now.Cost!.Value, 1e-9);
        Assert.InRange(now.PeakFlow, 1, 8);
        foreach (var (pointer, quicker) in new[] { ("/layers/others", 1), ("/speeds/infill", 1), ("/walls", 0) })
        {
            var faster = Variants.Measure(Variants.Of(job, pointer)[quicker].Job, default).Figures!;
            Assert.True(faster.Seconds < now.Seconds, pointer);
        }
        var first = Variants.Better(job, Outcome.Strength).First();
        Assert.Equal("/walls", first.Pointer);
        Assert.Equal("4", first.Value!.Value.GetRawText());
        Assert.NotNull(Variants.Measure(Variants.Of(job, "/layers/others")[1].Job with { Parts = [] }, default).Refusal);
    }

    [Fact]
    public void Orientations_are_compared_by_overhang_support_and_time()
    {
        var table = MeshFile.Joined([Block.Of(4, 30, 10),
            new Mesh([.. Block.Of(30, 30, 3).Corners.Select((c, i) => c + (i % 3 == 2 ? 10 : 0))], Block.Of(30, 30, 3).Faces)]);
        var job = Job(table) with { Recipe = Cards.Standard with { Supports = new() { Pattern = SupportPattern.Crossed } } };
        var all = Variants.Orientations(job, 0).Select(v => (v.Label, v.Overhang, Variants.Measure(v.Job, default).Figures)).ToArray();
        Assert.Equal("as it stands", all[0].Label);
        // the plate's underside, the body that it rests on not taken off: that is another body
        Assert.Equal(30 * 30, all[0].Overhang!.Value, 1.0);
        Assert.True(all[0].Figures!.SupportVolume > 500);
        var upside = all.First(a => a.Overhang == 0);
        Assert.Equal(0, upside.Figures!.SupportVolume);
        Assert.True(upside.Figures.Seconds < all[0].Figures!.Seconds);
    }
}
