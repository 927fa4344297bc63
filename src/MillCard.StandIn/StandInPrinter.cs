using System.Net;
using System.Net.Sockets;
using System.Text;
using System.Threading.Channels;
using MillCard.Core.Documents;
using MillCard.Core.DryRun;
using MillCard.Core.Gcode;
using MillCard.Core.Lines;
using MillCard.Core.Machines;

namespace MillCard.StandIn;

/// <summary>A simulated printer behind a TCP port: the machine of a card, the usual line protocol, faults on demand.</summary>
public sealed class StandInPrinter : IAsyncDisposable
{
    private const int LongestLine = 4096;
    private const int MostStored = 5_000_000;
    private static readonly TimeSpan BusyEvery = TimeSpan.FromSeconds(2);

    private readonly TcpListener _listener;
    private readonly CancellationTokenSource _off = new();
    private readonly Func<string, Card?> _cards;
    private readonly Random _chance;
    private readonly Task _serving;
    private Card _card;
    private LiveMachine _machine;
    private double _speed;
    private long _last, _executedCount;
    private bool _busy, _disposed;
    private volatile bool _silent, _halted, _breakOff;
    private Faults _faults = new();
    private List<string>? _storing;
    private string? _storingName;
    private readonly Dictionary<string, string[]> _files = new(StringComparer.OrdinalIgnoreCase);
    private FilePrint? _print;
    private long _lastNoticed = Environment.TickCount64;
    private double _pending;
    private DateTime _saidBusy = DateTime.MinValue;

    private StandInPrinter(Card card, int port, double speed, Func<string, Card?> cards, int seed)
    {
        (_card, _speed, _cards, _chance) = (card, speed, cards, new Random(seed));
        _machine = new LiveMachine(Machine.Of(card));
        _listener = new TcpListener(IPAddress.Loopback, port);
        _listener.Start();
        _serving = ServeAsync();
    }

    /// <summary>Where it listens, on loopback only.</summary>
    public int Port => ((IPEndPoint)_listener.LocalEndpoint).Port;
    /// <summary>Every command that was executed, in order, where that is kept.</summary>
    public List<string>? Executed { get; init; }
    /// <summary>What goes wrong.</summary>
    public Faults Faults { get => _faults; set => _faults = value; }

    /// <summary>Switches a printer on.</summary>
    /// <param name="card">The machine.</param>
    /// <param name="port">0 for any free one.</param>
    /// <param name="speed">How many times as fast as a real one; infinite for at once.</param>
    /// <param name="cards">Cards by name, for changing it.</param>
    /// <param name="keep">Whether executed commands are kept.</param>
    /// <param name="seed">Of the faults.</param>
    public static StandInPrinter Start(Card card, int port = 0, double speed = 1, Func<string, Card?>? cards = null, bool keep = false,
        int seed = 1) =>
        new(card, port, speed, cards ?? (_ => null), seed) { Executed = keep ? [] : null };

    /// <summary>Switches it off.</summary>
    public async ValueTask DisposeAsync()
    {
        if (Interlocked.Exchange(ref _disposed, true)) return;
        await _off.CancelAsync();
        _listener.Stop();
        try { await _serving; }
        catch (Exception ended) when (
            ended is OperationCanceledException or SocketException or ObjectDisposedException)
        { }
        _off.Dispose();
    }

    private async Task ServeAsync()
    {
        while (!_off.IsCancellationRequested)
        {
            using var client = await _listener.AcceptTcpClientAsync(_off.Token);
            client.NoDelay = true;
            try { await TalkAsync(client); }
            catch (Exception gone) when (gone is IOException or SocketException or EndlessLineException or OperationCanceledException
                or ObjectDisposedException)
            { }
        }
    }

    private async Task TalkAsync(TcpClient client)
    {
        await using var stream = client.GetStream();
        using var reader = new StreamReader(stream, new UTF8Encoding(false), false, 1024);
        var heard = Channel.CreateUnbounded<string>();
        using var left = CancellationTokenSource.CreateLinkedTokenSource(_off.Token);
        var doing = DoAllAsync(heard.Reader, client, stream, left);
        try { await ListenAsync(reader, heard.Writer, left.Token); }
        finally
        {
            heard.Writer.TryComplete();
            await doing;
        }
    }

