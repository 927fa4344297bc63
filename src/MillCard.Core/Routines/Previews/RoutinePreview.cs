using System.Text;
using MillCard.Core.Documents;
using MillCard.Core.DryRun;
using MillCard.Core.Findings;
using MillCard.Core.Gcode;
using MillCard.Core.Machines;
using MillCard.Core.Rules;
using MillCard.Core.Slicing.Writing;
using MillCard.Core.Starting;

namespace MillCard.Core.Routines.Previews;

/// <summary>One line that a routine wrote.</summary>
/// <param name="From">Line of the routine that wrote it, counted from 1.</param>
/// <param name="Text">As written.</param>
/// <param name="Effect">What it does, in plain words.</param>
/// <param name="Start">When it begins, s from the routine's own begin.</param>
/// <param name="Seconds">How long it takes.</param>
/// <param name="Path">From x, y, z to x, y, z, mm, bed frame, and whether plastic is laid; null where nothing moves or the place is not
/// known.</param>
public sealed record PreviewLine(int From, string Text, string Effect, double Start, double Seconds, PreviewPath? Path)
{
    /// <summary>Lines of the macro it calls.</summary>
    public IReadOnlyList<MacroStep>? Steps { get; init; }
    /// <summary>What of that macro only the running printer knows.</summary>
    public IReadOnlyList<string>? Unfollowed { get; init; }
}

/// <summary>A way of the nozzle, mm, bed frame.</summary>
public sealed record PreviewPath(double X0, double Y0, double Z0, double X1, double Y1, double Z1, bool Extrudes);

/// <summary>A routine as it runs.</summary>
/// <param name="Moment">Its member name in the document.</param>
/// <param name="Pointer">Where its text stands in the card.</param>
/// <param name="Layer">The layer it runs for, counted from 1; null where it runs for none.</param>
/// <param name="At">When it begins, s from the begin of the print.</param>
/// <param name="Seconds">How long it takes.</param>
/// <param name="Endless">Whether a wait in it never ends.</param>
/// <param name="Lines">What it writes.</param>
/// <param name="Values">What the names stand for at that moment.</param>
/// <param name="Series">Temperatures, fan and speed while it runs.</param>
public sealed record PreviewMoment(
    string Moment, string Pointer, int? Layer, double At, double Seconds, bool Endless, IReadOnlyList<PreviewLine> Lines,
        IReadOnlyDictionary<string, object> Values, RunSeries Series);

