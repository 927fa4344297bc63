using MillCard.Core.Slicing.Paths;
using MillCard.Core.Slicing.Sections;
using NetTopologySuite.Geometries;

namespace MillCard.Core.Slicing.Writing;

/// <summary>Single moves: laying, travelling, pulling back, rising.</summary>
internal sealed partial class ProgramWriter
{
    /// <summary>To the beginning of a path: within the part along its approach, where there is one, else by a pulled-back and lifted
    /// way.</summary>
    private void Travel(ToolPath path, double z)
    {
        var to = path.Points[0];
        var pullback = Pullback;
        var distance = _head.IsPlaced ? _head.Here.To(to) : double.PositiveInfinity;
        if (distance < 1e-4 && z == _head.Z) return;
        if (path.Approach is { } approach && z == _head.Z && _head.PulledBack == 0 && double.IsFinite(distance) && Lift(to, z) <= z)
        {
            foreach (var corner in approach) _head.Go(corner, TravelSpeed);
            _head.Go(to, TravelSpeed);
            return;
        }
        var back = _head.PulledBack;
        var (isPlaced, isLong) = (_head.IsPlaced, distance > pullback.LeastTravel);
        if (back == 0 && isPlaced && pullback.Length > 0 && (isLong || !_begun || Lift(to, z) > z))
        {
            back = pullback.Length;
            PullBack(pullback);
        }
        // a wipe has moved the head
        var lift = isPlaced ? Lift(to, z) : ClearOfAll(z);
        if (isLong && !(isPlaced && _laid?.AreUnder(_head.Here, to) == false)) lift = Math.Max(lift, z + pullback.Lift);
        // the first way to the part passes over what the start routine has laid
        if (!_begun) lift = Math.Max(lift, z + OverPrimeLine);
        if (_head.PulledBack > 0) lift = Math.Max(lift, _standing);
        if (!(lift <= _head.Z)) _head.Rise(lift);
        _head.Go(to, TravelSpeed);
        if (z != _head.Z) _head.Rise(z);
        if (back > 0) _head.Push(back, Pullback.Speed);
        _head.PulledBack = 0;
    }

    private double TravelSpeed => Math.Min(_fastest, _recipe.Speeds.Travel);

    /// <summary>Pulls back while running back over the line just laid, as far as the head wipes.</summary>
    private void PullBack(Pullback pullback)
    {
        var way = pullback.Wipe > 0 && _last is { } last ? WipeOf(last, pullback.Wipe).ToArray() : [];
        if (way.Length > 0 && _recipe.Retraction.WipeInside && _last is { Kind: PathKind.OuterWall, Closed: true } wall)
            way = Inwards(wall.Points[0], way, wall.Width);
        if (way.Length == 0) _head.Push(-pullback.Length, pullback.Speed);
        else _head.PullBack(way, pullback.Length, pullback.Speed, _recipe.Speeds.Travel);
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

    /// <summary>A way along an outer wall as it runs a line's width farther in: rings have the part to their left.</summary>
    private static Point[] Inwards(Point from, Point[] way, double by)
    {
        var (inside, here) = (new List<Point>(), from);
        foreach (var next in way)
        {
            var (x, y) = (by * (here.Y - next.Y) / here.To(next), by * (next.X - here.X) / here.To(next));
            inside.Add(new(here.X + x, here.Y + y));
            inside.Add(new(next.X + x, next.Y + y));
            here = next;
        }
        return [.. inside];
    }

    /// <summary>Height at which the way to a point is clear of every obstacle and of what the head's bodies need round it.</summary>
    private double Lift(Point to, double z)
    {
        var lift = z;
        if (!_head.IsPlaced) return lift;
        var way = Geometry.Plane.Factory.CreateLineString([new Coordinate(_head.Here.X, _head.Here.Y), new Coordinate(to.X, to.Y)]);
        foreach (var (area, top) in _obstacles)
        {
            if (top <= lift || double.IsPositiveInfinity(top)) continue;
            if (area.Intersects(way)) lift = top;
        }
        return lift;
    }

    private double ClearOfAll(double z) => _obstacles.Where(o => double.IsFinite(o.Top)).Select(o => o.Top).Append(z).Append(_standing)
        .Max();

    /// <summary>A ring along which the nozzle rises by a layer.</summary>
    private void Climb(ToolPath path, LayerPlace place, double perMm, double speed)
    {
        var (way, gone) = (path.Length, 0.0);
        if (_head.Here != path.Points[0]) _head.Lay(path.Points[0], perMm, speed);
        for (var i = 1; i <= path.Points.Length; i++)
        {
            var next = path.Points[i % path.Points.Length];
            gone += _head.Here.To(next);
            _head.Lay(next, perMm, speed, place.Top - place.Height + place.Height * Math.Min(1, gone / way));
        }
    }
}
