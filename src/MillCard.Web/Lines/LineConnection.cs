using System.Net.Sockets;
using System.Text;
using System.Threading.Channels;
using MillCard.Core.Lines;

namespace MillCard.Web.Lines;

/// <summary>The printer cannot be reached, or does not answer; the message is a sentence.</summary>
internal sealed class LineFailedException(string message) : Exception(message);

/// <summary>A line that is not to be opened, or not now; the message is a sentence.</summary>
internal sealed class LineRefusedException(string message) : Exception(message);

/// <summary>How long things may take on a line.</summary>
/// <param name="Answer">Silence longer than this is no answer.</param>
/// <param name="Reconnect">Time between tries to reach a printer that is gone.</param>
/// <param name="Tries">How many such tries.</param>
/// <param name="Ask">How often temperatures are asked for.</param>
internal sealed record LinePatience(TimeSpan Answer, TimeSpan Reconnect, int Tries, TimeSpan Ask)
{
    /// <summary>The usual.</summary>
    public static LinePatience Usual { get; } = new(TimeSpan.FromSeconds(8), TimeSpan.FromSeconds(1), 20, TimeSpan.FromSeconds(2));

    /// <summary>A printer that says for longer that it is busy with one line is given up; one that waits for its owner is not.</summary>
    public TimeSpan Busy { get; init; } = TimeSpan.FromMinutes(60);

    /// <summary>A question is given up after this, whatever else the printer says meanwhile.</summary>
    public TimeSpan Question { get; init; } = TimeSpan.FromMinutes(10);

    /// <summary>Switching everything off may take this long, confirmation included.</summary>
    public TimeSpan Off { get; init; } = TimeSpan.FromSeconds(20);
}

/// <summary>A TCP connection to a printer: questions with their answers, and jobs that survive what goes wrong.</summary>
internal sealed class LineConnection(string host, int port, LinePatience patience, Action<Reply> heard) : IAsyncDisposable
{
    private const string Flooded = "What answers there sends without end; the connection was cut.";
    private const int LongestReply = 4096;
    private const int MostReplies = 4096;
    private const int MostAnswers = 5000;
    private const int MostLinesASecond = 20_000;
    private const int MostLettersASecond = 4_000_000;
    private readonly SemaphoreSlim _turn = new(1, 1);
    private TcpClient? _client;
    private Channel<Reply> _replies = Bounded();
    private bool _floods;
    private DateTime _lineOut;
    private Task _reading = Task.CompletedTask;
    private DateTime _asked = DateTime.MinValue;

    /// <summary>Reaches the printer.</summary>
    /// <exception cref="LineFailedException">It cannot be reached.</exception>
    public async Task ConnectAsync(CancellationToken stop)
    {
        await HangUpAsync();
        var client = new TcpClient { NoDelay = true };
        try
        {
            using var limit = CancellationTokenSource.CreateLinkedTokenSource(stop);
            limit.CancelAfter(patience.Answer);
            await client.ConnectAsync(host, port, limit.Token);
        }
        catch (Exception failure) when (failure is SocketException || failure is OperationCanceledException
            && !stop.IsCancellationRequested)
        {
            client.Dispose();
            throw new LineFailedException($"Nothing answers at {host}:{port}. Is the printer on, and is the port right?");
        }
        (_client, _replies, _floods) = (client, Bounded(), false);
        _reading = ReadAsync(client, _replies.Writer);
    }

    // what nobody takes is of no use later: of an idle printer's reports only the newest are kept
    private static Channel<Reply> Bounded() =>
        Channel.CreateBounded<Reply>(new BoundedChannelOptions(MostReplies) { FullMode = BoundedChannelFullMode.DropOldest });

    /// <summary>Asks and gathers what is answered up to the ok.</summary>
    /// <exception cref="LineFailedException">The printer is gone, or does not answer.</exception>
    public async Task<IReadOnlyList<Reply>> AskAsync(string command, CancellationToken stop)
    {
        await _turn.WaitAsync(stop);
        try { return await ExchangeAsync(command, stop); }
        finally { _turn.Release(); }
    }

