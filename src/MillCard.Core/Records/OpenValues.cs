using MillCard.Core.Documents;

namespace MillCard.Core.Records;

/// <summary>A value that is open for a fact.</summary>
/// <param name="Value">The value.</param>
/// <param name="Prints">How many prints tried it.</param>
/// <param name="Worst">The worst of what came of them.</param>
public sealed record OpenValue(double Value, int Prints, PrintOutcome Worst);

/// <summary>Values that are open for one fact, the safest first.</summary>
/// <param name="Pointer">The fact.</param>
/// <param name="Values">Proposed in this order.</param>
public sealed record OpenFact(string Pointer, IReadOnlyList<OpenValue> Values);

/// <summary>Which values prints have left open, and which of them to try first.</summary>
public static class OpenValues
{
    // more room, more distance: the larger is safer; for speeds, temperatures, flows, heights and the rest the smaller is. Common practice,
    // no source
    private static readonly string[] LargerIsSafer = ["clearance", "margin", "leastDistance", "top", "tolerance", "lift"];

    /// <summary>Of the records of a card.</summary>
    public static IReadOnlyList<OpenFact> Of(IEnumerable<PrintRecord> records) =>
        [.. from record in records
            from tried in record.Tried
            group (tried.Value, Outcome: record.Outcome ?? PrintOutcome.Good) by tried.Pointer into fact
            let values = fact.GroupBy(t => t.Value).Select(v => new OpenValue(v.Key, v.Count(), v.Max(t => t.Outcome)))
                .Where(v => v.Worst != PrintOutcome.Failed).ToArray()
            where values.Length > 0
            orderby fact.Key
            select new OpenFact(fact.Key, SaferFirst(fact.Key, values))];

    private static IReadOnlyList<OpenValue> SaferFirst(string pointer, IEnumerable<OpenValue> values)
    {
        var name = JsonPointer.TryParse(pointer, out var place) ? place.Last : pointer;
        return LargerIsSafer.Contains(name) ? [.. values.OrderByDescending(v => v.Value)] : [.. values.OrderBy(v => v.Value)];
    }
}
