namespace MillCard.Core.Meshes;

/// <summary>A file that is not a mesh, or a broken one. The message is a sentence for its owner.</summary>
public sealed class MeshRefusedException : Exception
{
    /// <summary>With the sentence.</summary>
    public MeshRefusedException(string message) : base(message) { }
    /// <summary>With the sentence and what caused it.</summary>
    public MeshRefusedException(string message, Exception inner) : base(message, inner) { }
    /// <summary>Without a sentence.</summary>
    public MeshRefusedException() { }
}
