using System.Text.Json;
using Microsoft.AspNetCore.Http.HttpResults;
using MillCard.Core.Documents;
using MillCard.Core.Flavours;
using MillCard.Core.Lines;
using MillCard.Core.SettingsReports;
using MillCard.Store;
using MillCard.Web.Http;
using MillCard.Web.Lines;
using MillCard.Web.Trials;

namespace MillCard.Web.Endpoints;

/// <summary>The line of a card: test it, fetch from it, print over it.</summary>
internal static class LineEndpoints
{
    /// <summary>What a test of the line found.</summary>
    /// <param name="Firmware">What the printer says it is.</param>
    /// <param name="Flavour">Which dialect that is; null where it cannot be told.</param>
    /// <param name="Mismatches">What does not match the card, in sentences.</param>
    internal sealed record LineTested(string Firmware, FlavourId? Flavour, IReadOnlyList<string> Mismatches);

    internal sealed record LineText(string Text);

    internal sealed record LineCommand : OpenRecord
    {
        /// <summary>A line of G-code.</summary>
        [Field("command", Needed = true, Fewest = 1, Most = 200)] public string? Command { get; init; }
    }

    internal sealed record PrintQuestion : OpenRecord
    {
        /// <summary>The trial whose program is sent.</summary>
        [Field("trial", Needed = true)] public Guid? Trial { get; init; }
        /// <summary>Line by line, or as a file.</summary>
        public SendHow How { get; init; }
    }

    /// <summary>A job that went to the printer.</summary>
    /// <param name="Name">Its name.</param>
    /// <param name="How">Line by line, or as a file.</param>
    /// <param name="State">How it stands.</param>
    /// <param name="Line">The program's line it came to, counted from 1.</param>
    /// <param name="Taken">Commands that the printer has taken.</param>
    /// <param name="Count">All commands.</param>
    /// <param name="Message">Why it ended before its end.</param>
    /// <param name="Heaters">What was known of the heaters then; null while it runs.</param>
    /// <param name="BeganAt">When it began.</param>
    /// <param name="SeenAt">When it ended, or was last seen.</param>
    internal sealed record JobRecord(string Name, JobHow How, JobState State, int Line, int Taken, int Count, string? Message,
        HeatersAre? Heaters, DateTimeOffset BeganAt, DateTimeOffset SeenAt);

    internal sealed record LineAnswers(IReadOnlyList<string> Answers);

    public static void MapLines(this IEndpointRouteBuilder api)
    {
        var line = api.MapGroup("/cards/{id:guid}/line").WithTags("Line");

        line.MapGet("", Results<Ok<LineStatus>, NoContent> (Guid id, LineDesk desk) => desk.StatusOf(id) is { } status
            ? TypedResults.Ok(status) : TypedResults.NoContent())
            .WithSummary("How the line stands");

        line.MapPost("/test", (Guid id, LineDesk desk, DocumentStore<Card> cards, CancellationToken stop) =>
            OnLine(id, desk, cards, async (open, card) => await TestAsync(open, card, stop), stop))
            .WithSummary("Tests the line: what answers, which dialect, and what does not match the card");

        line.MapPost("/settings", (Guid id, LineDesk desk, DocumentStore<Card> cards, CancellationToken stop) =>
            OnLine(id, desk, cards, async (open, _) => new LineText(string.Join('\n', await open.AskAsync("M503", stop))), stop))
            .WithSummary("Fetches the settings report");

        line.MapPost("/macros", (Guid id, LineDesk desk, DocumentStore<Card> cards, CancellationToken stop) =>
            OnLine(id, desk, cards, async (open, _) =>
        {
            var answers = await open.AskAsync("FETCH_MACROS", stop);
            var text = answers.Where(a => a.StartsWith("//", StringComparison.Ordinal)).Select(a => a.Length > 3 ? a[3..] : "").ToArray();
            return text.Any(t => t.Length > 0) ? new LineText(string.Join('\n', text))
                : throw new LineFailedException("This printer does not hand its macro file out over the line; give it as a file.");
        }, stop))
            .WithSummary("Fetches the macro file");

        line.MapPost("/command", async Task<Results<Ok<LineAnswers>,
            JsonHttpResult<Refusal>>> (Guid id, HttpRequest request, LineDesk desk, DocumentStore<Card> cards, CancellationToken stop) =>
        {
            var reading = await request.ReadDocumentAsync<LineCommand>(Bounds.Document, draft: false, stop);
            return reading.Document is { } q
                ? await OnLine(id, desk, cards,
                    async (open, _) => new LineAnswers(await open.AskAsync(q.Command!.ReplaceLineEndings(" "), stop)), stop)
                : Refusal.Fields(reading.Errors);
        })
            .Accepts<LineCommand>("application/json").WithSummary("Sends one command and gives what is answered");

        line.MapPost("/print", async Task<Results<Ok<LineStatus>,
            JsonHttpResult<Refusal>>> (Guid id, HttpRequest request, LineDesk desk, DocumentStore<Card> cards, RunStore runs,
            BlobStore blobs, CancellationToken stop) =>
        {
            var reading = await request.ReadDocumentAsync<PrintQuestion>(Bounds.Document, draft: false, stop);
            if (reading.Document is not { } q) return Refusal.Fields(reading.Errors);
            if (await runs.FindAsync(q.Trial!.Value, stop) is not { } row || await blobs.FindAsync(row.Program, stop) is not { } program)
                return Refusal.Missing("The program of this trial");
            var name = JsonSerializer.Deserialize<RunResult>(row.Result, DocumentJson.Options)!.Name;
            return await OnLine(id, desk, cards, async (open, card) =>
            {
                await open.IdentifyAsync(stop);
                open.Print(name, program.Bytes, q.How, SwitchOff.Of(card));
                return open.Status;
            }, stop);
        })
            .Accepts<PrintQuestion>("application/json").WithSummary("Sends the program of a trial");

        line.MapGet("/jobs", async (Guid id, JobStore jobs, CancellationToken stop) =>
            TypedResults.Ok((await jobs.ListAsync(id, stop))
                .Select(j => new JobRecord(j.Name, j.How, j.State, j.Line, j.Taken, j.Count, j.Message, j.Heaters is { } heaters
                && Enum.TryParse<HeatersAre>(heaters, out var are) ? are : null, j.BeganAt, j.SeenAt)).ToArray()))
            .WithSummary("The last jobs that went to the printer, the newest first");

        foreach (var (name, does, what) in new (string, Func<OpenLine, CancellationToken, Task>, string)[]
        {
            ("pause", (open, stop) => open.PauseAsync(stop), "Holds the job"),
                ("resume", (open, stop) => open.ResumeAsync(stop), "Goes on with the job"),
                ("cancel", (open, stop) => open.CancelAsync("Cancelled.", stop), "Gives the job up and switches the heaters off"),
            ("emergency", (open, stop) => open.EmergencyAsync(stop), "Stops the printer at once (M112); it has to be started anew"),
        })
            line.MapPost($"/{name}", (Guid id, LineDesk desk, DocumentStore<Card> cards, CancellationToken stop) =>
                OnLine(id, desk, cards, async (open, _) =>
            {
                await does(open, stop);
                return open.Status;
            }, stop)).WithSummary(what);
    }

