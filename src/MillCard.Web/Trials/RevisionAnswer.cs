namespace MillCard.Web.Trials;

/// <summary>A proof as it stands now.</summary>
/// <param name="Trial">The trial's name.</param>
/// <param name="At">When it was stamped.</param>
/// <param name="Lapsed">Facts that it rests on and that have changed since, by document and pointer; none while it holds.</param>
internal sealed record ProofAnswer(string Trial, DateTimeOffset At, IReadOnlyList<string> Lapsed);

/// <summary>How a card stands to its last revision.</summary>
/// <param name="Card">The card's id.</param>
/// <param name="Letter">The revision's letter.</param>
/// <param name="Changed">Whether the draft differs from it in a fact.</param>
/// <param name="Proved">Whether it has a stamp that holds.</param>
internal sealed record CardState(Guid Card, string Letter, bool Changed, bool Proved);

/// <summary>A revision in the list.</summary>
/// <param name="Letter">A, B, C …</param>
/// <param name="Note">What is said of it.</param>
/// <param name="Who">Who fixed it; null where nobody said.</param>
/// <param name="At">When it was fixed.</param>
/// <param name="Changed">Facts in which the draft differs from it.</param>
/// <param name="Proof">Its stamp; null where it has none.</param>
internal sealed record RevisionAnswer(string Letter, string Note, string? Who, DateTimeOffset At, IReadOnlyList<string> Changed,
    ProofAnswer? Proof);
