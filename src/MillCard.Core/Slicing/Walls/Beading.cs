using MillCard.Core.Flow;
using NetTopologySuite.Geometries;

namespace MillCard.Core.Slicing.Walls;

/// <summary>How many lines lie side by side across a place, how wide each of them is and how deep its middle lies, by the thickness of the
/// place.</summary>
/// <remarks>The number is the one whose usual lines are nearest to the thickness, so it changes where both numbers would be off by the
/// same; what is left over or missing is shared out (T. Kuipers, E. Doubrovski, J. Wu, C. Wang, A framework for adaptive width control of
/// dense contour-parallel toolpaths, Computer-Aided Design 128, 2020, hold such rules against each other). Widths are reckoned as the room
/// that a line takes, w − h(1 − π/4): neighbours overlap by their round sides, the outermost two stand free.</remarks>
internal sealed class Beading
{
    private readonly double _outer, _inner, _round, _least, _most;

    /// <param name="walls">Walls on each side; at least 1.</param>
    /// <param name="outer">Usual width of the outermost, mm.</param>
    /// <param name="inner">Usual width of the others, mm.</param>
    /// <param name="height">Of the layer, mm.</param>
    /// <param name="between">Lines that may lie between the walls of both sides, in place of fill.</param>
    /// <param name="least">Least width, mm.</param>
    /// <param name="most">Greatest width, mm.</param>
    public Beading(int walls, double outer, double inner, double height, int between, double least, double most)
    {
        _round = Round(height);
        (_outer, _inner) = (ExtrudedLine.Spacing(outer, height), ExtrudedLine.Spacing(inner, height));
        (_least, _most, Walls, Most) = (least, most, walls, 2 * walls + between);
        Wide = Change(Most);
    }

    /// <summary>Walls on each side.</summary>
    public int Walls { get; }

    /// <summary>Greatest number of lines across a place.</summary>
    public int Most { get; }

    /// <summary>Thickness from which only walls lie along the outline and the middle is left to fill, mm.</summary>
    public double Wide { get; }

    /// <summary>Room that a line takes among others, mm.</summary>
    public double RoomOf(double width) => width - _round;

    /// <summary>What a line takes less among others than it is wide, in a layer of a height, mm.</summary>
    public static double Round(double height) => height * (1 - Math.PI / 4);

    /// <summary>Area of a polygon without what the round sides of its outermost lines leave free in a layer of a height, mm².</summary>
    public static double Filled(Polygon polygon, double height) => polygon.Area - polygon.Length * Round(height) / 2;

    /// <summary>Whether so many lines can lie across a thickness with widths within the bounds.</summary>
    public bool Allows(double thickness, int lines) => lines > 0 && lines <= Most && thickness < Wide
        && thickness >= ThicknessAt(lines, _least) && thickness <= ThicknessAt(lines, _most);

    /// <summary>What the usual widths of so many lines take, mm.</summary>
    private double Usual(int lines) => lines <= 2 ? lines * _outer : 2 * _outer + (lines - 2) * _inner;

    /// <summary>Thickness at which one line more is laid than so many, mm.</summary>
    public double Change(int lines)
    {
        if (lines == 0) return _least;
        var even = _round + (Usual(lines) + Usual(lines + 1)) / 2;
        // not later than the lines of the smaller number may be wide, nor before those of the greater one are wide enough
        return Math.Max(ThicknessAt(lines + 1, _least), Math.Min(even, ThicknessAt(lines, _most)));
    }

    /// <summary>Thickness at which the line that varies most is so wide, mm.</summary>
    private double ThicknessAt(int lines, double width) => lines switch
    {
        1 => width,
        <= 3 => _round + (width - _round) * Usual(lines) / Math.Max(_outer, _inner),
        _ => _round + 2 * _outer + (lines - 2) * (width - _round),
    };

    /// <summary>How many lines lie across a thickness.</summary>
    public int Lines(double thickness)
    {
        if (thickness >= Wide) return 2 * Walls;
        var lines = 0;
        while (lines < Most && thickness >= Change(lines)) lines++;
        return lines;
    }

    /// <summary>Width of the line that is so many from the outline, mm.</summary>
    /// <param name="thickness">Of the place, mm.</param>
    /// <param name="lines">Across it.</param>
    /// <param name="index">From the outline, from 0.</param>
    public double Width(double thickness, int lines, int index) => Room(thickness, lines, index) + _round;

    /// <summary>How deep the middle of that line lies, mm.</summary>
    public double DepthOf(double thickness, int lines, int index)
    {
        var depth = _round / 2 + Room(thickness, lines, index) / 2;
        for (var i = 0; i < index; i++) depth += Room(thickness, lines, i);
        return depth;
    }

    private double Room(double thickness, int lines, int index)
    {
        var usual = index == 0 ? _outer : _inner;
        if (thickness >= Wide) return usual;
        var room = thickness - _round;
        if (lines <= 3) return usual * room / Usual(lines);
        return index == 0 || index == lines - 1 ? _outer : (room - 2 * _outer) / (lines - 2);
    }
}
