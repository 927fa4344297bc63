using MillCard.Core.Documents;
using MillCard.Core.Flavours;
using MillCard.Core.Gcode;
using MillCard.Core.Lines;

namespace MillCard.Web.Lines;

/// <summary>The line of one card: its talk, its job, and what pages are told of both.</summary>
internal sealed class OpenLine : IAsyncDisposable
{
    private const int TalkKept = 60;
    private static readonly TimeSpan TellEvery = TimeSpan.FromMilliseconds(150);
    private readonly LineConnection _connection;
    private readonly Func<LineStatus, Task> _tell;
    private readonly TimeProvider _clock;
    private readonly Lock _gate = new();
    private readonly Queue<LineTalk> _talk = new();
    private readonly CancellationTokenSource _off = new();
    private readonly Task _watching;
    private LineStatus _status = new();
    private DateTimeOffset _told;
    private Sender? _sender;
    private bool _onPrinter, _pausedThere;
    private Task _job = Task.CompletedTask;

    public OpenLine(LineFacts facts, Func<LineStatus, Task> tell, Func<bool> watched, TimeProvider clock)
    {
        (Facts, _tell, _clock) = (facts, tell, clock);
        _connection = new LineConnection(facts.Host, facts.Port, LinePatience.Usual, Heard);
        _watching = WatchAsync(watched);
    }

    /// <summary>Where it goes.</summary>
    public LineFacts Facts { get; }

    /// <summary>Whether a job is under way.</summary>
    public bool Working => !_job.IsCompleted;

    /// <summary>How it stands.</summary>
    public LineStatus Status
    {
        get { lock (_gate) return _status with { Talk = [.. _talk] }; }
    }

    /// <summary>Asks something; what was answered, the ok left out.</summary>
    /// <exception cref="LineFailedException">The printer is gone or does not answer; or a job runs.</exception>
    public async Task<IReadOnlyList<string>> AskAsync(string command, CancellationToken stop)
    {
        if (Working && !_onPrinter && !command.StartsWith("STAND_IN", StringComparison.Ordinal)) throw new LineFailedException("A job runs on this line; ask again when it is over.");
        Say(command);
        try
        {
            var answers = await _connection.AskAsync(command, stop);
            Change(s => s with { Connected = true, Problem = null });
            return [.. answers.Where(a => a.Text != "ok").Select(a => a.Text)];
        }
        catch (LineFailedException failure)
        {
            Change(s => s with { Connected = false, Problem = failure.Message });
            throw;
        }
    }

    /// <summary>What the printer says it is.</summary>
    public async Task<string> IdentifyAsync(CancellationToken stop)
    {
        var firmware = string.Join(' ', (await AskAsync("M115", stop)).Where(a => !a.StartsWith("echo", StringComparison.Ordinal)));
        Change(s => s with { Firmware = firmware });
        return firmware;
    }

    /// <summary>Starts a job; it goes on when the caller is gone.</summary>
    /// <exception cref="LineFailedException">Another job runs.</exception>
    public void Print(string name, ReadOnlyMemory<byte> program, SendHow how, Flavour flavour)
    {
        lock (_gate)
        {
            if (Working) throw new LineFailedException("A job runs on this line already.");
            var text = new GcodeText(program);
            var commands = LineFrame.CommandsOf(text);
            _sender = new Sender(how == SendHow.File ? [(1, $"M28 {FileName}"), .. commands, (text.Count, "M29")] : commands);
            (_onPrinter, _pausedThere) = (false, false);
            var at = _clock.GetUtcNow();
            _job = Task.Run(() => RunAsync(_sender, name, how, text, at, flavour));
        }
    }

    private const string FileName = "job.g";

    private async Task RunAsync(Sender sender, string name, SendHow how, GcodeText text, DateTimeOffset at, Flavour flavour)
    {
        void Tell(bool now) => Change(s => s with { Connected = true, Job = JobOf(sender, name, how, text, at, s.Job?.OnPrinter) }, now);
        try
        {
            Change(s => s with { Job = JobOf(sender, name, how, text, at, null) });
            var paused = sender.State;
            await _connection.RunAsync(sender, () => { Tell(sender.State != paused); paused = sender.State; }, _off.Token);
            Tell(true);
            if (sender.State == SendState.Stopped && !_off.IsCancellationRequested) await AllOffAsync(flavour);
            else if (how == SendHow.File && sender.State == SendState.Done) await FollowAsync();
        }
        catch (OperationCanceledException) { }
        catch (LineFailedException failure)
        {
            sender.Stop(failure.Message);
            Change(s => s with { Connected = false, Problem = failure.Message, Job = JobOf(sender, name, how, text, at, null) });
        }
    }

