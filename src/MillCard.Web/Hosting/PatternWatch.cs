using MillCard.Store;
using MillCard.Web.Sources;

namespace MillCard.Web.Hosting;

/// <summary>Looks once a day whether pattern sources have something newer.</summary>
internal sealed class PatternWatch(IServiceScopeFactory scopes, IConfiguration configuration, TimeProvider clock,
    ILogger<PatternWatch> log) : Daily(scopes, configuration, clock, log)
{
    protected override string What => "look at pattern sources";

    protected override async Task DoAsync(IServiceProvider services, CancellationToken stop)
    {
        var desk = services.GetRequiredService<SourceDesk>();
        foreach (var source in await services.GetRequiredService<PatternStore>().SourcesAsync(stop))
            await desk.LookAgainAsync(source.Id, stop);
    }
}