    /// <summary>Does what was heard, one line after the other.</summary>
    private async Task DoAllAsync(ChannelReader<string> heard, TcpClient client, NetworkStream to, CancellationTokenSource left)
    {
        try
        {
            await foreach (var text in heard.ReadAllAsync(left.Token))
            {
                if (Chance(_faults.Drop)) break;
                await HearAsync(Garbled(text), to);
            }
        }
        catch (Exception gone) when (gone is IOException or SocketException or OperationCanceledException or ObjectDisposedException) { }
        await left.CancelAsync();
        client.Close();
    }

    /// <summary>Takes lines in. What breaks a wait off, and the emergency stop, are obeyed at once, before what was said earlier.</summary>
    private async Task ListenAsync(StreamReader reader, ChannelWriter<string> heard, CancellationToken stop)
    {
        var line = new StringBuilder();
        var buffer = new char[1024];
        while (await reader.ReadAsync(buffer, stop) is var count and > 0)
            for (var i = 0; i < count; i++)
            {
                if (buffer[i] is not ('\n' or '\r'))
                {
                    if (line.Length >= LongestLine) throw new EndlessLineException();
                    line.Append(buffer[i]);
                    continue;
                }
                if (line.Length == 0) continue;
                var text = line.ToString();
                line.Clear();
                if (text.Trim() is "M108" && _machine.Flavour.Spell("break-off-wait") == "M108") _breakOff = true;
                else if (text.Trim() is "M112") (_halted, _breakOff) = (true, true);
                else heard.TryWrite(text);
            }
    }

    private async Task HearAsync(string line, NetworkStream to)
    {
        CatchUp();
        var (number, command, intact) = LineFrame.Read(line);
        var control = command.StartsWith("STAND_IN", StringComparison.OrdinalIgnoreCase);
        if (_silent && !control) return;
        if (number >= 0 && command.StartsWith("M110", StringComparison.OrdinalIgnoreCase) && intact)
        {
            var words = new Words();
            words.Read(Encoding.UTF8.GetBytes(command));
            _last = double.IsNaN(words['N']) ? number : (long)words['N'];
            await SayAsync(to, "ok");
            return;
        }
        if (number >= 0 || !intact)
        {
            if (!intact || Chance(_faults.WrongChecksum)) { await AgainAsync(to, $"Error:checksum mismatch, Last Line: {_last}"); return; }
            if (number != _last + 1) { await AgainAsync(to, $"Error:Line Number is not Last Line Number+1, Last Line: {_last}"); return; }
            _last = number;
        }
        if (_halted && !control) { await SayAsync(to, "Error:Printer halted. kill() called!"); return; }
        if (_storing is { } storing && !command.StartsWith("M29", StringComparison.OrdinalIgnoreCase))
        {
            if (storing.Count < MostStored) storing.Add(command);
            await SayAsync(to, "ok");
            return;
        }
        await AnswerAsync(command, to);
        if (number < 0) return;
        _executedCount++;
        if (_faults.SilentAfter == _executedCount) _silent = true;
        if (_faults.BusyAfter == _executedCount) _busy = true;
        if (_faults.RestartAfter == _executedCount) await RestartAsync(to);
    }

    private async Task AgainAsync(NetworkStream to, string why)
    {
        await SayAsync(to, why);
        await SayAsync(to, $"Resend: {_last + 1}");
        await SayAsync(to, "ok");
    }

    private async Task RestartAsync(NetworkStream to)
    {
        (_machine, _last, _silent, _halted, _busy, _print, _storing) = (new LiveMachine(Machine.Of(_card)), 0, false, false, false, null,
            null);
        await SayAsync(to, "start");
    }

