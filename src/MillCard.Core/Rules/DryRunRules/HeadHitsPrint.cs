using MillCard.Core.DryRun;
using MillCard.Core.Findings;
using MillCard.Core.Geometry;
using MillCard.Core.Machines;

namespace MillCard.Core.Rules.DryRunRules;

/// <summary>The nozzle, a body or a beam of the head into plastic that was laid higher than it passes.</summary>
/// <remarks>
/// The plastic is a grid of cells of 0.5 mm that hold how high the middles of lines have been laid; the clearance margin is
/// left out. What is hit by less than a cell may go unseen, nothing is hit that stands clear.
/// </remarks>
public sealed class HeadHitsPrint : IDryRunRule
{
    /// <summary>A nozzle that brushes the layer it lays is no hit: passing lower than this into plastic is, mm.</summary>
    private const float Brush = 0.02f;

    private const double Widest = 4000;
    /// <summary>Leaving the soft end of the line just laid a little lower is no hit: so shallow, and so near to where the nozzle stands,
    /// mm.</summary>
    private const double Shallow = 0.35, Standing = 1;

    /// <inheritdoc/>
    public RuleId Id { get; } = new("head-hits-print", Severity.Stop);

    /// <inheritdoc/>
    public IEnumerable<Finding> Look(DryRunReport run, Machine machine)
    {
        // what is laid far outside is said by the rules about travel
        if (run.Extents is not { } extents || extents.MaxX - extents.MinX > Widest || extents.MaxY - extents.MinY > Widest) yield break;
        var heads = Enumerable.Range(0, run.Nozzles.Count)
            .Select(tool => machine.HeadOf(tool).Select(s => new Sweep(s)).OrderBy(s => s.Underside).ToArray()).ToArray();
        var hits = new Dictionary<string, (int Line, int Count, float High)>();
        Look(run.Moves, new LaidPlastic(extents), heads, hits);
        if (run.SecondMoves.Length > 0) Look(run.SecondMoves, new LaidPlastic(extents), heads, hits);
        foreach (var (name, (line, count, high)) in hits)
        {
            var more = MoveWords.More(count);
            yield return Id.OnLine(line, $"The {name} runs into what is printed already, {high:0.##} mm high there.{more}",
                "The head hits it: the part comes off, or the motors lose steps.");
        }
    }

    private static void Look(
        ReadOnlySpan<SimulatedMove> moves, LaidPlastic plastic, Sweep[][] heads, Dictionary<string, (int Line, int Count, float High)> hits)
    {
        foreach (ref readonly var move in moves)
        {
            if (!move.Known) continue;
            var low = Math.Min(move.From.Z, move.To.Z);
            if (low + Brush < plastic.Highest) Look(move, low, plastic, heads[move.Tool], hits);
            if (move.Extrudes) plastic.Lay(move);
        }
    }

    private static void Look(in SimulatedMove move, float low, LaidPlastic plastic, Sweep[] head,
        Dictionary<string, (int Line, int Count, float High)> hits)
    {
        if (plastic.Above(Brush, move, null) is { } under) Add("nozzle", under, move.Line);
        foreach (var sweep in head)
        {
            if (low + sweep.Underside >= plastic.Highest) break;
            if (plastic.Above((float)sweep.Underside, move, sweep) is { } high) Add(sweep.Name, high, move.Line);
        }

        void Add(string name, float high, int line) =>
            hits[name] = hits.TryGetValue(name, out var known) ? (known.Line, known.Count + 1, Math.Max(known.High, high))
                : (line, 1, high);
    }

    /// <summary>A thing of the head with what is needed to look where it passes.</summary>
    private sealed class Sweep(HeadSolid solid)
    {
        public string Name => solid.Name;
        public double Underside => solid.Underside;
        public NetTopologySuite.Geometries.Envelope Box { get; } = solid.Outline.EnvelopeInternal;

        /// <summary>The area it passes over on a move, machine frame.</summary>
        public NetTopologySuite.Geometries.Prepared.IPreparedGeometry Over(in SimulatedMove move)
        {
            Shape line = move.From.X == move.To.X && move.From.Y == move.To.Y
                ? Plane.Moved(solid.Outline, move.From.X, move.From.Y)
                : MinkowskiSum.Along(solid.Outline, new Point(move.From.X, move.From.Y), new Point(move.To.X, move.To.Y));
            return NetTopologySuite.Geometries.Prepared.PreparedGeometryFactory.Prepare(line);
        }
    }

    /// <summary>How high plastic has been laid, by cells, with coarse blocks above them for a quick no.</summary>
    private sealed class LaidPlastic
    {
        private const double Cell = 0.5;
        private const int Block = 16;
        private readonly double _x, _y;
        private readonly int _columns, _rows, _blocks;
        private readonly float[] _cells, _coarse;

        public LaidPlastic(Extents extents)
        {
            (_x, _y) = (extents.MinX, extents.MinY);
            (_columns, _rows) = ((int)((extents.MaxX - _x) / Cell) + 1, (int)((extents.MaxY - _y) / Cell) + 1);
            _blocks = _columns / Block + 1;
            _cells = new float[_columns * _rows];
            _coarse = new float[_blocks * (_rows / Block + 1)];
        }

        public float Highest { get; private set; }

