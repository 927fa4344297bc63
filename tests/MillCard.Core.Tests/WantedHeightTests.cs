using MillCard.Core.Documents;
using MillCard.Core.Findings;
using MillCard.Core.Meshes;
using MillCard.Core.Slicing;
using MillCard.Core.Slicing.Jobs;
using Xunit;
using static MillCard.Core.Tests.Engine;

namespace MillCard.Core.Tests;

/// <summary>Heights of layers by hand, by zone and by part, as the program's own text says them.</summary>
public class WantedHeightTests
{
    private static readonly Recipe Usual = Plain with { Layers = new() { First = 0.3, Others = 0.2 }, LineWidth = 0.45 };

    /// <summary>Bottom and height of every layer, by the heights written.</summary>
    private static (double Bottom, double Height)[] Layers(SliceResult result)
    {
        Assert.True(result.Sliced, string.Join('\n', result.Findings.Select(f => f.Message)));
        double[] tops = [.. ReadMoves.Of(result.Gcode).Where(m => m.Layer > 0 && m.Fed > 0 && m.Length > 0).GroupBy(m => m.Layer)
            .Select(l => l.Select(m => m.Z).Distinct().Single())];
        return [.. tops.Select((top, i) => (i == 0 ? 0 : tops[i - 1], Math.Round(top - (i == 0 ? 0 : tops[i - 1]), 4)))];
    }

    private static PartToSlice Part(Mesh mesh, double x, params (string, object)[] settings) =>
        new(new TrialPart { Name = "p", File = "p", X = x, Y = 100, Settings = Departing(settings) }, mesh, new Footprints(mesh));

    [Fact]
    public void Bands_by_hand_hold_from_their_beginning_to_their_end_and_the_later_one_wins()
    {
        var job = Job(Block.Of(15, 15, 9), Usual) with
        {
            Heights = [new() { From = 2.1, To = 6, Height = 0.1 }, new() { From = 4, To = 5, Height = 0.25 }],
        };
        foreach (var (bottom, height) in Layers(Engine.Slice(job)))
        {
            var inner = bottom is >= 2.099 and < 5.999 ? 0.1 : 0.2;
            Assert.Equal(bottom == 0 ? 0.3 : bottom is >= 3.999 and < 4.999 ? 0.25 : inner, height, 1e-4);
        }
    }

    [Fact]
    public void Plastic_and_shells_stay_what_they_are_with_other_heights()
    {
        var plain = Engine.Slice(Job(Block.Of(15, 15, 9), Usual));
        var banded = Engine.Slice(Job(Block.Of(15, 15, 9), Usual) with { Heights = [new() { From = 0, To = 9, Height = 0.1 }] });
        // so many layers of 0.2 mm are twice as many of 0.1
        double Solid(SliceResult r) => r.Layers.Where(l => l.Place.Top > 5 && l.Paths.All(p => p.Kind != Slicing.Paths.PathKind.Infill))
            .Sum(l => l.Place.Height);
        Assert.Equal(0.2 * Usual.TopLayers, Solid(plain), 1e-6);
        Assert.Equal(0.2 * Usual.TopLayers, Solid(banded), 1e-6);
        Assert.Equal(1, Plastic(banded.Layers) / Plastic(plain.Layers), 0.03);
    }

    [Fact]
    public void A_zones_height_holds_as_far_up_as_it_reaches_and_says_that_it_holds_for_all()
    {
        var zone = new BoxZone
        {
            Name = "z",
            X = 150,
            Y = 100,
            Z = 3,
            Width = 4,
            Depth = 4,
            Height = 2,
            Settings = Departing(("/layers/others", 0.12))
        };
        var job = Job(Block.Of(15, 15, 9), Usual) with { Zones = [new(zone)] };
        var result = Engine.Slice(job);
        foreach (var (bottom, height) in Layers(result).Skip(1))
            Assert.Equal(bottom is >= 2.999 and < 4.999 ? 0.12 : 0.2, height, 1e-4);
        Assert.Equal("/zones/0/settings", Assert.Single(result.Findings, f => f.Rule == "heights-shared").Pointer);
        // beside the part it says nothing and changes nothing
        var beside = Engine.Slice(job with { Zones = [new(zone with { X = 50 })] });
        Assert.All(Layers(beside).Skip(1), l => Assert.Equal(0.2, l.Height, 1e-4));
        Assert.DoesNotContain(beside.Findings, f => f.Rule == "heights-shared");
    }

