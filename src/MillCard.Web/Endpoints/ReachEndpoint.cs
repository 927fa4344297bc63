using Microsoft.AspNetCore.Http.HttpResults;
using MillCard.Core.Documents;
using MillCard.Core.Machines;
using MillCard.Core.Reach;
using MillCard.Core.Slicing.Writing;
using MillCard.Web.Http;

namespace MillCard.Web.Endpoints;

/// <summary>What the nozzles of a card can reach.</summary>
internal static class ReachEndpoint
{
    /// <summary>A region.</summary>
    /// <param name="Area">mm².</param>
    /// <param name="Polygons">Each a list of rings [x, y], mm, bed frame: its outline, then its holes.</param>
    internal sealed record ReachedRegion(double Area, double[][][][] Polygons)
    {
        public static ReachedRegion Shape(NetTopologySuite.Geometries.Geometry area) => new(Math.Round(area.Area, 3), Rings.Polygons(area));
    }

    /// <summary>What one nozzle reaches on the bed.</summary>
    /// <param name="Nozzle">Its id.</param>
    /// <param name="Area">mm².</param>
    /// <param name="Polygons">Each a list of rings.</param>
    /// <param name="Proposed">The retraction that its feed proposes; what the card says goes before it.</param>
    internal sealed record NozzleReachAnswer(string Nozzle, double Area, double[][][][] Polygons, HeadRetraction Proposed);

    /// <summary>What all nozzles of a set reach.</summary>
    internal sealed record SetReachAnswer(IReadOnlyList<string> Nozzles, double Area, double[][][][] Polygons);

    /// <summary>Where a nozzle may print in a mode.</summary>
    /// <param name="Mode">The mode.</param>
    /// <param name="Nozzle">The nozzle that a part asks for.</param>
    /// <param name="Distance">Distance of the copy for which the region counts, mm: the least; null in other modes.</param>
    /// <param name="MirrorAt">Where the mirror stands, mm, bed frame; null in other modes.</param>
    /// <param name="Widest">Widest part that the mode prints at its best distance, mm.</param>
    /// <param name="Area">mm².</param>
    /// <param name="Polygons">Each a list of rings.</param>
    internal sealed record ModeReachAnswer(ModeKind Mode, string Nozzle, double? Distance, double? MirrorAt, double Widest, double Area,
        double[][][][] Polygons);

    /// <summary>What a machine reaches.</summary>
    /// <param name="Nozzles">By nozzle.</param>
    /// <param name="Sets">By set of two and more.</param>
    /// <param name="Modes">By mode of two carriages.</param>
    /// <param name="Probe">Where the levelling probe reaches; null where there is none.</param>
    internal sealed record ReachAnswer(IReadOnlyList<NozzleReachAnswer> Nozzles, IReadOnlyList<SetReachAnswer> Sets,
        IReadOnlyList<ModeReachAnswer> Modes, ReachedRegion? Probe);

    public static void MapReach(this IEndpointRouteBuilder api) =>
        api.MapPost("/reach", async Task<Results<Ok<ReachAnswer>, JsonHttpResult<Refusal>>> (HttpRequest request, CancellationToken stop) =>
        {
            var reading = await request.ReadDocumentAsync<Card>(Bounds.Document, draft: true, stop);
            if (reading.Document is not { } card) return Refusal.Fields(reading.Errors);
            if (Machine.OfDraft(card) is not { } machine) return TypedResults.Ok(new ReachAnswer([], [], [], null));
            var report = ReachReport.Of(machine);
            string Id(int nozzle) => nozzle < machine.Nozzles.Count ? machine.Nozzles[nozzle].Id : "";
            return TypedResults.Ok(new ReachAnswer(
                [.. report.Nozzles.Select(n => (n, ReachedRegion.Shape(n.Region)))
                    .Select(x => new NozzleReachAnswer(Id(x.n.Nozzles[0]), x.Item2.Area, x.Item2.Polygons,
                    Pullback.ProposedFor(machine.Nozzles.ElementAtOrDefault(x.n.Nozzles[0])?.Feed)))],
                [.. report.Sets.Select(s => (s, ReachedRegion.Shape(s.Region)))
                    .Select(x => new SetReachAnswer([.. x.s.Nozzles.Select(Id)], x.Item2.Area, x.Item2.Polygons))],
                [.. report.Modes.Select(m => (m, ReachedRegion.Shape(m.Region)))
                    .Select(x => new ModeReachAnswer(x.m.Plan.Mode.Kind, Id(x.m.Nozzle),
                    x.m.Plan.Mode.Kind == ModeKind.Copy ? x.m.Plan.Distance : null, x.m.Plan.Mode.Kind == ModeKind.Mirror
                        ? x.m.Plan.MirrorAt : null, Math.Round(x.m.Plan.BestWidth, 3), x.Item2.Area, x.Item2.Polygons))],
                report.Probe.IsEmpty ? null : ReachedRegion.Shape(report.Probe)));
        })
            .Accepts<Card>("application/json").Produces<Refusal>(422, Refusal.MediaType)
            .WithSummary("What each nozzle reaches, what sets of nozzles reach, and where each mode of two carriages may print")
                .WithTags("Computation");
}
