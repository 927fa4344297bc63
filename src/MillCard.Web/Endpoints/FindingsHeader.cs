using System.Text.Encodings.Web;
using System.Text.Json;
using MillCard.Core.Documents;
using MillCard.Core.Findings;

namespace MillCard.Web.Endpoints;

/// <summary>Findings beside a program: a header, since the body is the program itself.</summary>
internal static class FindingsHeader
{
    /// <summary>JSON array of findings, the worst first, as many as a header holds.</summary>
    public const string Name = "Findings";

    /// <summary>How many there are in all.</summary>
    public const string CountName = "Findings-Count";

    /// <summary>Clients and proxies commonly take 8 KiB of headers.</summary>
    private const int Most = 6 << 10;

    // headers are ASCII
    private static readonly JsonSerializerOptions Ascii = new(DocumentJson.Options)
    {
        Encoder = JavaScriptEncoder.Default,
        WriteIndented = false,
    };

    /// <summary>Sets both headers.</summary>
    public static void SetOn(HttpResponse response, IReadOnlyList<Finding> findings)
    {
        var (texts, length) = (new List<string>(), 2);
        foreach (var finding in findings.OrderByDescending(f => f.Severity))
        {
            var text = JsonSerializer.Serialize(finding with { Remedy = null }, Ascii);
            if ((length += text.Length + 1) > Most) break;
            texts.Add(text);
        }
        response.Headers[Name] = $"[{string.Join(',', texts)}]";
        response.Headers[CountName] = Invariant($"{findings.Count}");
    }
}
