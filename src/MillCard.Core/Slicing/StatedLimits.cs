using MillCard.Core.Documents;
using MillCard.Core.Flavours;
using MillCard.Core.Gcode;

namespace MillCard.Core.Slicing;

/// <summary>The card's limits as commands of its flavour, for a card that states them at the start of every print.</summary>
internal static class StatedLimits
{
    /// <summary>Writes them; nothing where the card trusts what stands in the firmware.</summary>
    public static void Write(Card card, GcodeWriter into)
    {
        if (card.Motion.Limits != LimitsUse.Stated || card.Firmware.Flavour is not { } id) return;
        var flavour = Flavour.Of(id);
        var perMinute = flavour.SpeedLimitUnit == "mm/min";
        var axes = card.Motion.Axes;
        EachAxis(Meaning.LimitSpeed, axis => axis?.MaxSpeed * (perMinute ? 60 : 1));
        EachAxis(Meaning.LimitAcceleration, axis => axis?.MaxAcceleration);
        if (card.Motion.Corner is not { } corner || Word(Meaning.SetCorner) is not { } word) return;
        switch (corner.Kind)
        {
            case CornerKind.JunctionDeviation when flavour.Commands.First(c => c.Word == word).Parameters.Any(p => p.Letter == 'J'):
                into.Command(word).Fine('J', corner.Value).End();
                break;
            case CornerKind.InstantSpeedChange:
                into.Command(word).Word('X', corner.Value * (perMinute ? 60 : 1)).Word('Y', corner.Value * (perMinute ? 60 : 1)).End();
                break;
        }

        string? Word(Meaning meaning) => flavour.Commands.FirstOrDefault(c => c.Meaning == meaning)?.Word;

        void EachAxis(Meaning meaning, Func<Axis?, double?> of)
        {
            (char Letter, double? Value)[] values = [('X', of(axes.X)), ('Y', of(axes.Y)), ('Z', of(axes.Z)), ('E', of(axes.E))];
            if (Word(meaning) is not { } command || values.All(v => v.Value is null)) return;
            into.Command(command);
            foreach (var (letter, value) in values) if (value is { } v) into.Word(letter, v);
            into.End();
        }
    }
}
