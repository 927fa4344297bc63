using System.Collections.Concurrent;
using System.Reflection;
using System.Text.Json.Nodes;
using System.Text.Json.Schema;
using System.Text.Json.Serialization.Metadata;

namespace MillCard.Core.Documents;

/// <summary>JSON Schema (draft 2020-12) of a document type, from its records and their <see cref="FieldAttribute"/>s.</summary>
public static class DocumentSchema
{
    private static readonly ConcurrentDictionary<(Type, bool), JsonNode> Known = new();

    /// <summary>The schema. The node is shared: read it, do not change it.</summary>
    /// <param name="type">Type of the document.</param>
    /// <param name="draft">Whether needed facts may still be missing.</param>
    public static JsonNode Of(Type type, bool draft = false) => Known.GetOrAdd((type, draft), Build);

    private static JsonNode Build((Type Type, bool Draft) key)
    {
        var schema = DocumentJson.Options.GetJsonSchemaAsNode(key.Type, new JsonSchemaExporterOptions
        {
            TreatNullObliviousAsNonNullable = true,
            TransformSchemaNode = (context, node) => Describe(context, node, key.Draft),
        });
        if (schema is JsonObject top)
        {
            var name = (string?)key.Type.GetField("SchemaName")?.GetValue(null);
            top.Insert(0, "$schema", "https://json-schema.org/draft/2020-12/schema");
            if (name is not null)
            {
                top.Insert(1, "$id", name);
                if (top["properties"]?["schema"] is JsonObject version) version["const"] = name;
            }
        }
        return schema;
    }

    private static JsonNode Describe(JsonSchemaExporterContext context, JsonNode node, bool draft)
    {
        if (node is not JsonObject schema) return node;
        if (context.TypeInfo.Kind == JsonTypeInfoKind.Object && schema["properties"] is JsonObject properties && !draft)
            Require(context.TypeInfo, schema, properties);
        var property = context.PropertyInfo?.AttributeProvider;
        if (One<GroupAttribute>(property) is { } group)
        {
            schema["x-group"] = group.Title;
            Say(schema, "x-otherwise", group.Otherwise);
        }
        if (One<FieldAttribute>(property) is { } fact)
        {
            Limit(fact, schema);
            Name(fact, schema);
        }
        if (property?.GetCustomAttributes(typeof(BelowAttribute), false) is BelowAttribute[] { Length: > 0 } below)
            schema["x-below"] = BelowOf(below);
        if (One<TendsAttribute>(property) is { } tends)
        {
            schema["x-says"] = tends.Says;
            schema["x-tends"] = new JsonObject(tends.Tendencies.Select(t => KeyValuePair.Create(Word(t.Outcome), (JsonNode?)t.By)));
        }
        var type = Nullable.GetUnderlyingType(context.TypeInfo.Type) ?? context.TypeInfo.Type;
        if (type.IsEnum && schema["enum"] is not null) schema["x-words"] = WordsOf(type);
        return schema;
    }

    private static void Require(JsonTypeInfo type, JsonObject schema, JsonObject properties)
    {
        foreach (var property in type.Properties)
        {
            if (!IsNeeded(property.AttributeProvider) && !HasNeeded(property.PropertyType)) continue;
            if (schema["required"] is not JsonArray required) schema["required"] = required = [];
            required.Add(property.Name);
            if (properties[property.Name] is JsonObject value) ForbidNull(value);
        }
    }

    private static bool IsNeeded(ICustomAttributeProvider? property) => One<FieldAttribute>(property) is { Needed: true };

    private static T? One<T>(ICustomAttributeProvider? property) where T : Attribute =>
        property?.GetCustomAttributes(typeof(T), false) is [T one, ..] ? one : null;

    /// <summary>Whether a part of a document holds a needed fact somewhere below: then the part itself must be there.</summary>
    private static bool HasNeeded(Type type) =>
        type.IsSubclassOf(typeof(OpenRecord)) && !type.IsAssignableTo(typeof(IDocument)) && type.GetProperties()
            .Any(p => IsNeeded(p) || HasNeeded(p.PropertyType));

    private static void ForbidNull(JsonObject schema)
    {
        if (schema["type"] is JsonArray types)
        {
            var rest = types.Select(t => (string?)t).Where(t => t != "null").ToArray();
            schema["type"] = rest is [var one] ? one : new JsonArray([.. rest.Select(t => (JsonNode?)t)]);
        }
        if (schema["enum"] is JsonArray values)
            schema["enum"] = new JsonArray([.. values.Where(v => v is not null).Select(v => v!.DeepClone())]);
    }

    private static void Limit(FieldAttribute fact, JsonObject schema)
    {
        schema["title"] = fact.Label;
        if (fact.Unit.Length > 0) schema["x-unit"] = fact.Unit;
        if (!double.IsNaN(fact.Above)) schema["exclusiveMinimum"] = fact.Above;
        if (!double.IsNaN(fact.AtLeast)) schema["minimum"] = fact.AtLeast;
        if (!double.IsNaN(fact.AtMost)) schema["maximum"] = fact.AtMost;
        if (fact.Most == 0 && fact.Fewest == 0) return;
        var (most, fewest) = (Is(schema, "string"), Is(schema, "array")) switch
        {
            (true, _) => ("maxLength", "minLength"),
            (_, true) => ("maxItems", "minItems"),
            _ => ("maxProperties", "minProperties"),
        };
        if (fact.Most > 0) schema[most] = fact.Most;
        if (fact.Fewest > 0) schema[fewest] = fact.Fewest;
    }

    /// <summary>What pages need beside names and limits.</summary>
    private static void Name(FieldAttribute fact, JsonObject schema)
    {
        Say(schema, "x-short", fact.Short);
        Say(schema, "x-also", fact.Also);
        Say(schema, "x-hint", fact.Hint);
        Say(schema, "x-otherwise", fact.Otherwise);
        Say(schema, "x-when", fact.When);
        if (fact.Look != FieldLook.Plain) schema["x-look"] = Word(fact.Look);
        if (fact.Departs != Departs.Nothing) schema["x-departs"] = Word(fact.Departs);
        if (fact.Needed) schema["x-needed"] = true;
        if (fact.Pages != FieldPages.None)
            schema["x-pages"] = new JsonArray([.. Enum.GetValues<FieldPages>().Where(page => page != FieldPages.None
                && fact.Pages.HasFlag(page)).Select(page => (JsonNode?)Word(page))]);
    }

    private static JsonObject BelowOf(IEnumerable<BelowAttribute> all) => new(all.Select(below =>
    {
        var named = new JsonObject { ["x-short"] = below.Name, ["x-pages"] = new JsonArray(Word(FieldPages.Sheet)) };
        Say(named, "x-hint", below.Hint);
        Say(named, "x-when", below.When);
        return KeyValuePair.Create(below.Member, (JsonNode?)named);
    }));

    private static void Say(JsonObject schema, string member, string? text)
    {
        if (text is not null) schema[member] = text;
    }

    private static JsonObject WordsOf(Type type) =>
        new(ChoiceWords.All(type).Select(word => KeyValuePair.Create(word.Key, (JsonNode?)word.Value)));

    private static string Word<T>(T value) where T : struct, Enum => ChoiceWords.Kebab(value.ToString());

    private static bool Is(JsonObject schema, string type) => schema["type"] switch
    {
        JsonArray types => types.Any(t => (string?)t == type),
        JsonValue one => (string?)one == type,
        _ => false,
    };
}
