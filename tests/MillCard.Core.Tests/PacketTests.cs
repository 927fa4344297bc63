using System.IO.Compression;
using System.Text;
using System.Text.Json;
using System.Text.Json.Nodes;
using CsCheck;
using MillCard.Core.Documents;
using MillCard.Core.Packets;
using Xunit;

namespace MillCard.Core.Tests;

public class PacketTests
{
    private static readonly DateTimeOffset At = new(2026, 11, 2, 9, 30, 0, TimeSpan.Zero);
    private const long MostMemory = 1 << 20;
    private static readonly Guid CardId = Guid.Parse("0b9d3f5e-52f7-4f0f-9d38-4b1b7f6f0a01");

    private static byte[] Zip(params (string Path, byte[] Bytes)[] files)
    {
        using var whole = new MemoryStream();
        using (var zip = new ZipArchive(whole, ZipArchiveMode.Create, leaveOpen: true))
            foreach (var (path, bytes) in files)
            {
                using var entry = zip.CreateEntry(path).Open();
                entry.Write(bytes);
            }
        return whole.ToArray();
    }

    private static string ExampleText(string kind) => Encoding.UTF8.GetString(Examples.Of(kind));

    private static byte[] Text(string text) => Encoding.UTF8.GetBytes(text);

    private static PacketContents Dropped(params (string Path, byte[] Bytes)[] files) =>
        PacketContents.Of(files.Select(f => new DroppedFile(f.Path, f.Bytes)), TestContext.Current.CancellationToken);

    /// <summary>A packet with a card, a revision of it, a print and its picture.</summary>
    private static byte[] Packet()
    {
        using var whole = new MemoryStream();
        using (var packet = new PacketWriter(whole, At))
        {
            packet.Document(CardId, "card", "Dunlin", ExampleText("card"), putAway: false);
            packet.Revision(CardId, "Dunlin", 1, "as delivered", "Jonas", At, ExampleText("card"));
            packet.File(PictureHash, Picture, "image/png");
            packet.Print(CardId, "Dunlin", At, """{ "outcome": "good", "line": "came out well" }""", PictureHash);
            packet.End("Mara", "for the other boat");
        }
        return whole.ToArray();
    }

    private static readonly byte[] Picture = [0x89, (byte)'P', (byte)'N', (byte)'G', 13, 10, 26, 10];
    private static readonly string PictureHash =
        Convert.ToHexStringLower(System.Security.Cryptography.SHA256.HashData(Picture));

    private static JsonObject Example(string kind) => JsonNode.Parse(Examples.Of(kind))!.AsObject();

    [Fact]
    public void What_was_packed_comes_out_again_with_its_past()
    {
        var found = Dropped(("dunlin.zip", Packet()));
        var card = Assert.Single(found.Documents);
        Assert.Equal((CardId, "card"), (card.Id!.Value, card.Read.Kind));
        Assert.True(JsonElement.DeepEquals(JsonDocument.Parse(Exchange.JsonOf(card.Read.Document!)).RootElement,
            JsonDocument.Parse(Exchange.JsonOf(DocumentReader.Read<Card>(Examples.Of("card")).Document!)).RootElement));
        Assert.Equal((1, "as delivered", "Jonas", At),
            (card.Revisions[0].Number, card.Revisions[0].Note, card.Revisions[0].Who, card.Revisions[0].At));
        Assert.Equal(("came out well", PictureHash), (card.Prints[0].Record.Line, card.Prints[0].Picture));
        Assert.Equal(Picture, found.Blobs[PictureHash].Bytes.ToArray());
        var list = Assert.Single(found.Loose);
        Assert.Equal((LooseKind.Manifest, "packed by Mara, on 2 November 2026: for the other boat"), (list.Kind, list.Says));
    }

