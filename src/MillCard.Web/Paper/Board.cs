using PdfSharp.Drawing;
using PdfSharp.Pdf;
using NetTopologySuite.Geometries;

namespace MillCard.Web.Paper;

/// <summary>A page to draw on in millimetres of paper, from its upper left corner; all of it stays vectors.</summary>
internal sealed class Board : IDisposable
{
    private const double Hair = 0.13, Thin = 0.18, Wide = 0.5;
    private readonly XGraphics _on;

    /// <summary>Adds a page.</summary>
    public Board(PdfDocument document, double width, double height)
    {
        var page = document.AddPage();
        (page.Width, page.Height) = (XUnit.FromMillimeter(width), XUnit.FromMillimeter(height));
        _on = XGraphics.FromPdfPage(page, XGraphicsUnit.Millimeter);
        (Width, Height) = (width, height);
    }

    /// <summary>Widths of lines, ISO 128-2: narrow and wide, and the thinnest that prints.</summary>
    public enum Line
    {
        /// <summary>Hatching, grids.</summary>
        Hair,
        /// <summary>Dimensions, leaders, tables.</summary>
        Thin,
        /// <summary>Outlines, the frame.</summary>
        Wide,
    }

    /// <summary>mm.</summary>
    public double Width { get; }
    /// <summary>mm.</summary>
    public double Height { get; }

    /// <summary>A line.</summary>
    public void Draw(Line line, double x1, double y1, double x2, double y2, bool dashed = false) =>
        _on.DrawLine(Pen(line, dashed), x1, y1, x2, y2);

    /// <summary>A rectangle.</summary>
    public void Box(Line line, double x, double y, double width, double height, bool dashed = false) =>
        _on.DrawRectangle(Pen(line, dashed), x, y, width, height);

    /// <summary>A filled rectangle in ink.</summary>
    public void Fill(double x, double y, double width, double height) => _on.DrawRectangle(XBrushes.Black, x, y, width, height);

    /// <summary>A polygon with its holes; lines cross it where it is hatched.</summary>
    /// <param name="line">Its outline.</param>
    /// <param name="area">In its own plane, mm.</param>
    /// <param name="place">From the plane to the paper.</param>
    /// <param name="hatch">Distance of lines, mm; 0 for none.</param>
    /// <param name="crossed">Whether they run both ways.</param>
    public void Area(Line line, Geometry area, Func<Coordinate, XPoint> place, double hatch = 0, bool crossed = false)
    {
        var path = new XGraphicsPath { FillMode = XFillMode.Alternate };
        for (var i = 0; i < area.NumGeometries; i++)
            if (area.GetGeometryN(i) is Polygon { IsEmpty: false } polygon)
                foreach (var ring in new[] { polygon.ExteriorRing }.Concat(polygon.InteriorRings))
                    path.AddPolygon([.. ring.Coordinates[..^1].Select(place)]);
        if (hatch > 0 && !area.IsEmpty)
        {
            var corners = area.Envelope.Coordinates.Select(place).ToArray();
            var (left, right) = (corners.Min(c => c.X), corners.Max(c => c.X));
            var (top, bottom) = (corners.Min(c => c.Y), corners.Max(c => c.Y));
            var state = _on.Save();
            _on.IntersectClip(path);
            for (var by = -(bottom - top); by <= right - left; by += hatch)
            {
                _on.DrawLine(Pen(Line.Hair), left + by, bottom, left + by + bottom - top, top);
                if (crossed) _on.DrawLine(Pen(Line.Hair), left + by, top, left + by + bottom - top, bottom);
            }
            _on.Restore(state);
        }
        _on.DrawPath(Pen(line), path);
    }

    /// <summary>A dot with its place.</summary>
    public void Dot(double x, double y, double radius) => _on.DrawEllipse(XBrushes.Black, x - radius, y - radius, 2 * radius, 2 * radius);

