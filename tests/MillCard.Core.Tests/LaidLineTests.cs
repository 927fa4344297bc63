using MillCard.Core.Slicing;
using MillCard.Core.Slicing.Paths;
using Xunit;

namespace MillCard.Core.Tests;

/// <summary>What the dry run says of every line of plastic, held against the program itself.</summary>
public sealed class LaidLineTests
{
    private static readonly SliceResult Sliced = Engine.Slice(Engine.Job(Solids.Box(24, 18, 3), Engine.Plain with
    {
        Accelerations = new() { OuterWall = 500, Infill = 900 },
    }));

    private static IEnumerable<(LayerPlan Layer, ToolPath Path, Slicing.Writing.LaidLine Line)> All()
    {
        var number = 0;
        foreach (var layer in Sliced.Layers)
            foreach (var path in layer.Paths) yield return (layer, path, Sliced.Lines[number++]);
    }

    [Fact]
    public void Every_line_has_its_figures()
    {
        Assert.Equal(Sliced.Layers.Sum(l => l.Paths.Count), Sliced.Lines.Count);
        Assert.All(All(), one =>
        {
            Assert.InRange(one.Line.Figures.Speed, 1, 200);
            // at a mean speed its plastic is laid at a mean flow
            var volume = one.Path.VolumeAt(one.Layer.Place.Height);
            Assert.Equal(volume / one.Path.Length, one.Line.Figures.Flow / one.Line.Figures.Speed, volume / one.Path.Length * 0.03 + 2e-3);
        });
    }

    [Fact]
    public void Acceleration_is_that_of_the_kind_of_line()
    {
        Assert.All(All().Where(o => o.Path.Kind == PathKind.OuterWall), one => Assert.Equal(500, one.Line.Figures.Acceleration));
        Assert.All(All().Where(o => o.Path.Kind == PathKind.Infill), one => Assert.Equal(900, one.Line.Figures.Acceleration));
    }

    [Fact]
    public void The_way_to_a_line_leads_from_the_end_of_the_one_before_to_its_first_point()
    {
        var before = default(Geometry.Point?);
        foreach (var (_, path, line) in All())
        {
            if (before is { } end && line.Way.Count > 0)
            {
                Assert.InRange(line.Way[0].To(end), 0, 0.01);
                Assert.InRange(line.Way[^1].To(path.Points[0]), 0, 0.01);
            }
            else if (before is { } here) Assert.InRange(here.To(path.Points[0]), 0, 0.01);
            before = path.End;
        }
        Assert.Contains(Sliced.Lines, line => line.PulledBack);
        Assert.Contains(Sliced.Lines, line => !line.PulledBack);
    }

    [Fact]
    public void Every_line_names_the_moves_of_the_program_that_lay_it()
    {
        var moves = Sliced.Run!.Moves.ToArray();
        var last = 0;
        foreach (var (_, path, line) in All())
        {
            Assert.InRange(line.First, last + 1, line.Last);
            last = line.Last;
            var own = moves.Where(m => m.Line >= line.First - 1 && m.Line < line.Last && m.Extrudes).ToList();
            Assert.Equal(Engine.Laid(path), own.Sum(m => m.Way), 0.2);
        }
        // and whatever is laid between the first line and the last belongs to one of them
        var (begin, end) = (Sliced.Lines[0].First, Sliced.Lines[^1].Last);
        var named = Sliced.Lines.SelectMany(l => Enumerable.Range(l.First, l.Last - l.First + 1)).ToHashSet();
        Assert.All(moves.Where(m => m.Line >= begin - 1 && m.Line < end && m.Extrudes && m.Way > 0),
            m => Assert.Contains(m.Line + 1, named));
    }

    [Fact]
    public void The_layers_take_the_time_between_their_beginnings()
    {
        var times = Sliced.Times!;
        Assert.Equal(times.End - times.Starts[0], times.EachTakes().Sum(), 6);
        Assert.All(times.EachTakes(), seconds => Assert.True(seconds > 0));
    }
}