        public void Lay(in SimulatedMove move)
        {
            var (from, to) = (move.From, move.To);
            var (x, y) = ((from.X - _x) / Cell, (from.Y - _y) / Cell);
            var (dx, dy, dz) = ((to.X - from.X) / Cell, (to.Y - from.Y) / Cell, to.Z - from.Z);
            var steps = (int)Math.Ceiling(Math.Max(Math.Abs(dx), Math.Abs(dy)));
            var step = steps == 0 ? 0 : 1.0 / steps;
            for (var k = 0; k <= steps; k++)
            {
                var t = k * step;
                var (column, row) = ((int)(x + t * dx), (int)(y + t * dy));
                if ((uint)column >= (uint)_columns || (uint)row >= (uint)_rows) continue;
                var z = (float)(from.Z + t * dz);
                ref var cell = ref _cells[row * _columns + column];
                if (z <= cell) continue;
                cell = z;
                ref var coarse = ref _coarse[row / Block * _blocks + column / Block];
                coarse = Math.Max(coarse, z);
            }
            Highest = Math.Max(Highest, Math.Max(from.Z, to.Z));
        }

        /// <summary>The highest plastic that the nozzle, or a thing of the head, passes lower; null for none.</summary>
        /// <param name="underside">Its height above the way of the nozzle's tip, mm.</param>
        /// <param name="move">The way.</param>
        /// <param name="sweep">The thing; null for the nozzle.</param>
        public float? Above(float underside, in SimulatedMove move, Sweep? sweep)
        {
            var height = Math.Min(move.From.Z, move.To.Z) + underside;
            var box = sweep?.Box;
            var (minX, maxX) = (Math.Min(move.From.X, move.To.X) + (box?.MinX ?? 0), Math.Max(move.From.X, move.To.X) + (box?.MaxX ?? 0));
            var (minY, maxY) = (Math.Min(move.From.Y, move.To.Y) + (box?.MinY ?? 0), Math.Max(move.From.Y, move.To.Y) + (box?.MaxY ?? 0));
            var (left, right) = (Column(minX), Column(maxX));
            var (front, back) = (Row(minY), Row(maxY));
            if (maxX < _x || maxY < _y || minX > _x + _columns * Cell || minY > _y + _rows * Cell) return null;
            NetTopologySuite.Geometries.Prepared.IPreparedGeometry? over = null;
            float? highest = null;
            for (var blockRow = front / Block; blockRow <= back / Block; blockRow++)
                for (var blockColumn = left / Block; blockColumn <= right / Block; blockColumn++)
                {
                    if (_coarse[blockRow * _blocks + blockColumn] <= height) continue;
                    var lastRow = Math.Min(back, blockRow * Block + Block - 1);
                    var lastColumn = Math.Min(right, blockColumn * Block + Block - 1);
                    for (var row = Math.Max(front, blockRow * Block); row <= lastRow; row++)
                        for (var column = Math.Max(left, blockColumn * Block); column <= lastColumn; column++)
                        {
                            var high = _cells[row * _columns + column];
                            if (high <= height || high <= highest) continue;
                            var (x, y) = (_x + (column + 0.5) * Cell, _y + (row + 0.5) * Cell);
                            if (high <= LowestAt(move, x, y, box) + underside) continue;
                            if (sweep is null && high - height < Shallow
                                && Square(x - move.From.X) + Square(y - move.From.Y) < Standing * Standing) continue;
                            var hit = sweep is null ? Nozzle(move, x, y) : (over ??= sweep.Over(move))
                                .Contains(Plane.Factory.CreatePoint(new NetTopologySuite.Geometries.Coordinate(x, y)));
                            if (hit) highest = high;
                        }
                }
            return highest;
        }

        private static double Square(double v) => v * v;

        /// <summary>How low the tip comes while the nozzle, or the box round a thing of the head, is over a place.</summary>
        private static double LowestAt(in SimulatedMove move, double x, double y, NetTopologySuite.Geometries.Envelope? box)
        {
            if (move.From.Z == move.To.Z) return move.From.Z;
            const double half = Cell / 2;
            var (minX, maxX, minY, maxY) = box is null ? (-half, half, -half, half) : (box.MinX, box.MaxX, box.MinY, box.MaxY);
            var (enter, leave) = (0.0, 1.0);
            Clip(x - move.From.X, move.To.X - move.From.X, minX, maxX, ref enter, ref leave);
            Clip(y - move.From.Y, move.To.Y - move.From.Y, minY, maxY, ref enter, ref leave);
            if (enter > leave) return double.PositiveInfinity;
            var rise = move.To.Z - move.From.Z;
            return move.From.Z + rise * (rise > 0 ? enter : leave);
        }

        /// <summary>The part of a way along one axis on which a place is between two edges that move along.</summary>
        private static void Clip(double place, double way, double min, double max, ref double enter, ref double leave)
        {
            if (way == 0)
            {
                if (place < min || place > max) leave = -1;
                return;
            }
            var (a, b) = ((place - max) / way, (place - min) / way);
            (enter, leave) = (Math.Max(enter, Math.Min(a, b)), Math.Min(leave, Math.Max(a, b)));
        }

        /// <summary>Whether the nozzle's way leads through a cell.</summary>
        private static bool Nozzle(in SimulatedMove move, double x, double y)
        {
            var (dx, dy) = (move.To.X - move.From.X, move.To.Y - move.From.Y);
            var length = dx * dx + dy * dy;
            var t = length > 0 ? Math.Clamp(((x - move.From.X) * dx + (y - move.From.Y) * dy) / length, 0, 1) : 0;
            var (ex, ey) = (move.From.X + t * dx - x, move.From.Y + t * dy - y);
            // a way along the line that was laid may lie on the edge of its cells
            return ex * ex + ey * ey < Cell * Cell / 4 + 1e-6;
        }

        private int Column(double x) => Math.Clamp((int)((x - _x) / Cell), 0, _columns - 1);
        private int Row(double y) => Math.Clamp((int)((y - _y) / Cell), 0, _rows - 1);
    }
}
