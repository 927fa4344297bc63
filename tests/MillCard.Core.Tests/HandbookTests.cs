using System.Text.Json;
using System.Text.Json.Nodes;
using System.Text.RegularExpressions;
using System.Xml.Linq;
using MillCard.Core.Documents;
using MillCard.Core.Findings;
using MillCard.Core.Rules;
using MillCard.Core.Rules.CardRules;
using MillCard.Core.Rules.DryRunRules;
using MillCard.Core.Patterns;
using MillCard.Core.Wording;
using Xunit;

namespace MillCard.Core.Tests;

/// <summary>What the handbook tells is what the code does. With HANDBOOK=write the examples are written anew.</summary>
public partial class HandbookTests
{
    private const int MostLines = 24;
    private static readonly JsonSerializerOptions Indented = new(DocumentJson.Options) { WriteIndented = true };

    [Fact]
    public void The_examples_of_all_rules_are_what_the_rules_say_now()
    {
        RuleExample[] now = [.. Fired.Value.Select(f => f.Example)];
        if (Environment.GetEnvironmentVariable("HANDBOOK") == "write")
        {
            File.WriteAllText(Path.Combine(DemoParts.Root, "src/MillCard.Core/Rules/rule-examples.json"),
                JsonSerializer.Serialize(now, Indented) + "\n");
            return;
        }
        Assert.Equal(now.Select(e => e.Rule), RuleExample.All.Select(e => e.Rule));
        Assert.Equal(now, RuleExample.All);
        Assert.All(now, e => Assert.All(new[] { e.About, e.Why, e.Example, e.Says }, text => Assert.NotEqual("", text)));
        Assert.True(now.Count(e => e.Cure is not null) > 30);
    }

    [Fact]
    public void The_values_of_a_finding_are_those_of_its_sentence() =>
        Spoken.AllKept(Fired.Value.Select(f => f.Finding));

    [Fact]
    public void Formulas_have_a_source_and_a_name_of_their_own()
    {
        Assert.True(Formulas.All.Count >= 38);
        Assert.All(Formulas.All, f => Assert.NotEqual("", f.Formula.Source));
        Assert.Equal(Formulas.All.Count, Formulas.All.Select(f => f.Formula.Name).Distinct().Count());
    }

    private static readonly Lazy<IReadOnlyList<(RuleExample Example, Finding Finding)>> Fired =
        new(() => [.. RuleBook.ForCards.Select(OfCards), .. RuleBook.ForDryRuns.Select(OfDryRuns)]);

    private static (RuleExample, Finding) OfDryRuns(IDryRunRule rule)
    {
        var (_, machine, program, line, _) = RuleTests.Cases.First(c => c.Data.Item1 == rule.Id.Name).Data;
        var card = RuleTests.Machines[machine];
        var finding = RuleTests.Find(program, card).First(f => f.Rule == rule.Id.Name && f.Line == line);
        var lines = program.TrimEnd('\n').Split('\n');
        var shown = lines.Length > MostLines ? [.. lines[..Math.Max(8, line)], "…"] : lines;
        return (new(rule.Id.Name, rule.Id.Severity, AboutOf(rule), finding.Why, string.Join('\n', shown), line, finding.Message,
            finding.Remedy?.Label), finding);
    }

    /// <summary>The first card, made of those that ship by one or two changes, about which a rule says something.</summary>
    private static (RuleExample, Finding) OfCards(ICardRule rule)
    {
        // the unchanged ones are told by their names alone
        foreach (var (card, changed) in Changed.Value)
            if (rule.Look(card).FirstOrDefault() is { } finding)
                return (new(rule.Id.Name, rule.Id.Severity, AboutOf(rule), finding.Why, changed, null, finding.Message,
                    finding.Remedy?.Label), finding);
        Assert.Fail($"{rule.Id.Name} does not fire on any of {Changed.Value.Count} cards");
        throw new InvalidOperationException();
    }

