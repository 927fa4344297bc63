using MillCard.Core.Documents;
using MillCard.Core.Geometry;
using MillCard.Core.Machines;
using MillCard.Core.Records;
using MillCard.Core.Routines;
using MillCard.Core.Rules;
using PdfSharp.Pdf;
using static MillCard.Web.Paper.Board;

namespace MillCard.Web.Paper;

/// <summary>A card on paper: its drawing, then schedule, findings and routines.</summary>
internal static class CardPaper
{
    private const double Dims = 14, HeadRoom = 70, LeastColumn = 90;

    /// <summary>The sheets of a card.</summary>
    /// <param name="card">The card, complete or not.</param>
    /// <param name="size">Size of the paper.</param>
    /// <param name="title">What the title block says.</param>
    public static byte[] Of(Card card, PaperSize size, TitleFields title)
    {
        using var document = new PdfDocument();
        document.Info.Title = title.Title;
        var sheet = new DrawingSheet(document, size, title);
        var free = DrawPage(sheet, card, size);
        var text = new Flow(sheet, size == PaperSize.A3 ? 2 : 1, free);
        Write(text, card);
        sheet.End();
        using var bytes = new MemoryStream();
        document.Save(bytes);
        return bytes.ToArray();
    }

    /// <returns>What is left free beside the drawing, where that is worth while.</returns>
    private static FreeRoom? DrawPage(DrawingSheet sheet, Card card, PaperSize size)
    {
        Machine? machine;
        try
        {
            machine = Machine.OfDraft(card);
        }
        catch (OutlineException)
        {
            machine = null;
        }
        if (machine is null)
        {
            var empty = sheet.Begin("-");
            empty.Write("Nothing can be drawn: the bed is not known yet, or an outline crosses itself.", sheet.Field.Left + 6,
                sheet.Field.Top + 12, 3.5);
            return null;
        }
        var box = machine.Bed.EnvelopeInternal;
        var height = card.Envelope.Height ?? 0;
        var headRoom = size == PaperSize.A3 ? HeadRoom * 1.6 : HeadRoom;
        // plan below, elevation above it, both at one scale; the head beside them
        var room = (Width: sheet.Field.Right - sheet.Field.Left - 3 * Dims - headRoom,
            Height: sheet.AboveBlock - sheet.Field.Top - 3 * Dims);
        var by = Scales.Fitting(box.Width, box.Height + height, room);
        var board = sheet.Begin(Scales.Said(by));
        var (left, floor) = (sheet.Field.Left + 2 * Dims, sheet.Field.Top + Dims + height / by);
        Elevation(board, machine, card, by, left, floor);
        var plan = new PlanView(machine, by, left, floor + 2 * Dims + box.Height / by);
        plan.Draw(board);
        board.Level(left, left + box.Width / by, plan.Bottom, plan.Bottom + 8, Mm(box.Width));
        board.Upright(plan.Bottom - box.Height / by, plan.Bottom, left, left - 8, Mm(box.Height));
        var beside = sheet.Field.Right - headRoom - 4;
        var below = Head(board, card, beside, sheet.Field.Top + 8, headRoom);
        below = Coordinates(board, "keep-outs, from the bed's front left", machine.KeepOuts.Select(k => (k.KeepOut.Name ?? "",
            Span(k.KeepOut.Outline) + (k.KeepOut.Top is { } top ? $", {Mm(top)} high" : ""))),
            (beside, below + 4, headRoom, sheet.AboveBlock - 6));
        below = Coordinates(board, "bodies of the head, from the first nozzle", card.Head.Bodies.Select(b => (b.Name ?? "",
            Span(b.Outline) + $", {Mm(b.Underside)} up")),
            (beside, below, headRoom, sheet.AboveBlock - 6));
        Measured(board, card, beside, below + 4, headRoom, sheet.AboveBlock - 6);
        var from = left + box.Width / by + Dims;
        return beside - 8 - from >= LeastColumn
            ? new FreeRoom(board, from, sheet.Field.Top + 5, beside - 8 - from, sheet.AboveBlock - 6) : null;
    }

