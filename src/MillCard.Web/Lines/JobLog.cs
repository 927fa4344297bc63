using MillCard.Core.Lines;
using MillCard.Store;

namespace MillCard.Web.Lines;

/// <summary>Keeps in the database how far the job of a card has come and how it ended. A database that fails never holds a job
/// up.</summary>
internal sealed partial class JobLog(Guid card, IServiceScopeFactory scopes, TimeProvider clock, ILogger<JobLog> log)
{
    private static readonly TimeSpan Every = TimeSpan.FromSeconds(1);
    private readonly Lock _gate = new();
    private Task _before = Task.CompletedTask;
    private Guid? _row;
    private DateTimeOffset _noted;

    /// <summary>A job begins.</summary>
    public Task BeginAsync(LineJob job) => WithStoreAsync(async store =>
        _row = (await store.BeginAsync(card, job.Name, job.How == SendHow.Lines ? JobHow.Lines : JobHow.File, job.Count)).Id);

    /// <summary>How far it has come; noted once a second at most.</summary>
    public void Note(LineJob job)
    {
        if (clock.GetUtcNow() - _noted < Every) return;
        _noted = clock.GetUtcNow();
        _ = WithStoreAsync(store => _row is { } row ? store.NoteAsync(row, job.Line, job.Taken) : Task.CompletedTask);
    }

    /// <summary>How it ended.</summary>
    public Task EndAsync(LineJob job) => WithStoreAsync(store => _row is { } row
        ? store.EndAsync(row, job.State == SendState.Done ? JobState.Done
            : JobState.Stopped, job.Line, job.Taken, job.Message, job.Heaters.ToString())
        : Task.CompletedTask);

    private Task WithStoreAsync(Func<JobStore, Task> work)
    {
        lock (_gate) return _before = AfterAsync(_before, work);
    }

    /// <summary>One after the other, in the order in which they were told.</summary>
    private async Task AfterAsync(Task before, Func<JobStore, Task> work)
    {
        await before;
        try
        {
            await using var scope = scopes.CreateAsyncScope();
            await work(scope.ServiceProvider.GetRequiredService<JobStore>());
        }
        catch (Exception failure) { NotKept(failure.GetBaseException().Message); }
    }

    [LoggerMessage(LogLevel.Warning, "A job's record could not be kept: {Why}")]
    private partial void NotKept(string why);
}