    private static readonly Lazy<IReadOnlyList<(Card Card, string Changed)>> Changed = new(() =>
    {
        var dunlin = Cards.Dunlin;
        var all = new List<(Card, string)>();
        void From(Card card, string name)
        {
            var json = JsonSerializer.SerializeToNode(card, DocumentJson.Options)!;
            var whole = JsonSerializer.SerializeToElement(json);
            all.Add((card, name));
            foreach (var pointer in Leaves(json, JsonPointer.Root))
                foreach (var (value, says) in Values(pointer.In(whole)!.Value))
                {
                    var changed = json.DeepClone();
                    Set(changed, pointer, value);
                    if (DocumentReader.Read<Card>(JsonSerializer.SerializeToElement(changed), draft: true).Document is { } made)
                        all.Add((made, $"{name}, with {Fields.At(typeof(Card), pointer)?.Label ?? pointer.Last} {says}"));
                }
        }
        From(dunlin, "The example card");
        foreach (var id in new[] { "two-carriages", "small-delta", "tool-changer" })
            From(Pattern.All.Single(p => p.Id == id).Card, $"The pattern {id}");
        From(dunlin with
        {
            Heat = dunlin.Heat with { Housing = Housing.Open, Bed = new() { Log = [[0, 20], [60, 34], [120, 45]] } },
            Routines = dunlin.Routines with { Start = "M141 S50\nM203 X250\nG28\n" },
        }, "A card in the open, with M141 and M203 in its start routine and a short heat-up log");
        From(dunlin with
        {
            Head = dunlin.Head with { Nozzles = [dunlin.Head.Nozzles![0] with { Retraction = new() { Length = 6 } }] },
            Motion = dunlin.Motion with { StepRate = 20_000 },
        }, "A card with a slow board and a long retraction");
        From(Pattern.All.Single(p => p.Id == "small-delta").Card is var delta ? delta with
        {
            Motion = delta.Motion with
            {
                Delta = new() { Arm = 120, Radius = 90, SegmentsPerSecond = 20 },
                Axes = delta.Motion.Axes with { X = new() { Min = -88, Max = 88 } },
            },
        } : dunlin, "A delta with short arms");
        From(dunlin with { Envelope = dunlin.Envelope with { Home = new() { X = 0, Y = 160 } } }, "A card that says where it homes");
        From(dunlin with
        {
            Head = dunlin.Head with
            {
                Nozzles = [dunlin.Head.Nozzles![0] with { MaxTemperature = 300, Heater = new() { Best = 255 } }],
            },
            Envelope = dunlin.Envelope with { Heated = false },
            Routines = dunlin.Routines with { Start = "M140 S60\nM109 S200\nG28\n" },
        }, "A card without a heated bed, whose hot end was logged");
        From(dunlin with
        {
            Head = dunlin.Head with
            {
                Nozzles = [dunlin.Head.Nozzles![0], dunlin.Head.Nozzles[0] with { Id = "n2", Offset = new() { X = 24, Z = 0.1 } }],
                Probe = new() { Kind = ProbeKind.TouchPin, X = 200, Y = 0 },
            },
            Routines = dunlin.Routines with { Start = "G28\nG1 X180 F6000\n", BeforeLayer = "{{ layer.hight }}" },
        }, "A card with two nozzles");
        return all;
    });

    private static IEnumerable<JsonPointer> Leaves(JsonNode? node, JsonPointer at) => node switch
    {
        JsonObject members => members.Where(m => m.Key is not ("schema" or "sources" or "notes" or "id"))
            .SelectMany(m => Leaves(m.Value, at / m.Key)),
        JsonArray items => items.SelectMany((item, i) => Leaves(item, at / i)),
        null => [],
        _ => [at],
    };

    /// <summary>What else a value could be: gone, much more, much less, of another sign, another word.</summary>
    private static IEnumerable<(JsonNode? Value, string Says)> Values(JsonElement value)
    {
        yield return (null, "missing");
        if (value.ValueKind == JsonValueKind.Number)
            foreach (var other in new[] { 0, value.GetDouble() * 3, value.GetDouble() / 3, -20 - value.GetDouble(), 400, 3.2 })
                yield return (other, FormattableString.Invariant($"{other:0.###}"));
        if (value.ValueKind is JsonValueKind.True or JsonValueKind.False) yield return (!value.GetBoolean(), value.GetBoolean() ? "no"
            : "yes");
        if (value.ValueKind == JsonValueKind.String)
            foreach (var other in new[] { "firmware-states", "hand", "m1", "right clip", "stated" }) yield return (other, other);
    }

    private static void Set(JsonNode root, JsonPointer at, JsonNode? value)
    {
        var holder = at.Parent!.Value.Steps.Aggregate(root, (node, step) => node is JsonArray list
            ? list[int.Parse(step, System.Globalization.CultureInfo.InvariantCulture)]! : node[step]!);
        if (holder is JsonObject members && value is null) members.Remove(at.Last);
        else if (holder is JsonObject own) own[at.Last] = value;
        else if (holder is JsonArray list && value is not null)
            list[int.Parse(at.Last, System.Globalization.CultureInfo.InvariantCulture)] = value;
    }

    /// <summary>What the rule's own description says.</summary>
    private static string AboutOf(object rule)
    {
        var member = Docs.Value[$"T:{rule.GetType().FullName}"];
        return Space().Replace(string.Concat(member.Element("summary")!.DescendantNodes().Select(n => n switch
        {
            XText text => text.Value,
            XElement { Name.LocalName: "see" } see => see.Attribute("cref")?.Value.Split('.')[^1] ?? "",
            _ => "",
        })), " ").Trim();
    }

    private static readonly Lazy<Dictionary<string, XElement>> Docs = new(() =>
        XDocument.Load(Path.ChangeExtension(typeof(RuleBook).Assembly.Location, ".xml")).Descendants("member")
            .ToDictionary(m => m.Attribute("name")!.Value));

    [GeneratedRegex(@"\s+")]
    private static partial Regex Space();
}
