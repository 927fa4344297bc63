using Microsoft.AspNetCore.Http.HttpResults;
using MillCard.Core.Documents;
using MillCard.Core.Heat;
using MillCard.Web.Http;

namespace MillCard.Web.Endpoints;

/// <summary>What follows from the heaters of a card: where each ends, how long it takes, drawn.</summary>
internal static class HeatEndpoint
{
    private const int Points = 120;
    private const double LongestShown = 3600;

    /// <summary>A heater.</summary>
    /// <param name="Pointer">Where its facts stand on the card.</param>
    /// <param name="Name">What it is called.</param>
    /// <param name="Room">°C.</param>
    /// <param name="Reachable">Where it ends at full power, °C.</param>
    /// <param name="TimeConstant">s.</param>
    /// <param name="From">Where that is known from: log, best or typical.</param>
    /// <param name="Fit">What the log says; null where there is none that can be fitted.</param>
    /// <param name="Times">Seconds to some temperatures; null where it is never reached.</param>
    /// <param name="Curve">Pairs of s and °C from the room's temperature at full power.</param>
    internal sealed record HeaterAnswer(string Pointer, string Name, double Room, double Reachable, double TimeConstant, string From,
        LogFit? Fit, IReadOnlyList<TimeTo> Times, double[][] Curve);

    /// <summary>What a log says.</summary>
    /// <param name="Reachable">Best estimate of where the heater ends, °C.</param>
    /// <param name="ReachableFrom">Lower end of the interval of 95 %, °C.</param>
    /// <param name="ReachableTo">Upper end; null where the log cannot tell.</param>
    /// <param name="TimeConstant">s.</param>
    /// <param name="Covers">How many time constants the log is long.</param>
    /// <param name="Scatter">Of the points about the model, °C.</param>
    /// <param name="Tells">Whether it tells where the heater ends.</param>
    internal sealed record LogFit(double Reachable, double ReachableFrom, double? ReachableTo, double TimeConstant, double Covers,
        double Scatter, bool Tells);

    /// <summary>Time to a temperature, s; null where it is never reached.</summary>
    internal sealed record TimeTo(double Degrees, double? Seconds);

    public static void MapHeat(this IEndpointRouteBuilder api) =>
        api.MapPost("/heat", async Task<Results<Ok<HeaterAnswer[]>,
            JsonHttpResult<Refusal>>> (HttpRequest request, CancellationToken stop) =>
        {
            var reading = await request.ReadDocumentAsync<Card>(Bounds.Document, draft: true, stop);
            return reading.Document is { } card ? TypedResults.Ok(All(card).ToArray()) : Refusal.Fields(reading.Errors);
        })
            .Accepts<Card>("application/json").Produces<Refusal>(422, Refusal.MediaType)
            .WithSummary("Where each heater of a card ends, how long it takes, and what its log tells").WithTags("Computation");

    private static IEnumerable<HeaterAnswer> All(Card card)
    {
        if (card.Envelope.Heated == true && Heaters.Bed(card) is { } bed)
            yield return Of("/heat/bed", "bed", card.Heat.Bed, bed, [40, 60, 70, 80, 90, 100, 110]);
        if (Heaters.Chamber(card) is { } chamber) yield return Of("/heat/chamber", "chamber", card.Heat.Chamber, chamber, [35, 45, 55, 65]);
        for (var i = 0; i < (card.Head.Nozzles?.Count ?? 0); i++)
            yield return Of(JsonPointer.Nozzle(i) / "heater", $"nozzle {card.Head.Nozzles![i].Id}", card.Head.Nozzles[i].Heater,
                Heaters.Nozzle(card, card.Head.Nozzles[i]), [150, 200, 230, 250, 280]);
    }

    private static HeaterAnswer Of(string pointer, string name, HeaterFacts? facts, HeatModel model, double[] degrees)
    {
        var fit = Heaters.FitOf(facts);
        var longest = Math.Min(LongestShown, Math.Max(4 * model.TimeConstant, facts?.Log.Select(p => p[0]).DefaultIfEmpty(0).Max() ?? 0));
        return new HeaterAnswer(pointer, name, model.Room, model.Reachable, model.TimeConstant, KnownFrom(fit, facts),
            fit is null ? null : new LogFit(fit.Model.Reachable, fit.ReachableFrom, double.IsFinite(fit.ReachableTo) ? fit.ReachableTo
                : null, fit.Model.TimeConstant, fit.Covers, fit.Scatter, fit.Tells),
            [.. degrees.Select(d => new TimeTo(d, model.Reaches(d) && model.Time(model.Room, d - HeatModel.WaitTolerance) is var s
                && double.IsFinite(s) ? s : null))],
            [.. Enumerable.Range(0, Points + 1).Select(i => longest * i / Points)
                .Select(s => new[] { Math.Round(s, 1), Math.Round(model.Heated(model.Room, s), 2) })]);
    }

    private static string KnownFrom(HeatFit? fit, HeaterFacts? facts) => (fit, facts) switch
    {
        ({ Tells: true }, _) => "log",
        (_, { Best: not null }) => "best",
        _ => "typical",
    };
}
