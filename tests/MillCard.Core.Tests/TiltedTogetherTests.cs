using CsCheck;
using MillCard.Core.Documents;
using MillCard.Core.Meshes;
using Xunit;

namespace MillCard.Core.Tests;

/// <summary>An assembly that is tilted stays one piece.</summary>
public class TiltedTogetherTests
{
    private static readonly double[] Usual = [0, 90, -90, 180, 45];
    private static readonly Gen<double> Angle = Gen.OneOf(Gen.Double[-180, 180], Gen.Int[0, Usual.Length - 1].Select(i => Usual[i]));

    private static readonly Gen<TrialPart> Part = Gen.Select(Gen.Double[20, 80], Gen.Double[20, 80], Gen.Double[0, 30], Angle, Angle, Angle,
        Gen.Bool).Select(p => new TrialPart
        {
            File = "f",
            Name = "body",
            X = p.Item1,
            Y = p.Item2,
            Lift = p.Item3,
            Turn = (p.Item4 + 360) % 360,
            Tilt = new() { X = p.Item5, Y = p.Item6 },
            Scale = new() { X = 1.5, Y = 0.5, Z = 1, Mirrored = p.Item7 },
        });

    [Fact]
    public void Every_distance_within_it_stays() => Gen.Select(Part.Array[1, 4], Angle, Angle, Gen.Bool).Sample((parts, x, y, onBed) =>
    {
        Mesh[] meshes = [.. parts.Select((_, i) => Solids.Joined(Block.Of(6 + i, 9, 14), Solids.Placed(Block.Of(2, 3, 4), 11, 0, 0)))];
        var after = TiltedTogether.Of(parts, meshes, 0, new() { X = x, Y = y }, onBed);
        Assert.Equal((x, y), (after[0].Tilt!.X, after[0].Tilt!.Y));
        Assert.Equal(parts[0].Turn, after[0].Turn);
        var (was, now) = (Corners(parts, meshes), Corners(after, meshes));
        for (var i = 0; i < was.Length; i++)
            for (var k = 0; k < i; k++) Assert.Equal(Apart(was[i], was[k]), Apart(now[i], now[k]), 2e-3);
        // the same hand: no mirror image has the same distances and the same volume with its sign
        Assert.Equal(Spanned(was), Spanned(now), 0.5);
        var lowest = now.Min(c => c.Z);
        Assert.Equal(onBed ? 0 : was.Min(c => c.Z), lowest, 1e-3);
        Assert.Equal(Middle(was, c => c.X), Middle(now, c => c.X), 1e-3);
        Assert.Equal(Middle(was, c => c.Y), Middle(now, c => c.Y), 1e-3);
    }, iter: 400);

    [Fact]
    public void A_tilt_that_it_has_already_changes_nothing() => Part.Array[2, 3].Sample(parts =>
    {
        Mesh[] meshes = [.. parts.Select(_ => Block.Of(6, 9, 14))];
        var after = TiltedTogether.Of(parts, meshes, 1, parts[1].Tilt!, onBed: false);
        foreach (var (was, now) in Corners(parts, meshes).Zip(Corners(after, meshes))) Assert.Equal(0, Apart(was, now), 1e-3);
    }, iter: 200);

    [Fact]
    public void A_stack_of_two_laid_on_its_side_lies_side_by_side()
    {
        Mesh[] meshes = [Block.Of(10, 10, 4), Block.Of(10, 10, 6)];
        TrialPart[] stack =
        [
            new() { File = "a", Name = "below", X = 50, Y = 50 }, new() { File = "b", Name = "above", X = 50, Y = 50, Lift = 4 },
        ];
        var after = TiltedTogether.Of(stack, meshes, 0, new() { Y = 90 }, onBed: true);
        Assert.Equal((0, 0), (after[0].Lift, after[1].Lift));
        // what was above comes to lie to the right: the upright goes towards X
        Assert.Equal(5, after[1].X - after[0].X, 1e-4);
        Assert.Equal((50, 50), (after[0].Y, after[1].Y));
        Assert.Equal(90, after[1].Tilt!.Y, 1e-6);
    }

    private static (double X, double Y, double Z)[] Corners(IReadOnlyList<TrialPart> parts, Mesh[] meshes) =>
        [.. parts.SelectMany((part, i) => Placement.Place(meshes[i], part).Corners.Chunk(3).Select(c => ((double)c[0], (double)c[1],
            (double)c[2])))];

    private static double Middle((double X, double Y, double Z)[] corners, Func<(double X, double Y, double Z), double> axis) =>
        (corners.Min(axis) + corners.Max(axis)) / 2;

    private static double Apart((double X, double Y, double Z) a, (double X, double Y, double Z) b) =>
        Math.Sqrt((a.X - b.X) * (a.X - b.X) + (a.Y - b.Y) * (a.Y - b.Y) + (a.Z - b.Z) * (a.Z - b.Z));

    /// <summary>Six times the signed volume that the first corner spans with three others.</summary>
    private static double Spanned((double X, double Y, double Z)[] corners)
    {
        var (o, all) = (corners[0], corners);
        var best = 0.0;
        foreach (var i in new[] { 1, 2, 4 })
            foreach (var k in new[] { 3, 5, 6 })
            {
                var (a, b, c) = (Less(all[i], o), Less(all[k], o), Less(all[7], o));
                var volume = a.X * (b.Y * c.Z - b.Z * c.Y) - a.Y * (b.X * c.Z - b.Z * c.X) + a.Z * (b.X * c.Y - b.Y * c.X);
                if (Math.Abs(volume) > Math.Abs(best)) best = volume;
            }
        return best;
    }

    private static (double X, double Y, double Z) Less((double X, double Y, double Z) a, (double X, double Y, double Z) b) =>
        (a.X - b.X, a.Y - b.Y, a.Z - b.Z);
}
