using MillCard.Core.Documents;
using MillCard.Store;

namespace MillCard.Web.Lines;

/// <summary>After a start: jobs that were out when the server ended without a word are told as interrupted, and where that was a moment ago
/// their printer is switched off.</summary>
internal sealed partial class InterruptedJobs(IServiceScopeFactory scopes, LineDesk desk, IConfiguration configuration, TimeProvider clock,
    ILogger<InterruptedJobs> log) : BackgroundService
{
    /// <summary>Later somebody else may have begun a print of his own.</summary>
    private static readonly TimeSpan AMoment = TimeSpan.FromMinutes(10);

    protected override async Task ExecuteAsync(CancellationToken stoppingToken)
    {
        if (configuration.GetConnectionString("MillCard") is null || !configuration.GetValue("PrepareDatabase", true)) return;
        try
        {
            await using var scope = scopes.CreateAsyncScope();
            var jobs = scope.ServiceProvider.GetRequiredService<JobStore>();
            var cards = scope.ServiceProvider.GetRequiredService<DocumentStore<Card>>();
            foreach (var job in await jobs.InterruptedAsync(nameof(HeatersAre.NotKnown), stoppingToken))
            {
                Found(job.Name, job.Line);
                if (job.How != JobHow.Lines || clock.GetUtcNow() - job.SeenAt > AMoment) continue;
                if (await cards.FindAsync(job.CardId, stoppingToken) is not { Document: { Line: { } facts } card }) continue;
                var heaters = await desk.Take(job.CardId, facts).SwitchOffAsync(SwitchOff.Of(card), stoppingToken);
                await jobs.EndAsync(job.Id, JobState.Interrupted, job.Line, job.Taken, job.Message, heaters.ToString());
            }
        }
        catch (Exception failure) when (failure is not OperationCanceledException) { Failed(failure.GetBaseException().Message); }
    }

    [LoggerMessage(LogLevel.Warning, "The job {Name} was interrupted at line {Line}")]
    private partial void Found(string name, int line);

    [LoggerMessage(LogLevel.Warning, "Could not see to interrupted jobs: {Why}")]
    private partial void Failed(string why);
}
