using MillCard.Core.Documents;
using MillCard.Core.Flavours;
using MillCard.Core.Gcode;

namespace MillCard.Core.Slicing.Writing;

/// <summary>The card's limits as commands of its flavour, for a card that states them at the start of every print.</summary>
internal static class StatedLimits
{
    /// <summary>Writes them; nothing where the card trusts what stands in the firmware.</summary>
    public static void Write(Card card, GcodeWriter into)
    {
        if (card.Motion.Limits != LimitsUse.Stated || card.Firmware.Flavour is not { } id) return;
        var flavour = Flavour.Of(id);
        Axes("speed-limits", axis => axis?.MaxSpeed * (flavour.SpeedLimitUnit == "mm/min" ? 60 : 1));
        Axes("acceleration-limits", axis => axis?.MaxAcceleration);
        if (card.Motion.Corner is not { } corner) return;
        Line(corner.Kind switch
        {
            CornerKind.JunctionDeviation => flavour.Spell("junction-deviation", ("value", corner.Value)),
            CornerKind.SquareCornerSpeed => flavour.Spell("square-corner-speed", ("value", corner.Value)),
            _ => flavour.Spell("instant-speed-change", ("x", InUnit(flavour, corner.Value)), ("y", InUnit(flavour, corner.Value))),
        });

        void Axes(string what, Func<Axis?, double?> of)
        {
            var axes = card.Motion.Axes;
            var (x, y) = (of(axes.X), of(axes.Y));
            // a flavour with one figure for the way takes the slower axis
            Line(flavour.Spell(what, ("x", x), ("y", y), ("z", of(axes.Z)), ("e", of(axes.E)),
                ("slowest", x is { } alongX && y is { } alongY ? Math.Min(alongX, alongY) : x ?? y)));
        }

        void Line(string? text)
        {
            if (text is not null) into.Line(text);
        }
    }

    private static double InUnit(Flavour flavour, double perSecond) => perSecond * (flavour.CornerUnit == "mm/min" ? 60 : 1);
}