    [Fact]
    public void Parts_that_grow_together_get_the_lowest_height_and_one_at_a_time_each_its_own()
    {
        var (low, high) = (Part(Block.Of(15, 15, 4), 100, ("/layers/others", 0.1)), Part(Block.Of(15, 15, 8), 200));
        var job = Job(Block.Of(1, 1, 1), Usual) with { Parts = [low, high] };
        var together = Engine.Slice(job);
        foreach (var (bottom, height) in Layers(together).Skip(1)) Assert.Equal(bottom < 3.999 ? 0.1 : 0.2, height, 1e-4);
        Assert.Single(together.Findings, f => f.Rule == "heights-shared");

        var alone = Engine.Slice(job with { Sequence = Sequence.OneAtATime });
        Assert.True(alone.Sliced);
        Assert.DoesNotContain(alone.Findings, f => f.Rule == "heights-shared");
        Assert.Equal([0.1, 0.2], alone.Layers.GroupBy(l => l.Part).OrderBy(p => p.Key)
            .Select(p => Math.Round(p.Skip(1).Select(l => Math.Round(l.Place.Height, 6)).Distinct().Single(), 6)));
    }

    [Fact]
    public void A_band_goes_before_slopes_and_what_is_impossible_is_refused_at_its_place()
    {
        var ball = Solids.Revolved(t => (10 * Math.Sin(Math.PI * t), 10 * (1 - Math.Cos(Math.PI * t))), 90, 48);
        var sloped = Usual with { Layers = new() { First = 0.3, Others = 0.2, Error = 0.05, Lowest = 0.1, Highest = 0.3 } };
        var layers = Layers(Engine.Slice(Job(ball, sloped) with { Heights = [new() { From = 10, To = 12, Height = 0.16 }] }));
        Assert.All(layers.Where(l => l.Bottom is >= 9.999 and < 11.999), l => Assert.Equal(0.16, l.Height, 1e-4));
        Assert.Contains(layers, l => l.Height > 0.29 && l.Bottom > 8);

        string Refused(params HeightBand[] bands) =>
            Assert.Single(Engine.Slice(Job(Block.Of(15, 15, 9), Usual) with { Heights = bands }).Findings, f => f.Severity == Severity.Stop)
                .Pointer!;
        Assert.Equal("/heights/0/to", Refused(new HeightBand { From = 3, To = 3, Height = 0.1 }));
        Assert.Equal("/heights/1/height", Refused(new() { From = 3, To = 4, Height = 0.1 }, new() { From = 3, To = 4, Height = 0.5 }));
        var coarse = Engine.Slice(Job(Block.Of(15, 15, 9), Usual) with { Heights = [new() { From = 3, To = 4, Height = 0.36 }] });
        Assert.Contains(coarse.Findings, f => f.Rule == "lines-for-another-nozzle" && f.Pointer == "/heights/0/height");
    }

    [Fact]
    public void A_departure_in_mm_goes_before_rungs_and_one_in_rungs_counts_steps()
    {
        var card = Cards.Dunlin;
        var step = Motion.Ladder.Of(card)!.FullStep;
        var rungs = Usual with { Layers = new() { First = 0.2, Others = 0.2, Rungs = (int)Math.Round(0.2 / step) } };
        var middle = card.Machine().Bed.Centroid;
        var job = Job(Block.Of(15, 15, 5), rungs, card, middle.X, middle.Y);
        SliceResult Of(string setting, object value) => Engine.Slice(job with
        {
            Parts = [job.Parts[0] with { Part = job.Parts[0].Part with { Settings = Departing((setting, value)) } }],
        });
        Assert.All(Layers(Of("/layers/others", 0.14)).Skip(1), l => Assert.Equal(0.14, l.Height, 1e-4));
        var fewer = (int)Math.Round(0.12 / step);
        Assert.All(Layers(Of("/layers/rungs", fewer)).Skip(1), l => Assert.Equal(fewer * step, l.Height, 1e-3));
    }
}