    private async Task AnswerAsync(string command, NetworkStream to)
    {
        var words = command.Split(' ', 2, StringSplitOptions.TrimEntries | StringSplitOptions.RemoveEmptyEntries);
        var rest = words.Length > 1 ? words[1] : "";
        switch (words.Length > 0 ? words[0].ToUpperInvariant() : "")
        {
            case "M105": await SayAsync(to, $"ok {Temperatures()}"); return;
            case "M114":
                await SayAsync(to, Invariant(
                    $"X:{_machine.Position.X:0.00} Y:{_machine.Position.Y:0.00} Z:{_machine.Position.Z:0.00} E:0.00 Count X:0 Y:0 Z:0"));
                break;
            case "M115":
                await SayAsync(to, $"FIRMWARE_NAME:{_machine.Flavour.Name} (stand-in of Mill Card) "
                + $"MACHINE_TYPE:{_card.Name} EXTRUDER_COUNT:{Math.Max(1, _card.Head.Nozzles?.Count ?? 1)}"); break;
            case "M503": foreach (var line in SettingsWords.Of(_card)) await SayAsync(to, line); break;
            case "M28":
                (_storing, _storingName) = ([], rest.Length > 0 ? rest
                : "job"); await SayAsync(to, $"Writing to file: {_storingName}"); break;
            case "M29":
                if (_storing is { } stored) _files[_storingName!] = [.. stored]; _storing = null; await SayAsync(to,
                "Done saving file."); break;
            case "M20":
                await SayAsync(to, "Begin file list"); foreach (var file in _files.Keys) await SayAsync(to,
                file); await SayAsync(to, "End file list"); break;
            case "M23":
                await SayAsync(to, _files.TryGetValue(rest, out var lines) ? $"File opened: {rest}"
                : $"Error:open failed, File: {rest}"); _print = lines is null ? null : new FilePrint(lines); break;
            case "M24": if (_print is { } print) print.Running = true; break;
            case "M25": if (_print is { } held) held.Running = false; break;
            case "M524": _print = null; break;
            case "M27": await SayAsync(to, _print is { } now ? $"SD printing byte {now.At}/{now.Lines.Length}" : "Not SD printing"); break;
            case "FETCH_MACROS":
                foreach (var line in (_card.Firmware.Macros ?? "").Split('\n')) await SayAsync(to, $"// {line}");
                break;
            case "STAND_IN": await ControlAsync(ExtendedCommand.Of(Encoding.UTF8.GetBytes(command)), to); break;
            default: await DoAsync(command, to); return;
        }
        await SayAsync(to, "ok");
    }

    private async Task DoAsync(string command, NetworkStream to)
    {
        if (_faults.DeadHeater && command.StartsWith("M109", StringComparison.OrdinalIgnoreCase))
        {
            _halted = true;
            await SayAsync(to, "Error:Heating failed, system stopped! Heater_ID: 0");
            return;
        }
        Executed?.Add(command);
        var step = _machine.Execute(command);
        if (!step.Known)
        {
            await SayAsync(to, _machine.Flavour.HaltsOnUnknown ? $"!! Unknown command: \"{command.Split(' ')[0]}\""
                : $"echo:Unknown command: \"{command}\"");
            if (!_machine.Flavour.HaltsOnUnknown) await SayAsync(to, "ok");
            return;
        }
        var seconds = step.Effect.StartsWith("waits for the", StringComparison.Ordinal) ? step.Seconds * _faults.SlowHeater : step.Seconds;
        await TakeTimeAsync(seconds, to);
        await SayAsync(to, "ok");
    }

