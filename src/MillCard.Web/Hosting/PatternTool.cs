using System.Security.Cryptography;
using System.Text;
using MillCard.Core.Documents;
using MillCard.Core.Packets;
using MillCard.Core.Patterns;

namespace MillCard.Web.Hosting;

/// <summary>A maker's tool on the command line: makes a pattern source, gives patterns versions, signs and checks it.</summary>
internal static class PatternTool
{
    private const int Refused = 1, NotUnderstood = 2;

    private const string Usage = """
        mill-card patterns key FILE                        makes a key to sign with; FILE stays with you
        mill-card patterns new FOLDER --id ID --name NAME [--about TEXT]
                                                           begins a source in a folder
        mill-card patterns add FOLDER CARD --id ID [--name NAME] [--about TEXT] [--note TEXT]
                                                           adds a card, saved as JSON, as a pattern, or as the next
                                                           version of a pattern that is there; sign afterwards
        mill-card patterns sign FOLDER --key FILE          signs what is in the folder
        mill-card patterns check FOLDER-OR-ZIP             holds it to its signature and says what is in it
        """;

    /// <summary>Does what was asked; answers with the code to end with.</summary>
    public static int Run(IReadOnlyList<string> words, TextWriter say, TextWriter complain, DateTimeOffset now)
    {
        var (plain, named) = Sorted(words);
        string? Named(string name) => named.GetValueOrDefault(name);
        try
        {
            switch (plain)
            {
                case ["key", var file]: MakeKey(file, say); break;
                case ["new", var folder] when Named("id") is { } id && Named("name") is { } name:
                    Begin(folder, new PatternIndex { Id = id, Name = name, About = Named("about") ?? "" });
                    break;
                case ["add", var folder, var card] when Named("id") is { } id:
                    Add(folder, card, new SourceMaking.Titles(id, Named("name"), Named("about"), Named("note") ?? ""), say, now);
                    break;
                case ["sign", var folder] when Named("key") is { } key: Sign(folder, key, say, now); break;
                case ["check", var source]: Check(source, say); break;
                default:
                    complain.WriteLine(Usage);
                    return NotUnderstood;
            }
            return 0;
        }
        catch (Exception failure) when (failure is SourceRefusedException or IOException or UnauthorizedAccessException
            or CryptographicException)
        {
            complain.WriteLine(failure.Message);
            return Refused;
        }
    }

    /// <summary>Words by their place, and those that follow a name such as --id.</summary>
    private static (string[] Plain, Dictionary<string, string> Named) Sorted(IReadOnlyList<string> words)
    {
        var (plain, named) = (new List<string>(), new Dictionary<string, string>());
        for (var i = 0; i < words.Count; i++)
            if (words[i].StartsWith("--", StringComparison.Ordinal) && i + 1 < words.Count) named[words[i][2..]] = words[++i];
            else plain.Add(words[i]);
        return ([.. plain], named);
    }

    private static void MakeKey(string file, TextWriter say)
    {
        using var key = ECDsa.Create(ECCurve.NamedCurves.nistP256);
        var options = new FileStreamOptions { Mode = FileMode.CreateNew, Access = FileAccess.Write };
        if (!OperatingSystem.IsWindows()) options.UnixCreateMode = UnixFileMode.UserRead | UnixFileMode.UserWrite;
        using (var stream = new FileStream(file, options)) stream.Write(Encoding.ASCII.GetBytes(key.ExportPkcs8PrivateKeyPem() + "\n"));
        say.WriteLine($"{file} holds the key. Whoever has it signs in your name: keep it away from the folder of patterns.");
        say.WriteLine($"Tell people its fingerprint: {SourceKey.Of(key).Fingerprint}");
    }

    private static void Begin(string folder, PatternIndex index)
    {
        SignedIndex.HoldId(index.Id);
        Directory.CreateDirectory(folder);
        using var list = new FileStream(Path.Combine(folder, PatternIndex.FileName), FileMode.CreateNew);
        list.Write(SourceMaking.Written(index));
    }

    private static void Add(string folder, string card, SourceMaking.Titles titles, TextWriter say, DateTimeOffset now)
    {
        var (index, path, file) = SourceMaking.With(Read<PatternIndex>(Path.Combine(folder, PatternIndex.FileName)), titles,
            Read<Card>(card), now);
        var to = Path.Combine(folder, path);
        Directory.CreateDirectory(Path.GetDirectoryName(to)!);
        File.WriteAllBytes(to, file);
        File.WriteAllBytes(Path.Combine(folder, PatternIndex.FileName), SourceMaking.Written(index));
        File.Delete(Path.Combine(folder, SourceSignature.FileName));
        say.WriteLine($"{path} is added. Sign the source before you publish it.");
    }

    private static void Sign(string folder, string keyFile, TextWriter say, DateTimeOffset now)
    {
        using var key = ECDsa.Create();
        try
        {
            key.ImportFromPem(File.ReadAllText(keyFile));
        }
        catch (ArgumentException)
        {
            throw new SourceRefusedException($"{keyFile} holds no key.");
        }
        if (!SourceKey.IsOnCurve(key)) throw new SourceRefusedException($"{keyFile} holds a key of another kind than P-256.");
        var list = Path.Combine(folder, PatternIndex.FileName);
        var (index, signature) = SourceMaking.Signed(Read<PatternIndex>(list), key, now);
        // what would be refused is not signed
        _ = PublishedSource.Of(SignedIndex.Of(index, signature), path => BytesOf(Path.Combine(folder, path)), CancellationToken.None);
        File.WriteAllBytes(list, index);
        File.WriteAllBytes(Path.Combine(folder, SourceSignature.FileName), signature);
        Check(folder, say);
    }

    private static void Check(string path, TextWriter say)
    {
        var files = Directory.Exists(path)
            ? Directory.EnumerateFiles(path, "*", SearchOption.AllDirectories).Select(f => new DroppedFile(
                Path.GetRelativePath(path, f).Replace('\\', '/'), File.ReadAllBytes(f))).ToArray()
            : Unpacking.Of([new DroppedFile(Path.GetFileName(path), File.ReadAllBytes(path))], CancellationToken.None).Files;
        var home = PublishedSource.HomesIn(files) is [var first, ..] ? first : "";
        var source = PublishedSource.Of(files, home, CancellationToken.None);
        var (list, key) = (source.List.Index, source.List.Key);
        say.WriteLine(Invariant($"{list.Name} ({list.Id}), number {list.Number}: {list.Patterns.Count} patterns in ") +
            Invariant($"{source.Patterns.Count} versions. The signature and all checksums hold."));
        say.WriteLine($"Signed with {key.Fingerprint}");
        foreach (var left in source.Left) say.WriteLine($"Not understood here: {left}");
    }

    private static ReadOnlyMemory<byte>? BytesOf(string file) => File.Exists(file) ? File.ReadAllBytes(file)
        : (ReadOnlyMemory<byte>?)null;

    private static T Read<T>(string file) where T : class
    {
        var reading = DocumentReader.Read<T>(File.ReadAllBytes(file), draft: true);
        return reading.Document ?? throw new SourceRefusedException($"{file} cannot be read: {reading.Errors[0].Message}");
    }
}
