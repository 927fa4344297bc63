using MillCard.Core.Findings;
using MillCard.Core.Machines;

namespace MillCard.Core.Reach;

/// <summary>What a part violates with its skirt, and would not without: told of the skirt, with the gap that fits.</summary>
internal sealed class SkirtAlone(
    Fit fit, StandingPart part, PlacedPart[] all, ModePlan? plan, Cures cures, CancellationToken stop)
{
    private const double Step = 0.05;

    public List<Violation> Told(List<Violation> found)
    {
        var bare = In(fit.Bare);
        List<Violation> both = [.. found.Where(v => bare.Any(b => Same(b, v))).Select(v => Both(v, bare.First(b => Same(b, v))))];
        if (both.Count == found.Count) return both;
        var skirts = In(fit, FootprintPart.Skirt).Where(v => !bare.Any(b => Same(b, v))).ToArray();
        var remedy = cures == Cures.Sought ? Remedy(skirts.Max(v => v.Distance), bare.Count) : null;
        return [.. both, .. skirts.Select(v => remedy is null ? v
            : v with { Message = $"{v.Message} {Sentence(remedy)}", Remedy = remedy })];
    }

    /// <summary>The part itself and, further, its skirt.</summary>
    private static Violation Both(Violation whole, Violation bare) => whole.Distance - bare.Distance < 0.005 ? whole
        : whole with { Message = $"{bare.Message[..^1]}; its skirt {whole.Distance:0.00} mm." };

    private static bool Same(Violation a, Violation b) => (a.Kind, a.With, a.By) == (b.Kind, b.With, b.By);

    private IReadOnlyList<Violation> In(Fit other, FootprintPart told = FootprintPart.Whole) =>
        other.ViolationsOf(Array.FindIndex(all, p => ReferenceEquals(p.Part, part)), all.Select(p => p.Part), plan, told, stop);

    /// <summary>A smaller gap, tried out; or no skirt where none is small enough.</summary>
    private Remedy? Remedy(double over, int without)
    {
        stop.ThrowIfCancellationRequested();
        for (var gap = Math.Floor((fit.Gap - over) / Step) * Step; gap >= 0; gap = Math.Floor(gap / 2 / Step) * Step)
        {
            gap = Math.Round(gap, 2);
            if (In(fit.WithGap(gap)).Count == without)
                return new(Invariant($"a gap of {gap:0.##} mm"), [Edit.Fact("/skirt/gap", gap)]);
            if (gap == 0) break;
        }
        return new("no skirt", [Edit.Fact("/skirt/rounds", 0)]);
    }

    private static string Sentence(Remedy remedy) => remedy.Edits[0].Pointer == "/skirt/rounds"
        ? "No gap is small enough; without a skirt it fits." : $"{char.ToUpperInvariant(remedy.Label[0])}{remedy.Label[1..]} fits.";
}
