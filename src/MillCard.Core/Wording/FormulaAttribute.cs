using System.Reflection;

namespace MillCard.Core.Wording;

/// <summary>Says which formula a member computes, for the handbook.</summary>
/// <param name="name">What it gives.</param>
/// <param name="text">The formula as it is written.</param>
/// <param name="source">Where it comes from.</param>
[AttributeUsage(AttributeTargets.Method | AttributeTargets.Property | AttributeTargets.Constructor)]
public sealed class FormulaAttribute(string name, string text, string source) : Attribute
{
    /// <summary>What it gives.</summary>
    public string Name => name;
    /// <summary>The formula.</summary>
    public string Text => text;
    /// <summary>Where it comes from.</summary>
    public string Source => source;
    /// <summary>What its letters stand for.</summary>
    public string Where { get; init; } = "";
}

/// <summary>All formulas that say so.</summary>
public static class Formulas
{
    /// <summary>By the rooms in which they are computed, each with the room's name.</summary>
    public static IReadOnlyList<(string Room, FormulaAttribute Formula)> All { get; } =
    [
        .. from type in typeof(Formulas).Assembly.GetTypes()
           from member in type.GetMembers(BindingFlags.Public | BindingFlags.NonPublic | BindingFlags.Static | BindingFlags.Instance
               | BindingFlags.DeclaredOnly)
           let formula = member.GetCustomAttribute<FormulaAttribute>()
           where formula is not null
           let room = type.Namespace!["MillCard.Core.".Length..]
           orderby room, type.Name, formula.Name
           select (room, formula),
    ];
}
