using System.Globalization;
using System.Text;
using BenchmarkDotNet.Attributes;
using MillCard.Core.Documents;
using MillCard.Core.DryRun;
using MillCard.Core.Machines;
using MillCard.Core.Routines.Previews;
using MillCard.Core.Rules;

namespace MillCard.Bench;

/// <summary>What is said of a routine of 5 000 lines after a keystroke: written out, run with the imagined part, every rule looked
/// at.</summary>
[MemoryDiagnoser]
public class RoutineOf5000Lines
{
    private Card? _card;
    private int _key;

    [GlobalSetup]
    public void Setup()
    {
        _card = DocumentReader.Read<Card>(Examples.Of("card")).Document!;
        var start = new StringBuilder("M104 S{{ heat.standby }}\nG28\nM109 S{{ heat.nozzle }}\n");
        for (var i = 0; i < 5000; i++) start.Append(CultureInfo.InvariantCulture,
            $"G1 X{{{{ bed.min_x | plus: {20 + i % 100} }}}} Y{20 + i % 90} Z{5 + i % 7} F6000\n");
        _card = _card with { Routines = _card.Routines with { Start = start.ToString() } };
    }

    /// <summary>Every run has another text, as every keystroke has.</summary>
    [Benchmark]
    public int Findings()
    {
        var card = _card! with { Routines = _card.Routines with { Start = _card.Routines.Start + $"; {_key++}\n" } };
        return RoutinePreview.Of(Machine.Of(card), null, null, null, 1, default).Findings.Count + RuleBook.Check(card).Count;
    }
}

/// <summary>A program of a million lines, run and looked at by every rule.</summary>
[MemoryDiagnoser]
public class ProgramOfAMillionLines
{
    private Machine? _machine;
    private byte[] _program = [];

    [GlobalSetup]
    public void Setup()
    {
        _machine = Machine.Of(DocumentReader.Read<Card>(Examples.Of("card")).Document!);
        var text = new StringBuilder("M104 S210\nG28\nM109 S210\nM83\n; layers begin\n");
        for (var i = 0; i < 1_000_000; i++) text.Append(CultureInfo.InvariantCulture,
            $"G1 X{60 + i % 400 * 0.1:0.###} Y{60 + i * 7 % 400 * 0.1:0.###} Z{0.2 + i / 5000 * 0.2:0.##} E0.01\n");
        text.Append("; layers end\nG1 Z80 F600\nM104 S0\nM84\n");
        _program = Encoding.UTF8.GetBytes(text.ToString());
    }

    [Benchmark(Baseline = true)] public double DryRun() => SimulatedMachine.Run(_machine!, _program).TotalSeconds;

    [Benchmark] public int DryRunAndRules() => RuleBook.Check(SimulatedMachine.Run(_machine!, _program), _machine!).Count;
}
