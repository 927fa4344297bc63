using System.Diagnostics;
using MillCard.Core.Documents;
using MillCard.Core.Geometry;
using MillCard.Core.Machines;
using MillCard.Core.Meshes;
using MillCard.Core.Slicing;
using MillCard.Core.Slicing.Jobs;

namespace MillCard.Web.Hosting;

/// <summary>Slices small leaning blocks and a round once the server is up, then the trials that were worked on last, behind everything
/// else, so that the owner's first slice does not wait for the code to be compiled.</summary>
internal sealed partial class WarmUp(IHostApplicationLifetime life, IConfiguration configuration, Rehearsal rehearsal,
    ILogger<WarmUp> log) : BackgroundService
{
    private const int Rounds = 4;

    protected override async Task ExecuteAsync(CancellationToken stoppingToken)
    {
        if (configuration.GetValue<bool?>("WarmUp") == false) return;
        var up = new TaskCompletionSource();
        await using var started = life.ApplicationStarted.Register(up.SetResult);
        await up.Task.WaitAsync(stoppingToken);
        var clock = Stopwatch.StartNew();
        try
        {
            await Task.Factory.StartNew(() => Slice(stoppingToken), stoppingToken, TaskCreationOptions.LongRunning, TaskScheduler.Default);
            var sliced = await rehearsal.AllAsync(stoppingToken);
            Warm(clock.Elapsed.TotalSeconds, sliced);
        }
        catch (Exception failure) when (failure is not (OperationCanceledException or OutOfMemoryException))
        {
            // nobody waits for it: the first slice is slower, that is all
            Failed(failure.GetBaseException().Message);
        }
    }

    private static void Slice(CancellationToken stop)
    {
        var recipe = DocumentReader.Read<Recipe>(Examples.Of("recipe")).Document! with
        {
            Supports = new() { Pattern = SupportPattern.Crossed },
        };
        var card = DocumentReader.Read<Card>(Examples.Of("card")).Document!;
        var machine = Machine.Of(card with { Envelope = card.Envelope with { KeepOuts = [] } });
        var filament = DocumentReader.Read<Filament>(Examples.Of("filament")).Document!;
        // the runtime compiles for good what has run some thirty times
        for (var round = 0; round < Rounds; round++)
            foreach (var sequence in new[] { Sequence.AllAtOnce, Sequence.OneAtATime })
            {
                var sliced = Slicer.Slice(new SliceJob("warm-up", machine, filament, recipe,
                    [Part(Block.Of(24, 1, 8), 25, stop), Part(Block.Of(24, 18, 8), 70, stop), Part(Round(), 135, stop)])
                { Sequence = sequence, Threads = 1 }, null, stop);
                if (!sliced.Sliced) throw new InvalidOperationException(sliced.Findings[0].Message);
            }
    }

    private static Mesh Round() => Prism.Of(Shapes.Ellipse(0, 0, 9, 9, Side.Inside), 8);

    private static PartToSlice Part(Mesh mesh, double x, CancellationToken stop)
    {
        var part = new TrialPart { Name = "block", File = "block", X = x, Y = 80, Tilt = new() { X = 20, Y = 10 } };
        return new PartToSlice(part, mesh, Stance.Of(part).Stood(mesh, stop));
    }

    [LoggerMessage(LogLevel.Information, "Warm after {Seconds:0.0} s, {Trials} trials sliced")]
    private partial void Warm(double seconds, int trials);

    [LoggerMessage(LogLevel.Warning, "Could not warm up: {Why}")]
    private partial void Failed(string why);
}
