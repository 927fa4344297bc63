using MillCard.Core.Wording;

namespace MillCard.Core.Rules.DryRunRules;

/// <summary>Moves in sentences.</summary>
internal static class MoveWords
{
    /// <summary>How many moves do what is told of one; nothing where it is alone.</summary>
    public static Sentence? More(int count) => Sentence.When(count > 1, $" {count} moves do.");
}
