using Microsoft.AspNetCore.Http.HttpResults;
using MillCard.Core.Documents;
using MillCard.Core.SettingsReports;
using MillCard.Web.Http;

namespace MillCard.Web.Endpoints;

/// <summary>What a firmware says of its own settings, laid beside a card.</summary>
internal static class SettingsReportEndpoint
{
    /// <summary>A report and the card it is for.</summary>
    internal sealed record SettingsReportQuestion : OpenRecord
    {
        /// <summary>The card.</summary>
        [Field("card", Needed = true)] public Card? Card { get; init; }
        /// <summary>The text as it came from the machine.</summary>
        [Field("report", Needed = true, Most = 200_000)] public string? Text { get; init; }
    }

    public static void MapSettingsReport(this IEndpointRouteBuilder api) =>
        api.MapPost("/settings-report", async Task<Results<Ok<SettingsReport>,
            JsonHttpResult<Refusal>>> (HttpRequest request, CancellationToken stop) =>
        {
            var reading = await request.ReadDocumentAsync<SettingsReportQuestion>(Bounds.Document, draft: true, stop);
            return reading.Document is { } question
                ? TypedResults.Ok(ReportReader.Read(question.Text ?? "", question.Card ?? new Card()))
                : Refusal.Fields(reading.Errors);
        })
            .Accepts<SettingsReportQuestion>("application/json").Produces<Refusal>(422, Refusal.MediaType)
            .WithSummary("Facts that a firmware's settings report tells, beside what the card says").WithTags("Computation");
}
