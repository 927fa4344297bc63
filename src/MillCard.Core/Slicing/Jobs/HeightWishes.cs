using MillCard.Core.Documents;
using MillCard.Core.Findings;
using MillCard.Core.Motion;
using MillCard.Core.Slicing.Sections;
using Envelope = NetTopologySuite.Geometries.Envelope;

namespace MillCard.Core.Slicing.Jobs;

/// <summary>What of a job asks for heights of its own: parts, then zones, then bands by hand.</summary>
internal static class HeightWishes
{
    /// <summary>What a job asks for in the layers that some of its parts have in common.</summary>
    /// <param name="job">The job.</param>
    /// <param name="parts">The parts.</param>
    /// <param name="usual">Of the recipe that settles what nobody wishes.</param>
    public static WantedHeights Of(SliceJob job, IReadOnlyList<PartToSlice> parts, LayerSizes usual) =>
        new([.. Parts(job, parts, usual), .. Zones(job, parts), .. job.Heights.Select((band, i) =>
            new HeightWish(band.From, band.To, band.Height, JsonPointer.Root / "heights" / i / "height"))]);

    /// <summary>What is to be said where a wish of one holds for others too.</summary>
    public static IEnumerable<Finding> Notes(SliceJob job)
    {
        if (job.Sequence == Sequence.AllAtOnce && Parts(job, job.Parts, job.Recipe.Layers).ToArray() is { Length: > 1 } wishes
            && wishes.Min(w => w.Height) is var lowest && wishes.Max(w => w.Height) is var highest && lowest < highest)
            yield return new Finding("heights-shared", Severity.Note,
                $"Parts that grow together share their layers: of heights from {lowest:0.###} to {highest:0.###} mm "
                    + $"the lowest holds, as high up as its part reaches.",
                "Printed one at a time, each has its own.", wishes[^1].Pointer);
        foreach (var wish in Zones(job, job.Parts))
            yield return new Finding("heights-shared", Severity.Note,
                $"Layers of {wish.Height:0.###} mm, which a zone asks for, hold from Z {wish.From:0.##} to {wish.To:0.##} for all that is "
                    + $"printed there.", "A layer is equally high everywhere.", wish.Pointer);
    }

    /// <summary>Own heights of parts, the lowest last; none where all want the usual one.</summary>
    private static IEnumerable<HeightWish> Parts(SliceJob job, IReadOnlyList<PartToSlice> parts, LayerSizes usual)
    {
        var own = parts.Select(p => (Part: p, Height: job.RecipeOf(p.Part).Layers.Others!.Value)).ToArray();
        if (own.All(o => o.Height == usual.Others)) return [];
        // by slope, only what departs is a wish
        return own.Where(o => usual.Error is null || o.Height != usual.Others).OrderByDescending(o => o.Height)
            .Select(o => new HeightWish(0, o.Part.Footprints.Height, o.Height,
                JsonPointer.Root / "parts" / job.Parts.ToList().IndexOf(o.Part) / "settings"));
    }

    /// <summary>Own heights of zones that lie round something of the parts.</summary>
    private static IEnumerable<HeightWish> Zones(SliceJob job, IReadOnlyList<PartToSlice> parts)
    {
        foreach (var (i, zone) in job.Zones.Index())
        {
            if (zone.Zone.Use != ZoneUse.Settings || !zone.Zone.Settings.Keys.Any(IsHeight)) continue;
            var (box, height) = BoxOf(zone);
            if (!parts.Any(p => zone.Zone.Z < p.Footprints.Height
                && p.Footprints.Below(double.PositiveInfinity, p.Part.X, p.Part.Y, p.Part.Turn).EnvelopeInternal.Intersects(box))) continue;
            var own = Departures.Apply(job.Recipe, zone.Zone.Settings, Departs.Zone).Document ?? job.Recipe;
            yield return new HeightWish(zone.Zone.Z, zone.Zone.Z + height, Ladder.Resolved(own, job.Machine.Card).Layers.Others!.Value,
                JsonPointer.Root / "zones" / i / "settings");
        }
    }

    private static bool IsHeight(string setting) => setting is "/layers/others" or "/layers/rungs";

    private static (Envelope Box, double Height) BoxOf(ZoneToSlice zone) => zone switch
    {
        { Zone: BoxZone box } => (Around(box, box.Width, box.Depth), box.Height),
        { Zone: CylinderZone round } => (Around(round, 2 * round.Radius, 2 * round.Radius), round.Height),
        { Zone: HeightsZone span } => (Sections.Zones.Everywhere.EnvelopeInternal, span.Height),
        { Mesh.Box: var box } => (Around(zone.Zone, box.MaxX - box.MinX, box.MaxY - box.MinY), box.MaxZ - box.MinZ),
        _ => (new Envelope(), 0),
    };

    private static Envelope Around(Zone zone, double width, double depth) =>
        new(zone.X - width / 2, zone.X + width / 2, zone.Y - depth / 2, zone.Y + depth / 2);
}
