using System.Text.Json;
using Microsoft.EntityFrameworkCore;
using MillCard.Core.Documents;

namespace MillCard.Store;

/// <summary>What a search found.</summary>
/// <param name="Kind">"card", "filament", "recipe", "trial", "revision" or "print".</param>
/// <param name="Id">The document's id; of a revision or a print, its document's.</param>
/// <param name="Name">The document's name; empty where it has none.</param>
/// <param name="Place">Where the document stands.</param>
/// <param name="SavedAt">When it was last changed.</param>
/// <param name="Pointer">Where in the document the words stand; null where they are its name, or in a revision's note or a print's record.
/// </param>
/// <param name="Line">Line of a text of several lines, counted from 1; null for others.</param>
/// <param name="Text">What stands there, cut to a line.</param>
public sealed record Found(string Kind, Guid Id, string Name, DocumentPlace Place, DateTimeOffset SavedAt, string? Pointer, int? Line,
    string Text);

/// <summary>Searches everything that is written down: names, tags, notes, routines, values in words, notes of revisions, records of prints.
/// </summary>
public sealed class SearchStore(MillCardContext context)
{
    /// <summary>Most that is found at once.</summary>
    public const int Most = 60;
    private const int MostWords = 8;
    private const int Shown = 90;

    /// <summary>What holds all words, names first, then the last changed; with no word, what was changed last.</summary>
    /// <param name="text">Words, in any order, whole or in part.</param>
    /// <param name="stop">Ends the search.</param>
    public async Task<IReadOnlyList<Found>> FindAsync(string text, CancellationToken stop)
    {
        string[] words = [.. text.Split((char[]?)null, StringSplitOptions.RemoveEmptyEntries).Take(MostWords)];
        string[] plain = [.. words.Select(w => $"%{Like(w)}%")];
        // a text in JSON is escaped: a word is looked for as it stands there
        string[] escaped = [.. words.Select(w => $"%{Like(Escaped(w))}%")];
        var documents = context.Documents.FromSql($"select *, xmin from document where draft::text ilike all ({escaped})").AsNoTracking();
        var revisions = context.Revisions.FromSql($"select * from revision where note ilike all ({plain})").AsNoTracking();
        var prints = context.Prints.FromSql($"select * from print where record::text ilike all ({escaped})").AsNoTracking();
        var rows = await documents.OrderByDescending(d => d.SavedAt).Take(words.Length == 0 ? 12 : 400)
            .Select(d => new { d.Id, d.Kind, d.Name, d.Place, d.SavedAt, d.Draft }).ToListAsync(stop);
        var found = rows.Select(d => InDocument(d.Kind, d.Id, d.Name, d.Place, d.SavedAt, d.Draft, words)).OfType<Found>().ToList();
        if (words.Length > 0)
        {
            var notes = await revisions.OrderByDescending(r => r.At).Take(Most).Join(context.Documents, r => r.DocumentId, d => d.Id,
                (r, d) => new { d.Id, d.Name, d.Place, r.Number, r.Note, r.At }).ToListAsync(stop);
            found.AddRange(notes.Where(n => n.Note.Length > 0).Select(n => new Found("revision", n.Id, n.Name, n.Place, n.At, null, null,
                $"{RevisionStore.LetterOf(n.Number)}: {Cut(n.Note, words[0])}")));
            var records = await prints.OrderByDescending(p => p.At).Take(Most).Join(context.Documents, p => p.CardId, d => d.Id,
                (p, d) => new { d.Id, d.Name, d.Place, p.Record, p.At }).ToListAsync(stop);
            found.AddRange(records.SelectMany(r => Texts(JsonDocument.Parse(r.Record).RootElement, "")
                .Where(t => words.All(w => Holds(t.Text, w)))
                .Take(1).Select(t => new Found("print", r.Id, r.Name, r.Place, r.At, null, null, Cut(t.Text, words[0])))));
        }
        return [.. found.OrderBy(f => f.Place == DocumentPlace.Bin).ThenByDescending(f => words.Length > 0
            && words.All(w => Holds(f.Name, w))
            && f.Kind is not ("revision" or "print")).ThenByDescending(f => f.SavedAt).Take(Most)];
    }

    private static Found? InDocument(string kind, Guid id, string name, DocumentPlace place, DateTimeOffset at, string draft,
        string[] words)
    {
        Found At(string? pointer, int? line, string text) => new(kind, id, name, place, at, pointer, line, text);
        if (words.All(w => Holds(name, w))) return At(null, null, "");
        var texts = Texts(JsonDocument.Parse(draft).RootElement, "").ToArray();
        // the words may stand in different places; names of members are no texts
        if (!words.All(w => texts.Any(t => Holds(t.Text, w)))) return null;
        var (pointer, text) = texts.Where(t => t.Pointer != "/name").MaxBy(t => words.Count(w => Holds(t.Text, w)));
        var word = words.FirstOrDefault(w => Holds(text, w)) ?? words[0];
        var lines = text.Split('\n');
        var line = Math.Max(0, Array.FindIndex(lines, l => Holds(l, word)));
        return At(pointer, lines.Length > 1 ? line + 1 : null, Cut(lines[line], word));
    }

    private static IEnumerable<(string Pointer, string Text)> Texts(JsonElement json, JsonPointer at) => json.ValueKind switch
    {
        JsonValueKind.Object => json.EnumerateObject().Where(m => m.Name is not ("schema" or "id" or "file"))
            .SelectMany(m => Texts(m.Value, at / m.Name)),
        JsonValueKind.Array => json.EnumerateArray().SelectMany((one, i) => Texts(one, at / i)),
        JsonValueKind.String => [((string)at, json.GetString()!)],
        _ => [],
    };

    private static bool Holds(string text, string word) => text.Contains(word, StringComparison.OrdinalIgnoreCase);

    /// <summary>A line's piece round a word.</summary>
    private static string Cut(string line, string word)
    {
        line = line.ReplaceLineEndings(" ").Trim();
        if (line.Length <= Shown) return line;
        var from = Math.Clamp(line.IndexOf(word, StringComparison.OrdinalIgnoreCase) - Shown / 3, 0, line.Length - Shown);
        return string.Concat(from > 0 ? "…" : "", line.AsSpan(from, Shown), from + Shown < line.Length ? "…" : "");
    }

    private static string Escaped(string word) => JsonSerializer.Serialize(word, DocumentJson.Options)[1..^1];

    private static string Like(string word) => word.Replace("\\", "\\\\", StringComparison.Ordinal).Replace("%", "\\%",
        StringComparison.Ordinal)
        .Replace("_", "\\_", StringComparison.Ordinal);
}
