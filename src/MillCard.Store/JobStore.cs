using Microsoft.EntityFrameworkCore;

namespace MillCard.Store;

/// <summary>Records of jobs that went to printers.</summary>
public sealed class JobStore(MillCardContext context, TimeProvider clock)
{
    private const int Listed = 20;

    /// <summary>The last jobs of a card, the newest first.</summary>
    public Task<List<JobRow>> ListAsync(Guid card, CancellationToken stop) =>
        context.Jobs.AsNoTracking().Where(j => j.CardId == card).OrderByDescending(j => j.BeganAt).Take(Listed).ToListAsync(stop);

    /// <summary>Notes that a job begins.</summary>
    public async Task<JobRow> BeginAsync(Guid card, string name, JobHow how, int count)
    {
        var now = clock.GetUtcNow();
        var row = new JobRow
        {
            Id = Guid.CreateVersion7(now),
            CardId = card,
            Name = name,
            How = how,
            Count = count,
            BeganAt = now,
            SeenAt = now
        };
        context.Jobs.Add(row);
        await context.SaveChangesAsync();
        return row;
    }

    /// <summary>Notes how far it has come.</summary>
    public Task NoteAsync(Guid id, int line, int taken) => context.Jobs.Where(j => j.Id == id && j.State == JobState.Sending)
        .ExecuteUpdateAsync(j => j.SetProperty(x => x.Line, line).SetProperty(x => x.Taken, taken)
            .SetProperty(x => x.SeenAt, clock.GetUtcNow()));

    /// <summary>Notes how it ended.</summary>
    public Task EndAsync(Guid id, JobState state, int line, int taken, string? message, string heaters) =>
        context.Jobs.Where(j => j.Id == id)
        .ExecuteUpdateAsync(j => j.SetProperty(x => x.State, state).SetProperty(x => x.Line, line).SetProperty(x => x.Taken, taken)
            .SetProperty(x => x.Message, message).SetProperty(x => x.Heaters, heaters).SetProperty(x => x.SeenAt, clock.GetUtcNow()));

    /// <summary>Marks jobs that were out when the server ended without a word.</summary>
    /// <returns>Those jobs.</returns>
    public async Task<IReadOnlyList<JobRow>> InterruptedAsync(string heaters, CancellationToken stop)
    {
        var rows = await context.Jobs.Where(j => j.State == JobState.Sending).ToListAsync(stop);
        foreach (var row in rows)
        {
            (row.State, row.Heaters) = (JobState.Interrupted, heaters);
            row.Message = row.How == JobHow.Lines ? $"Mill Card ended without a word while line {row.Line} was out."
                : "Mill Card ended while it handed the file over, or while the printer printed it.";
        }
        await context.SaveChangesAsync(stop);
        return rows;
    }
}