    /// <summary>Starts the file on the printer and follows it to its end.</summary>
    private async Task FollowAsync()
    {
        _onPrinter = true;
        try
        {
            foreach (var command in new[] { $"M23 {FileName}", "M24" }) await AskAsync(command, _off.Token);
            while (true)
            {
                var answers = await AskAsync("M27", _off.Token);
                var over = answers.Any(a => a.StartsWith("Not SD printing", StringComparison.Ordinal));
                Change(s => s with { Job = s.Job! with { OnPrinter = over ? "done" : _pausedThere ? "paused" : answers.FirstOrDefault(a => a.Contains("byte", StringComparison.Ordinal))?.Split(' ')[^1] ?? "running" } });
                if (over) return;
                await Task.Delay(1000, _off.Token);
            }
        }
        finally { _onPrinter = false; }
    }

    /// <summary>A job that ended before its end leaves nothing hot.</summary>
    private async Task AllOffAsync(Flavour flavour)
    {
        foreach (var what in new[] { "nozzle-set", "bed-set", "fan-off" })
            if (flavour.Spell(what, ("value", 0)) is { } command)
                try { await _connection.AskAsync(command, _off.Token); Say(command); }
                catch (LineFailedException) { return; }
    }

    /// <summary>Holds the job behind the line that is out.</summary>
    public async Task PauseAsync(CancellationToken stop)
    {
        if (_onPrinter) { await AskAsync("M25", stop); _pausedThere = true; }
        else _sender?.Pause();
    }

    /// <summary>Goes on.</summary>
    public async Task ResumeAsync(CancellationToken stop)
    {
        if (_onPrinter) { await AskAsync("M24", stop); _pausedThere = false; }
        else _sender?.Resume();
    }

    /// <summary>Gives the job up and switches the heaters off.</summary>
    public async Task CancelAsync(CancellationToken stop)
    {
        if (_onPrinter) await AskAsync("M524", stop);
        else _sender?.Stop("Cancelled; the heaters are off.");
    }

    private static LineJob JobOf(Sender sender, string name, SendHow how, GcodeText text, DateTimeOffset at, string? onPrinter) =>
        new(name, how, sender.State, sender.Taken, sender.Count, sender.Line, sender.Message, sender.ErrorLine,
            sender.ErrorLine is { } line and > 0 && line <= text.Count ? text.Text(line - 1) : null, at)
        { OnPrinter = onPrinter };

    private void Heard(Reply reply)
    {
        lock (_gate)
        {
            // what comes a hundred times a second is not talk
            if (reply.Text != "ok" && !reply.Text.StartsWith("ok T:", StringComparison.Ordinal) && reply.Kind is not (ReplyKind.Report or ReplyKind.Busy)) Keep(new LineTalk(false, reply.Text));
            if (reply.Temperatures is { } heat) _status = _status with { Temperatures = heat };
            if (reply.Position is { } place) _status = _status with { Position = place };
        }
    }

    private void Say(string command)
    {
        lock (_gate) Keep(new LineTalk(true, command));
    }

    private void Keep(LineTalk talk)
    {
        _talk.Enqueue(talk);
        while (_talk.Count > TalkKept) _talk.Dequeue();
    }

    private void Change(Func<LineStatus, LineStatus> change, bool now = true)
    {
        LineStatus told;
        lock (_gate)
        {
            _status = change(_status);
            if (!now && _clock.GetUtcNow() - _told < TellEvery) return;
            _told = _clock.GetUtcNow();
            told = _status with { Talk = [.. _talk] };
        }
        _ = _tell(told);
    }

    /// <summary>Asks for temperatures and position while somebody looks and no job does.</summary>
    private async Task WatchAsync(Func<bool> watched)
    {
        using var tick = new PeriodicTimer(TimeSpan.FromSeconds(2));
        try
        {
            while (await tick.WaitForNextTickAsync(_off.Token))
            {
                if (!watched() || !Status.Connected || Working && !_onPrinter) continue;
                try
                {
                    await _connection.AskAsync("M105", _off.Token);
                    await _connection.AskAsync("M114", _off.Token);
                    Change(s => s);
                }
                catch (LineFailedException failure) { Change(s => s with { Connected = false, Problem = failure.Message }); }
            }
        }
        catch (OperationCanceledException) { }
    }

    public async ValueTask DisposeAsync()
    {
        await _off.CancelAsync();
        _sender?.Stop("The server was stopped.");
        await Task.WhenAll(_watching, _job);
        await _connection.DisposeAsync();
        _off.Dispose();
    }
}
