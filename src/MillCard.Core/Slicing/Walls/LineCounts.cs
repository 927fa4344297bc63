namespace MillCard.Core.Slicing.Walls;

/// <summary>How many lines lie across an outline at every rib: what its thickness asks for, but not one more or less for a short stretch
/// alone, and the same on both sides of a middle.</summary>
internal static class LineCounts
{
    /// <summary>A shorter stretch keeps the number that lies on both sides of it, mm.</summary>
    private const double Short = 2.5;

    /// <summary>Middles of discs that lie so near each other belong to one middle, mm.</summary>
    private const double GoesOn = 1;

    /// <summary>The number at every rib of every ring.</summary>
    public static int[][] Of(Outline outline)
    {
        int[][] lines = [.. outline.Thickness.Select(ring => Array.ConvertAll(ring, outline.Beading.Lines))];
        int[][] first = [.. Enumerable.Range(0, lines.Length).Select(ring => Firsts(outline, ring))];
        for (var ring = 0; ring < lines.Length; ring++) Even(outline, ring, first[ring], lines[ring]);
        for (var ring = 0; ring < lines.Length; ring++) Copy(outline, ring, first, lines);
        return lines;
    }

    /// <summary>Ribs from which a middle is reckoned: those of the side that comes first.</summary>
    private static int[] Firsts(Outline outline, int ring) => [.. Enumerable.Range(0, outline.Ribs[ring].Length)
        .Where(i => outline.Ribs[ring][i] is var rib && rib.Faces && rib.OtherRing >= 0 && !outline.IsWide(ring, i) && IsFirst(ring, rib))];

    /// <summary>Every piece of a middle belongs to two sides; it is followed from the one that comes first.</summary>
    public static bool IsFirst(int ring, Rib rib) => rib.OtherRing > ring || rib.OtherRing == ring && rib.OtherAlong > rib.Along;

    private static void Even(Outline outline, int ring, int[] ribs, int[] lines)
    {
        var along = outline.Ribs[ring];
        // the shortest stretches first, so that what flickers comes to rest
        for (var changed = true; changed;)
        {
            changed = false;
            var stretches = Stretches(along, ribs, lines);
            foreach (var k in Enumerable.Range(1, Math.Max(0, stretches.Count - 2))
                .OrderBy(k => along[stretches[k].Last].Along - along[stretches[k].First].Along))
            {
                var (before, here, after) = (stretches[k - 1], stretches[k], stretches[k + 1]);
                if (along[here.Last].Along - along[here.First].Along > Short) break;
                var to = lines[before.Last];
                if (here.Number != before.Number || here.Number != after.Number || to != lines[after.First]) continue;
                var flicker = Array.FindAll(ribs, i => i >= here.First && i <= here.Last);
                if (!Array.TrueForAll(flicker, i => outline.Beading.Allows(outline.Thickness[ring][i], to))) continue;
                foreach (var i in flicker) lines[i] = to;
                changed = true;
                break;
            }
        }
    }

    /// <summary>Stretches of one number each, in order, with the number of the middle to which they belong.</summary>
    private static List<(int First, int Last, int Number)> Stretches(Rib[] ribs, int[] first, int[] lines)
    {
        var (stretches, number) = (new List<(int First, int Last, int Number)>(), 0);
        foreach (var i in first)
        {
            var goesOn = stretches.Count > 0 && ribs[stretches[^1].Last] is var last
                && last.At(last.Radius).To(ribs[i].At(ribs[i].Radius)) < GoesOn;
            if (!goesOn) number++;
            if (goesOn && lines[stretches[^1].Last] == lines[i]) stretches[^1] = stretches[^1] with { Last = i };
            else stretches.Add((i, i, number));
        }
        return stretches;
    }

    /// <summary>The other side takes the number from where its disc touches the first, corners that of both sides of them.</summary>
    private static void Copy(Outline outline, int ring, int[][] first, int[][] lines)
    {
        var (ribs, own) = (outline.Ribs[ring], lines[ring]);
        for (var i = 0; i < ribs.Length; i++)
        {
            var rib = ribs[i];
            if (!rib.Faces || rib.OtherRing < 0 || outline.IsWide(ring, i) || IsFirst(ring, rib)) continue;
            if (Nearest(outline.Ribs[rib.OtherRing], first[rib.OtherRing], rib.OtherAlong) is not { } other) continue;
            var to = lines[rib.OtherRing][other];
            if (outline.Beading.Allows(outline.Thickness[ring][i], to)) own[i] = to;
        }
        var (n, start) = (ribs.Length, Array.FindIndex(ribs, r => r.Faces));
        for (int i = start, next; start >= 0 && i < start + n; i = next)
        {
            for (next = i + 1; !ribs[next % n].Faces && !outline.IsWide(ring, next % n);) next++;
            // the walls of a wide place are not all that lies across it; and where there is much more room between them it is no corner
            if (own[i % n] != own[next % n] || outline.IsWide(ring, i % n) || outline.IsWide(ring, next % n)) continue;
            var most = Math.Max(outline.Thickness[ring][i % n], outline.Thickness[ring][next % n]);
            if (Enumerable.Range(i + 1, next - i - 1).Any(k => outline.Thickness[ring][k % n] > most)) continue;
            for (var k = i + 1; k < next; k++)
                if (outline.Beading.Allows(outline.Thickness[ring][k % n], own[i % n])) own[k % n] = own[i % n];
        }
    }

    private static int? Nearest(Rib[] ribs, int[] first, double along)
    {
        if (first.Length == 0) return null;
        var (low, high) = (0, first.Length - 1);
        while (low < high)
        {
            var middle = (low + high) / 2;
            if (ribs[first[middle]].Along < along) low = middle + 1; else high = middle;
        }
        if (low > 0 && along - ribs[first[low - 1]].Along < Math.Abs(ribs[first[low]].Along - along)) low--;
        return Math.Abs(ribs[first[low]].Along - along) < Short ? first[low] : null;
    }
}