    private static void Elevation(Board board, Machine machine, Card card, double by, double left, double floor)
    {
        var box = machine.Bed.EnvelopeInternal;
        var right = left + box.Width / by;
        board.Draw(Line.Wide, left - 4, floor, right + 4, floor);
        board.Write("front", (left + right) / 2, floor + 5, 2.5, Face.Letters, Align.Middle);
        if (card.Envelope.Height is { } height)
        {
            board.Box(Line.Thin, left, floor - height / by, box.Width / by, height / by, dashed: true);
            board.Upright(floor - height / by, floor, left, left - 8, Mm(height));
            if (card.Envelope.Use?.Height is { } use && use < height)
            {
                board.Draw(Line.Thin, left, floor - use / by, right, floor - use / by);
                board.Write($"use {Mm(use)}", right - 1, floor - use / by - 0.8, 2, Face.Letters, Align.Right);
            }
        }
        foreach (var (keepOut, outline) in machine.KeepOuts)
            if (keepOut.Top is { } top)
            {
                var seen = outline.EnvelopeInternal;
                board.Area(Line.Thin, Shapes.Rectangle(seen.MinX, 0, seen.Width, top),
                    at => new(left + at.X / by, floor - at.Y / by), 1.2, crossed: true);
            }
    }

    /// <summary>The head from the front about the first nozzle's tip, with what may hit a part.</summary>
    /// <returns>Where it ends.</returns>
    private static double Head(Board board, Card card, double x, double y, double room)
    {
        const double Shown = 40;
        board.Write("head, from the front", x, y + 2.5, 2.5, Face.Letters);
        var bodies = card.Head.Bodies.Select(b => (b.Name, Box: Shapes.Of(b.Outline, Side.Outside).EnvelopeInternal,
            b.Underside)).ToArray();
        var (low, high) = (Math.Min(-5, bodies.Select(b => b.Box.MinX).DefaultIfEmpty(-5).Min()),
            Math.Max(5, bodies.Select(b => b.Box.MaxX).DefaultIfEmpty(5).Max()));
        var by = Scales.Fitting(high - low, Shown, (room - 34, 60));
        board.Write(Scales.Said(by), x + 40, y + 2.5, 2.5, Face.Letters);
        var tip = (X: x + 4 - low / by, Y: y + 12 + Shown / by);
        board.Draw(Line.Wide, x, tip.Y, x + 8 + (high - low) / by, tip.Y);
        board.Draw(Line.Thin, tip.X, tip.Y, tip.X - 2 / by, tip.Y - 6 / by);
        board.Draw(Line.Thin, tip.X, tip.Y, tip.X + 2 / by, tip.Y - 6 / by);
        board.Draw(Line.Thin, tip.X - 2 / by, tip.Y - 6 / by, tip.X + 2 / by, tip.Y - 6 / by);
        var dims = x + 12 + (high - low) / by;
        foreach (var (name, box, underside) in bodies.Where(b => b.Underside < Shown).OrderBy(b => b.Underside))
        {
            var (from, to) = (tip.X + box.MinX / by, tip.X + box.MaxX / by);
            board.Box(Line.Wide, from, tip.Y - Shown / by, to - from, (Shown - underside) / by);
            board.Write(name, from + 1, tip.Y - Shown / by + 3 + 3 * Array.FindIndex(bodies, b => b.Name == name), 2, Face.Letters);
            board.Upright(tip.Y - underside / by, tip.Y, to, dims, Mm(underside));
            dims += 9;
        }
        var at = tip.Y + 8;
        foreach (var beam in card.Head.Beams)
        {
            var span = Invariant($"{beam.Near:0.##} to {beam.Far:0.##} mm, underside {beam.Underside:0.##}");
            board.Write($"beam along {(beam.Along == BeamAxis.X ? "X" : "Y")}: {span}", x, at, 2, Face.Letters);
            at += 4;
        }
        foreach (var nozzle in card.Head.Nozzles ?? [])
        {
            board.Write(Invariant($"{nozzle.Id}: {nozzle.Diameter:0.##} mm {nozzle.Material}"), x, at, 2, Face.Letters);
            at += 4;
        }
        return at;
    }

