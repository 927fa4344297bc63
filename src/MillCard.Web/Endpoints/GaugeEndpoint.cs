using Microsoft.AspNetCore.Http.HttpResults;
using MillCard.Core.Documents;
using MillCard.Core.Findings;
using MillCard.Core.Gauges;
using MillCard.Core.Machines;
using MillCard.Core.Slicing.Paths;
using MillCard.Core.Starting;
using MillCard.Web.Http;
using MillCard.Web.Work;

namespace MillCard.Web.Endpoints;

/// <summary>Gauge pieces: small test prints made for a card, and what follows from what is measured on them.</summary>
internal static class GaugeEndpoint
{
    /// <summary>The card, and what the piece is printed with.</summary>
    internal sealed record GaugeQuestion : OpenRecord
    {
        /// <summary>The machine.</summary>
        [Field("card", Needed = true)] public Card? Card { get; init; }
        /// <summary>The material; a moderate one for the card where nothing is said.</summary>
        public Filament? Filament { get; init; }
        /// <summary>The settings; moderate ones for the card where nothing is said.</summary>
        public Recipe? Recipe { get; init; }
        /// <summary>Id of the nozzle whose offset from the first is measured; the second where nothing is said.</summary>
        [Field("nozzle to be measured", Most = 40)] public string? Nozzle { get; init; }
        /// <summary>What was measured, by the name of the reading; for results.</summary>
        public IReadOnlyDictionary<string, double>? Readings { get; init; }
    }

    /// <summary>A piece for a card.</summary>
    /// <param name="Id">Short name.</param>
    /// <param name="Name">What it is called.</param>
    /// <param name="About">What it shows and how to read it.</param>
    /// <param name="Readings">What is measured on it.</param>
    /// <param name="NotFor">Why it makes no sense on this machine; null where it does.</param>
    internal sealed record GaugeAnswer(string Id, string Name, string About, IReadOnlyList<GaugeReading> Readings, string? NotFor);

    /// <summary>A piece tried on the simulated machine.</summary>
    /// <param name="Seconds">Time on the machine; null where there is no program.</param>
    /// <param name="Filament">mm; null where there is no program.</param>
    /// <param name="Findings">Of its dry run, or why it cannot be made.</param>
    /// <param name="Lines">How it looks from above: lines of points [x, y], mm, bed frame; of a tall piece those of one layer.</param>
    internal sealed record TriedGauge(double? Seconds, double? Filament, IReadOnlyList<Finding> Findings, double[][][] Lines);

    private const int FewLayers = 10, LayerShown = 4;

    public static void MapGauges(this IEndpointRouteBuilder api)
    {
        api.MapPost("/gauges", async Task<Results<Ok<GaugeAnswer[]>,
            JsonHttpResult<Refusal>>> (HttpRequest request, CancellationToken stop) =>
        {
            var (job, refusal, _) = await ReadAsync(request, stop);
            return job is null ? refusal! : TypedResults.Ok(
                GaugePieces.All.Select(p => new GaugeAnswer(p.Id, p.Name, p.About(job), p.Readings(job), p.NotFor(job.Machine))).ToArray());
        })
            .Accepts<GaugeQuestion>("application/json").Produces<Refusal>(422, Refusal.MediaType)
            .WithSummary("The gauge pieces there are, as they would be printed on a card").WithTags("Computation");

        api.MapPost("/gauges/{id}", async Task<Results<FileContentHttpResult,
            JsonHttpResult<Refusal>>> (string id, HttpRequest request, WorkQueue queue, CancellationToken stop) =>
        {
            if (Find(id) is not { } piece) return Refusal.Missing("This gauge piece");
            var (job, refusal, _) = await ReadAsync(request, stop);
            if (job is null) return refusal!;
            var made = await queue.BySizeAsync(0, left => GaugePieces.Make(piece, job, left), stop);
            return made.Gcode.Length > 0 ? TypedResults.Bytes(made.Gcode.ToArray(), "text/x.gcode", $"{id}.gcode")
                : Refusal.Because(made.Findings);
        })
            .Accepts<GaugeQuestion>("application/json").Produces<string>(200, "text/x.gcode").Produces<Refusal>(422, Refusal.MediaType)
            .WithSummary("A gauge piece as G-code for a card").WithTags("Computation");

        api.MapPost("/gauges/{id}/dry-run", async Task<Results<Ok<TriedGauge>,
            JsonHttpResult<Refusal>>> (string id, HttpRequest request, WorkQueue queue, CancellationToken stop) =>
        {
            if (Find(id) is not { } piece) return Refusal.Missing("This gauge piece");
            var (job, refusal, _) = await ReadAsync(request, stop);
            if (job is null) return refusal!;
            var made = await queue.BySizeAsync(0, left => GaugePieces.Make(piece, job, left), stop);
            return TypedResults.Ok(new TriedGauge(made.Run?.TotalSeconds, made.Run?.Filament, made.Findings, Seen(made.Layers)));
        })
            .Accepts<GaugeQuestion>("application/json").Produces<Refusal>(422, Refusal.MediaType)
            .WithSummary("How long a gauge piece takes on a card, and what its dry run finds").WithTags("Computation");

        api.MapPost("/gauges/{id}/result", async Task<Results<Ok<IReadOnlyList<GaugeResult>>,
            JsonHttpResult<Refusal>>> (string id, HttpRequest request, CancellationToken stop) =>
        {
            if (Find(id) is not { } piece) return Refusal.Missing("This gauge piece");
            var (job, refusal, readings) = await ReadAsync(request, stop);
            return job is null ? refusal! : TypedResults.Ok(piece.Result(job, readings));
        })
            .Accepts<GaugeQuestion>("application/json").Produces<Refusal>(422, Refusal.MediaType)
            .WithSummary("The facts that follow from what was measured on a gauge piece").WithTags("Computation");
    }

    private static double[][][] Seen(IReadOnlyList<LayerPlan> layers) =>
        [.. (layers.Count <= FewLayers ? layers : layers.Skip(LayerShown).Take(1)).SelectMany(l => l.Paths)
            .Select(p => (p.Closed ? p.Points.Append(p.Points[0]) : p.Points).Select(q => new[] { Math.Round(q.X, 2), Math.Round(q.Y, 2) })
            .ToArray())];

    private static GaugePiece? Find(string id) => GaugePieces.All.FirstOrDefault(p => p.Id == id);

    private static async Task<(GaugeJob? Job, JsonHttpResult<Refusal>? Refusal, IReadOnlyDictionary<string,
        double> Readings)> ReadAsync(HttpRequest request, CancellationToken stop)
    {
        var reading = await request.ReadDocumentAsync<GaugeQuestion>(Bounds.Document, draft: false, stop);
        if (reading.Document is not { Card: { } card } question)
            return (null, Refusal.Fields(reading.Errors), new Dictionary<string, double>());
        var machine = Machine.Of(card);
        var second = question.Nozzle is { } named ? machine.NozzleNamed(named) : 1;
        if (second < 1)
            return (null, Refusal.Fields(
                [new FieldError("/nozzle", FieldProblem.NoChoice, $"{question.Nozzle} is no nozzle beside the first.",
                    "a nozzle of the card")]),
                new Dictionary<string, double>());
        var job = new GaugeJob(machine, question.Recipe ?? Proposal.Recipe(card), question.Filament
            ?? Proposal.Filament(card))
        { Second = second };
        return (job, null, question.Readings ?? new Dictionary<string, double>());
    }
}
