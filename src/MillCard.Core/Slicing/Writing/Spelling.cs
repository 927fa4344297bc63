using MillCard.Core.Flavours;
using MillCard.Core.Gcode;
using MillCard.Core.Machines;

namespace MillCard.Core.Slicing.Writing;

/// <summary>Writes what a program wants of its machine in the words of the machine's dialect.</summary>
internal sealed class Spelling(Machine machine, GcodeWriter to)
{
    private readonly Flavour _flavour = Flavour.Of(machine.Flavour);

    /// <summary>A line as the dialect spells it; nothing where it cannot.</summary>
    public void Say(string what, params ReadOnlySpan<(string Place, object? Value)> values)
    {
        if (_flavour.Spell(what, values) is { } line && IsThere(line)) to.Line(line);
    }

    /// <summary>Whether the dialect can say something, and the machine has the command.</summary>
    public bool Has(string what) => _flavour.Spell(what) is { } line && IsThere(line);

    /// <summary>Whether the machine follows arcs.</summary>
    public bool KnowsArcs => Knows("G2") && Knows("G3");

    private bool Knows(string word) => _flavour.Commands.Any(c => c.Word == word) && IsThere(word);

    /// <summary>Whether the machine has the command of a line; some have theirs only where they were switched on.</summary>
    private bool IsThere(string line)
    {
        var word = line.Split(' ')[0];
        return _flavour.Commands.FirstOrDefault(c => c.Word == word)?.Needs is null || machine.Card.Firmware.Present.Contains(word);
    }
}
