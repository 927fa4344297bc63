using MillCard.Core.Documents;
using MillCard.Core.Reach;
using MillCard.Core.Settings;
using MillCard.Web.Trials;
using PdfSharp.Pdf;
using static MillCard.Web.Paper.Board;

namespace MillCard.Web.Paper;

/// <summary>A trial on paper: the plan with its parts, parts list, settings, time, what to watch.</summary>
internal static class TrialPaper
{
    private const double Margin = 14;

    /// <summary>The sheets of a trial.</summary>
    /// <param name="trial">The trial with all it names.</param>
    /// <param name="parts">Its parts as they stand.</param>
    /// <param name="run">What came of its last program; null where there is none.</param>
    /// <param name="isOld">Whether the trial was changed since.</param>
    /// <param name="settings">What is set otherwise than usual, and by whom; empty where filament or recipe are not chosen.</param>
    /// <param name="size">Size of the paper.</param>
    /// <param name="title">What the title block says.</param>
    public static byte[] Of(LaidOutTrial trial, IReadOnlyList<StandingPart> parts, RunResult? run, bool isOld,
        IReadOnlyList<ResolvedSetting> settings, PaperSize size, TitleFields title)
    {
        using var document = new PdfDocument();
        document.Info.Title = title.Title;
        var sheet = new DrawingSheet(document, size, title);
        Plan(sheet, trial, parts);
        var text = new Flow(sheet, size == PaperSize.A3 ? 2 : 1);
        Write(text, trial, parts, run, isOld, settings);
        sheet.End();
        using var bytes = new MemoryStream();
        document.Save(bytes);
        return bytes.ToArray();
    }

    private static void Plan(DrawingSheet sheet, LaidOutTrial trial, IReadOnlyList<StandingPart> parts)
    {
        var box = trial.Machine.Bed.EnvelopeInternal;
        var room = (Width: sheet.Field.Right - sheet.Field.Left - 3 * Margin, Height: sheet.AboveBlock - sheet.Field.Top - 2 * Margin);
        var by = Scales.Fitting(box.Width, box.Height, room);
        var board = sheet.Begin(Scales.Said(by));
        var plan = new PlanView(trial.Machine, by, sheet.Field.Left + 2 * Margin, sheet.Field.Top + Margin + box.Height / by);
        plan.Draw(board);
        board.Level(plan.X, plan.X + box.Width / by, plan.Bottom, plan.Bottom + 8, Invariant($"{box.Width:0.##}"));
        board.Upright(plan.Bottom - box.Height / by, plan.Bottom, plan.X, plan.X - 8, Invariant($"{box.Height:0.##}"));
        foreach (var (i, part) in parts.Index())
        {
            var placed = part.Footprints.Placed(part.Footprints.Whole, part.X, part.Y, part.Turn);
            board.Area(Line.Wide, placed, plan.Place);
            var at = plan.Place(placed.EnvelopeInternal.Centre);
            board.Write(Invariant($"{i + 1}"), at.X, at.Y + 1.2, 3.5, Face.Letters, Align.Middle);
        }
    }

    private static void Write(Flow text, LaidOutTrial trial, IReadOnlyList<StandingPart> parts, RunResult? run, bool isOld,
        IReadOnlyList<ResolvedSetting> settings)
    {
        text.Heading("Parts");
        text.Table([new("item", 8), new("part", 46), new("size, mm", 30), new("stands at", 26), new("notes by hand", 30)],
            parts.Select((p, i) => (IReadOnlyList<string>)[Invariant($"{i + 1}"), p.Name, SizeOf(p),
                Invariant($"{p.X:0.##}, {p.Y:0.##}") + (p.Turn == 0 ? "" : Invariant($", {p.Turn:0.##}°")), ""]));
        text.Heading("Printed with");
        text.Table([new("", 30), new("", 80)], ((string Name, string Value)[])
        [
            ("machine", trial.Machine.Card.Name ?? ""), ("filament", trial.Filament?.Name ?? "not chosen"),
            .. trial.SecondFilament is { } second ? [("second filament", second.Name ?? "")] : Array.Empty<(string, string)>(),
            ("recipe", trial.Recipe?.Name ?? "not chosen"),
            ("sequence", trial.Trial.Sequence == Sequence.AllAtOnce ? "all at once" : "one after the other"),
        ] is var rows ? rows.Select(r => (IReadOnlyList<string>)[r.Name, r.Value]) : []);
        text.Heading("What comes of it");
        if (run is null) text.Paragraph("It has not been computed yet: time, plastic and what to watch are not known.");
        else
        {
            if (isOld) text.Paragraph("The trial was changed after this was computed.");
            text.Paragraph(Invariant($"{Duration(run.Seconds)}, {run.Layers} layers, {run.Filament / 1000:0.##} m of filament")
                + (run.Grams is { } grams ? Invariant($", {grams:0.#} g") : "")
                    + (run.Cost is { } cost ? Invariant($", {cost:0.00}") : ""));
            text.Heading("What to watch");
            if (run.Findings.Count == 0) text.Paragraph("The dry run of its program came out without a finding.");
            else
                text.Table([new("", 12), new("finding", 70), new("why", 60)], run.Findings.OrderByDescending(f => f.Severity)
                    .Select(f => (IReadOnlyList<string>)[f.Severity.ToString().ToLowerInvariant(), f.Message, f.Why]));
        }
        if (trial.Trial.Stops.Count > 0)
        {
            text.Heading("Events");
            text.Table([new("from height, mm", 30), new("what", 50), new("value or lines", 50)], trial.Trial.Stops.OrderBy(s => s.Z)
                .Select(s => (IReadOnlyList<string>)[Invariant($"{s.Z:0.##}"), Said(s.For),
                    s.Lines ?? (s.Value is { } value ? Invariant($"{value:0.##}") : "")]));
        }
        if (settings.Count > 0)
        {
            text.Heading("Settings that somebody has set");
            text.Table([new("setting", 50), new("value", 26), new("by", 36)],
                settings.Select(s => (IReadOnlyList<string>)[s.Label, s.Unit.Length > 0 ? $"{s.Value} {s.Unit}" : s.Value, s.Who]));
        }
    }

    private static string Said(StopKind kind) => kind switch
    {
        StopKind.Filament => "change the filament",
        StopKind.Pause => "pause",
        StopKind.Lines => "own lines of G-code",
        StopKind.Temperature => "nozzle's temperature, °C",
        StopKind.Speed => "share of speed",
        _ => "share of fan",
    };

    private static string SizeOf(StandingPart part)
    {
        var box = part.Footprints.Box;
        return Invariant($"{box.MaxX - box.MinX:0.#} × {box.MaxY - box.MinY:0.#} × {box.MaxZ - box.MinZ:0.#}");
    }

    private static string Duration(double seconds) => TimeSpan.FromSeconds(Math.Round(seconds / 60) * 60) is var time
        ? Invariant($"{(int)time.TotalHours} h {time.Minutes} min") : "";
}
