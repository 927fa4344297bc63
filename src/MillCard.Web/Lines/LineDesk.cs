using System.Collections.Concurrent;
using Microsoft.AspNetCore.SignalR;
using MillCard.Core.Documents;

namespace MillCard.Web.Lines;

/// <summary>The open lines, one a card.</summary>
internal sealed class LineDesk(
    IConfiguration configuration, IHubContext<LineHub> hub, IServiceScopeFactory scopes, TimeProvider clock, ILogger<JobLog> log)
        : IAsyncDisposable
{
    private const string StandIn = "stand-in";
    private static readonly string[] Own = ["localhost", "127.0.0.1", "::1"];
    private readonly ConcurrentDictionary<Guid, OpenLine> _lines = new();
    private readonly ConcurrentDictionary<Guid, int> _watchers = new();

    /// <summary>The line of a card, opened where it is not yet.</summary>
    /// <exception cref="LineRefusedException">The host is not allowed, or a job runs on the line as it was.</exception>
    public OpenLine Take(Guid card, LineFacts facts)
    {
        facts = Resolved(facts);
        var allowed = Own.Concat(configuration.GetSection("Lines:Hosts").Get<string[]>() ?? []);
        if (!allowed.Contains(facts.Host, StringComparer.OrdinalIgnoreCase))
            throw new LineRefusedException($"{Short(facts.Host)} is not allowed: lines go to this machine itself, and to the "
                + $"hosts that the server's configuration lists under Lines:Hosts.");
        if (_lines.TryGetValue(card, out var known))
        {
            if (known.Facts == facts) return known;
            if (known.Working) throw new LineRefusedException("A job runs on this line; its host and port can be changed when it is over.");
            _lines.TryRemove(card, out _);
            _ = known.DisposeAsync().AsTask();
        }
        return _lines.GetOrAdd(card, _ => new OpenLine(facts, status => hub.Clients.Group(card.ToString())
            .SendAsync("status", status), () => _watchers.GetValueOrDefault(card) > 0, new JobLog(card, scopes, clock, log), clock));
    }

    /// <summary>The stand-in that comes with the application answers at a port of its own choice.</summary>
    private LineFacts Resolved(LineFacts facts)
    {
        if (!facts.Host.Equals(StandIn, StringComparison.OrdinalIgnoreCase)) return facts;
        return configuration.GetValue<int?>("StandIn:Port") is { } port
            ? facts with { Host = "127.0.0.1", Port = port }
            : throw new LineRefusedException("No stand-in runs beside this server; name the host and the port of a printer.");
    }

    private static string Short(string host) => host.Length > 60 ? $"{host[..60]}…" : host;

    /// <summary>How a card's line stands; null where it was never opened.</summary>
    public LineStatus? StatusOf(Guid card) => _lines.TryGetValue(card, out var line) ? line.Status : null;

    /// <summary>A page more or less looks on.</summary>
    public void Watched(Guid card, int more) => _watchers.AddOrUpdate(card, Math.Max(0, more), (_, now) => Math.Max(0, now + more));

    /// <summary>The lines of programs that are out now, one a job; none where nothing needs this server.</summary>
    public IReadOnlyList<int> LinesOut => [.. _lines.Values.Select(l => l.LineOut).OfType<int>()];

    /// <summary>Ends every job that is out and leaves nothing hot.</summary>
    public Task StopAllAsync(string why, CancellationToken stop) =>
        Task.WhenAll(_lines.Values.Where(l => l.LineOut is not null).Select(l => l.CancelAsync(why, stop)));

    public async ValueTask DisposeAsync()
    {
        foreach (var line in _lines.Values) await line.DisposeAsync();
    }
}
