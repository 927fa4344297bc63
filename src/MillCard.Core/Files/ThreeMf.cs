using System.Globalization;
using System.IO.Compression;
using System.Text;
using System.Xml;
using MillCard.Core.Meshes;

namespace MillCard.Core.Files;

/// <summary>Reads and writes 3MF, core specification: units, objects, components, transforms, build items, metadata.</summary>
public static class ThreeMf
{
    private const string Format = "3MF";
    private const string Core = "http://schemas.microsoft.com/3dmanufacturing/core/2015/02";
    private const string Relation = "http://schemas.microsoft.com/3dmanufacturing/2013/01/3dmodel";
    private const int Deepest = 16;

    private sealed record Part(string? Name, float[] Corners, int[] Faces, List<(int Id, Placing At)> Components);

    private sealed record Model(double Unit, Dictionary<int, Part> Objects, List<(int Id, Placing At)> Items);

    internal static IReadOnlyList<FilePart> Read(ZipArchive archive, CancellationToken stop)
    {
        using var stream = Packed.Open(Root(archive, stop), stop);
        var model = MeshXml.Reading(Format, stream, ReadModel);
        if (model.Items.Count > MeshFile.MostParts)
            throw new MeshRefusedException(
            $"This 3MF holds {model.Items.Count} parts; at most {MeshFile.MostParts} are read, as many as lie on a bed.");
        var parts = new List<FilePart>();
        var known = new Dictionary<int, long>();
        if (model.Items.Sum(item => FacesOf(model, item.Id, known, 0)) > FaceList.Most)
            throw new MeshRefusedException($"This 3MF unfolds to more than {FaceList.Most} faces.");
        foreach (var (id, at) in model.Items)
        {
            var faces = new FaceList(Format, 1024, stop);
            Lay(model, id, at, faces);
            if (faces.Count > 0) parts.Add(new FilePart(model.Objects.GetValueOrDefault(id)?.Name, faces.ToMesh()));
        }
        return parts.Count > 0 ? parts : throw new MeshRefusedException("This 3MF has nothing on its build plate.");
    }

    /// <summary>The model that the package's relations name; the usual place where they name none.</summary>
    private static ZipArchiveEntry Root(ZipArchive archive, CancellationToken stop)
    {
        var target = "3D/3dmodel.model";
        if (archive.GetEntry("_rels/.rels") is { } relations)
        {
            using var stream = Packed.Open(relations, stop);
            target = MeshXml.Reading(Format, stream, reader =>
            {
                while (reader.Read())
                    if (reader is { NodeType: XmlNodeType.Element, LocalName: "Relationship" } && reader.GetAttribute("Type") == Relation
                        && reader.GetAttribute("Target") is { } found) return found.TrimStart('/');
                return target;
            });
        }
        return archive.GetEntry(target) ?? archive.Entries.First(e => e.FullName.EndsWith(".model", StringComparison.OrdinalIgnoreCase));
    }

    private static Model ReadModel(XmlReader reader)
    {
        var model = new Model(1, [], []);
        var (id, name) = (0, (string?)null);
        var (corners, faces, components) = (new List<float>(), new List<int>(), new List<(int, Placing)>());
        while (reader.Read())
        {
            if (reader.NodeType == XmlNodeType.EndElement && reader.LocalName == "object") Keep();
            if (reader.NodeType != XmlNodeType.Element) continue;
            switch (reader.LocalName)
            {
                case "model":
                    model = model with { Unit = MeshXml.Millimetres(Format, reader.GetAttribute("unit")) };
                    break;
                case "object":
                    (id, name) = (Id(reader.GetAttribute("id")), reader.GetAttribute("name"));
                    if (reader.IsEmptyElement) Keep();
                    break;
                case "vertex":
                    corners.AddRange([Coordinate(reader, "x"), Coordinate(reader, "y"), Coordinate(reader, "z")]);
                    if (corners.Count > 9L * FaceList.Most) throw new MeshRefusedException("This 3MF has too many corners.");
                    break;
                case "triangle":
                    var count = corners.Count / 3;
                    faces.AddRange([MeshXml.Index(Format, reader.GetAttribute("v1"), count),
                        MeshXml.Index(Format, reader.GetAttribute("v2"), count), MeshXml.Index(Format, reader.GetAttribute("v3"), count)]);
                    if (faces.Count > 3L * FaceList.Most) throw new MeshRefusedException($"This 3MF has more than {FaceList.Most} faces.");
                    break;
                case "component":
                    components.Add((Id(reader.GetAttribute("objectid")), Placing.Parse(reader.GetAttribute("transform"))));
                    break;
                case "item":
                    model.Items.Add((Id(reader.GetAttribute("objectid")), Placing.Parse(reader.GetAttribute("transform"))));
                    break;
            }
        }
        return model;

        void Keep()
        {
            model.Objects[id] = new Part(name, [.. corners], [.. faces], [.. components]);
            corners.Clear(); faces.Clear(); components.Clear();
        }
    }

    private static float Coordinate(XmlReader reader, string axis) => (float)MeshXml.Number(Format, reader.GetAttribute(axis));

    private static int Id(string? text) => int.TryParse(text, NumberStyles.None, CultureInfo.InvariantCulture, out var id) ? id
        : throw new MeshRefusedException($"This 3MF names an object “{text}”.");

