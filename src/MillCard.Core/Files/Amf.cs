using System.Xml;
using MillCard.Core.Meshes;

namespace MillCard.Core.Files;

/// <summary>Reads AMF (ISO/ASTM 52915): units, objects with their volumes, constellations. Curved triangles are taken as flat.</summary>
internal static class Amf
{
    private const string Format = "AMF";
    private const int Deepest = 16;

    private sealed record Instance(string Object, Placing At);

    public static IReadOnlyList<FilePart> Read(ReadOnlyMemory<byte> file, CancellationToken stop)
    {
        using var stream = new MemoryStream(file.ToArray(), writable: false);
        return Read(stream, stop);
    }

    public static IReadOnlyList<FilePart> Read(Stream stream, CancellationToken stop) => MeshXml.Reading(Format, stream, reader =>
    {
        var (unit, objects, constellations) = (1.0, new Dictionary<string, (string? Name, float[] Corners, int[] Faces)>(),
            new Dictionary<string, List<Instance>>());
        reader.MoveToContent();
        if (reader.LocalName != "amf")
            throw new MeshRefusedException($"This file is XML, but it begins with {reader.LocalName}: it is no AMF.");
        unit = MeshXml.Millimetres(Format, reader.GetAttribute("unit"));
        while (reader.Read())
        {
            stop.ThrowIfCancellationRequested();
            if (reader is not { NodeType: XmlNodeType.Element, Depth: 1 }) continue;
            if (reader.LocalName == "object") objects[reader.GetAttribute("id") ?? ""] = Object(reader);
            else if (reader.LocalName == "constellation") constellations[reader.GetAttribute("id") ?? ""] = Constellation(reader);
        }
        var inner = constellations.Values.SelectMany(c => c).Select(i => i.Object).ToHashSet();
        var roots = constellations.Keys.Where(id => !inner.Contains(id)).Concat(objects.Keys.Where(id => !inner.Contains(id))).ToArray();
        var (parts, left) = (new List<FilePart>(), FaceList.Most);
        foreach (var root in roots.Length > 0 ? roots : [.. objects.Keys]) Lay(root, Placing.None, 0);
        return parts.Count > 0 ? parts : throw new MeshRefusedException("This AMF has no object with a face.");

        void Lay(string id, Placing at, int depth)
        {
            if (depth > Deepest) throw new MeshRefusedException("The constellations of this AMF are nested too deep, or in themselves.");
            if (constellations.TryGetValue(id, out var instances))
            {
                foreach (var instance in instances) Lay(instance.Object, instance.At.Then(at), depth + 1);
                return;
            }
            if (!objects.TryGetValue(id, out var part))
                throw new MeshRefusedException($"This AMF names object {id}, which it does not have.");
            if ((left -= part.Faces.Length / 3 + 1) < 0)
                throw new MeshRefusedException($"This AMF unfolds to more than {FaceList.Most} faces.");
            if (part.Faces.Length == 0) return;
            if (parts.Count == MeshFile.MostParts)
                throw new MeshRefusedException($"This AMF holds more than {MeshFile.MostParts} parts, as many as lie on a bed.");
            var faces = new FaceList(Format, part.Faces.Length / 3, stop);
            Span<float> c = stackalloc float[9];
            for (var f = 0; f < part.Faces.Length; f += 3)
            {
                for (var k = 0; k < 3; k++)
                {
                    var corner = 3 * part.Faces[f + k];
                    var (x, y, z) = at.Of(part.Corners[corner], part.Corners[corner + 1], part.Corners[corner + 2]);
                    (c[3 * k], c[3 * k + 1], c[3 * k + 2]) = ((float)(x * unit), (float)(y * unit), (float)(z * unit));
                }
                faces.Add(c);
            }
            parts.Add(new FilePart(part.Name, faces.ToMesh()));
        }
    });

    private static (string? Name, float[] Corners, int[] Faces) Object(XmlReader reader)
    {
        var (name, corners, faces) = ((string?)null, new List<float>(), new List<int>());
        if (reader.IsEmptyElement) return (name, [], []);
        var depth = reader.Depth;
        reader.Read();
        while (reader.Depth > depth)
        {
            if (reader.NodeType != XmlNodeType.Element) { reader.Read(); continue; }
            switch (reader.LocalName)
            {
                case "metadata" when reader.GetAttribute("type") == "name"
                    && reader.Depth == depth + 1:
                    name = reader.ReadElementContentAsString(); break;
                case "x" or "y" or "z":
                    corners.Add((float)MeshXml.Number(Format, reader.ReadElementContentAsString()));
                    if (corners.Count > 9L * FaceList.Most) throw new MeshRefusedException("This AMF has too many corners.");
                    break;
                case "v1" or "v2" or "v3":
                    faces.Add(MeshXml.Index(Format, reader.ReadElementContentAsString(), corners.Count / 3));
                    if (faces.Count > 3L * FaceList.Most) throw new MeshRefusedException($"This AMF has more than {FaceList.Most} faces.");
                    break;
                default: reader.Read(); break;
            }
        }
        if (corners.Count % 3 != 0 || faces.Count % 3 != 0)
            throw new MeshRefusedException("A corner or a face of this AMF is not complete.");
        return (name, [.. corners], [.. faces]);
    }

    private static List<Instance> Constellation(XmlReader reader)
    {
        var instances = new List<Instance>();
        if (reader.IsEmptyElement) return instances;
        var depth = reader.Depth;
        reader.Read();
        while (reader.Depth > depth)
        {
            if (reader is not { NodeType: XmlNodeType.Element, LocalName: "instance" }) { reader.Read(); continue; }
            var id = reader.GetAttribute("objectid") ?? "";
            var at = new Dictionary<string, double>();
            var inside = reader.Depth;
            if (reader.IsEmptyElement) reader.Read();
            else
            {
                reader.Read();
                while (reader.Depth > inside)
                {
                    if (reader.NodeType == XmlNodeType.Element)
                        at[reader.LocalName] = MeshXml.Number(Format, reader.ReadElementContentAsString());
                    else reader.Read();
                }
            }
            double Of(string name) => at.GetValueOrDefault(name);
            instances.Add(new Instance(id, Placing.Of(Of("rx"), Of("ry"), Of("rz"), Of("deltax"), Of("deltay"), Of("deltaz"))));
        }
        return instances;
    }
}
