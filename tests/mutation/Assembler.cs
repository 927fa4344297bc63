using System.Reflection;
using Microsoft.CodeAnalysis;
using Microsoft.CodeAnalysis.CSharp;
using Microsoft.CodeAnalysis.Diagnostics;

namespace MillCard.Mutation;

/// <summary>Compiles the core with a change in it, as its project does.</summary>
internal sealed class Assembler
{
    private static readonly string[] Packages =
        ["NetTopologySuite", "Fluid", "Parlot", "TimeZoneConverter", "Microsoft.Extensions.FileProviders.Abstractions"];

    private readonly CSharpCompilation _whole;
    private readonly ResourceDescription[] _resources;

    /// <param name="source">Folder of the core's project, built.</param>
    /// <param name="tests">Folder of the built tests, with all that the core refers to.</param>
    public Assembler(string source, string tests)
    {
        var options = CSharpParseOptions.Default.WithLanguageVersion(LanguageVersion.Preview);
        Sources = [.. Directory.EnumerateFiles(source, "*.cs", SearchOption.AllDirectories)
            .Where(file => !file.Contains("/obj/", StringComparison.Ordinal) && !file.Contains("/bin/", StringComparison.Ordinal))
            .Select(Read)];
        var made = Directory.EnumerateFiles(Path.Combine(source, "obj", "Release", "net10.0"), "*.cs").Select(Read);
        var own = Path.Combine(tests, "MillCard.Core.dll");
        var references = Directory.EnumerateFiles(Path.GetDirectoryName(typeof(object).Assembly.Location)!, "*.dll").Where(IsManaged)
            .Concat(Packages.Select(name => Path.Combine(tests, name + ".dll")).Where(File.Exists))
            .Select(file => MetadataReference.CreateFromFile(file));
        var plain = CSharpCompilation.Create("MillCard.Core", [.. Sources, .. made], references,
            new CSharpCompilationOptions(OutputKind.DynamicallyLinkedLibrary, optimizationLevel: OptimizationLevel.Release,
                nullableContextOptions: NullableContextOptions.Enable, deterministic: true));
        _whole = (CSharpCompilation)WithGenerated(plain, options);
        // what a project embeds is read from its own output
        var built = Assembly.LoadFrom(own);
        _resources = [.. built.GetManifestResourceNames()
            .Select(name => new ResourceDescription(name, () => built.GetManifestResourceStream(name)!, isPublic: true))];

        SyntaxTree Read(string file) => CSharpSyntaxTree.ParseText(File.ReadAllText(file), options, file);
    }

    /// <summary>All files of the core.</summary>
    public IReadOnlyList<SyntaxTree> Sources { get; }

    /// <summary>Writes the assembly with a change in it; none where it would not compile.</summary>
    public bool Write(Mutation change, string to) => Write(_whole.ReplaceSyntaxTree(change.File, change.Made()), to);

    /// <summary>Writes the assembly with marks in it that tell which bodies are passed through.</summary>
    public void Write(Touches marks, string to)
    {
        var compilation = Sources.Aggregate(_whole, (whole, file) => whole.ReplaceSyntaxTree(file, marks.Marked(file)));
        var keeper = CSharpSyntaxTree.ParseText(marks.Keeper, (CSharpParseOptions)Sources[0].Options);
        if (!Write(compilation.AddSyntaxTrees(keeper), to)) throw new InvalidOperationException("The core does not compile with marks.");
    }

    private bool Write(CSharpCompilation compilation, string to)
    {
        using var stream = new MemoryStream();
        var result = compilation.Emit(stream, manifestResources: _resources);
        if (!result.Success) return false;
        File.WriteAllBytes(to, stream.ToArray());
        return true;
    }

    private static Compilation WithGenerated(Compilation plain, CSharpParseOptions options)
    {
        var packs = Path.Combine(Path.GetDirectoryName(typeof(object).Assembly.Location)!, "..", "..", "..", "packs",
            "Microsoft.NETCore.App.Ref");
        var generators = Directory.EnumerateFiles(packs, "System.Text.RegularExpressions.Generator.dll", SearchOption.AllDirectories)
            .Take(1).SelectMany(file => new AnalyzerFileReference(file, new Loader()).GetGenerators(LanguageNames.CSharp));
        CSharpGeneratorDriver.Create(generators, parseOptions: options).RunGeneratorsAndUpdateCompilation(plain, out var whole, out _);
        return whole;
    }

    private static bool IsManaged(string file)
    {
        try { return AssemblyName.GetAssemblyName(file) is not null; }
        catch (BadImageFormatException) { return false; }
    }

    private sealed class Loader : IAnalyzerAssemblyLoader
    {
        public void AddDependencyLocation(string fullPath) { }

        public Assembly LoadFromPath(string fullPath) => Assembly.LoadFrom(fullPath);
    }
}
