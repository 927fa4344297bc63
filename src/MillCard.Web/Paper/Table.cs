using static MillCard.Web.Paper.Board;

namespace MillCard.Web.Paper;

/// <summary>A column of a table.</summary>
/// <param name="Title">Its heading.</param>
/// <param name="Share">Its share of the width.</param>
internal sealed record Column(string Title, double Share);

/// <summary>A part of a page that is free.</summary>
/// <param name="Board">The page.</param>
/// <param name="X">Its left edge, mm of the paper.</param>
/// <param name="Top">Its upper edge.</param>
/// <param name="Width">mm.</param>
/// <param name="Bottom">Its lower edge.</param>
internal sealed record FreeRoom(Board Board, double X, double Top, double Width, double Bottom);

/// <summary>Runs text and tables down the columns of pages, a new page where one is full.</summary>
internal sealed class Flow
{
    private const double RowGap = 1.6, Pad = 1, Gutter = 8, Text = 2, Lead = 3.4;
    private readonly DrawingSheet _sheet;
    private readonly int _columns;
    private Board? _board;
    private FreeRoom? _free;
    private int _at;
    private double _y;

    /// <summary>Begins in a free part of a page, or with a page of its own at the first line.</summary>
    /// <param name="sheet">Where pages are begun.</param>
    /// <param name="columns">Columns of a page.</param>
    /// <param name="free">Where it begins; null for a page of its own.</param>
    public Flow(DrawingSheet sheet, int columns, FreeRoom? free = null)
    {
        (_sheet, _columns, _free) = (sheet, columns, free);
        if (free is not null) (_board, _y) = (free.Board, free.Top);
    }

    private double Width => _free?.Width ?? (_sheet.Field.Right - _sheet.Field.Left - 10 - (_columns - 1) * Gutter) / _columns;
    private double X => _free?.X ?? _sheet.Field.Left + 5 + _at * (Width + Gutter);
    // the block is no wider than the last columns of a page: all columns end above it
    private double Bottom => _free?.Bottom ?? _sheet.AboveBlock - 3;

    /// <summary>A heading; it never stands alone at the foot.</summary>
    public void Heading(string text)
    {
        Room(16);
        _y += 3;
        _board!.Write(text, X, _y + 3, 2.8, Face.Strong);
        _y += 5.5;
    }

    /// <summary>A paragraph.</summary>
    public void Paragraph(string text, Face face = Face.Text)
    {
        Room(Lead);
        foreach (var line in _board!.Wrap(text, Width, Text, face))
        {
            Room(Lead);
            _board!.Write(line, X, _y + 2.4, Text, face);
            _y += Lead;
        }
    }

    /// <summary>A table; its head is written again on every column that it goes on in.</summary>
    public void Table(IReadOnlyList<Column> columns, IEnumerable<IReadOnlyList<string>> rows)
    {
        var (whole, head) = (columns.Sum(c => c.Share), false);
        foreach (var row in rows)
        {
            Room(Lead);
            var (widths, cells, height) = Laid(row);
            var before = (_board, _at, _free);
            Room(height + (head ? 0 : Lead + RowGap));
            if (before != (_board, _at, _free)) (widths, cells, _) = Laid(row);
            if (!head || before != (_board, _at, _free))
                Row([.. columns.Select(c => (IReadOnlyList<string>)[c.Title])], widths, Face.Strong);
            head = true;
            Row(cells, widths, Face.Text);
        }

        (double[] Widths, IReadOnlyList<string>[] Cells, double Height) Laid(IReadOnlyList<string> row)
        {
            double[] widths = [.. columns.Select(c => c.Share / whole * Width)];
            IReadOnlyList<string>[] cells = [.. row.Select((cell, i) => _board!.Wrap(cell, widths[i] - 2 * Pad, Text))];
            return (widths, cells, cells.Max(c => c.Count) * Lead + RowGap);
        }
    }

    private void Row(IReadOnlyList<IReadOnlyList<string>> cells, double[] widths, Face face)
    {
        var height = cells.Max(c => c.Count) * Lead + RowGap;
        var x = X;
        for (var i = 0; i < cells.Count; x += widths[i++])
            for (var line = 0; line < cells[i].Count; line++)
                _board!.Write(cells[i][line], x + Pad, _y + 2.8 + line * Lead, Text, face);
        _y += height;
        _board!.Draw(face == Face.Strong ? Line.Thin : Line.Hair, X, _y, X + Width, _y);
    }

    /// <summary>Goes on in the next column or page where there is no room.</summary>
    private void Room(double height)
    {
        if (_board is not null && _y + height <= Bottom) return;
        if (_free is not null) (_free, _board) = (null, null);
        if (_board is null || ++_at >= _columns) (_board, _at) = (_sheet.Begin("-"), 0);
        _y = _sheet.Field.Top + 5;
    }
}
