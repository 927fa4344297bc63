using System.Globalization;
using System.Text.RegularExpressions;
using MillCard.Core.Documents;
using MillCard.Core.Findings;
using MillCard.Core.Geometry;
using MillCard.Core.Routines;

namespace MillCard.Core.Rules.CardRules;

/// <summary>A routine that holds a number which equals a size of the bed: the name says the same, and follows when the card
/// changes.</summary>
public sealed partial class HardCodedSize : ICardRule
{
    private const double Least = 20;

    /// <inheritdoc/>
    public RuleId Id { get; } = new("hard-coded-size", Severity.Note);

    /// <inheritdoc/>
    public IEnumerable<Finding> Look(Card card)
    {
        if (card.Envelope.Origin is not { } origin || BoxOf(card.Envelope.Bed) is not { } box) yield break;
        var frames = Frames.Of(origin);
        var (low, high) = (frames.ToMachine(new Point(box.MinX, box.MinY)), frames.ToMachine(new Point(box.MaxX, box.MaxY)));
        var sizes = new (char Letter, double Value, string Name)[]
        {
            ('X', high.X, "bed.max_x"), ('X', low.X, "bed.min_x"), ('X', box.Width, "bed.width"),
            ('Y', high.Y, "bed.max_y"), ('Y', low.Y, "bed.min_y"), ('Y', box.Height, "bed.depth"),
                ('Z', card.Envelope.Height ?? double.NaN, "machine.height"),
        };
        foreach (var moment in RoutineMoment.All)
        {
            var lines = (moment.Of(card.Routines) ?? "").Split('\n');
            for (var i = 0; i < lines.Length; i++)
            {
                var code = lines[i].Split(';')[0];
                if (!Moves().IsMatch(code)) continue;
                foreach (Match word in Word().Matches(code))
                {
                    var value = double.Parse(word.Groups["value"].ValueSpan, CultureInfo.InvariantCulture);
                    var size = sizes.FirstOrDefault(s => s.Letter == char.ToUpperInvariant(word.Value[0])
                        && Math.Abs(s.Value - value) < 1e-6 && Math.Abs(value) >= Least);
                    if (size.Name is null) continue;
                    var edited = lines[i][..word.Index] + word.Value[0] + $"{{{{ {size.Name} }}}}" + lines[i][(word.Index + word.Length)..];
                    yield return (Id.At(JsonPointer.Routine(moment.Name),
                        $"Line {i + 1} of the {moment.Title.ToLowerInvariant()} routine holds {value}, which is "
                            + $"{RoutineNames.All[size.Name]}.",
                            "The name says the same, and follows when the card changes.") with
                    { Line = i + 1 })
                        .Cure($"Write {size.Name}", Edit.Replace(i, edited) with { Pointer = JsonPointer.Routine(moment.Name) });
                }
            }
        }
    }

    /// <summary>The bed's box; null where it is not known, or is one that another rule refuses.</summary>
    private static NetTopologySuite.Geometries.Envelope? BoxOf(Bed? bed) => bed switch
    {
        RectangleBed { Width: { } width, Depth: { } depth } => new(0, width, 0, depth),
        EllipseBed { Width: { } width, Depth: { } depth } => new(0, width, 0, depth),
        PolygonBed { Points: { Count: > 2 } points } when points.All(p => p.Count == 2) =>
            new(points.Min(p => p[0]), points.Max(p => p[0]), points.Min(p => p[1]), points.Max(p => p[1])),
        _ => null,
    };

    [GeneratedRegex(@"^\s*G[0-3]\b", RegexOptions.IgnoreCase)]
    private static partial Regex Moves();

    [GeneratedRegex(@"(?<![{\w.])[XYZ](?<value>-?\d+(\.\d+)?)(?![\d.])(?!\s*[|}])", RegexOptions.IgnoreCase)]
    private static partial Regex Word();
}
