namespace MillCard.Core.Slicing.Closing;

/// <summary>A straight stretch of a line of plastic.</summary>
/// <param name="From">Where it begins, mm.</param>
/// <param name="To">Where it ends, mm.</param>
/// <param name="HalfFrom">Half of its width where it begins, mm.</param>
/// <param name="HalfTo">Half of its width where it ends, mm.</param>
/// <param name="Path">Number of the line that it is of.</param>
/// <param name="Point">Number of the line's point at which it begins; the complement of the way's number where it leads aside.</param>
internal readonly record struct Stroke(Point From, Point To, double HalfFrom, double HalfTo, int Path, int Point)
{
    /// <summary>A place on it, and half of the width there, mm.</summary>
    public (Point At, double Half) At(double share) => (From.Towards(To, share), HalfFrom + share * (HalfTo - HalfFrom));

    /// <summary>How far a place is from the plastic, mm, less than 0 in it, and the share of the stretch at which it is nearest.</summary>
    public (double Free, double Share) Off(Point place)
    {
        var share = From.NearestShare(To, place);
        var (near, half) = At(share);
        return (place.To(near) - half, share);
    }

    /// <summary>Whether a place is surely farther than so much from the plastic: most are, and are told so without a division.</summary>
    public bool IsFarther(Point place, double free)
    {
        var reach = free + Math.Max(HalfFrom, HalfTo);
        if (reach <= 0) return true;
        var (dx, dy, x, y) = (To.X - From.X, To.Y - From.Y, place.X - From.X, place.Y - From.Y);
        var (along, square) = (dx * x + dy * y, dx * dx + dy * dy);
        if (along < 0) return x * x + y * y > reach * reach;
        var across = dx * y - dy * x;
        return along <= square ? across * across > reach * reach * square
            : (x - dx) * (x - dx) + (y - dy) * (y - dy) > reach * reach;
    }

    /// <summary>How far a place is from the straight line along the stretch, mm.</summary>
    public double FromLine(Point place) =>
        Math.Abs((To.X - From.X) * (place.Y - From.Y) - (To.Y - From.Y) * (place.X - From.X)) / From.To(To);
}
