using System.Buffers.Binary;
using MillCard.Core.Slicing.Paths;

namespace MillCard.Core.Slicing.Writing;

/// <summary>The layers as a compact binary of typed paths, for the screen.</summary>
/// <remarks>
/// Little-endian. Header: "MCL1", int32 number of layers. Per layer: float32 top, float32 height, int32 number of paths.
/// Per path: byte kind (<see cref="PathKind"/>), byte closed, uint16 0, float32 width, int32 number of points, then float32 x, y each, bed
/// frame. A line of varying width stands as pieces of one width each.
/// </remarks>
public static class LayerFile
{
    /// <summary>Writes the layers.</summary>
    public static byte[] Write(IReadOnlyList<LayerPlan> layers)
    {
        var pieces = layers.Select(l => l.Paths.SelectMany(p => p.Even()).ToArray()).ToArray();
        var size = 8 + pieces.Sum(l => 12 + l.Sum(p => 12 + 8 * p.Points.Length));
        var file = new byte[size];
        "MCL1"u8.CopyTo(file);
        var at = 4;
        Int(layers.Count);
        foreach (var (layer, paths) in layers.Zip(pieces))
        {
            Float(layer.Place.Top);
            Float(layer.Place.Height);
            Int(paths.Length);
            foreach (var path in paths)
            {
                file[at] = (byte)path.Kind;
                file[at + 1] = path.Closed ? (byte)1 : (byte)0;
                at += 4;
                Float(path.Width);
                Int(path.Points.Length);
                foreach (var point in path.Points) { Float(point.X); Float(point.Y); }
            }
        }
        return file;

        void Int(int value) { BinaryPrimitives.WriteInt32LittleEndian(file.AsSpan(at), value); at += 4; }
        void Float(double value) { BinaryPrimitives.WriteSingleLittleEndian(file.AsSpan(at), (float)value); at += 4; }
    }
}
