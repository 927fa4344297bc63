using System.Text;
using System.Text.Json;
using Microsoft.Extensions.Configuration;
using Microsoft.Extensions.DependencyInjection;
using Microsoft.Extensions.Logging.Abstractions;
using MillCard.Core.Documents;
using MillCard.Core.Lines;
using MillCard.StandIn;
using MillCard.Store;
using MillCard.Web.Lines;
using Xunit;

namespace MillCard.Web.Tests;

/// <summary>No job that ends before its end leaves a printer hot without a word.</summary>
public sealed class StoppingTests(Server server)
{
    private static readonly TimeSpan Patience = TimeSpan.FromSeconds(30);
    private static readonly LinePatience Short = new(TimeSpan.FromMilliseconds(400), TimeSpan.FromMilliseconds(5), 5,
        TimeSpan.FromSeconds(60))
    { Off = TimeSpan.FromSeconds(2) };
    private const string Program = "M140 S60\nM104 S210\nM190 S60\nG28\nG1 X10\n";

    private static Card Dunlin(FlavourId flavour = FlavourId.Marlin, int port = 1) =>
        DocumentReader.Read<Card>(Examples.Of("card")).Document! is var card
        ? card with { Firmware = card.Firmware with { Flavour = flavour }, Line = new LineFacts { Host = "127.0.0.1", Port = port } }
        : null!;

    private async Task<Guid> KeptAsync(Card card) =>
        (await (await server.Client.PostAsync("/api/cards",
            new StringContent(JsonSerializer.Serialize(card, DocumentJson.Options), Encoding.UTF8, "application/json"))).BodyAsync())
            .GetProperty("id").GetGuid();

    private OpenLine Open(Guid id, Card card, LinePatience patience) => new(card.Line!, _ => Task.CompletedTask, () => false,
        new JobLog(id, server.Services.GetRequiredService<IServiceScopeFactory>(), TimeProvider.System, NullLogger<JobLog>.Instance),
            TimeProvider.System, patience);

    private static async Task UntilAsync(Func<bool> reached, string what)
    {
        for (var i = 0; !reached(); i++)
        {
            Assert.True(i < 600, $"it never came to this: {what}");
            await Task.Delay(50);
        }
    }

    private async Task<JsonElement> LastJobAsync(Guid card) =>
        (await (await server.Client.GetAsync($"/api/cards/{card}/line/jobs")).BodyAsync())[0];

    [Fact]
    public async Task Cancelling_breaks_a_wait_off_and_says_off_when_the_printer_does()
    {
        await using var printer = StandInPrinter.Start(Dunlin(), speed: 1, keep: true);
        var card = Dunlin(port: printer.Port);
        var id = await KeptAsync(card);
        await using var line = Open(id, card, Short);
        line.Print("clamp", Encoding.ASCII.GetBytes(Program), SendHow.Lines, SwitchOff.Of(card));
        await UntilAsync(() => line.LineOut == 3 && printer.Executed!.Contains("M190 S60"), "the wait for the bed");
        await line.CancelAsync("Cancelled.", default).WaitAsync(Patience);
        Assert.Equal((SendState.Stopped, HeatersAre.Off, "Cancelled."),
            (line.Status.Job!.State, line.Status.Job.Heaters, line.Status.Job.Message));
        Assert.Equal(["M104 S0", "M140 S0", "M107"], printer.Executed!.TakeLast(3));
        var job = await LastJobAsync(id);
        Assert.Equal(("stopped", "off", 3),
            (job.GetProperty("state").GetString(), job.GetProperty("heaters").GetString(), job.GetProperty("line").GetInt32()));
        Assert.Null(line.LineOut);
    }

    [Fact]
    public async Task Where_a_wait_cannot_be_broken_off_it_is_said_as_told_and_as_off_once_the_printer_reports_it()
    {
        await using var printer = StandInPrinter.Start(Dunlin(FlavourId.Repetier), speed: 1);
        var card = Dunlin(FlavourId.Repetier, printer.Port);
        await using var line = Open(await KeptAsync(card), card, Short);
        line.Print("clamp", Encoding.ASCII.GetBytes("G4 P6000\nG4 P6000\n"), SendHow.Lines, SwitchOff.Of(card));
        await UntilAsync(() => line.Status.Job is { Taken: 0 } && line.LineOut == 1, "the first line");
        await Task.Delay(200);
        await line.CancelAsync("Cancelled.", default).WaitAsync(Patience);
        Assert.Equal(HeatersAre.ToldNotConfirmed, line.Status.Job!.Heaters);
        for (var i = 0; i < 40 && line.Status.Job.Heaters != HeatersAre.Off; i++)
        {
            try { await line.AskAsync("M105", default); } catch (LineFailedException) { await Task.Delay(200); }
        }
        Assert.Equal(HeatersAre.Off, line.Status.Job.Heaters);
    }

