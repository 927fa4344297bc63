using MillCard.Core.Documents;
using MillCard.Core.Machines;

namespace MillCard.Core.Rules.DryRunRules;

/// <summary>Names of fans in sentences.</summary>
internal static class FanWords
{
    public static string NameOf(Machine machine, int number) => machine.FanOf(number) switch
    {
        { Kind: FanKind.Part } => number == 0 ? "The part fan" : $"The part fan ({number})",
        { Kind: FanKind.Side } => $"The side fan ({number})",
        { Kind: FanKind.Chamber } => $"The housing's fan ({number})",
        { Kind: FanKind.HotEnd } => $"The hot end's fan ({number})",
        _ => number == 0 ? "The part fan" : $"Fan {number}",
    };
}
