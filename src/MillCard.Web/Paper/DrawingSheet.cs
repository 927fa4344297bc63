using PdfSharp.Pdf;
using QRCoder;
using static MillCard.Web.Paper.Board;

namespace MillCard.Web.Paper;

/// <summary>Size of paper, ISO 216.</summary>
internal enum PaperSize
{
    /// <summary>420 × 297 mm, lying.</summary>
    A3,
    /// <summary>297 × 210 mm, lying.</summary>
    A4,
}

/// <summary>What the title block of a sheet says.</summary>
/// <param name="Owner">Whose drawing it is.</param>
/// <param name="Title">What it shows.</param>
/// <param name="Kind">Kind of document.</param>
/// <param name="Revision">Its letter, or that it is a draft.</param>
/// <param name="Proof">Its proof in a few words.</param>
/// <param name="Date">Date of issue.</param>
/// <param name="Address">Where the document is found; it stands beside as a code.</param>
internal sealed record TitleFields(string Owner, string Title, string Kind, string Revision, string Proof, string Date, string Address);

/// <summary>Pages with the frame of ISO 5457 and the title block of ISO 7200.</summary>
internal sealed class DrawingSheet(PdfDocument document, PaperSize size, TitleFields title)
{
    private const double Left = 20, Other = 10, Band = 5, BlockWidth = 180, BlockHeight = 30, Code = 24;
    private readonly List<(Board Board, string Scale)> _pages = [];

    /// <summary>Edges of what may be drawn on, mm of the paper.</summary>
    public (double Left, double Top, double Right, double Bottom) Field => (Left, Other, PaperWidth - Other, PaperHeight - Other);

    /// <summary>Where the title block begins, mm from the top; to its left the field is free down to its edge.</summary>
    public double AboveBlock => Field.Bottom - BlockHeight;

    private double PaperWidth => size == PaperSize.A3 ? 420 : 297;
    private double PaperHeight => size == PaperSize.A3 ? 297 : 210;

    /// <summary>Begins a page.</summary>
    /// <param name="scale">What the title block says of its scale.</param>
    public Board Begin(string scale)
    {
        var board = new Board(document, PaperWidth, PaperHeight);
        _pages.Add((board, scale));
        Frame(board);
        return board;
    }

    /// <summary>Writes the title blocks, now that the number of pages is known, and ends the pages.</summary>
    public void End()
    {
        foreach (var (i, (board, scale)) in _pages.Index())
        {
            Block(board, scale, Invariant($"{i + 1}/{_pages.Count}"));
            board.Dispose();
        }
    }

    /// <summary>ISO 5457: frame, fields of reference of 50 mm counted from the middle, centring marks.</summary>
    private void Frame(Board board)
    {
        var (left, top, right, bottom) = Field;
        board.Box(Line.Wide, left, top, right - left, bottom - top);
        board.Box(Line.Thin, left - Band, top - Band, right - left + 2 * Band, bottom - top + 2 * Band);
        var (middleX, middleY) = (board.Width / 2, board.Height / 2);
        board.Draw(Line.Wide, middleX, 0, middleX, top + Band);
        board.Draw(Line.Wide, middleX, board.Height, middleX, bottom - Band);
        board.Draw(Line.Wide, 0, middleY, left + Band, middleY);
        board.Draw(Line.Wide, board.Width, middleY, right - Band, middleY);
        var (columns, rows) = size == PaperSize.A3 ? (8, 6) : (6, 4);
        for (var i = 0; i < columns; i++)
        {
            var (from, to) = (Part(i, columns, middleX, left, right), Part(i + 1, columns, middleX, left, right));
            foreach (var (edge, y) in new[] { (top - Band, top - 1.4), (bottom, bottom + Band - 1.4) })
            {
                if (i > 0) board.Draw(Line.Thin, from, edge, from, edge + Band);
                board.Write(Invariant($"{i + 1}"), (from + to) / 2, y, 2.5, Face.Letters, Align.Middle);
            }
        }
        for (var i = 0; i < rows; i++)
        {
            var (from, to) = (Part(i, rows, middleY, top, bottom), Part(i + 1, rows, middleY, top, bottom));
            foreach (var (edge, x) in new[] { (left - Band, left - Band / 2), (right, right + Band / 2) })
            {
                if (i > 0) board.Draw(Line.Thin, edge, from, edge + Band, from);
                board.Write(((char)('A' + i)).ToString(), x, (from + to) / 2 + 1.2, 2.5, Face.Letters, Align.Middle);
            }
        }
    }

    private static double Part(int i, int count, double middle, double first, double last)
    {
        if (i == 0) return first;
        return i == count ? last : middle + (i - count / 2) * 50;
    }

    /// <summary>ISO 7200: 180 mm wide, in the lower right corner; the code with the address stands to its left.</summary>
    private void Block(Board board, string scale, string sheet)
    {
        var (_, _, right, bottom) = Field;
        var (x, y) = (right - BlockWidth, bottom - BlockHeight);
        board.Box(Line.Wide, x, y, BlockWidth, BlockHeight);
        void Cell(double at, double top, double width, double height, string name, string value, double letters = 3.5)
        {
            board.Box(Line.Thin, x + at, y + top, width, height);
            board.Write(name, x + at + 1.2, y + top + 2.8, 1.6);
            var shown = value;
            while (letters > 1.8 && board.Measure(shown, letters, Face.Strong) > width - 2.4) letters /= 1.4;
            while (shown.Length > 1 && board.Measure(shown, letters, Face.Strong) > width - 2.4) shown = shown[..^2] + "…";
            board.Write(shown, x + at + 1.2, y + top + height - 1.6, letters, Face.Strong);
        }
        Cell(0, 0, 70, 10, "Owner", title.Owner, 2.5);
        Cell(0, 10, 70, 10, "Kind of document", title.Kind, 2.5);
        Cell(0, 20, 70, 10, "Proof", title.Proof, 2.5);
        Cell(70, 0, 80, 20, "Title", title.Title, 5);
        Cell(70, 20, 40, 10, "Revision", title.Revision);
        Cell(110, 20, 40, 10, "Date of issue", title.Date, 2.5);
        Cell(150, 0, 30, 10, "Scale", scale);
        Cell(150, 10, 30, 10, "Language", "en", 2.5);
        Cell(150, 20, 30, 10, "Sheet", sheet);
        if (title.Address.Length > 0) QrCode(board, x - Code - 3, bottom - Code - 3);
    }

    /// <summary>A code (ISO/IEC 18004) with the document's address, in squares.</summary>
    private void QrCode(Board board, double x, double y)
    {
        using var code = new QRCodeGenerator().CreateQrCode(title.Address, QRCodeGenerator.ECCLevel.M);
        var modules = code.ModuleMatrix;
        var side = Code / modules.Count;
        for (var row = 0; row < modules.Count; row++)
            for (int column = 0, next; column < modules.Count; column = next)
            {
                next = column + 1;
                if (!modules[row][column]) continue;
                // squares beside each other are one, so that no hairline shows between them
                while (next < modules.Count && modules[row][next]) next++;
                board.Fill(x + column * side, y + row * side, (next - column) * side, side);
            }
    }
}
