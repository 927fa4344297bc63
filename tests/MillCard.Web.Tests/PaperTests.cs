using System.Globalization;
using System.Net;
using System.Text;
using System.Text.Json.Nodes;
using System.Text.RegularExpressions;
using PdfSharp.Pdf;
using PdfSharp.Pdf.Advanced;
using PdfSharp.Pdf.Content;
using PdfSharp.Pdf.Content.Objects;
using PdfSharp.Pdf.IO;
using Xunit;
using ZXing;
using ZXing.Common;
using ZXing.QrCode;

namespace MillCard.Web.Tests;

/// <summary>Sheets of paper, read back out of the PDF: sizes, faces, texts, and what is drawn at its scale.</summary>
public sealed partial class PaperTests(Server server) : IClassFixture<Server>
{
    private const string Dunlin = "/api/cards/0b9d3f5e-52f7-4f0f-9d38-4b1b7f6f0a01",
        Clamps = "/api/trials/0b9d3f5e-52f7-4f0f-9d38-4b1b7f6f0a04";
    private const double PointsPerMm = 72 / 25.4;

    private async Task<PdfDocument> ReadAsync(string address)
    {
        var answer = await server.Client.GetAsync(address);
        Assert.Equal((HttpStatusCode.OK, "application/pdf"), (answer.StatusCode, answer.Content.Headers.ContentType?.MediaType));
        return PdfReader.Open(new MemoryStream(await answer.Content.ReadAsByteArrayAsync()), PdfDocumentOpenMode.Import);
    }

    [Theory]
    [InlineData("a3", 420, 297, 90, 80)]
    [InlineData("a4", 297, 210, 36, 32)]
    public async Task A_card_is_drawn_at_a_scale_of_the_standard_on_paper_of_its_size(string size, double width, double height,
        double bedWidth, double bedDepth)
    {
        using var pdf = await ReadAsync($"{Dunlin}/sheet.pdf?size={size}");
        Assert.All(PagesOf(pdf), p =>
        {
            Assert.Equal(width, p.Width.Millimeter, 1);
            Assert.Equal(height, p.Height.Millimeter, 1);
        });
        // bed 180 × 160: 1:2 on A3, 1:5 on A4
        var boxes = Boxes(pdf.Pages[0]);
        Assert.Contains(boxes, b => Math.Abs(b.Width - bedWidth) < 0.01 && Math.Abs(b.Height - bedDepth) < 0.01);
        Assert.Contains(bedWidth == 90 ? "1:2" : "1:5", TextOf(pdf.Pages[0]), StringComparison.Ordinal);
    }

    [Fact]
    public async Task Every_page_has_frame_and_title_block_and_the_schedule_holds_every_fact_with_its_source()
    {
        using var pdf = await ReadAsync($"{Dunlin}/sheet.pdf");
        var pages = PagesOf(pdf).Select(TextOf).ToArray();
        foreach (var (i, text) in pages.Index())
        {
            Assert.Contains("Title", text, StringComparison.Ordinal);
            Assert.Contains("Dunlin", text, StringComparison.Ordinal);
            Assert.Contains($"{i + 1}/{pages.Length}", text, StringComparison.Ordinal);
            // ISO 5457: the frame of an A3 sheet is 390 × 277 mm
            Assert.Contains(Boxes(pdf.Pages[i]), b => Math.Abs(b.Width - 390) < 0.01 && Math.Abs(b.Height - 277) < 0.01);
            // ISO 7200: its block is 180 mm wide
            Assert.Contains(Boxes(pdf.Pages[i]), b => Math.Abs(b.Width - 180) < 0.01);
        }
        var all = string.Join('\n', pages);
        foreach (var said in new[] { "bed width", "180 mm", "rating plate", "notes by hand", "melting limit", "The cable chain",
            "origin, X", "keep-outs, from the bed's front left", "X 168 to 180, Y 60 to 80, 6 high", "Ø18 about X 124, Y 122",
            "bodies of the head, from the first nozzle", "4.5 up",
            "; prime along the front, clear of the clips", "M140 S{{ heat.bed }}", "The rules about cards say nothing against it." })
            Assert.Contains(said, all, StringComparison.Ordinal);
        Assert.Contains("revision C", all.Replace("Revision\nC", "revision C", StringComparison.Ordinal),
            StringComparison.OrdinalIgnoreCase);
    }

    [Fact]
    public async Task All_faces_are_embedded_and_nothing_is_a_picture()
    {
        using var pdf = await ReadAsync($"{Dunlin}/sheet.pdf");
        var objects = pdf.Internals.GetAllObjects().OfType<PdfDictionary>().ToArray();
        var descriptors = objects.Where(o => o.Elements.GetName("/Type") == "/FontDescriptor").ToArray();
        Assert.True(descriptors.Length >= 3);
        Assert.All(descriptors, d => Assert.True(d.Elements.ContainsKey("/FontFile2")));
        Assert.DoesNotContain(objects, o => o.Elements.GetName("/Subtype") == "/Image");
    }