    /// <summary>An arrow head of ISO 129-1 with its tip at a point.</summary>
    public void Arrow(double x, double y, double towardsX, double towardsY)
    {
        const double Length = 2.5, Half = 0.42;
        _on.DrawPolygon(XBrushes.Black, [new XPoint(x, y),
            new XPoint(x - Length * towardsX + Half * towardsY, y - Length * towardsY - Half * towardsX),
            new XPoint(x - Length * towardsX - Half * towardsY, y - Length * towardsY + Half * towardsX)], XFillMode.Winding);
    }

    /// <summary>A text on one line, its base line at Y.</summary>
    /// <returns>Its width, mm.</returns>
    public double Write(string text, double x, double y, double height = 2.5, Face face = Face.Text, Align align = Align.Left)
    {
        if (text.Length == 0) return 0;
        // height of capitals as ISO 3098 counts it; capitals of these faces are 0.7 of their size
        var pieces = Faces.Set(text, face, height / 0.7).ToArray();
        var widths = pieces.Select(p => _on.MeasureString(p.Piece, p.Font).Width).ToArray();
        var whole = widths.Sum();
        var at = align switch { Align.Right => x - whole, Align.Middle => x - whole / 2, _ => x };
        for (var i = 0; i < pieces.Length; at += widths[i++]) _on.DrawString(pieces[i].Piece, pieces[i].Font, XBrushes.Black, at, y);
        return whole;
    }

    /// <summary>A short text over something drawn, on paper of its own.</summary>
    public void Label(string text, double x, double y, double height = 2)
    {
        var width = Measure(text, height, Face.Letters);
        _on.DrawRectangle(XBrushes.White, x - width / 2 - 0.4, y - height - 0.4, width + 0.8, height + 0.9);
        Write(text, x, y, height, Face.Letters, Align.Middle);
    }

    /// <summary>Width of a text, mm.</summary>
    public double Measure(string text, double height = 2.5, Face face = Face.Text) => text.Length == 0 ? 0
        : Faces.Set(text, face, height / 0.7).Sum(p => _on.MeasureString(p.Piece, p.Font).Width);

    /// <summary>A text in lines that are no wider than may be; words that are too long are broken.</summary>
    public IReadOnlyList<string> Wrap(string text, double width, double height = 2.5, Face face = Face.Text)
    {
        var lines = new List<string>();
        foreach (var paragraph in text.Split('\n'))
        {
            var line = "";
            foreach (var word in paragraph.TrimEnd().Split(' '))
            {
                var longer = line.Length == 0 ? word : $"{line} {word}";
                if (Measure(longer, height, face) <= width)
                {
                    line = longer;
                    continue;
                }
                if (line.Length > 0) lines.Add(line);
                line = word;
                for (var fits = Fitting(line, width, height, face); fits < line.Length; fits = Fitting(line, width, height, face))
                {
                    lines.Add(line[..fits]);
                    line = line[fits..];
                }
            }
            lines.Add(line);
        }
        return lines;
    }

    /// <summary>How many characters of a text fit a width, at least one; found by halving, however long the text is.</summary>
    private int Fitting(string text, double width, double height, Face face)
    {
        const int Widest = 1000;
        var (fits, tooMany) = (1, Math.Min(text.Length, Widest) + 1);
        while (tooMany - fits > 1)
        {
            var middle = (fits + tooMany) / 2;
            if (Measure(text[..middle], height, face) <= width) fits = middle;
            else tooMany = middle;
        }
        return fits;
    }

    /// <inheritdoc/>
    public void Dispose() => _on.Dispose();

    private static XPen Pen(Line line, bool dashed = false)
    {
        var width = line switch { Line.Hair => Hair, Line.Thin => Thin, _ => Wide };
        var pen = new XPen(XColors.Black, width);
        if (dashed) pen.DashPattern = [3 / width, 1.5 / width];
        return pen;
    }
}

/// <summary>How a text stands to its place.</summary>
internal enum Align
{
    /// <summary>It begins there.</summary>
    Left,
    /// <summary>Its middle is there.</summary>
    Middle,
    /// <summary>It ends there.</summary>
    Right,
}
