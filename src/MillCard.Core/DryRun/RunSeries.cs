namespace MillCard.Core.DryRun;

/// <summary>What a run shows over time, at even steps: temperatures °C, fan as a share, speed mm/s, flow as mm of filament a
/// second.</summary>
public sealed record RunSeries(
    double[] Seconds, double[] Nozzle, double[] NozzleTarget, double[]? Bed, double[]? BedTarget, double[]? Chamber, double[] Fan,
        double[] Speed, double[] Feed)
{
    /// <summary>Samples a run.</summary>
    /// <param name="run">The run.</param>
    /// <param name="from">First moment, s.</param>
    /// <param name="to">Last moment, s.</param>
    /// <param name="points">How many.</param>
    /// <param name="tool">Which nozzle.</param>
    public static RunSeries Of(DryRunReport run, double from, double to, int points, int tool = 0)
    {
        double[] seconds = [.. Enumerable.Range(0, points).Select(i => from + (to - from) * i / Math.Max(1, points - 1))];
        double[] Sample(Func<double, double> at) => [.. seconds.Select(s => Math.Round(at(s), 2))];
        var nozzle = run.Nozzles[tool];
        var (speed, feed) = MovesOver(run, seconds);
        return new RunSeries(seconds, Sample(nozzle.At), Sample(nozzle.TargetAt), run.Bed is { } bed ? Sample(bed.At)
            : null, run.Bed is { } b ? Sample(b.TargetAt) : null,
            run.Chamber is { } chamber ? Sample(chamber.At) : null, FanOver(run, seconds), speed, feed);
    }

    private static double[] FanOver(DryRunReport run, double[] seconds)
    {
        var shares = new double[seconds.Length];
        var (step, share) = (0, 0f);
        for (var i = 0; i < seconds.Length; i++)
        {
            for (; step < run.FanSteps.Count && run.Starts[run.FanSteps[step].Line] <= seconds[i]; step++)
                if (run.FanSteps[step].CoolsPart) share = run.FanSteps[step].Share;
            shares[i] = share;
        }
        return shares;
    }

    /// <summary>Mean speed of the line that runs at each moment: its way over its time.</summary>
    private static (double[] Speed, double[] Feed) MovesOver(DryRunReport run, double[] seconds)
    {
        var (speed, feed) = (new double[seconds.Length], new double[seconds.Length]);
        for (var i = 0; i < seconds.Length; i++)
        {
            var line = run.LineAt(seconds[i]);
            if (line >= run.Seconds.Length || run.Seconds[line] <= 0 || run.EffectList[line].Kind != EffectKind.Move) continue;
            var (way, fed) = (0.0, 0.0);
            var moves = run.Moves;
            for (var k = run.EffectList[line].First; k >= 0 && k < moves.Length && moves[k].Line == line; k++)
            {
                var (a, b) = (moves[k].From, moves[k].To);
                way += Math.Sqrt((b.X - a.X) * (b.X - a.X) + (b.Y - a.Y) * (b.Y - a.Y) + (b.Z - a.Z) * (b.Z - a.Z));
                fed += moves[k].Filament;
            }
            (speed[i], feed[i]) = (Math.Round(way / run.Seconds[line], 2), Math.Round(fed / run.Seconds[line], 3));
        }
        return (speed, feed);
    }
}
