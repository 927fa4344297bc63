namespace MillCard.Core.Geometry;

/// <summary>An outline that cannot stand for an area: it crosses itself, has too few corners, or cannot be read.</summary>
public sealed class OutlineException : Exception
{
    /// <summary>With a sentence.</summary>
    public OutlineException(string message) : base(message) { }
    /// <summary>With a sentence and a cause.</summary>
    public OutlineException(string message, Exception inner) : base(message, inner) { }
    /// <summary>Without a sentence.</summary>
    public OutlineException() { }

    /// <summary>Where it stands in the card; null where it comes from a file.</summary>
    public string? Pointer { get; private init; }

    /// <summary>The polygon of an outline of a card; a refusal names the outline and its place.</summary>
    /// <param name="pointer">Where it stands.</param>
    /// <param name="name">What its owner calls it.</param>
    /// <param name="make">Makes the polygon.</param>
    internal static T Naming<T>(string pointer, string name, Func<T> make)
    {
        try { return make(); }
        catch (OutlineException broken) when (broken.Pointer is null)
        {
            throw new OutlineException($"{name}: {broken.Message}", broken) { Pointer = pointer };
        }
    }
}
