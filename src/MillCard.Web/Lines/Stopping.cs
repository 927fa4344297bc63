using System.Runtime.InteropServices;

namespace MillCard.Web.Lines;

/// <summary>How the server is stopped: never beside a hot printer without a word. Ctrl+C asks once while a job is out; a plain end switches
/// the heaters off first.</summary>
internal sealed class Stopping(LineDesk desk, IHostApplicationLifetime life) : IHostLifetime, IDisposable
{
    private readonly List<PosixSignalRegistration> _signals = [];
    private bool _asked;

    public Task WaitForStartAsync(CancellationToken cancellationToken)
    {
        _signals.Add(PosixSignalRegistration.Create(PosixSignal.SIGINT, Interrupted));
        foreach (var signal in new[] { PosixSignal.SIGTERM, PosixSignal.SIGQUIT })
            _signals.Add(PosixSignalRegistration.Create(signal, Ended));
        return Task.CompletedTask;
    }

    private void Interrupted(PosixSignalContext context)
    {
        context.Cancel = true;
        if (!_asked && desk.LinesOut is [var line, ..])
        {
            _asked = true;
            Console.Error.WriteLine($"\nA print is running, at line {line}. Ctrl+C again stops it, and its heaters will be switched off.");
            return;
        }
        life.StopApplication();
    }

    private void Ended(PosixSignalContext context)
    {
        context.Cancel = true;
        life.StopApplication();
    }

    public Task StopAsync(CancellationToken cancellationToken) => Task.CompletedTask;

    public void Dispose()
    {
        foreach (var signal in _signals) signal.Dispose();
    }
}

/// <summary>Before anything else stops, while the database and the lines are there: jobs that are out end, and nothing stays hot.</summary>
internal sealed partial class NothingLeftHot(LineDesk desk, ILogger<NothingLeftHot> log) : IHostedLifecycleService
{
    public async Task StoppingAsync(CancellationToken cancellationToken)
    {
        if (desk.LinesOut is not [var line, ..]) return;
        SwitchingOff(line);
        await desk.StopAllAsync("The server was stopped.", cancellationToken);
    }

    public Task StartingAsync(CancellationToken cancellationToken) => Task.CompletedTask;
    public Task StartAsync(CancellationToken cancellationToken) => Task.CompletedTask;
    public Task StartedAsync(CancellationToken cancellationToken) => Task.CompletedTask;
    public Task StopAsync(CancellationToken cancellationToken) => Task.CompletedTask;
    public Task StoppedAsync(CancellationToken cancellationToken) => Task.CompletedTask;

    [LoggerMessage(LogLevel.Warning, "A print is broken off at line {Line}; its heaters are switched off")]
    private partial void SwitchingOff(int line);
}