    /// <summary>Faces of an object with all its components, counted before any is laid.</summary>
    private static long FacesOf(Model model, int id, Dictionary<int, long> known, int depth)
    {
        if (depth > Deepest) throw new MeshRefusedException("The components of this 3MF are nested too deep, or in themselves.");
        if (!model.Objects.TryGetValue(id, out var part))
            throw new MeshRefusedException($"This 3MF names object {id}, which it does not have.");
        if (known.TryGetValue(id, out var count)) return count;
        count = part.Faces.Length / 3 + 1;
        foreach (var (child, _) in part.Components) count = Math.Min(count + FacesOf(model, child, known, depth + 1), int.MaxValue);
        return known[id] = count;
    }

    private static void Lay(Model model, int id, Placing at, FaceList into)
    {
        var part = model.Objects[id];
        Span<float> c = stackalloc float[9];
        for (var f = 0; f < part.Faces.Length; f += 3)
        {
            for (var k = 0; k < 3; k++)
            {
                // a mirrored part's faces are turned round
                var corner = 3 * part.Faces[f + (at.Mirrors ? 2 - k : k)];
                var (x, y, z) = at.Of(part.Corners[corner], part.Corners[corner + 1], part.Corners[corner + 2]);
                (c[3 * k], c[3 * k + 1], c[3 * k + 2]) = ((float)(x * model.Unit), (float)(y * model.Unit), (float)(z * model.Unit));
            }
            into.Add(c);
        }
        foreach (var (child, placing) in part.Components) Lay(model, child, placing.Then(at), into);
    }

    /// <summary>Writes parts as they stand, one build item each, in mm.</summary>
    /// <param name="title">Title of the model.</param>
    /// <param name="parts">Names and meshes.</param>
    public static byte[] Write(string title, IReadOnlyList<FilePart> parts)
    {
        var file = new MemoryStream();
        using (var archive = new ZipArchive(file, ZipArchiveMode.Create, leaveOpen: true))
        {
            Text(archive, "[Content_Types].xml", """
                <?xml version="1.0" encoding="UTF-8"?>
                <Types xmlns="http://schemas.openxmlformats.org/package/2006/content-types">
                <Default Extension="rels" ContentType="application/vnd.openxmlformats-package.relationships+xml"/>
                <Default Extension="model" ContentType="application/vnd.ms-package.3dmanufacturing-3dmodel+xml"/>
                </Types>
                """);
            Text(archive, "_rels/.rels", $"""
                <?xml version="1.0" encoding="UTF-8"?>
                <Relationships xmlns="http://schemas.openxmlformats.org/package/2006/relationships">
                <Relationship Id="model" Type="{Relation}" Target="/3D/3dmodel.model"/>
                </Relationships>
                """);
            using var entry = archive.CreateEntry("3D/3dmodel.model").Open();
            using var xml = XmlWriter.Create(entry, new XmlWriterSettings { Encoding = new UTF8Encoding(false) });
            WriteModel(xml, title, parts);
        }
        return file.ToArray();
    }

    private static void Text(ZipArchive archive, string name, string text)
    {
        using var entry = archive.CreateEntry(name).Open();
        entry.Write(Encoding.UTF8.GetBytes(text));
    }

    private static void WriteModel(XmlWriter xml, string title, IReadOnlyList<FilePart> parts)
    {
        xml.WriteStartElement("model", Core);
        xml.WriteAttributeString("unit", "millimeter");
        xml.WriteStartElement("metadata", Core);
        xml.WriteAttributeString("name", "Title");
        xml.WriteString(Plain(title));
        xml.WriteEndElement();
        xml.WriteStartElement("resources", Core);
        for (var i = 0; i < parts.Count; i++) WriteObject(xml, i + 1, parts[i]);
        xml.WriteEndElement();
        xml.WriteStartElement("build", Core);
        for (var i = 0; i < parts.Count; i++)
        {
            xml.WriteStartElement("item", Core);
            xml.WriteAttributeString("objectid", Invariant($"{i + 1}"));
            xml.WriteEndElement();
        }
        xml.WriteEndElement();
        xml.WriteEndElement();
    }

    /// <summary>A name without the control characters that XML cannot hold.</summary>
    private static string Plain(string name) => new([.. name.Select(c => XmlConvert.IsXmlChar(c) || char.IsSurrogate(c) ? c : ' ')]);

    private static void WriteObject(XmlWriter xml, int id, FilePart part)
    {
        xml.WriteStartElement("object", Core);
        xml.WriteAttributeString("id", Invariant($"{id}"));
        xml.WriteAttributeString("type", "model");
        if (part.Name is { } name) xml.WriteAttributeString("name", Plain(name));
        xml.WriteStartElement("mesh", Core);
        xml.WriteStartElement("vertices", Core);
        var c = part.Mesh.Corners;
        for (var i = 0; i < c.Length; i += 3) Element("vertex", ("x", Say(c[i])), ("y", Say(c[i + 1])), ("z", Say(c[i + 2])));
        xml.WriteEndElement();
        xml.WriteStartElement("triangles", Core);
        var f = part.Mesh.Faces;
        for (var i = 0; i < f.Length; i += 3) Element("triangle", ("v1", Say(f[i])), ("v2", Say(f[i + 1])), ("v3", Say(f[i + 2])));
        xml.WriteEndElement();
        xml.WriteEndElement();
        xml.WriteEndElement();

        void Element(string name, params ReadOnlySpan<(string Name, string Value)> attributes)
        {
            xml.WriteStartElement(name, Core);
            foreach (var (attribute, value) in attributes) xml.WriteAttributeString(attribute, value);
            xml.WriteEndElement();
        }
    }

    private static string Say(float value) => value.ToString("R", CultureInfo.InvariantCulture);
    private static string Say(int value) => Invariant($"{value}");
}
