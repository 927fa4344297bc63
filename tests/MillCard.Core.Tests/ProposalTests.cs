using MillCard.Core.Documents;
using MillCard.Core.Findings;
using MillCard.Core.Meshes;
using MillCard.Core.Starting;
using Xunit;

namespace MillCard.Core.Tests;

/// <summary>Routines that are proposed to begin with.</summary>
public class ProposalTests
{
    [Fact]
    public void A_plain_start_and_end_hold_what_the_machine_has()
    {
        var card = With(Cards.Dunlin, FlavourId.Marlin, heated: true, ProbeKind.Inductive);
        Assert.Equal("; warm together, wait late\nM140 S{{ heat.bed }}\nM104 S{{ heat.standby }}\nM83\nG28\nG29\nG1 Z10 F600\n"
            + "M190 S{{ heat.bed }}\nM109 S{{ heat.nozzle }}\nG92 E0\n", Proposal.Start(card));
        Assert.Equal("; up first, then all off\nG1 E-2 F2100\nG1 Z{{ clear.z }} F600\nM104 S0\nM140 S0\nM107\nM84\n", Proposal.End(card));
        var cold = With(Cards.Dunlin, FlavourId.Marlin, heated: false, ProbeKind.None);
        Assert.DoesNotMatch("M140|M190|G29", Proposal.Start(cold) + Proposal.End(cold));
    }

    [Fact]
    public void A_draft_that_does_not_say_its_flavour_gets_words_that_all_know() =>
        Assert.Contains("M109 S{{ heat.nozzle }}", Proposal.Start(Cards.Dunlin with { Firmware = new() }), StringComparison.Ordinal);

    [Fact]
    public void Every_nozzle_is_switched_off()
    {
        var end = Proposal.End(DemoParts.Card("oystercatcher"));
        Assert.All(DemoParts.Card("oystercatcher").Head.Nozzles!.Index(),
            nozzle => Assert.Contains($"M104 T{nozzle.Index} S0\n", end, StringComparison.Ordinal));
    }

    [Fact]
    public void What_is_proposed_prints_on_every_flavour_without_a_stop()
    {
        foreach (var flavour in Enum.GetValues<FlavourId>())
            foreach (var heated in new[] { true, false })
            {
                var card = With(Cards.Bare(), flavour, heated, ProbeKind.None);
                card = card with { Routines = new() { Start = Proposal.Start(card), End = Proposal.End(card) } };
                var job = Engine.Job(Block.Of(20, 20, 2), Engine.Plain, card) with { Filament = Proposal.Filament(card) };
                var findings = Engine.Slice(job).Findings.Where(f => f.Severity == Severity.Stop).Select(f => f.Message);
                Assert.True(!findings.Any(), $"{flavour}, {heated}: {string.Join(' ', findings)}");
            }
    }

    private static Card With(Card card, FlavourId flavour, bool heated, ProbeKind probe) => card with
    {
        Firmware = new() { Flavour = flavour },
        Envelope = card.Envelope with { Heated = heated },
        Head = card.Head with { Probe = new() { Kind = probe } },
    };
}
