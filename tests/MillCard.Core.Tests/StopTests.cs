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
        Engine.Slice(Engine.Job(Solids.Box(20, 20, 4), recipe, card) with { Stops = stops });

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

    private static string[] Lines(SliceResult result) => Encoding.ASCII.GetString(result.Gcode.Span).Split('\n');

    private static TrialStop From(double z, StopKind kind, double? value = null, string? lines = null) =>
        At(z, kind) with { Value = value, Lines = lines };

    [Theory]
    [InlineData(FlavourId.Marlin)]
    [InlineData(FlavourId.RepRapFirmware)]
    [InlineData(FlavourId.Klipper)]
    public void Another_temperature_speed_and_fan_hold_from_a_height_on(FlavourId flavour)
    {
        var result = Slice(Speaking(flavour), Engine.Plain, From(1, StopKind.Temperature, 231), From(2, StopKind.Speed, 0.5),
            From(3, StopKind.Fan, 0.25));
        var all = Lines(result);
        int LayerAt(double top) => Array.FindIndex(all, l => l.StartsWith("; layer ", StringComparison.Ordinal)
            && l.EndsWith(FormattableString.Invariant($"z {top:0.###}"), StringComparison.Ordinal));
        var heat = Array.FindIndex(all, l => (l.StartsWith("M104", StringComparison.Ordinal)
            || l.StartsWith("G10", StringComparison.Ordinal)) && l.Contains("231", StringComparison.Ordinal));
        Assert.InRange(heat, LayerAt(1.2), LayerAt(1.4));
        Assert.InRange(Array.IndexOf(all, "M220 S50"), LayerAt(2.2), LayerAt(2.4));
        // it ends with the layers: the end routine is not the parts'
        Assert.InRange(Array.IndexOf(all, "M220 S100"), LayerAt(4), all.Length);
        // the dry run follows: half the speed takes twice the time, the fan turns as slowly as asked
        var plain = Slice(Speaking(flavour), Engine.Plain);
        var (own, usual) = (result.Times!.EachTakes(), plain.Times!.EachTakes());
        Assert.InRange(own[12] / usual[12], 1.5, 2.05);
        Assert.InRange(own[4] / usual[4], 0.98, 1.02);
        var cooled = result.Layers.SelectMany((l, i) => l.Paths.Select(_ => i)).Zip(result.Lines).Where(p => p.First > 15)
            .Select(p => p.Second.Figures.Fan).Distinct();
        Assert.Equal([0.25], cooled.Select(f => Math.Round(f, 2)));
    }

    [Fact]
    public void Own_lines_stand_at_their_height_and_the_print_goes_on_where_it_was()
    {
        var result = Slice(Speaking(FlavourId.Marlin), Engine.Plain, From(2, StopKind.Lines, lines: "M117 halfway\r\nG4 P100"));
        var all = Lines(result);
        var at = Array.IndexOf(all, "M117 halfway");
        Assert.Equal(["; own lines at 2 mm", "M117 halfway", "G4 P100"], all[(at - 1)..(at + 2)]);
        Assert.StartsWith("; layer 11 of 20", all[..at].Last(l => l.StartsWith("; layer ", StringComparison.Ordinal)),
            StringComparison.Ordinal);
    }

    [Theory]
    [InlineData(StopKind.Fan, 1.2, "value")]
    [InlineData(StopKind.Speed, 0.0, "value")]
    [InlineData(StopKind.Temperature, null, "value")]
    [InlineData(StopKind.Lines, null, "lines")]
    public void An_event_that_cannot_hold_is_refused_at_its_place(StopKind kind, double? value, string member)
    {
        var refused = Engine.Slice(Engine.Job(Solids.Box(20, 20, 4), Engine.Plain) with { Stops = [From(2, kind, value)] });
        Assert.False(refused.Sliced);
        Assert.Equal($"/stops/0/{member}", Assert.Single(refused.Findings).Pointer);
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
