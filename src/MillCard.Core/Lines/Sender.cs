namespace MillCard.Core.Lines;

/// <summary>How a job on the line stands.</summary>
public enum SendState
{
    /// <summary>Lines go out.</summary>
    Sending,
    /// <summary>The printer has been silent for longer than it may be; the line that is out goes out again.</summary>
    Silent,
    /// <summary>To be held as soon as the line that is out has ended.</summary>
    Pausing,
    /// <summary>Held by its owner.</summary>
    Paused,
    /// <summary>All lines were taken.</summary>
    Done,
    /// <summary>Ended before its end; the message says why.</summary>
    Stopped,
}

/// <summary>Sends a job line by line, one line in flight; no sockets and no clock in it.</summary>
/// <remarks>
/// Every line carries its number, so that the printer refuses whatever is not the next one. A line is counted as taken when the printer
/// says ok to it, or asks for the one behind it. A job never goes on at another line than the printer asks for.
/// </remarks>
public sealed class Sender
{
    /// <summary>So many repeats of one line in a row are borne.</summary>
    public const int MostRepeats = 25;

    private readonly IReadOnlyList<(int Line, string Command)> _commands;
    private const int MostStrange = 3, FurthestBack = 5;
    private int _repeats, _strange;
    private bool _waiting, _ignoreOk, _silent;

    /// <summary>A job at its begin.</summary>
    /// <param name="commands">Commands with the lines of the program they stand on, counted from 1.</param>
    public Sender(IReadOnlyList<(int Line, string Command)> commands)
    {
        // a question at the end, so that the last line is known to be taken and not only its answer misheard
        _commands = commands.Count == 0 ? [] : [.. commands, (commands[^1].Line, "M105")];
        if (commands.Count == 0) State = SendState.Done;
    }

    /// <summary>How it stands for somebody who looks on: nothing is being sent beside a printer that does not answer.</summary>
    public SendState Shown => _silent && State is (SendState.Sending or SendState.Pausing) ? SendState.Silent : State;
    /// <summary>How it stands.</summary>
    public SendState State { get; private set; } = SendState.Sending;
    /// <summary>Commands that the printer has taken.</summary>
    public int Taken { get; private set; }
    /// <summary>Number of commands, the closing question counted.</summary>
    public int Count => _commands.Count;
    /// <summary>Whether a line is out and not answered yet.</summary>
    public bool Waiting => _waiting;
    /// <summary>Why it was stopped, or what was last survived; null for nothing.</summary>
    public string? Message { get; private set; }
    /// <summary>Line of the program that provoked an error, counted from 1; null for none.</summary>
    public int? ErrorLine { get; private set; }
    /// <summary>The program's line that goes out next or is out, counted from 1.</summary>
    public int Line => _commands.Count == 0 ? 0 : _commands[Math.Min(Taken, _commands.Count - 1)].Line;

    /// <summary>What sets the printer's count, to be sent before the first line.</summary>
    public static string Reset { get; } = LineFrame.Of(0, "M110 N0");

    /// <summary>The line to be sent now; null where there is none: one is out, or the job is held or over.</summary>
    /// <remarks>While it is to be held, only the line that was out already goes out again.</remarks>
    public string? Next()
    {
        if (State is not (SendState.Sending or SendState.Pausing) || _waiting) return null;
        _waiting = true;
        return LineFrame.Of(Taken + 1, _commands[Taken].Command);
    }

    /// <summary>Takes an answer in.</summary>
    public void Take(Reply reply)
    {
        _silent = false;
        switch (reply.Kind)
        {
            case ReplyKind.Ok when _waiting:
                // behind a resend request comes an ok that belongs to the refused line
                if (_ignoreOk) { _ignoreOk = false; _waiting = false; return; }
                Advance();
                break;
            case ReplyKind.Resend: Again(reply.Number); break;
            case ReplyKind.Error when !AsksAgain(reply.Text):
                Stop($"The printer stopped the job: {reply.Text}", Line);
                break;
            case ReplyKind.Started when Taken > 0
                || _waiting:
                Stop("The printer started anew in the middle of the job. What stood in its memory is gone; begin again.",
                Line); break;
        }
    }

    /// <summary>Nothing came for too long, or the connection is there again: the line that is out goes out once more, under its
    /// number.</summary>
    public void Repeat()
    {
        _silent = true;
        if (State is not (SendState.Sending or SendState.Pausing or SendState.Paused) || !_waiting) return;
        if (++_repeats > MostRepeats) { Stop($"The printer does not answer to line {Line}.", Line); return; }
        (_waiting, _ignoreOk) = (false, false);
        Message = $"Line {Line} was sent again: no answer came.";
    }

    /// <summary>Nothing came for too long before the first line went out.</summary>
    public void Unanswered() => _silent = true;

    /// <summary>The printer is heard again.</summary>
    public void Answered() => _silent = false;

    /// <summary>Holds it behind the line that is out.</summary>
    public void Pause()
    {
        if (State == SendState.Sending) State = _waiting ? SendState.Pausing : SendState.Paused;
    }

    /// <summary>Goes on.</summary>
    public void Resume()
    {
        if (State is SendState.Paused or SendState.Pausing) State = SendState.Sending;
    }

    /// <summary>Ends it.</summary>
    public void Stop(string why, int? errorLine = null)
    {
        if (State is SendState.Done or SendState.Stopped) return;
        (State, Message, ErrorLine) = (SendState.Stopped, why, errorLine);
    }

    /// <summary>Whether an error only announces that a line is wanted again; noise may have spoilt a letter of it.</summary>
    private static bool AsksAgain(string text) =>
        text.Contains("Last Line", StringComparison.OrdinalIgnoreCase) || text.Contains("Line Number", StringComparison.OrdinalIgnoreCase)
            || text.Contains("checksum", StringComparison.OrdinalIgnoreCase);

    private void Advance()
    {
        (_waiting, _ignoreOk, _repeats, _strange) = (false, false, 0, 0);
        if (++Taken == _commands.Count && State is (SendState.Sending or SendState.Pausing or SendState.Paused)) State = SendState.Done;
        else if (State == SendState.Pausing) State = SendState.Paused;
    }

    private void Again(long number)
    {
        if (State is SendState.Done or SendState.Stopped) return;
        // it asks for the line behind the one that is out: that one was taken, its ok was lost
        if (_waiting && number == Taken + 2) { Advance(); _ignoreOk = false; return; }
        // a garbled number asks for nothing that can be; the printer asks again when the next line comes
        if (!_waiting || number > Taken + 2 || number < 1) return;
        _ignoreOk = true;
        if (++_repeats > MostRepeats)
        { Stop($"The printer asked for line {Line} {MostRepeats} times; the line is too noisy.", Line); return; }
        if (number == Taken + 1) { Message = $"Line {Line} was sent again: the printer asked for it."; return; }
        // its asking was not heard once or twice, and the ok behind it taken for that line's: the printer's count is the true one
        if (number <= Taken && number > Taken - FurthestBack)
        { Taken = (int)number - 1; Message = $"Line {Line} was sent again: the printer asked for it."; return; }
        if (++_strange > MostStrange) Stop(
            $"The printer asks for its line {number} and has taken {Taken} already: it was restarted or counts otherwise.", Line);
    }
}
