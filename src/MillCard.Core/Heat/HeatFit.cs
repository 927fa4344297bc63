using MillCard.Core.Wording;

namespace MillCard.Core.Heat;

/// <summary>What a heat-up log says of a heater.</summary>
/// <param name="Model">The model that fits best; its room is the log's first value.</param>
/// <param name="ReachableFrom">Lower end of the interval of 95 % for where it ends, °C.</param>
/// <param name="ReachableTo">Upper end, °C; infinite where the log cannot tell.</param>
/// <param name="Covers">How many time constants the log is long.</param>
/// <param name="Scatter">Root of the mean square distance of the points from the model, °C.</param>
public sealed record HeatFit(HeatModel Model, double ReachableFrom, double ReachableTo, double Covers, double Scatter)
{
    /// <summary>A log shorter than this many time constants does not tell where the heater ends.</summary>
    public const double LongEnough = 3;

    private const double Nearly = 0.95;
    private const double Hottest = 3000;
    private const double WideShare = 0.25;

    /// <summary>Whether the log tells where the heater ends: it is long enough, and the interval is narrow.</summary>
    public bool Tells => Covers >= Nearly * LongEnough && ReachableTo - ReachableFrom <= WideShare * (Model.Reachable - Model.Room)
        && ReachableTo < Hottest;

    /// <summary>The least-squares fit of T(t) = T∞ − (T∞ − T₀)·e^(−t/τ) to a log, T₀ its first value; null where the log cannot be
    /// fitted.</summary>
    /// <remarks>
    /// For a given τ the best T∞ is linear least squares; τ is searched on a logarithmic scale. The interval is the profile's: all T∞
    /// whose best τ leaves a sum of squares of at most (1 + F/(n − 2)) times the least, F = t² of Student's t at 95 % with n − 2 degrees
    /// of freedom.
    /// It holds where the linear approximation is poor (Bates and Watts, Nonlinear Regression Analysis, 1988, section 6.1).
    /// </remarks>
    /// <param name="log">Pairs of s and °C in the order of time; at least three.</param>
    [Formula("What a heat-up log tells", "least squares of T(t) over T∞ and τ, interval of 95 % by the profile",
        "Bates and Watts, Nonlinear Regression Analysis, 1988, section 6.1.")]
    public static HeatFit? Of(IReadOnlyList<(double Seconds, double Degrees)> log)
    {
        if (log.Count < 3) return null;
        var (start, from) = log[0];
        var points = log.Skip(1).Select(p => (S: p.Seconds - start, D: p.Degrees - from)).Where(p => p.S > 0).ToArray();
        if (points.Length < 2 || points[^1].D <= 0) return null;
        var span = points[^1].S;
        var tau = Minimise(t => Residual(points, BestRise(points, t), t), span / 200, span * 200);
        var rise = BestRise(points, tau);
        var least = Residual(points, rise, tau);
        var freedom = Math.Max(1, points.Length - 2);
        // figures read to a tenth of a degree are never better than that
        var bound = Math.Max(least, points.Length * Rounding * Rounding) * (1 + Square(StudentT(freedom)) / freedom);
        double Profile(double r) => Residual(points, r, Minimise(t => Residual(points, r, t), span / 200, span * 200));
        var highest = points.Max(p => p.D);
        var low = Crossing(Profile, rise, Math.Min(rise, highest / 2), bound);
        var high = Profile(Hottest) <= bound ? double.PositiveInfinity : Crossing(Profile, rise, Hottest, bound);
        return new HeatFit(new HeatModel(from, from + rise, tau), from + low, from + high, span / tau, Math.Sqrt(least / points.Length));
    }

    private const double Rounding = 0.05;

    private static double BestRise((double S, double D)[] points, double tau)
    {
        var (top, bottom) = (0.0, 0.0);
        foreach (var (s, d) in points)
        {
            var g = 1 - Math.Exp(-s / tau);
            (top, bottom) = (top + g * d, bottom + g * g);
        }
        return bottom > 0 ? top / bottom : 0;
    }

    private static double Residual((double S, double D)[] points, double rise, double tau)
    {
        var sum = 0.0;
        foreach (var (s, d) in points) sum += Square(d - rise * (1 - Math.Exp(-s / tau)));
        return sum;
    }

    /// <summary>The least of a function of τ: a coarse search on a logarithmic scale, then the golden section.</summary>
    private static double Minimise(Func<double, double> of, double from, double to)
    {
        const int coarse = 60;
        var (a, b) = (Math.Log(from), Math.Log(to));
        var best = Enumerable.Range(0, coarse + 1).MinBy(i => of(Math.Exp(a + (b - a) * i / coarse)));
        var (low, high) = (a + (b - a) * Math.Max(0, best - 1) / coarse, a + (b - a) * Math.Min(coarse, best + 1) / coarse);
        var golden = (Math.Sqrt(5) - 1) / 2;
        for (var i = 0; i < 60; i++)
        {
            var (c, d) = (high - golden * (high - low), low + golden * (high - low));
            if (of(Math.Exp(c)) < of(Math.Exp(d))) high = d; else low = c;
        }
        return Math.Exp((low + high) / 2);
    }

    /// <summary>Where a profile that grows from inside to outside passes a bound.</summary>
    private static double Crossing(Func<double, double> profile, double inside, double outside, double bound)
    {
        if (profile(outside) <= bound) return outside;
        for (var i = 0; i < 50; i++)
        {
            var middle = (inside + outside) / 2;
            if (profile(middle) <= bound) inside = middle; else outside = middle;
        }
        return inside;
    }

    /// <summary>Student's t at 97.5 %, so 95 % on both sides; Abramowitz and Stegun, Handbook of Mathematical Functions, table
    /// 26.10.</summary>
    internal static double StudentT(int freedom) => freedom switch
    {
        1 => 12.706,
        2 => 4.303,
        3 => 3.182,
        4 => 2.776,
        5 => 2.571,
        6 => 2.447,
        7 => 2.365,
        8 => 2.306,
        9 => 2.262,
        10 => 2.228,
        <= 15 => 2.228 - (freedom - 10) * 0.0194,
        <= 30 => 2.131 - (freedom - 15) * 0.00593,
        <= 60 => 2.042 - (freedom - 30) * 0.0014,
        _ => 1.96 + 2.4 / freedom,
    };

    private static double Square(double v) => v * v;
}
