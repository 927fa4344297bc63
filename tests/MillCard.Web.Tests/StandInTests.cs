using System.Text;
using MillCard.Core.Documents;
using MillCard.Core.Gcode;
using MillCard.Core.Lines;
using MillCard.StandIn;
using MillCard.Web.Lines;
using Xunit;

namespace MillCard.Web.Tests;

/// <summary>Jobs on a line to the stand-in, under every fault: what was executed is the file, or the job stopped with a sentence.</summary>
public class StandInTests
{
    private static readonly LinePatience Short = new(TimeSpan.FromMilliseconds(150), TimeSpan.FromMilliseconds(5), 20,
        TimeSpan.FromSeconds(60));
    private static readonly Card Dunlin = DocumentReader.Read<Card>(Examples.Of("card")).Document!;

    private static IReadOnlyList<(int Line, string Command)> Job(int lines)
    {
        var text = new StringBuilder("; a job\nG28\n");
        for (var i = 0; i < lines; i++) text.Append(System.Globalization.CultureInfo.InvariantCulture,
            $"G1 X{i % 170} Y{i * 7 % 150} Z{1 + i / 1000.0:0.###} F6000\n");
        return LineFrame.CommandsOf(new GcodeText(Encoding.UTF8.GetBytes(text.ToString())));
    }

    private static async Task<(Sender Sender, List<string> Executed)> RunAsync(Faults faults, int lines, int seed = 1)
    {
        await using var printer = StandInPrinter.Start(Dunlin, speed: double.PositiveInfinity, keep: true, seed: seed);
        printer.Faults = faults;
        await using var line = new LineConnection("127.0.0.1", printer.Port, Short, _ => { });
        var sender = new Sender(Job(lines));
        using var limit = new CancellationTokenSource(TimeSpan.FromSeconds(120));
        await line.RunAsync(sender, () => { }, limit.Token);
        return (sender, printer.Executed!);
    }

    public static TheoryData<string, double, bool> Survivable => new()
    {
        { "NONE", 0, true },
        { "NOISE", 0.01, true },
        { "LOST_REPLY", 0.003, true },
        { "WRONG_CHECKSUM", 0.02, true },
        { "DROP", 0.003, true },
        { "SILENCE", 5000, false },
        { "RESTART", 5000, false },
    };

    [Theory, MemberData(nameof(Survivable))]
    public async Task Ten_thousand_lines_arrive_in_order_or_the_job_stops_with_a_sentence(string fault, double value, bool survives)
    {
        var (sender, executed) = await RunAsync(new Faults().With(fault, value)!, 10_000);
        var wanted = Job(10_000).Select(c => c.Command).ToArray();
        if (survives)
        {
            Assert.True(sender.State == SendState.Done, sender.Message);
            Assert.Equal(wanted, executed);
            return;
        }
        Assert.Equal(SendState.Stopped, sender.State);
        Assert.NotEmpty(sender.Message!);
        Assert.True(sender.ErrorLine > 0);
        Assert.Equal(wanted.Take(executed.Count), executed);
    }

    [Fact]
    public async Task All_faults_together_never_execute_a_line_twice_or_out_of_order()
    {
        for (var seed = 1; seed <= 4; seed++)
        {
            var (sender, executed) = await RunAsync(new Faults { Noise = 0.01, LostReply = 0.01, WrongChecksum = 0.01, Drop = 0.005 }, 500,
                seed);
            Assert.True(sender.State is SendState.Done or SendState.Stopped);
            Assert.Equal(Job(500).Select(c => c.Command).Take(executed.Count), executed);
            if (sender.State == SendState.Done) Assert.Equal(501, executed.Count);
        }
    }

    [Fact]
    public async Task A_dead_heater_is_shown_at_the_line_that_provoked_it()
    {
        await using var printer = StandInPrinter.Start(Dunlin, speed: double.PositiveInfinity);
        printer.Faults = new Faults { DeadHeater = true };
        await using var line = new LineConnection("127.0.0.1", printer.Port, Short, _ => { });
        var sender = new Sender([(3, "G28"), (9, "M109 S210"), (10, "G1 X5")]);
        await line.RunAsync(sender, () => { }, default);
        Assert.Equal((SendState.Stopped, 9), (sender.State, sender.ErrorLine));
        Assert.Contains("Heating failed", sender.Message);
    }

    [Fact]
    public async Task Real_time_takes_its_time()
    {
        await using var slow = StandInPrinter.Start(Dunlin, speed: 200);
        await using var fast = StandInPrinter.Start(Dunlin, speed: 200_000);
        var patient = Short with { Answer = TimeSpan.FromSeconds(60) };
        await using var toSlow = new LineConnection("127.0.0.1", slow.Port, patient, _ => { });
        await using var toFast = new LineConnection("127.0.0.1", fast.Port, patient, _ => { });
        await Task.WhenAll(toSlow.AskAsync("M115", default), toFast.AskAsync("M115", default));
        var (late, early) = (toSlow.AskAsync("G4 S600", default), toFast.AskAsync("G4 S600", default));
        Assert.Same(early, await Task.WhenAny(late, early));
        await late;
    }

    [Fact]
    public async Task A_printer_that_is_not_there_is_said_in_a_sentence()
    {
        await using var line = new LineConnection("127.0.0.1", 1, Short, _ => { });
        var failure = await Assert.ThrowsAsync<LineFailedException>(() => line.AskAsync("M115", default));
        Assert.Contains("Nothing answers at 127.0.0.1:1", failure.Message);
    }
}
