using MillCard.Core.Documents;
using MillCard.Core.Flavours;
using MillCard.Core.Flow;

namespace MillCard.Core.DryRun;

// Limits, overrides and other settings that change how the rest of the program runs.
public sealed partial class SimulatedMachine
{
    private Effect Setting(Command command)
    {
        switch (command.Meaning)
        {
            case Meaning.LimitSpeed: return Limit(_limits.Speed, PerMinute(_flavour.SpeedLimitUnit));
            case Meaning.LimitAcceleration: return Limit(_limits.Acceleration, 1);
            case Meaning.VelocityLimit: return VelocityLimit();
            case Meaning.SetAcceleration: return SetAcceleration();
            case Meaning.SetCorner: return SetCorner(PerMinute(_flavour.CornerUnit));
            case Meaning.SetCornerSeconds: return SetCorner(1);
            case Meaning.SetJunction when _words['X'] is var deviation
                && deviation >= 0:
                (_limits.Corner, _limits.CornerValue) = (CornerKind.JunctionDeviation, deviation); break;
            case Meaning.SpeedOverride when _words['S'] is var share && share > 0: _speedShare = share / 100; break;
            case Meaning.FlowOverride when _words['S'] is var share && share > 0: _flowShare = share / 100; break;
            case Meaning.FirmwareRetractSet: return SetFirmwareRetraction(command);
            case Meaning.FirmwarePrimeSet: return SetFirmwarePriming();
            case Meaning.FilamentDiameter: return SetVolumetric();
            case Meaning.Geometry: return ProbeOffset(command);
        }
        return new Effect(EffectKind.Setting, -1, 0);
    }

    private Effect SetFirmwareRetraction(Command command)
    {
        var length = _extended?.Number("RETRACT_LENGTH") ?? _words['S'];
        var pulling = _extended?.Number("RETRACT_SPEED") ?? _words['F'] / 60;
        var priming = _extended?.Number("UNRETRACT_SPEED") ?? (command.Takes("T") ? _words['T'] / 60 : double.NaN);
        var more = _extended?.Number("UNRETRACT_EXTRA_LENGTH") ?? (command.Takes("R") ? _words['R'] : double.NaN);
        if (length >= 0) _firmwareRetraction = length;
        if (pulling > 0) _pullingSpeed = pulling;
        if (pulling > 0 && _extended is null && !_primesApart) _primingSpeed = pulling;
        if (priming > 0) _primingSpeed = priming;
        if (!double.IsNaN(more)) _primedMore = more;
        if (_extended is null && _words['Z'] is var lift && lift >= 0) _firmwareLift = lift * _unit;
        return new Effect(EffectKind.Setting, -1, 0);
    }

    private Effect SetFirmwarePriming()
    {
        if (_words['S'] is var more && !double.IsNaN(more)) _primedMore = more;
        if (_words['F'] is var speed && speed > 0) (_primingSpeed, _primesApart) = (speed / 60, true);
        return new Effect(EffectKind.Setting, -1, 0);
    }

    /// <summary>E words as volumes, mm³, of a filament of this diameter; 0 for lengths again.</summary>
    private Effect SetVolumetric()
    {
        var diameter = _words['D'];
        if (double.IsNaN(diameter)) return new Effect(EffectKind.Setting, -1, 0);
        var on = diameter > 0 && !(_words['S'] == 0);
        _volumes[ToolAsked()] = on ? ExtrudedLine.FilamentArea(diameter * _unit) : 1;
        return new Effect(EffectKind.Setting, -1, 0);
    }

    /// <summary>Where the firmware is told that the probe answers: the next homing of Z by it puts the nozzle higher or lower than the
    /// card's own figure.</summary>
    private Effect ProbeOffset(Command command)
    {
        var told = command.Word switch { "M851" => _words['Z'], "G31" => -_words['Z'], _ => double.NaN };
        var homesByProbe = _machine.Card.Motion.Axes.Z?.HomesUp != true && _machine.Card.Motion.Layout != MotionLayout.Delta;
        if (!double.IsNaN(told) && homesByProbe && _machine.Card.Head.Probe is { Kind: not (null or ProbeKind.None), Z: { } known })
            _probeShift = told * _unit - known;
        return new Effect(EffectKind.Setting, -1, 0);
    }

    private static double PerMinute(string unit) => unit == "mm/min" ? 1 / 60.0 : 1;

    private Effect VelocityLimit()
    {
        var (speed, acceleration, corner) = (_extended?.Number("VELOCITY") ?? double.NaN, _extended?.Number("ACCEL")
            ?? double.NaN, _extended?.Number("SQUARE_CORNER_VELOCITY") ?? double.NaN);
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
        // a dialect with one figure takes the smaller of the two; of one alone it makes nothing
        if (_flavour.Extended) (s, p, t) = (double.IsNaN(s) && p > 0 && t > 0 ? Math.Min(p, t) : s, double.NaN, double.NaN);
        if (s > 0) (_limits.Printing, _limits.Travel) = (s, s);
        if (p > 0) _limits.Printing = p;
        if (t > 0) _limits.Travel = t;
        if (r > 0) _limits.Retraction = r;
        return new Effect(EffectKind.Setting, -1, 0);
    }

    private Effect SetCorner(double unit)
    {
        if (_words['J'] is var deviation && deviation > 0)
            (_limits.Corner, _limits.CornerValue) = (CornerKind.JunctionDeviation, deviation);
        for (var axis = 0; axis < 4; axis++)
            if (_words["XYZE"[axis]] is var value && value > 0)
                (_limits.Jump[axis], _limits.Corner) = (value * unit, CornerKind.InstantSpeedChange);
        return new Effect(EffectKind.Setting, -1, 0);
    }
}