    private async Task<IReadOnlyList<Reply>> ExchangeAsync(string command, CancellationToken stop)
    {
        // a connection that is known to be gone is made anew
        if (_client is null || _reading.IsCompleted) await ConnectAsync(stop);
        while (_replies.Reader.TryRead(out var late)) heard(late);
        using var limit = CancellationTokenSource.CreateLinkedTokenSource(stop);
        limit.CancelAfter(patience.Question);
        var word = command.Split(' ')[0];
        try
        {
            await WriteAsync(command, limit.Token);
            var answers = new List<Reply>();
            while (await NextAsync(limit.Token) is { } reply)
            {
                if (answers.Count == MostAnswers)
                    throw new LineFailedException($"The printer answers {word} with more than {MostAnswers} lines and comes to no end.");
                answers.Add(reply);
                if (reply.Kind is ReplyKind.Ok or ReplyKind.Error) return answers;
            }
        }
        catch (OperationCanceledException) when (!stop.IsCancellationRequested)
        {
            throw new LineFailedException(
                $"The printer did not come to an end with {word} within {patience.Question.TotalMinutes:0.#} minutes.");
        }
        throw new LineFailedException(_floods ? Flooded : $"The printer does not answer to {word}.");
    }

    /// <summary>Runs a job to its end.</summary>
    /// <param name="sender">The job.</param>
    /// <param name="told">Called whenever it has come further.</param>
    /// <param name="stop">Ends it behind the line that is out.</param>
    public async Task RunAsync(Sender sender, Action told, CancellationToken stop)
    {
        await _turn.WaitAsync(stop);
        try
        {
            await ResetAsync(sender, told, stop);
            while (sender.State is SendState.Sending or SendState.Pausing or SendState.Paused)
            {
                stop.ThrowIfCancellationRequested();
                if (!await StepAsync(sender, told, stop))
                {
                    sender.Unanswered();
                    told();
                    await ReturnAsync(sender, stop);
                }
                told();
            }
        }
        finally { _turn.Release(); }
    }

    /// <summary>Sets the printer's count of lines, however often that needs saying.</summary>
    private async Task ResetAsync(Sender sender, Action told, CancellationToken stop)
    {
        for (var i = 0; i < Sender.MostRepeats; i++)
        {
            try
            {
                var answers = await ExchangeAsync(Sender.Reset, stop);
                sender.Answered();
                if (answers.All(a => a.Kind is not (ReplyKind.Resend or ReplyKind.Error))) return;
            }
            catch (LineFailedException) when (i + 1 < Sender.MostRepeats)
            {
                sender.Unanswered();
                told();
                await ReturnAsync(sender, stop);
            }
            if (sender.State == SendState.Stopped) return;
        }
        sender.Stop("The printer does not take the count of lines; the line is too noisy.");
    }

    /// <summary>Sends what is to be sent and takes one answer in; false where the connection is gone.</summary>
    private async Task<bool> StepAsync(Sender sender, Action told, CancellationToken stop)
    {
        try
        {
            if (!sender.Waiting && DateTime.UtcNow - _asked > patience.Ask)
            {
                _asked = DateTime.UtcNow;
                try
                {
                    await ExchangeAsync("M105", stop);
                    await ExchangeAsync("M114", stop);
                }
                catch (LineFailedException) when (_client is { Connected: true }) { }
            }
            if (sender.State == SendState.Paused && !sender.Waiting) { await Task.Delay(50, stop); return true; }
            if (sender.Next() is { } line)
            {
                _lineOut = DateTime.UtcNow;
                await WriteAsync(line, stop);
            }
            if (await NextAsync(stop) is { } reply)
            {
                sender.Take(reply);
                if (sender.Waiting && DateTime.UtcNow - _lineOut > patience.Busy)
                    sender.Stop($"The printer has been busy with line {sender.Line} for {patience.Busy.TotalMinutes:0.#} "
                        + $"minutes; the job was given up.", sender.Line);
            }
            else if (_reading.IsCompleted) return false;
            else
            {
                sender.Repeat();
                told();
                await QuietAsync(stop);
            }
            return true;
        }
        catch (Exception gone) when (
            gone is IOException or SocketException or LineFailedException or ObjectDisposedException)
        { return false; }
    }

