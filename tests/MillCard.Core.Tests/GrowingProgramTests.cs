using System.Text;
using CsCheck;
using MillCard.Core.Documents;
using MillCard.Core.DryRun;
using MillCard.Core.Gcode;
using MillCard.Core.Machines;
using MillCard.Core.Meshes;
using Xunit;

namespace MillCard.Core.Tests;

/// <summary>Programs that are run while they are written.</summary>
public sealed class GrowingProgramTests
{
    private const string Program = """
        G28
        M104 S210
        M190 S60
        M109 S210
        G1 X10 Y10 Z0.2 F6000
        G1 X60 E3 F1200

        ; a remark
        M106 S255
        G1 Y60 E6
        G1 X10 E9
        M900 K0.05
        X1
        G92 E0
        G1 Y10 E2
        M107
        M104 S0
        M84
        """;

    private static Machine On(FlavourId flavour) =>
        (Cards.Bare() with { Firmware = Cards.Dunlin.Firmware with { Flavour = flavour } }).Machine();

    // every piece ends with a line; a dialect with conditions waits for all of it
    [Fact]
    public void A_program_is_run_in_pieces_as_it_is_run_whole() => Gen.Select(Gen.Enum<FlavourId>(),
        Gen.Int[1, 5].Array[1, 20], Gen.Int[1, 300], Gen.Bool).Sample((flavour, sizes, times, returns) =>
        {
            var lines = Enumerable.Repeat(Program, times).SelectMany(p => p.Split('\n'));
            var bytes = Encoding.UTF8.GetBytes(string.Concat(lines.Select(line => line + (returns ? "\r\n" : "\n"))));
            var whole = SimulatedMachine.Run(On(flavour), bytes);
            var growing = SimulatedMachine.Run(On(flavour), Pieces(bytes, sizes), [], default);
            Assert.Equal(whole.Text.Count, growing.Text.Count);
            Assert.Equal(whole.Starts, growing.Starts);
            Assert.Equal(whole.Seconds, growing.Seconds);
            Assert.Equal(whole.TotalSeconds, growing.TotalSeconds);
            Assert.Equal(whole.Moves.ToArray(), growing.Moves.ToArray());
            Assert.Equal(whole.Waits, growing.Waits);
            Assert.Equal(whole.Unknown, growing.Unknown);
            Assert.Equal(whole.End, growing.End);
        }, iter: 60);

    private static IEnumerable<ReadOnlyMemory<byte>> Pieces(byte[] bytes, int[] sizes)
    {
        var (at, next) = (0, 0);
        while (at < bytes.Length)
        {
            for (var left = sizes[next++ % sizes.Length]; left > 0 && at < bytes.Length; left--)
                at = Array.IndexOf(bytes, (byte)'\n', at) + 1;
            yield return bytes.AsMemory(0, at);
        }
    }

    [Fact]
    public void Other_first_lines_stand_before_the_same_text() => Gen.Select(Gen.String["ab\n"], Gen.Int[0, 4],
        Gen.String["xyz"].Array[4], Gen.String["uvwu"].Array[4]).Sample((text, count, before, after) =>
        {
            static byte[] Bytes(IEnumerable<string> lines, string text) =>
                Encoding.UTF8.GetBytes(string.Concat(lines.Select(line => line + "\n")) + text);
            var (old, head) = (Bytes(before.Take(count), text), Bytes(after.Take(count), ""));
            var begun = new GcodeText(old).BegunBy(old.Length - text.Length, head);
            var expected = new GcodeText(Bytes(after.Take(count), text));
            Assert.Equal(expected.Bytes, begun.Bytes);
            Assert.Equal(Enumerable.Range(0, expected.Count).Select(expected.Text), Enumerable.Range(0, begun.Count).Select(begun.Text));
        });

    [Fact]
    public void Other_first_lines_are_as_many() =>
        Assert.Throws<ArgumentException>(() => new GcodeText("a\nb\nc"u8.ToArray()).BegunBy(4, "one\n"u8.ToArray()));

    // nobody waits for whom nobody lets begin
    [Fact]
    public async Task A_job_that_has_one_thread_alone_comes_to_its_end()
    {
        var alone = new ConcurrentExclusiveSchedulerPair().ExclusiveScheduler;
        var sliced = await Task.Factory.StartNew(() => Engine.Slice(Block.Of(10, 10, 2), Engine.Plain), default, TaskCreationOptions.None,
            alone).WaitAsync(TimeSpan.FromMinutes(1), TestContext.Current.CancellationToken);
        Assert.Equal(Engine.Slice(Block.Of(10, 10, 2), Engine.Plain).Gcode, sliced.Gcode);
    }
}
