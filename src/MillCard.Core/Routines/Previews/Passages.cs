using MillCard.Core.Documents;
using MillCard.Core.Flavours;
using MillCard.Core.Machines;

namespace MillCard.Core.Routines.Previews;

/// <summary>A few lines for a routine, made from the card's facts, to be inserted and adapted.</summary>
/// <param name="Id">Kebab-case.</param>
/// <param name="Title">What it does.</param>
/// <param name="About">How, with the numbers of this machine.</param>
/// <param name="Moment">The routine it belongs to.</param>
/// <param name="Text">G-code with Liquid.</param>
public sealed record Passage(string Id, string Title, string About, string Moment, string Text);

/// <summary>The passages for a machine.</summary>
public static class Passages
{
    /// <summary>All that make sense on a machine.</summary>
    public static IReadOnlyList<Passage> For(Machine machine)
    {
        Passage?[] all = [WarmTogether(machine), Home(machine), Level(machine), PrimeLine.Of(machine), Wiper(machine), Present(machine),
            AllOff(machine)];
        return [.. all.OfType<Passage>()];
    }

    private static Passage WarmTogether(Machine machine)
    {
        var heated = machine.Card.Envelope.Heated == true;
        return new("warm-together", "Warm both together, wait late", heated
                ? "The bed heats while the nozzle waits at standby, where it does not ooze."
                : "The nozzle warms to standby while the machine homes.",
            "start", Lines([.. HeaterLines.Warm(Flavour.Of(machine.Flavour), heated, "G28")]));
    }

    private static Passage Home(Machine machine) =>
        new("home", "Home", "Words are positions, lengths in mm, E words are lengths.", "start",
            Lines("; home", Flavour.Of(machine.Flavour).Find('G', 21) is null ? null : "G21", "G90", "M83", "G28"));

    private static Passage? Level(Machine machine)
    {
        var flavour = Flavour.Of(machine.Flavour);
        if (machine.Card.Head.Probe is not { Kind: not (null or ProbeKind.None) } || flavour.Spell("level") is not { } level) return null;
        return flavour.HomeDropsMesh
            ? new("level", "Level after home", "Homing forgets the mesh on this flavour: probe after it, or switch the stored mesh on.",
                "start", Lines("; level after home", "G28", level, flavour.Spell("mesh-restore")))
            : new("level", "Level after home", "Probe after homing.", "start", Lines("; level after home", "G28", level));
    }

    private static Passage AllOff(Machine machine) => new("all-off", "All off", "Heaters, fan and motors.", "end", Lines(["; all off",
        .. HeaterLines.Off(Flavour.Of(machine.Flavour), machine.Nozzles.Count, machine.Card.Envelope.Heated == true)]));

    internal static string Lines(params string?[] lines) => string.Join('\n', lines.Where(l => l is not null)) + "\n";

    /// <summary>Three strokes over a reserved place that is named a wiper.</summary>
    private static Passage? Wiper(Machine machine)
    {
        if (machine.KeepOuts.FirstOrDefault(k => k.KeepOut.Kind == KeepOutKind.Reserved
            && k.KeepOut.Name?.Contains("wip", StringComparison.OrdinalIgnoreCase) == true) is not { } wiper) return null;
        var box = wiper.Outline.EnvelopeInternal;
        var (low, high) = (machine.Frames.ToMachine(new Point(box.MinX, box.MinY)),
            machine.Frames.ToMachine(new Point(box.MaxX, box.MaxY)));
        var middle = (low.Y + high.Y) / 2;
        string Stroke(double x) => Invariant($"G1 X{x:0.##} Y{middle:0.##} F6000");
        return new Passage("wipe", "Wipe the nozzle", $"Three strokes over {wiper.KeepOut.Name}.", "start",
            Lines("; wipe", "G1 Z{{ first.height | plus: 5 | mm }} F600", Stroke(low.X), "G1 Z1 F600", Stroke(high.X), Stroke(low.X),
            Stroke(high.X), "G1 Z5 F600"));
    }

    /// <summary>Up first, then the part where it can be taken.</summary>
    private static Passage Present(Machine machine)
    {
        var layout = machine.Card.Motion.Layout;
        var (way, about) = layout switch
        {
            MotionLayout.Delta => ("G28", "Up to the end-stops; on a delta that leads away from the part."),
            MotionLayout.MovingBed => ("G1 X{{ bed.min_x | plus: 5 | mm }} Y{{ bed.max_y | minus: 5 | mm }} F6000",
                "The bed comes forward, the head goes to the left."),
            _ => ("G1 X{{ bed.min_x | plus: 5 | mm }} Y{{ bed.max_y | minus: 5 | mm }} F6000", "The head goes to the back left."),
        };
        return new Passage("present", "Present the part", about, "end",
            Lines("; up first, then aside", "M83", "G1 E-2 F2100", layout == MotionLayout.Delta ? null
            : "G1 Z{{ clear.z | mm }} F600", way));
    }
}
