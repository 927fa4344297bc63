using MillCard.Core.Documents;
using MillCard.Core.Wording;

namespace MillCard.Core.Motion;

/// <summary>Trapezoidal moves with look-ahead: two passes over a queue of moves, backward for stopping, forward for speeding up.</summary>
/// <remarks>
/// When the queue is full its older half is timed. The last entry speed is kept at a stop while planning,
/// which a queue of this length hides from the older half in all but extreme cases.
/// </remarks>
public sealed class Planner(Limits limits, Action<int, double> timed)
{
    private const int Length = 512;
    private readonly Block[] _queue = new Block[Length];
    private int _count;
    private double _entry;
    private Block _last;

    private struct Block
    {
        public int Tag;
        public double Distance, Cruise, Acceleration, MaxEntry, Entry;
        public double Ux, Uy, Uz, Ue;
        public bool Moves;
    }

    /// <summary>Adds a move.</summary>
    /// <param name="tag">Given back when the move's time is known.</param>
    /// <param name="x">Distance along X, mm.</param>
    /// <param name="y">Distance along Y, mm.</param>
    /// <param name="z">Distance along Z, mm.</param>
    /// <param name="e">Filament, mm.</param>
    /// <param name="speed">Asked for, mm/s.</param>
    public void Add(int tag, double x, double y, double z, double e, double speed)
    {
        var way = Math.Sqrt(x * x + y * y + z * z);
        var alone = way < 1e-9;
        var distance = alone ? Math.Abs(e) : way;
        if (distance < 1e-9) { timed(tag, 0); return; }
        if (_count == Length) Release(Length / 2);
        ref var block = ref _queue[_count];
        block.Tag = tag;
        block.Distance = distance;
        (block.Ux, block.Uy, block.Uz, block.Ue) = (x / distance, y / distance, z / distance, e / distance);
        block.Moves = !alone;
        block.Cruise = Math.Max(1e-3, Clip(speed, limits.Speed, in block));
        var onTheWay = e > 0 ? limits.Printing : limits.Travel;
        block.Acceleration = Math.Max(1e-2, Clip(alone ? limits.Retraction : onTheWay, limits.Acceleration, in block));
        block.MaxEntry = Corner(in _last, in block);
        _last = block;
        _count++;
    }

    /// <summary>Brings everything to a stop and times it.</summary>
    public void Drain()
    {
        Release(_count);
        _entry = 0;
        _last = default;
    }

    private static double Clip(double value, double[] axes, in Block block)
    {
        if (block.Ux != 0) value = Math.Min(value, axes[0] / Math.Abs(block.Ux));
        if (block.Uy != 0) value = Math.Min(value, axes[1] / Math.Abs(block.Uy));
        if (block.Uz != 0) value = Math.Min(value, axes[2] / Math.Abs(block.Uz));
        if (block.Ue != 0) value = Math.Min(value, axes[3] / Math.Abs(block.Ue));
        return value;
    }

    private double Corner(in Block before, in Block after)
    {
        if (!before.Moves || !after.Moves) return 0;
        var slower = Math.Min(before.Cruise, after.Cruise);
        var acceleration = Math.Min(before.Acceleration, after.Acceleration);
        var cos = before.Ux * after.Ux + before.Uy * after.Uy + before.Uz * after.Uz;
        var corner = limits.Corner switch
        {
            CornerKind.JunctionDeviation => CornerSpeed.Junction(acceleration, limits.CornerValue, cos),
            CornerKind.SquareCornerSpeed =>
                CornerSpeed.Junction(acceleration, CornerSpeed.DeviationOfSquareCorner(limits.CornerValue, acceleration), cos),
            _ => Jump(in before, in after),
        };
        return Math.Min(slower, corner);
    }

    /// <summary>The speed at which no axis jumps by more than its limit.</summary>
    [Formula("Speed at a corner, instant change", "v = minᵢ (jᵢ / |Δuᵢ|)",
        "The firmwares' public documentation; from memory.",
        Where = "jᵢ limit of an axis, Δuᵢ change of direction along it")]
    private double Jump(in Block before, in Block after)
    {
        var speed = double.PositiveInfinity;
        Limit(after.Ux - before.Ux, limits.Jump[0], ref speed);
        Limit(after.Uy - before.Uy, limits.Jump[1], ref speed);
        Limit(after.Uz - before.Uz, limits.Jump[2], ref speed);
        Limit(after.Ue - before.Ue, limits.Jump[3], ref speed);
        return speed;

        static void Limit(double change, double most, ref double speed)
        {
            if (Math.Abs(change) > 1e-9) speed = Math.Min(speed, most / Math.Abs(change));
        }
    }

    [Formula("Speed from which a move can still slow down", "v = √(v₁² + 2·a·s)",
        "Constant acceleration.",
        Where = "v₁ speed at its end, a acceleration, s its length")]
    private void Release(int count)
    {
        if (count == 0) return;
        var exit = 0.0;
        for (var i = _count - 1; i >= 0; i--)
        {
            ref var block = ref _queue[i];
            var stoppable = Math.Sqrt(exit * exit + 2 * block.Acceleration * block.Distance);
            block.Entry = Math.Min(block.MaxEntry, stoppable);
            exit = block.Entry;
        }
        _queue[0].Entry = Math.Min(_entry, _queue[0].Entry);
        for (var i = 0; i < count; i++)
        {
            ref var block = ref _queue[i];
            var next = 0.0;
            if (i + 1 < _count)
            {
                ref var following = ref _queue[i + 1];
                following.Entry = Math.Min(following.Entry, Math.Sqrt(block.Entry * block.Entry + 2 * block.Acceleration * block.Distance));
                next = following.Entry;
            }
            timed(block.Tag, Trapezoid.Time(block.Distance, block.Entry, block.Cruise, next, block.Acceleration));
        }
        _entry = count < _count ? _queue[count].Entry : 0;
        Array.Copy(_queue, count, _queue, 0, _count - count);
        _count -= count;
    }
}
