using MillCard.Core.Slicing.Paths;
using MillCard.Core.Slicing.Sections;
using NetTopologySuite.Geometries;

namespace MillCard.Core.Slicing.Writing;

/// <summary>Single moves: laying, travelling, pulling back, rising.</summary>
internal sealed partial class ProgramWriter
{
    private void Extrude(Point to, double perMm, double speed, double? z = null)
    {
        Go("G1", to);
        if (z is { } height) _out.Word('Z', height - (_writesOffsets ? Nozzle.Offset?.Z ?? 0 : 0));
        Feed(_here.To(to) * perMm);
        Speed(speed);
        _out.End();
        _here = to;
    }

    /// <summary>To the beginning of a path: within the part along its approach, where there is one, else by a pulled-back and lifted
    /// way.</summary>
    private void Travel(ToolPath path, double z)
    {
        var to = path.Points[0];
        var pullback = Pullback;
        var distance = double.IsNaN(_here.X) ? double.PositiveInfinity : _here.To(to);
        var lift = Math.Max(Lift(to, z), distance > pullback.LeastTravel ? z + pullback.Lift : z);
        if (double.IsPositiveInfinity(distance)) lift = Math.Max(lift, ClearOfAll(z));
        // the first way to the part passes over what the start routine has laid
        if (!_begun) lift = Math.Max(lift, z + OverPrimeLine);
        if (_pulledBack[_nozzle] > 0) lift = Math.Max(lift, _standing);
        if (distance < 1e-4 && z == _z) return;
        if (path.Approach is { } approach && z == _z && _pulledBack[_nozzle] == 0 && double.IsFinite(distance) && Lift(to, z) <= z)
        {
            foreach (var corner in approach) Move(corner);
            Move(to);
            _here = to;
            return;
        }
        var back = _pulledBack[_nozzle];
        if (back == 0 && pullback.Length > 0 && (distance > pullback.LeastTravel || lift > z) && !double.IsPositiveInfinity(distance))
        {
            back = pullback.Length;
            PullBack(pullback);
        }
        if (!(lift <= _z)) Rise(lift);
        Move(to);
        if (z != _z) Rise(z);
        if (back > 0) Push(back);
        (_here, _pulledBack[_nozzle]) = (to, 0);
    }

    private void Move(Point to)
    {
        Go("G0", to);
        Speed(Math.Min(_fastest, _recipe.Speeds.Travel));
        _out.End();
    }

    /// <summary>Pulls back while running back over the line just laid, as far as the head wipes.</summary>
    private void PullBack(Pullback pullback)
    {
        var way = pullback.Wipe > 0 && _last is { } last ? WipeOf(last, pullback.Wipe).ToArray() : [];
        if (way.Length == 0) { Push(-pullback.Length); return; }
        var length = 0.0;
        var from = _here;
        foreach (var point in way) { length += from.To(point); from = point; }
        foreach (var point in way)
        {
            Go("G1", point);
            Feed(-pullback.Length * _here.To(point) / length);
            // as slow as the drive needs for its share
            Speed(Math.Min(_recipe.Speeds.Travel, pullback.Speed * length / pullback.Length));
            _out.End();
            _here = point;
        }
    }

    /// <summary>The first mm of the way on along a closed line, or back along an open one.</summary>
    private static IEnumerable<Point> WipeOf(ToolPath path, double length)
    {
        IEnumerable<Point> way = path.Closed ? [.. path.Points.Skip(1), path.Points[0]] : path.Points.Reverse().Skip(1);
        var here = path.Closed ? path.Points[0] : path.Points[^1];
        foreach (var next in way)
        {
            var step = here.To(next);
            if (step >= length)
            {
                yield return new Point(here.X + (next.X - here.X) * length / step, here.Y + (next.Y - here.Y) * length / step);
                yield break;
            }
            if (step > 0) yield return next;
            (length, here) = (length - step, next);
        }
    }

    /// <summary>Height at which the way to a point is clear of every obstacle and of what the head's bodies need round it.</summary>
    private double Lift(Point to, double z)
    {
        var lift = z;
        if (double.IsNaN(_here.X)) return lift;
        foreach (var (area, top) in _obstacles)
        {
            if (top <= lift || double.IsPositiveInfinity(top)) continue;
            if (area.Intersects(Geometry.Plane.Factory.CreateLineString([new Coordinate(_here.X, _here.Y), new Coordinate(to.X, to.Y)])))
                lift = top;
        }
        return lift;
    }

    private double ClearOfAll(double z) => _obstacles.Where(o => double.IsFinite(o.Top)).Select(o => o.Top).Append(z).Append(_standing)
        .Max();

    private void Go(string command, Point to)
    {
        var machine = _job.Machine.Frames.ToMachine(to);
        var offset = _writesOffsets ? Nozzle.Offset : null;
        _out.Command(command).Word('X', machine.X - (offset?.X ?? 0)).Word('Y', machine.Y - (offset?.Y ?? 0));
    }

    private void Rise(double z)
    {
        _out.Command("G0").Word('Z', z - (_writesOffsets ? Nozzle.Offset?.Z ?? 0 : 0));
        Speed(_job.Machine.Card.Motion.Axes.Z?.MaxSpeed ?? 10);
        _out.End();
        _z = z;
    }

    private void Push(double length)
    {
        _out.Command("G1");
        Feed(length);
        Speed(Pullback.Speed);
        _out.End();
    }

    private void Feed(double length)
    {
        if (_relative) { _out.Fine('E', length); return; }
        _e += length;
        _out.Fine('E', _e);
    }

    private void Speed(double speed)
    {
        var perMinute = Math.Round(speed * 60);
        if (perMinute == _feed) return;
        _out.Whole('F', perMinute);
        _feed = perMinute;
    }

    /// <summary>A ring along which the nozzle rises by a layer.</summary>
    private void Climb(ToolPath path, LayerPlace place, double perMm, double speed)
    {
        var (way, gone) = (path.Length, 0.0);
        if (_here != path.Points[0]) Extrude(path.Points[0], perMm, speed);
        for (var i = 1; i <= path.Points.Length; i++)
        {
            var next = path.Points[i % path.Points.Length];
            gone += _here.To(next);
            _z = place.Top - place.Height + place.Height * Math.Min(1, gone / way);
            Extrude(next, perMm, speed, _z);
        }
    }
}
