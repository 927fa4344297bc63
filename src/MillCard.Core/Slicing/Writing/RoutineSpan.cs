using MillCard.Core.Routines;

namespace MillCard.Core.Slicing.Writing;

/// <summary>A routine as it was written into a program.</summary>
/// <param name="Moment">Which one.</param>
/// <param name="Template">Its text.</param>
/// <param name="Values">What names stood for.</param>
/// <param name="First">First line of the program that it wrote, counted from 0.</param>
/// <param name="Count">Number of lines.</param>
internal sealed record RoutineSpan(RoutineMoment Moment, string Template, IReadOnlyDictionary<string, object> Values, int First, int Count);
