using System.Text;

namespace MillCard.Core.Routines;

/// <summary>Which line of a template wrote which line of its output.</summary>
public static class LineMap
{
    private const char Open = '\uE000', Close = '\uE001';

    /// <summary>For every line written, the line of the template, both counted from 0.</summary>
    /// <param name="moment">Whose text it is.</param>
    /// <param name="template">The template.</param>
    /// <param name="values">What names stand for.</param>
    /// <param name="written">Lines that it wrote.</param>
    public static int[] Of(RoutineMoment moment, string template, IReadOnlyDictionary<string, object> values, int written)
    {
        var last = template.AsSpan().Count('\n');
        if (!template.Contains("{%", StringComparison.Ordinal)) return [.. Enumerable.Range(0, written).Select(i => Math.Min(i, last))];
        string marked;
        try { marked = RoutineTemplate.Render(moment, Marked(template), values).ReplaceLineEndings("\n").TrimEnd('\n'); }
        catch (RoutineException) { return [.. Enumerable.Range(0, written).Select(i => Math.Min(i, last))]; }
        var map = new int[written];
        var (line, now) = (0, 0);
        foreach (var text in marked.Split('\n'))
        {
            if (line >= written) break;
            // what a line holds besides marks decides which mark counts: the last one before its first letter
            var at = 0;
            while (at < text.Length && text[at] == Open && text.IndexOf(Close, at) is var close and > 0)
            {
                now = int.Parse(text.AsSpan(at + 1, close - at - 1), System.Globalization.CultureInfo.InvariantCulture);
                at = close + 1;
            }
            map[line++] = now;
            if (text.LastIndexOf(Open) is var later and > 0 && text.IndexOf(Close, later) is var end and > 0)
                now = int.Parse(text.AsSpan(later + 1, end - later - 1), System.Globalization.CultureInfo.InvariantCulture);
        }
        return map;
    }

    /// <summary>The template with the number of its line at the begin of every line and behind every tag, where text can stand.</summary>
    private static string Marked(string template) => Marked(template, (_, line) => line);

    /// <summary>The same with the position in the text in place of the line's number.</summary>
    internal static string MarkedByPlace(string template) => Marked(template, (place, _) => place);

    /// <summary>The last mark that a marked template wrote before it failed; 0 where it wrote none.</summary>
    internal static int LastMark(string written) =>
        written.LastIndexOf(Close) is var close and > 0 && written.LastIndexOf(Open, close) is var open and >= 0
            ? int.Parse(written.AsSpan(open + 1, close - open - 1), System.Globalization.CultureInfo.InvariantCulture)
            : 0;

    private static string Marked(string template, Func<int, int, int> number)
    {
        var marked = new StringBuilder(template.Length + 256);
        var (at, line, text) = (0, 0, true);
        Mark(0);
        foreach (var (start, end) in TagScan.Tags(template))
        {
            Plain(start);
            marked.Append(template, start, end - start);
            line += template.AsSpan(start, end - start).Count('\n');
            at = end;
            // nothing but a tag may stand between case and when
            text = !template.AsSpan(start, end - start).TrimStart("{%- ").StartsWith("case");
            Mark(end);
        }
        Plain(template.Length);
        return marked.ToString();

        void Plain(int until)
        {
            for (; at < until; at++)
            {
                marked.Append(template[at]);
                if (template[at] != '\n') continue;
                line++;
                Mark(at + 1);
            }
        }

        // a mark beside a tag that trims would keep it from trimming
        void Mark(int place)
        {
            var trims = place > 2 && template[place - 1] == '}' && template[place - 3] == '-' || template.AsSpan(place).TrimStart()
                .StartsWith("{%-") || template.AsSpan(place).TrimStart().StartsWith("{{-");
            if (text && !trims) marked.Append(Open).Append(number(place, line)).Append(Close);
        }
    }
}
