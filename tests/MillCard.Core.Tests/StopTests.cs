using System.Globalization;
using System.Text;
using MillCard.Core.Documents;
using MillCard.Core.Findings;
using MillCard.Core.Slicing;
using Xunit;

namespace MillCard.Core.Tests;

/// <summary>Heights at which a print stops.</summary>
public class StopTests
{
    private static TrialStop At(double z, StopKind kind = StopKind.Pause) => new() { Id = $"s{z}", Z = z, For = kind };

    private static SliceResult Slice(Card card, Recipe recipe, params TrialStop[] stops) =>
        Slicer.Slice(Engine.Job(Solids.Box(20, 20, 4), recipe, card) with { Stops = stops });

    private static Card Speaking(FlavourId flavour) => Cards.Bare() with
    {
        Firmware = Cards.Bare().Firmware with { Flavour = flavour },
    };

    /// <summary>Heights of the layers before which a command stands, and how high above them the nozzle was.</summary>
    private static (double Top, double Above)[] Stops(SliceResult result, string command)
    {
        var (found, top, z) = (new List<(double, double)>(), 0.0, 0.0);
        foreach (var line in Encoding.ASCII.GetString(result.Gcode.Span).Split('\n'))
        {
            double After(string mark) => double.Parse(line.Split(mark)[1].Split(' ')[0], CultureInfo.InvariantCulture);
            if (line.StartsWith("; layer ", StringComparison.Ordinal)) top = After("z ");
            if (line.StartsWith('G') && line.Contains(" Z", StringComparison.Ordinal)) z = After(" Z");
            if (line == command) found.Add((top, z - top));
        }
        return [.. found];
    }

    [Theory]
    [InlineData(FlavourId.Marlin, "M0"), InlineData(FlavourId.RepRapFirmware, "M226"), InlineData(FlavourId.Repetier, "M601 S1")]
    public void The_first_layer_above_a_height_comes_after_its_stop(FlavourId flavour, string command)
    {
        var stops = Stops(Slice(Speaking(flavour), Engine.Plain, At(2), At(1.1), At(0.05 + 3)), command);
        Assert.Equal([1.2, 2.2, 3.2], stops.Select(s => Math.Round(s.Top, 3)));
        Assert.All(stops, s => Assert.Equal(5, s.Above, 0.001));
    }

    [Fact]
    public void Over_a_raft_heights_count_from_the_parts_floor()
    {
        var result = Slice(Speaking(FlavourId.Marlin), Engine.Plain with { Raft = new() { Layers = 2, Gap = 0.2 } }, At(2));
        Assert.Equal(2.2 + 0.4 + 0.2, Assert.Single(Stops(result, "M0")).Top, 1e-3);
    }

    [Fact]
    public void A_change_of_filament_is_said_where_the_firmware_has_it_and_a_pause_else()
    {
        var told = Slice(Speaking(FlavourId.Marlin), Engine.Plain, At(2, StopKind.Filament));
        Assert.Single(Stops(told, "M600"));
        Assert.DoesNotContain(told.Findings, f => f.Rule == "stop-as-pause");
        var plain = Slice(Speaking(FlavourId.RepRap), Engine.Plain, At(2, StopKind.Filament));
        Assert.Single(Stops(plain, "M226"));
        Assert.Equal("/stops/0/for", Assert.Single(plain.Findings, f => f.Rule == "stop-as-pause").Pointer);
    }

    [Theory, InlineData(4.0, "no layer reaches"), InlineData(0.0, "no layer lies below")]
    public void A_stop_that_never_comes_is_told(double z, string why)
    {
        var result = Slice(Speaking(FlavourId.Marlin), Engine.Plain, At(2), At(z));
        var told = Assert.Single(result.Findings, f => f.Rule == "stop-not-reached");
        Assert.Equal((Severity.Caution, "/stops/1/z"), (told.Severity, told.Pointer));
        Assert.Contains(why, told.Message, StringComparison.Ordinal);
        Assert.Single(Stops(result, "M0"));
    }

    [Fact]
    public void The_same_plastic_is_laid_with_a_stop_and_without() => Assert.Equal(
        Slice(Speaking(FlavourId.Marlin), Engine.Plain).Run!.Filament,
        Slice(Speaking(FlavourId.Marlin), Engine.Plain, At(2)).Run!.Filament, 1e-3);
}
