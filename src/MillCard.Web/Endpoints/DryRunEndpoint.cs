using System.Text.Json.Serialization;
using Microsoft.AspNetCore.Http.HttpResults;
using MillCard.Core.Documents;
using MillCard.Core.DryRun;
using MillCard.Core.Findings;
using MillCard.Core.Machines;
using MillCard.Core.Rules;
using MillCard.Web.Http;
using MillCard.Web.Work;

namespace MillCard.Web.Endpoints;

/// <summary>Runs a program on the machine of a card.</summary>
internal static class DryRunEndpoint
{
    internal sealed record DryRunQuestion : OpenRecord
    {
        /// <summary>The machine.</summary>
        [Field("card", Needed = true)] public Card? Card { get; init; }
        /// <summary>The program.</summary>
        [Field("gcode", Needed = true)] public string? Gcode { get; init; }
    }

    /// <summary>One line of the program.</summary>
    /// <param name="Line">Counted from 1.</param>
    /// <param name="Start">When it begins, s.</param>
    /// <param name="Seconds">How long it takes.</param>
    /// <param name="Effect">What it does, in plain words.</param>
    internal sealed record LineAnswer(int Line, double Start, double Seconds, string Effect);

    /// <param name="Seconds">Total time, s.</param>
    /// <param name="Filament">mm.</param>
    /// <param name="ByNozzle">Filament fed by each nozzle, mm.</param>
    /// <param name="Extents">Where plastic was laid, machine frame.</param>
    /// <param name="Lines">What each line does.</param>
    /// <param name="Findings">Worst first.</param>
    internal sealed record DryRunAnswer(double Seconds, double Filament, IReadOnlyList<double> ByNozzle,
        [property: JsonIgnore(Condition = JsonIgnoreCondition.Never)] Extents? Extents, IReadOnlyList<LineAnswer>? Lines,
        IReadOnlyList<Finding> Findings);

    public static void MapDryRun(this IEndpointRouteBuilder api) =>
        api.MapPost("/dry-run", async Task<Results<Ok<DryRunAnswer>,
            JsonHttpResult<Refusal>>> (HttpRequest request, WorkQueue queue, CancellationToken stop, bool lines = true) =>
        {
            // a program in JSON grows by its escapes
            var reading = await request.ReadDocumentAsync<DryRunQuestion>(Bounds.Gcode + Bounds.Gcode / 4 + Bounds.Document, draft: false,
                stop);
            if (reading.Document is not { } question) return Refusal.Fields(reading.Errors);
            return TypedResults.Ok(await queue.BySizeAsync(question.Gcode!.Length, left =>
            {
                var machine = Machine.Of(question.Card!);
                var run = SimulatedMachine.Run(machine, System.Text.Encoding.UTF8.GetBytes(question.Gcode!), left);
                return new DryRunAnswer(run.TotalSeconds, run.FilamentOf.Sum(), run.FilamentOf, run.Extents, lines ? Lines(run)
                    : null, RuleBook.Check(run, machine));
            }, stop));
        })
            .Accepts<DryRunQuestion>("application/json").Produces<Refusal>(422, Refusal.MediaType).Produces<Refusal>(413, Refusal.MediaType)
            .WithSummary("Runs a program on the machine of a card").WithTags("Computation");

    private static LineAnswer[] Lines(DryRunReport run) =>
        [.. Enumerable.Range(0, run.Text.Count).Select(i => new LineAnswer(i + 1, run.Starts[i], run.Seconds[i], run.EffectOf(i)))];
}