    /// <summary>Places by their coordinates in a table (ISO 129-1, dimensioning by coordinates), as far as there is room for it; all of
    /// them stand in the schedule.</summary>
    /// <returns>Where it ends.</returns>
    private static double Coordinates(Board board, string title, IEnumerable<(string Name, string Span)> rows,
        (double X, double Y, double Width, double Bottom) room)
    {
        var y = room.Y;
        foreach (var (i, (name, span)) in rows.Index())
        {
            if (i == 0) board.Write(title, room.X, y, 2.5, Face.Letters);
            if (y + 8 > room.Bottom) return y;
            y += 4.2;
            board.Write(name, room.X, y, 2);
            // where both do not stand beside each other the place has a line of its own
            if (board.Measure(name, 2) + board.Measure(span, 2) + 4 > room.Width) y += 3.2;
            board.Write(span, room.X + room.Width, y, 2, Face.Text, Align.Right);
            board.Draw(Line.Hair, room.X, y + 1.2, room.X + room.Width, y + 1.2);
        }
        return y > room.Y ? y + 6 : y;
    }

    private static string Span(Outline outline)
    {
        if (outline is CircleOutline circle) return $"Ø{Mm(2 * circle.Radius)} about X {Mm(circle.X)}, Y {Mm(circle.Y)}";
        var box = Shapes.Of(outline, Side.Outside).EnvelopeInternal;
        return $"X {Mm(box.MinX)} to {Mm(box.MaxX)}, Y {Mm(box.MinY)} to {Mm(box.MaxY)}";
    }

    /// <summary>What was measured on the machine, as far as there is room for it; all of it stands in the schedule.</summary>
    private static void Measured(Board board, Card card, double x, double y, double width, double bottom)
    {
        ScheduledFact[] measured = [.. CardSchedule.Of(card).Where(f => f.IsMeasured)];
        if (measured.Length == 0) return;
        board.Write("measured", x, y, 2.5, Face.Letters);
        foreach (var fact in measured)
        {
            y += 4.2;
            if (y > bottom) return;
            var value = fact.Unit.Length > 0 ? $"{fact.Value} {fact.Unit}" : fact.Value;
            var room = width - board.Measure(value, 2) - 4;
            var name = fact.Name;
            while (name.Length > 1 && board.Measure(name, 2) > room) name = name[..^2] + "…";
            board.Write(name, x, y, 2);
            board.Write(value, x + width, y, 2, Face.Text, Align.Right);
            board.Draw(Line.Hair, x, y + 1.2, x + width, y + 1.2);
        }
    }

    private static void Write(Flow text, Card card)
    {
        var facts = CardSchedule.Of(card);
        foreach (var group in facts.GroupBy(f => f.Group))
        {
            text.Heading(group.Key);
            text.Table([new("fact", 34), new("value", 26), new("source", 24), new("notes by hand", 26)],
                group.Select(f => (IReadOnlyList<string>)[f.Name, f.Unit.Length > 0 ? $"{f.Value} {f.Unit}" : f.Value, f.Source, ""]));
        }
        if (!string.IsNullOrWhiteSpace(card.Notes))
        {
            text.Heading("Notes");
            text.Paragraph(card.Notes);
        }
        var findings = RuleBook.Check(card);
        text.Heading("Findings");
        if (findings.Count == 0) text.Paragraph("The rules about cards say nothing against it.");
        else
            text.Table([new("", 12), new("finding", 60), new("accepted because", 38)],
                findings.Select(f =>
                    (IReadOnlyList<string>)[f.Severity.ToString().ToLowerInvariant(), f.Message, f.AcceptedBecause ?? ""]));
        foreach (var routine in OwnRoutine.Of(card))
        {
            text.Heading(routine.Title);
            text.Paragraph(routine.Text.TrimEnd(), Face.Code);
        }
    }

    private static string Mm(double value) => Invariant($"{value:0.##}");
}
