using System.Buffers;
using System.Text.Json;
using Microsoft.AspNetCore.Http.HttpResults;
using MillCard.Core.Rules;
using MillCard.Store;

namespace MillCard.Web.Endpoints;

/// <summary>A document in a list.</summary>
/// <param name="Id">Its id.</param>
/// <param name="Name">Its name; empty where it has none yet.</param>
/// <param name="Version">What a save must name.</param>
/// <param name="SavedAt">When the draft was last saved.</param>
/// <param name="Card">What the rack shows, for cards.</param>
internal sealed record DocumentHead(Guid Id, string Name, uint Version, DateTimeOffset SavedAt, CardSummary? Card);

/// <summary>Writes lists of documents. A summary goes out as it is stored, without being read: a rack of hundreds stays quick.</summary>
internal static class DocumentHeads
{
    public static FileContentHttpResult Answer(IReadOnlyList<DocumentEntry> entries)
    {
        var body = new ArrayBufferWriter<byte>(64 + 512 * entries.Count);
        using (var json = new Utf8JsonWriter(body))
        {
            json.WriteStartArray();
            foreach (var entry in entries)
            {
                json.WriteStartObject();
                json.WriteString("id", entry.Id);
                json.WriteString("name", entry.Name);
                json.WriteNumber("version", entry.Version);
                json.WriteString("savedAt", entry.SavedAt);
                if (entry.Summary is { } summary)
                {
                    json.WritePropertyName("card");
                    json.WriteRawValue(summary, skipInputValidation: true);
                }
                json.WriteEndObject();
            }
            json.WriteEndArray();
        }
        return TypedResults.Bytes(body.WrittenMemory.ToArray(), "application/json");
    }
}
