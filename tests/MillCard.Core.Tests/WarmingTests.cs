using System.Globalization;
using System.Text;
using MillCard.Core.Documents;
using MillCard.Core.DryRun;
using MillCard.Core.Heat;
using MillCard.Core.Meshes;
using MillCard.Core.Slicing;
using MillCard.Core.Slicing.Jobs;
using Xunit;

namespace MillCard.Core.Tests;

/// <summary>Nozzles that cool while others print, and come back in time.</summary>
public class WarmingTests
{
    private static PartToSlice Box(string name, double x, double side, double high, string nozzle)
    {
        var mesh = Solids.Box(side, side, high);
        return new(new TrialPart { Name = name, File = name, X = x, Y = 120, Nozzles = [nozzle] }, mesh, new Footprints(mesh));
    }

    private static SliceResult Slice(double? standby, params PartToSlice[] parts)
    {
        var result = Engine.Slice(new("two", DemoParts.Card("oystercatcher").Machine(), Cards.Petg with
        {
            Nozzle = new() { First = 240, Others = 235, Standby = standby, OozesFrom = 190 },
        }, Engine.Plain with { LineWidth = 0.5, Retraction = new() }, parts));
        Assert.True(result.Sliced, string.Join('\n', result.Findings.Select(f => f.Message)));
        return result;
    }

    private static Wait[] WaitsInLayers(SliceResult result) =>
        [.. result.Run!.Waits.Where(w => w.Heater == Heater.Nozzle && w.Line > result.Run.LayersBegin)];

    /// <summary>Targets that the layers set, routines left out.</summary>
    private static (int Tool, double Target)[] Set(SliceResult result) => [.. Encoding.ASCII.GetString(result.Gcode.Span).Split('\n')
        .SkipWhile(l => l != "; layers begin").TakeWhile(l => l != "; layers end")
        .Where(l => l.StartsWith("M104 T", StringComparison.Ordinal)).Select(l => l.Split(' '))
        .Select(w => (int.Parse(w[1].AsSpan(1), CultureInfo.InvariantCulture),
            double.Parse(w[2].AsSpan(1), CultureInfo.InvariantCulture)))];

    [Fact]
    public void Two_small_cubes_of_many_changes_do_not_wait_for_heat()
    {
        var result = Slice(160, Box("a", 60, 10, 5, "n1"), Box("b", 110, 10, 5, "n2"));
        var waits = WaitsInLayers(result);
        Assert.Equal(25, waits.Length);
        // from 240 to 235 °C after the first layer, and the second nozzle's first turn, which comes too soon after the start
        Assert.True(waits.Skip(1).Sum(w => w.Seconds) < 30, $"{waits.Sum(w => w.Seconds):0} s");
        // a layer takes seconds: nothing comes below where it oozes in that time, so nothing cools until its last turn
        Assert.Single(Set(result), s => s.Target == 160);
    }

    [Fact]
    public void A_nozzle_that_is_long_away_cools_to_standby_and_is_warm_when_its_turn_comes()
    {
        var result = Slice(160, Box("a", 60, 70, 0.8, "n1"), Box("b", 200, 70, 0.8, "n2"));
        Assert.True(Set(result).Count(s => s.Target == 160) >= 3);
        Assert.DoesNotContain(result.Findings, f => f.Rule == "hot-and-idle");
        foreach (var wait in WaitsInLayers(result).Skip(1))
        {
            Assert.InRange(wait.Seconds, 0, 3);
            // it was below where it oozes meanwhile, and did not come back much too early
            var trace = result.Run!.Nozzles[wait.Tool];
            var hot = Enumerable.Range(0, 2000).Select(i => wait.At - i).First(at => at <= 0 || trace.At(at) < 190);
            var card = DemoParts.Card("oystercatcher");
            var needs = Heaters.Nozzle(card, card.Head.Nozzles![wait.Tool]).Time(190, 234);
            Assert.InRange(wait.At - hot, needs, 1.3 * needs + 10);
        }
    }

    [Fact]
    public void A_filament_without_a_standby_stays_hot() =>
        Assert.DoesNotContain(Set(Slice(null, Box("a", 60, 70, 0.8, "n1"), Box("b", 200, 70, 0.8, "n2"))), s => s.Target < 235);

    [Fact]
    public void One_nozzle_is_warmed_by_nothing_beside_its_routines()
    {
        var result = Slice(160, Box("a", 60, 20, 2, "n1"));
        Assert.Empty(WaitsInLayers(result));
        Assert.Empty(Set(result));
    }
}
