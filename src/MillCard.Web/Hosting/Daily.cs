namespace MillCard.Web.Hosting;

/// <summary>Does something when the server starts, and once a day from then on; what fails is tried again the next day.</summary>
internal abstract partial class Daily(IServiceScopeFactory scopes, IConfiguration configuration, TimeProvider clock, ILogger log)
    : BackgroundService
{
    private static readonly TimeSpan Every = TimeSpan.FromDays(1);

    /// <summary>What it does, as it follows on "could not".</summary>
    protected abstract string What { get; }

    /// <summary>Does it once.</summary>
    protected abstract Task DoAsync(IServiceProvider services, CancellationToken stop);

    protected override async Task ExecuteAsync(CancellationToken stoppingToken)
    {
        if (configuration.GetConnectionString("MillCard") is null) return;
        using var day = new PeriodicTimer(Every, clock);
        do
        {
            try
            {
                await using var scope = scopes.CreateAsyncScope();
                await DoAsync(scope.ServiceProvider, stoppingToken);
            }
            catch (Exception failure) when (failure is not OperationCanceledException)
            {
                Failed(log, What, failure.GetBaseException().Message);
            }
        }
        while (await day.WaitForNextTickAsync(stoppingToken));
    }

    [LoggerMessage(LogLevel.Warning, "Could not {What}: {Why}")]
    private static partial void Failed(ILogger log, string what, string why);
}
