using System.Security.Cryptography;
using System.Text;
using CsCheck;
using MillCard.Core.Documents;
using MillCard.Core.Packets;
using MillCard.Core.Patterns;
using Xunit;

namespace MillCard.Core.Tests;

/// <summary>Sources of patterns: made, signed, and refused when anything in them is not what was signed.</summary>
public sealed class PatternSourceTests : IDisposable
{
    private static readonly DateTimeOffset At = new(2026, 11, 2, 9, 30, 0, TimeSpan.Zero);
    private readonly ECDsa _key = ECDsa.Create(ECCurve.NamedCurves.nistP256);

    public void Dispose() => _key.Dispose();

    private static DroppedFile[] Files(string folder)
    {
        var home = Path.Combine(DemoParts.Root, folder);
        return [.. Directory.EnumerateFiles(home, "*", SearchOption.AllDirectories)
            .Select(f => new DroppedFile(Path.GetRelativePath(home, f).Replace('\\', '/'), File.ReadAllBytes(f)))];
    }

    private static PublishedSource Read(IEnumerable<DroppedFile> files) =>
        PublishedSource.Of(files, "", TestContext.Current.CancellationToken);

    private static string Refused(IEnumerable<DroppedFile> files) => Assert.Throws<SourceRefusedException>(() => Read(files)).Message;

    private static DroppedFile[] First => Files("tests/pattern-source/first");
    private static DroppedFile[] Second => Files("tests/pattern-source/second");

    private static KnownSource Known(PublishedSource source) => new(source.List.Key, source.List.Index.Number, source.List.Sha256,
        source.Patterns.ToDictionary(p => (p.LocalId, p.Version), p => p.Sha256));

    private static DroppedFile[] With(DroppedFile[] files, string path, byte[] bytes) =>
        [.. files.Where(f => f.Path != path), new DroppedFile(path, bytes)];

    /// <summary>A source of one pattern in one version, signed.</summary>
    private DroppedFile[] Made(PatternIndex index, params (string Path, byte[] File)[] cards)
    {
        var (list, signature) = SourceMaking.Signed(index, _key, At);
        return [new("patterns.json", list), new("patterns.sig", signature), .. cards.Select(c => new DroppedFile(c.Path, c.File))];
    }

    private static (PatternIndex Index, string Path, byte[] File) Reed(Card? card = null) => SourceMaking.With(
        new PatternIndex { Id = "works", Name = "Works" }, new SourceMaking.Titles("reed", "Reed", "Small.", ""),
        card ?? Pattern.All[0].Card, At);

    /// <summary>RFC 6979, A.2.5: the key on P-256 and its signature of "sample" with SHA-256, there as r and s.</summary>
    [Fact]
    public void A_published_signature_holds_and_no_other_does()
    {
        using var key = ECDsa.Create(new ECParameters
        {
            Curve = ECCurve.NamedCurves.nistP256,
            Q = new ECPoint
            {
                X = Convert.FromHexString("60FED4BA255A9D31C961EB74C6356D68C049B8923B61FA6CE669622E60F29FB6"),
                Y = Convert.FromHexString("7903FE1008B8BC99A41AE9E95628BC64F2F1B20C2D7E9F5177A3C294D4462299"),
            },
        });
        // DER: a sequence of two integers, each with a zero in front as its first bit is set
        var der = "30460221" + "00EFD48B2AACB6A8FD1140DD9CD45E81D69D2C877B56AAF991C34D0EA84EAF3716"
            + "0221" + "00F7CB1C942D657C41D436C7A1B6E29F65F3E900DBB9AFF4064DC4AB2F843ACDA8";
        var signature = new SourceSignature
        {
            Key = SourceKey.Of(key).Base64,
            Signature = Convert.ToBase64String(Convert.FromHexString(der)),
        };
        Assert.Equal(signature.Key, signature.KeyOf("sample"u8)?.Base64);
        Assert.Null(signature.KeyOf("samplE"u8));
        Assert.Null(signature.KeyOf("test"u8));
    }

