namespace MillCard.Core.Heat;

/// <summary>A heater's temperature over a run: its targets in order of time, between them the model.</summary>
public sealed class HeaterTrace
{
    private readonly List<(double At, double Target, double From)> _changes = [];

    /// <summary>Starts at the room's temperature, without power.</summary>
    public HeaterTrace(HeatModel model)
    {
        Model = model;
        _changes.Add((0, 0, model.Room));
    }

    /// <summary>The heater.</summary>
    public HeatModel Model { get; }

    /// <summary>The present target, °C; 0 is off.</summary>
    public double Target => _changes[^1].Target;

    /// <summary>Sets a target at a time no earlier than the last.</summary>
    public void Set(double at, double target) => _changes.Add((at, target, At(at)));

    /// <summary>Temperature at a time, °C.</summary>
    public double At(double time)
    {
        var (at, target, from) = LastChange(time);
        var elapsed = Math.Max(0, time - at);
        return target > from ? Math.Min(target, Model.Heated(from, elapsed))
            : Math.Max(Math.Max(target, Model.Room), Model.Cooled(from, elapsed));
    }

    /// <summary>Target at a time, °C; 0 is off.</summary>
    public double TargetAt(double time) => LastChange(time).Target;

    private (double At, double Target, double From) LastChange(double time) =>
        _changes[Math.Max(0, _changes.FindLastIndex(c => c.At <= time))];

    /// <summary>How long a wait for the present target takes from a time on, s; infinite where it never ends.</summary>
    /// <param name="now">When the wait begins, s.</param>
    /// <param name="coolsToo">Whether it waits while hotter, too.</param>
    public double Wait(double now, bool coolsToo)
    {
        var (target, from) = (Target, At(now));
        if (Math.Abs(from - target) <= HeatModel.WaitTolerance || from > target && !coolsToo) return 0;
        return Model.Time(from, from < target ? target - HeatModel.WaitTolerance : target + HeatModel.WaitTolerance);
    }

    /// <summary>How long it takes from a time on to pass a temperature with the present target, s; infinite where it never does.</summary>
    public double TimeTo(double now, double level)
    {
        var from = At(now);
        var target = Math.Max(Target, Model.Room);
        if (level == from) return 0;
        var rises = level > from;
        if (rises ? level > target + WaitTolerance : level < target - WaitTolerance) return double.PositiveInfinity;
        return Model.Time(from, rises ? Math.Min(level, target - 0.01) : Math.Max(level, target + 0.01));
    }

    /// <summary>Takes over temperature and target of another trace of the same heater.</summary>
    internal void GoOnFrom(HeaterTrace other, double at)
    {
        _changes.Clear();
        _changes.Add((at, other.Target, other.At(at)));
    }

    private const double WaitTolerance = HeatModel.WaitTolerance;
}
