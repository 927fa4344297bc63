using MillCard.Core.Documents;
using MillCard.Core.Machines;

namespace MillCard.Core.DryRun;

// Two carriages that move together: copy and mirror.
public sealed partial class SimulatedMachine
{
    private const int Copies = 2, Mirrors = 3;
    private int _carriageMode;
    private double _warmer;
    private double? _copyDistance;
    private SecondPart? _second;

    /// <summary>M605 S0 to S3 with X and R, or the mode by its name.</summary>
    private Effect CarriageMode(int line)
    {
        Settle(line);
        if (_extended is null)
        {
            if (_words['X'] is var distance && distance > 0) _copyDistance = distance * _unit;
            if (_words['R'] is var warmer && !double.IsNaN(warmer)) _warmer = warmer;
        }
        _carriageMode = _extended?.Text("MODE")?.ToUpperInvariant() switch
        {
            "COPY" => Copies,
            "MIRROR" => Mirrors,
            not null => 0,
            _ => _words['S'] is Copies or Mirrors ? (int)_words['S'] : 0,
        };
        _second = SecondOf(_carriageMode);
        if (_second is { } both && _run.Nozzles[_tool].Target is > 0 and var target)
            SetTarget(line, Heater.Nozzle, target + _warmer, both.Nozzle);
        return new Effect(EffectKind.CarriageMode, -1, _carriageMode);
    }

    /// <summary>Where the second carriage prints in a mode; null where it does not.</summary>
    private SecondPart? SecondOf(int mode)
    {
        if (mode == 0 || !_machine.HasTwoCarriages) return null;
        var use = new ModeUse { Kind = mode == Copies ? ModeKind.Copy : ModeKind.Mirror, Distance = _copyDistance };
        return ModePlan.Of(_machine, use, 0)?.Second;
    }

    /// <summary>The same move of the second carriage, where it goes along.</summary>
    private void GoAlong(in SimulatedMove move)
    {
        if (_second is not { } second || second.Nozzle == move.Tool) return;
        var along = move with { From = Along(second, move.From), To = Along(second, move.To), Tool = (byte)second.Nozzle };
        _run.SecondMoveList.Add(along);
        // between its ends the distance changes evenly, so that it is least at one of them
        var apart = Math.Min(along.From.X - move.From.X, along.To.X - move.To.X);
        if (apart < _run.LeastApart) (_run.LeastApart, _run.LeastApartAt) = (apart, along.Line);
        _run.FilamentOf[along.Tool] += along.Filament;
        if (along.Filament > 0 && !_run.FirstExtrusions[along.Tool].Comes) _run.FirstExtrusions[along.Tool] = Present(along.Line);
    }

    private Spot Along(SecondPart second, Spot spot)
    {
        var bed = second.Of(_machine.Frames.ToBed(new(spot.X, spot.Y)));
        var machine = _machine.Frames.ToMachine(bed);
        return new Spot((float)machine.X, (float)machine.Y, spot.Z);
    }
}
