using MillCard.Core.Documents;

namespace MillCard.Core.Meshes;

/// <summary>Parts of an assembly tilted as one piece.</summary>
public static class TiltedTogether
{
    /// <summary>The parts with turns, tilts and places so that one of them is tilted as asked and all keep their places to each other. The
    /// middle of their common box stays where it is seen from above, and so does the height of their lowest point.</summary>
    /// <param name="parts">Parts as they stand.</param>
    /// <param name="meshes">Their meshes, as the files have them.</param>
    /// <param name="leads">Place in the list of the part whose tilt is asked for.</param>
    /// <param name="tilt">Its tilt, degrees.</param>
    /// <param name="onBed">Whether the lowest point comes to lie on the bed.</param>
    public static IReadOnlyList<TrialPart> Of(IReadOnlyList<TrialPart> parts, IReadOnlyList<Mesh> meshes, int leads, Tilt tilt, bool onBed)
    {
        var turn = Rotation.Of(parts[leads].Turn, tilt).After(Rotation.Of(parts[leads].Turn, parts[leads].Tilt).Back);
        var standing = parts.Select((part, i) => Placement.Place(meshes[i], part)).ToArray();
        var (x, y, floor) = Foot(standing);
        var after = standing.Select(mesh => turn.About(mesh, x, y)).ToArray();
        var (x1, y1, lowest) = Foot(after);
        return [.. parts.Select((part, i) =>
        {
            var box = after[i].Box;
            var (around, tilted) = i == leads ? (part.Turn, tilt) : turn.After(Rotation.Of(part.Turn, part.Tilt)).Angles;
            return part with
            {
                X = Mm(((double)box.MinX + box.MaxX) / 2 + x - x1),
                Y = Mm(((double)box.MinY + box.MaxY) / 2 + y - y1),
                Lift = Mm(box.MinZ - lowest + (onBed ? 0 : floor)),
                Turn = around,
                Tilt = tilted,
            };
        })];
    }

    /// <summary>The middle of the common box seen from above, and its lowest height.</summary>
    private static (double X, double Y, double Lowest) Foot(Mesh[] meshes)
    {
        var (left, right) = ((double)meshes.Min(m => m.Box.MinX), (double)meshes.Max(m => m.Box.MaxX));
        var (front, back) = ((double)meshes.Min(m => m.Box.MinY), (double)meshes.Max(m => m.Box.MaxY));
        return ((left + right) / 2, (front + back) / 2, meshes.Min(m => m.Box.MinZ));
    }

    private static double Mm(double value) => Math.Round(value, 4) + 0.0;
}
