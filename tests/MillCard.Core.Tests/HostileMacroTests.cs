using System.Text;
using CsCheck;
using MillCard.Core.Documents;
using MillCard.Core.DryRun;
using MillCard.Core.Rules;
using Xunit;

namespace MillCard.Core.Tests;

/// <summary>Macros, files and conditions that nobody would write: the run ends, in time, and says what it could not follow.</summary>
public class HostileMacroTests
{
    private static DryRunReport Run(FlavourId flavour, string macros, string program)
    {
        var card = Cards.Bare() with { Firmware = new() { Flavour = flavour, Macros = macros } };
        var run = SimulatedMachine.Run(card.Machine(), Encoding.UTF8.GetBytes(program));
        RuleBook.Check(run, card.Machine());
        return run;
    }

    private static string Many(string piece, int count = 20_000) => new StringBuilder().Insert(0, piece, count).ToString();

    public static TheoryData<string> Expressions =>
    [
        Many("-") + "1", Many("not ") + "1", Many("(") + "1", Many("1 if 1 else ") + "1", Many("[") + "1", "1" + Many(" ~ 1"),
            "1" + Many("|abs"), "a" + Many(".a"), "a" + Many("[0]"), "range(0, 1000000000)", "\"" + Many("x"),
    ];

    [Theory, MemberData(nameof(Expressions))]
    public void An_expression_without_end_is_left(string expression)
    {
        Run(FlavourId.Klipper, $"[gcode_macro X]\ngcode:\n  G1 X{{{expression}}}\n  {{% if {expression} %}}\n  G28\n  {{% endif %}}\n",
            "X\n");
        Run(FlavourId.RepRapFirmware, "", $"G1 X{{{expression}}}\nif {expression}\n  G28\n");
    }

    [Theory]
    [InlineData("!")]
    [InlineData("-")]
    [InlineData("#")]
    [InlineData("1 ? 2 : ")]
    [InlineData("abs(")]
    [InlineData("exists(")]
    [InlineData("{")]
    public void A_condition_without_end_is_left(string piece) =>
        Assert.NotEmpty(Run(FlavourId.RepRapFirmware, "", $"if {Many(piece)}1\n  G28\n").Unfollowed);

    [Fact]
    public void Conditions_within_conditions_without_end_are_left()
    {
        var program = new StringBuilder();
        for (var i = 0; i < 5000; i++) program.Append(' ', i).Append("if true\n");
        Assert.True(Run(FlavourId.RepRapFirmware, "", program.ToString()).TotalSeconds < 1);
        Run(FlavourId.Klipper, "[gcode_macro X]\ngcode:\n  " + Many("{% if 1 %}", 5000) + "\n", "X\n");
    }

    [Fact]
    public void Loops_within_loops_end()
    {
        var run = Run(FlavourId.RepRapFirmware, "", "while true\n  while true\n    while true\n      G4 P1\n");
        Assert.NotEmpty(run.Unfollowed);
        Assert.True(run.TotalSeconds < 1000);
    }

    [Fact]
    public void Files_that_call_each_other_end() =>
        Assert.NotEmpty(Run(FlavourId.RepRapFirmware, "[a.g]\nM98 P\"b.g\"\nM98 P\"b.g\"\n[b.g]\nM98 P\"a.g\"\nT1\n[tpre1.g]\nT0\nT1\n",
            "M98 P\"a.g\"\n").Recursions);

    private static readonly string[] Pieces = ["if", "elif", "else", "while", "{", "}", "%}", "{%", "set", "var", "=", "G1", "X", "1", "-",
        "endif", "for", "in", "range(", ")", "\n", "\n  ", "\n    ", "break", "continue", "M98 P\"a\"", "[a]", "move.axes[0]", "global.x",
        "|", "'", "\"", "T1", "M28", "M29", "G53", "M99", "abort", "true", "params.X", "printer.", "RESTORE_GCODE_STATE"];
    private static readonly Gen<string> Soup = Gen.Int[0, Pieces.Length - 1].Array[1, 60]
        .Select(pieces => string.Join(' ', pieces.Select(i => Pieces[i])));

    [Fact]
    public void Whatever_is_written_the_run_ends() => Gen.Select(Soup, Soup).Sample((macros, program) =>
    {
        Run(FlavourId.RepRapFirmware, "[a]\n" + macros, program);
        Run(FlavourId.Klipper, "[gcode_macro X]\ngcode:\n  " + macros.Replace("\n", "\n  "), "X\n" + program);
        Run(FlavourId.Smoothieware, "", program);
    }, iter: 500);
}
