using MillCard.Core.DryRun;
using MillCard.Core.Lines;
using Xunit;

namespace MillCard.Core.Tests;

public class LineTests
{
    // the checksum examples of the protocol: XOR of all bytes before the star
    [Theory]
    [InlineData(3, "T0", "N3 T0*57")]
    [InlineData(4, "G92 E0", "N4 G92 E0*67")]
    [InlineData(5, "G28", "N5 G28*22")]
    public void A_line_carries_its_number_and_checksum(int number, string command, string expected)
    {
        Assert.Equal(expected, LineFrame.Of(number, command));
        Assert.Equal((number, command, true), LineFrame.Read(expected));
        Assert.False(LineFrame.Read(expected.Replace(command[0], 'X')).Intact);
        Assert.False(LineFrame.Read(expected[..expected.IndexOf('*')]).Intact);
    }

    [Theory]
    [InlineData("ok", ReplyKind.Ok, -1)]
    [InlineData("ok T:210.0 /210.0 B:60.1 /60.0", ReplyKind.Ok, -1)]
    [InlineData("okay", ReplyKind.Text, -1)]
    [InlineData("Resend: 17", ReplyKind.Resend, 17)]
    [InlineData("rs N17", ReplyKind.Resend, 17)]
    [InlineData("echo:busy: processing", ReplyKind.Busy, -1)]
    [InlineData("Error:Heating failed", ReplyKind.Error, -1)]
    [InlineData("!! Unknown command", ReplyKind.Error, -1)]
    [InlineData("start", ReplyKind.Started, -1)]
    [InlineData("T:20.5 /0.0 B:19.8 /0.0 @:0", ReplyKind.Report, -1)]
    public void Answers_are_told_apart(string line, ReplyKind kind, long number) =>
        Assert.Equal((kind, number), (Reply.Of(line).Kind, Reply.Of(line).Number));

    [Fact]
    public void Temperatures_and_positions_are_read()
    {
        Assert.Equal(new LineTemperatures(210.5, 215, 60.1, 60) { HottestTarget = 215 },
            Reply.Of("ok T:210.5 /215.0 B:60.1 /60.0 @:127").Temperatures);
        Assert.Equal(new LinePosition(10, -5.5, 0.3), Reply.Of("X:10.00 Y:-5.50 Z:0.30 E:0.00 Count X:800").Position);
    }

    [Fact]
    public void A_refused_line_goes_out_again_and_a_lost_answer_does_not_double_it()
    {
        var sender = new Sender([(1, "G28"), (4, "G1 X5")]);
        Assert.Equal("N1 G28*18", sender.Next());
        Assert.Null(sender.Next());
        sender.Take(Reply.Of("Error:checksum mismatch, Last Line: 0"));
        sender.Take(Reply.Of("Resend: 1"));
        sender.Take(Reply.Of("ok"));
        Assert.Equal("N1 G28*18", sender.Next());
        sender.Repeat();
        Assert.Equal("N1 G28*18", sender.Next());
        sender.Take(Reply.Of("Resend: 2"));
        Assert.Equal(1, sender.Taken);
        sender.Take(Reply.Of("ok"));
        Assert.StartsWith("N2 G1 X5", sender.Next());
    }

    [Fact]
    public void Beside_a_printer_that_does_not_answer_nothing_is_being_sent()
    {
        var sender = new Sender([(1, "G28"), (4, "G1 X5")]);
        sender.Next();
        Assert.Equal(SendState.Sending, sender.Shown);
        sender.Repeat();
        Assert.Equal((SendState.Silent, SendState.Sending), (sender.Shown, sender.State));
        sender.Next();
        Assert.Equal(SendState.Silent, sender.Shown);
        sender.Take(Reply.Of("echo:busy: processing"));
        Assert.Equal(SendState.Sending, sender.Shown);
        sender.Unanswered();
        sender.Pause();
        Assert.Equal(SendState.Silent, sender.Shown);
        sender.Answered();
        Assert.Equal(SendState.Pausing, sender.Shown);
    }

    [Fact]
    public void A_request_that_was_not_heard_leads_back_a_few_lines_and_no_further()
    {
        var sender = new Sender([(1, "A"), (2, "B"), (3, "C")]);
        sender.Next();
        sender.Take(Reply.Of("ok"));
        sender.Next();
        sender.Take(Reply.Of("ok"));
        Assert.StartsWith("N3 C", sender.Next());
        sender.Take(Reply.Of("Resend: 2"));
        sender.Take(Reply.Of("ok"));
        Assert.StartsWith("N2 B", sender.Next());

        var far = new Sender([.. Enumerable.Range(1, 50).Select(i => (i, "G1"))]);
        for (var i = 0; i < 30; i++) { far.Next(); far.Take(Reply.Of("ok")); }
        for (var i = 0; i < 4; i++) { far.Next(); far.Take(Reply.Of("Resend: 1")); far.Take(Reply.Of("ok")); }
        Assert.Equal(SendState.Stopped, far.State);
        Assert.Contains("restarted", far.Message);
    }

    [Fact]
    public void A_printer_that_started_anew_stops_the_job_at_its_line()
    {
        var sender = new Sender([(1, "G28"), (7, "G1 X5")]);
        sender.Next();
        sender.Take(Reply.Of("ok"));
        sender.Next();
        sender.Take(Reply.Of("start"));
        Assert.Equal((SendState.Stopped, 7), (sender.State, sender.ErrorLine));
        Assert.Null(sender.Next());
    }

    [Fact]
    public void Comments_are_not_sent_and_a_star_cannot_break_the_checksum() =>
        Assert.Equal([(2, "G28"), (4, "M117 a+b")],
            LineFrame.CommandsOf(new Gcode.GcodeText("; head\nG28 ; home\n\nM117 a*b\n"u8.ToArray())));

    [Fact]
    public void A_live_machine_keeps_its_state_over_many_commands()
    {
        var machine = new LiveMachine(Cards.Dunlin.Machine());
        machine.Execute("G28");
        machine.Execute("M140 S60");
        for (var i = 0; i < 1500; i++) Assert.True(machine.Execute($"G1 X{i % 100} F6000").Known);
        Assert.Equal(99, machine.Position.X, 3);
        Assert.Equal(60, machine.BedTarget);
        Assert.True(machine.BedAt(machine.Clock) > 22);
        Assert.False(machine.Execute("M9999").Known);
        var before = machine.Clock;
        machine.Pass(100);
        Assert.Equal(100, machine.Clock - before, 6);
        Assert.True(double.IsInfinity(machine.Execute("M190 S140").Seconds));
    }
}
