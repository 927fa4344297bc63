using MillCard.Core.Documents;
using MillCard.Core.Machines;
using NetTopologySuite.Geometries;
using PdfSharp.Drawing;
using static MillCard.Web.Paper.Board;

namespace MillCard.Web.Paper;

/// <summary>A machine's plan at a scale on paper.</summary>
/// <param name="Machine">The machine.</param>
/// <param name="By">How many times smaller it is drawn.</param>
/// <param name="X">Where the bed's left edge is, mm of the paper.</param>
/// <param name="Bottom">Where the bed's front edge is, mm of the paper.</param>
internal sealed record PlanView(Machine Machine, double By, double X, double Bottom)
{
    /// <summary>From the bed frame to the paper.</summary>
    public XPoint Place(Coordinate at) => new(X + at.X / By, Bottom - at.Y / By);

    /// <summary>Bed, margins, keep-outs, origin.</summary>
    public void Draw(Board board)
    {
        board.Area(Line.Wide, Machine.Bed, Place);
        if (!Machine.Usable.IsEmpty && Machine.Usable.Area < Machine.Bed.Area - 0.01) board.Area(Line.Hair, Machine.Usable, Place);
        foreach (var (keepOut, outline) in Machine.KeepOuts)
        {
            var (hatch, crossed) = keepOut.Kind switch
            {
                KeepOutKind.Obstacle => (1.2, true),
                KeepOutKind.Reserved => (2.4, false),
                _ => (0.8, false),
            };
            board.Area(Line.Thin, outline, Place, hatch, crossed);
            var at = Place(outline.Centroid.Coordinate);
            var top = keepOut.Top is { } height ? Invariant($", {height:0.##} high") : "";
            var says = $"{keepOut.Name}{top}";
            var (half, bed) = (board.Measure(says, 2, Face.Letters) / 2 + 1, Machine.Bed.EnvelopeInternal);
            var (left, right) = (Place(new Coordinate(bed.MinX, 0)).X + half, Place(new Coordinate(bed.MaxX, 0)).X - half);
            var below = Place(outline.EnvelopeInternal.Centre).Y + outline.EnvelopeInternal.Height / By / 2 + 3;
            board.Label(says, left < right ? Math.Clamp(at.X, left, right) : at.X, below);
        }
        if (Machine.Card.Envelope.Origin is { } origin)
        {
            var zero = Place(new Coordinate(origin.X, origin.Y));
            board.Dot(zero.X, zero.Y, 0.9);
            board.Draw(Line.Thin, zero.X, zero.Y, zero.X + 8, zero.Y);
            board.Draw(Line.Thin, zero.X, zero.Y, zero.X, zero.Y - 8);
            board.Arrow(zero.X + 8, zero.Y, 1, 0);
            board.Arrow(zero.X, zero.Y - 8, 0, -1);
            board.Write("X", zero.X + 9, zero.Y + 1, 2, Face.Letters);
            board.Write("Y", zero.X, zero.Y - 9, 2, Face.Letters, Align.Middle);
        }
    }
}