    [Fact]
    public async Task A_trial_has_its_parts_at_their_places_and_says_that_it_is_not_computed_or_what_came_of_it()
    {
        using (var pdf = await ReadAsync($"{Clamps}/sheet.pdf"))
        {
            var all = string.Join('\n', PagesOf(pdf).Select(TextOf));
            Assert.Contains("float clamp", all, StringComparison.Ordinal);
            Assert.Contains("It has not been computed yet", all, StringComparison.Ordinal);
            // the clamp is 64 × 31 mm
            Assert.Contains(Boxes(pdf.Pages[0]), b => Math.Abs(b.Width - 32) < 0.1 && Math.Abs(b.Height - 15.5) < 0.1);
        }
        await server.Client.PostAsync($"{Clamps}/slice", null);
        using var computed = await ReadAsync($"{Clamps}/sheet.pdf?size=A3");
        var text = string.Join('\n', PagesOf(computed).Select(TextOf));
        Assert.Matches(@"\d+ h \d+ min, \d+ layers", text);
        Assert.DoesNotContain("not been computed", text, StringComparison.Ordinal);
    }

    [Fact]
    public async Task Every_card_of_the_demo_goes_on_paper_and_what_is_not_there_is_refused()
    {
        foreach (var card in (await (await server.Client.GetAsync("/api/cards")).BodyAsync()).EnumerateArray())
            foreach (var size in new[] { "a3", "a4" })
            {
                using var pdf = await ReadAsync($"/api/cards/{card.GetProperty("id").GetString()}/sheet.pdf?size={size}");
                Assert.Contains(card.GetProperty("name").GetString()!, TextOf(pdf.Pages[0]), StringComparison.Ordinal);
            }
        using var a = await ReadAsync($"{Dunlin}/sheet.pdf?revision=A");
        Assert.DoesNotContain("The cable chain", string.Join('\n', PagesOf(a).Select(TextOf)), StringComparison.Ordinal);
        Assert.Equal(HttpStatusCode.NotFound, (await server.Client.GetAsync($"{Dunlin}/sheet.pdf?revision=Z")).StatusCode);
        Assert.Equal(HttpStatusCode.UnprocessableEntity, (await server.Client.GetAsync($"{Dunlin}/sheet.pdf?size=a0")).StatusCode);
        Assert.Equal(HttpStatusCode.NotFound, (await server.Client.GetAsync($"/api/trials/{Guid.NewGuid()}/sheet.pdf")).StatusCode);
    }

    private static IEnumerable<PdfPage> PagesOf(PdfDocument pdf) => Enumerable.Range(0, pdf.PageCount).Select(i => pdf.Pages[i]);

    [Fact]
    public async Task A_routine_of_one_endless_word_is_broken_into_lines_and_nothing_of_it_is_lost()
    {
        var card = Wire.Example("card");
        var word = string.Concat(Enumerable.Repeat("0123456789", 6000));
        (card["name"], card["routines"]) = ("Endless", new JsonObject { ["start"] = $"; {word}" });
        var made = await (await server.Client.PostAsync("/api/cards", Wire.Json(card))).BodyAsync();
        using var pdf = await ReadAsync($"/api/cards/{made.GetProperty("id").GetString()}/sheet.pdf?size=a4");
        var lines = string.Concat(PagesOf(pdf).Select(TextOf)).Split('\n').Where(l => l.Length > 40 && l.All(char.IsDigit));
        Assert.InRange(lines.Sum(l => l.Length), word.Length - 200, word.Length);
        await server.Client.DeleteAsync($"/api/cards/{made.GetProperty("id").GetString()}");
    }

    /// <summary>Bounding box of a path of a page, mm from its lower left corner.</summary>
    private readonly record struct Box(double X, double Y, double Width, double Height, bool Filled);

    /// <summary>The bounding boxes of all paths of a page.</summary>
    private static List<Box> Boxes(PdfPage page)
    {
        var (found, points) = (new List<Box>(), new List<(double X, double Y)>());
        var (matrix, kept) = (new Transform(1, 0, 0, 1, 0, 0), new Stack<Transform>());
        foreach (var command in ContentReader.ReadContent(page).OfType<COperator>())
        {
            double[] n = [.. command.Operands.Select(o => o switch { CInteger i => i.Value, CReal r => r.Value, _ => 0 })];
            switch (command.Name)
            {
                case "q": kept.Push(matrix); break;
                case "Q": matrix = kept.Pop(); break;
                case "cm": matrix = new Transform(n[0], n[1], n[2], n[3], n[4], n[5]).Then(matrix); break;
                case "m" or "l": points.Add(matrix.Of(n[0], n[1])); break;
                case "c": points.Add(matrix.Of(n[4], n[5])); break;
                case "re":
                    points.Add(matrix.Of(n[0], n[1]));
                    points.Add(matrix.Of(n[0] + n[2], n[1] + n[3]));
                    break;
                case "S" or "s" or "f" or "f*" or "B" or "B*" or "b" or "n":
                    if (points.Count > 1)
                        found.Add(new Box(points.Min(p => p.X) / PointsPerMm, points.Min(p => p.Y) / PointsPerMm,
                            (points.Max(p => p.X) - points.Min(p => p.X)) / PointsPerMm,
                            (points.Max(p => p.Y) - points.Min(p => p.Y)) / PointsPerMm, command.Name[0] is 'f'));
                    points.Clear();
                    break;
                default: break;
            }
        }
        return found;
    }

