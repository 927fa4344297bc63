using MillCard.Core.Documents;
using MillCard.Core.Gcode;
using MillCard.Core.Machines;

namespace MillCard.Core.Slicing.Writing;

/// <summary>The head as a program has moved it; every move is written as it is made.</summary>
internal sealed class WrittenHead(Machine machine, GcodeWriter to)
{
    private static readonly Point Nowhere = new(double.NaN, double.NaN);

    private readonly bool _writesOffsets = machine.Card.Head.Offsets?.Gcode == true;
    private readonly double[] _pulledBack = new double[machine.Nozzles.Count];
    private double _fed, _feed = -1;

    /// <summary>Whether filament is written as distances, not as positions.</summary>
    public bool IsRelative { get; } = machine.Card.Firmware.Extrusion == ExtrusionMode.Relative;

    /// <summary>Index of the nozzle in use.</summary>
    public int Nozzle { get; set; }

    /// <summary>Where the nozzle is, mm, bed frame; not a number where that is not known.</summary>
    public Point Here { get; private set; } = Nowhere;

    /// <summary>Height of the tip, mm; not a number where it is not known.</summary>
    public double Z { get; private set; } = double.NaN;

    /// <summary>Whether it is known where the nozzle is.</summary>
    public bool IsPlaced => !double.IsNaN(Here.X);

    /// <summary>How far the filament of the nozzle in use is pulled back, mm.</summary>
    public double PulledBack { get => _pulledBack[Nozzle]; set => _pulledBack[Nozzle] = value; }

    /// <summary>Somebody else's code ran: place, height and speed are no longer known.</summary>
    public void Forget() => (_feed, Z, Here) = (-1, double.NaN, Nowhere);

    /// <summary>Counts filament from nothing again.</summary>
    public void ResetFilament()
    {
        if (IsRelative) return;
        to.Line("G92 E0");
        _fed = 0;
    }

    /// <summary>Lays a straight line.</summary>
    /// <param name="end">mm, bed frame.</param>
    /// <param name="perMm">mm of filament a mm; 0 for a way over what was laid just now.</param>
    /// <param name="speed">mm/s.</param>
    /// <param name="z">Height at its end, mm; null where it stays.</param>
    public void Lay(Point end, double perMm, double speed, double? z = null)
    {
        Begin("G1", end);
        if (z is { } height) Height(height);
        if (perMm != 0) Fed(Here.To(end) * perMm);
        Finish(speed);
        Here = end;
    }

    /// <summary>Lays an arc.</summary>
    /// <param name="end">mm, bed frame.</param>
    /// <param name="arc">From where the nozzle is.</param>
    /// <param name="perMm">mm of filament a mm.</param>
    /// <param name="speed">mm/s.</param>
    public void Lay(Point end, Arcs.Arc arc, double perMm, double speed)
    {
        var from = Here;
        Begin(arc.Sweep > 0 ? "G3" : "G2", end);
        to.Word('I', arc.Centre.X - from.X).Word('J', arc.Centre.Y - from.Y);
        Fed(arc.Length * perMm);
        Finish(speed);
        Here = end;
    }

    /// <summary>Goes straight to a place without laying.</summary>
    public void Go(Point end, double speed)
    {
        Begin("G0", end);
        Finish(speed);
        Here = end;
    }

    /// <summary>Goes to a height at the speed of Z.</summary>
    public void Rise(double z)
    {
        to.Command("G0");
        Height(z);
        Finish(machine.Card.Motion.Axes.Z?.MaxSpeed ?? 10);
    }

    /// <summary>Feeds filament, or pulls it back, on the spot.</summary>
    /// <param name="length">mm.</param>
    /// <param name="speed">mm/s.</param>
    public void Push(double length, double speed)
    {
        to.Command("G1");
        Fed(length);
        Finish(speed);
    }

    /// <summary>Pulls back on the way along points, evenly.</summary>
    /// <param name="way">mm, bed frame.</param>
    /// <param name="length">mm of filament.</param>
    /// <param name="drive">Speed of the filament, mm/s.</param>
    /// <param name="fastest">Speed of the way at most, mm/s.</param>
    public void PullBack(IReadOnlyList<Point> way, double length, double drive, double fastest)
    {
        var (whole, from) = (0.0, Here);
        foreach (var point in way) { whole += from.To(point); from = point; }
        // as slow as the drive needs for its share
        foreach (var point in way) Lay(point, -length / whole, Math.Min(fastest, drive * whole / length));
    }

    private void Begin(string command, Point end)
    {
        var place = machine.Frames.ToMachine(end);
        var offset = _writesOffsets ? machine.Nozzles[Nozzle].Offset : null;
        to.Command(command).Word('X', place.X - (offset?.X ?? 0)).Word('Y', place.Y - (offset?.Y ?? 0));
    }

    private void Height(double z)
    {
        to.Word('Z', z - (_writesOffsets ? machine.Nozzles[Nozzle].Offset?.Z ?? 0 : 0));
        Z = z;
    }

    private void Fed(double length)
    {
        _fed = IsRelative ? length : _fed + length;
        to.Fine('E', _fed);
    }

    private void Finish(double speed)
    {
        var perMinute = Math.Round(speed * 60);
        if (perMinute != _feed) to.Whole('F', perMinute);
        _feed = perMinute;
        to.End();
    }
}