/// <summary>All routines of a card, run with an imagined part.</summary>
/// <param name="Moments">Those that are not empty.</param>
/// <param name="Findings">About their lines: the pointer names the routine, the line counts in it.</param>
/// <param name="Layers">Layers of the imagined part.</param>
/// <param name="PrintSeconds">Time between start and end.</param>
/// <param name="Part">Its corners x, y, x, y and its height, mm, bed frame.</param>
public sealed record RoutinePreview(IReadOnlyList<PreviewMoment> Moments, IReadOnlyList<Finding> Findings, int Layers, double PrintSeconds,
    IReadOnlyList<double> Part)
{
    private const int Points = 160;
    private const int MostLines = 20_000;

    /// <summary>Runs the routines.</summary>
    /// <param name="machine">The machine.</param>
    /// <param name="filament">In the nozzle; a moderate one where none is given.</param>
    /// <param name="recipe">Heights and speeds; a moderate one where none is given.</param>
    /// <param name="mode">The mode of two carriages; null for the usual one.</param>
    /// <param name="layer">The layer for which those of layers are shown, counted from 1.</param>
    /// <param name="stop">Ends the computation.</param>
    public static RoutinePreview Of(Machine machine, Filament? filament, Recipe? recipe, ModeKind? mode, int layer, CancellationToken stop)
    {
        var card = WrittenOut.WithoutBroken(machine.Card);
        var use = mode is { } kind ? new ModeUse { Kind = kind } : null;
        var written = WrittenOut.Of(Machine.Of(card), filament ?? Proposal.Filament(card), recipe ?? Proposal.Recipe(card), use, stop);
        var (job, imagined, writer, layers, program, failed) = written;
        var whole = job.Machine;
        var shown = Math.Clamp(layer, 1, layers);
        var run = SimulatedMachine.Run(whole, program, job.Filaments, stop);
        var startAt = job.TextOf(RoutineMoment.Start).Pointer;
        var spans = Shown(writer.Spans, shown).ToList();
        var placed = spans.Select(s => (Span: s, Pointer: s.Moment == RoutineMoment.Start ? startAt
            : (string)JsonPointer.Routine(s.Moment.Name), Map: LineMap.Of(s.Moment, s.Template, s.Values, s.Count))).ToArray();
        var moments = placed.Select(p => MomentOf(run, whole, p.Span, p.Pointer, p.Map, p.Span.Moment == RoutineMoment.BeforeLayer
            || p.Span.Moment == RoutineMoment.AfterLayer ? shown : null)).ToList();
        var findings = new List<Finding>([.. failed, .. Mapped(RuleBook.Check(run, whole), run, placed)]);
        findings.AddRange(OfOtherParts(written, run, findings, stop));
        foreach (var moment in new[] { RoutineMoment.Pause, RoutineMoment.Resume, RoutineMoment.Cancel })
            if (Outside(whole, writer, program, run, moment, stop) is { } outside)
            {
                moments.Add(outside.Moment);
                findings.AddRange(outside.Findings);
            }
        var part = job.Parts[0].Part;
        var printed = run.LayersEnd > run.LayersBegin && run.LayersBegin >= 0 ? run.Starts[run.LayersEnd] - run.Starts[run.LayersBegin] : 0;
        return new RoutinePreview(moments, findings, layers, printed,
            [part.X - imagined.Width / 2, part.Y - imagined.Depth / 2, part.X + imagined.Width / 2, part.Y + imagined.Depth / 2,
                imagined.Height]);
    }

    /// <summary>What the end does under a low, a tall or a wide part alone: under the one that is shown it may be harmless.</summary>
    private static IEnumerable<Finding> OfOtherParts(WrittenOut shown, DryRunReport run, IReadOnlyList<Finding> known,
        CancellationToken stop)
    {
        var job = shown.Job;
        if (string.IsNullOrWhiteSpace(job.Machine.Card.Routines.End) && string.IsNullOrWhiteSpace(job.Filament.End)) yield break;
        var seen = known.Select(f => (f.Rule, f.Pointer, f.Line)).ToHashSet();
        foreach (var other in ImaginedPart.Others(job.Machine))
        {
            var (planned, layers) = other.Planned(job.Machine, job.Filament, job.Recipe, job.Mode);
            var writer = new ProgramWriter(planned, layers) { KeepsSpans = true };
            var tried = SimulatedMachine.Run(job.Machine, writer.Write(stop), job.Filaments, stop);
            var ends = writer.Spans.Where(s => s.Moment == RoutineMoment.End)
                .Select(s => (Span: s, Pointer: (string)JsonPointer.Routine(s.Moment.Name),
                    Map: LineMap.Of(s.Moment, s.Template, s.Values, s.Count)))
                    .ToArray();
            foreach (var finding in Mapped(RuleBook.Check(tried, job.Machine), tried, ends))
                if (finding.Severity > Severity.Note && seen.Add((finding.Rule, finding.Pointer, finding.Line)))
                {
                    var (first, rest) = (char.ToLowerInvariant(finding.Message[0]), finding.Message[1..]);
                    yield return finding with { Message = $"With {other.Called}: {first}{rest}" };
                }
        }
    }

    /// <summary>The occurrence of every routine that is shown: those of layers for one layer, the others where they first run.</summary>
    private static IEnumerable<RoutineSpan> Shown(IReadOnlyList<RoutineSpan> spans, int layer) =>
        spans.GroupBy(s => s.Moment).Select(g => g.Key == RoutineMoment.BeforeLayer || g.Key == RoutineMoment.AfterLayer
            ? g.ElementAt(Math.Min(layer - 1, g.Count() - 1)) : g.First());

    private static PreviewMoment MomentOf(DryRunReport run, Machine machine, RoutineSpan span, string pointer, int[] map, int? layer)
    {
        var (first, last) = (span.First, span.First + span.Count - 1);
        var (from, to) = (run.Starts[first], run.Starts[last] + run.Seconds[last]);
        var endless = run.Waits.Any(w => w.Line >= first && w.Line <= last && double.IsInfinity(w.Seconds));
        var calls = run.MacroCalls.Where(c => c.Depth == 0 && c.Line >= first && c.Line <= last).GroupBy(c => c.Line)
            .ToDictionary(g => g.Key, g => g.First());
        var lines = Enumerable.Range(0, Math.Min(span.Count, MostLines)).Select(i =>
        {
            var line = first + i;
            calls.TryGetValue(line, out var call);
            string[] unfollowed = [.. run.Unfollowed.Where(u => u.Line == line).Select(u => u.What)];
            return new PreviewLine(map[i] + 1, run.Text.Text(line), run.EffectOf(line), run.Starts[line] - from, run.Seconds[line],
                PathOf(run, machine, line))
            { Steps = call?.Steps, Unfollowed = unfollowed.Length > 0 ? unfollowed : null };
        });
        return new PreviewMoment(span.Moment.Name, pointer, layer, from, to - from, endless, [.. lines], span.Values,
            RunSeries.Of(run, from, Math.Max(to, from + 1), Points));
    }

    private static PreviewPath? PathOf(DryRunReport run, Machine machine, int line)
    {
        if (run.PathOf(line) is not var (from, to)) return null;
        var (a, b) = (machine.Frames.ToBed(new(from.X, from.Y)), machine.Frames.ToBed(new(to.X, to.Y)));
        return new PreviewPath(Math.Round(a.X, 3), Math.Round(a.Y, 3), from.Z, Math.Round(b.X, 3), Math.Round(b.Y, 3), to.Z,
            run.Moves[run.EffectList[line].First].Extrudes);
    }

    /// <summary>A routine that is called from outside: in the middle of the part, or in its place.</summary>
    private static (PreviewMoment Moment, IReadOnlyList<Finding> Findings)? Outside(Machine machine, ProgramWriter writer,
        ReadOnlyMemory<byte> program, DryRunReport whole, RoutineMoment moment, CancellationToken stop)
    {
        if (moment.Of(machine.Card.Routines) is not { Length: > 0 } template || writer.Spans.Count == 0) return null;
        var values = writer.Spans[^1].Values;
        var middle = whole.LayersBegin + Math.Max(1, (whole.LayersEnd - whole.LayersBegin) / 2);
        var text = new GcodeText(program);
        var lines = new StringBuilder();
        for (var i = 0; i <= middle; i++) lines.Append(text.Text(i)).Append('\n');
        if (moment == RoutineMoment.Resume && machine.Card.Routines.Pause is { } pause)
            lines.Append(RoutineTemplate.Render(RoutineMoment.Pause, pause, values).ReplaceLineEndings("\n").TrimEnd('\n')).Append('\n');
        var first = lines.ToString().AsSpan().Count('\n');
        var written = RoutineTemplate.Render(moment, template, values).ReplaceLineEndings("\n").TrimEnd('\n');
        lines.Append(written).Append('\n');
        var run = SimulatedMachine.Run(machine, Encoding.UTF8.GetBytes(lines.ToString()), whole.Filaments, stop);
        var span = new RoutineSpan(moment, template, values, first, written.AsSpan().Count('\n') + 1);
        var pointer = JsonPointer.Routine(moment.Name);
        var map = LineMap.Of(moment, template, values, span.Count);
        // only what a routine does while it runs is its own; what is on afterwards is the print's
        string[] own = moment == RoutineMoment.Cancel ? []
            : ["nozzle-left-on", "bed-left-on", "fan-left-on", "motors-left-on", "head-left-on-part", "relative-left-on"];
        return (MomentOf(run, machine, span, pointer, map, null),
            [.. Mapped(RuleBook.Check(run, machine).Where(f => !own.Contains(f.Rule)), run, [(span, pointer, map)])]);
    }

    /// <summary>Findings about lines of routines, said of the routines' own lines; what is about the imagined part itself goes.</summary>
    private static IEnumerable<Finding> Mapped(IEnumerable<Finding> findings, DryRunReport run,
        IReadOnlyList<(RoutineSpan Span, string Pointer, int[] Map)> placed)
    {
        foreach (var finding in findings)
        {
            if (finding.Line is not { } line || PlaceOf(line - 1, run, placed) is not { } place) continue;
            yield return finding with { Pointer = place.Pointer, Line = place.Line + 1, Remedy = Moved(finding.Remedy, run, placed) };
        }
    }

    /// <summary>A remedy for the routines' own lines; null where one of its edits cannot be made there.</summary>
    private static Remedy? Moved(Remedy? remedy, DryRunReport run, IReadOnlyList<(RoutineSpan Span, string Pointer, int[] Map)> placed)
    {
        if (remedy is null) return null;
        Edit?[] edits = [.. remedy.Edits.Select(e => Moved(e, run, placed))];
        return edits.Contains(null) ? null : remedy with { Edits = [.. edits.OfType<Edit>()] };
    }

    private static Edit? Moved(Edit edit, DryRunReport run, IReadOnlyList<(RoutineSpan Span, string Pointer, int[] Map)> placed)
    {
        if (edit.Line is not { } line || PlaceOf(line - 1, run, placed) is not { } place) return edit;
        var how = place.Beyond && edit.How == EditKind.InsertBefore ? EditKind.InsertAfter : edit.How;
        var text = edit.Text;
        if (how == EditKind.Replace)
        {
            var (span, _, _) = placed.First(p => p.Pointer == place.Pointer);
            text = InTemplate(run.Text.Text(line - 1), edit.Text!, span.Template.Split('\n')[place.Line].TrimEnd('\r'));
        }
        return text is null && edit.Text is not null ? null
            : edit with { Pointer = place.Pointer, Line = place.Line + 1, How = how, Text = text };
    }

    /// <summary>A change of a written line, made in the template's line that wrote it; null where what changes does not stand there as it
    /// is.</summary>
    private static string? InTemplate(string written, string changed, string template)
    {
        if (!template.Contains('{', StringComparison.Ordinal)) return changed;
        var head = written.AsSpan().CommonPrefixLength(changed);
        var tail = 0;
        while (tail < Math.Min(written.Length, changed.Length) - head && written[^(tail + 1)] == changed[^(tail + 1)]) tail++;
        var old = written[head..^tail];
        // a whole word is looked for, so that a letter of it is not found elsewhere
        while (head > 0 && IsOfWord(written[head - 1])) { head--; old = written[head] + old; }
        while (tail > 0 && IsOfWord(written[^tail])) { old += written[^tail]; tail--; }
        var first = template.IndexOf(old, StringComparison.Ordinal);
        if (old.Length == 0 || first < 0 || template.IndexOf(old, first + 1, StringComparison.Ordinal) >= 0) return null;
        return template[..first] + changed[head..^tail] + template[(first + old.Length)..];
    }

    private static bool IsOfWord(char c) => char.IsLetterOrDigit(c) || c is '_' or '.';

    /// <summary>The routine's line, counted from 0, that a line of the program comes from, or stands right behind.</summary>
    private static (string Pointer, int Line, bool Beyond)? PlaceOf(int line, DryRunReport run,
        IReadOnlyList<(RoutineSpan Span, string Pointer, int[] Map)> placed)
    {
        foreach (var (span, pointer, map) in placed)
        {
            if (line >= span.First && line < span.First + span.Count)
                return (pointer, map[line - span.First], false);
        }
        // what the start leaves behind is said where the layers begin, what the end leaves behind on the last line
        var end = line >= run.Text.Count - 1 ? RoutineMoment.End : null;
        var moment = line <= run.LayersBegin + 4 && run.LayersBegin >= 0 ? RoutineMoment.Start : end;
        foreach (var (span, pointer, _) in placed)
            if (span.Moment == moment) return (pointer, span.Template.TrimEnd('\n').AsSpan().Count('\n'), true);
        return null;
    }
}