    [Fact]
    public async Task A_printer_that_is_busy_for_ever_is_given_up_in_a_sentence_and_one_that_is_gone_is_not_called_off()
    {
        await using var printer = StandInPrinter.Start(Dunlin(), speed: 1000);
        printer.Faults = new Faults { BusyAfter = 2 };
        var card = Dunlin(port: printer.Port);
        await using (var line = Open(await KeptAsync(card), card, Short with { Busy = TimeSpan.FromSeconds(1) }))
        {
            line.Print("clamp", Encoding.ASCII.GetBytes("G90\nG91\nG90\nG91\nG90\n"), SendHow.Lines, SwitchOff.Of(card));
            await UntilAsync(() => line.Status.Job?.State == SendState.Stopped && !line.Working, "giving up");
            Assert.Contains("busy with line 3", line.Status.Job!.Message, StringComparison.Ordinal);
            Assert.Equal(HeatersAre.ToldNotConfirmed, line.Status.Job.Heaters);
        }
        await printer.DisposeAsync();
        await using var dead = Open(await KeptAsync(card), card, Short);
        dead.Print("clamp", Encoding.ASCII.GetBytes(Program), SendHow.Lines, SwitchOff.Of(card));
        await UntilAsync(() => dead.Status.Job?.State == SendState.Stopped && !dead.Working, "giving up");
        Assert.Equal(HeatersAre.NotKnown, dead.Status.Job!.Heaters);
    }

    [Fact]
    public async Task Pausing_is_said_until_the_line_that_is_out_has_ended()
    {
        await using var printer = StandInPrinter.Start(Dunlin(), speed: 1);
        var card = Dunlin(port: printer.Port);
        await using var line = Open(await KeptAsync(card), card, Short with { Answer = TimeSpan.FromSeconds(5) });
        line.Print("clamp", Encoding.ASCII.GetBytes("G4 P1500\nG4 P1\nG4 P1\n"), SendHow.Lines, SwitchOff.Of(card));
        await UntilAsync(() => line.LineOut == 1 && line.Status.Talk.Count > 0 || line.Status.Job is not null, "the begin");
        await Task.Delay(300);
        await line.PauseAsync(default);
        Assert.Equal(SendState.Pausing, line.Status.Job!.State);
        await UntilAsync(() => line.Status.Job!.State == SendState.Paused, "the pause");
        Assert.Equal(1, line.Status.Job!.Taken);
        await line.ResumeAsync(default);
        await UntilAsync(() => line.Status.Job!.State == SendState.Done, "the end");
    }

    [Fact]
    public async Task After_a_start_an_interrupted_job_is_told_and_its_printer_switched_off()
    {
        await using var printer = StandInPrinter.Start(Dunlin(), speed: double.PositiveInfinity, keep: true);
        var id = await KeptAsync(Dunlin(port: printer.Port));
        await using var scope = server.Services.CreateAsyncScope();
        var jobs = scope.ServiceProvider.GetRequiredService<JobStore>();
        var row = await jobs.BeginAsync(id, "clamp", JobHow.Lines, 900);
        await jobs.NoteAsync(row.Id, 417, 416);
        using var see = new InterruptedJobs(
            server.Services.GetRequiredService<IServiceScopeFactory>(), server.Services.GetRequiredService<LineDesk>(),
                server.Services.GetRequiredService<IConfiguration>(), TimeProvider.System, NullLogger<InterruptedJobs>.Instance);
        await see.StartAsync(default);
        await see.ExecuteTask!.WaitAsync(Patience);
        var job = await LastJobAsync(id);
        Assert.Equal(("interrupted", "off", 417),
            (job.GetProperty("state").GetString(), job.GetProperty("heaters").GetString(), job.GetProperty("line").GetInt32()));
        Assert.Contains("line 417", job.GetProperty("message").GetString(), StringComparison.Ordinal);
        Assert.Contains("M104 S0", printer.Executed!);
    }

    [Fact]
    public async Task Stopping_the_server_switches_off_what_is_out_before_anything_else_stops()
    {
        await using var printer = StandInPrinter.Start(Dunlin(), speed: 1, keep: true);
        var card = Dunlin(port: printer.Port);
        var id = await KeptAsync(card);
        await using var desk = ActivatorUtilities.CreateInstance<LineDesk>(server.Services);
        var line = desk.Take(id, card.Line!);
        line.Print("clamp", Encoding.ASCII.GetBytes(Program), SendHow.Lines, SwitchOff.Of(card));
        await UntilAsync(() => line.LineOut == 3 && printer.Executed!.Contains("M190 S60"), "the wait for the bed");
        Assert.Equal([3], desk.LinesOut);
        await new NothingLeftHot(desk, NullLogger<NothingLeftHot>.Instance).StoppingAsync(default).WaitAsync(Patience);
        var job = await LastJobAsync(id);
        Assert.Equal(("stopped", "off", "The server was stopped."),
            (job.GetProperty("state").GetString(), job.GetProperty("heaters").GetString(), job.GetProperty("message").GetString()));
        Assert.Empty(desk.LinesOut);
    }
}