    [Fact]
    public void What_ships_is_a_source_whose_signature_holds_and_which_lists_every_file()
    {
        var files = Files("patterns");
        var read = Read(files);
        Assert.Equal(Pattern.OwnSource, read.List.Index.Id);
        Assert.Empty(read.Left);
        Assert.Equal(Pattern.Own.List.Sha256, read.List.Sha256);
        Assert.Equal(read.List.Index.Patterns.SelectMany(p => p.Versions).Select(v => v.Path).Append("patterns.json").Append("patterns.sig")
            .Order(), files.Select(f => f.Path).Order());
        Assert.Equal([1, 2], Pattern.Own.Patterns.Where(p => p.LocalId == "two-carriages").Select(p => p.Version).Order());
        Assert.Equal(2, Pattern.All.Single(p => p.Id == "two-carriages").Version);
    }

    [Fact]
    public void A_second_source_says_what_is_new_in_it()
    {
        var read = Read(Second);
        var reed = read.Patterns.Single(p => p is { LocalId: "reed", Version: 2 });
        Assert.Equal(("saltmarsh-works:reed", "Saltmarsh Works"), (reed.Id, reed.SourceName));
        Assert.Contains("lowered by 10 mm", reed.Note, StringComparison.Ordinal);
        Assert.Equal((130, 120), (read.Patterns.Single(p => p is { LocalId: "reed", Version: 1 }).Card.Envelope.Height,
            reed.Card.Envelope.Height));
        Assert.Equal(new PatternOrigin { Id = "saltmarsh-works:reed", Version = 2 }, reed.Start().Pattern);
    }

    [Fact]
    public void One_byte_that_differs_in_the_list_or_its_signature_is_refused()
    {
        foreach (var path in new[] { "patterns.json", "patterns.sig" })
        {
            var whole = First.Single(f => f.Path == path).Bytes.ToArray();
            for (var i = 0; i < whole.Length; i++)
            {
                var other = (byte[])whole.Clone();
                other[i] ^= (byte)(1 << (i % 8));
                Assert.Contains("signature does not hold", Refused(With(First, path, other)), StringComparison.Ordinal);
            }
            Assert.Contains("signature does not hold", Refused(With(First, path, [.. whole, (byte)'\n'])), StringComparison.Ordinal);
            Assert.Contains("signature does not hold", Refused(With(First, path, whole[..^1])), StringComparison.Ordinal);
        }
    }

    [Fact]
    public void A_card_of_which_a_byte_differs_is_refused()
    {
        var whole = First.Single(f => f.Path == "reed/1.json").Bytes.ToArray();
        (from i in Gen.Int[0, whole.Length - 1] from bit in Gen.Int[0, 7] select (i, bit)).Sample(at =>
        {
            var other = (byte[])whole.Clone();
            other[at.i] ^= (byte)(1 << at.bit);
            Assert.Contains("reed/1.json is not what was signed", Refused(With(First, "reed/1.json", other)), StringComparison.Ordinal);
        }, iter: 200);
        Assert.Contains("reed/1.json, and it is not there", Refused(First.Where(f => f.Path != "reed/1.json")), StringComparison.Ordinal);
        Assert.Contains("not signed", Refused(First.Where(f => f.Path != "patterns.sig")), StringComparison.Ordinal);
        Assert.Contains("no list", Refused(First.Where(f => f.Path != "patterns.json")), StringComparison.Ordinal);
    }

    [Fact]
    public void Only_keys_on_the_one_curve_sign()
    {
        var list = Encoding.UTF8.GetBytes("anything");
        using var other = ECDsa.Create(ECCurve.NamedCurves.nistP384);
        Assert.NotNull(SourceSignature.Of(list, _key).KeyOf(list));
        Assert.Null(SourceSignature.Of(list, other).KeyOf(list));
        Assert.False(SourceKey.IsOnCurve(other));
        Assert.Null(new SourceKey("").Opened());
        Assert.Null(new SourceKey("no key").Opened());
        var key = SourceKey.Of(_key);
        Assert.Equal(64 + 7, key.Fingerprint.Length);
        Assert.NotEqual(key.Fingerprint, SourceKey.Of(other).Fingerprint);
    }

