using MillCard.Store;

namespace MillCard.Web.Hosting;

/// <summary>Clears what is not needed any more, once a day: old documents of the bin, files that nothing names.</summary>
internal sealed partial class Housekeeping(IServiceScopeFactory scopes, IConfiguration configuration, TimeProvider clock,
    ILogger<Housekeeping> log) : BackgroundService
{
    private static readonly TimeSpan Every = TimeSpan.FromDays(1);

    protected override async Task ExecuteAsync(CancellationToken stoppingToken)
    {
        if (configuration.GetConnectionString("MillCard") is null) return;
        using var day = new PeriodicTimer(Every, clock);
        do
        {
            try { await ClearAsync(stoppingToken); }
            catch (Exception failure) when (failure is not OperationCanceledException) { Failed(failure.GetBaseException().Message); }
        }
        while (await day.WaitForNextTickAsync(stoppingToken));
    }

    private async Task ClearAsync(CancellationToken stop)
    {
        await using var scope = scopes.CreateAsyncScope();
        var documents = await scope.ServiceProvider.GetRequiredService<Bin>().ClearOldAsync(stop);
        var (files, bytes) = await scope.ServiceProvider.GetRequiredService<Leftovers>().ClearAsync(stop);
        if (documents + files > 0) Cleared(documents, files, bytes);
    }

    [LoggerMessage(LogLevel.Information,
        "Cleared: {Documents} documents that were deleted long ago, {Files} files that nothing names any more ({Bytes} bytes)")]
    private partial void Cleared(int documents, int files, long bytes);

    [LoggerMessage(LogLevel.Warning, "Could not clear what is not needed any more: {Why}")]
    private partial void Failed(string why);
}