    /// <summary>The code is read off the paper by another library than the one that made it, as a telephone reads it.</summary>
    [Theory]
    [InlineData("a3")]
    [InlineData("a4")]
    public async Task The_code_on_the_sheet_leads_to_the_card(string size)
    {
        const int perMm = 12, margin = 3, side = 24;
        using var pdf = await ReadAsync($"{Dunlin}/sheet.pdf?size={size}");
        var page = pdf.Pages[0];
        // left of the title block: 10 mm of margin, 180 mm of block, 3 mm of room
        var (left, bottom) = (page.Width.Millimeter - 10 - 180 - margin - side, 10.0 + margin);
        var squares = Boxes(page).Where(b => b.Filled && b.X > left - 0.1 && b.X + b.Width < left + side + 0.1
            && b.Y > bottom - 0.1 && b.Y + b.Height < bottom + side + 0.1).ToArray();
        Assert.True(squares.Length > 100);
        const int pixels = (side + 2 * margin) * perMm;
        var grey = new byte[pixels * pixels];
        Array.Fill(grey, (byte)255);
        int At(double mm, double from) => (int)Math.Round((mm - from + margin) * perMm);
        foreach (var b in squares)
            for (var y = At(b.Y, bottom); y < At(b.Y + b.Height, bottom); y++)
                // the paper's y goes up, a picture's down
                grey.AsSpan((pixels - 1 - y) * pixels + At(b.X, left), At(b.X + b.Width, left) - At(b.X, left)).Clear();
        var picture = new BinaryBitmap(new HybridBinarizer(new RGBLuminanceSource(grey, pixels, pixels,
            RGBLuminanceSource.BitmapFormat.Gray8)));
        Assert.EndsWith(Dunlin["/api".Length..], new QRCodeReader().decode(picture)?.Text, StringComparison.Ordinal);
    }

    private readonly record struct Transform(double A, double B, double C, double D, double E, double F)
    {
        public Transform Then(Transform o) => new(A * o.A + B * o.C, A * o.B + B * o.D, C * o.A + D * o.C, C * o.B + D * o.D,
            E * o.A + F * o.C + o.E, E * o.B + F * o.D + o.F);

        public (double, double) Of(double x, double y) => (A * x + C * y + E, B * x + D * y + F);
    }

    /// <summary>The texts of a page in the order in which they are written, through the fonts' own maps of characters; a line
    /// each.</summary>
    private static string TextOf(PdfPage page)
    {
        var fonts = page.Elements.GetDictionary("/Resources")!.Elements.GetDictionary("/Font")!;
        var maps = fonts.Elements.Keys.ToDictionary(k => k, k => MapOf(fonts.Elements.GetDictionary(k)!));
        var (text, map) = (new StringBuilder(), new Dictionary<int, string>());
        foreach (var command in ContentReader.ReadContent(page).OfType<COperator>())
        {
            if (command.Name == "Tf") map = maps[((CName)command.Operands[0]).Name];
            if (command.Name != "Tj") continue;
            var glyphs = ((CString)command.Operands[0]).Value;
            for (var i = 0; i + 1 < glyphs.Length; i += 2) text.Append(map.GetValueOrDefault(glyphs[i] << 8 | glyphs[i + 1], "□"));
            text.Append('\n');
        }
        return text.ToString();
    }

    private static Dictionary<int, string> MapOf(PdfDictionary font)
    {
        var stream = ((PdfDictionary)((PdfReference)font.Elements["/ToUnicode"]!).Value).Stream;
        var cmap = Encoding.ASCII.GetString(stream.UnfilteredValue);
        var map = new Dictionary<int, string>();
        foreach (Match range in Range().Matches(cmap))
        {
            int[] n = [.. range.Groups.Values.Skip(1).Select(g => int.Parse(g.Value, NumberStyles.HexNumber,
                CultureInfo.InvariantCulture))];
            for (var i = n[0]; i <= n[1]; i++) map[i] = ((char)(n[2] + i - n[0])).ToString();
        }
        return map;
    }

    [GeneratedRegex(@"<([0-9A-Fa-f]{4})>\s*<([0-9A-Fa-f]{4})>\s*<([0-9A-Fa-f]{4})>")]
    private static partial Regex Range();
}
