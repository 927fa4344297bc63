using System.Text.Json;
using System.Text.Json.Nodes;
using MillCard.Core.Documents;
using MillCard.Core.Slicing;
using MillCard.Store;
using MillCard.Web.Trials;

namespace MillCard.Web.Hosting;

/// <summary>Proves revisions of the demo's cards once the server is up: their trials are sliced and run as any others, behind everything
/// else. What cannot be proved is not.</summary>
internal sealed partial class DemoProofs(IHostApplicationLifetime life, IConfiguration configuration, WarmUp warmUp,
    IServiceScopeFactory scopes, TimeProvider clock, ILogger<DemoProofs> log) : BackgroundService
{
    private const string Done = "demo proofs";

    protected override async Task ExecuteAsync(CancellationToken stoppingToken)
    {
        if (configuration["Demo"] is not { } folder || !configuration.GetValue<bool>("DemoProofs")) return;
        var up = new TaskCompletionSource();
        await using var started = life.ApplicationStarted.Register(up.SetResult);
        await up.Task.WaitAsync(stoppingToken);
        // whoever asks first must not wait for both
        await (warmUp.ExecuteTask ?? Task.CompletedTask).WaitAsync(stoppingToken);
        try
        {
            await using var scope = scopes.CreateAsyncScope();
            await ProveOnceAsync(scope.ServiceProvider, folder, stoppingToken);
        }
        catch (Exception failure) when (failure is not (OperationCanceledException or OutOfMemoryException))
        {
            // the revisions stand without a stamp
            Failed(failure.GetBaseException().Message);
        }
    }

    /// <summary>Proves what <c>demo.json</c> names a trial for; does nothing where it was done before.</summary>
    internal async Task ProveOnceAsync(IServiceProvider services, string folder, CancellationToken stop)
    {
        var context = services.GetRequiredService<MillCardContext>();
        if (await context.Done.FindAsync([Done], stop) is not null) return;
        foreach (var entry in await DemoData.EntriesAsync(folder, stop))
            foreach (var (i, state) in entry.Revisions.Index())
                if (state.Proved is { } trial && await ProveAsync(services, entry.Id, i + 1, trial, stop) is { } why)
                    Failed(why);
                else if (state is { Proved: { } proved, Since.Count: > 0 }) await ChangeAsync(services, proved, state.Since, stop);
        context.Done.Add(new DoneRow { Name = Done, At = clock.GetUtcNow() });
        await context.SaveChangesAsync(stop);
    }

    private static async Task<string?> ProveAsync(IServiceProvider services, Guid card, int number, Guid trial, CancellationToken stop)
    {
        var desk = services.GetRequiredService<TrialDesk>();
        var (laidOut, refusal) = await desk.LayOutAsync(trial, toSlice: true, stop);
        if (laidOut is not null) (_, refusal) = await desk.SliceAsync(laidOut, new Progress<Progress>(), stop);
        return refusal?.Detail ?? await services.GetRequiredService<ProofDesk>().StampAsync(card, number, trial, stop);
    }

    private static async Task ChangeAsync(IServiceProvider services, Guid id, IReadOnlyDictionary<string, JsonNode?> to,
        CancellationToken stop)
    {
        var trials = services.GetRequiredService<DocumentStore<Trial>>();
        if (await trials.FindAsync(id, stop) is not { } trial) return;
        var json = JsonSerializer.SerializeToNode(trial.Document, DocumentJson.Options)!.AsObject();
        await trials.SaveAsync(id, trial.Version, DemoData.Read<Trial>(json, to), stop);
    }

    [LoggerMessage(LogLevel.Warning, "A revision of the demo is not proved: {Why}")]
    private partial void Failed(string why);
}
