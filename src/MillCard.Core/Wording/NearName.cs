namespace MillCard.Core.Wording;

/// <summary>Finds the name that a wrong one may have meant.</summary>
public static class NearName
{
    /// <summary>The nearest name: its words swapped, or few letters changed.</summary>
    /// <param name="wrong">As written.</param>
    /// <param name="joint">What stands between the words of a name.</param>
    /// <param name="names">Those that there are.</param>
    /// <returns>Null where none is near.</returns>
    public static string? Of(string wrong, char joint, IEnumerable<string> names)
    {
        var known = names as IReadOnlyCollection<string> ?? [.. names];
        var words = string.Join(joint, wrong.Split(joint).Order(StringComparer.Ordinal));
        if (known.FirstOrDefault(n => n.Length == wrong.Length
            && string.Join(joint, n.Split(joint).Order(StringComparer.Ordinal)) == words) is { } swapped) return swapped;
        var best = known.Select(name => (Name: name, Distance: Distance(name, wrong))).OrderBy(n => n.Distance)
            .ThenBy(n => n.Name, StringComparer.Ordinal).FirstOrDefault();
        return best.Name is not null && best.Distance <= Math.Max(2, wrong.Length / 3) ? best.Name : null;
    }

    /// <summary>Edit distance (Levenshtein).</summary>
    private static int Distance(string a, string b)
    {
        var row = Enumerable.Range(0, b.Length + 1).ToArray();
        for (var i = 1; i <= a.Length; i++)
        {
            var diagonal = row[0];
            row[0] = i;
            for (var j = 1; j <= b.Length; j++)
            {
                var change = diagonal + (a[i - 1] == b[j - 1] ? 0 : 1);
                diagonal = row[j];
                row[j] = Math.Min(change, Math.Min(row[j], row[j - 1]) + 1);
            }
        }
        return row[b.Length];
    }
}
