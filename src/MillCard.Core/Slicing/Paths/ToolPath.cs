namespace MillCard.Core.Slicing.Paths;

/// <summary>How a stretch of a line is laid.</summary>
/// <param name="Speed">That its settings ask for, mm/s.</param>
/// <param name="Hangs">Whether nothing carries it.</param>
public readonly record struct Pace(double Speed, bool Hangs);

/// <summary>A line of plastic.</summary>
/// <param name="Kind">What it is for.</param>
/// <param name="Points">Its middle, mm, bed frame; a closed one does not repeat its first point.</param>
/// <param name="Closed">Whether it runs back to its first point.</param>
/// <param name="Width">mm; the middle between narrowest and widest where it varies.</param>
public sealed record ToolPath(PathKind Kind, Point[] Points, bool Closed, double Width)
{
    /// <summary>Width at every point, mm, evenly from one to the next; null where it is the same all along.</summary>
    public double[]? Widths { get; init; }
    /// <summary>Pace on the way from every point to the next; null where it is the same all along.</summary>
    public Pace[]? Paces { get; init; }
    /// <summary>Speed that its settings ask for, mm/s; that of its kind in the job's recipe where it is null.</summary>
    public double? Speed { get; init; }
    /// <summary>Quarters of its width that nothing carries on the way from every point to the next, 4 where it hangs; null where all of it
    /// is carried.</summary>
    public byte[]? Hanging { get; init; }
    /// <summary>Which of the part's paces it is laid at.</summary>
    public int PacedBy { get; init; }
    /// <summary>Cross-section of the strand, mm², where it is not that of a line of its width and the layer's height.</summary>
    public double? Section { get; init; }
    /// <summary>How far arcs may lie off it, mm, where its curves are to be written as arcs; null where they are not.</summary>
    public double? ArcsWithin { get; init; }
    /// <summary>Whether the nozzle climbs by a layer along it.</summary>
    public bool Climbs { get; init; }
    /// <summary>Corners of a way to its first point that stays within the part, from the end of the path before it; null where there is
    /// none.</summary>
    public Point[]? Approach { get; init; }
    /// <summary>Index of the nozzle that lays it.</summary>
    public int Nozzle { get; init; }
    /// <summary>Index of the part it belongs to; null where it belongs to none.</summary>
    public int? Part { get; init; }

    /// <summary>The same line begun at another of its corners; an open one begun at its end is turned round.</summary>
    public ToolPath From(int corner)
    {
        if (corner == 0) return this;
        return this with
        {
            Points = Begun(Points),
            Widths = Widths is null ? null : Begun(Widths),
            Paces = Paces is null ? null : Begun(Paces),
        };

        T[] Begun<T>(T[] all) => Closed ? [.. all.AsSpan(corner), .. all.AsSpan(0, corner)] : [.. all.Reverse()];
    }

    /// <summary>The same closed line begun anywhere on it.</summary>
    /// <param name="place">The index of a point and the share of the way to the next.</param>
    public ToolPath Begun(double place)
    {
        var (i, n) = ((int)place, Points.Length);
        if (place - i < 1e-9 || place - i > 1 - 1e-9) return From((int)Math.Round(place) % n);
        var (point, width) = At(place);
        return (this with
        {
            Points = [.. Points[..(i + 1)], point, .. Points[(i + 1)..]],
            Widths = Widths is { } w ? [.. w[..(i + 1)], width, .. w[(i + 1)..]] : null,
            Paces = Paces is { } p ? [.. p[..(i + 1)], p[i], .. p[(i + 1)..]] : null,
        }).From(i + 1);
    }

    /// <summary>A place on it.</summary>
    /// <param name="place">The index of a point and the share of the way to the next.</param>
    public (Point Point, double Width) At(double place)
    {
        var (i, n) = ((int)place, Points.Length);
        var (a, b, t) = (Points[i % n], Points[(i + 1) % n], place - i);
        return (t == 0 ? a : a.Towards(b, t),
            Widths is { } w ? w[i % n] + t * (w[(i + 1) % n] - w[i % n]) : Width);
    }

