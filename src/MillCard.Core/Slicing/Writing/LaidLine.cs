using MillCard.Core.DryRun;
using MillCard.Core.Flow;
using MillCard.Core.Geometry;

namespace MillCard.Core.Slicing.Writing;

/// <summary>Where a line of plastic stands in the program.</summary>
/// <param name="From">Its first program line, counted from 0.</param>
/// <param name="To">The program line after its last.</param>
/// <param name="Acceleration">That holds for it, mm/s².</param>
internal readonly record struct LaidStretch(int From, int To, double Acceleration);

/// <summary>What the dry run says of how a line of plastic is laid.</summary>
/// <param name="Speed">Mean, mm/s.</param>
/// <param name="Flow">Mean, mm³/s.</param>
/// <param name="Temperature">Of its nozzle as it begins, °C.</param>
/// <param name="Fan">Share of the fan that cools parts as it begins.</param>
/// <param name="Acceleration">That is asked for, mm/s².</param>
public readonly record struct LaidFigures(float Speed, float Flow, float Temperature, float Fan, float Acceleration);

/// <summary>What the dry run says of a line of plastic and of the way to it.</summary>
/// <param name="Figures">How it is laid.</param>
/// <param name="Way">Corners of the way to its first point from where the line before it ended, bed frame; empty where it goes on
/// there.</param>
/// <param name="PulledBack">Whether filament was pulled back on that way.</param>
/// <param name="First">The program line with which it begins, counted from 1.</param>
/// <param name="Last">The program line with which it ends.</param>
public sealed record LaidLine(LaidFigures Figures, IReadOnlyList<Point> Way, bool PulledBack, int First, int Last)
{
    /// <summary>Of every line of a program, in the order in which they are laid.</summary>
    /// <param name="run">Its dry run.</param>
    /// <param name="laid">Where the lines stand.</param>
    /// <param name="by">What lays each of them.</param>
    /// <param name="frames">Of the machine.</param>
    internal static LaidLine[] Of(DryRunReport run, IReadOnlyList<LaidStretch> laid, IReadOnlyList<LaidBy> by, Frames frames)
    {
        var lines = new LaidLine[laid.Count];
        var moves = run.Moves;
        var (move, step, fan) = (0, 0, 0f);
        for (var i = 0; i < lines.Length; i++)
        {
            var (from, to, acceleration) = laid[i];
            var (ways, pulledBack) = (new List<Point>(), false);
            for (; move < moves.Length && moves[move].Line < from; move++)
            {
                pulledBack |= moves[move].Filament < 0;
                if (i == 0 || moves[move].Way == 0) continue;
                if (ways.Count == 0) ways.Add(Bed(moves[move].From));
                ways.Add(Bed(moves[move].To));
            }
            var (way, fed, seconds) = (0.0, 0.0, 0.0);
            for (var last = -1; move < moves.Length && moves[move].Line < to; move++)
            {
                if (!moves[move].Extrudes) continue;
                if (moves[move].Line != last) seconds += run.Seconds[last = moves[move].Line];
                (way, fed) = (way + moves[move].Way, fed + moves[move].Filament);
            }
            for (; step < run.FanSteps.Count && run.FanSteps[step].Line < to; step++)
                if (run.FanSteps[step].CoolsPart) fan = run.FanSteps[step].Share;
            var (nozzle, diameter) = by[i];
            lines[i] = new(new(seconds > 0 ? (float)(way / seconds) : 0,
                seconds > 0 ? (float)(fed * ExtrudedLine.FilamentArea(diameter) / seconds) : 0,
                from < run.Starts.Length ? (float)run.Nozzles[nozzle].At(run.Starts[from]) : 0, fan, (float)acceleration), ways,
                pulledBack, from + 1, to);
        }
        return lines;

        Point Bed(Spot spot) => frames.ToBed(new(spot.X, spot.Y));
    }
}

/// <summary>What lays a line.</summary>
/// <param name="Nozzle">Index of the nozzle.</param>
/// <param name="Diameter">Of the filament in it, mm.</param>
internal readonly record struct LaidBy(int Nozzle, double Diameter);
