using MillCard.Core.Documents;
using MillCard.Core.Matching;
using Xunit;

namespace MillCard.Core.Tests;

public class MatchingTests
{
    private static Card With(Func<Nozzle, Nozzle> nozzle) =>
        Cards.Dunlin with { Head = Cards.Dunlin.Head with { Nozzles = [nozzle(Cards.Dunlin.Head.Nozzles![0])] } };

    private static void Says(Match match, Verdict verdict, string words)
    {
        Assert.Equal(verdict, match.Verdict);
        Assert.Contains(match.Reasons, r => r.Message.Contains(words, StringComparison.Ordinal));
    }

    [Fact]
    public void The_demo_filament_fits_the_demo_card_and_not_a_bed_that_is_too_weak()
    {
        Assert.Equal(Verdict.Fits, FilamentMatch.Of(Cards.Dunlin, Cards.Petg).Verdict);
        var cormorant = DemoParts.Card("cormorant");
        Says(FilamentMatch.Of(cormorant, Cards.Petg with { Bed = new() { First = 85, Others = 85 } }), Verdict.DoesNotFit,
            "The print would never start.");
    }

    public static TheoryData<string, Func<Filament, Filament>, Func<Nozzle, Nozzle>, Verdict, string> Filaments => new()
    {
        // lengths are computed for the filament, and the machine pushes what it is fed: (2.85 / 1.75)² = 2.65, worked out by hand
        { "fed-diameter", f => f, n => n with { FilamentDiameter = 2.85 }, Verdict.DoesNotFit, "265 % of the plastic" },
        { "fed-diameter-unsaid", f => f, n => n with { FilamentDiameter = null }, Verdict.FitsWithCautions,
            "does not say what this machine is fed" },
        { "above-rating", f => f with { Nozzle = f.Nozzle with { First = 290 } }, n => n with { MaxTemperature = 260 }, Verdict.DoesNotFit,
            "asks for 290 °C at the nozzle; this hot end is rated for 260" },
        { "wears-nozzle", f => f with { Abrasive = true }, n => n with { Material = NozzleMaterial.Brass }, Verdict.DoesNotFit,
            "hardened" },
        { "", f => f with { Abrasive = true }, n => n with { Material = NozzleMaterial.Hardened }, Verdict.Fits, "" },
        { "filled-in-fine-bore", f => f with { Abrasive = true }, n => n with { Material = NozzleMaterial.Hardened, Diameter = 0.25 },
            Verdict.FitsWithCautions, "clogs" },
        { "needs-chamber", f => f with { Needs = new() { Chamber = 60 } }, n => n, Verdict.DoesNotFit, "needs a chamber of 60 °C" },
        { "soft-in-long-tube", f => f with { Material = "TPU 95A" }, n => n with { Feed = new() { Kind = FeedKind.LongTube } },
            Verdict.FitsWithCautions, "buckle" },
        { "needs-feed", f => f with { Needs = new() { Feed = FeedKind.Direct } }, n => n with { Feed = new() { Kind = FeedKind.LongTube } },
            Verdict.DoesNotFit, "needs a direct feed" },
        { "retraction-for-feed", f => f with { Retraction = new() { Length = 6 } },
            n => n with { Feed = new() { Kind = FeedKind.Direct } }, Verdict.FitsWithCautions, "pulls back 6 mm" },
        { "needs-room", f => f with { Needs = new() { Height = 400 } }, n => n, Verdict.DoesNotFit, "needs room 400 mm high" },
    };

    [Theory, MemberData(nameof(Filaments))]
    public void A_filament_is_matched_by_physics(string code, Func<Filament, Filament> filament, Func<Nozzle, Nozzle> nozzle,
        Verdict verdict, string words)
    {
        var match = FilamentMatch.Of(With(nozzle), filament(Cards.Petg with { Bed = new() }));
        if (verdict == Verdict.Fits) Assert.Empty(match.Reasons);
        else
        {
            Says(match, verdict, words);
            Assert.Contains(match.Reasons, r => r.Code == code && r.Verdict == verdict);
        }
    }

    [Fact]
    public void A_recipe_in_rungs_and_shares_fits_machines_it_has_never_seen()
    {
        var relative = Cards.Standard with
        {
            LineWidth = null,
            LineWidthOfNozzle = 1.1,
            Layers = new() { Rungs = 5, FirstRungs = 6 },
            Speeds = Cards.Standard.Speeds with { OuterWall = 30, InnerWall = 30, Solid = 30, Infill = 30 }
        };
        Assert.NotEqual(Verdict.DoesNotFit, RecipeMatch.Of(Cards.Dunlin, relative).Verdict);
        Says(RecipeMatch.Of(With(n => n with { Diameter = 0.8 }), Cards.Standard), Verdict.DoesNotFit, "56 % of the nozzle");
        Assert.DoesNotContain(RecipeMatch.Of(With(n => n with { Diameter = 0.8 }), relative).Reasons, r => r.Asks == "/lineWidth");
        Says(RecipeMatch.Of(Cards.Dunlin with { Motion = Cards.Dunlin.Motion with { Axes = new() } }, relative), Verdict.DoesNotFit,
            "ladder is not known");
        Says(RecipeMatch.Of(With(n => n with { MaxFlow = 2 }), relative with { Speeds = new() }), Verdict.FitsWithCautions,
            "the hot end allows");
    }

