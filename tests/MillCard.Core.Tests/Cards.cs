using MillCard.Core.Documents;
using MillCard.Core.Machines;
using Routine = MillCard.Core.Documents.Routines;

namespace MillCard.Core.Tests;

/// <summary>Documents to try things on: the shipped examples and what tests make of them.</summary>
internal static class Cards
{
    public static Card Dunlin { get; } = DocumentReader.Read<Card>(Examples.Of("card")).Document!;
    public static Filament Petg { get; } = DocumentReader.Read<Filament>(Examples.Of("filament")).Document!;
    public static Recipe Standard { get; } = DocumentReader.Read<Recipe>(Examples.Of("recipe")).Document!;

    /// <summary>A bare machine: a rectangular bed, no keep-outs, no head bodies, no routines.</summary>
    public static Card Bare(double width = 300, double depth = 200, double height = 200) => Dunlin with
    {
        Envelope = new()
        {
            Bed = new RectangleBed { Width = width, Depth = depth },
            Origin = new() { X = 0, Y = 0 },
            Height = height,
            Heated = true
        },
        Head = Dunlin.Head with { Bodies = [], Beams = [], Clearance = 0 },
        Motion = Dunlin.Motion with { Axes = new() },
        Routines = new Routine(),
        Sources = new Dictionary<string, FactSource>(),
    };

    public static Machine Machine(this Card card) => Core.Machines.Machine.Of(card);

    public static KeepOut Box(string name, KeepOutKind kind, double x, double y, double w, double d, double? top = null) =>
        new() { Name = name, Kind = kind, Outline = new RectangleOutline { X = x, Y = y, Width = w, Depth = d }, Top = top };
}
