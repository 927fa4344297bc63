using MillCard.Core.Documents;
using MillCard.Core.Machines;
using MillCard.Core.Meshes;
using MillCard.Core.Slicing;
using MillCard.Core.Slicing.Jobs;

namespace MillCard.Web.Hosting;

/// <summary>Slices a small leaning block once the server is up, behind everything else, so that the owner's first slice does not wait for
/// the code to be compiled.</summary>
internal sealed partial class WarmUp(IHostApplicationLifetime life, IConfiguration configuration, ILogger<WarmUp> log) : BackgroundService
{
    protected override async Task ExecuteAsync(CancellationToken stoppingToken)
    {
        if (configuration.GetValue<bool?>("WarmUp") == false) return;
        var up = new TaskCompletionSource();
        await using var started = life.ApplicationStarted.Register(up.SetResult);
        await up.Task.WaitAsync(stoppingToken);
        var thread = new Thread(() => Slice(stoppingToken)) { Priority = ThreadPriority.Lowest, IsBackground = true };
        thread.Start();
    }

    private void Slice(CancellationToken stop)
    {
        try
        {
            var mesh = Block.Of(24, 18, 8);
            var recipe = DocumentReader.Read<Recipe>(Examples.Of("recipe")).Document!;
            var part = new TrialPart { Name = "block", File = "block", X = 90, Y = 80, Tilt = new() { X = 20, Y = 10 } };
            Slicer.Slice(new SliceJob("block", Machine.Of(DocumentReader.Read<Card>(Examples.Of("card")).Document!),
                DocumentReader.Read<Filament>(Examples.Of("filament")).Document!,
                recipe with { Supports = new() { Pattern = SupportPattern.Crossed } },
                [new PartToSlice(part, mesh, new Footprints(Placement.Oriented(mesh, null, part.Tilt), stop))])
            { Threads = 1 }, null, stop);
        }
        catch (Exception failure) when (failure is not OutOfMemoryException)
        {
            // nobody waits for it: the first slice is slower, that is all
            if (failure is not OperationCanceledException) Failed(failure.GetBaseException().Message);
        }
    }

    [LoggerMessage(LogLevel.Warning, "Could not warm up: {Why}")]
    private partial void Failed(string why);
}
