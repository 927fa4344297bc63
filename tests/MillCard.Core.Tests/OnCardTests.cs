using MillCard.Core.Documents;
using MillCard.Core.Meshes;
using MillCard.Core.Slicing.Jobs;
using MillCard.Core.WhatIf;
using Xunit;

namespace MillCard.Core.Tests;

/// <summary>A trial on other cards.</summary>
public sealed class OnCardTests
{
    private static SliceJob Job(Card card, params (Mesh Mesh, double X, double Y)[] parts) => new("test", card.Machine(), Cards.Petg,
        Engine.Plain, [.. parts.Select((p, i) => new PartToSlice(new TrialPart { Name = $"part {i + 1}", File = "f", X = p.X, Y = p.Y },
            p.Mesh, new Footprints(p.Mesh)))]);

    private static Card Small(double width, double depth) => Cards.Bare() with
    {
        Envelope = Cards.Bare().Envelope with { Bed = new RectangleBed { Width = width, Depth = depth } },
    };

    private static readonly Mesh Bar = Solids.Box(60, 10, 4);

    [Fact]
    public void Parts_lie_to_the_middle_of_the_other_bed_as_they_did()
    {
        var on = OnCard.Of(Job(Cards.Bare(), (Bar, 150, 100), (Bar, 150, 130)), Small(120, 110));
        Assert.Empty(on.Changed);
        Assert.Equal([(60, 55), (60, 85)], on.Job.Parts.Select(p => (p.Part.X, p.Part.Y)));
    }

    [Fact]
    public void Where_they_do_not_fit_so_they_are_arranged_and_that_is_said()
    {
        var on = OnCard.Of(Job(Cards.Bare(), (Bar, 90, 100), (Bar, 210, 100)), Small(120, 110));
        Assert.Equal("The parts are arranged anew.", Assert.Single(on.Changed));
        Assert.NotNull(Variants.Measure(on.Job, default).Figures);
    }

    [Fact]
    public void What_does_not_fit_at_all_says_why()
    {
        var on = OnCard.Of(Job(Cards.Bare(), (Solids.Box(150, 10, 4), 150, 100)), Small(100, 90));
        var (figures, why) = Variants.Measure(on.Job, default);
        Assert.Null(figures);
        Assert.Contains("beyond the usable bed", why, StringComparison.Ordinal);
        Assert.Null(on.PerBed());
    }

    [Fact]
    public void A_nozzle_that_is_not_there_is_replaced_and_that_is_said()
    {
        var job = Job(Cards.Bare(), (Bar, 150, 100));
        job = job with { Parts = [job.Parts[0] with { Part = job.Parts[0].Part with { Nozzles = ["t9"] } }] };
        var on = OnCard.Of(job, Small(120, 110));
        Assert.Contains("no nozzle t9", Assert.Single(on.Changed), StringComparison.Ordinal);
        Assert.Empty(on.Job.Parts[0].Part.Nozzles);
    }

    [Fact]
    public void A_bed_is_counted_full()
    {
        var on = OnCard.Of(Job(Cards.Bare(), (Bar, 150, 100)), Small(130, 60));
        // two columns of 60 mm and five rows of 10 mm with gaps of 2; 85 % of them at least
        Assert.InRange(on.PerBed()!.Value, 9, 10);
        Assert.Null(OnCard.Of(Job(Cards.Bare(), (Bar, 150, 100), (Bar, 150, 130)), Small(130, 60)).PerBed());
    }

    [Fact]
    public void Findings_are_counted_by_severity()
    {
        var figures = Variants.Measure(Job(Cards.Bare(), (Bar, 150, 100)), default).Figures!;
        var sliced = Engine.Slice(Job(Cards.Bare(), (Bar, 150, 100)));
        Assert.Equal(3, figures.Findings.Count);
        Assert.Equal(sliced.Findings.Count(f => f.Severity == Findings.Severity.Stop), figures.Findings[0]);
        Assert.Equal(sliced.Findings.Count, figures.Findings.Sum());
    }
}
