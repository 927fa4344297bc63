using MillCard.Core.Documents;
using MillCard.Core.Findings;
using MillCard.Core.Flavours;
using MillCard.Core.Routines.Previews;
using Xunit;

namespace MillCard.Core.Tests;

/// <summary>Start and end routines as practitioners write them, twelve of each for every dialect: not one false stop, not one unknown
/// word.</summary>
public class PractisedRoutineTests
{
    private static readonly string Folder = Path.Combine(AppContext.BaseDirectory, "practised");

    private sealed record Practised(FlavourId Flavour, bool Start, string Name, string Text)
    {
        public override string ToString() => $"{Flavour} {(Start ? "start" : "end")}: {Name}";
    }

    private static IEnumerable<Practised> Read(FlavourId flavour)
    {
        var text = File.ReadAllText(Path.Combine(Folder, $"{flavour.ToString().ToLowerInvariant()}.txt"));
        foreach (var part in text.Split("== ", StringSplitOptions.RemoveEmptyEntries))
        {
            var title = part.Split('\n')[0];
            yield return new(flavour, title.StartsWith("start", StringComparison.Ordinal), title.Split(": ")[1],
                part[(title.Length + 1)..]);
        }
    }

    private static readonly Practised[] All = [.. Enum.GetValues<FlavourId>().SelectMany(Read)];

    public static TheoryData<int> Places => [.. Enumerable.Range(0, All.Length)];

    private static readonly Axis Sideways = new() { MaxSpeed = 250, Min = -5, Max = 225, HomingSpeed = 50 };

    private static Card CardFor(Practised routine)
    {
        var bare = Cards.Bare(220, 220, 250);
        var files = Path.Combine(Folder, $"{routine.Flavour.ToString().ToLowerInvariant()}.files.txt");
        var chamber = Flavour.Of(routine.Flavour).Spell("chamber-set", ("value", 0));
        return bare with
        {
            Firmware = new() { Flavour = routine.Flavour, Macros = File.Exists(files) ? File.ReadAllText(files) : null },
            Head = bare.Head with
            {
                Probe = new() { Kind = ProbeKind.Inductive, Z = -1.2, X = 20, Y = 0 },
                Fans = [new() { Id = "part", Number = 0, Kind = FanKind.Part }]
            },
            Motion = bare.Motion with
            {
                Axes = new()
                {
                    X = Sideways,
                    Y = Sideways,
                    Z = new() { MaxSpeed = 12, Min = 0, Max = 255, HomingSpeed = 5 }
                }
            },
            Routines = routine.Start
                ? new() { Start = routine.Text, End = $"G91\nG1 Z5 F600\nG90\nG1 X5 Y200 F6000\nM104 S0\nM140 S0\n{chamber}\nM107\nM84\n" }
                : new()
                {
                    Start = "M140 S60\nM104 S150\nG28\nM190 S60\nM109 S200\nM83\nG1 X10 Y10 Z0.3 F6000\nG1 X100 E9 F1200\n",
                    End = routine.Text
                },
            Heat = bare.Heat with { Housing = Housing.HeatedChamber, Bed = null },
        };
    }

    [Theory, MemberData(nameof(Places))]
    public void No_routine_that_is_right_is_stopped(int place)
    {
        var routine = All[place];
        var preview = RoutinePreview.Of(CardFor(routine).Machine(), null, null, null, 1, default);
        var pointer = routine.Start ? "/routines/start" : "/routines/end";
        Assert.Contains(preview.Moments, m => m.Pointer == pointer && m.Lines.Count > 0);
        var wrong = preview.Findings.Where(f => f.Severity == Severity.Stop
            || f.Rule is "unknown-command" or "unknown-macro" or "flavour-cannot" or "not-followed" or "parameter-range");
        Assert.True(!wrong.Any(f => !Known(routine, f)),
            $"{routine}\n{string.Join('\n', wrong.Select(f => $"{f.Rule} {f.Severity} {f.Pointer} {f.Line}: {f.Message}"))}");
    }

    /// <summary>What is said with good reason: what a firmware has only where it was built with it, and what only the printer
    /// knows.</summary>
    private static bool Known(Practised routine, Finding finding) => (routine.Flavour, finding.Rule) switch
    {
        // a configuration proves what is there; without one it is doubted
        (not FlavourId.Klipper, "flavour-cannot") => true,
        (FlavourId.RepRapFirmware, "not-followed") => finding.Message.Contains("state.upTime"),
        (FlavourId.RepRap, "not-followed") => routine.Name == "corner and speed",
        _ => false,
    };

    [Fact]
    public void There_are_twelve_of_each_for_every_dialect()
    {
        Assert.All(Enum.GetValues<FlavourId>(), flavour =>
        {
            Assert.Equal(12, All.Count(r => r.Flavour == flavour && r.Start));
            Assert.Equal(12, All.Count(r => r.Flavour == flavour && !r.Start));
        });
    }
}