    [Fact]
    public void A_source_stands_by_its_key_its_number_and_what_is_known_of_its_versions()
    {
        var (first, second) = (Read(First), Read(Second));
        SourceStanding Standing(PublishedSource read, PublishedSource? known) =>
            KnownSource.StandingOf(read, known is null ? null : Known(known));
        Assert.Equal(SourceStanding.New, Standing(first, null));
        Assert.Equal(SourceStanding.Same, Standing(first, first));
        Assert.Equal(SourceStanding.Newer, Standing(second, first));
        Assert.Equal(SourceStanding.Older, Standing(first, second));
        Assert.Equal(SourceStanding.Reserved, Standing(Pattern.Own, null));

        var reed = Reed();
        var mine = Read(Made(reed.Index, (reed.Path, reed.File)));
        // the same list signed once more has another signature and the same number
        var again = Read(Made(reed.Index with { About = "More." }, (reed.Path, reed.File)));
        Assert.Equal(SourceStanding.Changed, Standing(again, mine));
        var changed = Reed(Pattern.All[1].Card);
        var later = Read(Made(changed.Index with { Number = 5 }, (changed.Path, changed.File)));
        Assert.Equal(SourceStanding.Changed, Standing(later, mine));
        using var otherKey = ECDsa.Create(ECCurve.NamedCurves.nistP256);
        Assert.Equal(SourceStanding.OtherKey, KnownSource.StandingOf(mine, Known(mine) with { Key = SourceKey.Of(otherKey) }));
        Assert.All(Enum.GetValues<SourceStanding>(), s => Assert.Equal(
            s is SourceStanding.New or SourceStanding.Same or SourceStanding.Newer, KnownSource.Refused(s, "Works") is null));
    }

    [Fact]
    public void A_maker_adds_a_card_gives_it_versions_and_signs()
    {
        var owned = Pattern.All[0].Start() with
        {
            Name = "Mine",
            Line = new() { Host = "10.0.0.7", Port = 23 },
            Tags = ["boat"],
        };
        var (index, path, file) = Reed(owned);
        Assert.Equal("reed/1.json", path);
        var text = Encoding.UTF8.GetString(file);
        foreach (var secret in new[] { "Mine", "10.0.0.7", "boat", "assumed" })
            Assert.DoesNotContain(secret, text, StringComparison.Ordinal);
        Assert.Throws<SourceRefusedException>(() => SourceMaking.With(index, new("reed", null, null, ""), owned, At));
        var higher = owned with { Envelope = owned.Envelope with { Height = owned.Envelope.Height + 1 } };
        var (second, at, next) = SourceMaking.With(index, new("reed", null, null, "higher"), higher, At);
        Assert.Equal("reed/2.json", at);
        var read = Read(Made(second, (path, file), (at, next)));
        Assert.Equal(1, read.List.Index.Number);
        Assert.Equal([1, 2], read.Patterns.Select(p => p.Version));
        Assert.Equal(["", "higher"], read.Patterns.Select(p => p.Note));
        Assert.All(read.Patterns, p => Assert.Equal("Reed", p.Name));
        Assert.Throws<SourceRefusedException>(() => SourceMaking.With(index, new("Reed", "Reed", null, ""), owned, At));
        Assert.Throws<SourceRefusedException>(() => SourceMaking.With(index, new("rush", null, null, ""), owned, At));
    }

