using System.Text;
using MillCard.Core.Documents;
using MillCard.Core.Findings;
using MillCard.Core.Meshes;
using MillCard.Core.Slicing;
using Xunit;
using static MillCard.Core.Tests.Engine;

namespace MillCard.Core.Tests;

/// <summary>Layers that are laid too quickly to cool, and what plastic is used for.</summary>
public class LayerTimeTests
{
    private static readonly Recipe Slow = Plain with { Speeds = Plain.Speeds with { LeastLayerTime = 10, Least = 10 } };

    private static readonly Recipe Waiting = Slow with { Speeds = Slow.Speeds with { TooQuick = TooQuick.Wait } };

    [Fact]
    public void A_pin_that_cannot_be_laid_slowly_enough_is_told_with_its_time()
    {
        var result = Slice(Block.Of(3, 3, 6), Slow);
        var told = Assert.Single(result.Findings, f => f.Rule == "layer-too-quick");
        Assert.Equal((Severity.Caution, "/recipe/speeds/tooQuick"), (told.Severity, told.Pointer));
        // the last of 30 layers has nothing laid over it
        Assert.StartsWith("29 layers take less than the least time of 10 s", told.Message, StringComparison.Ordinal);
        var said = double.Parse(told.Message.Split("up) ")[1].Split(' ')[0], System.Globalization.CultureInfo.InvariantCulture);
        Assert.InRange(said, 1.5, 4);
        var line = Encoding.ASCII.GetString(result.Gcode.Span).Split('\n')[told.Line!.Value - 1];
        Assert.StartsWith("; layer ", line, StringComparison.Ordinal);
        Assert.Contains($"layer {line.Split(' ')[2]} (", told.Message, StringComparison.Ordinal);
    }

    [Fact]
    public void A_part_with_time_enough_is_not_told_of()
    {
        Assert.DoesNotContain(Slice(Block.Of(20, 20, 2), Slow).Findings, f => f.Rule == "layer-too-quick");
        Assert.DoesNotContain(Slice(Block.Of(3, 3, 6), Plain).Findings, f => f.Rule == "layer-too-quick");
    }

    [Fact]
    public void A_nozzle_that_waits_does_so_clear_of_the_part_until_the_time_is_over()
    {
        var result = Slice(Block.Of(3, 3, 6), Waiting);
        Assert.DoesNotContain(result.Findings, f => f.Rule == "layer-too-quick");
        var (text, z, top, began, waits) = (Encoding.ASCII.GetString(result.Gcode.Span).Split('\n'), 0.0, 0.0, -1, 0);
        for (var i = 0; i < text.Length; i++)
        {
            if (text[i].StartsWith("; layer ", StringComparison.Ordinal))
            {
                if (began >= 0) Assert.InRange(result.Run!.Starts[i] - result.Run.Starts[began], 9.99, 12.5);
                (began, top) = (i, double.Parse(text[i].Split("z ")[1], System.Globalization.CultureInfo.InvariantCulture));
            }
            var words = text[i].Split(' ');
            if (words.FirstOrDefault(w => w.StartsWith('Z')) is { } height)
                z = double.Parse(height[1..], System.Globalization.CultureInfo.InvariantCulture);
            if (words[0] != "G4") continue;
            waits++;
            Assert.Equal(top + 5, z, 0.001);
        }
        Assert.Equal(29, waits);
    }

    [Fact]
    public void Nothing_waits_where_the_least_time_is_met() =>
        Assert.DoesNotContain("\nG4 ", Encoding.ASCII.GetString(Slice(Block.Of(20, 20, 2), Waiting).Gcode.Span), StringComparison.Ordinal);

    [Fact]
    public void Plastic_is_told_apart_by_its_use()
    {
        var recipe = Plain with
        {
            Skirt = new() { Rounds = 2 },
            Supports = new() { Pattern = SupportPattern.Crossed },
            Speeds = Plain.Speeds with { Support = 33, Interface = 33 },
        };
        var result = Slice(Solids.Mushroom, recipe);
        var uses = result.Uses.ToDictionary(u => u.Use);
        Assert.Equal([PlasticUse.Parts, PlasticUse.Supports, PlasticUse.Foot], result.Uses.Select(u => u.Use));
        var moves = ReadMoves.Of(result.Gcode);
        // supports are the only lines at their speed, and on the first layer the only ones between post and skirt
        static bool Between(ReadMove m) => Math.Max(Math.Abs(m.Middle.X - 150), Math.Abs(m.Middle.Y - 100)) is > 4.1 and < 13;
        var supports = moves.Where(m => m.Length > 0 && m.Fed > 0 && (m.Layer > 1 ? m.Speed == 33 : Between(m))).Sum(m => m.Fed);
        Assert.Equal(supports, uses[PlasticUse.Supports].Filament, 0.1);
        Assert.Equal(moves.Laying(1).Runs().Take(2).Sum(r => r.Sum(m => m.Fed)), uses[PlasticUse.Foot].Filament, 0.1);
        Assert.Equal(result.Run!.Filament, result.Uses.Sum(u => u.Filament), 2);
        var perMm = Math.PI * 1.75 * 1.75 / 4 * 1.27 / 1000;
        Assert.All(result.Uses, u => Assert.Equal(u.Filament * perMm, u.Grams!.Value, 1e-9));
        Assert.All(result.Uses, u => Assert.Equal(u.Filament * perMm * 24 / 1000, u.Cost!.Value, 1e-9));
    }

    [Fact]
    public void What_a_routine_primes_is_a_use_of_its_own()
    {
        var card = Cards.Bare() with { Routines = new() { Start = "G28\nM83\nG1 Z0.3 F600\nG1 X10 Y10 F3000\nG1 X110 E40 F900" } };
        var primed = Assert.Single(Slice(Block.Of(20, 20, 2), Plain, card).Uses, u => u.Use == PlasticUse.Routines);
        Assert.Equal(40, primed.Filament, 2);
    }

    [Fact]
    public void A_recipes_wipe_goes_before_the_heads()
    {
        static int Wiping(double? wipe) => ReadMoves.Of(Slice(Block.Of(20, 20, 2), Plain with
        {
            Infill = new() { Density = 0.2 },
            Retraction = Plain.Retraction with { Wipe = wipe, StayInside = false },
        }).Gcode).Count(m => m.Fed < 0 && m.Length > 0);
        Assert.Equal(0, Wiping(0));
        Assert.True(Wiping(2) > 5);
    }
}
