using Microsoft.EntityFrameworkCore;
using MillCard.Core.Documents;
using MillCard.Core.Meshes;
using MillCard.Core.Slicing;
using MillCard.Store;
using MillCard.Web.Endpoints;
using MillCard.Web.Trials;
using MillCard.Web.Work;

namespace MillCard.Web.Hosting;

/// <summary>Slices the trials that were worked on last, after a start and beside all other work, so that whoever goes on with one does
/// not wait for what the server knew before. Keeps no program.</summary>
internal sealed class Rehearsal(IServiceScopeFactory scopes)
{
    private const int MostTrials = 16;
    private static readonly TimeSpan Longest = TimeSpan.FromSeconds(30);

    /// <summary>Slices them, the latest first, until all are or it has taken long enough.</summary>
    /// <returns>How many could be sliced.</returns>
    public async Task<int> AllAsync(CancellationToken stop)
    {
        using var enough = CancellationTokenSource.CreateLinkedTokenSource(stop);
        enough.CancelAfter(Longest);
        var done = 0;
        try
        {
            foreach (var trial in await LatestAsync(enough.Token))
                if (await OneAsync(trial, enough.Token)) done++;
        }
        catch (OperationCanceledException) when (!stop.IsCancellationRequested)
        {
            // the rest is sliced when somebody asks for it
        }
        return done;
    }

    private async Task<List<Guid>> LatestAsync(CancellationToken stop)
    {
        await using var scope = scopes.CreateAsyncScope();
        return await scope.ServiceProvider.GetRequiredService<DocumentStore<Trial>>().LatestAsync(MostTrials, stop);
    }

    private async Task<bool> OneAsync(Guid id, CancellationToken stop)
    {
        await using var scope = scopes.CreateAsyncScope();
        var desk = scope.ServiceProvider.GetRequiredService<TrialDesk>();
        try
        {
            if (await desk.LayOutAsync(id, toSlice: true, stop) is not ({ } trial, _)) return false;
            var (run, refusal) = await desk.RehearseAsync(trial, new Progress<Progress>(), stop);
            await RunEndpoints.TellAsync(NobodyListens(scope), _ => Task.FromResult((run, refusal)), stop);
            return run is not null;
        }
        // what is wrong is told to whoever opens it; somebody may be slicing it right now, or the queue be full
        catch (Exception failure) when (failure is MeshRefusedException or DbUpdateException or BusyException or MemoryShortException)
        {
            return false;
        }
    }

    private static HttpResponse NobodyListens(IServiceScope scope)
    {
        var context = new DefaultHttpContext { RequestServices = scope.ServiceProvider };
        context.Response.Body = Stream.Null;
        return context.Response;
    }
}