    [Fact]
    public void A_card_that_was_put_in_by_other_means_brings_nothing_of_its_owner()
    {
        var owned = Pattern.All[0].Start() with
        {
            Name = "Mine",
            Line = new() { Host = "10.0.0.7", Port = 23 },
            Accepted = [new AcceptedFinding { Id = "a", Rule = "weak-bed", At = "/heat", Why = "never mind" }],
        };
        var (index, path, _) = Reed();
        var file = SourceMaking.Written(owned);
        var sum = Convert.ToHexStringLower(SHA256.HashData(file));
        var pattern = index.Patterns[0];
        var with = index with
        {
            Patterns = [pattern with { Versions = [pattern.Versions[0] with { Sha256 = sum }] }],
        };
        var read = Assert.Single(Read(Made(with, (path, file))).Patterns).Start();
        Assert.Equal((null, null, 0), (read.Name, read.Line, read.Accepted.Count));
        Assert.Equal("works:reed", read.Pattern!.Id);
        Assert.All(read.Sources.Values, s => Assert.Equal(SourceKind.Assumed, s.Source));
    }

    [Theory]
    [InlineData("../reed.json")]
    [InlineData("/reed.json")]
    [InlineData("reed//1.json")]
    [InlineData("reed/./1.json")]
    [InlineData(".reed/1.json")]
    [InlineData("C:\\reed.json")]
    [InlineData("http://elsewhere/reed.json")]
    public void A_list_names_files_below_itself_only(string path)
    {
        var (index, _, file) = Reed();
        var pattern = index.Patterns[0];
        var led = index with { Patterns = [pattern with { Versions = [pattern.Versions[0] with { Path = path }] }] };
        Assert.Contains("no path", Refused(Made(led, (path, file))), StringComparison.Ordinal);
    }

    [Fact]
    public void What_is_listed_twice_or_goes_by_an_odd_id_is_refused()
    {
        var (index, path, file) = Reed();
        var pattern = index.Patterns[0];
        Assert.Contains("twice", Refused(Made(index with { Patterns = [pattern, pattern] }, (path, file))), StringComparison.Ordinal);
        Assert.Contains("version 1 twice", Refused(Made(index with
        {
            Patterns = [pattern with { Versions = [.. pattern.Versions, pattern.Versions[0]] }],
        }, (path, file))), StringComparison.Ordinal);
        Assert.Contains("small letters", Refused(Made(index with { Id = "Wo:rks" }, (path, file))), StringComparison.Ordinal);
    }

    [Fact]
    public void A_card_that_is_not_understood_is_left_and_the_rest_is_read()
    {
        var (index, path, file) = Reed();
        var odd = Encoding.UTF8.GetBytes("""{ "schema": "mill-card/filament/1" }""");
        var sum = Convert.ToHexStringLower(SHA256.HashData(odd));
        var with = index with
        {
            Patterns = [.. index.Patterns, new PatternEntry { Id = "rush", Name = "Rush",
                Versions = [new PatternVersion { Version = 1, Path = "rush/1.json", Sha256 = sum }] }],
        };
        var read = Read(Made(with, (path, file), ("rush/1.json", odd)));
        Assert.Equal("reed", Assert.Single(read.Patterns).LocalId);
        Assert.StartsWith("Rush, version 1:", Assert.Single(read.Left), StringComparison.Ordinal);
    }

    [Fact]
    public void A_source_among_what_is_dropped_is_one_thing_and_its_cards_are_no_documents()
    {
        var dropped = First.Select(f => f with { Path = $"works/{f.Path}" }).Append(
            new DroppedFile("works/own.json", First.Single(f => f.Path == "rush/1.json").Bytes));
        var contents = PacketContents.Of(dropped, TestContext.Current.CancellationToken);
        var loose = Assert.Single(contents.Loose);
        Assert.Equal((LooseKind.Patterns, "works/patterns.json", "Saltmarsh Works"), (loose.Kind, loose.Path, loose.Says));
        // what the list does not name is not hidden
        Assert.Equal("works/own.json", Assert.Single(contents.Documents).Path);
    }
}