    /// <summary>Waits until nothing comes any more: late answers are not to be taken for those to the line that goes out again.</summary>
    private async Task QuietAsync(CancellationToken stop)
    {
        for (var quiet = false; !quiet;)
        {
            await Task.Delay(patience.Answer / 4, stop);
            for (quiet = true; _replies.Reader.TryRead(out var late); quiet = false) heard(late);
        }
    }

    private async Task ReturnAsync(Sender sender, CancellationToken stop)
    {
        for (var i = 0; i < patience.Tries; i++)
        {
            await Task.Delay(patience.Reconnect, stop);
            try { await ConnectAsync(stop); sender.Repeat(); return; }
            catch (LineFailedException) { }
        }
        sender.Stop($"The connection to the printer broke at line {sender.Line} and did not come back.");
    }

    private async Task WriteAsync(string line, CancellationToken stop)
    {
        if (_client is not { } client) throw new LineFailedException("The connection is closed.");
        try { await client.GetStream().WriteAsync(Encoding.UTF8.GetBytes(line + "\n"), stop); }
        catch (Exception gone) when (gone is IOException or SocketException or InvalidOperationException)
        {
            throw new LineFailedException(
            _floods ? Flooded : "The connection to the printer broke.");
        }
    }

    /// <summary>The next answer; null for silence, or where the connection is gone. A printer that says it is busy is not silent.</summary>
    private async Task<Reply?> NextAsync(CancellationToken stop)
    {
        using var limit = CancellationTokenSource.CreateLinkedTokenSource(stop);
        limit.CancelAfter(patience.Answer);
        try
        {
            while (true)
            {
                var reply = await _replies.Reader.ReadAsync(limit.Token);
                heard(reply);
                if (reply.AwaitsOwner) _lineOut = DateTime.UtcNow;
                if (reply.Kind != ReplyKind.Busy || DateTime.UtcNow - _lineOut > patience.Busy) return reply;
                limit.CancelAfter(patience.Answer);
            }
        }
        catch (OperationCanceledException) when (!stop.IsCancellationRequested) { return null; }
        catch (ChannelClosedException) { return null; }
    }

    /// <summary>Says something that is not answered in turn: a wait is broken off by it.</summary>
    /// <exception cref="LineFailedException">The connection is gone.</exception>
    public Task InterjectAsync(string command, CancellationToken stop) => WriteAsync(command, stop);

    /// <summary>Waits until the line that was out is answered, or nothing comes any more.</summary>
    public async Task<bool> SettledAsync(CancellationToken stop)
    {
        while (await NextAsync(stop) is { } reply)
            if (reply.Kind is ReplyKind.Ok or ReplyKind.Error) return true;
        return false;
    }

    private async Task ReadAsync(TcpClient client, ChannelWriter<Reply> into)
    {
        try
        {
            var (second, lines, letters) = (Environment.TickCount64 / 1000, 0, 0);
            using var reader = new StreamReader(client.GetStream(), new UTF8Encoding(false), false, 1024, leaveOpen: true);
            var line = new StringBuilder();
            var buffer = new char[1024];
            while (await reader.ReadAsync(buffer) is var count and > 0)
            {
                if (Environment.TickCount64 / 1000 is var now && now != second) (second, lines, letters) = (now, 0, 0);
                letters += count;
                for (var i = 0; i < count; i++)
                {
                    if (buffer[i] is not ('\n' or '\r'))
                    {
                        if (line.Length < LongestReply) line.Append(buffer[i]);
                        continue;
                    }
                    if (line.Length > 0) into.TryWrite(Reply.Of(line.ToString()));
                    line.Clear();
                    lines++;
                }
                if (lines <= MostLinesASecond && letters <= MostLettersASecond) continue;
                _floods = true;
                into.TryComplete();
                client.Dispose();
                return;
            }
        }
        catch (Exception gone) when (gone is IOException or SocketException or ObjectDisposedException or InvalidOperationException) { }
        into.TryComplete();
    }

    private async Task HangUpAsync()
    {
        _client?.Dispose();
        _client = null;
        await _reading;
    }

    public async ValueTask DisposeAsync()
    {
        await HangUpAsync();
        _turn.Dispose();
    }
}
