using MillCard.Core.Documents;
using MillCard.Core.Flavours;

namespace MillCard.Core.DryRun;

// Limits, overrides and other settings that change how the rest of the program runs.
public sealed partial class SimulatedMachine
{
    private int _carriageMode;

    private Effect Setting(Meaning meaning)
    {
        switch (meaning)
        {
            case Meaning.LimitSpeed: return Limit(_limits.Speed, PerMinute(_flavour.SpeedLimitUnit));
            case Meaning.LimitAcceleration: return Limit(_limits.Acceleration, 1);
            case Meaning.VelocityLimit: return VelocityLimit();
            case Meaning.SetAcceleration: return SetAcceleration();
            case Meaning.SetCorner: return SetCorner(PerMinute(_flavour.CornerUnit));
            case Meaning.SetCornerSeconds: return SetCorner(1);
            case Meaning.SetJunction when _words['X'] is var deviation && deviation >= 0: (_limits.Corner, _limits.CornerValue) = (CornerKind.JunctionDeviation, deviation); break;
            case Meaning.SpeedOverride when _words['S'] is var share && share > 0: _speedShare = share / 100; break;
            case Meaning.FlowOverride when _words['S'] is var share && share > 0: _flowShare = share / 100; break;
            case Meaning.FirmwareRetractSet: return SetFirmwareRetraction();
        }
        return new Effect(EffectKind.Setting, -1, 0);
    }

    private Effect SetFirmwareRetraction()
    {
        var hasPriming = _machine.Card.Firmware.Flavour == FlavourId.RepRapFirmware;
        var length = _extended?.Number("RETRACT_LENGTH") ?? _words['S'];
        var pulling = _extended?.Number("RETRACT_SPEED") ?? _words['F'] / 60;
        var priming = _extended?.Number("UNRETRACT_SPEED") ?? (hasPriming ? _words['T'] / 60 : double.NaN);
        var more = _extended?.Number("UNRETRACT_EXTRA_LENGTH") ?? (hasPriming ? _words['R'] : double.NaN);
        if (length >= 0) _firmwareRetraction = length;
        if (pulling > 0) _pullingSpeed = pulling;
        if (pulling > 0 && _extended is null) _primingSpeed = pulling;
        if (priming > 0) _primingSpeed = priming;
        if (!double.IsNaN(more)) _primedMore = more;
        return new Effect(EffectKind.Setting, -1, 0);
    }

    private static double PerMinute(string unit) => unit == "mm/min" ? 1 / 60.0 : 1;

    private Effect CarriageMode()
    {
        _carriageMode = _extended?.Text("MODE")?.ToUpperInvariant() switch
        {
            "COPY" => 2,
            "MIRROR" => 3,
            not null => 0,
            _ => _words['S'] is 2 or 3 ? (int)_words['S'] : 0,
        };
        return new Effect(EffectKind.CarriageMode, -1, _carriageMode);
    }

    private Effect VelocityLimit()
    {
        var (speed, acceleration, corner) = (_extended?.Number("VELOCITY") ?? double.NaN, _extended?.Number("ACCEL") ?? double.NaN, _extended?.Number("SQUARE_CORNER_VELOCITY") ?? double.NaN);
        if (speed > 0) (_limits.Speed[0], _limits.Speed[1], _fastest) = (speed, speed, speed);
        if (acceleration > 0) (_limits.Printing, _limits.Travel) = (acceleration, acceleration);
        if (corner >= 0) (_limits.Corner, _limits.CornerValue) = (CornerKind.SquareCornerSpeed, corner);
        return new Effect(EffectKind.Setting, -1, 0);
    }

    private Effect Limit(double[] axes, double unit)
    {
        for (var axis = 0; axis < 4; axis++)
            if (_words["XYZE"[axis]] is var value && value > 0) axes[axis] = value * unit;
        return new Effect(EffectKind.Setting, -1, 0);
    }

    private Effect SetAcceleration()
    {
        var (p, t, r, s) = (_words['P'], _words['T'], _words['R'], _words['S']);
        // a dialect with one figure takes the smaller of the two
        if (_flavour.Extended && double.IsNaN(s) && p > 0 && t > 0) (s, p, t) = (Math.Min(p, t), double.NaN, double.NaN);
        if (s > 0) (_limits.Printing, _limits.Travel) = (s, s);
        if (p > 0) _limits.Printing = p;
        if (t > 0) _limits.Travel = t;
        if (r > 0) _limits.Retraction = r;
        return new Effect(EffectKind.Setting, -1, 0);
    }

    private Effect SetCorner(double unit)
    {
        if (_words['J'] is var deviation && deviation > 0) (_limits.Corner, _limits.CornerValue) = (CornerKind.JunctionDeviation, deviation);
        for (var axis = 0; axis < 4; axis++)
            if (_words["XYZE"[axis]] is var value && value > 0) (_limits.Jump[axis], _limits.Corner) = (value * unit, CornerKind.InstantSpeedChange);
        return new Effect(EffectKind.Setting, -1, 0);
    }
}