    private static async Task<Results<Ok<T>, JsonHttpResult<Refusal>>> OnLine<T>(Guid id, LineDesk desk, DocumentStore<Card> cards,
        Func<OpenLine, Card, Task<T>> does, CancellationToken stop)
    {
        if (await cards.FindAsync(id, stop) is not { } card) return Refusal.Missing("This card");
        if (card.Document.Line is not { } facts)
            return Refusal.Sentence(422, "There is no line.", "The card does not say where its printer answers.", "/line");
        try { return TypedResults.Ok(await does(desk.Take(id, facts), card.Document)); }
        catch (LineRefusedException refused) { return Refusal.Sentence(422, "The line is not opened.", refused.Message, "/line/host"); }
        catch (LineFailedException failure) { return Refusal.Sentence(502, "The line failed.", failure.Message, "/line/host"); }
    }

    /// <summary>Longer than this no test takes, whatever the other side says meanwhile.</summary>
    private static readonly TimeSpan LongestTest = TimeSpan.FromSeconds(40);

    private static async Task<LineTested> TestAsync(OpenLine open, Card card, CancellationToken stop)
    {
        using var limit = CancellationTokenSource.CreateLinkedTokenSource(stop);
        limit.CancelAfter(LongestTest);
        try { return await TestedAsync(open, card, limit.Token); }
        catch (OperationCanceledException) when (!stop.IsCancellationRequested)
        {
            throw new LineFailedException($"The printer did not answer all of the test within {LongestTest.TotalSeconds:0} seconds.");
        }
    }

    private static async Task<LineTested> TestedAsync(OpenLine open, Card card, CancellationToken stop)
    {
        var firmware = await open.IdentifyAsync(stop);
        var flavour = Enum.GetValues<FlavourId>().Cast<FlavourId?>()
            .FirstOrDefault(id => firmware.Contains(Flavour.Of(id!.Value).Name, StringComparison.OrdinalIgnoreCase));
        var mismatches = new List<string>();
        if (flavour is { } said && card.Firmware.Flavour is { } own && said != own)
            mismatches.Add($"The printer says it runs {Flavour.Of(said).Name}; the card says {Flavour.Of(own).Name}.");
        var count = System.Text.RegularExpressions.Regex.Match(firmware, @"EXTRUDER_COUNT:(\d+)");
        if (count.Success && card.Head.Nozzles is { Count: var nozzles }
            && int.Parse(count.Groups[1].ValueSpan, System.Globalization.CultureInfo.InvariantCulture) is var there && there != nozzles)
            mismatches.Add($"The printer has {there} nozzle{(there == 1 ? "" : "s")}; the card has {nozzles}.");
        var heat = (await open.AskAsync("M105", stop)).Select(a => Reply.Of(a).Temperatures).FirstOrDefault(t => t is not null);
        if (heat is { Bed: null } && card.Envelope.Heated == true)
            mismatches.Add("The printer says nothing of a bed's temperature; the card says its bed is heated.");
        if (heat is { Bed: not null } && card.Envelope.Heated == false)
            mismatches.Add("The printer tells a bed's temperature; the card says its bed has no heater.");
        if (heat is { Nozzle: < -5 or > 400 } odd)
            mismatches.Add($"The nozzle reads {odd.Nozzle:0} °C: its sensor is not connected or the wrong kind.");
        var report = ReportReader.Read(string.Join('\n', await open.AskAsync("M503", stop)), card);
        mismatches.AddRange(report.Facts.Where(f => f.Old is not null && f.Differs)
            .Select(f => Invariant($"The printer's {f.Label} is {f.New:0.###} {f.Unit}; the card says {f.Old:0.###}.")));
        return new LineTested(firmware, flavour, mismatches);
    }
}
