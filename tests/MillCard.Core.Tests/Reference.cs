using System.Diagnostics;
using System.Globalization;
using System.Text.Json;
using Xunit;

namespace MillCard.Core.Tests;

/// <summary>Libraries of somebody else's, run in Node beside a test.</summary>
internal static class Reference
{
    public static async Task<double> NumberAsync(string script, params string[] words) =>
        double.Parse(await SaidAsync(script, words), CultureInfo.InvariantCulture);

    public static async Task<double[]> NumbersAsync(string script, string[] words) =>
        JsonSerializer.Deserialize<double[]>(await SaidAsync(script, words))!;

    private static async Task<string> SaidAsync(string script, string[] words)
    {
        var start = new ProcessStartInfo("node") { RedirectStandardOutput = true, RedirectStandardError = true };
        start.ArgumentList.Add(Path.Combine(DemoParts.Root, "tests", "reference", script));
        foreach (var word in words) start.ArgumentList.Add(word);
        using var node = Process.Start(start)!;
        var errors = node.StandardError.ReadToEndAsync();
        var said = await node.StandardOutput.ReadToEndAsync();
        await node.WaitForExitAsync();
        Assert.True(node.ExitCode == 0, await errors);
        return said;
    }
}
