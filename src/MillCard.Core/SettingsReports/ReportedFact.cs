namespace MillCard.Core.SettingsReports;

/// <summary>A fact that a firmware's settings report tells.</summary>
/// <param name="Pointer">Where it stands on a card.</param>
/// <param name="Label">Its name in a sentence.</param>
/// <param name="Unit">Its unit; empty for a plain number.</param>
/// <param name="Old">What the card says; null where it says nothing.</param>
/// <param name="New">What the firmware says.</param>
/// <param name="Line">The line that tells it, as it was given.</param>
public sealed record ReportedFact(string Pointer, string Label, string Unit, double? Old, double New, string Line)
{
    private const double Same = 1e-4;

    /// <summary>Whether it differs from what the card says.</summary>
    public bool Differs => Old is not { } old || Math.Abs(old - New) > Same * Math.Max(1, Math.Abs(New));
}

/// <summary>What a settings report comes to.</summary>
/// <param name="Facts">Facts that it tells, in the order of the report; the last word on each counts.</param>
/// <param name="Corner">The corner rule that it tells; null where it tells none.</param>
/// <param name="LeftOut">Lines that were understood and are no facts of a card, with the reason.</param>
public sealed record SettingsReport(IReadOnlyList<ReportedFact> Facts, Documents.Corner? Corner, IReadOnlyList<string> LeftOut);
