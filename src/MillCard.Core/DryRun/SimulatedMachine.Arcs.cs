using MillCard.Core.Wording;

namespace MillCard.Core.DryRun;

// Arcs in the three planes (RS-274: G17, G18, G19) and cubic curves, as fine polylines.
public sealed partial class SimulatedMachine
{
    private const double ArcError = 0.01;
    private const double SameRay = 1e-9;
    private const int SplinePieces = 64;

    private static readonly (int A, int B, char I, char J) PlaneXy = (0, 1, 'I', 'J'), PlaneZx = (2, 0, 'K', 'I'),
        PlaneYz = (1, 2, 'J', 'K');
    private (int A, int B, char I, char J) _plane = PlaneXy;

    [Formula("Chords of an arc", "n = φ / (2·arccos(1 − e/r))",
        "Elementary geometry.",
        Where = "φ angle of the arc, r radius, e how far a chord may leave it")]
    private Effect Arc(int line, bool clockwise)
    {
        double[] to = [Target('X', 0), Target('Y', 1), Target('Z', 2)];
        var e = Filament();
        if (_words['F'] is var f && f > 0) _feed = f * _unit / 60;
        var (a, b) = (_plane.A, _plane.B);
        var (i, j) = (_words[_plane.I] * _unit, _words[_plane.J] * _unit);
        if (double.IsNaN(i) && double.IsNaN(j)) (i, j) = Centre(to[a] - _at[a], to[b] - _at[b], _words['R'] * _unit, clockwise);
        if (double.IsNaN(i)) i = 0;
        if (double.IsNaN(j)) j = 0;
        var (ca, cb) = (_at[a] + i, _at[b] + j);
        var radius = Math.Sqrt(i * i + j * j);
        var start = Math.Atan2(-j, -i);
        var sweep = Sweep(-i, -j, to[a] - ca, to[b] - cb, clockwise);
        var pieces = radius < ArcError ? 1
            : Math.Clamp((int)Math.Ceiling(Math.Abs(sweep) / (2 * Math.Acos(1 - ArcError / radius))), 1, 10_000);
        double[] from = [.. _at];
        return Polyline(line, to, e, pieces, (share, at) =>
        {
            for (var axis = 0; axis < 3; axis++) at[axis] = from[axis] + (to[axis] - from[axis]) * share;
            var (sin, cos) = Math.SinCos(start + sweep * share);
            (at[a], at[b]) = (ca + radius * cos, cb + radius * sin);
        });
    }

    /// <summary>A cubic curve: I and J lead from its begin, P and Q from its end.</summary>
    private Effect Spline(int line)
    {
        double[] to = [Target('X', 0), Target('Y', 1), Target('Z', 2)];
        var e = Filament();
        if (_words['F'] is var f && f > 0) _feed = f * _unit / 60;
        double Word(char letter) => _words[letter] is var word && double.IsNaN(word) ? 0 : word * _unit;
        double[] from = [.. _at], leads = [Word('I'), Word('J')], arrives = [Word('P'), Word('Q')];
        return Polyline(line, to, e, SplinePieces, (t, at) =>
        {
            var u = 1 - t;
            for (var axis = 0; axis < 2; axis++)
                at[axis] = u * u * u * from[axis] + 3 * u * u * t * (from[axis] + leads[axis]) + 3 * u * t * t * (to[axis] + arrives[axis])
                    + t * t * t * to[axis];
            at[2] = from[2] + (to[2] - from[2]) * t;
        });
    }

    private Effect Polyline(int line, double[] to, double filament, int pieces, Action<double, double[]> along)
    {
        var first = _run.MoveList.Count;
        var (at, per) = (new double[3], filament * _flowShare / pieces);
        for (var k = 1; k < pieces; k++)
        {
            along((double)k / pieces, at);
            Go(line, at[0], at[1], at[2], per);
        }
        Go(line, to[0], to[1], to[2], per);
        return new Effect(EffectKind.Move, first, 0);
    }

    /// <summary>Angle from one ray to another in the sense of the arc, radians: negative clockwise; where both are the same it is a full
    /// turn.</summary>
    private static double Sweep(double ax, double ay, double bx, double by, bool clockwise)
    {
        var turn = Math.Atan2(ax * by - ay * bx, ax * bx + ay * by);
        if (clockwise) return turn > -SameRay ? turn - 2 * Math.PI : turn;
        return turn < SameRay ? turn + 2 * Math.PI : turn;
    }

    private static (double I, double J) Centre(double dx, double dy, double radius, bool clockwise)
    {
        var half = Math.Sqrt(dx * dx + dy * dy) / 2;
        if (!(half > 0)) return (0, 0);
        var height = Math.Sqrt(Math.Max(0, radius * radius - half * half));
        var side = clockwise == radius > 0 ? 1 : -1;
        return (dx / 2 + side * height * dy / (2 * half), dy / 2 - side * height * dx / (2 * half));
    }
}
