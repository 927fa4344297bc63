namespace MillCard.Core.Meshes;

/// <summary>A plain block.</summary>
public static class Block
{
    /// <summary>From the origin along X, Y and Z, mm.</summary>
    public static Mesh Of(double w, double d, double h) => new(
        [0, 0, 0, (float)w, 0, 0, (float)w, (float)d, 0, 0, (float)d, 0, 0, 0, (float)h, (float)w, 0, (float)h, (float)w, (float)d,
            (float)h, 0, (float)d, (float)h],
        [0, 2, 1, 0, 3, 2, 4, 5, 6, 4, 6, 7, 0, 1, 5, 0, 5, 4, 1, 2, 6, 1, 6, 5, 2, 3, 7, 2, 7, 6, 3, 0, 4, 3, 4, 7]);
}
