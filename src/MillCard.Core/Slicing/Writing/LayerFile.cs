using System.Runtime.InteropServices;
using MillCard.Core.Slicing.Paths;

namespace MillCard.Core.Slicing.Writing;

/// <summary>The layers as a compact binary of typed paths, for the screen.</summary>
/// <remarks>
/// Little-endian. Header: "MCL3", int32 number of layers. Per layer: float32 top, height and seconds, int32 number of paths.
/// Per path: byte kind (<see cref="PathKind"/>), byte closed, byte nozzle, byte whether filament was pulled back on the way to it, float32
/// width, then <see cref="LaidFigures"/>: float32 speed, flow, temperature, fan, acceleration; int32 first and last program line, counted
/// from 1; int32 corners of the way to it and float32 x, y each, bed frame; int32 points and float32 x, y each. A line of varying width
/// stands as pieces of one width each, which all have the figures of the whole line; the way leads to the first.
/// </remarks>
public static class LayerFile
{
    /// <summary>Whether a file is one of this description, not of an earlier one.</summary>
    public static bool IsCurrent(ReadOnlySpan<byte> file) => file.StartsWith("MCL3"u8);

    /// <summary>Writes the layers.</summary>
    /// <param name="layers">From the bottom up.</param>
    /// <param name="lines">What the dry run says of every line, in the order of the layers.</param>
    /// <param name="seconds">How long each layer takes.</param>
    public static byte[] Write(IReadOnlyList<LayerPlan> layers, IReadOnlyList<LaidLine> lines, IReadOnlyList<double> seconds)
    {
        var file = new MemoryStream();
        file.Write("MCL3"u8);
        Int(layers.Count);
        var number = 0;
        foreach (var (index, layer) in layers.Index())
        {
            Float(layer.Place.Top);
            Float(layer.Place.Height);
            Float(seconds[index]);
            var pieces = layer.Paths.Select(path => (Line: lines[number++], Pieces: path.Even().ToArray())).ToArray();
            Int(pieces.Sum(path => path.Pieces.Length));
            foreach (var (line, even) in pieces)
                foreach (var (i, path) in even.Index()) Path(path, i == 0 ? line : line with { Way = [], PulledBack = false });
        }
        return file.ToArray();

        void Path(ToolPath path, LaidLine line)
        {
            file.Write([(byte)path.Kind, Bit(path.Closed), (byte)path.Nozzle, Bit(line.PulledBack)]);
            Float(path.Width);
            file.Write(MemoryMarshal.AsBytes([line.Figures]));
            Int(line.First);
            Int(line.Last);
            Points(line.Way);
            Points(path.Points);
        }
        void Points(IReadOnlyList<Point> points)
        {
            Int(points.Count);
            foreach (var point in points) { Float(point.X); Float(point.Y); }
        }
        static byte Bit(bool value) => value ? (byte)1 : (byte)0;
        void Int(int value) => file.Write(MemoryMarshal.AsBytes([value]));
        void Float(double value) => file.Write(MemoryMarshal.AsBytes([(float)value]));
    }
}
