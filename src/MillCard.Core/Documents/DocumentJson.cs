using System.Text.Encodings.Web;
using System.Text.Json;
using System.Text.Json.Serialization;
using System.Text.Json.Serialization.Metadata;

namespace MillCard.Core.Documents;

/// <summary>How documents are written as JSON, everywhere the same: API, database, exchange file.</summary>
public static class DocumentJson
{
    /// <summary>Deepest nesting that a document may have.</summary>
    public const int MaxDepth = 32;

    /// <summary>The one set of options. Read-only.</summary>
    public static JsonSerializerOptions Options { get; } = Create();

    /// <summary>Sets options up in place, for a host that brings its own instance.</summary>
    public static void Apply(JsonSerializerOptions options)
    {
        options.PropertyNamingPolicy = JsonNamingPolicy.CamelCase;
        options.DictionaryKeyPolicy = null;
        options.NumberHandling = JsonNumberHandling.Strict;
        options.DefaultIgnoreCondition = JsonIgnoreCondition.WhenWritingNull;
        options.AllowOutOfOrderMetadataProperties = true;
        options.RespectNullableAnnotations = true;
        options.MaxDepth = MaxDepth;
        options.Encoder = JavaScriptEncoder.UnsafeRelaxedJsonEscaping;
        options.Converters.Add(new JsonStringEnumConverter(JsonNamingPolicy.KebabCaseLower, allowIntegerValues: false));
    }

    private static JsonSerializerOptions Create()
    {
        var options = new JsonSerializerOptions(
            JsonSerializerDefaults.Web)
        { TypeInfoResolver = new DefaultJsonTypeInfoResolver { Modifiers = { MemberIds.Give } } };
        Apply(options);
        options.MakeReadOnly();
        return options;
    }
}
