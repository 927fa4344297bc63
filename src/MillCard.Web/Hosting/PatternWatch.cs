using MillCard.Store;
using MillCard.Web.Sources;

namespace MillCard.Web.Hosting;

/// <summary>Looks once a day whether pattern sources have something newer.</summary>
internal sealed partial class PatternWatch(IServiceScopeFactory scopes, IConfiguration configuration, TimeProvider clock,
    ILogger<PatternWatch> log) : BackgroundService
{
    private static readonly TimeSpan Every = TimeSpan.FromDays(1);

    protected override async Task ExecuteAsync(CancellationToken stoppingToken)
    {
        if (configuration.GetConnectionString("MillCard") is null) return;
        using var day = new PeriodicTimer(Every, clock);
        do
        {
            try { await LookAsync(stoppingToken); }
            catch (Exception failure) when (failure is not OperationCanceledException) { Failed(failure.GetBaseException().Message); }
        }
        while (await day.WaitForNextTickAsync(stoppingToken));
    }

    private async Task LookAsync(CancellationToken stop)
    {
        await using var scope = scopes.CreateAsyncScope();
        var desk = scope.ServiceProvider.GetRequiredService<SourceDesk>();
        foreach (var source in await scope.ServiceProvider.GetRequiredService<PatternStore>().SourcesAsync(stop))
            await desk.LookAgainAsync(source.Id, stop);
    }

    [LoggerMessage(LogLevel.Warning, "Could not look at pattern sources: {Why}")]
    private partial void Failed(string why);
}
