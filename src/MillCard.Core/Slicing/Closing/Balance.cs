using MillCard.Core.Geometry;
using MillCard.Core.Slicing.Paths;
using MillCard.Core.Slicing.Walls;
using NetTopologySuite.Algorithm.Locate;
using NetTopologySuite.Geometries;
using NetTopologySuite.Index.Strtree;

namespace MillCard.Core.Slicing.Closing;

/// <summary>Lines overlap at tips, in turns and where several meet; where all of them together hold more than there is room for, those
/// that are not seen, or all where there are no others, are made narrower.</summary>
/// <remarks>Volume is kept: what is laid beyond the room has to go somewhere, and goes outwards.</remarks>
internal static class Balance
{
    /// <summary>What lines may hold, as a share of the room.</summary>
    private const double Most = 1.02;

    /// <summary>No line is made to hold less than this share of what it held.</summary>
    private const double Least = 0.85;

    /// <summary>The lines, those of pieces that hold too much made narrower.</summary>
    /// <param name="paths">All lines of a layer that are to fill.</param>
    /// <param name="region">The cross-section.</param>
    /// <param name="sparse">Where there is infill or nothing: what lies round it cannot be told from it.</param>
    /// <param name="height">Of the layer, mm.</param>
    /// <param name="narrowest">No line is made narrower, mm.</param>
    public static IReadOnlyList<ToolPath> Of(IReadOnlyList<ToolPath> paths, Shape region, Shape sparse, double height, double narrowest)
    {
        Polygon[] pieces = [.. Plane.Polygons(region)];
        var pieceAt = PieceAt(pieces);
        var (all, unseen, of) = (new double[pieces.Length], new double[pieces.Length], new int[paths.Count]);
        for (var i = 0; i < paths.Count; i++)
        {
            var piece = of[i] = pieceAt(new(paths[i].Points[0].X, paths[i].Points[0].Y));
            if (piece < 0) continue;
            var volume = paths[i].VolumeAt(height);
            all[piece] += volume;
            // a strand in the air is no line of the layer's height
            if (paths[i].Section is not null) all[piece] = double.NaN;
            else if (IsUnseen(paths[i])) unseen[piece] += volume;
        }
        foreach (var free in Plane.Polygons(sparse))
            if (pieceAt(free.InteriorPoint.Coordinate) is >= 0 and var piece) all[piece] = double.NaN;
        var shares = Array.ConvertAll(pieces, _ => 1.0);
        for (var i = 0; i < pieces.Length; i++)
            if (all[i] - Most * Beading.Filled(pieces[i], height) * height is > 0 and var more)
                shares[i] = Math.Max(1 - more / (unseen[i] > 0 ? unseen[i] : all[i]), Least);
        if (Array.TrueForAll(shares, share => share == 1)) return paths;
        return [.. paths.Select((path, i) => of[i] >= 0 && (IsUnseen(path) || unseen[of[i]] == 0)
            ? Narrower(path, shares[of[i]], height, narrowest) : path)];
    }

    private static bool IsUnseen(ToolPath path) => path.Kind != PathKind.OuterWall;

    private static ToolPath Narrower(ToolPath path, double share, double height, double narrowest)
    {
        var round = Beading.Round(height);
        return share == 1 ? path : path with
        {
            Width = Of(path.Width),
            Widths = path.Widths is { } widths ? Array.ConvertAll(widths, Of) : null,
        };

        double Of(double width) => Math.Max(share * (width - round) + round, Math.Min(width, narrowest));
    }

    /// <summary>The piece that holds a place, by number; less than 0 for none.</summary>
    private static Func<Coordinate, int> PieceAt(Polygon[] pieces)
    {
        if (pieces.Length == 1) return _ => 0;
        var tree = new STRtree<int>();
        for (var i = 0; i < pieces.Length; i++) tree.Insert(pieces[i].EnvelopeInternal, i);
        return at =>
        {
            foreach (var i in tree.Query(new Envelope(at)))
                if (SimplePointInAreaLocator.Locate(at, pieces[i]) != Location.Exterior) return i;
            return -1;
        };
    }
}
