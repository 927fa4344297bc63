using System.Security.Cryptography;
using System.Text;
using System.Text.RegularExpressions;
using Microsoft.EntityFrameworkCore;
using MillCard.Core.Documents;
using MillCard.Core.Records;
using MillCard.Store;

namespace MillCard.Web.Hosting;

/// <summary>Reads all that is stored and says what is wrong with it.</summary>
internal static partial class DataCheck
{
    private const int MostTold = 50;
    private const string Variant = "variant";

    /// <summary>Checks, and writes what was found.</summary>
    /// <returns>0 where all is well, 1 where something is wrong.</returns>
    public static async Task<int> CheckDataAsync(this IServiceProvider services, TextWriter say)
    {
        await using var scope = services.CreateAsyncScope();
        var context = scope.ServiceProvider.GetRequiredService<MillCardContext>();
        var problems = new List<string>();
        if ((await context.Database.GetPendingMigrationsAsync()).Any())
            problems.Add("The data is that of an older Mill Card; the next start brings it up to date.");
        var files = await FilesAsync(context, problems);
        var documents = await DocumentsAsync(context, files, problems);
        var revisions = await RevisionsAsync(context, files, problems);
        var patterns = await PatternsAsync(context, problems);
        foreach (var problem in problems.Take(MostTold)) say.WriteLine(problem);
        if (problems.Count > MostTold) say.WriteLine($"and {problems.Count - MostTold} more");
        say.WriteLine($"{documents} documents, {revisions} revisions, {patterns} patterns of sources, {files.Count} files were read: "
            + $"{(problems.Count == 0 ? "nothing is wrong with them" : $"{problems.Count} things are wrong")}.");
        return problems.Count == 0 ? 0 : 1;
    }

    /// <summary>The hashes of all files, each read and held against its name.</summary>
    private static async Task<HashSet<string>> FilesAsync(MillCardContext context, List<string> problems)
    {
        var hashes = await context.Blobs.Select(b => b.Hash).ToListAsync();
        foreach (var hash in hashes)
        {
            var bytes = await context.Blobs.Where(b => b.Hash == hash).Select(b => b.Bytes).FirstAsync();
            if (Convert.ToHexStringLower(SHA256.HashData(bytes)) != hash) problems.Add($"The file {hash} is not what it was.");
        }
        return [.. hashes];
    }

    private static async Task<int> DocumentsAsync(MillCardContext context, HashSet<string> files, List<string> problems)
    {
        var count = 0;
        await foreach (var row in context.Documents.AsNoTracking().AsAsyncEnumerable())
        {
            count++;
            Look($"The {row.Kind} \"{row.Name}\"", row.Kind, row.Draft, files, problems);
        }
        return count;
    }

    private static async Task<int> RevisionsAsync(MillCardContext context, HashSet<string> files, List<string> problems)
    {
        var count = 0;
        var rows = context.Revisions.AsNoTracking()
            .Join(context.Documents, r => r.DocumentId, d => d.Id, (r, d) => new { d.Kind, d.Name, r.Number, r.Document });
        await foreach (var row in rows.AsAsyncEnumerable())
        {
            count++;
            Look($"Revision {RevisionStore.LetterOf(row.Number)} of the {row.Kind} \"{row.Name}\"",
                row.Kind == Trial.Kind ? Variant : row.Kind, row.Document, files, problems);
        }
        return count;
    }

    private static async Task<int> PatternsAsync(MillCardContext context, List<string> problems)
    {
        var count = 0;
        await foreach (var row in context.PatternVersions.AsNoTracking().AsAsyncEnumerable())
        {
            count++;
            Look(Invariant($"Version {row.Version} of the pattern \"{row.Name}\""), Card.Kind, row.Card, [], problems);
        }
        return count;
    }

    private static void Look(string what, string kind, string json, HashSet<string> files, List<string> problems)
    {
        var bytes = Encoding.UTF8.GetBytes(json);
        var errors = kind switch
        {
            "card" => DocumentReader.Read<Card>(bytes, draft: true).Errors,
            "filament" => DocumentReader.Read<Filament>(bytes, draft: true).Errors,
            "recipe" => DocumentReader.Read<Recipe>(bytes, draft: true).Errors,
            Variant => DocumentReader.Read<VariantState>(bytes, draft: true).Errors,
            _ => DocumentReader.Read<Trial>(bytes, draft: true).Errors,
        };
        if (errors.Count > 0) problems.Add($"{what} does not hold: {errors[0].Message} ({errors[0].Pointer})");
        foreach (Match named in Hash().Matches(json))
            if (!files.Contains(named.Groups[1].Value)) problems.Add($"{what} names the file {named.Groups[1].Value}, which is not there.");
    }

    [GeneratedRegex("\"([0-9a-f]{64})\"")]
    private static partial Regex Hash();
}
