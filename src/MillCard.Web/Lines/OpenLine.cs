using MillCard.Core.Documents;
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
    private readonly CancellationTokenSource _gone = new();
    private readonly Task _watching;
    private LineStatus _status = new();
    private DateTimeOffset _told;
    private Sender? _sender;
    private readonly LinePatience _patience;
    private readonly JobLog _log;
    private CancellationTokenSource _breakOff = new();
    private SwitchOff _off = SwitchOff.Nothing;
    private bool _onPrinter, _pausedThere;
    private Task _job = Task.CompletedTask;

    /// <param name="facts">Where it goes.</param>
    /// <param name="tell">Told whenever anything has changed.</param>
    /// <param name="watched">Whether a page looks on.</param>
    /// <param name="log">Keeps what becomes of jobs.</param>
    /// <param name="clock">The clock.</param>
    /// <param name="patience">How long things may take; the usual where nothing is said.</param>
    public OpenLine(LineFacts facts, Func<LineStatus, Task> tell, Func<bool> watched, JobLog log, TimeProvider clock,
        LinePatience? patience = null)
    {
        (Facts, _tell, _log, _clock, _patience) = (facts, tell, log, clock, patience ?? LinePatience.Usual);
        _connection = new LineConnection(facts.Host, facts.Port, _patience, Heard);
        _watching = WatchAsync(watched);
    }

    /// <summary>Where it goes.</summary>
    public LineFacts Facts { get; }

    /// <summary>Whether a job is under way.</summary>
    public bool Working => !_job.IsCompleted;

    /// <summary>The line of the program that is out, while a job goes out line by line; null where none does. A file that the printer
    /// prints by itself needs nobody.</summary>
    public int? LineOut => Working && !_onPrinter && _sender is { } sender ? sender.Line : null;

    /// <summary>How it stands.</summary>
    public LineStatus Status
    {
        get { lock (_gate) return _status with { Talk = [.. _talk] }; }
    }

    /// <summary>Asks something; what was answered, the ok left out.</summary>
    /// <exception cref="LineFailedException">The printer is gone or does not answer; or a job runs.</exception>
    public async Task<IReadOnlyList<string>> AskAsync(string command, CancellationToken stop)
    {
        if (Working && !_onPrinter && !command.StartsWith("STAND_IN", StringComparison.Ordinal))
            throw new LineFailedException("A job runs on this line; ask again when it is over.");
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
    /// <param name="name">Its name.</param>
    /// <param name="program">The program.</param>
    /// <param name="how">Line by line, or as a file.</param>
    /// <param name="off">What switches everything off.</param>
    /// <exception cref="LineFailedException">Another job runs.</exception>
    public void Print(string name, ReadOnlyMemory<byte> program, SendHow how, SwitchOff off)
    {
        lock (_gate)
        {
            if (Working) throw new LineFailedException("A job runs on this line already.");
            var text = new GcodeText(program);
            var commands = LineFrame.CommandsOf(text);
            _sender = new Sender(how == SendHow.File ? [(1, $"M28 {FileName}"), .. commands, (text.Count, "M29")] : commands);
            (_onPrinter, _pausedThere, _off) = (false, false, off);
            _breakOff.Dispose();
            _breakOff = CancellationTokenSource.CreateLinkedTokenSource(_gone.Token);
            _job = Task.Run(() => RunAsync(_sender, new JobNow(name, how, text, _clock.GetUtcNow())));
        }
    }

    private const string FileName = "job.g";

    /// <summary>What stays the same of a job.</summary>
    private sealed record JobNow(string Name, SendHow How, GcodeText Text, DateTimeOffset At);

    private async Task RunAsync(Sender sender, JobNow job)
    {
        void Tell(bool now, HeatersAre heaters = HeatersAre.AsProgrammed)
        {
            Change(s => s with { Connected = true, Job = JobOf(sender, job, s.Job?.OnPrinter) with { Heaters = heaters } }, now);
            _log.Note(Status.Job!);
        }
        Change(s => s with { Job = JobOf(sender, job, null) });
        await _log.BeginAsync(Status.Job!);
        try
        {
            var state = sender.Shown;
            await _connection.RunAsync(sender, () => { Tell(sender.Shown != state); state = sender.Shown; }, _breakOff.Token);
            Tell(now: true);
            if (job.How == SendHow.File && sender.State == SendState.Done) await FollowAsync();
        }
        catch (OperationCanceledException) { sender.Stop("It was broken off."); }
        catch (LineFailedException failure)
        {
            sender.Stop(failure.Message);
            Change(s => s with { Connected = false, Problem = failure.Message });
        }
        if (sender.State == SendState.Stopped)
        {
            Tell(now: true, HeatersAre.SwitchingOff);
            Tell(now: true, await AllOffAsync());
        }
        await _log.EndAsync(Status.Job!);
    }

    /// <summary>Starts the file on the printer and follows it to its end.</summary>
    private async Task FollowAsync()
    {
        _onPrinter = true;
        try
        {
            foreach (var command in new[] { $"M23 {FileName}", "M24" }) await AskAsync(command, _gone.Token);
            while (true)
            {
                var answers = await AskAsync("M27", _gone.Token);
                var over = answers.Any(a => a.StartsWith("Not SD printing", StringComparison.Ordinal));
                var far = answers.FirstOrDefault(a => a.Contains("byte", StringComparison.Ordinal))?.Split(' ')[^1] ?? "running";
                var there = (over, _pausedThere) switch { (true, _) => "done", (_, true) => "paused", _ => far };
                Change(s => s with { Job = s.Job! with { OnPrinter = there } });
                if (over) return;
                await Task.Delay(1000, _gone.Token);
            }
        }
        finally { _onPrinter = false; }
    }

    /// <summary>A job that ended before its end leaves nothing hot: a wait is broken off where that can be done, everything is switched
    /// off, and the printer is asked.</summary>
    private async Task<HeatersAre> AllOffAsync()
    {
        using var limit = CancellationTokenSource.CreateLinkedTokenSource(_gone.Token);
        limit.CancelAfter(_patience.Off);
        var told = false;
        try
        {
            if (_off.BreakOff is { } breakOff)
            {
                Say(breakOff);
                await _connection.InterjectAsync(breakOff, limit.Token);
            }
            await _connection.SettledAsync(limit.Token);
            foreach (var command in _off.Commands)
            {
                Say(command);
                told = true;
                await _connection.AskAsync(command, limit.Token);
            }
            return await ConfirmedAsync(limit.Token) ? HeatersAre.Off : HeatersAre.ToldNotConfirmed;
        }
        catch (Exception failure) when (failure is LineFailedException or OperationCanceledException)
        {
            return told || await TellBlindlyAsync() ? HeatersAre.ToldNotConfirmed : HeatersAre.NotKnown;
        }
    }

    /// <summary>Switches everything off where no job runs.</summary>
    public async Task<HeatersAre> SwitchOffAsync(SwitchOff off, CancellationToken stop)
    {
        if (Working) return HeatersAre.AsProgrammed;
        _off = off;
        try { await _connection.ConnectAsync(stop); }
        catch (LineFailedException) { return HeatersAre.NotKnown; }
        return await AllOffAsync();
    }

    /// <summary>Whether the printer's own report says that no heater has a target.</summary>
    private async Task<bool> ConfirmedAsync(CancellationToken stop)
    {
        for (var i = 0; i < 3; i++)
            if ((await _connection.AskAsync("M105", stop)).Select(a => a.Temperatures?.HottestTarget)
                .FirstOrDefault(t => t is not null) == 0) return true;
        return false;
    }

    /// <summary>A printer that is still busy takes what it is told when it comes to it.</summary>
    private async Task<bool> TellBlindlyAsync()
    {
        using var limit = new CancellationTokenSource(_patience.Answer);
        try
        {
            foreach (var command in _off.Commands) await _connection.InterjectAsync(command, limit.Token);
            return _off.Commands.Count > 0;
        }
        catch (Exception failure) when (failure is LineFailedException or OperationCanceledException) { return false; }
    }

    /// <summary>Holds the job behind the line that is out.</summary>
    public async Task PauseAsync(CancellationToken stop)
    {
        if (_onPrinter) { await AskAsync("M25", stop); _pausedThere = true; }
        else Held(sender => sender.Pause());
    }

    /// <summary>Goes on.</summary>
    public async Task ResumeAsync(CancellationToken stop)
    {
        if (_onPrinter) { await AskAsync("M24", stop); _pausedThere = false; }
        else Held(sender => sender.Resume());
    }

    private void Held(Action<Sender> hold)
    {
        if (_sender is not { } sender) return;
        hold(sender);
        Change(s => s.Job is { } job ? s with { Job = job with { State = sender.Shown } } : s);
    }

    /// <summary>Gives the job up and switches the heaters off; ends when that is done, or could not be.</summary>
    public async Task CancelAsync(string why, CancellationToken stop)
    {
        if (_onPrinter) await AskAsync("M524", stop);
        if (!Working) return;
        _sender?.Stop(why);
        await _breakOff.CancelAsync();
        await _job.WaitAsync(stop);
    }

    /// <summary>Stops the printer at once, whatever it does: it has to be switched on anew afterwards.</summary>
    public async Task EmergencyAsync(CancellationToken stop)
    {
        Say("M112");
        await _connection.InterjectAsync("M112", stop);
        _sender?.Stop("Emergency stop. The printer has to be started anew.");
        await _breakOff.CancelAsync();
    }

    private static LineJob JobOf(Sender sender, JobNow job, string? onPrinter) =>
        new(job.Name, job.How, sender.Shown, sender.Taken, sender.Count, sender.Line, sender.Message, sender.ErrorLine,
            sender.ErrorLine is { } line and > 0 && line <= job.Text.Count ? job.Text.Text(line - 1) : null, job.At)
        { OnPrinter = onPrinter };

    private void Heard(Reply reply)
    {
        lock (_gate)
        {
            // what comes a hundred times a second is not talk
            if (reply.Text != "ok" && !reply.Text.StartsWith("ok T:", StringComparison.Ordinal)
                && reply.Kind is not (ReplyKind.Report or ReplyKind.Busy)) Keep(new LineTalk(Out: false, reply.Text));
            if (reply.Temperatures is { } heat)
            {
                _status = _status with { Temperatures = heat };
                // what was told to a busy printer may be done later
                if (heat.HottestTarget == 0 && _status.Job is { Heaters: HeatersAre.ToldNotConfirmed } job && !Working)
                    _status = _status with { Job = job with { Heaters = HeatersAre.Off } };
            }
            if (reply.Position is { } place) _status = _status with { Position = place };
        }
    }

    private void Say(string command)
    {
        lock (_gate) Keep(new LineTalk(Out: true, command));
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
            while (await tick.WaitForNextTickAsync(_gone.Token))
            {
                if (!watched() || !Status.Connected || Working && !_onPrinter) continue;
                try
                {
                    await _connection.AskAsync("M105", _gone.Token);
                    await _connection.AskAsync("M114", _gone.Token);
                    Change(s => s);
                }
                catch (LineFailedException failure) { Change(s => s with { Connected = false, Problem = failure.Message }); }
            }
        }
        catch (OperationCanceledException) { }
    }

    public async ValueTask DisposeAsync()
    {
        _sender?.Stop("The server was stopped.");
        await _gone.CancelAsync();
        await Task.WhenAll(_watching, _job);
        await _connection.DisposeAsync();
        _gone.Dispose();
        _breakOff.Dispose();
    }
}
