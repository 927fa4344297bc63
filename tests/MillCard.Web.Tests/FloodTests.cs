using System.Net;
using System.Net.Sockets;
using System.Text;
using MillCard.Web.Lines;
using Xunit;

namespace MillCard.Web.Tests;

/// <summary>Tests that run alone, behind all others: they look at the memory of the whole process.</summary>
[CollectionDefinition(nameof(Alone), DisableParallelization = true)]
public sealed class Alone;

/// <summary>What a peer on the line may say without end.</summary>
[Collection(nameof(Alone))]
public sealed class FloodTests
{
    private static readonly TimeSpan Patience = TimeSpan.FromSeconds(30);
    private static readonly LinePatience Waiting = new(TimeSpan.FromMilliseconds(400), TimeSpan.FromMilliseconds(5), 5,
        TimeSpan.FromSeconds(60))
    { Off = TimeSpan.FromSeconds(2), Question = TimeSpan.FromSeconds(20) };

    [Fact]
    public async Task A_peer_that_floods_is_cut_off_and_one_that_says_nothing_is_given_up()
    {
        var memory = GC.GetTotalMemory(true);
        foreach (var (says, sentence) in new[] { ("x\n", "without end"), ("echo:busy: processing\n", "without end"),
            ("", "does not answer"), ("x", "without end") })
        {
            using var listener = new TcpListener(IPAddress.Loopback, 0);
            listener.Start();
            var flooding = Task.Run(async () =>
            {
                using var client = await listener.AcceptTcpClientAsync();
                var piece = Encoding.ASCII.GetBytes(string.Concat(Enumerable.Repeat(says, 5000)));
                try
                {
                    if (piece.Length == 0) await client.GetStream().ReadAtLeastAsync(new byte[1000], 1, throwOnEndOfStream: false);
                    else while (true) await client.GetStream().WriteAsync(piece);
                }
                catch (Exception gone) when (gone is IOException or SocketException) { }
                await Task.Delay(1500);
            });
            await using var line = new LineConnection("127.0.0.1", ((IPEndPoint)listener.LocalEndpoint).Port, Waiting, _ => { });
            var failure = await Assert.ThrowsAsync<LineFailedException>(() => line.AskAsync("M115", default).WaitAsync(Patience));
            Assert.True(failure.Message.Contains(sentence, StringComparison.Ordinal)
                || failure.Message.Contains("comes to no end", StringComparison.Ordinal), $"{says}: {failure.Message}");
            await line.DisposeAsync();
            await flooding.WaitAsync(Patience);
        }
        Assert.True(GC.GetTotalMemory(true) - memory < 50 << 20);
    }
}
