using CsCheck;
using MillCard.Core.Geometry;
using MillCard.Core.Slicing.Closing;
using MillCard.Core.Slicing.Paths;
using Xunit;

namespace MillCard.Core.Tests;

/// <summary>Lines that hold more than there is room for are made narrower: as much as is too much, and no others.</summary>
public sealed class BalanceTests
{
    private const double Height = 0.2, Apart = 20, Length = 10, Depth = 4, Narrowest = 0.3;

    /// <summary>What a piece holds.</summary>
    /// <param name="Outer">Outer walls.</param>
    /// <param name="Inner">Widths of the lines within.</param>
    /// <param name="Sparse">Whether it has infill too.</param>
    /// <param name="Bridged">Whether a strand of it hangs in the air.</param>
    private sealed record Held(int Outer, double[] Inner, bool Sparse, bool Bridged);

    private static readonly Gen<Held> AnyPiece =
        from outer in Gen.Int[0, 3]
        from inner in Gen.Double[0.4, 0.5].Array[0, 12]
        from sparse in Gen.Frequency((5, Gen.Const(false)), (1, Gen.Const(true)))
        from bridged in Gen.Frequency((5, Gen.Const(false)), (1, Gen.Const(true)))
        where outer + inner.Length > 0
        select new Held(outer, inner, sparse, bridged);

    private static Shape At(int piece) => Shapes.Rectangle(Apart * piece, 0, Length, Depth);

    private static ToolPath Line(int piece, int row, PathKind kind, double width) =>
        new(kind, [new(Apart * piece + 0.2, 0.1 + 0.2 * row), new(Apart * piece + Length - 0.2, 0.1 + 0.2 * row)], Closed: false, width);

    private static ToolPath[] Lines(Held held, int piece) =>
    [
        .. Enumerable.Range(0, held.Outer).Select(row => Line(piece, row, PathKind.OuterWall, 0.45)),
        .. held.Inner.Select((width, i) => Line(piece, held.Outer + i, i % 2 == 0 ? PathKind.InnerWall : PathKind.Solid, width)
            with { Widths = i % 3 == 0 ? [width, width] : null }),
        .. held.Bridged ? [Line(piece, 19, PathKind.Bridge, 0.4) with { Section = 0.05 }] : Array.Empty<ToolPath>(),
    ];

    // a rectangle with half-round sides
    private static double Volume(IEnumerable<ToolPath> lines) => lines.Sum(line => (Length - 0.4)
        * (line.Section ?? ((line.Widths?[0] ?? line.Width) - Height) * Height + Math.PI * Height * Height / 4));

    [Fact]
    public void A_piece_holds_what_it_has_room_for() => AnyPiece.Array[1, 6].Sample(pieces =>
    {
        ToolPath[][] lines = [.. pieces.Select(Lines)];
        var sparse = Plane.Union([.. Enumerable.Range(0, pieces.Length).Where(i => pieces[i].Sparse)
            .Select(i => (Shape)Shapes.Rectangle(Apart * i + 4, 3.5, 1, 0.2))]);
        var told = Balance.Of([.. lines.SelectMany(l => l)], Plane.Union([.. Enumerable.Range(0, pieces.Length).Select(At)]), sparse,
            Height, Narrowest);
        var first = 0;
        for (var i = 0; i < pieces.Length; first += lines[i++].Length)
        {
            var now = told.Skip(first).Take(lines[i].Length).ToArray();
            var room = (Length * Depth - (Length + Depth) * (1 - Math.PI / 4) * Height) * Height;
            var more = Volume(lines[i]) - 1.02 * room;
            if (pieces[i].Sparse || pieces[i].Bridged || more <= 0) Assert.Equal(lines[i], now);
            else
            {
                // as much as is too much, or as far as a line may be made narrower
                var unseen = pieces[i].Inner.Length > 0 ? Volume(lines[i].Skip(pieces[i].Outer)) : Volume(lines[i]);
                Assert.Equal(Volume(lines[i]) - Math.Min(more, 0.15 * unseen), Volume(now), 1e-9);
                if (pieces[i].Inner.Length > 0) Assert.Equal(lines[i].Take(pieces[i].Outer), now.Take(pieces[i].Outer));
            }
        }
    });

    [Fact]
    public void No_line_is_made_narrower_than_is_laid()
    {
        double[] widths = [0.9, 0.31, 0.29, .. Enumerable.Repeat(0.6, 15)];
        var lines = widths.Select((width, row) => Line(0, row, PathKind.Solid, width)).ToArray();
        var told = Balance.Of(lines, At(0), Plane.Empty, Height, Narrowest);
        Assert.Equal((Narrowest, 0.29), (told[1].Width, told[2].Width));
        Assert.InRange(told[0].Width, 0.77, 0.78);
    }
}