    // 75 and 80 % of 0.4: common practice, no source.
    [Theory]
    [InlineData(0.3, false, null)]
    [InlineData(0.31, false, "77.5 % of the nozzle; above 75 %")]
    [InlineData(0.32, false, "80 % of the nozzle; above 75 %")]
    [InlineData(0.33, true, "82.5 % of the nozzle; above 80 %")]
    [InlineData(0.09, false, "22.5 % of the nozzle; below 25 %")]
    public void High_and_low_layers_are_cautions_and_never_bar_a_print(double height, bool strong, string? words)
    {
        var match = RecipeMatch.Of(With(n => n with { MaxFlow = 40 }), Cards.Standard with { Layers = new() { Others = height } });
        Assert.NotEqual(Verdict.DoesNotFit, match.Verdict);
        var found = match.Reasons.Where(r => r.Message.Contains("of the nozzle", StringComparison.Ordinal)).ToArray();
        if (words is null) Assert.Empty(found);
        else Assert.Equal((true, strong), (Assert.Single(found).Message.Contains(words, StringComparison.Ordinal), found[0].Strong));
    }

    // A belted Z: 20 teeth of 2 mm and 1.8° are 0.2 mm a full step; five of them are 1 mm.
    [Fact]
    public void A_recipe_in_rungs_is_offered_about_so_much_where_the_ladder_is_coarse()
    {
        var z = Cards.Dunlin.Motion.Axes.Z! with { Drive = new BeltDrive { Teeth = 20, Pitch = 2, StepAngle = 1.8, Microsteps = 16 } };
        var belted = Cards.Dunlin with { Motion = Cards.Dunlin.Motion with { Axes = Cards.Dunlin.Motion.Axes with { Z = z } } };
        var rungs = Cards.Standard with { LineWidth = 0.44, Layers = new() { Rungs = 5 } };
        var remedy = RecipeMatch.Of(belted, rungs).Reasons.First(r => r.Remedy is not null).Remedy!;
        Assert.Equal("about 0.2 mm, on a rung: 0.2 mm here", remedy.Label);
        var mended = rungs with { Layers = new() { Others = 0.2, OnRung = true } };
        Assert.Equal([("/layers/others", "0.2"), ("/layers/onRung", "true"), ("/layers/rungs", null)],
            remedy.Edits.Select(e => (e.Pointer!, e.Value?.ToJsonString())));
        Assert.NotEqual(Verdict.DoesNotFit, RecipeMatch.Of(belted, mended).Verdict);
        Assert.Contains(RecipeMatch.Of(belted, mended).Reasons,
            r => r.Message.Contains("more than a quarter of the 0.4 mm nozzle", StringComparison.Ordinal));
        Assert.DoesNotContain(RecipeMatch.Of(Cards.Dunlin, mended).Reasons, r => r.Asks == "/layers/others");
    }

    [Fact]
    public void What_belongs_to_one_machine_stays_behind_in_a_copy_and_is_listed()
    {
        var filament = Cards.Petg with
        {
            Start = "M117 hello",
            Retraction = new() { Length = 5 },
            PressureCompensation = 0.4,
            Flow = 0.97,
            Sources = new Dictionary<string,
            FactSource>
            { ["/flow"] = new() { Source = SourceKind.Measured }, ["/density"] = new() { Source = SourceKind.RatingPlate } }
        };
        var (copy, left) = Copying.ForAnother(filament, DemoParts.Card("kittiwake"));
        Assert.Equal(["/start", "/retraction", "/pressureCompensation", "/flow"], left.Select(l => l.Pointer));
        Assert.Equal((null, null, null, null), (copy.Start, copy.Retraction, copy.PressureCompensation, copy.Flow));
        Assert.Equal(["/density"], copy.Sources.Keys);
        Assert.Equal("Station PETG, grey, for Kittiwake", copy.Name);
        Assert.Empty(Copying.ForAnother(copy, Cards.Dunlin).Left);
        var (recipe, behind) = Copying.ForAnother(
            Cards.Standard with { Retraction = new() { Length = 5, LeastTravel = 3 }, Accelerations = new() { Infill = 900 } },
            Cards.Dunlin);
        Assert.Equal(["/retraction", "/accelerations"], behind.Select(l => l.Pointer));
        Assert.Equal((null, 3), (recipe.Retraction.Length, recipe.Retraction.LeastTravel));
    }
}
