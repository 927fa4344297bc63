using System.Text.Json;
using System.Text.Json.Serialization;

namespace MillCard.Core.Documents;

/// <summary>A piece of a document. Members that this version does not know are kept and written back.</summary>
public abstract record OpenRecord
{
    /// <summary>Members this version does not know, by name.</summary>
    [JsonExtensionData]
    public IDictionary<string, JsonElement>? Unknown { get; init; }
}
