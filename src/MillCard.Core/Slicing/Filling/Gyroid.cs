using MillCard.Core.Slicing.Paths;
using MillCard.Core.Wording;

namespace MillCard.Core.Slicing.Filling;

/// <summary>The gyroid sin x cos y + sin y cos z + sin z cos x = 0, cut at the layer's height: waves that can be written down.</summary>
/// <remarks>A. H. Schoen, Infinite periodic minimal surfaces without self-intersections, NASA TN D-5541 (1970); the trigonometric surface
/// is its usual approximation.</remarks>
internal static class Gyroid
{
    /// <summary>How far a chord may leave its wave, mm.</summary>
    private const double ChordError = 0.02;

    /// <summary>Length of curve to an area in a cut, averaged over a period of heights, where the period is 2π.</summary>
    private static readonly double LengthToArea = Measure();

    [Formula("Gyroid", "sin x·cos y + sin y·cos z + sin z·cos x = 0",
        "A. H. Schoen, Infinite periodic minimal surfaces, NASA TN D-5541, 1970, in its usual approximation; from memory.")]
    public static IEnumerable<ToolPath> Fill(FillPlace place)
    {
        var wave = place.Density / (LengthToArea * place.Spacing);
        var box = place.Area.EnvelopeInternal;
        return place.Cut(Curves(box.MinX * wave, box.MaxX * wave, box.MinY * wave, box.MaxY * wave, place.Z * wave,
            StepsFor(2 * Math.PI / wave))
            .Select(curve => (IReadOnlyList<Point>)[.. curve.Select(p => new Point(p.X / wave, p.Y / wave))]));
    }

    /// <summary>Chords to a period; the waves' amplitude is less than a quarter of it.</summary>
    private static int StepsFor(double period) => Math.Max(8, (int)Math.Ceiling(Math.PI * Math.Sqrt(period / 4 / (2 * ChordError))));

    private static IEnumerable<List<Point>> Curves(double minX, double maxX, double minY, double maxY, double z, int steps)
    {
        var (sin, cos) = Math.SinCos(z);
        // where |cos z| ≤ √½ there is an x for every y, elsewhere a y for every x
        return cos * cos <= 0.5
            ? Waves(minY, maxY, minX, maxX, steps, y =>
                (Math.Atan2(sin, Math.Cos(y)), -Math.Sin(y) * cos, Math.Sqrt(Math.Cos(y) * Math.Cos(y) + sin * sin)))
                .Select(wave => wave.ConvertAll(p => new Point(p.Y, p.X)))
            : Waves(minX, maxX, minY, maxY, steps, x =>
                (cos > 0 ? Math.Atan2(Math.Sin(x), cos)
                : Math.Atan2(-Math.Sin(x), -cos) + Math.PI, -sin * Math.Cos(x), Math.Sqrt(cos * cos + Math.Sin(x) * Math.Sin(x))));
    }

    /// <summary>Solutions v of R sin(v + φ) = c for every u, one curve a branch and period.</summary>
    private static IEnumerable<List<Point>> Waves(double from, double to, double least, double most, int steps, Func<double,
        (double Phase, double C, double R)> at)
    {
        var step = 2 * Math.PI / steps;
        var (first, last) = ((int)Math.Floor(from / step), (int)Math.Ceiling(to / step));
        for (var turn = (int)Math.Floor(least / (2 * Math.PI)) - 2; turn <= (int)Math.Ceiling(most / (2 * Math.PI)) + 1; turn++)
            foreach (var second in new[] { false, true })
            {
                var wave = new List<Point>(last - first + 1);
                for (var i = first; i <= last; i++)
                {
                    var (phase, c, r) = at(i * step);
                    var angle = Math.Asin(Math.Clamp(c / r, -1, 1));
                    wave.Add(new Point(i * step, (second ? Math.PI - angle : angle) - phase + 2 * Math.PI * turn));
                }
                yield return wave;
            }
    }

    private static double Measure()
    {
        const int heights = 64;
        var (sum, period) = (0.0, 2 * Math.PI);
        for (var i = 0; i < heights; i++)
        {
            var z = (i + 0.5) * period / heights;
            // one turn's two branches are what a period holds
            foreach (var curve in Curves(0, 0.999 * period, 0, period, z, heights).Take(2))
                for (var k = 1; k < curve.Count; k++) sum += curve[k - 1].To(curve[k]);
        }
        return sum / (heights * period * period);
    }
}
