namespace MillCard.Core.Packets;

/// <summary>A file as it was dropped, or as it lay in a zip that was.</summary>
/// <param name="Path">Its path, with the names of folders and zips in front.</param>
/// <param name="Bytes">Its bytes.</param>
public sealed record DroppedFile(string Path, ReadOnlyMemory<byte> Bytes);

/// <summary>A file that could not be opened.</summary>
/// <param name="Path">Its path.</param>
/// <param name="Why">A sentence.</param>
public sealed record UnopenedFile(string Path, string Why);