    /// <summary>The same line elsewhere.</summary>
    public ToolPath Moved(double x, double y) => this with { Points = Array.ConvertAll(Points, p => new Point(p.X + x, p.Y + y)) };

    private const int BytesOfOne = 160, BytesOfPoint = 16;

    /// <summary>What lines take in memory, about.</summary>
    internal static long BytesOf(IEnumerable<ToolPath> paths) =>
        paths.Sum(p => BytesOfOne + (long)p.Points.Length * BytesOfPoint + (p.Widths?.Length ?? 0) * (long)sizeof(double));

    /// <summary>Its greatest width, mm.</summary>
    public double Widest => Widths?.Max() ?? Width;

    /// <summary>Cross-section of the strand on the way to a point from the one before it, in a layer of a height, mm².</summary>
    /// <param name="point">From 1; the number of points stands for the way back to the first.</param>
    /// <param name="height">mm.</param>
    public double SectionTo(int point, double height)
    {
        if (GoesBack(point)) return 0;
        return Widths is not { } widths ? SectionAt(height)
            : Flow.ExtrudedLine.Area((widths[point - 1] + widths[point % widths.Length]) / 2, height);
    }

    /// <summary>Whether the way to a point goes back over the one before it: plastic lies there already, and nothing is laid.</summary>
    /// <param name="point">From 1; the number of points stands for the way back to the first.</param>
    public bool GoesBack(int point)
    {
        var n = Points.Length;
        return n > 2 && (Closed || point > 1) && Points[point % n] == Points[(point - 2 + n) % n];
    }

    /// <summary>Greatest cross-section of the strand in a layer of a height, mm².</summary>
    public double GreatestSectionAt(double height) => Section ?? Flow.ExtrudedLine.Area(Widest, height);

    /// <summary>Plastic in it, in a layer of a height, mm³.</summary>
    public double VolumeAt(double height)
    {
        var sum = 0.0;
        for (var i = 1; i < Points.Length + (Closed ? 1 : 0); i++)
            sum += Points[i - 1].To(Points[i % Points.Length]) * SectionTo(i, height);
        return sum;
    }

    /// <summary>Pieces of one width each, their pace left out; itself where its width does not vary.</summary>
    public IEnumerable<ToolPath> Even()
    {
        if (Widths is not { } widths)
        {
            yield return this;
            yield break;
        }
        var n = Points.Length;
        for (int start = 0, end, last = Closed ? n : n - 1; start < last; start = end)
        {
            var (least, most) = (widths[start], widths[start]);
            for (end = start; end < last; end++)
            {
                var next = widths[(end + 1) % n];
                if (end > start && Math.Max(most, next) - Math.Min(least, next) > EvenWithin) break;
                (least, most) = (Math.Min(least, next), Math.Max(most, next));
            }
            yield return this with
            {
                Points = [.. Enumerable.Range(start, end - start + 1).Select(i => Points[i % n])],
                Widths = null,
                Paces = null,
                Closed = false,
                Width = (least + most) / 2,
            };
        }
    }

    /// <summary>Widths within this count as one, mm.</summary>
    private const double EvenWithin = 0.05;

    /// <summary>All points that it goes through: of a closed one the first again at the end.</summary>
    internal Point[] Way => Closed ? [.. Points, Points[0]] : Points;

    /// <summary>Where the nozzle is when it has been laid.</summary>
    public Point End => Closed ? Points[0] : Points[^1];

    /// <summary>Cross-section of the strand in a layer of a height, mm².</summary>
    public double SectionAt(double height) => Section ?? Flow.ExtrudedLine.Area(Width, height);

    /// <summary>Length of the middle, mm.</summary>
    public double Length
    {
        get
        {
            var sum = Closed ? Points[^1].To(Points[0]) : 0;
            for (var i = 1; i < Points.Length; i++) sum += Points[i - 1].To(Points[i]);
            return sum;
        }
    }
}