    [Fact]
    public void A_packet_within_zips_and_one_unpacked_to_a_folder_are_packets_too()
    {
        using var zip = new ZipArchive(new MemoryStream(Packet()));
        var unpacked = zip.Entries.Select(e =>
        {
            using var stream = e.Open();
            using var bytes = new MemoryStream();
            stream.CopyTo(bytes);
            return ($"folder/{e.FullName}", bytes.ToArray());
        }).Reverse().ToArray();
        foreach (var found in new[] { Dropped(("a.zip", Zip(("b/c.zip", Zip(("d.zip", Packet())))))), Dropped(unpacked) })
        {
            Assert.Single(Assert.Single(found.Documents).Revisions);
            Assert.Equal([LooseKind.Manifest], found.Loose.Select(l => l.Kind));
        }
    }

    [Fact]
    public void What_is_no_picture_does_not_come_as_one()
    {
        using var whole = new MemoryStream();
        var page = Text("<script>alert(1)</script>");
        var hash = Convert.ToHexStringLower(System.Security.Cryptography.SHA256.HashData(page));
        using (var packet = new PacketWriter(whole, At))
        {
            packet.Document(CardId, "card", "Dunlin", ExampleText("card"), putAway: false);
            packet.File(hash, page, "image/png");
            packet.Print(CardId, "Dunlin", At, """{ "outcome": "good" }""", hash);
            packet.Print(CardId, "Dunlin", At, """{ "outcome": "flawed" }""", PictureHash);
            packet.End(null, null);
        }
        Assert.Equal([null, null], Assert.Single(Dropped(("p.zip", whole.ToArray())).Documents).Prints.Select(p => p.Picture));
    }

    [Fact]
    public void A_zip_with_the_other_stroke_between_its_folders_is_read_alike()
    {
        using var zip = new ZipArchive(new MemoryStream(Packet()));
        var turned = Zip([.. zip.Entries.Select(e =>
        {
            using var stream = e.Open();
            using var bytes = new MemoryStream();
            stream.CopyTo(bytes);
            return (e.FullName.Replace('/', '\\'), bytes.ToArray());
        })]);
        Assert.Single(Assert.Single(Dropped(("turned.zip", turned)).Documents).Prints);
    }

    [Fact]
    public void Zips_that_lie_too_deep_are_told()
    {
        var zip = Zip(("card.json", Examples.Of("card")));
        for (var i = 1; i < Unpacking.Deepest; i++) zip = Zip(("in.zip", zip));
        Assert.Single(Dropped(("out.zip", zip)).Documents);
        var found = Dropped(("out.zip", Zip(("in.zip", zip))));
        Assert.Empty(found.Documents);
        Assert.Equal(LooseKind.Damaged, Assert.Single(found.Loose).Kind);
    }

    [Fact]
    public void A_file_that_is_not_as_it_was_packed_is_damaged_and_one_that_is_gone_is_missed()
    {
        using var whole = new MemoryStream();
        whole.Write(Packet());
        using (var zip = new ZipArchive(whole, ZipArchiveMode.Update, leaveOpen: true))
        {
            zip.GetEntry($"files/{PictureHash}.png")!.Delete();
            zip.GetEntry("cards/Dunlin.json")!.Delete();
            using var stream = zip.CreateEntry("cards/Dunlin.json").Open();
            stream.Write(Text(ExampleText("card") + " "));
        }
        var found = Dropped(("p.zip", whole.ToArray()));
        Assert.Empty(found.Documents);
        Assert.Empty(found.Blobs);
        Assert.Equal(["p.zip/cards/Dunlin.json", $"p.zip/files/{PictureHash}.png"],
            found.Loose.Where(l => l.Kind == LooseKind.Damaged).Select(l => l.Path));
    }

    [Fact]
    public void A_document_by_itself_and_an_answer_of_the_server_are_taken_an_answer_with_its_id()
    {
        var recipe = Example("recipe");
        var answer = new JsonObject { ["id"] = CardId.ToString(), ["version"] = 4, ["document"] = recipe.DeepClone() };
        var found = Dropped(("r.json", Text("\uFEFF" + recipe.ToJsonString())), ("answer.json", Text(answer.ToJsonString())));
        Assert.Equal([null, CardId], found.Documents.Select(d => d.Id));
        Assert.All(found.Documents, d => Assert.Equal("recipe", d.Read.Kind));
        Assert.Empty(found.Loose);
    }

