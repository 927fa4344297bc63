namespace MillCard.Core.Slicing.Walls;

/// <summary>The way from a place of an outline straight inwards to the middle of the greatest disc that touches the outline there: the
/// middles of all such discs are the medial axis (H. Blum, A transformation for extracting new descriptors of shape, 1967).</summary>
/// <param name="Foot">The place.</param>
/// <param name="NormalX">Unit vector inwards.</param>
/// <param name="NormalY">Unit vector inwards.</param>
/// <param name="Along">Way along the ring to it, mm.</param>
/// <param name="Radius">Of the disc, mm, up to what was asked for.</param>
/// <param name="Faces">Whether the disc touches an edge that faces this one, not just the next round a corner.</param>
/// <param name="OtherRing">Ring that it touches.</param>
/// <param name="OtherAlong">Where, as way along that ring, mm.</param>
internal readonly record struct Rib(Point Foot, double NormalX, double NormalY, double Along, double Radius, bool Faces, int OtherRing,
    double OtherAlong)
{
    /// <summary>The point at a depth.</summary>
    public Point At(double depth) => new(Foot.X + depth * NormalX, Foot.Y + depth * NormalY);

    /// <summary>A place between this rib and the next.</summary>
    public Rib Towards(Rib next, double share)
    {
        var (x, y) = (NormalX + share * (next.NormalX - NormalX), NormalY + share * (next.NormalY - NormalY));
        var length = Math.Sqrt(x * x + y * y);
        return this with
        {
            Foot = new Point(Foot.X + share * (next.Foot.X - Foot.X), Foot.Y + share * (next.Foot.Y - Foot.Y)),
            NormalX = length > 0 ? x / length : NormalX,
            NormalY = length > 0 ? y / length : NormalY,
            Radius = Radius + share * (next.Radius - Radius),
        };
    }
}