    /// <summary>Lets a command take its time; says that it is busy where that is long.</summary>
    private async Task TakeTimeAsync(double seconds, NetworkStream to)
    {
        if (double.IsPositiveInfinity(_speed) && double.IsFinite(seconds) && !_busy) return;
        // what is shorter than a tick of the clock is slept when enough of it has come together
        _pending += seconds / _speed;
        _breakOff = false;
        while ((_pending > 0.02 || _busy) && !(_breakOff && !_busy) && !_halted)
        {
            var part = TimeSpan.FromSeconds(_busy ? 0.1 : Math.Min(_pending, BusyEvery.TotalSeconds / 4));
            await Task.Delay(part, _off.Token);
            _pending -= part.TotalSeconds;
            if (_pending <= 0.02 && !_busy || DateTime.UtcNow - _saidBusy < (_busy ? part : BusyEvery)) continue;
            _saidBusy = DateTime.UtcNow;
            await SayAsync(to, "echo:busy: processing");
            await SayAsync(to, Temperatures());
        }
        if (_breakOff || _halted) _pending = 0;
        _lastNoticed = Environment.TickCount64;
    }

    /// <summary>Time that passed while nothing was asked; a file that it prints by itself goes on.</summary>
    private void CatchUp()
    {
        var now = Environment.TickCount64;
        var seconds = (now - _lastNoticed) / 1000.0 * (double.IsPositiveInfinity(_speed) ? 1 : _speed);
        _lastNoticed = now;
        if (_print is { Running: true } print)
        {
            for (print.Time += double.IsPositiveInfinity(_speed) ? double.PositiveInfinity : seconds; print.Time > 0
                && print.At < print.Lines.Length;)
            {
                Executed?.Add(print.Lines[print.At]);
                var step = _machine.Execute(print.Lines[print.At++]);
                print.Time -= step.Seconds;
            }
            if (print.At == print.Lines.Length) _print = null;
            return;
        }
        _machine.Pass(seconds);
    }

    private async Task ControlAsync(ExtendedCommand control, NetworkStream to)
    {
        if (control.Text("SPEED") is { } speed)
            _speed = speed == "max" ? double.PositiveInfinity : Math.Clamp(control.Number("SPEED"), 0.1, 100_000);
        if (control.Text("CARD") is { } name && _cards(name) is { } card) { _card = card; await RestartAsync(to); }
        if (control.Text("FAULT") is { } fault)
        {
            var value = control.Number("RATE");
            if (_faults.With(fault.ToUpperInvariant(), double.IsNaN(value) ? 1 : value) is { } faults)
            {
                // counts begin now
                (_faults, _silent, _halted, _busy, _executedCount) = (faults, false, false, false, 0);
            }
            else await SayAsync(to, $"echo:no such fault: {fault}");
        }
        var pace = double.IsPositiveInfinity(_speed) ? "max" : Invariant($"{_speed:0.##}");
        await SayAsync(to, $"echo:stand-in {_card.Name}, speed {pace}");
    }

    private string Temperatures()
    {
        // a command that still takes its time has been reckoned to its end already
        var now = _machine.Clock - (double.IsPositiveInfinity(_speed) ? 0 : _pending * _speed);
        var bed = _machine.BedAt(now) is { } degrees
            ? Invariant($" B:{degrees:0.00} /{_machine.BedTarget ?? 0:0.00}") : "";
        return Invariant($"T:{_machine.NozzleAt(now):0.00} /{_machine.NozzleTarget:0.00}{bed} @:0");
    }

    private async Task SayAsync(NetworkStream to, string line)
    {
        if (Chance(_faults.LostReply)) return;
        await to.WriteAsync(Encoding.UTF8.GetBytes(Garbled(line) + "\n"), _off.Token);
    }

    private bool Chance(double rate) => rate > 0 && _chance.NextDouble() < rate;

    private string Garbled(string line)
    {
        if (line.Length == 0 || line.StartsWith("STAND_IN", StringComparison.OrdinalIgnoreCase) || !Chance(_faults.Noise)) return line;
        var at = _chance.Next(line.Length);
        return line[..at] + (char)('!' + _chance.Next(90)) + line[(at + 1)..];
    }

    private sealed class FilePrint(string[] lines)
    {
        public string[] Lines { get; } = lines;
        public int At { get; set; }
        public double Time { get; set; }
        public bool Running { get; set; }
    }

    /// <summary>The client sends a line longer than any that a board takes.</summary>
    private sealed class EndlessLineException : Exception;
}
