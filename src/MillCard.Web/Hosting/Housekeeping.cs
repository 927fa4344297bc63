using MillCard.Store;

namespace MillCard.Web.Hosting;

/// <summary>Clears what is not needed any more, once a day: old documents of the bin, files that nothing names.</summary>
internal sealed partial class Housekeeping(IServiceScopeFactory scopes, IConfiguration configuration, TimeProvider clock,
    ILogger<Housekeeping> log) : Daily(scopes, configuration, clock, log)
{
    protected override string What => "clear what is not needed any more";

    protected override async Task DoAsync(IServiceProvider services, CancellationToken stop)
    {
        var documents = await services.GetRequiredService<Bin>().ClearOldAsync(stop);
        var (files, bytes) = await services.GetRequiredService<Leftovers>().ClearAsync(stop);
        if (documents + files > 0) Cleared(log, documents, files, bytes);
    }

    [LoggerMessage(LogLevel.Information,
        "Cleared: {Documents} documents that were deleted long ago, {Files} files that nothing names any more ({Bytes} bytes)")]
    private static partial void Cleared(ILogger log, int documents, int files, long bytes);
}