    [Fact]
    public void A_newer_document_is_read_as_far_as_it_is_understood()
    {
        var card = Example("card");
        card["schema"] = "mill-card/card/7";
        card["envelope"]!["tides"] = 3;
        var read = Assert.Single(Dropped(("c.json", Text(card.ToJsonString()))).Documents).Read;
        Assert.Equal((7, true, "/envelope/tides"), (read.Version, Exchange.IsNewer(read), Assert.Single(read.Unknown)));
        Assert.Contains("\"tides\":3", Exchange.JsonOf(read.Document!), StringComparison.Ordinal);
        card["envelope"]!["bed"] = "round";
        read = Assert.Single(Dropped(("c.json", Text(card.ToJsonString()))).Documents).Read;
        Assert.Null(read.Document);
        Assert.Contains("newer Mill Card", read.Why, StringComparison.Ordinal);
    }

    [Fact]
    public void A_document_that_breaks_its_schema_says_why()
    {
        var card = Example("card");
        card["envelope"]!["height"] = -4;
        var read = Assert.Single(Dropped(("c.json", Text(card.ToJsonString()))).Documents).Read;
        Assert.Null(read.Document);
        Assert.Contains("height", read.Why, StringComparison.OrdinalIgnoreCase);
        Assert.False(Exchange.IsNewer(read));
    }

    public static TheoryData<string, LooseKind> Texts => new()
    {
        { "; sliced\nM104 S210\nG28\nG1 X10 Y10 F3000\nG1 X20 E1.5\nG1 Y20 E3\n", LooseKind.Program },
        { "echo: M92 X80.00 Y80.00 Z400.00 E93.00\necho: M203 X200.00 Y200.00 Z12.00 E60.00\n", LooseKind.SettingsReport },
        { "[printer]\nkinematics: corexy\n\n[gcode_macro PARK]\ngcode:\n  G1 X0 Y0\n", LooseKind.Macros },
        { "v 0 0 0\nv 1 0 0\nv 0 1 0\nf 1 2 3\n", LooseKind.Mesh },
        { "solid box\nfacet normal 0 0 1\nouter loop\nvertex 0 0 0\n", LooseKind.Mesh },
        { "<?xml version=\"1.0\"?>\n<amf unit=\"millimeter\"></amf>", LooseKind.Mesh },
        { "Dear all,\nthe new clips came today. Give M92 a thought.\n", LooseKind.NotOurs },
        { "", LooseKind.NotOurs },
    };

    [Theory]
    [MemberData(nameof(Texts))]
    public void Files_are_told_apart_by_what_is_in_them(string text, LooseKind kind)
    {
        var found = Assert.Single(Dropped(("some.thing", Text(text))).Loose);
        Assert.Equal(kind, found.Kind);
        Assert.Equal(kind == LooseKind.NotOurs, found.Says.Length > 0);
    }

    [Fact]
    public void What_is_neither_text_nor_known_is_not_ours_and_json_without_a_schema_neither()
    {
        var found = Dropped(("a.bin", [0, 1, 2, 255, 254]), ("b.json", Text("{ \"schema\": \"mill-card/boat/1\" }")),
            ("c.json", Text("[{ \"name\": \"x\" }]")), ("d.json", Text("{ \"schema\": ")));
        Assert.Equal([LooseKind.NotOurs, LooseKind.NotOurs, LooseKind.NotOurs, LooseKind.Damaged], found.Loose.Select(l => l.Kind));
    }

