using CsCheck;
using MillCard.Core.Documents;
using MillCard.Core.SettingsReports;
using Xunit;

namespace MillCard.Core.Tests;

public class SettingsReportTests
{
    private static readonly Card RepRap =
        Cards.Dunlin with { Firmware = Cards.Dunlin.Firmware with { Flavour = FlavourId.RepRapFirmware } };

    private static Dictionary<string, ReportedFact> Read(string text, Card? card = null) =>
        ReportReader.Read(text, card ?? Cards.Dunlin).Facts.ToDictionary(f => f.Pointer);

    [Fact]
    public void A_report_of_commands_is_laid_beside_the_card()
    {
        var facts = Read("""
            echo:  G21    ; Units in mm (mm)
            echo:; Steps per unit:
            echo: M92 X80.00 Y80.00 Z400.00 E93.10
            echo:; Maximum feedrates (units/s):
            echo:  M203 X180.00 Y180.00 Z12.00 E60.00
            echo:  M201 X1500.00 Y1200.00 Z100.00 E3000.00
            echo:  M851 X-26.00 Y4.50 Z-1.46
            echo:  M301 P22.20 I1.08 D114.00
            """);
        Assert.Equal((95.4, 93.1, true), (facts["/motion/axes/e/stepsPerMm"].Old!.Value, facts["/motion/axes/e/stepsPerMm"].New,
            facts["/motion/axes/e/stepsPerMm"].Differs));
        Assert.False(facts["/motion/axes/x/stepsPerMm"].Differs);
        Assert.Equal(12, facts["/motion/axes/z/maxSpeed"].New);
        Assert.Equal((null, -1.46), (facts["/head/probe/z"].Old, facts["/head/probe/z"].New));
        Assert.Equal(4 + 4 + 4 + 3, facts.Count);
        Assert.Contains("M301", Assert.Single(ReportReader.Read("echo: M301 P22 I1 D114", Cards.Dunlin).LeftOut), StringComparison.Ordinal);
    }

    [Fact]
    public void Named_words_and_minutes_are_understood_where_the_flavour_has_them()
    {
        var facts = Read("""
            M92: Steps/mm: X: 100.00, Y: 100.00, Z: 800.00, E: 420.000:420.000
            M203: Max speeds (mm/min): X: 9000.0, Y: 9000.0, Z: 900.0, E: 3600.0
            M208 X0 Y-5 Z0 S1
            M208 X235 Y240 Z250 S0
            G31 P500 X-20 Y3 Z1.42
            M906 X800 Y800
            """, RepRap);
        Assert.Equal((100, 420), (facts["/motion/axes/x/stepsPerMm"].New, facts["/motion/axes/e/stepsPerMm"].New));
        Assert.Equal((150, 15), (facts["/motion/axes/x/maxSpeed"].New, facts["/motion/axes/z/maxSpeed"].New));
        Assert.Equal((-5, 240), (facts["/motion/axes/y/min"].New, facts["/motion/axes/y/max"].New));
        // the height at which the probe answers is the offset the other way round
        Assert.Equal(-1.42, facts["/head/probe/z"].New);
        var corner = ReportReader.Read("M566 X600 Y600 Z24 E300", RepRap).Corner!;
        Assert.Equal((CornerKind.InstantSpeedChange, 10), (corner.Kind, corner.Value));
        Assert.Equal((CornerKind.JunctionDeviation, 0.013),
            (ReportReader.Read("echo: M205 B20000.00 S0.00 T0.00 J0.013", Cards.Dunlin).Corner!.Kind,
            ReportReader.Read("echo: M205 J0.013", Cards.Dunlin).Corner!.Value));
    }

    [Fact]
    public void Delta_geometry_is_read()
    {
        var facts = Read("echo: M665 L215.00 R105.00 H300.00 S100.00\necho: M666 X-0.42 Y0.00 Z-0.15\n");
        Assert.Equal((215, 105, 300, 100, -0.42), (facts["/motion/delta/arm"].New, facts["/motion/delta/radius"].New,
            facts["/motion/delta/homeHeight"].New, facts["/motion/delta/segmentsPerSecond"].New, facts["/motion/delta/endStopLeft"].New));
    }

    [Fact]
    public void No_text_upsets_the_reader() =>
        Gen.String.Sample(text => { ReportReader.Read(text, Cards.Dunlin); ReportReader.Read("echo: M92 " + text, Cards.Dunlin); },
        iter: 3000);
}
