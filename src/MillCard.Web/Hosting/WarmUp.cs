using System.Diagnostics;
using MillCard.Core.Documents;
using MillCard.Core.Geometry;
using MillCard.Core.Machines;
using MillCard.Core.Meshes;
using MillCard.Core.Slicing;
using MillCard.Core.Slicing.Jobs;

namespace MillCard.Web.Hosting;

/// <summary>Slices small leaning blocks and a round while the server comes up, and once it is up the trials that were worked on last,
/// behind everything else, so that the owner's first slice does not wait for the code to be compiled.</summary>
internal sealed partial class WarmUp(IHostApplicationLifetime life, IConfiguration configuration, Rehearsal rehearsal,
    ILogger<WarmUp> log) : BackgroundService
{
    private Task? _blocks;

    // a server without a database is asked for the API's description only
    private bool Wanted => configuration.GetValue("WarmUp", true) && configuration.GetConnectionString("MillCard") is not null;

    /// <summary>Slices the solids, once: begun before the host is, the code is compiled while the database comes up.</summary>
    /// <returns>Ends when they are sliced, or at once where nothing is to be warmed.</returns>
    public Task Begin(CancellationToken stop) => _blocks ??= Wanted
        ? Task.Factory.StartNew(() => Slice(stop), stop, TaskCreationOptions.LongRunning, TaskScheduler.Default)
        : Task.CompletedTask;

    protected override async Task ExecuteAsync(CancellationToken stoppingToken)
    {
        if (!Wanted) return;
        var up = new TaskCompletionSource();
        await using var started = life.ApplicationStarted.Register(up.SetResult);
        await up.Task.WaitAsync(stoppingToken);
        var clock = Stopwatch.StartNew();
        try
        {
            await Begin(stoppingToken);
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
        foreach (var sequence in new[] { Sequence.AllAtOnce, Sequence.OneAtATime })
        {
            var sliced = Slicer.Slice(new SliceJob("warm-up", machine, filament, recipe,
                [Part(Block.Of(8, 1, 4), 25, stop), Part(Block.Of(8, 8, 4), 70, stop), Part(Round(), 135, stop)])
            { Sequence = sequence, Threads = 1 }, null, stop);
            if (!sliced.Sliced) throw new InvalidOperationException(sliced.Findings[0].Message);
        }
    }

    private static Mesh Round() => Prism.Of(Shapes.Ellipse(0, 0, 4, 4, Side.Inside), 4);

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