    [Fact]
    public void A_bomb_is_left_and_said_so()
    {
        var zeros = Zip(("zeros", new byte[64 << 20]));
        var found = Dropped(("bomb.zip", Zip([.. Enumerable.Range(0, 12).Select(i => ($"{i}.zip", zeros))])));
        Assert.Contains(found.Loose, l => l.Kind == LooseKind.Damaged && l.Says.Contains("512 MB", StringComparison.Ordinal));
    }

    [Fact]
    public void What_is_larger_than_a_document_is_not_read_as_one()
    {
        var large = Text("{ \"schema\": \"mill-card/card/1\", \"notes\": \"" + new string('x', Exchange.MostBytes) + "\" }");
        var found = Dropped(("large.json", large), ("in.zip", Zip((PacketManifest.FileName, large))));
        Assert.Empty(found.Documents);
        Assert.Equal(["in.zip/packet.json", "large.json"], found.Loose.Where(l => l.Kind == LooseKind.Damaged).Select(l => l.Path));
    }

    [Theory]
    [InlineData("Float clamps, 2nd", "Float clamps 2nd")]
    [InlineData("../../etc", "etc")]
    [InlineData("…", "card")]
    [InlineData("Zwölf/Klemmen", "Zwölf Klemmen")]
    public void A_name_becomes_one_that_every_file_system_takes(string name, string file) =>
        Assert.Equal(file, PacketWriter.FileNameOf(name, "card"));

    [Fact]
    public void Names_that_are_alike_get_paths_of_their_own()
    {
        using var whole = new MemoryStream();
        using (var packet = new PacketWriter(whole, At))
        {
            for (var i = 0; i < 3; i++) packet.Document(Guid.NewGuid(), "card", i == 1 ? "dunlin" : "Dunlin", ExampleText("card"), false);
            packet.End(null, null);
        }
        Assert.Equal(3, Dropped(("p.zip", whole.ToArray())).Documents.Select(d => d.Id).Distinct().Count());
    }

    /// <summary>100 000 packets with bytes changed, cut out, put in: none ends in anything but an answer, and no document comes out whose
    /// checksum does not hold.</summary>
    [Fact]
    public void Mutated_packets_are_told_apart_without_a_crash()
    {
        var whole = Packet();
        var wanted = Exchange.JsonOf(Dropped(("p.zip", whole)).Documents[0].Read.Document!);
        var mutation = Gen.Select(Gen.Int[0, whole.Length - 1], Gen.Byte, Gen.Int[0, 5]);
        var (told, intact, most) = (0, 0, 0L);
        mutation.Array[1, 6].Sample(mutations =>
        {
            var bytes = whole.ToList();
            foreach (var (at, value, how) in mutations)
            {
                var place = Math.Min(at, Math.Max(0, bytes.Count - 1));
                if (how == 0 && bytes.Count > 1) bytes.RemoveRange(place, Math.Min(value, bytes.Count - place));
                else if (how == 1) bytes.InsertRange(place, whole.Take(value));
                else if (bytes.Count > 0) bytes[place] = value;
            }
            var file = new DroppedFile("p.zip", bytes.ToArray());
            var before = GC.GetAllocatedBytesForCurrentThread();
            var found = PacketContents.Of([file], TestContext.Current.CancellationToken);
            var taken = GC.GetAllocatedBytesForCurrentThread() - before;
            for (var seen = Interlocked.Read(ref most); taken > seen; seen = Interlocked.Read(ref most))
                Interlocked.CompareExchange(ref most, taken, seen);
            Interlocked.Increment(ref told);
            foreach (var document in found.Documents.Where(d => d.Packet is not null))
            {
                Interlocked.Increment(ref intact);
                Assert.Equal(wanted, Exchange.JsonOf(document.Read.Document!));
            }
        }, iter: 30_000);
        Assert.True(told >= 30_000);
        // whatever a file claims of its lengths, it is not believed
        Assert.True(most < MostMemory, $"one of them took {most >> 10} kB");
        Assert.True(intact > 100, $"only {intact} came out whole: nothing was looked at");
    }
}
