using MillCard.Core.Documents;
using MillCard.Core.Heat;
using Xunit;

namespace MillCard.Core.Tests;

public class HeatFitTests
{
    private static (double, double)[] Log(double end, double tau, double length, int points, double scatter, Random random,
        double from = 20) =>
        [.. Enumerable.Range(0, points).Select(i => length * i / (points - 1))
            .Select((s, i) => (s, end - (end - from) * Math.Exp(-s / tau) + (i == 0 ? 0 : scatter * Normal(random))))];

    private static double Normal(Random random) =>
        Math.Sqrt(-2 * Math.Log(1 - random.NextDouble())) * Math.Cos(2 * Math.PI * random.NextDouble());

    [Fact]
    public void A_log_of_three_time_constants_gives_end_and_time_constant_within_two_percent()
    {
        var random = new Random(4711);
        for (var i = 0; i < 100; i++)
        {
            var (end, tau, scatter) = (45 + 80 * random.NextDouble(), 60 + 500 * random.NextDouble(), 0.1 * random.NextDouble());
            var fit = HeatFit.Of(Log(end, tau, (3 + 2 * random.NextDouble()) * tau, 12 + random.Next(20), scatter, random))!;
            Assert.True(fit.Tells);
            Assert.Equal(end - 20, fit.Model.Reachable - 20, 0.02 * (end - 20));
            Assert.Equal(tau, fit.Model.TimeConstant, 0.02 * tau);
        }
    }

    [Fact]
    public void The_interval_of_short_and_noisy_logs_covers_the_truth()
    {
        var random = new Random(17);
        var covered = 0;
        const int tried = 400;
        for (var i = 0; i < tried; i++)
        {
            var (end, tau) = (45 + 80 * random.NextDouble(), 60 + 500 * random.NextDouble());
            var fit = HeatFit.Of(Log(end, tau, (0.5 + 2 * random.NextDouble()) * tau, 5 + random.Next(15), 0.1 + 0.9 * random.NextDouble(),
                random))!;
            if (fit.ReachableFrom <= end && end <= fit.ReachableTo) covered++;
        }
        Assert.True(covered >= 0.95 * tried, $"{covered} of {tried}");
    }

    // Abramowitz and Stegun, table 26.10, 97.5 %.
    [Theory, InlineData(1, 12.706), InlineData(4, 2.776), InlineData(10, 2.228), InlineData(12, 2.179), InlineData(15, 2.131),
        InlineData(20, 2.086), InlineData(25, 2.060), InlineData(30, 2.042),
        InlineData(40, 2.021), InlineData(60, 2.000), InlineData(120, 1.980)]
    public void Students_t_is_the_tables(int freedom, double t) => Assert.Equal(t, HeatFit.StudentT(freedom), 0.016);

    // A wait is over within one degree of its target.
    [Theory, InlineData(58, true), InlineData(58.9, true), InlineData(59, false), InlineData(60, false)]
    public void A_wait_ends_within_a_degree_of_its_target(double target, bool ends) =>
        Assert.Equal(ends, new HeatModel(20, 58, 300).Reaches(target));

    [Fact]
    public void A_short_log_cannot_tell()
    {
        var fit = HeatFit.Of(Log(90, 400, 150, 6, 0.3, new Random(3)))!;
        Assert.False(fit.Tells);
        Assert.Null(HeatFit.Of([(0, 20), (10, 25)]));
        Assert.Null(HeatFit.Of([(0, 60), (10, 50), (20, 40)]));
    }

    // T0 20, T∞ 58, τ 300 s: T(107 s) = 31.40 °C; 321.8 s to 45 °C; never to 58. Worked by hand from T∞ − (T∞ − T0)·e^(−t/τ).
    [Fact]
    public void The_model_predicts_as_worked_by_hand()
    {
        var model = new HeatModel(20, 58, 300);
        Assert.Equal(31.40, model.Heated(20, 107), 0.005);
        Assert.Equal(321.8, model.Time(20, 45), 0.05);
        Assert.True(double.IsInfinity(model.Time(20, 58)));
    }

    [Fact]
    public void A_card_takes_its_bed_from_the_log_and_else_from_the_best_that_was_reached()
    {
        var log = Log(71, 240, 900, 16, 0.05, new Random(5), from: 18).Select(p => (IReadOnlyList<double>)[p.Item1, Math.Round(p.Item2, 1)])
            .ToArray();
        Card With(HeaterFacts bed) => Cards.Dunlin with { Heat = Cards.Dunlin.Heat with { Bed = bed, Room = 20 } };
        var model = Heaters.Bed(With(new() { Max = 100, Best = 92, Log = log }))!;
        Assert.Equal((71, 240, 18), (Math.Round(model.Reachable), Math.Round(model.TimeConstant / 10) * 10, model.Room));
        // 92 in a room of 25 is 87 in a room of 20
        Assert.Equal(87, Heaters.Bed(With(new() { Best = 92, BestAtRoom = 25 }))!.Reachable, 1e-9);
    }
}
