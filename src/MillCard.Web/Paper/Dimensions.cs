using static MillCard.Web.Paper.Board;

namespace MillCard.Web.Paper;

/// <summary>Dimensions as ISO 129-1 draws them: extension lines, a line with arrow heads, the figure above it, in mm of the
/// thing.</summary>
internal static class Dimensions
{
    private const double Beyond = 1.5, Gap = 1, Figure = 2.5, LeastInside = 9;

    /// <summary>Along X.</summary>
    /// <param name="board">The page.</param>
    /// <param name="x1">One end, mm of the paper.</param>
    /// <param name="x2">The other end.</param>
    /// <param name="from">Where the extension lines begin.</param>
    /// <param name="y">Where the dimension line runs.</param>
    /// <param name="says">The figure.</param>
    public static void Level(this Board board, double x1, double x2, double from, double y, string says)
    {
        var sense = Math.Sign(y - from);
        foreach (var x in new[] { x1, x2 }) board.Draw(Line.Thin, x, from + sense * Gap, x, y + sense * Beyond);
        var inside = x2 - x1 >= LeastInside;
        board.Draw(Line.Thin, inside ? x1 : x1 - 5, y, inside ? x2 : x2 + 5, y);
        board.Arrow(x1, y, inside ? -1 : 1, 0);
        board.Arrow(x2, y, inside ? 1 : -1, 0);
        var wide = board.Measure(says, Figure, Face.Letters);
        if (wide < x2 - x1 - 2) board.Write(says, (x1 + x2) / 2, y - Gap, Figure, Face.Letters, Align.Middle);
        else board.Write(says, x2 + 6, y + 1, Figure, Face.Letters);
    }

    /// <summary>Along Y; the figure stands level, where it can be read without turning the sheet.</summary>
    /// <param name="board">The page.</param>
    /// <param name="y1">The upper end, mm of the paper.</param>
    /// <param name="y2">The lower end.</param>
    /// <param name="from">Where the extension lines begin.</param>
    /// <param name="x">Where the dimension line runs.</param>
    /// <param name="says">The figure.</param>
    public static void Upright(this Board board, double y1, double y2, double from, double x, string says)
    {
        var sense = Math.Sign(x - from);
        foreach (var y in new[] { y1, y2 }) board.Draw(Line.Thin, from + sense * Gap, y, x + sense * Beyond, y);
        var inside = y2 - y1 >= LeastInside;
        board.Draw(Line.Thin, x, inside ? y1 : y1 - 5, x, inside ? y2 : y2 + 5);
        board.Arrow(x, y1, 0, inside ? -1 : 1);
        board.Arrow(x, y2, 0, inside ? 1 : -1);
        board.Write(says, x + (sense < 0 ? -Gap : Gap), (y1 + y2) / 2 + 1, Figure, Face.Letters, sense < 0 ? Align.Right : Align.Left);
    }
}
